// A song as musicians read music: lines of bars from top to bottom, light painted under them.

import { useEffect, useMemo, useRef, useState } from 'react';
import { FlatList } from 'react-native';
import { useRouter } from 'expo-router';
import ChevronLeft from 'lucide-react-native/icons/chevron-left';
import Pause from 'lucide-react-native/icons/pause';
import Play from 'lucide-react-native/icons/play';
import { useQuery } from '@tanstack/react-query';
import { Text, useMedia, View } from '@tamagui/core';
import { useStore } from 'zustand';
import { barsAt, barSpan, leadSheetLines, rehearsalMark, timeOfBar, type Song } from '@hovlix/core/song';
import { songTimeAt } from '@hovlix/core/live';
import { peaksQuery } from '../../data/queries';
import { lookAt, togglePlay } from '../../host/conduct/gestures';
import { useHovlix, useLink, useLive, useMay, useShow } from '../../host/hovlix';
import { LightIt } from './LightIt';
import { StageFollows } from './StageFollows';
import { usePalette, useTints } from '../../ui/palette';
import { Button, Column, Figures, Row, Title, Words } from '../../ui/pieces';
import { LINE_HEIGHT, Line } from './Line';
import { LookTray } from './LookTray';
import { clockText, meterText, songBpm, tapped, type BarRange } from './model';

const HEAD_HEIGHT = 44;

export function LeadSheet({ id }: { readonly id: string }) {
  const song = useShow((show) => show.songs.find((one) => one.id === id));
  const opened = useShow((show) => show.id);
  const router = useRouter();
  if (!song && opened === undefined) return null;
  if (!song)
    return (
      <Column padding={24} gap={12} alignItems="flex-start">
        <Title render="h1">This song is not in the show</Title>
        <Words>It may have been removed, or belongs to another show on this device.</Words>
        <Button kind="primary" onPress={() => router.replace('/songs')}>
          To the songs
        </Button>
      </Column>
    );
  return <Sheet key={song.id} song={song} />;
}

function Sheet({ song }: { readonly song: Song }) {
  const app = useHovlix();
  const { wide } = useMedia();
  const perLine = wide ? 8 : 4;
  const lines = useMemo(() => leadSheetLines(song, perLine), [song, perLine]);
  const [range, setRange] = useState<BarRange | null>(null);
  const peaks = useQuery(peaksQuery(app.repository, song.music?.hash)).data ?? null;
  const tints = useTints();
  const may = useMay('operator');
  const looking = useLink((link) => link.conductor === 'looking');
  const choose = (bar: number) => {
    setRange((now) => tapped(now, bar));
    // A still song shows the light of the bar one taps; a playing one goes on.
    lookAt(app, song, timeOfBar(song, bar));
  };
  useEffect(() => {
    // Opened while nothing plays, a song shows its first light; asked of whoever conducts, so not before that is known.
    if (looking) return;
    if (app.conducting.store.getState().live.song?.id !== song.id) lookAt(app, song, 0);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once for each song that is opened, not for each edit of it
  }, [app, song.id, looking]);
  useBarKeys(song, range, setRange);
  const list = usePlayhead(song, lines);

  const sheet = (
    <FlatList
      ref={list}
      data={lines}
      style={{ flex: 1 }}
      contentContainerStyle={{ paddingHorizontal: 12, paddingBottom: range && !wide ? 300 : 60 }}
      initialNumToRender={6}
      windowSize={5}
      keyExtractor={(line) => String(line.first)}
      getItemLayout={(_, index) => layoutOf(lines, song, index)}
      renderItem={({ item, index }) => {
        const section = headed(lines, song, index) ? song.sections[item.section] : undefined;
        return (
          <View>
            {section && (
              <Row height={HEAD_HEIGHT} gap={10} paddingTop={8}>
                <View
                  width={24}
                  height={24}
                  borderWidth={1.5}
                  borderRadius={5}
                  borderColor={tints[section.tint]! as '$text'}
                  alignItems="center"
                  justifyContent="center"
                >
                  <Text
                    fontFamily="$heading"
                    fontWeight="650"
                    fontSize={14}
                    lineHeight={18}
                    color={tints[section.tint]! as '$text'}
                  >
                    {rehearsalMark(item.section)}
                  </Text>
                </View>
                <Text
                  render="h2"
                  margin={0}
                  fontFamily="$heading"
                  fontWeight="650"
                  fontSize={17}
                  lineHeight={22}
                  whiteSpace="nowrap"
                  color={tints[section.tint]! as '$text'}
                >
                  {section.name}
                </Text>
                <Words fontStyle="italic" color="$quiet" numberOfLines={1} flexShrink={1}>
                  {section.note}
                </Words>
              </Row>
            )}
            <Line
              song={song}
              first={item.first}
              count={item.count}
              perLine={perLine}
              peaks={peaks}
              range={range}
              onBar={choose}
            />
          </View>
        );
      }}
    />
  );
  const tray = may && range && <LookTray song={song} range={range} wide={wide} onClose={() => setRange(null)} />;
  return (
    <Column flex={1} height="100%" minHeight={0}>
      <SheetHead song={song} />
      {may && <LightIt song={song} />}
      <View flex={1} flexDirection="row" minHeight={0}>
        {sheet}
        {wide && (
          <View width={320} borderLeftWidth={1} borderColor="$line" minHeight={0}>
            {tray ?? (
              <Column padding={24} gap={8}>
                <Words fontWeight="600">Tap bars to light them</Words>
                <Words color="$quiet">Choose a bar, tap a second one to stretch to it, then pick a look.</Words>
              </Column>
            )}
          </View>
        )}
      </View>
      {!wide && tray}
    </Column>
  );
}

