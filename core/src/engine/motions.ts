// Waves as arrays, and what they make of a strand at an instant.

import { figureAt, heightsAt, rankOf, type MoveShape, type Wave, type WaveShape } from '../light';
import { COLOUR, HAZE, LEVEL, MOVE, SLOT, STROBE, ZOOM } from './fields';
import { labOf, type Ground } from './ground';
import { SLOT_STEPS, type Motion, type Sheet, type Strand } from './program';
import type { Row } from './sheets';

const NONE = new Float64Array(0);

const NAMED: Readonly<Record<string, readonly number[]>> = {
  level: [LEVEL],
  hue: [COLOUR, SLOT],
  pan: [MOVE],
  tilt: [MOVE],
  strobe: [STROBE],
  zoom: [ZOOM],
  haze: [HAZE],
};

/** The fields a wave moves. */
export function fieldsOfWave(wave: Wave, ownFields: ReadonlyMap<string, number>): readonly number[] {
  if (wave.type === 'move') return [MOVE];
  if (wave.type === 'colours') return [COLOUR, SLOT];
  const own = ownFields.get(wave.on);
  return NAMED[wave.on] ?? (own === undefined ? [] : [own]);
}

/** What a wave does to the rows of one field; undefined where it moves another. */
export function motionOf(wave: Wave, field: number, rows: readonly Row[], ground: Ground): Motion | undefined {
  const ranks = rows.map(({ place, count }) => rankOf(wave, place, count));
  const shared = {
    shape: wave.shape,
    rate: 'beats' in wave.span ? 1 / wave.span.beats : 1 / wave.span.seconds,
    timed: 'seconds' in wave.span,
    offset: wave.offset,
    behind: Float64Array.from(ranks, ({ rank, of }) => (wave.turn * rank) / of),
    ranks: Int32Array.from(rows, ({ place }) => place),
    seed: wave.seed ?? 0,
    column: 0,
    low: 0,
    high: 1,
    add: false,
    width: 0.5,
    points: NONE,
    from: NONE,
    to: NONE,
  };
  if (wave.type === 'move') {
    if (field !== MOVE) return undefined;
    const mirrored = rows.map(({ place, count }) => (wave.flip && place >= count / 2 ? -1 : 1));
    return { ...shared, kind: 'figure', low: wave.width, high: wave.height, from: Float64Array.from(mirrored) };
  }
  const shaped = { ...shared, width: wave.width, points: Float64Array.from(wave.points ?? []) };
  if (wave.type === 'colours') {
    const [from, to] = [Float64Array.from(labOf(wave.from)), Float64Array.from(labOf(wave.to))];
    if (field === COLOUR) return { ...shaped, kind: 'colours', from, to };
    if (field !== SLOT) return undefined;
    const along = (_: Row, share: number) => Array.from(from, (part, i) => part + (to[i]! - part) * share);
    return { ...shaped, kind: 'slot', from: slotsAlong(rows, ground, along) };
  }
  const { low, high } = wave;
  if (wave.on === 'hue') {
    if (field === COLOUR) return { ...shaped, kind: 'hue', low, high };
    if (field !== SLOT) return undefined;
    const turned = (row: Row, share: number) => hueTurned(colourOf(row, ground), low + (high - low) * share);
    return { ...shaped, kind: 'slot', from: slotsAlong(rows, ground, turned) };
  }
  const add = wave.blend === 'add';
  if (wave.on === 'pan' || wave.on === 'tilt') {
    const column = wave.on === 'pan' ? 0 : 1;
    return field === MOVE ? { ...shaped, kind: 'number', column, low, high, add: true } : undefined;
  }
  const moved = fieldsOfWave(wave, ground.ownFields).includes(field);
  return moved ? { ...shaped, kind: 'number', low, high, add } : undefined;
}

/** By row, the slots a wheel takes on the way from low to high. */
function slotsAlong(
  rows: readonly Row[],
  { heads, slotOf }: Ground,
  colour: (row: Row, share: number) => readonly number[],
): Float64Array {
  return Float64Array.from(
    rows.flatMap((row) =>
      Array.from({ length: SLOT_STEPS }, (_, i) => slotOf(heads[row.head]!.profile, colour(row, i / (SLOT_STEPS - 1)))),
    ),
  );
}

/** The colour a slot was taken for, near enough for a hue that turns: that of the slot itself. */
function colourOf({ head, values }: Row, { heads }: Ground): readonly number[] {
  const slot = heads[head]!.profile.colours[values[0]!];
  return slot ? labOf(slot.colour) : [1, 0, 0];
}

function hueTurned([L, a, b]: readonly number[], degrees: number): readonly number[] {
  const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  return [L!, a! * cos - b! * sin, a! * sin + b! * cos];
}

/**
 * Works out what waves make of a sheet at an instant. Allocates nothing.
 * @param heights room for as many numbers as a strand has rows.
 */
export function moveSheet(sheet: Sheet, beat: number, at: number, heights: Float64Array): void {
  for (let s = 0; s < sheet.strands.length; s++) {
    const strand = sheet.strands[s]!;
    if (strand.motions.length === 0) continue;
    strand.live.set(strand.values);
    for (let m = 0; m < strand.motions.length; m++) {
      const motion = strand.motions[m]!;
      const turns = (motion.timed ? at : beat) * motion.rate + motion.offset;
      if (motion.kind === 'figure') {
        for (let row = 0; row < strand.count; row++) addFigure(motion, turns - motion.behind[row]!, row, strand.live);
        continue;
      }
      const { shape, behind, ranks, width, points, seed } = motion;
      heightsAt(shape as WaveShape, turns, behind, ranks, width, points, seed, heights);
      moveStrand(strand, motion, heights);
    }
  }
}

function moveStrand({ live, count, field }: Strand, motion: Motion, heights: Float64Array): void {
  const width = live.length / count;
  const { kind, low, high, column, from, to } = motion;
  for (let row = 0; row < count; row++) {
    const height = heights[row]!;
    const place = row * width;
    if (kind === 'number') {
      const value = low + (high - low) * height;
      const sum = motion.add ? live[place + column]! + value : value;
      live[place + column] = field === LEVEL ? (sum < 0 ? 0 : sum > 1 ? 1 : sum) : sum;
    } else if (kind === 'colours') {
      for (let k = 0; k < 3; k++) live[place + k] = from[k]! + (to[k]! - from[k]!) * height;
    } else if (kind === 'hue') {
      turnHue(live, place, low + (high - low) * height);
    } else {
      live[place] = from[row * SLOT_STEPS + Math.round(height * (SLOT_STEPS - 1))]!;
    }
  }
}

function addFigure(motion: Motion, turns: number, row: number, live: Float64Array): void {
  const place = row * 2;
  const pan = live[place]!;
  const tilt = live[place + 1]!;
  figureAt(motion.shape as MoveShape, turns, motion.seed, motion.ranks[row]!, live, place);
  live[place] = pan + live[place]! * motion.low * motion.from[row]!;
  live[place + 1] = tilt + live[place + 1]! * motion.high;
}

/** Turns a colour's hue by degrees, in OKLab. */
function turnHue(live: Float64Array, place: number, degrees: number): void {
  const angle = (degrees * Math.PI) / 180;
  const cos = Math.cos(angle);
  const sin = Math.sin(angle);
  const a = live[place + 1]!;
  const b = live[place + 2]!;
  live[place + 1] = a * cos - b * sin;
  live[place + 2] = a * sin + b * cos;
}
