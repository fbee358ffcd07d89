// A few bars enlarged: notes, curves and the exact edges of looks, on the lane that is worked on.

import { useEffect, useRef, useState } from 'react';
import { View } from '@tamagui/core';
import ArrowLeft from 'lucide-react-native/icons/arrow-left';
import ChevronLeft from 'lucide-react-native/icons/chevron-left';
import ChevronRight from 'lucide-react-native/icons/chevron-right';
import Magnet from 'lucide-react-native/icons/magnet';
import ZoomIn from 'lucide-react-native/icons/zoom-in';
import ZoomOut from 'lucide-react-native/icons/zoom-out';
import { barSpan, beatsOfBars, timeOfBar, type Lane, type Song } from '@hovlix/core/song';
import { lookAt } from '../../../host/conduct/gestures';
import { useHovlix, useMay } from '../../../host/hovlix';
import { keyOf } from '../../../ui/key-of';
import { usePalette } from '../../../ui/palette';
import { Button, Column, Figures, Quiet, Row } from '../../../ui/pieces';
import { ScrollArea } from '../../../ui/ScrollArea';
import { ActionList } from '../actions/ActionList';
import { rangeText, type BarRange } from '../model';
import { PlayButton } from '../SheetHead';
import { ClipEditor } from './ClipEditor';
import { CurveEditor } from './CurveEditor';
import { GRIDS, windowAt, type Grid, type Window } from './grid';
import { HitEditor } from './HitEditor';
import { Paper } from './Paper';
import { PickOne } from './PickOne';
import { useFollow } from './use-follow';
import { GRID_NAMES, WORDS } from './words';

type Props = {
  readonly song: Song;
  readonly lane: Lane;
  /** What was chosen on the sheet. */
  readonly bars: BarRange;
  readonly peaks: Uint8Array | null;
  readonly onLane: (lane: Lane['id']) => void;
  readonly onClose: () => void;
};

const ZOOMS = [1, 2, 4, 8] as const;
/** Room for the names of pads, the scale of a curve. */
const GUTTERS: Readonly<Record<Lane['type'], number>> = { hits: 88, curve: 44, looks: 0, actions: 0 };

