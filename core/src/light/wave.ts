// Waves: periodic shapes on one attribute, from a low to a high value, fanned over the cast.

import { z } from 'zod';
import { Chroma } from '../rig/schema';
import { chance } from './chance';
import { RunShape } from './drive';

export const WAVE_SHAPES = ['sine', 'triangle', 'up', 'down', 'square', 'random', 'drawn'] as const;
export type WaveShape = (typeof WAVE_SHAPES)[number];

export const MOVE_SHAPES = ['circle', 'eight', 'sweep', 'bounce', 'wander'] as const;
export type MoveShape = (typeof MOVE_SHAPES)[number];

/** The shortest is 1/16 beat, the longest 64 bars of eight beats. */
export const SPAN_BEATS = { least: 1 / 16, most: 512 } as const;
export const SPAN_SECONDS = { least: 0.02, most: 3600 } as const;

/** How long one turn takes: in beats, locked to the phase of the clock, or in seconds (2 Hz is half a second). */
export const Span = z.union([
  z.strictObject({ beats: z.number().min(SPAN_BEATS.least).max(SPAN_BEATS.most) }),
  z.strictObject({ seconds: z.number().min(SPAN_SECONDS.least).max(SPAN_SECONDS.most) }),
]);
export type Span = z.infer<typeof Span>;

const shared = {
  span: Span,
  /** Where in its turn it is at beat or second 0: 0…1. */
  offset: z.number().min(0).max(1).default(0),
  /** How far the cast is drawn apart: 1 lays n lamps 1/n of a turn from each other. */
  turn: z.number().min(0).max(8).default(0),
  ...RunShape,
};

const shaped = {
  shape: z.enum(WAVE_SHAPES),
  /** Of a square: the share of its turn that is high. */
  width: z.number().min(0.01).max(0.99).default(0.5),
  /** Of a drawn shape: heights 0…1, evenly spaced over one turn and joined by straight lines. */
  points: z.array(z.number().min(0).max(1)).min(2).max(64).optional(),
  /** Replaces the attribute's value, or is added to it. */
  blend: z.enum(['replace', 'add']).default('replace'),
};

/** The attributes with a wave in their own unit; everything else goes by its GDTF name, 0…1. */
export const WAVE_UNITS = {
  level: { low: 0, high: 1, unit: '%' },
  hue: { low: -360, high: 360, unit: '°' },
  pan: { low: -540, high: 540, unit: '°' },
  tilt: { low: -180, high: 180, unit: '°' },
  strobe: { low: 0, high: 30, unit: 'Hz' },
  zoom: { low: 0, high: 1, unit: '%' },
  haze: { low: 0, high: 1, unit: '%' },
} as const;

/** What a wave, or a follower, moves: one of our own names, or a GDTF name. */
export const Moved = z.string().min(1).max(60);

export const Wave = z.discriminatedUnion('type', [
  /** A number from `low` to `high`; with low above high it is upside down. */
  z.strictObject({
    type: z.literal('wave'),
    on: Moved,
    low: z.number().min(-1000).max(1000),
    high: z.number().min(-1000).max(1000),
    ...shaped,
    ...shared,
  }),
  /** From one colour to another. */
  z.strictObject({ type: z.literal('colours'), from: Chroma, to: Chroma, ...shaped, ...shared }),
  /** A figure that a head draws around its aim; sizes in degrees from edge to edge. */
  z.strictObject({
    type: z.literal('move'),
    shape: z.enum(MOVE_SHAPES),
    width: z.number().min(0).max(360),
    height: z.number().min(0).max(180),
    /** The second half of the cast draws it as in a mirror. */
    flip: z.boolean().default(false),
    ...shared,
  }),
]);
export type Wave = z.infer<typeof Wave>;

const TURN = Math.PI * 2;

/** What makes a wave look as it does. */
export type Form = {
  readonly shape: WaveShape | MoveShape;
  readonly width: number;
  readonly points: ArrayLike<number>;
  readonly seed: number;
};

/**
 * Turns how many turns have gone by since beat or second 0 (negative before it) into the heights of a shape, 0…1, for the
 * first `count` numbers of `out`. One call for all lamps of a strand, and a loop for each shape, so that the frame loop
 * makes no numbers on the heap.
 * @param ranks whose lamp it is: random steps differ from lamp to lamp.
 */
export function heightsAt(form: Form, ranks: Int32Array, count: number, out: Float64Array): void {
  const { shape, points } = form;
  if (shape === 'random') {
    const { seed } = form;
    for (let i = 0; i < count; i++) out[i] = chance(seed, Math.floor(out[i]!), ranks[i]!);
    return;
  }
  for (let i = 0; i < count; i++) out[i] = out[i]! - Math.floor(out[i]!);
  switch (shape) {
    case 'sine':
      for (let i = 0; i < count; i++) out[i] = 0.5 - 0.5 * Math.cos(TURN * out[i]!);
      return;
    case 'triangle':
      for (let i = 0; i < count; i++) out[i] = out[i]! < 0.5 ? out[i]! * 2 : 2 - out[i]! * 2;
      return;
    case 'up':
      return;
    case 'down':
      for (let i = 0; i < count; i++) out[i] = 1 - out[i]!;
      return;
    case 'square': {
      const { width } = form;
      for (let i = 0; i < count; i++) out[i] = out[i]! < width ? 1 : 0;
      return;
    }
    case 'drawn':
      for (let i = 0; i < count && points.length > 0; i++) {
        const at = out[i]! * points.length;
        const here = Math.floor(at) % points.length;
        out[i] = points[here]! + (points[(here + 1) % points.length]! - points[here]!) * (at - Math.floor(at));
      }
  }
}

/** The height of one lamp, for pictures: see `heightsAt`. */
export function heightAt(
  shape: WaveShape,
  turns: number,
  width: number,
  points: ArrayLike<number>,
  seed: number,
  rank: number,
): number {
  const out = Float64Array.of(turns);
  heightsAt({ shape, width, points, seed }, Int32Array.of(rank), 1, out);
  return out[0]!;
}

/**
 * Where a figure is: writes pan and tilt, -0.5…0.5 of its width and height, to `out[at]` and `out[at + 1]`.
 * @param rank whose lamp it is: heads wander each on its own way.
 */
export function figureAt(
  shape: MoveShape,
  turns: number,
  seed: number,
  rank: number,
  out: Float64Array,
  at: number,
): void {
  const angle = TURN * (turns - Math.floor(turns));
  switch (shape) {
    case 'circle':
      out[at] = 0.5 * Math.cos(angle);
      out[at + 1] = 0.5 * Math.sin(angle);
      return;
    case 'eight':
      out[at] = 0.5 * Math.sin(angle);
      out[at + 1] = 0.5 * Math.sin(2 * angle);
      return;
    case 'sweep':
      out[at] = 0.5 * Math.sin(angle);
      out[at + 1] = 0;
      return;
    case 'bounce':
      out[at] = 0.5 * Math.sin(angle);
      out[at + 1] = Math.abs(Math.cos(angle)) - 0.5;
      return;
    case 'wander':
      out[at] = wanderAt(turns, seed, rank);
      out[at + 1] = wanderAt(turns, seed + 1, rank);
  }
}

/** Two sines that never meet again, begun anywhere: smooth, and never the same twice. */
function wanderAt(turns: number, seed: number, rank: number): number {
  const one = Math.sin(TURN * (turns + chance(seed, rank, 1)));
  const two = Math.sin(TURN * (turns * 0.618034 + chance(seed, rank, 2)));
  return 0.25 * (one + two);
}
