// Say the type, the mode and how many: the first free addresses are offered, and names and numbers go on from the last.

import { useMemo, useState } from 'react';
import { View } from '@tamagui/core';
import {
  clashes,
  firstRun,
  fixtureLibrary,
  footprint,
  lampsOf,
  partFor,
  runLength,
  searchTypes,
  type Profile,
  type Rig,
} from '@hovlix/core/rig';
import type { Show } from '@hovlix/core/show';
import { address, universe } from '@hovlix/core/units';
import { freshId } from '../../host/fresh-id';
import { useHovlix } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { Field } from '../../ui/Field';
import { Choose, Typed, wholeNumber } from '../../ui/form';
import { Button, Column, Figures, Quiet, Row, Words } from '../../ui/pieces';
import { Sheet } from '../../ui/Sheet';

type Props = { readonly show: Show; readonly rig: Rig; readonly onClose: () => void };

export function AddLamps({ show, rig, onClose }: Props) {
  const [chosen, setChosen] = useState<Profile | null>(null);
  if (!chosen) return <ChooseType show={show} onChoose={setChosen} onClose={onClose} />;
  return <HowMany show={show} rig={rig} profile={chosen} onBack={() => setChosen(null)} onClose={onClose} />;
}

type TypeProps = {
  readonly show: Show;
  readonly onChoose: (profile: Profile) => void;
  readonly onClose: () => void;
};

function ChooseType({ show, onChoose, onClose }: TypeProps) {
  const [text, setText] = useState('');
  // What the show has already goes first: a band buys more of what it has.
  const types = useMemo(() => {
    const own = new Set(show.profiles.map((profile) => profile.id));
    return [...show.profiles, ...fixtureLibrary().filter((profile) => !own.has(profile.id))];
  }, [show.profiles]);
  const found = searchTypes(types, text);
  return (
    <Sheet title="Add lamps" onClose={onClose}>
      <Field label="Search lamps" value={text} onChange={setText} placeholder="Maker, model, kind or 16ch" />
      {found.length === 0 && (
        <Words>Nothing here is called that. Try the kind and the number of channels, like “par 7ch”.</Words>
      )}
      <Column gap={4}>
        {found.map((profile) => (
          <View
            key={profile.id}
            render="button"
            onPress={() => onChoose(profile)}
            minHeight={52}
            paddingHorizontal={12}
            marginHorizontal={-12}
            borderRadius={12}
            borderWidth={0}
            backgroundColor="transparent"
            hoverStyle={{ backgroundColor: '$well' }}
            pressStyle={{ backgroundColor: '$well' }}
            cursor="pointer"
            justifyContent="center"
            alignItems="flex-start"
          >
            <Words fontWeight="600" textAlign="left">
              {profile.maker === 'Generic' ? profile.model : `${profile.maker} ${profile.model}`}
            </Words>
            <Quiet textAlign="left">
              {profile.kind} · {profile.modes.map((mode) => footprint(mode)).join(', ')} channels
            </Quiet>
          </View>
        ))}
      </Column>
    </Sheet>
  );
}

type CountProps = Props & { readonly profile: Profile; readonly onBack: () => void };

function HowMany({ show, rig, profile, onBack, onClose }: CountProps) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const [modeId, setMode] = useState<string>(profile.modes[0]!.id);
  const [count, setCount] = useState(1);
  const [number, setNumber] = useState<number>(rig.fixtures.at(-1)?.universe ?? 1);
  const [block, setBlock] = useState(0);
  const [asked, setAsked] = useState<number | null>(null);
  const mode = profile.modes.find((one) => one.id === modeId) ?? profile.modes[0]!;
  const wanted = { profile, mode, count, universe: universe(number), block };
  const profiles = [...show.profiles, profile];
  const offered = firstRun(rig, profiles, wanted);
  const start = asked ?? offered;
  const length = runLength(wanted);
  const past = start !== undefined && start + length > 513;
  const inTheWay = start === undefined || past ? [] : clashes(rig, profiles, wanted, address(start));
  const free = start !== undefined && !past && inTheWay.length === 0;
  const lamps = free ? lampsOf(rig, wanted, address(start), () => freshId()) : [];
  const add = () => {
    const part = partFor(rig, show.profiles, show.parts, profile, freshId());
    app.document.make({ type: 'add-lamps', rig: rig.id, profile, fixtures: [...lamps], part });
    say(`${named(lamps)} joined the part “${part.name}”.`, { undo: () => app.document.undo() });
    onClose();
  };
  return (
    <Sheet title={profile.model} onClose={onClose}>
      <Choose
        label="Mode, as set in the lamp’s menu"
        value={modeId}
        choices={profile.modes.map((one) => ({ value: one.id, name: modeName(one) }))}
        onChoose={setMode}
      />
      <Row gap={12} alignItems="flex-start">
        <Column flex={1}>
          <Typed label="How many" numeric value={count} read={wholeNumber(1, 512)} onChange={setCount} />
        </Column>
        <Column flex={1}>
          <Typed label="Universe" numeric value={number} read={wholeNumber(1, 63999)} onChange={setNumber} />
        </Column>
      </Row>
      <Row gap={12} alignItems="flex-start">
        <Column flex={1}>
          <Typed
            key={`start ${offered} ${asked}`}
            label="First address"
            numeric
            value={start ?? 1}
            hint={asked === null ? 'the first free run' : undefined}
            read={wholeNumber(1, 512)}
            onChange={setAsked}
          />
        </Column>
        <Column flex={1}>
          <Typed
            label="Addresses apart"
            numeric
            value={Math.max(block, footprint(mode))}
            hint="more leaves gaps, like 16"
            read={wholeNumber(footprint(mode), 512)}
            onChange={setBlock}
          />
        </Column>
      </Row>
      {start === undefined && (
        <Words color="$warn">
          Universe {number} has no room for {length} addresses in a row. Take another universe, or fewer lamps.
        </Words>
      )}
      {past && (
        <Words color="$fault">
          The last lamp would end at {start + length - 1}. A universe ends at 512. Begin at {513 - length} or before.
        </Words>
      )}
      {inTheWay.length > 0 && (
        <Words color="$fault">
          {inTheWay.slice(0, 4).join(', ')} {inTheWay.length === 1 ? 'is' : 'are'} there already.
        </Words>
      )}
      {free && (
        <Words>
          {named(lamps)}, addresses <Figures color="$text">{lamps[0]!.address}</Figures> to{' '}
          <Figures color="$text">{lamps.at(-1)!.address + footprint(mode) - 1}</Figures>
        </Words>
      )}
      <Row gap={12}>
        <Button kind="primary" disabled={!free} onPress={add}>
          {count === 1 ? 'Add this lamp' : `Add ${count} lamps`}
        </Button>
        <Button onPress={onBack}>Another type</Button>
      </Row>
    </Sheet>
  );
}

function named(lamps: readonly { readonly name: string }[]): string {
  return lamps.length === 1 ? lamps[0]!.name : `${lamps[0]!.name} … ${lamps.at(-1)!.name}`;
}

function modeName(mode: Profile['modes'][number]): string {
  const first = mode.channels.slice(0, 4).map((channel) => channel.attribute.replace('ColorAdd_', ''));
  return `${mode.name}: ${first.join(', ')}${mode.channels.length > 4 ? ' …' : ''}`;
}
