// The plan one works on: lamps, shapes and aims to tap, drag, draw around and zoom, over the light of this moment.

import { useCallback, useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import type { Aim, Patched, Rig, Shape } from '@hovlix/core/rig';
import { usePalette } from '../../../ui/palette';
import { planLayers } from './layers';
import { LiveLight } from './LiveLight';
import type { Look } from './marks';
import { Ground, Moving, Still } from './PlanLayers';
import { arrowIn, extentIn, shapeIn, type PlanMode, type Scene } from './scene';
import { usePlanDrags, type PlanDoing } from './use-plan-drags';
import { usePlanGestures } from './use-plan-gestures';
import { useWheelZoom } from './use-wheel-zoom';
import { fitted, pinched, pixelX, pixelY, type Size, type Window } from './window';

type Props = PlanDoing & {
  readonly rig: Rig;
  readonly patched: readonly Patched[];
  readonly aims: readonly Aim[];
  readonly tintOf: (fixture: string) => number | undefined;
  readonly chosen: ReadonlySet<string>;
  readonly held: ReadonlySet<string>;
  readonly mode: PlanMode;
  readonly from: Look['from'];
  /** Metres; 0 for none. */
  readonly grid: number;
  readonly height: number;
  readonly window: Window | null;
  readonly onWindow: (window: Window | null) => void;
};

export function PlanPicture(props: Props) {
  const { rig, patched, aims, tintOf, chosen, held, mode, from, grid, height, onLamp, onWindow } = props;
  const palette = usePalette();
  const area = useRef<HTMLDivElement>(null);
  const width = useWidth(area);
  const [layers] = useState(planLayers);
  const [grabbed, setGrabbed] = useState<string | null>(null);
  const [draft, setDraft] = useState<Shape | null>(null);

  const size: Size = useMemo(() => ({ width, height }), [width, height]);
  const extent = useMemo(() => extentIn(rig, from, mode, aims), [rig, from, mode, aims]);
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
  const scene: Scene = { rig, patched, aims, chosen, mode, grid, size, view, look };
  const shapes = draft ? rig.shapes.map((each) => (each.id === draft.id ? draft : each)) : rig.shapes;
  const arrow = arrowIn(scene);
  // What moves with the finger: the chosen lamps, or the one that was grabbed.
  const goes = (id: string) => mode === 'hang' && (grabbed === null ? chosen.has(id) : grabbed === id);

  const drags = { scene, extent, layers, doing: props, goes, onGrab: setGrabbed, onDraft: setDraft, onWindow };
  const handlers = usePlanGestures(area, usePlanDrags(drags));
  useWheelZoom(area, (from, to) => onWindow(pinched(view, size, extent, from, to)));

  const press = useCallback((id: string) => onLamp(id), [onLamp]);
  const marks = { scene, held, tintOf, onPress: press };
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
      <Ground scene={scene} shapes={shapes} />
      <LiveLight size={size} view={{ scale: view.scale, x0: look.x(0), y0: look.y(0), from }} />
      <Still {...marks} layers={layers} arrow={arrow} lamps={patched.filter(({ fixture }) => !goes(fixture.id))} />
      <Moving
        {...marks}
        layer={layers.moving}
        arrow={arrow}
        shape={shapeIn(scene, shapes)}
        lamps={patched.filter(({ fixture }) => goes(fixture.id))}
      />
    </div>
  );
}

/** Before it was measured, that of a phone. */
const USUAL = 366;
const LEAST = 200;

function useWidth(area: RefObject<HTMLElement | null>): number {
  const [width, setWidth] = useState(USUAL);
  useEffect(() => {
    const watch = new ResizeObserver(
      ([entry]) => entry && setWidth(Math.max(LEAST, Math.round(entry.contentRect.width))),
    );
    if (area.current) watch.observe(area.current);
    return () => watch.disconnect();
  }, [area]);
  return width;
}
