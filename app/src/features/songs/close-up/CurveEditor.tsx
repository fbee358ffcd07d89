// A curve in Close-up: tap to set a point, drag it, bend the way to the next; or draw it in one stroke.

import { useEffect, useMemo, useRef, useState, type PointerEvent } from 'react';
import { beatsOfBars, curveAt, type CurveLane, type Point } from '@hovlix/core/song';
import { beats, clamp } from '@hovlix/core/units';
import { freshId } from '../../../host/fresh-id';
import { useHovlix, useShow } from '../../../host/hovlix';
import { useDrag } from '../../../ui/drag';
import { usePalette } from '../../../ui/palette';
import { Column } from '../../../ui/pieces';
import { CurveTools } from './CurveTools';
import type { Editing } from './editing';
import { beatAtX, snapped, xOf } from './grid';
import { Pin } from '../Pin';
import { GridLines } from './Paper';
import { PointForm } from './PointForm';
import { pointsOfTrace, type Traced } from './trace';
import { channelsOf, heightWords, targetWords } from '../lanes/model';
import { WORDS } from './words';

/** Room above full and below nothing, in pixels. */
const EDGE = 14;
const NEAR = 22;
const STILL = 6;
/** A drawn curve lies at most so far beside what was drawn, as a share of the height. */
const TOLERANCE = 0.02;

type Place = { readonly x: number; readonly y: number };

export function CurveEditor({ song, lane, grid, window, gutter, may }: Editing<CurveLane>) {
  const { document } = useHovlix();
  const palette = usePalette();
  const show = useShow((one) => one);
  const channels = useMemo(() => (show ? channelsOf(show, lane) : []), [show, lane]);
  const words = (value: number) => heightWords(lane.target, channels, value);
  const [drawing, setDrawing] = useState(false);
  const [chosen, setChosen] = useState<Point['id'] | null>(null);
  const [height, setHeight] = useState(200);
  const [dragged, setDragged] = useState<Point | null>(null);
  const [trace, setTrace] = useState<readonly Traced[]>([]);
  const start = useRef<{ readonly place: Place; readonly point: Point | undefined } | null>(null);
  const points = dragged ? sorted(lane.points.map((one) => (one.id === dragged.id ? dragged : one))) : lane.points;
  const { from, to } = beatsOfBars(song, window.first, window.first + window.count - 1);
  const on = { song: song.id, lane: lane.id };
  const yOf = (value: number) => EDGE + (1 - value) * (height - 2 * EDGE);
  const valueAt = (y: number) => clamp(1 - (y - EDGE) / (height - 2 * EDGE), 0, 1);
  const put = (point: Point) => document.make({ type: 'put-points', ...on, points: [point] });
  const point = points.find(({ id }) => id === chosen);
  const remove = (id: Point['id']) => {
    document.make({ type: 'remove-points', ...on, points: [id] });
    setChosen(null);
  };
  usePointKeys(may ? point : undefined, { remove, none: () => setChosen(null) });

  const placeOf = (event: PointerEvent<HTMLDivElement>): Place => {
    const box = event.currentTarget.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };
  const nearest = ({ x, y }: Place): Point | undefined => {
    const off = (one: Point) => Math.hypot(xOf(window, one.at) - x, yOf(one.value) - y);
    const best = points.filter(({ at }) => at >= from - 1e-6 && at <= to + 1e-6).sort((a, b) => off(a) - off(b))[0];
    return best && off(best) <= NEAR ? best : undefined;
  };
  const press = (event: PointerEvent<HTMLDivElement>) => {
    if (!may) return false;
    const place = placeOf(event);
    if (drawing) setTrace([{ at: beatAtX(window, place.x), value: valueAt(place.y) }]);
    else {
      start.current = { place, point: nearest(place) };
      setChosen(start.current.point?.id ?? null);
    }
    return true;
  };
  const drag = (event: PointerEvent<HTMLDivElement>) => {
    const place = placeOf(event);
    if (trace.length > 0)
      return setTrace((drawn) => [...drawn, { at: beatAtX(window, place.x), value: valueAt(place.y) }]);
    const now = start.current;
    if (!now?.point) return;
    const [across, down] = [place.x - now.place.x, place.y - now.place.y];
    if (!dragged && Math.hypot(across, down) < STILL) return;
    // It moves as far as the finger does; straight up or down it stays where it is in time, also beside the grid.
    const by = beatAtX(window, place.x) - beatAtX(window, now.place.x);
    const at = Math.abs(across) < STILL ? now.point.at : beats(snapped(song, grid, now.point.at + by));
    const value = clamp(now.point.value - down / (height - 2 * EDGE), 0, 1);
    setDragged({ ...now.point, at, value });
  };
  const lift = () => {
    if (trace.length > 1) {
      const drawn = pointsOfTrace(trace, TOLERANCE, window.width / (to - from) / height);
      const [first, last] = [drawn[0]!.at, drawn.at(-1)!.at];
      if (last > first)
        document.make({ type: 'draw-curve', ...on, from: first, to: last, points: [...drawn], id: freshId() });
    } else if (dragged) put(dragged);
    else if (start.current && !start.current.point) {
      const { x, y } = start.current.place;
      const at = beats(snapped(song, grid, beatAtX(window, x)));
      const made: Point = {
        id: freshId() as Point['id'],
        at,
        value: Math.round(valueAt(y) * 100) / 100,
        shape: 'straight',
      };
      put(made);
      setChosen(made.id);
    }
    cancel();
  };
  const cancel = () => {
    start.current = null;
    setDragged(null);
    setTrace([]);
  };
  const hands = useDrag<HTMLDivElement>({ down: press, move: drag, up: lift, cancel });

  return (
    <Column flex={1} minHeight={0}>
      <div style={{ flex: 1, minHeight: 120, display: 'flex' }}>
        <Scale width={gutter} yOf={yOf} words={words} />
        <div
          ref={(element) => {
            if (element && element.clientHeight !== height) setHeight(element.clientHeight);
          }}
          role="application"
          aria-label={WORDS.curve(lane.name)}
          data-mode={drawing ? 'draw' : 'points'}
          {...hands}
          style={{
            position: 'relative',
            width: window.width,
            height: '100%',
            overflow: 'hidden',
            touchAction: 'none',
            cursor: may ? 'crosshair' : 'default',
            background: palette.ground,
          }}
        >
          <GridLines window={window} grid={grid} />
          <svg
            aria-hidden
            width={window.width}
            height={height}
            style={{ position: 'absolute', left: 0, top: 0, pointerEvents: 'none' }}
          >
            {[0, 0.5, 1].map((value) => (
              <line
                key={value}
                x1={0}
                x2={window.width}
                y1={yOf(value)}
                y2={yOf(value)}
                stroke={palette.line}
                strokeDasharray={value === 0.5 ? '3 5' : undefined}
              />
            ))}
            <path
              d={pathOf(points, window.width, (x) => beatAtX(window, x), yOf, from, to)}
              fill="none"
              stroke={palette.live}
              strokeWidth={2.5}
              strokeLinejoin="round"
            />
            {trace.length > 1 && (
              <polyline
                points={trace.map(({ at, value }) => `${xOf(window, at)},${yOf(value)}`).join(' ')}
                fill="none"
                stroke={palette.doing}
                strokeWidth={2.5}
              />
            )}
          </svg>
          {points
            .filter(({ at }) => at >= from - 1e-6 && at <= to + 1e-6)
            .map((one) => (
              <div
                key={one.id}
                data-point={Math.round(one.at * 1000) / 1000}
                data-value={Math.round(one.value * 100)}
                data-chosen={one.id === chosen || undefined}
                style={{
                  position: 'absolute',
                  left: xOf(window, one.at) - 8,
                  top: yOf(one.value) - 8,
                  width: 16,
                  height: 16,
                  borderRadius: 8,
                  boxSizing: 'border-box',
                  border: `3px solid ${one.id === chosen ? palette.doing : palette.live}`,
                  background: one.shape === 'off' ? palette.ground : one.id === chosen ? palette.doing : palette.live,
                  pointerEvents: 'none',
                }}
              />
            ))}
          <Pin first={window.first} count={window.count} barWidth={window.width / window.count} />
        </div>
      </div>
      {may && point && !drawing ? (
        <PointForm
          song={song}
          point={point}
          speed={lane.target.on === 'speed'}
          words={words}
          onPut={put}
          onRemove={() => remove(point.id)}
          onDone={() => setChosen(null)}
        />
      ) : (
        may && (
          <CurveTools
            song={song}
            lane={lane}
            window={window}
            from={from}
            to={to}
            drawing={drawing}
            moves={show ? targetWords(show, song, lane.target) : ''}
            onDrawing={(on) => {
              setDrawing(on);
              setChosen(null);
            }}
          />
        )
      )}
    </Column>
  );
}

