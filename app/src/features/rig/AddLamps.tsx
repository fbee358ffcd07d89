// Say the type, the mode and how many: the first free addresses are offered, and names and numbers go on from the last.

import { useMemo, useRef, useState } from 'react';
import { router } from 'expo-router';
import Star from 'lucide-react-native/icons/star';
import { View } from '@tamagui/core';
import { wordsFor } from '@hovlix/core/problem';
import {
  blankType,
  clashes,
  firstRun,
  fixtureLibrary,
  footprint,
  lampsOf,
  roleFor,
  runLength,
  searchTypes,
  typeFromChart,
  type Profile,
  type Rig,
} from '@hovlix/core/rig';
import type { Show } from '@hovlix/core/show';
import { address, universe } from '@hovlix/core/units';
import { zipFormats } from '../../host/files/formats';
import { freshId } from '../../host/fresh-id';
import { useHovlix } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { Field } from '../../ui/Field';
import { Choose, Typed, wholeNumber } from '../../ui/form';
import { LampPicture } from '../../ui/LampPicture';
import { Button, Column, Figures, Quiet, Row, Words } from '../../ui/pieces';
import { usePalette } from '../../ui/palette';
import { Sheet } from '../../ui/Sheet';
import { Switch } from '../../ui/Switch';
import { ChartSheet } from './types/ChartSheet';
import { useTypeHabits } from './types/habits';
import { WORDS } from './words';

type Props = { readonly show: Show; readonly rig: Rig; readonly onClose: () => void };

/** @param first a type of the show to begin with. */
export function AddLamps({ show, rig, first, onClose }: Props & { readonly first: string | null }) {
  const [chosen, setChosen] = useState<Profile | null>(show.profiles.find(({ id }) => id === first) ?? null);
  if (!chosen) return <ChooseType show={show} onChoose={setChosen} onClose={onClose} />;
  return <HowMany show={show} rig={rig} profile={chosen} onBack={() => setChosen(null)} onClose={onClose} />;
}

type TypeProps = {
  readonly show: Show;
  readonly onChoose: (profile: Profile) => void;
  readonly onClose: () => void;
};

function ChooseType({ show, onChoose, onClose }: TypeProps) {
  const app = useHovlix();
  const palette = usePalette();
  const say = useSession((session) => session.say);
  const { favourites, recent, toggleFavourite } = useTypeHabits();
  const [text, setText] = useState('');
  const [chart, setChart] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  // Favourites first, then what was used last, then what the show has: a band buys more of what it has.
  const types = useMemo(() => {
    const own = new Set(show.profiles.map((profile) => profile.id));
    const all = [...show.profiles, ...fixtureLibrary().filter((profile) => !own.has(profile.id))];
    const rank = ({ id }: Profile) => {
      if (favourites.includes(id)) return -1000;
      const last = recent.indexOf(id);
      return last >= 0 ? last - 500 : own.has(id) ? -1 : 0;
    };
    return [...all].sort((a, b) => rank(a) - rank(b));
  }, [show.profiles, favourites, recent]);
  const found = searchTypes(types, text);
  const create = (type: Profile) => {
    app.document.make({ type: 'add-profile', profile: type });
    router.push(`/rig/type/${type.id}`);
  };
  const bring = async (chosen: File) => {
    const { readGdtf } = await zipFormats();
    const read = readGdtf(new Uint8Array(await chosen.arrayBuffer()), chosen.name, freshId());
    if (!read.ok) return say(wordsFor(read.problem), { tone: 'bad' });
    const { profile, notKept } = read.value;
    app.document.make({ type: 'add-profile', profile });
    say(
      `${profile.maker} ${profile.model} is in, with ${profile.modes.length} ${profile.modes.length === 1 ? 'mode' : 'modes'}.${notKept.length > 0 ? ` Not kept: ${notKept.join('; ')}.` : ''}`,
    );
    onChoose(profile);
  };
  if (chart)
    return (
      <ChartSheet
        title={WORDS.typeFromIts}
        onClose={() => setChart(false)}
        onUse={(read) => {
          const blank = blankType(freshId());
          create(typeFromChart(blank, read, blank.modes[0]!.id));
          const left = read.unsettled.length;
          say(
            `${read.channels.length} channels are in. Give it a name${left > 0 ? `, and settle ${left === 1 ? 'one thing' : WORDS.things(left)}` : ''}.`,
          );
        }}
      />
    );
  return (
    <Sheet title={WORDS.addLamps} onClose={onClose}>
      <Field label={WORDS.searchLamps} value={text} onChange={setText} placeholder={WORDS.makerModelKind} />
      {found.length === 0 && <Words>{WORDS.noLampMatches}</Words>}
      <Row gap={8} flexWrap="wrap">
        <Button onPress={() => setChart(true)}>{WORDS.pasteAChart}</Button>
        <Button onPress={() => file.current?.click()}>{WORDS.gdtfFile}</Button>
        <Button onPress={() => create(blankType(freshId()))}>{WORDS.blank}</Button>
      </Row>
      <input
        ref={file}
        type="file"
        accept=".gdtf"
        aria-label={WORDS.gdtfFile}
        style={{ display: 'none' }}
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          event.target.value = '';
          if (chosen) void bring(chosen);
        }}
      />
      <Column gap={4}>
        {found.map((profile) => {
          const favourite = favourites.includes(profile.id);
          const name = profile.maker === 'Generic' ? profile.model : `${profile.maker} ${profile.model}`;
          return (
            <Row key={profile.id} marginHorizontal={-12}>
              <View
                render="button"
                onPress={() => onChoose(profile)}
                flex={1}
                minWidth={0}
                minHeight={52}
                paddingHorizontal={12}
                borderRadius={12}
                borderWidth={0}
                backgroundColor="transparent"
                hoverStyle={{ backgroundColor: '$well' }}
                pressStyle={{ backgroundColor: '$well' }}
                cursor="pointer"
                flexDirection="row"
                alignItems="center"
                gap={12}
              >
                <LampPicture of={profile} />
                <Column flex={1} minWidth={0}>
                  <Words fontWeight="600" textAlign="left">
                    {name}
                  </Words>
                  <Quiet textAlign="left">
                    {profile.kind} · {channelWords(profile)}
                  </Quiet>
                </Column>
              </View>
              <Button
                label={favourite ? WORDS.isAFavourite(name) : WORDS.makeAFavourite(name)}
                pressed={favourite}
                kind="quiet"
                onPress={() => toggleFavourite(profile.id)}
              >
                <Star
                  size={18}
                  color={favourite ? palette.doingText : palette.faint}
                  fill={favourite ? palette.doingText : 'none'}
                  aria-hidden
                />
              </Button>
            </Row>
          );
        })}
      </Column>
    </Sheet>
  );
}

