// A song as musicians read music: lines of bars from top to bottom, light painted under them.

import { useEffect, useMemo, useRef, useState } from 'react';
import FlatList from 'react-native-web/dist/exports/FlatList';
import { useRouter } from 'expo-router';
import { useQuery } from '@tanstack/react-query';
import { useMedia, View } from '@tamagui/core';
import { barsOfSection, beatsOfBars, leadSheetLines, timeOfBar, type Song } from '@hovlix/core/song';
import { peaksQuery } from '../../data/queries';
import { lookAt } from '../../host/conduct/gestures';
import { useHovlix, useLink, useMay, useShow } from '../../host/hovlix';
import { AboutSong } from './about/AboutSong';
import { BarMenu } from './BarMenu';
import { CloseUp } from './close-up/CloseUp';
import { LanesSheet } from './lanes/LanesSheet';
import { headed, layoutOf, mainLane } from './lines';
import { LightIt } from './LightIt';
import { playFrom, Rehearsal } from './Rehearsal';
import { SectionStrip } from './SectionStrip';
import { SheetHead } from './SheetHead';
import { Button, Column, Title, Words } from '../../ui/pieces';
import { HeadedLine } from './Line';
import { SongEnd } from './SongEnd';
import { copyBars, useCopying } from './tray/CopyRow';
import { LookTray } from './tray/LookTray';
import { TimeSheet } from './time/TimeSheet';
import { useBarKeys } from './use-bar-keys';
import { useBarMenu } from './use-bar-menu';
import { touches, useHeldClip } from './use-held-clip';
import { usePerLine } from './use-lines';
import { usePlayhead } from './use-playhead';
import { rangeText, tapped, type BarRange } from './model';
import { WORDS } from './words';

/** At both sides of the lines, in pixels. */
const MARGIN = 12;

export function LeadSheet({ id }: { readonly id: string }) {
  const song = useShow((show) => show.songs.find((one) => one.id === id));
  const opened = useShow((show) => show.id);
  const router = useRouter();
  if (!song && opened === undefined) return null;
  if (!song)
    return (
      <Column padding={24} gap={12} alignItems="flex-start">
        <Title render="h1">{WORDS.songNotShow}</Title>
        <Words>{WORDS.mayHaveBeen}</Words>
        <Button kind="primary" onPress={() => router.replace('/songs')}>
          {WORDS.toTheSongs}
        </Button>
      </Column>
    );
  return <Sheet key={song.id} song={song} />;
}

