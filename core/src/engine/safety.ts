// Flash safety: what keeps the rig's light from flashing more often than it may.
//
// A flash is a pair of opposing changes of relative luminance of 10 % or more (WCAG 2.2, "general flash and red flash
// thresholds"; ITU-R BT.1702-3, annex 1). Luminance is that of the whole rig: the light of all lamps together, each
// weighted by its output and by the share of it that its cell is, against all of them at full. So lamps that make up
// less than a tenth of the rig's light may do as they like. Changes are limited where they are made, so that light
// stays a function of show, log and time: strobes, waves, chases, followers and hits. What several of them do together,
// or many short clips, is not known there; `flash-report.ts` counts it in the light itself.

import { linearFromOkLabAt } from '../colour';
import type { Course } from '../light';
import { alike, STEPS } from './alike';
import { COLOUR, LEVEL, STROBE } from './fields';
import { FLASH_SHARE } from './flash-share';
import { isEmitter } from './head-plan';
import { moveSheet } from './motions';
import type { Program } from './program';
import { WATCHED_PACE } from './slow';
import type { Head, Motion, Sheet, Strand } from './parts';

/** By head, its share of the rig's light; all together are 1. */
export function lightShares(heads: readonly Head[]): Float64Array {
  const light = Float64Array.from(heads, ({ profile, cells }) =>
    profile.kind === 'hazer' ? 0 : profile.output / cells,
  );
  const all = light.reduce((sum, one) => sum + one, 0);
  return all > 0 ? light.map((one) => one / all) : light;
}

/** Light between its changes: the darkest and the brightest since the last one, and which way that went, 0 for none yet. */
export const LOW = 0;
export const HIGH = 1;
export const WAY = 2;

/** Takes the next moment of some light. @returns 1 or -1 where a change of `least` is complete, up or down, else 0. */
export function changed(now: Float64Array, value: number, least: number): number {
  if (value < now[LOW]!) now[LOW] = value;
  if (value > now[HIGH]!) now[HIGH] = value;
  const falls = now[WAY]! >= 0 && now[HIGH]! - value >= least;
  if (!falls && !(now[WAY]! <= 0 && value - now[LOW]! >= least)) return 0;
  now[WAY] = falls ? -1 : 1;
  now[LOW] = value;
  now[HIGH] = value;
  return now[WAY];
}

/** Tells the index of each change of `FLASH_SHARE` or more in a list of moments of the rig's light, 0…1, up or down. */
export function lightChanges(light: ArrayLike<number>, found: (at: number) => void): void {
  const now = Float64Array.of(light[0] ?? 0, light[0] ?? 0, 0);
  for (let i = 1; i < light.length; i++) if (changed(now, light[i]!, FLASH_SHARE - 1e-9) !== 0) found(i);
}

/** Flashes in such a list: pairs of opposing changes. Told to `found` by the index at which each is complete. */
export function countFlashes(light: ArrayLike<number>, found: (at: number) => void = () => undefined): number {
  let changes = 0;
  lightChanges(light, (at) => ++changes % 2 === 0 && found(at));
  return changes >> 1;
}

/** The shortest time in which there is one flash more than may be in a second; Infinity where there never is. */
export function closestFlashes(times: readonly number[], most: number): number {
  let closest = Infinity;
  for (let i = 0; i + most < times.length; i++) closest = Math.min(closest, times[i + most]! - times[i]!);
  return closest;
}

/**
 * By field, 1 where its change is a change of light: levels, colours, single emitters, shutters that are moved as bare
 * channels. What strobes by itself is limited by its rate.
 */
export const shinesIn = (names: readonly string[]): Uint8Array =>
  Uint8Array.from(names, (name, field) =>
    Number(field === LEVEL || field === COLOUR || isEmitter(name) || SHUTTER.test(name)),
  );

/** All shutters of a lamp by their attributes (DIN SPEC 15800, annex A). */
export const SHUTTER = /^Shutter\d/;

type Watched = { readonly most: number; readonly shares: Float64Array; readonly shines: Uint8Array };

