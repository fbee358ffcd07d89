// A tempo map through the found beats.

import { tempoMap, type TempoMap } from '../time';
import { beats as quarterNotes, seconds } from '../units';

/** A steady song strays from the straight line by less than this at the median, in seconds: it gets one constant tempo. */
const STEADY_WITHIN = 0.008;
const STEADY_MOST = 0.04;
/** Beats nearer than this are no tempo map, in seconds. */
const NEAREST = 0.05;

/**
 * One that is steady all through becomes a straight line; else each beat is moved onto the line that fits it and its
 * four neighbours on either side, which takes a drummer's wobble and the grid's coarseness out but keeps his drift;
 * sudden changes keep their own two lines.
 * @param raw moments of the beats in seconds, rising, two at least.
 * @param first index of the beat that becomes beat 0. @param pulse quarters in a felt beat.
 */
export function smoothTempo(raw: readonly number[], first: number, pulse: number): TempoMap {
  const line = fittedLine(raw, 0, raw.length - 1);
  const misses = raw.map((beat, i) => Math.abs(beat - (line.at + line.per * i)));
  const anchor = (i: number, time: number) => ({ beat: quarterNotes((i - first) * pulse), time: seconds(time) });
  if (quantile(misses, 0.5) < STEADY_WITHIN && quantile(misses, 0.95) < STEADY_MOST)
    return tempoMap([anchor(0, line.at), anchor(raw.length - 1, line.at + line.per * (raw.length - 1))]);
  const smoothed = raw.map((beat, i) => {
    const [low, high] = [Math.max(0, i - 4), Math.min(raw.length - 1, i + 4)];
    const choices = [fittedLine(raw, low, high), fittedLine(raw, low, i), fittedLine(raw, i, high)].map((fit, k) => {
      const [from, to] = k === 0 ? [low, high] : k === 1 ? [low, i] : [i, high];
      let worst = to - from < 2 ? Infinity : 0;
      for (let n = from; n <= to; n++) worst = Math.max(worst, Math.abs(raw[n]! - (fit.at + fit.per * n)));
      return { moved: fit.at + fit.per * i, worst: worst * (k === 0 ? 1 : 1.6) };
    });
    const best = choices.reduce((a, b) => (b.worst < a.worst ? b : a));
    return best.worst < 0.06 ? best.moved : beat;
  });
  const rising = smoothed.every((time, i) => i === 0 || time > smoothed[i - 1]! + NEAREST);
  return tempoMap((rising ? smoothed : raw).map((time, i) => anchor(i, time)));
}

/** Whether moments can be a tempo map at all. */
export const isRising = (moments: readonly number[]): boolean =>
  moments.every((moment, i) => i === 0 || moment > moments[i - 1]! + NEAREST);

/** Least squares line `at + per * i` through `values[from..to]`, both included. */
function fittedLine(
  values: readonly number[],
  from: number,
  to: number,
): { readonly at: number; readonly per: number } {
  const n = to - from + 1;
  const middle = (from + to) / 2;
  let mean = 0;
  let slope = 0;
  let spread = 0;
  for (let i = from; i <= to; i++) mean += values[i]! / n;
  for (let i = from; i <= to; i++) {
    slope += (i - middle) * (values[i]! - mean);
    spread += (i - middle) ** 2;
  }
  const per = spread > 0 ? slope / spread : 0;
  return { at: mean - per * middle, per };
}

/** The value that a share of all values do not reach. 0 without values. */
export function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0;
}
