// Which song it is, in large type, and the button that plays it.

import { useEffect, useRef } from 'react';
import { Text, useMedia, View, type TamaguiWebElement } from '@tamagui/core';
import Ellipsis from 'lucide-react-native/icons/ellipsis';
import { useQuery } from '@tanstack/react-query';
import { useStore } from 'zustand';
import ListMusic from 'lucide-react-native/icons/list-music';
import Pause from 'lucide-react-native/icons/pause';
import Play from 'lucide-react-native/icons/play';
import { placeAt, songTimeAt, stopWords, timeLeft, toStop, type Moment } from '@hovlix/core/live';
import type { Song } from '@hovlix/core/song';
import { hasMusicQuery } from '../../../data/queries';
import { run } from '../../../host/controls/act';
import { momentOf, togglePlay } from '../../../host/conduct/gestures';
import { useHovlix, useLive, useMay, useShow, type Hovlix } from '../../../host/hovlix';
import { usePalette } from '../../../ui/palette';
import { Button, Column, Figures, Quiet, Row } from '../../../ui/pieces';
import { clockText, timeOfDay } from '../../../ui/clock-text';
import { useMoment } from '../use-moment';
import { WORDS } from './words';

/** The song that is on, or that the set has come to. */
export function songOfStop(moment: Moment): Song | undefined {
  const { show, live } = moment;
  const { stops, at } = placeAt(moment);
  const playing = live.song?.playing ? live.song.id : undefined;
  const stop = stops[at];
  if (!playing && stop)
    return 'song' in stop
      ? stop.song
      : show.songs.find(({ id }) => stop.entry.kind === 'song' && stop.entry.song === id);
  const first = stops.find((one) => 'song' in one);
  const chosen = show.songs.find(({ id }) => id === (playing ?? live.song?.id));
  return chosen ?? (first && 'song' in first ? first.song : show.songs[0]);
}

type HeadProps = { readonly song: Song | undefined; readonly onSet: () => void; readonly onStage: () => void };

export function Head({ song, onSet, onStage }: HeadProps) {
  const palette = usePalette();
  const { wide } = useMedia();
  const title = useMoment((moment) => headTitle(moment)) ?? '';
  const where = useMoment((moment) => {
    const { set, stops, at } = placeAt(moment);
    const here = set.entries.findIndex(({ id }) => id === stops[at]?.entry.id);
    return here < 0
      ? WORDS.toPlay(set.name, set.entries.length)
      : `${here + 1} of ${set.entries.length}${wide ? ` · ${set.name}` : ''}`;
  });
  return (
    <Column gap={0}>
      <Row justifyContent="space-between" gap={8}>
        {wide ? (
          <Quiet numberOfLines={1}>{where}</Quiet>
        ) : (
          <View
            render="button"
            aria-label={WORDS.setList}
            onPress={onSet}
            flexDirection="row"
            alignItems="center"
            gap={8}
            minHeight={44}
            padding={0}
            borderWidth={0}
            backgroundColor="transparent"
            cursor="pointer"
            flexShrink={1}
            minWidth={0}
          >
            <ListMusic size={20} color={palette.text} aria-hidden style={{ flexShrink: 0 }} />
            <Quiet numberOfLines={1} color="$text" fontWeight="600">
              {where}
            </Quiet>
          </View>
        )}
        <Row gap={2} flexShrink={0}>
          <Clock />
          <Button label={WORDS.stageLockLarge} kind="quiet" onPress={onStage}>
            <Ellipsis size={22} color={palette.text} aria-hidden />
          </Button>
        </Row>
      </Row>
      <Row justifyContent="space-between" gap={12}>
        <Text
          render="h1"
          margin={0}
          flexShrink={1}
          fontFamily="$heading"
          fontWeight="650"
          fontSize={title.length > 18 ? 25 : 31}
          lineHeight={36}
          color="$text"
          numberOfLines={1}
        >
          {title}
        </Text>
        {song && <PlayButton song={song} />}
      </Row>
      {song && <Silent song={song} />}
    </Column>
  );
}