const sorted = (points: readonly Point[]) => points.toSorted((a, b) => a.at - b.at);

/** The curve as a path, with a gap where it lets the light be. */
function pathOf(
  points: readonly Point[],
  width: number,
  beatAt: (x: number) => number,
  yOf: (value: number) => number,
  from: number,
  to: number,
): string {
  const near = points.filter(({ at }, i) => at <= to && (points[i + 1]?.at ?? Infinity) >= from);
  let path = '';
  let drawing = false;
  for (let x = 0; x <= width; x += 2) {
    const value = curveAt(near, beatAt(x));
    if (value !== undefined) path += `${drawing ? 'L' : 'M'}${x} ${yOf(value).toFixed(1)}`;
    drawing = value !== undefined;
  }
  return path;
}

/** What the heights mean. */
function Scale({
  width,
  yOf,
  words,
}: {
  readonly width: number;
  readonly yOf: (value: number) => number;
  readonly words: (value: number) => string;
}) {
  const palette = usePalette();
  return (
    <div aria-hidden style={{ position: 'relative', width, flexShrink: 0, borderRight: `1px solid ${palette.line}` }}>
      {[1, 0.5, 0].map((value) => (
        <span
          key={value}
          style={{
            position: 'absolute',
            right: 5,
            top: yOf(value) - 8,
            font: '500 12px/16px "Spline Sans Mono"',
            color: palette.quiet,
          }}
        >
          {words(value).replace(' ', '')}
        </span>
      ))}
    </div>
  );
}

type PointKeys = { readonly remove: (id: Point['id']) => void; readonly none: () => void };

function usePointKeys(point: Point | undefined, keys: PointKeys): void {
  const latest = useRef({ point, ...keys });
  useEffect(() => {
    latest.current = { point, ...keys };
  });
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const now = latest.current;
      if (!now.point || (event.target as HTMLElement | null)?.closest('input, textarea, select')) return;
      if (event.key === 'Delete' || event.key === 'Backspace') now.remove(now.point.id);
      else if (event.key === 'Escape') now.none();
      else return;
      event.preventDefault();
      event.stopPropagation();
    };
    globalThis.addEventListener('keydown', press, true);
    return () => globalThis.removeEventListener('keydown', press, true);
  }, []);
}
