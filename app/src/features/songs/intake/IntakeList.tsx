// Recordings that were brought in: how far each is, and what was found, to be checked at a glance.

import { router } from 'expo-router';
import X from 'lucide-react-native/icons/x';
import { View } from '@tamagui/core';
import { useStore } from 'zustand';
import type { Song } from '@hovlix/core/song';
import type { IntakeItem } from '../../../host/files/intake';
import { useHovlix, useShow } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { usePalette } from '../../../ui/palette';
import { Button, Column, Figures, Quiet, Row, Words } from '../../../ui/pieces';
import { meterText, songBpm } from '../model';
import { gridAt, useReadings } from '../readings';
import { WORDS } from './words';

/** Beats surer than this need no look. */
const SURE = 0.8;

export function IntakeList() {
  const { intake } = useHovlix();
  const songs = useShow((show) => show.songs);
  const open = useShow((show) => show.id);
  const all = useStore(intake.store, (state) => state.items);
  const songOf = ({ found }: IntakeItem) => songs?.find(({ id }) => id === found?.song);
  // What became a song that is gone since has nothing to tell.
  const items = all.filter((item) => item.show === open && (item.state !== 'found' || songOf(item)));
  if (items.length === 0) return null;
  const done = items.filter(({ state }) => state === 'found' || state === 'failed');
  const doubtful = items.filter(({ found }) => found && found.sure < SURE).length;
  return (
    <Column
      margin={12}
      marginTop={0}
      padding={16}
      gap={12}
      borderRadius={14}
      backgroundColor="$raised"
      role="group"
      aria-label={WORDS.broughtIn}
    >
      <Row gap={8} justifyContent="space-between">
        <Column flex={1} minWidth={0}>
          <Words fontWeight="600" role="status">
            {WORDS.ofDone(done.length, items.length)}
          </Words>
          {doubtful > 0 && <Quiet>{doubtful === 1 ? '1 to check.' : WORDS.toCheck(doubtful)}</Quiet>}
        </Column>
        {done.length > 0 && (
          <Button onPress={() => done.forEach(({ id }) => intake.drop(id))}>{WORDS.clearTheList}</Button>
        )}
      </Row>
      {items.map((item) => {
        const song = songOf(item);
        return song ? (
          <Found
            key={item.id}
            item={item}
            song={song}
            like={songs?.find(({ id }) => id === item.found?.like)}
            onDrop={() => intake.drop(item.id)}
          />
        ) : (
          <Coming key={item.id} item={item} onDrop={() => intake.drop(item.id)} />
        );
      })}
    </Column>
  );
}

type Props = { readonly item: IntakeItem; readonly onDrop: () => void };

function Coming({ item: { name, state, share, wrong }, onDrop }: Props) {
  const palette = usePalette();
  const say = useSession((session) => session.say);
  const ended = state === 'failed';
  const drop = () => {
    onDrop();
    if (!ended) say(WORDS.cancelledNothingWas);
  };
  const percent = Math.round(share * 100);
  return (
    <Row gap={12}>
      <Column flex={1} minWidth={0} gap={6}>
        <Words numberOfLines={1}>{state === 'listening' ? WORDS.listeningTo(name) : name}</Words>
        {state === 'listening' ? (
          <View
            height={8}
            borderRadius={4}
            backgroundColor="$well"
            overflow="hidden"
            role="progressbar"
            aria-label={WORDS.listeningTo(name)}
            aria-valuenow={percent}
          >
            <View height={8} width={`${percent}%`} backgroundColor="$doing" />
          </View>
        ) : (
          <Quiet role={ended ? 'alert' : undefined}>
            {ended ? wrong : state === 'kept' ? 'is being kept' : 'waits'}
          </Quiet>
        )}
      </Column>
      <Button label={ended ? WORDS.clear(name) : WORDS.cancel(name)} kind="quiet" onPress={drop}>
        <X size={20} color={palette.text} aria-hidden />
      </Button>
    </Row>
  );
}

type FoundProps = Props & { readonly song: Song; readonly like: Song | undefined };

function Found({ item, song, like, onDrop }: FoundProps) {
  const palette = usePalette();
  const { document } = useHovlix();
  const { busy, ask, take } = useReadings(song);
  const say = useSession((session) => session.say);
  const sure = (item.found?.sure ?? 1) >= SURE;
  const takeOut = () => {
    document.make({ type: 'remove-song', song: song.id });
    say(WORDS.outShowAgain(song.title), { undo: document.takingBack() });
  };
  const count = async (factor: 0.5 | 2) => {
    const readings = await ask();
    const other = readings && gridAt(readings, songBpm(song) * factor);
    if (other) take(other);
    else if (readings) say(WORDS.nothingLikeWas(song.title), { tone: 'bad' });
  };
  return (
    <Column gap={6}>
      <Row gap={8}>
        <Column flex={1} minWidth={0}>
          <Words numberOfLines={1}>{song.title}</Words>
          <Figures>{WORDS.bpm(songBpm(song).toFixed(1), meterText(song), sure ? '' : ' · not sure')}</Figures>
        </Column>
        <Button label={WORDS.clear(item.name)} kind="quiet" onPress={onDrop}>
          <X size={20} color={palette.text} aria-hidden />
        </Button>
      </Row>
      {like && <Quiet>{WORDS.anotherFileWhich(like.title)}</Quiet>}
      {item.back && <Quiet>{WORDS.isBack(item.name)}</Quiet>}
      <Row gap={8} flexWrap="wrap">
        {like && (
          <Button label={WORDS.takeOutAgain(song.title)} kind="primary" onPress={takeOut}>
            {WORDS.takeItOut}
          </Button>
        )}
        <Button
          label={WORDS.checkNamed(song.title)}
          kind={sure || like ? 'plain' : 'primary'}
          onPress={() => router.push(`/songs/${song.id}`)}
        >
          {WORDS.check}
        </Button>
        {!like && !item.back && (
          <>
            <Button label={WORDS.halfTempo(song.title)} disabled={busy} onPress={() => void count(0.5)}>
              {WORDS.half}
            </Button>
            <Button label={WORDS.doubleTempo(song.title)} disabled={busy} onPress={() => void count(2)}>
              {WORDS.double}
            </Button>
          </>
        )}
      </Row>
    </Column>
  );
}