/** What is on in the set: a song, or what lies between two. */
function headTitle(moment: Moment): string {
  const song = songOfStop(moment);
  const { stops, at } = placeAt(moment);
  const stop = stops[at];
  if (stop && !moment.live.song?.playing && (stop.at === 'pause' || (stop.at === 'look' && stop.bank === null)))
    return stopWords(moment.show, stop);
  return song?.title ?? moment.show.name;
}

/** Plays from the song's first stop, so that the pedal goes on from there; a song that was paused goes on. */
export function playFromStop(app: Hovlix, song: Song): void {
  const moment = momentOf(app);
  if (!moment) return;
  const { live } = moment;
  const begun = live.song?.id === song.id && (live.song.playing || songTimeAt(live.song, moment.now) > 0.05);
  const { stops, at } = placeAt(moment);
  const entry = stops[at] && 'song' in stops[at] && stops[at].song.id === song.id ? stops[at].entry.id : undefined;
  const first = stops.find(
    (stop) =>
      'song' in stop &&
      stop.song.id === song.id &&
      stop.at !== 'ready' &&
      (entry === undefined || stop.entry.id === entry),
  );
  if (begun || !first) togglePlay(app, song);
  else void run(app, toStop(moment, first));
}

function PlayButton({ song }: { readonly song: Song }) {
  const app = useHovlix();
  const may = useMay('player');
  const playing = useLive((live) => live.song?.playing === true && live.song.id === song.id);
  const palette = usePalette();
  const { short } = useMedia();
  const Icon = playing ? Pause : Play;
  return (
    <View
      render="button"
      aria-label={playing ? WORDS.pause : WORDS.play(song.title)}
      onPress={() => may && playFromStop(app, song)}
      width={short ? 44 : 52}
      height={short ? 44 : 52}
      borderRadius={26}
      flexShrink={0}
      borderWidth={0}
      alignItems="center"
      justifyContent="center"
      cursor="pointer"
      backgroundColor="$doing"
      pressStyle={{ opacity: 0.8 }}
    >
      <Icon size={24} color={palette.onDoing} fill={playing ? 'none' : palette.onDoing} aria-hidden />
    </View>
  );
}

/** The time of day, and how much of song and set is left. */
function Clock() {
  const day = useRef<TamaguiWebElement>(null);
  const left = useMoment((moment) => {
    const { song, set } = timeLeft(moment);
    return song === null ? minutes(set) : WORDS.min(clockWords(song), Math.ceil(set / 60));
  });
  useEffect(() => {
    const show = () => {
      if (day.current) day.current.textContent = timeOfDay(new Date());
    };
    show();
    const timer = setInterval(show, 1000);
    return () => clearInterval(timer);
  }, []);
  const any = useShow((show) => show.songs.length > 0);
  return (
    <Row gap={10} flexShrink={0}>
      {any && (
        <Figures testID="set-left" aria-label={WORDS.leftSongSet}>
          {left}
        </Figures>
      )}
      <Figures ref={day} color="$text" fontWeight="600" fontSize={16} testID="time-of-day" />
    </Row>
  );
}

const minutes = (seconds: number): string => WORDS.minLeft(Math.ceil(seconds / 60));
const clockWords = (seconds: number): string => `−${clockText(seconds)}`;

/** The music is not here, or would not play: said before somebody wonders, in one line. */
function Silent({ song }: { readonly song: Song }) {
  const { conducting, hasMusic, player } = useHovlix();
  const trouble = useStore(player.store, (state) => (state.song === song.id ? state.trouble : null));
  const elsewhere = useLive(
    ({ song: on }) => on?.id === song.id && on.sound !== undefined && on.sound !== conducting.screen,
  );
  const here = useQuery(hasMusicQuery(hasMusic, song.music?.hash)).data;
  if (elsewhere || (here !== false && trouble === null)) return null;
  return (
    <Quiet role="status" color="$warn" testID="silent">
      {here === false ? WORDS.itsMusicNot : trouble}
    </Quiet>
  );
}