function SheetHead({ song }: { readonly song: Song }) {
  const app = useHovlix();
  const { wide } = useMedia();
  const router = useRouter();
  const palette = usePalette();
  const playing = useLive((live) => live.song?.id === song.id && live.song.playing);
  const trouble = useStore(app.player.store, (player) => player.trouble);
  return (
    <Column borderBottomWidth={1} borderColor="$line">
      <Row paddingLeft={4} paddingRight={16} paddingVertical={8} gap={4}>
        <Button label="All songs" kind="quiet" onPress={() => router.push('/songs')}>
          <ChevronLeft size={22} color={palette.text} aria-hidden />
        </Button>
        <Column flex={1} minWidth={0}>
          <Title render="h1" margin={0} fontSize={22} lineHeight={27} numberOfLines={1}>
            {song.title}
          </Title>
          <Row gap={6}>
            <Figures whiteSpace="nowrap">
              {wide ? `${songBpm(song).toFixed(1)} bpm · ` : ''}
              {meterText(song)} ·
            </Figures>
            <Position song={song} />
          </Row>
        </Column>
        <StageFollows />
        <View
          render="button"
          aria-label={playing ? 'Pause' : 'Play'}
          onPress={() => togglePlay(app, song)}
          width={56}
          height={56}
          borderRadius={28}
          borderWidth={0}
          alignItems="center"
          justifyContent="center"
          backgroundColor="$doing"
          cursor="pointer"
          pressStyle={{ opacity: 0.8 }}
        >
          {playing ? (
            <Pause size={24} color={palette.onDoing} fill={palette.onDoing} aria-hidden />
          ) : (
            <Play size={24} color={palette.onDoing} fill={palette.onDoing} aria-hidden />
          )}
        </View>
      </Row>
      {trouble && (
        <Words color="$warn" paddingHorizontal={16} paddingBottom={10} role="alert">
          {trouble}
        </Words>
      )}
    </Column>
  );
}

