// The mode and how many: the first free addresses are offered, and names and numbers go on from the last.

import { useMemo, useState } from 'react';
import { router } from 'expo-router';
import { useWatch } from 'react-hook-form';
import { z } from 'zod';
import {
  clashes,
  firstRun,
  footprint,
  lampsOf,
  nameOfChannel,
  roleFor,
  runLength,
  type Fixture,
  type Profile,
  type Rig,
} from '@hovlix/core/rig';
import type { Show } from '@hovlix/core/show';
import { address, universe } from '@hovlix/core/units';
import { freshId } from '../../host/fresh-id';
import { useHovlix } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { ChoiceEntry, Entry, typed, typedOrOffered, useEntries } from '../../ui/entry';
import { Pair, wholeNumber } from '../../ui/form';
import { LampPicture } from '../../ui/LampPicture';
import { Button, Figures, Quiet, Row, Words } from '../../ui/pieces';
import { Sheet } from '../../ui/Sheet';
import { Switch } from '../../ui/Switch';
import { useTypeHabits } from './types/habits';
import { WORDS } from './words';

type Props = {
  readonly show: Show;
  readonly rig: Rig;
  readonly profile: Profile;
  readonly onBack: () => void;
  readonly onClose: () => void;
};

/** What is asked about lamps of a type. */
const placementOf = ({ modes }: Profile) =>
  z
    .object({
      mode: z.string().transform((id) => modes.find((one) => one.id === id) ?? modes[0]!),
      count: typed(wholeNumber(1, 512)),
      universe: typed(wholeNumber(1, 63999)).transform(universe),
      start: typedOrOffered(wholeNumber(1, 512)),
      apart: typedOrOffered(wholeNumber(1, 512)),
    })
    .superRefine(({ mode, apart }, context) => {
      const least = footprint(mode);
      if (apart !== null && apart < least)
        context.addIssue({ code: 'custom', path: ['apart'], message: WORDS.atLeast(least) });
    });

export function HowMany({ show, rig, profile, onBack, onClose }: Props) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const noteUse = useTypeHabits((habits) => habits.noteUse);
  const [together, setTogether] = useState(false);
  const placement = useMemo(() => placementOf(profile), [profile]);
  const { control, handleSubmit, getValues } = useEntries(placement, {
    mode: profile.modes[0]!.id,
    count: '1',
    universe: String(rig.fixtures.at(-1)?.universe ?? 1),
    start: '',
    apart: '',
  });
  const texts = { ...getValues(), ...useWatch({ control }) };
  const asked = placement.safeParse(texts);
  const planned = asked.success ? plan(show, rig, profile, { ...asked.data, together }) : undefined;
  const mode = profile.modes.find((one) => one.id === texts.mode) ?? profile.modes[0]!;
  const add = handleSubmit(() => {
    if (!planned?.lamps) return;
    const { lamps } = planned;
    const role = roleFor(rig, show.profiles, show.roles, profile, freshId());
    app.document.make({ type: 'add-lamps', rig: rig.id, profile, fixtures: [...lamps], role });
    say(WORDS.joinedTheRole(named(lamps), role.name), { undo: app.document.takingBack() });
    noteUse(profile.id);
    onClose();
  });
  const line = { control, numeric: true, onEnter: () => void add() };
  return (
    <Sheet title={profile.model} onClose={onClose}>
      <Row gap={14}>
        <LampPicture of={profile} size={64} />
        <Quiet>
          {profile.maker} · {profile.kind}
        </Quiet>
      </Row>
      <ChoiceEntry
        control={control}
        name="mode"
        label={WORDS.modeAsSet}
        choices={profile.modes.map((one) => ({ value: one.id, name: modeName(one) }))}
      />
      <Pair>
        <Entry {...line} name="count" label={WORDS.howMany} />
        <Entry {...line} name="universe" label={WORDS.universe} />
      </Pair>
      <Pair>
        <Entry
          {...line}
          name="start"
          label={WORDS.firstAddress}
          offered={planned && String(planned.offered ?? 1)}
          hint={planned && texts.start === '' ? 'the first free run' : undefined}
        />
        <Entry
          {...line}
          name="apart"
          label={WORDS.addressesApart}
          offered={String(footprint(mode))}
          hint={WORDS.moreLeavesGaps}
        />
      </Pair>
      {planned?.wrong && <Words color={planned.start === undefined ? '$warn' : '$fault'}>{planned.wrong}</Words>}
      {planned?.lamps && (
        <Words>
          {named(planned.lamps)}
          {WORDS.addresses}
          <Figures color="$text">{planned.lamps[0]!.address}</Figures>
          {WORDS.to} <Figures color="$text">{planned.lamps.at(-1)!.address + footprint(mode) - 1}</Figures>
        </Words>
      )}
      <Row gap={12} flexWrap="wrap">
        <Button kind="primary" disabled={planned !== undefined && !planned.lamps} onPress={() => void add()}>
          {texts.count === '1' ? WORDS.addThisLamp : WORDS.addSomeLamps(asked.success ? asked.data.count : texts.count)}
        </Button>
        <Button onPress={onBack}>{WORDS.anotherType}</Button>
        <Button
          kind="quiet"
          onPress={() => {
            if (!show.profiles.some(({ id }) => id === profile.id)) app.document.make({ type: 'add-profile', profile });
            router.push(`/rig/type/${profile.id}`);
          }}
        >
          {WORDS.editType}
        </Button>
      </Row>
      {/* Below, so that the buttons stay where they are as one types how many. */}
      {texts.count !== '1' && <Switch label={WORDS.allOneAddress} on={together} onChange={setTogether} />}
    </Sheet>
  );
}

type Asked = z.output<ReturnType<typeof placementOf>> & { readonly together: boolean };

type Plan = {
  /** The first free run of addresses. */
  readonly offered: number | undefined;
  /** Where they would begin. */
  readonly start: number | undefined;
  /** Why that cannot be. */
  readonly wrong?: string;
  readonly lamps?: readonly Fixture[];
};

/** Where lamps would go, or why they cannot go there. */
function plan(show: Show, rig: Rig, profile: Profile, { apart, start: typedStart, ...asked }: Asked): Plan {
  const wanted = { profile, ...asked, block: apart ?? 0 };
  const profiles = [...show.profiles, profile];
  const offered = firstRun(rig, profiles, wanted);
  const start = typedStart ?? offered;
  const length = runLength(wanted);
  if (start === undefined) return { offered, start, wrong: WORDS.universeHasNo(asked.universe, length) };
  if (start + length > 513) return { offered, start, wrong: WORDS.lastLampWould(start + length - 1, 513 - length) };
  const inTheWay = clashes(rig, profiles, wanted, address(start));
  if (inTheWay.length > 0) {
    const names = inTheWay.slice(0, 4).join(', ');
    return { offered, start, wrong: WORDS.thereAlready(names, inTheWay.length === 1 ? 'is' : 'are') };
  }
  return { offered, start, lamps: lampsOf(rig, wanted, address(start), () => freshId()) };
}

function named(lamps: readonly { readonly name: string }[]): string {
  return lamps.length === 1 ? lamps[0]!.name : `${lamps[0]!.name} … ${lamps.at(-1)!.name}`;
}

function modeName(mode: Profile['modes'][number]): string {
  const first = mode.channels.slice(0, 4).map(nameOfChannel);
  return `${mode.name}: ${first.join(', ')}${mode.channels.length > 4 ? ' …' : ''}`;
}