export function CloseUp({ song, lane, bars, peaks, onLane, onClose }: Props) {
  const app = useHovlix();
  const palette = usePalette();
  const may = useMay('operator');
  const [zoom, setZoom] = useState(() => ZOOMS.find((one) => one >= Math.min(4, bars.last - bars.first + 1)) ?? 4);
  const [bar, setBar] = useState(bars.first);
  const [grid, setGrid] = useState<Grid>('1/4');
  const [width, setWidth] = useState(0);
  const { first, count } = windowAt(song, bar, zoom);
  const go = (to: number) => {
    const shown = windowAt(song, to, zoom).first;
    setBar(shown);
    lookAt(app, song, timeOfBar(song, shown));
  };
  useFollow(song, first, count, setBar);
  usePageKeys(onClose, (way) => go(first + way * count));
  const span = barSpan(song);
  const gutter = GUTTERS[lane.type];
  const window: Window = { song, first, count, width: Math.max(1, width - gutter) };
  const editing = { song, grid, window, gutter, may };
  return (
    <Column flex={1} minHeight={0} role="region" aria-label={WORDS.closeUp}>
      <Row gap={6} paddingLeft={4} paddingRight={12} paddingVertical={6} borderBottomWidth={1} borderColor="$line">
        <Button label={WORDS.backLeadSheet} kind="quiet" onPress={onClose}>
          <ArrowLeft size={22} color={palette.text} aria-hidden />
        </Button>
        <Column flexShrink={1} minWidth={0} maxWidth={360} flexGrow={1}>
          <Quiet numberOfLines={1}>{song.title}</Quiet>
          <PickOne
            label={WORDS.lane}
            value={lane.id as string}
            choices={song.lanes.map(({ id, name }) => ({ value: id as string, name }))}
            onChoose={(id) => onLane(id as Lane['id'])}
          />
        </Column>
        <View flex={1} />
        <PlayButton song={song} size={48} />
      </Row>
      <Row
        paddingHorizontal={8}
        paddingVertical={2}
        gap={2}
        justifyContent="space-between"
        borderBottomWidth={1}
        borderColor="$line"
      >
        <Row>
          <Button
            label={WORDS.earlierBars}
            kind="quiet"
            disabled={first <= span.first}
            onPress={() => go(first - count)}
          >
            <ChevronLeft size={20} color={palette.text} aria-hidden />
          </Button>
          <Figures
            color="$text"
            textAlign="center"
            testID="close-up-bars"
            aria-label={rangeText({ first, last: first + count - 1 })}
          >
            {first + 1}
            {count > 1 ? ` – ${first + count}` : ''}
          </Figures>
          <Button
            label={WORDS.laterBars}
            kind="quiet"
            disabled={first + count > span.last}
            onPress={() => go(first + count)}
          >
            <ChevronRight size={20} color={palette.text} aria-hidden />
          </Button>
        </Row>
        <Row>
          <Button
            label={WORDS.fewerBars}
            kind="quiet"
            disabled={zoom === ZOOMS[0]}
            onPress={() => setZoom(ZOOMS[ZOOMS.indexOf(zoom) - 1]!)}
          >
            <ZoomIn size={20} color={palette.text} aria-hidden />
          </Button>
          <Button
            label={WORDS.moreBars}
            kind="quiet"
            disabled={zoom === ZOOMS.at(-1)}
            onPress={() => setZoom(ZOOMS[ZOOMS.indexOf(zoom) + 1]!)}
          >
            <ZoomOut size={20} color={palette.text} aria-hidden />
          </Button>
          <Magnet size={16} color={palette.quiet} aria-hidden />
          <PickOne
            label={WORDS.grid}
            value={grid}
            choices={GRIDS.map((value) => ({ value, name: GRID_NAMES[value] }))}
            onChoose={setGrid}
          />
        </Row>
      </Row>
      <View flex={1} minHeight={0} onLayout={({ nativeEvent }) => setWidth(nativeEvent.layout.width)}>
        {width > 0 && (
          <Column flex={1} minHeight={0}>
            <Paper window={window} gutter={gutter} peaks={peaks} />
            {lane.type === 'hits' && <HitEditor key={lane.id} lane={lane} {...editing} />}
            {lane.type === 'curve' && <CurveEditor key={lane.id} lane={lane} {...editing} />}
            {lane.type === 'actions' && (
              <ScrollArea>
                <Column paddingVertical={12}>
                  <ActionList
                    key={lane.id}
                    song={song}
                    lane={lane}
                    from={beatsOfBars(song, first, first).from}
                    to={beatsOfBars(song, first, first + count - 1).to}
                  />
                </Column>
              </ScrollArea>
            )}
            {lane.type === 'looks' && <ClipEditor key={lane.id} lane={lane} {...editing} />}
          </Column>
        )}
      </View>
    </Column>
  );
}

/** Page up and down, or brackets, turn the page; Escape goes back. */
function usePageKeys(onClose: () => void, onTurn: (way: 1 | -1) => void): void {
  const latest = useRef({ onClose, onTurn });
  useEffect(() => {
    latest.current = { onClose, onTurn };
  });
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.defaultPrevented || (event.target as HTMLElement | null)?.closest('input, textarea, select')) return;
      if (event.key === 'Escape') latest.current.onClose();
      const way = { PageUp: -1, '[': -1, PageDown: 1, ']': 1 }[keyOf(event)] as 1 | -1 | undefined;
      if (way) latest.current.onTurn(way);
    };
    globalThis.addEventListener('keydown', press);
    return () => globalThis.removeEventListener('keydown', press);
  }, []);
}