/** Where the song stands, in minutes; moved by the clock, not by React. */
function Position({ song }: { readonly song: Song }) {
  const app = useHovlix();
  const figures = useRef<HTMLElement>(null);
  useEffect(() => {
    let frame = 0;
    let shown = '';
    const draw = () => {
      frame = requestAnimationFrame(draw);
      const live = app.conducting.store.getState().live.song;
      const time = live?.id === song.id ? Math.min(song.duration, songTimeAt(live, app.conducting.now())) : 0;
      const text = `${clockText(time)} / ${clockText(song.duration)}`;
      if (text !== shown && figures.current) figures.current.textContent = shown = text;
    };
    draw();
    return () => cancelAnimationFrame(frame);
  }, [app, song]);
  return <Figures ref={figures as never} testID="position" />;
}

type Lines = ReturnType<typeof leadSheetLines>;

/** A line has a section's head above it when the section begins there. */
function headed(lines: Lines, song: Song, index: number): boolean {
  const line = lines[index];
  const section = line && song.sections[line.section];
  return section !== undefined && lines[index - 1]?.section !== line!.section;
}

function layoutOf(lines: Lines, song: Song, index: number) {
  let offset = 0;
  for (let i = 0; i < index; i++) offset += LINE_HEIGHT + (headed(lines, song, i) ? HEAD_HEIGHT : 0);
  return { length: LINE_HEIGHT + (headed(lines, song, index) ? HEAD_HEIGHT : 0), offset, index };
}

/** After the user scrolls by hand, the sheet leaves it there for so long before it follows the music again. */
const LEAVE_MS = 5000;

/** Moves the pin over the lines and keeps the line that sounds in view. */
function usePlayhead(song: Song, lines: Lines) {
  const app = useHovlix();
  const list = useRef<FlatList>(null);
  useEffect(() => {
    let frame = 0;
    let shown = -1;
    let touched = -LEAVE_MS;
    const touch = () => (touched = performance.now());
    window.addEventListener('wheel', touch, { passive: true });
    window.addEventListener('touchmove', touch, { passive: true });
    const draw = () => {
      frame = requestAnimationFrame(draw);
      const live = app.conducting.store.getState().live.song;
      const here = live?.id === song.id;
      const place = here ? barsAt(song, songTimeAt(live, app.conducting.now())) : -1e6;
      for (const pin of window.document.querySelectorAll<HTMLElement>('[data-pin]')) {
        const [first, count, perLine] = [
          Number(pin.dataset['first']),
          Number(pin.dataset['count']),
          Number(pin.dataset['perline']),
        ];
        const inside = place >= first && place < first + count;
        pin.style.opacity = inside ? '1' : '0';
        pin.parentElement!.dataset['sounding'] = String(inside);
        if (inside) pin.style.left = `${((place - first) / perLine) * 100}%`;
      }
      if (!here || !live.playing) return;
      const line = lines.findIndex((one) => place >= one.first && place < one.first + one.count);
      if (line < 0 || line === shown || performance.now() - touched < LEAVE_MS) return;
      shown = line;
      list.current?.scrollToIndex({ index: line, viewPosition: 0.3, animated: true });
    };
    draw();
    return () => {
      cancelAnimationFrame(frame);
      window.removeEventListener('wheel', touch);
      window.removeEventListener('touchmove', touch);
    };
  }, [app, song, lines]);
  return list;
}

/** Arrows walk the bars; with Shift they stretch. Escape lets go. */
function useBarKeys(song: Song, range: BarRange | null, setRange: (range: BarRange | null) => void): void {
  const app = useHovlix();
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if ((event.target as HTMLElement | null)?.closest('input, textarea')) return;
      if (event.key === 'Escape') return setRange(null);
      const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
      if (!step) return;
      event.preventDefault();
      const { first, last } = barSpan(song);
      const hold = (bar: number) => Math.min(last, Math.max(first, bar));
      if (range && event.shiftKey)
        return setRange({ first: range.first, last: Math.max(range.first, hold(range.last + step)) });
      const bar = hold((range ? (step > 0 ? range.last : range.first) : first - step) + step);
      setRange({ first: bar, last: bar });
      lookAt(app, song, timeOfBar(song, bar));
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [app, song, range, setRange]);
}