function Sheet({ song }: { readonly song: Song }) {
  const app = useHovlix();
  const { wide } = useMedia();
  const [paper, setPaper] = useState<HTMLElement | null>(null);
  /** The bars that are enlarged. */
  const [enlarged, setEnlarged] = useState<BarRange | null>(null);
  const perLine = usePerLine(wide, paper, enlarged === null);
  const lines = useMemo(() => leadSheetLines(song, perLine), [song, perLine]);
  const [range, setRange] = useState<BarRange | null>(null);
  const [sheetOpen, setSheet] = useState<'time' | 'lanes' | 'about' | null>(null);
  const [laneId, setLane] = useState(mainLane(song)?.id);
  const lane = song.lanes.find(({ id }) => id === laneId) ?? song.lanes[0]!;
  const peaks = useQuery(peaksQuery(app.repository, song.music?.hash)).data ?? null;
  const may = useMay('operator');
  const looking = useLink((link) => link.conductor === 'looking');
  const choose = (bar: number) => {
    setRange((now) => tapped(now, bar));
    // A still song shows the light of the bar one taps; a playing one goes on.
    lookAt(app, song, timeOfBar(song, bar));
  };
  const chooseSection = (index: number) => {
    const { bar } = song.sections[index]!;
    setRange(barsOfSection(song, bar));
    lookAt(app, song, timeOfBar(song, bar));
  };
  useEffect(() => {
    // Opened while nothing plays, a song shows its first light; asked of whoever conducts, so not before that is known.
    if (looking) return;
    if (app.conducting.store.getState().live.song?.id !== song.id) lookAt(app, song, 0);
    // oxlint-disable-next-line react/exhaustive-deps -- once for each song that is opened, not for each edit of it
  }, [app, song.id, looking]);
  useBarKeys(song, lane.id, range, setRange, enlarged === null);
  const { held, drag } = useHeldClip(song, lane, may ? range : null, setRange);
  const { copied, paste } = useCopying(song);
  const [pressed, closeMenu] = useBarMenu(paper, (bar) => {
    if (!range || bar < range.first || bar > range.last) setRange({ first: bar, last: bar });
  });
  const [tall, setTall] = useState(0);
  const covered = range && may && !wide ? tall : 0;
  const top = useRef(0);
  const [height, setHeight] = useState(0);
  // On a phone the sheet is as wide as the screen: known before it is laid out, its lines are drawn once.
  const [width, setWidth] = useState(() => (wide ? 0 : window.innerWidth));
  const inSight = useRef(0);
  useEffect(() => {
    inSight.current = height - covered;
  }, [height, covered]);
  const list = usePlayhead(song, lines, inSight);
  // The bars that are worked on stay in sight, above what covers the sheet.
  useEffect(() => {
    const index = range ? lines.findIndex(({ first, count }) => range.last >= first && range.last < first + count) : -1;
    if (index < 0) return;
    const { offset, length } = layoutOf(lines, song, index);
    const free = height - covered;
    if (height <= 0 || (offset >= top.current && offset + length <= top.current + free)) return;
    list.current?.scrollToOffset({ offset: Math.max(0, offset + length - free + 8), animated: true });
  }, [range, covered, height, lines, song, list]);

  /** Scrolls to a bar; a paused song is there then. */
  const go = (bar: number) => {
    const line = lines.findIndex(({ first, count }) => bar >= first && bar < first + count);
    if (line >= 0) list.current?.scrollToOffset({ offset: layoutOf(lines, song, line).offset, animated: true });
    lookAt(app, song, timeOfBar(song, bar));
  };
  const clearAll = ({ first, last }: BarRange) =>
    app.document.together(
      song.lanes.map(({ id }) => ({ type: 'clear-bars', song: song.id, lane: id, ...beatsOfBars(song, first, last) })),
    );

  const sheet = (
    <FlatList
      ref={list}
      data={lines}
      style={{ flex: 1 }}
      contentContainerStyle={{ paddingHorizontal: MARGIN, paddingBottom: covered + 60 }}
      onScroll={({ nativeEvent }) => (top.current = nativeEvent.contentOffset.y)}
      onLayout={({ nativeEvent: { layout } }) => {
        setHeight(layout.height);
        setWidth(layout.width);
      }}
      scrollEventThrottle={50}
      initialNumToRender={6}
      windowSize={3}
      ListFooterComponent={<SongEnd song={song} onBar={choose} />}
      keyExtractor={(line) => String(line.first)}
      getItemLayout={(_, index) => layoutOf(lines, song, index)}
      renderItem={({ item, index }) => (
        <HeadedLine
          head={headed(lines, song, index) ? item.section : null}
          onSection={chooseSection}
          song={song}
          first={item.first}
          count={item.count}
          perLine={perLine}
          width={Math.max(0, width - 2 * MARGIN)}
          peaks={peaks}
          range={range && range.last >= item.first && range.first < item.first + item.count ? range : null}
          onBar={choose}
          held={held && touches(song, held.clip, item) ? held : null}
          onDrag={drag}
        />
      )}
    />
  );
  const tray = may && range && (
    <LookTray
      song={song}
      lane={lane}
      range={range}
      wide={wide}
      onLane={setLane}
      onCloseUp={() => setEnlarged(range)}
      onHeight={setTall}
      onRange={setRange}
      onClose={() => setRange(null)}
    />
  );
  return (
    <Column flex={1} height="100%" minHeight={0}>
      {!enlarged && <SheetHead song={song} onOpen={may ? setSheet : undefined} />}
      <Rehearsal song={song} />
      {enlarged ? (
        <CloseUp
          song={song}
          lane={lane}
          bars={enlarged}
          peaks={peaks}
          onLane={setLane}
          onClose={() => setEnlarged(null)}
        />
      ) : (
        <>
          {may && <LightIt song={song} />}
          {(wide || !range) && <SectionStrip song={song} onGo={go} />}
          <View flex={1} flexDirection="row" minHeight={0}>
            <div ref={setPaper} style={{ flex: 1, minWidth: 0, minHeight: 0, display: 'flex', touchAction: 'pan-y' }}>
              {sheet}
            </div>
            {wide && (
              <View width={320} borderLeftWidth={1} borderColor="$line" minHeight={0}>
                {tray ?? (
                  <Column padding={24} gap={8}>
                    <Words fontWeight="600">{WORDS.tapBarsLight}</Words>
                    <Words color="$quiet">{WORDS.chooseBarTap}</Words>
                  </Column>
                )}
              </View>
            )}
          </View>
          {!wide && tray}
        </>
      )}
      {pressed && range && may && (
        <BarMenu
          label={rangeText(range)}
          x={pressed.x}
          y={pressed.y}
          entries={[
            { name: WORDS.playFromHere, onPress: () => playFrom(app.player, song, range.first) },
            { name: WORDS.copy, onPress: () => copyBars(song, range) },
            ...(copied ? [{ name: WORDS.paste(rangeText(copied).toLowerCase()), onPress: () => paste(range) }] : []),
            { name: WORDS.clearAllLanes, onPress: () => clearAll(range) },
            { name: 'Close-up', onPress: () => setEnlarged(range) },
          ]}
          onClose={closeMenu}
        />
      )}
      {sheetOpen === 'time' && <TimeSheet song={song} range={range} onClose={() => setSheet(null)} />}
      {sheetOpen === 'about' && <AboutSong song={song} onGo={go} onClose={() => setSheet(null)} />}
      {sheetOpen === 'lanes' && <LanesSheet song={song} onClose={() => setSheet(null)} />}
    </Column>
  );
}