/** How many channels it takes, in each of its modes: “4, 7 channels”. */
function channelWords({ modes }: Profile): string {
  const counts = modes.map((mode) => footprint(mode));
  return `${counts.join(', ')} ${counts.length === 1 && counts[0] === 1 ? 'channel' : 'channels'}`;
}

type CountProps = Props & { readonly profile: Profile; readonly onBack: () => void };

function HowMany({ show, rig, profile, onBack, onClose }: CountProps) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const [modeId, setMode] = useState<string>(profile.modes[0]!.id);
  const [count, setCount] = useState(1);
  const [number, setNumber] = useState<number>(rig.fixtures.at(-1)?.universe ?? 1);
  const [block, setBlock] = useState(0);
  const [together, setTogether] = useState(false);
  const noteUse = useTypeHabits((habits) => habits.noteUse);
  const [asked, setAsked] = useState<number | null>(null);
  const mode = profile.modes.find((one) => one.id === modeId) ?? profile.modes[0]!;
  const wanted = { profile, mode, count, universe: universe(number), block, together };
  const profiles = [...show.profiles, profile];
  const offered = firstRun(rig, profiles, wanted);
  const start = asked ?? offered;
  const length = runLength(wanted);
  const past = start !== undefined && start + length > 513;
  const inTheWay = start === undefined || past ? [] : clashes(rig, profiles, wanted, address(start));
  const free = start !== undefined && !past && inTheWay.length === 0;
  const lamps = free ? lampsOf(rig, wanted, address(start), () => freshId()) : [];
  const add = () => {
    const role = roleFor(rig, show.profiles, show.roles, profile, freshId());
    app.document.make({ type: 'add-lamps', rig: rig.id, profile, fixtures: [...lamps], role });
    say(WORDS.joinedTheRole(named(lamps), role.name), { undo: app.document.takingBack() });
    noteUse(profile.id);
    onClose();
  };
  return (
    <Sheet title={profile.model} onClose={onClose}>
      <Row gap={14}>
        <LampPicture of={profile} size={64} />
        <Quiet>
          {profile.maker} · {profile.kind}
        </Quiet>
      </Row>
      <Choose
        label={WORDS.modeAsSet}
        value={modeId}
        choices={profile.modes.map((one) => ({ value: one.id, name: modeName(one) }))}
        onChoose={setMode}
      />
      <Row gap={12} alignItems="flex-start">
        <Column flex={1}>
          <Typed label={WORDS.howMany} numeric value={count} read={wholeNumber(1, 512)} onChange={setCount} />
        </Column>
        <Column flex={1}>
          <Typed label={WORDS.universe} numeric value={number} read={wholeNumber(1, 63999)} onChange={setNumber} />
        </Column>
      </Row>
      <Row gap={12} alignItems="flex-start">
        <Column flex={1}>
          <Typed
            key={`start ${offered} ${asked}`}
            label={WORDS.firstAddress}
            numeric
            value={start ?? 1}
            hint={asked === null ? 'the first free run' : undefined}
            read={wholeNumber(1, 512)}
            onChange={setAsked}
          />
        </Column>
        <Column flex={1}>
          <Typed
            label={WORDS.addressesApart}
            numeric
            value={Math.max(block, footprint(mode))}
            hint={WORDS.moreLeavesGaps}
            read={wholeNumber(footprint(mode), 512)}
            onChange={setBlock}
          />
        </Column>
      </Row>
      {count > 1 && <Switch label={WORDS.allOneAddress} on={together} onChange={setTogether} />}
      {start === undefined && <Words color="$warn">{WORDS.universeHasNo(number, length)}</Words>}
      {past && <Words color="$fault">{WORDS.lastLampWould(start + length - 1, 513 - length)}</Words>}
      {inTheWay.length > 0 && (
        <Words color="$fault">
          {WORDS.thereAlready(inTheWay.slice(0, 4).join(', '), inTheWay.length === 1 ? 'is' : 'are')}
        </Words>
      )}
      {free && (
        <Words>
          {named(lamps)}
          {WORDS.addresses}
          <Figures color="$text">{lamps[0]!.address}</Figures>
          {WORDS.to} <Figures color="$text">{lamps.at(-1)!.address + footprint(mode) - 1}</Figures>
        </Words>
      )}
      <Row gap={12} flexWrap="wrap">
        <Button kind="primary" disabled={!free} onPress={add}>
          {count === 1 ? WORDS.addThisLamp : WORDS.addLamps2(count)}
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
