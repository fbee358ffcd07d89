// What can be done with a curve as a whole: draw it, play it on a fader, turn it upside down, clear these bars.

import { useEffect, useRef, useState } from 'react';
import Circle from 'lucide-react-native/icons/circle';
import { songTimeAt } from '@hovlix/core/live';
import { pointsWithin, scaledPoints, type CurveLane, type Point, type Song } from '@hovlix/core/song';
import { beatAt } from '@hovlix/core/time';
import { seconds } from '@hovlix/core/units';
import { freshId } from '../../../host/fresh-id';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Chip } from '../../../ui/Chip';
import { usePalette } from '../../../ui/palette';
import { Button, Column, Quiet, Row } from '../../../ui/pieces';
import { ScrollArea } from '../../../ui/ScrollArea';
import { Slider } from '../../../ui/Slider';
import type { Window } from './grid';
import { pointsOfTrace, type Traced } from './trace';
import { WORDS } from './words';

type Props = {
  readonly song: Song;
  readonly lane: CurveLane;
  readonly window: Window;
  readonly from: number;
  readonly to: number;
  readonly drawing: boolean;
  /** What the curve moves, in words. */
  readonly moves: string;
  readonly onDrawing: (drawing: boolean) => void;
};

export function CurveTools({ song, lane, from, to, drawing, moves, onDrawing }: Props) {
  const { document } = useHovlix();
  const palette = usePalette();
  const [fader, setFader] = useState(false);
  const on = { song: song.id, lane: lane.id, from, to };
  const draw = (points: readonly Point[]) =>
    document.make({ type: 'draw-curve', ...on, points: [...points], id: freshId() });
  const here = () => pointsWithin(lane.points, from, to, () => freshId() as Point['id']);
  const change = (scale: number, move: number) => {
    const points = here();
    if (points.length > 0) draw(scaledPoints(points, scale, move));
  };
  return (
    <Column gap={8} paddingVertical={8} backgroundColor="$raised" borderTopWidth={1} borderColor="$line" flexShrink={0}>
      <ScrollArea sideways>
        <Row gap={6} paddingHorizontal={12} width="max-content">
          <Chip small name={WORDS.draw} on={drawing} onPress={() => onDrawing(!drawing)} />
          <Chip
            small
            name={WORDS.recordAFader}
            on={fader}
            picture={<Circle size={14} color={palette.fault} fill={palette.fault} aria-hidden />}
            onPress={() => setFader(!fader)}
          />
          <Button onPress={() => change(-1, 1)}>{WORDS.turnUpsideDown}</Button>
          <Button onPress={() => change(0.8, 0)}>{WORDS.lower}</Button>
          <Button onPress={() => change(1.25, 0)}>{WORDS.raise}</Button>
          <Button onPress={() => document.make({ type: 'clear-bars', ...on })}>{WORDS.clearTheseBars}</Button>
        </Row>
      </ScrollArea>
      <Quiet paddingHorizontal={12}>{drawing ? WORDS.drawFingerReplaces : WORDS.movesTapSet(moves)}</Quiet>
      {fader && <FaderRecorder song={song} lane={lane} />}
    </Column>
  );
}

/** How often a fader is looked at while it records. */
const LOOK_MS = 30;
/** A recorded curve lies at most so far beside what was played. */
const TOLERANCE = 0.015;

/** While the song plays and the fader is held, its position is written down. */
function FaderRecorder({ song, lane }: Pick<Props, 'song' | 'lane'>) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const [value, setValue] = useState(0.5);
  const now = useRef(value);
  const trace = useRef<Traced[]>([]);
  useEffect(() => {
    now.current = value;
  }, [value]);
  const [held, setHeld] = useState(false);
  useEffect(() => {
    if (!held) return;
    trace.current = [];
    const look = setInterval(() => {
      const live = app.conducting.store.getState().live.song;
      if (live?.id !== song.id || !live.playing) return;
      const at = beatAt(song.tempo, seconds(songTimeAt(live, app.conducting.now())));
      const last = trace.current.at(-1);
      // Where the song came round again, what is played now counts.
      if (last && at <= last.at) trace.current = [];
      trace.current.push({ at, value: now.current });
    }, LOOK_MS);
    return () => clearInterval(look);
  }, [held, app, song]);
  const lift = () => {
    if (!held) return;
    setHeld(false);
    const points = pointsOfTrace(trace.current, TOLERANCE, 0.5);
    const [from, to] = [points[0]?.at ?? 0, points.at(-1)?.at ?? 0];
    if (!(to > from)) return say(WORDS.playSongThen);
    app.document.make({
      type: 'draw-curve',
      song: song.id,
      lane: lane.id,
      from,
      to,
      points: [...points],
      id: freshId(),
    });
    say(WORDS.faderRecorded, { undo: app.document.takingBack() });
  };
  return (
    <Row paddingHorizontal={12}>
      <div
        style={{ flex: 1 }}
        // Not its figure, which is typed.
        onPointerDownCapture={({ target }) => setHeld((target as Element).closest('[role=slider]') !== null)}
        onPointerUpCapture={lift}
        onPointerCancelCapture={lift}
      >
        <Slider
          label={WORDS.holdMoveWhile}
          value={value * 100}
          low={0}
          high={100}
          step={1}
          unit="%"
          onChange={(percent) => setValue(percent / 100)}
        />
      </div>
    </Row>
  );
}
