// The plan one works on: lamps, shapes and aims to tap, drag, draw around and zoom, over the light of this moment.

import { useCallback, useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import {
  extentOf,
  isInside,
  movedBy,
  snapped,
  type Aim,
  type Fixture,
  type Patched,
  type Point,
  type Rig,
  type Shape,
} from '@hovlix/core/rig';
import { usePalette, useTints } from '../../../ui/palette';
import { arrowEnd, cornerOf, shapeAt, shapeMoved, shapeSized, turnedTo } from './handles';
import { LiveLight } from './LiveLight';
import { AimMark, LampMark, ShapeMark, Wedge, type Look } from './marks';
import { usePlanGestures, type Spot, type Target } from './use-plan-gestures';
import { fitted, metresX, metresY, nearestLine, pinched, pixelX, pixelY, type Size, type Window } from './window';
import { WORDS } from './words';

export type PlanMode = 'hang' | 'light' | 'aims' | 'room';

export type PlanDoing = {
  readonly onLamp: (id: string) => void;
  readonly onGround: () => void;
  readonly onLasso: (ids: readonly string[]) => void;
  readonly onHung: (lamps: readonly Fixture[]) => void;
  /** 0…1 while a lamp is dragged up or down. */
  readonly onLevel: (id: string, level: number) => void;
  readonly onAim: (id: string) => void;
  /** While an aim is dragged, and where it was let go. */
  readonly onAimDrag: (aim: Aim, point: Point, done: boolean) => void;
  readonly onShape: (id: string) => void;
  readonly onShaped: (shape: Shape) => void;
};

type Props = PlanDoing & {
  readonly rig: Rig;
  readonly patched: readonly Patched[];
  readonly aims: readonly Aim[];
  readonly tintOf: (fixture: string) => number | undefined;
  readonly chosen: ReadonlySet<string>;
  readonly held: ReadonlySet<string>;
  readonly mode: PlanMode;
  readonly from: 'above' | 'audience';
  /** Metres; 0 for none. */
  readonly grid: number;
  readonly height: number;
  readonly window: Window | null;
  readonly onWindow: (window: Window | null) => void;
};

/** A full turn of level for so many pixels of drag. */
const LEVEL_PIXELS = 140;
const SNAP_PIXELS = 7;
const NEAR = 24;

export function PlanPicture(props: Props) {
  const { rig, patched, aims, tintOf, chosen, held, mode, from, grid, height, onWindow } = props;
  const palette = usePalette();
  const tints = useTints();
  const area = useRef<HTMLDivElement>(null);
  const moving = useRef<SVGSVGElement>(null);
  const all = useRef<SVGGElement>(null);
  const guides = useRef<SVGPathElement>(null);
  const lasso = useRef<SVGPolygonElement>(null);
  const readout = useRef<SVGTextElement>(null);
  const [width, setWidth] = useState(366);
  const [grabbed, setGrabbed] = useState<string | null>(null);
  /** A shape while it is dragged or sized. */
  const [draft, setDraft] = useState<Shape | null>(null);
  const arrowLine = useRef<SVGLineElement>(null);

  useEffect(() => {
    const watch = new ResizeObserver(
      ([entry]) => entry && setWidth(Math.max(200, Math.round(entry.contentRect.width))),
    );
    if (area.current) watch.observe(area.current);
    return () => watch.disconnect();
  }, []);

  const size: Size = useMemo(() => ({ width, height }), [width, height]);
  const extent = useMemo(() => extentOf(rig, from, mode === 'aims' ? aims : []), [rig, from, mode, aims]);
  const view: Window = useMemo(() => props.window ?? fitted(extent, size), [props.window, extent, size]);
  const look: Look = useMemo(
    () => ({
      x: (metres) => pixelX(view, size, metres),
      y: (metres) => pixelY(view, size, metres),
      scale: view.scale,
      width: size.width,
      from,
      palette,
    }),
    [view, size, from, palette],
  );
  const up = from === 'above' ? 'y' : 'z';
  const one = chosen.size === 1 ? patched.find(({ fixture }) => chosen.has(fixture.id)) : undefined;
  const arrow =
    mode === 'hang' && one && one.profile.panRange === 0 && one.profile.kind !== 'hazer' ? arrowEnd(one.fixture) : null;
  const shapes = draft ? rig.shapes.map((each) => (each.id === draft.id ? draft : each)) : rig.shapes;
  const shape = mode === 'room' ? shapes.find(({ id }) => chosen.has(id)) : undefined;
  const colourOf = (id: string) => {
    const tint = tintOf(id);
    return tint === undefined ? palette.faint : tints[tint]!;
  };
  // What moves with the finger: the chosen lamps, or the one that was grabbed.
  const goes = (id: string) => (grabbed === null ? chosen.has(id) : grabbed === id);

  const targetAt = (at: Spot): Target => {
    const near = (kind: string, points: readonly { id: string; x: number; y: number }[]) => {
      const best = points
        .map((point) => ({ id: point.id, away: Math.hypot(look.x(point.x) - at.x, look.y(point.y) - at.y) }))
        .reduce<{ id: string; away: number } | null>((a, b) => (!a || b.away < a.away ? b : a), null);
      return best && best.away <= NEAR ? { kind, id: best.id } : null;
    };
    const lamps = () =>
      near(
        'lamp',
        patched.map(({ fixture }) => ({ id: fixture.id, x: fixture.mount.x, y: fixture.mount[up] })),
      );
    if (mode === 'aims')
      return (
        near(
          'aim',
          aims.map((aim) => ({ id: aim.id, x: aim.x, y: aim[up] })),
        ) ?? lamps()
      );
    if (mode === 'room') {
      const corner = shape && cornerOf(shape, from);
      return (corner && near('corner', [{ id: shape.id, ...corner }])) ?? shapeAt(rig.shapes, at, look);
    }
    return (arrow && near('arrow', [{ id: 'arrow', x: arrow.x, y: arrow[up] }])) ?? lamps();
  };

  /** What moves with the finger is a layer of its own, so that a drag repaints nothing. */
  const shift = (by: Spot | null) => {
    if (moving.current) moving.current.style.transform = by ? `translate(${by.x}px, ${by.y}px)` : '';
  };
  const guide = (lines: string) => {
    if (guides.current && guides.current.getAttribute('d') !== lines) guides.current.setAttribute('d', lines);
  };

  /** Lines to snap to while a lamp is dragged: what hangs or stands there and does not move with it. */
  const lines = useRef<{ readonly xs: readonly number[]; readonly ys: readonly number[] }>({ xs: [], ys: [] });
  const linesBeside = (id: string) => {
    const stays = patched.filter(({ fixture }) => (chosen.has(id) ? !chosen.has(fixture.id) : fixture.id !== id));
    const trusses = rig.shapes.filter(({ kind, turn }) => kind === 'truss' && turn === 0);
    return {
      xs: [...new Set([0, ...stays.map(({ fixture }) => fixture.mount.x)])],
      ys: [...new Set([...stays.map(({ fixture }) => fixture.mount[up]), ...trusses.map((truss) => truss[up])])],
    };
  };

  /** The drag in pixels once it has snapped to what is in line, and the lines it snapped to. */
  const inLine = (target: Target, by: Spot): Spot => {
    const lamp = patched.find(({ fixture }) => fixture.id === target?.id);
    if (!lamp) return by;
    const { xs, ys } = lines.current;
    const within = grid > 0 ? SNAP_PIXELS / view.scale : 0;
    const place = { x: lamp.fixture.mount.x + by.x / view.scale, y: lamp.fixture.mount[up] - by.y / view.scale };
    const [x, y] = [nearestLine(place.x, xs, within), nearestLine(place.y, ys, within)];
    const snaps = `${x === undefined ? '' : `M${look.x(x)} 0V${height}`}${y === undefined ? '' : `M0 ${look.y(y)}H${width}`}`;
    guide(snaps);
    const to = { x: x ?? snapped(place.x, grid), y: y ?? snapped(place.y, grid) };
    return { x: (to.x - lamp.fixture.mount.x) * view.scale, y: (lamp.fixture.mount[up] - to.y) * view.scale };
  };

  const pointAt = (at: Spot, aim: Aim): Point => {
    const x = snapped(metresX(view, size, at.x), 0);
    const high = snapped(metresY(view, size, at.y), 0);
    return from === 'above' ? { x, y: high, z: aim.z } : { x, y: aim.y, z: Math.max(0, high) };
  };

  const levelAt = (by: Spot, start: number) => Math.min(1, Math.max(0, start - by.y / LEVEL_PIXELS));

  const shapeAfter = (target: NonNullable<Target>, by: Spot): Shape | null => {
    const moved = rig.shapes.find(({ id }) => id === target.id);
    const [dx, dy] = [by.x / view.scale, -by.y / view.scale];
    if (!moved) return null;
    return target.kind === 'shape' ? shapeMoved(moved, dx, dy, from, grid) : shapeSized(moved, dx, dy, from, grid);
  };

  const handlers = usePlanGestures(area, {
    targetAt,
    onTap(target) {
      if (target?.kind === 'lamp') props.onLamp(target.id);
      else if (target?.kind === 'aim') props.onAim(target.id);
      else if (target?.kind === 'shape' || target?.kind === 'corner') props.onShape(target.id);
      else if (!target) props.onGround();
    },
    onDragStart(target) {
      if (!target) return false;
      if (target.kind === 'lamp' && mode === 'aims') return false;
      if (target.kind === 'lamp') lines.current = linesBeside(target.id);
      if (target.kind === 'lamp' && mode === 'hang') setGrabbed(chosen.has(target.id) ? null : target.id);
      if (target.kind === 'aim') props.onAim(target.id);
      if (target.kind === 'shape') props.onShape(target.id);
      return true;
    },
    onDrag(target, by, at) {
      if (target?.kind === 'lamp' && mode === 'hang') shift(inLine(target, by));
      else if (target?.kind === 'lamp' && mode === 'light') {
        const level = levelAt(by, 0.5);
        props.onLevel(target.id, level);
        const text = readout.current;
        text?.setAttribute('x', String(at.x));
        text?.setAttribute('y', String(at.y - 34));
        if (text) text.textContent = `${Math.round(level * 100)} %`;
      } else if (target?.kind === 'aim') {
        shift(by);
        const aim = aims.find(({ id }) => id === target.id);
        if (aim) props.onAimDrag(aim, pointAt(at, aim), false);
      } else if (target?.kind === 'arrow') {
        shift(by);
        arrowLine.current?.setAttribute('x2', String(at.x));
        arrowLine.current?.setAttribute('y2', String(at.y));
      } else if (target) setDraft(shapeAfter(target, by));
    },
    onDragEnd(target, by, at) {
      shift(null);
      guide('');
      if (readout.current) readout.current.textContent = '';
      setGrabbed(null);
      if (by.x === 0 && by.y === 0) return;
      if (target?.kind === 'lamp' && mode === 'hang') {
        const settled = inLine(target, by);
        guide('');
        const lamps = patched.filter(({ fixture }) => goes(fixture.id)).map(({ fixture }) => fixture);
        const [dx, dy] = [settled.x / view.scale, -settled.y / view.scale];
        props.onHung(movedBy(lamps, from === 'above' ? { x: dx, y: dy } : { x: dx, z: dy }, 0));
      } else if (target?.kind === 'aim') {
        const aim = aims.find(({ id }) => id === target.id);
        if (aim) props.onAimDrag(aim, pointAt(at, aim), true);
      } else if (target?.kind === 'arrow' && one) {
        const to = { x: metresX(view, size, at.x), high: metresY(view, size, at.y) };
        props.onHung([{ ...one.fixture, mount: turnedTo(one.fixture, to, from), directed: true }]);
      } else if (target?.kind === 'shape' || target?.kind === 'corner') {
        const shaped = shapeAfter(target, by);
        setDraft(null);
        if (shaped) props.onShaped(shaped);
      }
    },
    onLine(line, done) {
      const points = done ? '' : line.map(([x, y]) => `${x},${y}`).join(' ');
      lasso.current?.setAttribute('points', points);
      if (!done || line.length < 3 || mode === 'room') return;
      const inside = patched.filter(({ fixture }) =>
        isInside(line, look.x(fixture.mount.x), look.y(fixture.mount[up])),
      );
      props.onLasso(inside.map(({ fixture }) => fixture.id));
    },
    onPinch(start, now, done) {
      const next = pinched(view, size, extent, start, now);
      if (done) {
        all.current?.setAttribute('transform', '');
        shift(null);
        onWindow(next);
        return;
      }
      const k = next.scale / view.scale;
      const [tx, ty] = [pixelX(next, size, view.x) - (k * width) / 2, pixelY(next, size, view.y) - (k * height) / 2];
      all.current?.setAttribute('transform', `translate(${tx} ${ty}) scale(${k})`);
      if (moving.current) moving.current.style.transform = `translate(${tx}px, ${ty}px) scale(${k})`;
    },
  });

  const zoom = useRef<(event: WheelEvent) => void>(() => undefined);
  useEffect(() => {
    zoom.current = (event) => {
      event.preventDefault();
      const box = area.current!.getBoundingClientRect();
      const at = { x: event.clientX - box.left, y: event.clientY - box.top };
      onWindow(pinched(view, size, extent, { ...at, apart: 1 }, { ...at, apart: Math.exp(-event.deltaY / 300) }));
    };
  });
  useEffect(() => {
    const element = area.current;
    // Only with a modifier or a pinch on the touch pad: a plain wheel scrolls the page.
    const wheel = (event: WheelEvent) => (event.ctrlKey || event.metaKey ? zoom.current(event) : undefined);
    element?.addEventListener('wheel', wheel, { passive: false });
    return () => element?.removeEventListener('wheel', wheel);
  }, []);

  const press = useCallback((id: string) => props.onLamp(id), [props]);
  const [still, gone] = [
    patched.filter(({ fixture }) => !goes(fixture.id)),
    patched.filter(({ fixture }) => goes(fixture.id)),
  ];
  const marks = (lamps: readonly Patched[]) => (
    <>
      {lamps.map((lamp) => (
        <Wedge key={lamp.fixture.id} lamp={lamp} look={look} colour={colourOf(lamp.fixture.id)} />
      ))}
      {lamps.map((lamp) => (
        <LampMark
          key={lamp.fixture.id}
          lamp={lamp}
          look={look}
          colour={colourOf(lamp.fixture.id)}
          chosen={chosen.has(lamp.fixture.id)}
          held={held.has(lamp.fixture.id)}
          onPress={press}
        />
      ))}
    </>
  );
  const { picture } = rig;
  return (
    <div
      ref={area}
      data-testid="plan"
      style={{
        position: 'relative',
        height,
        margin: '0 12px',
        borderRadius: 14,
        overflow: 'hidden',
        background: palette.sunken,
        touchAction: 'none',
        userSelect: 'none',
      }}
      {...handlers}
    >
      <svg width={width} height={height} style={{ position: 'absolute', inset: 0 }} aria-hidden>
        {picture && from === 'above' && (
          <image
            href={picture.data}
            x={look.x(picture.x - picture.width / 2)}
            y={look.y(picture.y + (picture.width * picture.aspect) / 2)}
            width={picture.width * view.scale}
            height={picture.width * picture.aspect * view.scale}
            opacity={0.55}
          />
        )}
        {shapes.map((each) => (
          <ShapeMark key={each.id} shape={each} look={look} chosen={each.id === shape?.id} />
        ))}
        {from === 'audience' && (
          <line x1={0} x2={width} y1={look.y(0)} y2={look.y(0)} stroke={palette.line} strokeWidth={2} />
        )}
        <text x={width / 2} y={height - 10} fill={palette.quiet} fontSize={13} textAnchor="middle" fontFamily="Figtree">
          {from === 'above' ? 'audience' : ''}
        </text>
      </svg>
      <LiveLight size={size} view={{ scale: view.scale, x0: look.x(0), y0: look.y(0), from }} />
      <svg
        width={width}
        height={height}
        style={{ position: 'absolute', inset: 0 }}
        role="group"
        aria-label={from === 'above' ? WORDS.stageFromAbove : WORDS.stageFromAudience}
      >
        <g ref={all}>
          {aims.map((aim) => {
            const on = mode === 'aims' && chosen.has(aim.id);
            return on ? null : <AimMark key={aim.id} aim={aim} look={look} chosen={false} faint={mode !== 'aims'} />;
          })}
          {mode === 'hang' ? marks(still) : marks(patched)}
          <path ref={guides} stroke={palette.doing} strokeWidth={1} strokeDasharray="3 4" />
          {arrow && <Arrow line={arrowLine} from={one!.fixture.mount} to={arrow} look={look} />}
          <polygon ref={lasso} fill={palette.doing} fillOpacity={0.12} stroke={palette.doing} strokeWidth={1.5} />
          <text
            ref={readout}
            fill={palette.text}
            fontSize={18}
            fontWeight={700}
            textAnchor="middle"
            fontFamily="Spline Sans Mono"
          />
        </g>
      </svg>
      <svg
        ref={moving}
        width={width}
        height={height}
        role="group"
        aria-label={WORDS.chosen}
        style={{
          position: 'absolute',
          inset: 0,
          overflow: 'visible',
          transformOrigin: '0 0',
          willChange: 'transform',
          pointerEvents: 'none',
        }}
      >
        {mode === 'hang' && marks(gone)}
        {mode === 'aims' &&
          aims.map((aim) => chosen.has(aim.id) && <AimMark key={aim.id} aim={aim} look={look} chosen faint={false} />)}
        {arrow && <circle cx={look.x(arrow.x)} cy={look.y(arrow[up])} r={9} fill={palette.doing} />}
        {shape && <Corner shape={shape} look={look} />}
      </svg>
    </div>
  );
}

function Corner({ shape, look }: { readonly shape: Shape; readonly look: Look }) {
  const corner = cornerOf(shape, look.from);
  return <circle cx={look.x(corner.x)} cy={look.y(corner.y)} r={9} fill={look.palette.doing} aria-hidden />;
}

type ArrowProps = {
  readonly line: RefObject<SVGLineElement | null>;
  readonly from: Fixture['mount'];
  readonly to: Point;
  readonly look: Look;
};

function Arrow({ line, from, to, look }: ArrowProps) {
  const up = look.from === 'above' ? 'y' : 'z';
  return (
    <line
      ref={line}
      x1={look.x(from.x)}
      y1={look.y(from[up])}
      x2={look.x(to.x)}
      y2={look.y(to[up])}
      stroke={look.palette.doing}
      strokeWidth={2}
    />
  );
}