/** How finely a sheet is looked at: so many moments a turn of its fastest wave, and no more than so many in all. */
const MOMENTS = 12;
const MOST_MOMENTS = 384;

/**
 * How closely the flashes lie that the waves of a sheet make together, in seconds at `WATCHED_PACE`: the shortest time
 * with one more than may be. Run slower or faster as a whole, it grows and shrinks as the waves do.
 */
export function flashSpanOf(sheet: Sheet, watched: Watched): number {
  const work = flashSpanIn(sheet, watched);
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
  }
}

/** So many groups of lamps in a moment are looked at between two breaths: about a millisecond. */
const LOOKED_AT = 12_000;

/** The same, a millisecond at a time. */
export function* flashSpanIn(sheet: Sheet, { most, shares, shines }: Watched): Generator<void, number> {
  const moving = sheet.strands.filter((one) => shines[one.field] === 1 && one.motions.some(({ input }) => !input));
  if (most === Infinity || shareOf(moving, shares) < FLASH_SHARE) return Infinity;
  const rates = moving.flatMap(({ motions }) => motions.flatMap((one) => (one.input ? [] : [rateOf(one)])));
  const [slowest, fastest] = [Math.min(...rates), Math.max(...rates)];
  const step = 1 / (MOMENTS * fastest);
  const count = Math.min(MOST_MOMENTS, Math.ceil(((most + 3) * MOMENTS * fastest) / slowest));
  yield;
  const light = yield* lightAlong(sheet, { shares, shines }, step, count);
  const times: number[] = [];
  countFlashes(light, (at) => times.push(at * step));
  return closestFlashes(times, most);
}

/** Turns a second, at the pace that is watched. */
const rateOf = ({ turning, timed }: Motion): number => turning[0]! * (timed ? 1 : WATCHED_PACE);

/**
 * The light that the waves of a sheet move, at `count` moments that lie `step` seconds apart, the first at 0; lamps that
 * no wave moves are left out. 1 is all light of the rig.
 */
export function* lightAlong(
  sheet: Sheet,
  { shares, shines }: Omit<Watched, 'most'>,
  step: number,
  count: number,
): Generator<void, Float64Array> {
  const light = new Float64Array(count);
  for (const part of alike(sheet, shares, shines, (motion) => 1 / (rateOf(motion) * step))) {
    // What goes round is looked at once.
    const own = part.turn === null ? Math.min(count, part.period) : STEPS;
    const each = part.turn === null ? step : (part.turn * step) / STEPS;
    const round = new Float64Array(own);
    const levels = new Float64Array(part.groups);
    const lights = new Float64Array(part.groups);
    const heights = new Float64Array(part.groups);
    const breath = Math.max(1, Math.floor(LOOKED_AT / part.groups));
    for (let i = 0; i < own; i++) {
      moveSheet(part.sheet, i * each * WATCHED_PACE, i * each, WATCHED_PACE, heights);
      lightsOf(part.sheet, shines, false, levels, lights);
      if (part.turn === null) round[i] = summed(lights, part.shares);
      else addBehind(round, i, lights, part.shares);
      if (i % breath === breath - 1) yield;
    }
    const turn = part.turn ?? STEPS;
    for (let i = 0; i < count; i++) light[i] = light[i]! + round[Math.round((i * STEPS) / turn) % own]!;
    yield;
  }
  return light;
}

function shareOf(strands: readonly Strand[], shares: Float64Array): number {
  const counted = new Uint8Array(shares.length);
  let sum = 0;
  for (const { heads } of strands)
    for (const head of heads) {
      if (counted[head] === 0) sum += shares[head]!;
      counted[head] = 1;
    }
  return sum;
}

/** Adds what lamps give that are so far on, to all moments of a turn: each lamp is there as much later as it is behind. */
function addBehind(round: Float64Array, now: number, lights: Float64Array, shares: Float64Array): void {
  for (let group = 0; group < lights.length; group++) {
    const shines = lights[group]!;
    for (let late = 0; late < STEPS; late++) {
      const share = shares[group * STEPS + late]!;
      if (share === 0) continue;
      const at = (now + late) & (STEPS - 1);
      round[at] = round[at]! + shines * share;
    }
  }
}

