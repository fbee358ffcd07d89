// Waves and followers as arrays, and what they make of a strand at an instant.

import { own } from '../own';
import { figureAt, heightsAt, rankOf, type Follower, type MoveShape, type Wave } from '../light';
import { COLOUR, HAZE, LEVEL, MOVE, SLOT, STROBE, ZOOM, type Field } from './fields';
import { labOf, type Ground } from './ground';
import { flags, floats, whole } from './rows';
import { slowedBy, WATCHED_PACE } from './slow';
import { SLOT_STEPS, type Motion, type Row, type Sheet, type Strand } from './parts';

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

/** The fields a wave or a follower moves. */
export function fieldsMoved(moving: Wave | Follower, ownFields: ReadonlyMap<string, number>): readonly number[] {
  if (moving.type === 'move') return [MOVE];
  if (moving.type === 'colours') return [COLOUR, SLOT];
  const field = ownFields.get(moving.on);
  return own(NAMED, moving.on) ?? (field === undefined ? [] : [field]);
}

/** What a wave or a follower does to the rows of one field; undefined where it moves another. */
export function motionOf(
  moving: Wave | Follower,
  field: number,
  rows: readonly Row[],
  ground: Ground,
): Motion | undefined {
  if (!fieldsMoved(moving, ground.ownFields).includes(field)) return undefined;
  const ranks = rows.map(({ place, count }) => rankOf(moving, place, count));
  const shared = { ...(isWave(moving) ? waveRoles(moving, rows, ranks) : followerRoles(moving, rows, ranks, ground)) };
  if (moving.type === 'move') {
    const mirrored = rows.map(({ place, count }) => (moving.flip && place >= count / 2 ? -1 : 1));
    return {
      ...shared,
      kind: 'figure',
      from: Float64Array.from(mirrored),
      to: Float64Array.of(moving.width, moving.height),
    };
  }
  if (moving.type === 'colours') {
    const [from, to] = [Float64Array.from(labOf(moving.from)), Float64Array.from(labOf(moving.to))];
    if (field === COLOUR) return { ...shared, kind: 'colours', from, to };
    const along = (_: Row, share: number) => Array.from(from, (part, i) => part + (to[i]! - part) * share);
    return { ...shared, kind: 'slot', from: slotsAlong(rows, ground, along) };
  }
  const { low, high } = moving;
  const between = { from: Float64Array.of(low), to: Float64Array.of(high) };
  if (moving.on === 'hue') {
    if (field === COLOUR) return { ...shared, ...between, kind: 'hue' };
    const turned = (row: Row, share: number) => hueTurned(colourOf(row, ground), low + (high - low) * share);
    return { ...shared, kind: 'slot', from: slotsAlong(rows, ground, turned) };
  }
  if (field === MOVE) return { ...shared, ...between, kind: 'number', column: moving.on === 'pan' ? 0 : 1, add: true };
  return { ...shared, ...between, kind: 'number', add: moving.blend === 'add' };
}

type Ranks = readonly { readonly rank: number; readonly of: number }[];

const isWave = (moving: Wave | Follower): moving is Wave => 'span' in moving;

/** A motion that says nothing yet. */
const STILL = {
  shape: 'sine',
  input: null,
  meter: false,
  timed: false,
  turning: NONE,
  seed: 0,
  column: 0,
  add: false,
  width: 0.5,
  points: NONE,
  from: NONE,
  to: NONE,
} as const;

function waveRoles(wave: Wave, rows: readonly Row[], ranks: Ranks) {
  return {
    ...STILL,
    shape: wave.shape,
    timed: 'seconds' in wave.span,
    turning: Float64Array.of('beats' in wave.span ? 1 / wave.span.beats : 1 / wave.span.seconds, wave.offset),
    behind: floats(rows.length, (i) => (wave.turn * ranks[i]!.rank) / ranks[i]!.of),
    ranks: whole(rows.length, (i) => rows[i]!.place),
    deaf: new Uint8Array(rows.length),
    seed: wave.seed ?? 0,
    ...(wave.type === 'move' ? {} : { width: wave.width, points: Float64Array.from(wave.points ?? []) }),
  };
}

