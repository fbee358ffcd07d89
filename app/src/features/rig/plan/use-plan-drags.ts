// What taps and drags on the plan do.

import { useRef } from 'react';
import type { Aim, Fixture, Point, Shape } from '@hovlix/core/rig';
import type { Layers } from './layers';
import {
  arrowIn,
  hungAfter,
  inLine,
  lampsWithin,
  linesBeside,
  pointAt,
  shapeAfter,
  targetAt,
  turnedAt,
  type Lines,
  type Scene,
} from './scene';
import type { PlanGestures, Spot, Target } from './use-plan-gestures';
import { pinched, pixelX, pixelY, type Window } from './window';

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

export type Drags = {
  readonly scene: Scene;
  readonly extent: Parameters<typeof pinched>[2];
  readonly layers: Layers;
  readonly doing: PlanDoing;
  /** Whether a lamp goes with the finger. */
  readonly goes: (id: string) => boolean;
  /** The lamp that was taken hold of without being chosen. */
  readonly onGrab: (id: string | null) => void;
  /** A shape while it is dragged. */
  readonly onDraft: (shape: Shape | null) => void;
  readonly onWindow: (window: Window) => void;
};

/** A full turn of level for so many pixels of drag. */
const LEVEL_PIXELS = 140;
const levelAt = (by: Spot) => Math.min(1, Math.max(0, 0.5 - by.y / LEVEL_PIXELS));

const HERE: Spot = { x: 0, y: 0 };

export function usePlanDrags({ scene, extent, layers, doing, goes, ...says }: Drags): PlanGestures {
  const lines = useRef<Lines>({ xs: [], ys: [] });
  const { mode, aims, patched } = scene;

  const hang = (id: string, by: Spot) => {
    const line = inLine(scene, lines.current, id, by);
    layers.guide(line.guides);
    return line.by;
  };
  const dim = (id: string, by: Spot, at: Spot) => {
    const level = levelAt(by);
    doing.onLevel(id, level);
    layers.level(level, at);
  };
  const drag = (target: NonNullable<Target>, by: Spot, at: Spot) => {
    if (target.kind === 'lamp') return mode === 'light' ? dim(target.id, by, at) : layers.shift(hang(target.id, by));
    if (target.kind === 'shape' || target.kind === 'corner') return says.onDraft(shapeAfter(scene, target, by));
    layers.shift(by);
    if (target.kind === 'arrow') return layers.arrowTo(at);
    const aim = aims.find(({ id }) => id === target.id);
    if (aim) doing.onAimDrag(aim, pointAt(scene, at, aim), false);
  };
  const letGo = (target: NonNullable<Target>, by: Spot, at: Spot) => {
    if (target.kind === 'lamp') {
      if (mode !== 'hang') return;
      const lamps = patched.filter(({ fixture }) => goes(fixture.id)).map(({ fixture }) => fixture);
      doing.onHung(hungAfter(scene, lamps, inLine(scene, lines.current, target.id, by).by));
    } else if (target.kind === 'aim') {
      const aim = aims.find(({ id }) => id === target.id);
      if (aim) doing.onAimDrag(aim, pointAt(scene, at, aim), true);
    } else if (target.kind === 'arrow') {
      const turned = arrowIn(scene);
      if (turned) doing.onHung([turnedAt(scene, turned.lamp, at)]);
    } else {
      const shaped = shapeAfter(scene, target, by);
      says.onDraft(null);
      if (shaped) doing.onShaped(shaped);
    }
  };

  return {
    targetAt: (at) => targetAt(scene, at),
    onTap(target) {
      if (target?.kind === 'lamp') doing.onLamp(target.id);
      else if (target?.kind === 'aim') doing.onAim(target.id);
      else if (target?.kind === 'shape' || target?.kind === 'corner') doing.onShape(target.id);
      else if (!target) doing.onGround();
    },
    onDragStart(target) {
      if (!target || (target.kind === 'lamp' && mode === 'aims')) return false;
      if (target.kind === 'lamp') lines.current = linesBeside(scene, target.id);
      if (target.kind === 'lamp' && mode === 'hang') says.onGrab(scene.chosen.has(target.id) ? null : target.id);
      if (target.kind === 'aim') doing.onAim(target.id);
      if (target.kind === 'shape') doing.onShape(target.id);
      return true;
    },
    onDrag: (target, by, at) => target && drag(target, by, at),
    onDragEnd(target, by, at) {
      layers.shift(HERE);
      layers.guide('');
      layers.level(null, at);
      says.onGrab(null);
      if (target && (by.x !== 0 || by.y !== 0)) letGo(target, by, at);
    },
    onLine(line, done) {
      layers.draw(done ? [] : line);
      if (done && line.length >= 3 && mode !== 'room') doing.onLasso(lampsWithin(scene, line));
    },
    onPinch(from, to, done) {
      const { view, size } = scene;
      const next = pinched(view, size, extent, from, to);
      if (done) {
        layers.zoomed(null);
        return says.onWindow(next);
      }
      const times = next.scale / view.scale;
      const x = pixelX(next, size, view.x) - (times * size.width) / 2;
      layers.zoomed({ x, y: pixelY(next, size, view.y) - (times * size.height) / 2, times });
    },
  };
}