const summed = (lights: Float64Array, shares: Float64Array): number => {
  let sum = 0;
  for (let head = 0; head < lights.length; head++) sum += lights[head]! * shares[head]!;
  return sum;
};

/** The light of a sheet as it is now: the share of the rig's that it asks for; see `lightsOf`. */
export function lightOf(sheet: Sheet, shares: Float64Array, shines: Uint8Array, colours: boolean): number {
  const lights = new Float64Array(shares.length);
  lightsOf(sheet, shines, colours, new Float64Array(shares.length), lights);
  return summed(lights, shares);
}

/**
 * Fills `lights` with what each head shines, 1 being all it can. Colours count by their luminance where they move, or
 * where all of them do, as from step to step of a chase; a bare emitter or shutter counts as all of the lamp.
 */
function lightsOf(
  { strands }: Sheet,
  shines: Uint8Array,
  colours: boolean,
  levels: Float64Array,
  lights: Float64Array,
): void {
  levels.fill(NaN);
  for (const { field, heads, live } of strands)
    if (field === LEVEL) for (let row = 0; row < heads.length; row++) levels[heads[row]!] = live[row]!;
  for (let head = 0; head < levels.length; head++) lights[head] = levels[head]! > 0 ? levels[head]! : 0;
  for (const { field, heads, live, motions } of strands) {
    if (field !== COLOUR && field !== LEVEL && shines[field] === 1 && (motions.length > 0 || colours))
      for (let row = 0; row < heads.length; row++) lights[heads[row]!] = lights[heads[row]!]! + live[row]!;
    if (field !== COLOUR || (motions.length === 0 && !colours)) continue;
    for (let row = 0; row < heads.length; row++) {
      const head = heads[row]!;
      // A colour that moves is light that moves, whoever gives the level.
      const level = Number.isNaN(levels[head]!) ? 1 : levels[head]!;
      const before = Number.isNaN(levels[head]!) ? 0 : level;
      lights[head] = lights[head]! + level * luminanceOf(live, row * 3) - before;
    }
  }
}

const linear = new Float64Array(3);

/** Relative luminance (IEC 61966-2-1) of an OKLab colour, mixed as bright as the lamp can. */
function luminanceOf(lab: Float64Array, at: number): number {
  linearFromOkLabAt(lab, at, linear);
  const [r, g, b] = [Math.max(0, linear[0]!), Math.max(0, linear[1]!), Math.max(0, linear[2]!)];
  const most = Math.max(r, g, b);
  return most > 0 ? (0.2126 * r + 0.7152 * g + 0.0722 * b) / most : 0;
}

/** Passes of a chase that are looked at. */
const PASSES = 6;

/** The same of a chase, in its own beats or seconds. */
export function flashSpanOfChase(course: Course, lights: readonly number[], most: number): number {
  const { order, starts, fades, total, length } = course;
  if (most === Infinity || length < 2) return Infinity;
  const light: number[] = [];
  const at: number[] = [];
  for (let pass = 0; pass < Math.max(PASSES, most * 2); pass++) {
    const base = (pass % course.passes) * length;
    for (let i = 0; i < length; i++) {
      light.push(lights[order[base + i]!]!);
      at.push(pass * total + starts[base + i]! + fades[base + i]!);
    }
  }
  const times: number[] = [];
  countFlashes(light, (index) => times.push(at[index]!));
  return closestFlashes(times, most);
}

/** Holds strobes back where enough of the rig's light strobes. Allocates nothing. */
export function holdStrobes({ fields, safety }: Program): void {
  const { values } = fields[STROBE]!;
  const levels = fields[LEVEL]!.values;
  let share = 0;
  for (let head = 0; head < values.length; head++)
    if (values[head]! > safety.most && levels[head]! > 0) share += safety.shares[head]! * levels[head]!;
  if (share < FLASH_SHARE) return;
  for (let head = 0; head < values.length; head++) {
    // A lamp that cannot strobe as slowly shines on.
    if (values[head]! > safety.most) values[head] = safety.slowest[head]! > safety.most ? 0 : safety.most;
  }
}