/** Of a meter, `behind` is how far below its lamp the meter must stand for it to be dark, as a share of the lamps. */
function followerRoles(follower: Follower, rows: readonly Row[], ranks: Ranks, { heads, inputFor }: Ground) {
  return {
    ...STILL,
    input: inputFor(follower),
    meter: follower.meter === true,
    behind: floats(rows.length, (i) => ranks[i]!.rank / ranks[i]!.of),
    ranks: whole(rows.length, (i) => ranks[i]!.of),
    deaf: flags(rows.length, (i) => heads[rows[i]!.head]!.fixture.deaf === true),
  };
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
 * Works out what waves and followers make of a sheet at an instant. Allocates nothing.
 * @param pace beats a second: waves that would flash too often at it are slowed.
 * @param heights room for as many numbers as a strand has rows.
 * @param size how far waves go from where their look rests, 0…1.
 * @param fields those in which nothing of layer `layer` shows are left as they are; without, none is.
 */
export function moveSheet(
  sheet: Sheet,
  beat: number,
  at: number,
  pace: number,
  heights: Float64Array,
  fields: readonly Field[] | null = null,
  layer = 0,
  size = 1,
): void {
  const slow = sheet.span === Infinity ? 1 : slowedBy(spanAt(sheet, pace));
  for (let s = 0; s < sheet.strands.length; s++) {
    const strand = sheet.strands[s]!;
    if (strand.motions.length === 0 || (fields !== null && fields[strand.field]!.shows > layer)) continue;
    strand.live.set(strand.values);
    for (let m = 0; m < strand.motions.length; m++) {
      const motion = strand.motions[m]!;
      // What moves no light is not held back.
      const held = strand.shines ? slow : 1;
      const turns = ((motion.timed ? at : beat) * motion.turning[0]!) / held + motion.turning[1]!;
      if (motion.kind === 'figure') {
        for (let row = 0; row < strand.count; row++) addFigure(motion, turns - motion.behind[row]!, row, strand.live);
        continue;
      }
      if (motion.input) followHeights(motion, motion.input.height, strand.count, heights);
      else {
        for (let row = 0; row < strand.count; row++) heights[row] = turns - motion.behind[row]!;
        heightsAt(motion, motion.ranks, strand.count, heights);
      }
      moveStrand(strand, motion, heights);
    }
    if (size !== 1 && strand.field !== SLOT)
      for (let k = 0; k < strand.live.length; k++) {
        const rest = strand.values[k]!;
        strand.live[k] = rest + (strand.live[k]! - rest) * size;
      }
  }
}

/** How closely its flashes lie at so many beats a second. */
function spanAt({ span, timing }: Sheet, pace: number): number {
  const faster = pace / WATCHED_PACE;
  return timing === 'seconds' ? span : timing === 'beats' ? span / faster : span / Math.max(1, faster);
}

/** All lamps at the same height; or, as a meter, one after the other filled. */
function followHeights({ meter, behind, ranks }: Motion, height: number, count: number, out: Float64Array): void {
  for (let row = 0; row < count; row++) {
    const filled = meter ? (height - behind[row]!) * ranks[row]! : height;
    out[row] = filled < 0 ? 0 : filled > 1 ? 1 : filled;
  }
}

function moveStrand({ live, count, field }: Strand, motion: Motion, heights: Float64Array): void {
  const width = live.length / count;
  const { kind, column, from, to } = motion;
  for (let row = 0; row < count; row++) {
    if (motion.deaf[row]) continue;
    const height = heights[row]!;
    const place = row * width;
    if (kind === 'number') {
      const value = from[0]! + (to[0]! - from[0]!) * height;
      const sum = motion.add ? live[place + column]! + value : value;
      live[place + column] = field === LEVEL ? (sum < 0 ? 0 : sum > 1 ? 1 : sum) : sum;
    } else if (kind === 'colours') {
      for (let k = 0; k < 3; k++) live[place + k] = from[k]! + (to[k]! - from[k]!) * height;
    } else if (kind === 'hue') {
      turnHue(live, place, from[0]! + (to[0]! - from[0]!) * height);
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
  live[place] = pan + live[place]! * motion.to[0]! * motion.from[row]!;
  live[place + 1] = tilt + live[place + 1]! * motion.to[1]!;
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
