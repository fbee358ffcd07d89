// A tempo, and its phase, from a few taps.

import { seconds, type Seconds } from '../units';

/** What taps say: pulses a minute, and one moment at which a pulse falls. */
export type TappedTempo = { readonly bpm: number; readonly at: Seconds };

const LONGEST_GAP = 2;
const MOST_TAPS = 12;

/** The taps that still belong together after one more at `at`: a pause of over 2 s starts afresh; the last 12 count. */
export function tapsWith(taps: readonly Seconds[], at: Seconds): readonly Seconds[] {
  const last = taps.at(-1);
  if (last === undefined || at - last > LONGEST_GAP || at <= last) return [at];
  return [...taps.slice(1 - MOST_TAPS), at];
}

/**
 * The steady tempo that fits the taps best, by least squares over (count, time).
 * @returns undefined for fewer than two taps. Between 30 and 400 bpm.
 */
export function tempoOfTaps(taps: readonly Seconds[]): TappedTempo | undefined {
  if (taps.length < 2) return undefined;
  const n = taps.length;
  const middle = (n - 1) / 2;
  const mean = taps.reduce((sum, tap) => sum + tap, 0) / n;
  let covariance = 0;
  let variance = 0;
  taps.forEach((tap, i) => {
    covariance += (i - middle) * (tap - mean);
    variance += (i - middle) ** 2;
  });
  const period = covariance / variance;
  return { bpm: Math.min(400, Math.max(30, 60 / period)), at: seconds(mean + (n - 1 - middle) * period) };
}
