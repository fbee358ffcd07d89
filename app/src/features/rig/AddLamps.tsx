// Lamps join the rig: first their type is chosen, then how many there are, and where.

import { useMemo, useState } from 'react';
import { router } from 'expo-router';
import Star from 'lucide-react-native/icons/star';
import { View } from '@tamagui/core';
import { wordsFor } from '@hovlix/core/problem';
import {
  blankType,
  fixtureLibrary,
  footprint,
  searchTypes,
  typeFromChart,
  type Profile,
  type Rig,
} from '@hovlix/core/rig';
import type { Show } from '@hovlix/core/show';
import { zipFormats } from '../../host/files/formats';
import { freshId } from '../../host/fresh-id';
import { useHovlix } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { Field } from '../../ui/Field';
import { FileButton } from '../../ui/FileButton';
import { LampPicture } from '../../ui/LampPicture';
import { Button, Column, Quiet, Row, Words } from '../../ui/pieces';
import { usePalette } from '../../ui/palette';
import { Sheet } from '../../ui/Sheet';
import { HowMany } from './HowMany';
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
        <FileButton label={WORDS.gdtfFile} accept=".gdtf" onFiles={([chosen]) => chosen && void bring(chosen)}>
          {WORDS.gdtfFile}
        </FileButton>
        <Button onPress={() => create(blankType(freshId()))}>{WORDS.blank}</Button>
      </Row>
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
