// One tempo for a whole recording. Most records are made to a click: a path of beats that slips to the off-beat for a
// while, or counts a passage twice as fast, is then wrong however well it suits that passage.

import { quantile } from './tempo';

/** Beats `first + i * period`, in steps of the evidence. */
export type Line = { readonly first: number; readonly period: number };

/** A gap slips where it differs by more than this share from the median one. */
const SLIP = 0.06;
/** Gaps within this share of the median tell the tempo. */
const USUAL = 0.03;
/** How far it may lie from their mean. */
const REACH = 0.008;
/** Longer than this, in steps, is a mix of several songs. */
const LONGEST = 90_000;
const FEWEST = 16;

/**
 * The line of beats of one tempo that gathers the most evidence.
 * @param strength evidence of a beat at each step, 0…1.
 * @param path steps of beats, rising: they give the tempo near which to look, and from where to where.
 * @returns undefined where there are too few beats or the recording is too long.
 */
export function steadyLine(strength: Float32Array, path: readonly number[]): Line | undefined {
  if (path.length < FEWEST || strength.length > LONGEST) return undefined;
  const gaps = path.slice(1).map((step, i) => step - path[i]!);
  const median = quantile(gaps, 0.5);
  const usual = gaps.filter((gap) => Math.abs(gap - median) <= USUAL * median + 1);
  const middle = usual.reduce((sum, gap) => sum + gap, 0) / usual.length;
  const [from, to] = [path[0]!, path.at(-1)!];
  // Two lines that differ by one step at the end are told apart.
  const finest = middle / (to - from);
  const tries = Math.ceil((REACH * middle) / finest);
  let best = { most: -1, first: from, period: middle };
  for (let k = -tries; k <= tries; k++) {
    const period = middle + k * finest;
    for (let first = from; first < from + period; first++) {
      let sum = 0;
      for (let at = first; at <= to; at += period) sum += strength[Math.round(at)]!;
      if (sum > best.most) best = { most: sum, first, period };
    }
  }
  return best;
}

/** Whether a path of beats stumbles: a player's tempo wanders, but hardly ever so far. */
export function slips(path: readonly number[]): boolean {
  const gaps = path.slice(1).map((step, i) => step - path[i]!);
  const median = quantile(gaps, 0.5);
  return gaps.some((gap) => Math.abs(gap - median) > Math.max(SLIP * median, 1.5));
}

/** A beat may lie so far from its place on the line, in beats. */
const NEAR = 0.2;

/** The evidence near the beats of a line; none elsewhere. */
export function evidenceNear(strength: Float32Array, { first, period }: Line): Float32Array {
  return strength.map((value, step) => {
    const beats = (step - first) / period;
    return Math.abs(beats - Math.round(beats)) <= NEAR ? value : 0;
  });
}

/**
 * One beat for each place of the line: the path's where it has one, so that a drummer's drift is kept, and between those
 * as far from the line as its neighbours are, so that breaks are counted through.
 */
export function filledAlong({ first, period }: Line, path: readonly number[]): readonly number[] {
  const strays = new Map<number, number>();
  for (const step of path) {
    const place = Math.round((step - first) / period);
    const stray = step - (first + place * period);
    if (Math.abs(stray) <= NEAR * period) strays.set(place, stray);
  }
  const known = [...strays.keys()];
  const beats: number[] = [];
  known.forEach((place, i) => {
    const next = known[i + 1] ?? place + 1;
    for (let at = place; at < next; at++) {
      const part = (at - place) / (next - place);
      const stray = strays.get(place)! * (1 - part) + (strays.get(next) ?? 0) * part;
      beats.push(Math.round(first + at * period + stray));
    }
  });
  return beats;
}
