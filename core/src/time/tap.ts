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

/** The phase is that of the last taps: a hand that drifts is followed. */
const LAST = 3;
/** A tap that is off by more than this part of the period belongs to no beat. */
const WILD = 0.22;
/** With fewer taps nobody can say which of them is the wild one. */
const ENOUGH = 5;

type Placed = { readonly n: number; readonly at: number };
type Line = { readonly period: number; readonly first: number };

/**
 * The steady tempo that fits the taps best, by least squares over (count, time). A tap that was left out is counted, one
 * that hit no beat is ignored.
 * @returns undefined for fewer than two taps. Between 30 and 400 bpm.
 */
export function tempoOfTaps(taps: readonly Seconds[]): TappedTempo | undefined {
  if (taps.length < 2) return undefined;
  const all = fitted(taps);
  const { line, placed } = taps.length < ENOUGH || all.off <= WILD ? all : withoutWildest(taps, all);
  const { period, first } = line;
  const last = placed.slice(-LAST);
  const late = last.reduce((sum, { n, at }) => sum + at - (first + n * period), 0) / last.length;
  return { bpm: Math.min(400, Math.max(30, 60 / period)), at: seconds(first + placed.at(-1)!.n * period + late) };
}

type Fit = { readonly line: Line; readonly placed: readonly Placed[]; readonly off: number };

/** @returns with `off` the most that a tap is off, in parts of the period. */
function fitted(taps: readonly Seconds[]): Fit {
  const placed = counted(taps);
  const line = lineThrough(placed);
  return { line, placed, off: Math.max(...placed.map((one) => off(line, one))) / line.period };
}

/** Without the one tap that fits least, where all others then fit. The others are counted anew. */
function withoutWildest(taps: readonly Seconds[], all: Fit): Fit {
  const fits = taps.map((_, wild) => fitted(taps.filter((__, i) => i !== wild)));
  const best = fits.reduce((least, one) => (one.off < least.off ? one : least));
  return best.off <= WILD ? best : all;
}

/** Taps with the number of the beat they were meant for: a gap of twice the usual one has a beat in it. */
function counted(taps: readonly Seconds[]): readonly Placed[] {
  const gaps = taps.slice(1).map((at, i) => at - taps[i]!);
  const usual = [...gaps].sort((a, b) => a - b)[gaps.length >> 1]!;
  let n = 0;
  return taps.map((at, i) => {
    // With two gaps one cannot be told to be the usual one.
    if (i > 0) n += gaps.length < 3 ? 1 : Math.max(1, Math.round((at - taps[i - 1]!) / usual));
    return { n, at };
  });
}

const off = ({ period, first }: Line, { n, at }: Placed): number => Math.abs(at - (first + n * period));

function lineThrough(taps: readonly Placed[]): Line {
  const middle = taps.reduce((sum, { n }) => sum + n, 0) / taps.length;
  const mean = taps.reduce((sum, { at }) => sum + at, 0) / taps.length;
  let [covariance, variance] = [0, 0];
  for (const { n, at } of taps) {
    covariance += (n - middle) * (at - mean);
    variance += (n - middle) ** 2;
  }
  const period = covariance / variance;
  return { period, first: mean - middle * period };
}
