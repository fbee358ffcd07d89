// The head of a song: what it is called, its bars and tempo, its lanes, play.

import { useEffect, useRef } from 'react';
import { useRouter } from 'expo-router';
import ChevronsUpDown from 'lucide-react-native/icons/chevrons-up-down';
import ChevronLeft from 'lucide-react-native/icons/chevron-left';
import Layers from 'lucide-react-native/icons/layers';
import Metronome from 'lucide-react-native/icons/metronome';
import Pause from 'lucide-react-native/icons/pause';
import Play from 'lucide-react-native/icons/play';
import { useMedia, View, type TamaguiWebElement } from '@tamagui/core';
import { useStore } from 'zustand';
import { songTimeAt } from '@hovlix/core/live';
import type { Song } from '@hovlix/core/song';
import { togglePlay } from '../../host/conduct/gestures';
import { useHovlix, useLive } from '../../host/hovlix';
import { eachFrame, REST_MS } from '../../ui/each-frame';
import { FileButton } from '../../ui/FileButton';
import { usePalette } from '../../ui/palette';
import { Button, Column, Figures, Row, Title, Words } from '../../ui/pieces';
import { clockText } from '../../ui/clock-text';
import { useBringIn } from './intake/use-bring-in';
import { meterText, songBpm } from './model';
import { RECORDING_FILES } from './recording-files';
import { StageFollows } from './StageFollows';
import { WORDS } from './words';

type HeadProps = {
  readonly song: Song;
  /** Left out where nothing may be changed. */
  readonly onOpen: ((sheet: 'time' | 'lanes' | 'about') => void) | undefined;
};

export function SheetHead({ song, onOpen }: HeadProps) {
  const app = useHovlix();
  const { wide } = useMedia();
  const router = useRouter();
  const palette = usePalette();
  const missing = useStore(app.player.store, (player) => player.missing);
  const ofAnother = missing !== null && missing !== song.music?.hash;
  const trouble = useStore(app.player.store, (player) => (ofAnother ? null : player.trouble));
  const bring = useBringIn();
  return (
    <Column borderBottomWidth={1} borderColor="$line">
      <Row paddingLeft={4} paddingRight={16} paddingVertical={8} gap={4}>
        <Button label={WORDS.allSongs} kind="quiet" onPress={() => router.push('/songs')}>
          <ChevronLeft size={22} color={palette.text} aria-hidden />
        </Button>
        <Column flex={1} minWidth={0}>
          <Title render="h1" margin={0} fontSize={22} lineHeight={27}>
            <View
              render="button"
              aria-description={WORDS.aboutThisSong}
              disabled={!onOpen}
              onPress={() => onOpen?.('about')}
              flexDirection="row"
              alignItems="center"
              gap={4}
              minHeight={44}
              marginVertical={-8}
              maxWidth="100%"
              padding={0}
              borderWidth={0}
              backgroundColor="transparent"
              cursor={onOpen ? 'pointer' : 'default'}
            >
              <Title fontSize={22} lineHeight={27} numberOfLines={1} flexShrink={1}>
                {song.title}
              </Title>
              {onOpen && <ChevronsUpDown size={15} color={palette.quiet} aria-hidden style={{ flexShrink: 0 }} />}
            </View>
          </Title>
          <View
            render="button"
            aria-label={WORDS.barsAndTempo}
            disabled={!onOpen}
            onPress={() => onOpen?.('time')}
            flexDirection="row"
            alignItems="center"
            gap={6}
            minHeight={44}
            marginVertical={-11}
            padding={0}
            borderWidth={0}
            backgroundColor="transparent"
            cursor={onOpen ? 'pointer' : 'default'}
            overflow="hidden"
          >
            {onOpen && <Metronome size={16} color={palette.quiet} aria-hidden />}
            {wide && <Figures whiteSpace="nowrap">{WORDS.bpm(songBpm(song).toFixed(1), meterText(song))}</Figures>}
            <Position song={song} />
          </View>
        </Column>
        <StageFollows />
        {onOpen && (
          <Button label={WORDS.lanes} kind="quiet" onPress={() => onOpen('lanes')}>
            <Layers size={22} color={palette.text} aria-hidden />
          </Button>
        )}
        <PlayButton song={song} />
      </Row>
      {trouble && (
        <Row paddingHorizontal={16} paddingBottom={10} gap={12}>
          <Words flex={1} minWidth={0} color="$warn" role="alert">
            {trouble}
          </Words>
          {missing !== null && onOpen && (
            <FileButton label={WORDS.chooseMissing} accept={RECORDING_FILES} onFiles={bring}>
              {WORDS.add}
            </FileButton>
          )}
        </Row>
      )}
    </Column>
  );
}

/** Where the song is, in minutes; moved by the clock, not by React. */
function Position({ song }: { readonly song: Song }) {
  const app = useHovlix();
  const figures = useRef<TamaguiWebElement>(null);
  useEffect(() => {
    let shown = '';
    const draw = () => {
      const live = app.conducting.store.getState().live.song;
      const time = live?.id === song.id ? Math.min(song.duration, songTimeAt(live, app.conducting.now())) : 0;
      const text = `${clockText(time)} / ${clockText(song.duration)}`;
      if (text !== shown && figures.current) figures.current.textContent = shown = text;
      return live?.playing ? ((1 - (time % 1)) / live.rate) * 1000 : REST_MS;
    };
    return eachFrame(draw, app.conducting.store.subscribe);
  }, [app, song]);
  return <Figures ref={figures} testID="position" whiteSpace="nowrap" />;
}

/** Play or pause, wherever a song is worked on. */
export function PlayButton({ song, size = 56 }: { readonly song: Song; readonly size?: number }) {
  const app = useHovlix();
  const palette = usePalette();
  const playing = useLive((live) => live.song?.id === song.id && live.song.playing);
  const Icon = playing ? Pause : Play;
  return (
    <View
      render="button"
      aria-label={playing ? WORDS.pause : WORDS.play}
      onPress={() => togglePlay(app, song)}
      width={size}
      height={size}
      borderRadius={size / 2}
      borderWidth={0}
      alignItems="center"
      justifyContent="center"
      flexShrink={0}
      backgroundColor="$doing"
      cursor="pointer"
      pressStyle={{ opacity: 0.8 }}
    >
      <Icon size={size > 50 ? 24 : 20} color={palette.onDoing} fill={palette.onDoing} aria-hidden />
    </View>
  );
}
