// Of several ways to turn to a place, the one with the least travel from where a head was before: by the clip, the step
// or the look before. Chosen once, and kept in sheets of their own.

import { AIM } from './fields';
import type { HeadPlan, Play, Sheet, Strand } from './parts';

/** Where each head is turned, pan and tilt in degrees; NaN where nobody has said yet. */
export type Turned = Float64Array;

export const nowhere = (heads: number): Turned => new Float64Array(heads * 2).fill(NaN);

/**
 * A look or a chase as it is after what was there before; the same one where the usual ways are the nearest.
 * `turned` becomes where heads are when it is over.
 */
export function turnedPlay(play: Play, turned: Turned, plans: readonly HeadPlan[]): Play {
  if (!play.chase) {
    const sheet = turnedSheet(play.sheet, turned, plans);
    return sheet === play.sheet ? play : { ...play, sheet };
  }
  const sheets = turnedSheets(play.chase.sheets, turned, plans);
  return sheets === play.chase.sheets ? play : { ...play, chase: { ...play.chase, sheets } };
}

/** Where heads are turned at some point, and what comes of each play from there. */
export type Whither = { readonly turned: Turned; readonly steps: WeakMap<Play, Step> };
type Step = { readonly play: Play; readonly next: Whither };

/** Follows plays one after another. The same play from the same place is worked out once, on however many clips. */
export type TurnBook = { readonly begin: Whither; readonly after: (from: Whither, play: Play) => Step };

/** More places than this are begun anew: hardly any show has a hundred. */
const MOST_PLACES = 4000;

export function turnBook(plans: readonly HeadPlan[]): TurnBook {
  const begin: Whither = { turned: nowhere(plans.length), steps: new WeakMap() };
  let known = new Map<number, Whither[]>();
  let count = 0;
  const placeOf = (turned: Turned): Whither => {
    const key = hashOf(turned);
    const same = known.get(key)?.find((one) => equal(one.turned, turned));
    if (same) return same;
    if (++count > MOST_PLACES) [known, count] = [new Map(), 1];
    const fresh: Whither = { turned, steps: new WeakMap() };
    known.set(key, [...(known.get(key) ?? []), fresh]);
    return fresh;
  };
  return {
    begin,
    after(from, play) {
      const before = from.steps.get(play);
      if (before) return before;
      const turned = from.turned.slice();
      const step = { play: turnedPlay(play, turned, plans), next: from };
      if (!equal(turned, from.turned)) step.next = placeOf(turned);
      from.steps.set(play, step);
      return step;
    },
  };
}

/** FNV-1a over the bits of the numbers. */
function hashOf(turned: Turned): number {
  const words = new Int32Array(turned.buffer, turned.byteOffset, turned.length * 2);
  let hash = 0x811c9dc5;
  for (let i = 0; i < words.length; i++) hash = Math.imul(hash ^ words[i]!, 0x01000193);
  return hash;
}

const equal = (a: Turned, b: Turned): boolean => {
  for (let i = 0; i < a.length; i++) if (!Object.is(a[i], b[i])) return false;
  return true;
};

/** The same of steps that follow one another. */
export function turnedSheets(sheets: readonly Sheet[], turned: Turned, plans: readonly HeadPlan[]): readonly Sheet[] {
  const after = sheets.map((sheet) => turnedSheet(sheet, turned, plans));
  return after.every((sheet, i) => sheet === sheets[i]) ? sheets : after;
}

function turnedSheet(sheet: Sheet, turned: Turned, plans: readonly HeadPlan[]): Sheet {
  if (!sheet.strands.some(({ field }) => field === AIM)) return sheet;
  const strands = sheet.strands.map((strand) => (strand.field === AIM ? turnedStrand(strand, turned, plans) : strand));
  return strands.every((strand, i) => strand === sheet.strands[i]) ? sheet : { ...sheet, strands };
}

const WIDTH = 5;
/** The same strand turned the same ways is one strand, on however many clips. */
const known = new WeakMap<Strand, Map<string, Strand>>();

function turnedStrand(strand: Strand, turned: Turned, plans: readonly HeadPlan[]): Strand {
  const { heads, values, free, count } = strand;
  let ways: Int8Array | undefined;
  for (let row = 0; row < count; row++) {
    const at = heads[row]! * 2;
    const pan = values[row * WIDTH]!;
    const tilt = values[row * WIDTH + 1]!;
    // Most clips point where the one before them did.
    if (turned[at] === pan && turned[at + 1] === tilt) continue;
    const way = free[row] === 1 ? nearestWay(pan, tilt, turned, at, plans[heads[row]!]!.turning) : 0;
    turned[at] = pan + 180 * way;
    turned[at + 1] = way % 2 === 0 ? tilt : -tilt;
    if (way !== 0) (ways ??= new Int8Array(count))[row] = way;
  }
  if (!ways) return strand;
  const variants = known.get(strand) ?? new Map<string, Strand>();
  known.set(strand, variants);
  const key = ways.join();
  const before = variants.get(key);
  if (before) return before;
  const after = values.slice();
  ways.forEach((way, row) => {
    after[row * WIDTH] = after[row * WIDTH]! + 180 * way;
    if (way % 2 !== 0) after[row * WIDTH + 1] = -after[row * WIDTH + 1]!;
  });
  const made = { ...strand, values: after, live: strand.motions.length > 0 ? after.slice() : after };
  variants.set(key, made);
  return made;
}

/** How many half turns a head may be away from its usual way: further no motor reaches. */
const WAYS = [0, 1, -1, 2, -2, 3, -3] as const;

/**
 * Half turns of pan that lead to the same place with the least travel of both motors; with an odd number of them the
 * head tilts over to the other side. 0 where it does not matter, or nobody has said where it was.
 */
function nearestWay(pan: number, tilt: number, turned: Turned, at: number, turning: HeadPlan['turning']): number {
  const [fromPan, fromTilt] = [turned[at]!, turned[at + 1]!];
  if (!turning || Number.isNaN(fromPan) || (fromPan === pan && fromTilt === tilt)) return 0;
  const { bounds } = turning;
  let nearest = 0;
  let least = Infinity;
  for (const way of WAYS) {
    const p = pan + 180 * way;
    const t = way % 2 === 0 ? tilt : -tilt;
    if (p < bounds[0]! - 1e-6 || p > bounds[1]! + 1e-6 || t < bounds[2]! - 1e-6 || t > bounds[3]! + 1e-6) continue;
    const travel = Math.abs(p - fromPan) + Math.abs(t - fromTilt);
    if (travel >= least - 1e-9) continue;
    least = travel;
    nearest = way;
  }
  return nearest;
}
