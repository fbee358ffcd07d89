// What is heard of each bar line: how unlike the bars before and after it are (novelty, Foote 2000), where repetitions begin
// and end, what the network says. A small network, trained by `training/sections.mts`, tells from that how likely a
// section begins there.

import { FRAME_RATE } from './features';
import { halvesOf } from './kernels';
import { ACTIVATION_RATE, NETWORK_BANDS, type Activations } from './network';
import stored from './section-weights.json';
import { quantile } from './tempo';

/** Bars that are nearer than this sound the same. Distance over all bands, in bytes. */
const ALIKE = 12;
/** Where more pairs of bars than this share are nearer than that share of it, a song has no form. */
const PLAIN = { pairs: 0.75, near: 0.5 } as const;
/** What is heard of a bar line, by which it is told whether a section begins there. */
export const LINE_TELLS = [
  'what the network says',
  'the same, against the lines beside it',
  'and against those two bars away',
  'novelty over two bars',
  'over four',
  'over eight',
  'over sixteen',
  'over four, against the lines beside it',
  'louder or softer',
  'louder',
  'more or less bass',
  'more bass',
  'the bar before is unlike those before it',
  'the bar after is more like the next than like the one before',
  'what follows was heard before, what went before was not',
  'what went before was heard before, what follows was not',
  'struck brightly',
] as const;

/** Bands of cymbals, from some 4 kHz on. */
const HIGH_BANDS = 48;
/** Bands of kick and bass, up to some 250 Hz. */
export const LOW_BANDS = 11;
/** What is known of the bars of a song, to tell sections by. */
export type Bars = {
  readonly colours: readonly Float64Array[];
  /** Of each two bars, row by row: how unlike they are, 0…3. */
  readonly apart: Float64Array;
  /** By bar line, by `LINE_TELLS`. */
  readonly tells: readonly (readonly number[])[];
};

/** Whether all that is heard of a song sounds the same. */
export function isPlain({ apart }: Bars): boolean {
  let near = 0;
  for (const one of apart) if (one < PLAIN.near) near++;
  return near > PLAIN.pairs * apart.length;
}

/** All bars of a song, and what is heard of each line between them. */
export function barsOf(odds: Activations, bands: Uint8Array, downbeats: readonly number[]): Bars {
  const bars = downbeats.length - 1;
  const colours = downbeats.slice(0, -1).map((from, i) => barColour(bands, from, downbeats[i + 1]!));
  const apart = distances(colours);
  const said = downbeats.slice(0, -1).map((at) => Math.max(-6, Math.min(4, around(odds.section, at))));
  const loud = colours.map((_, bar) => meanLevel(colours, bar, bar + 1, NETWORK_BANDS));
  const low = colours.map((_, bar) => meanLevel(colours, bar, bar + 1, LOW_BANDS));
  const [usualLoud, usualLow] = [Math.max(1, quantile(loud, 0.5)), Math.max(1, quantile(low, 0.5))];
  const bright = downbeats.slice(0, -1).map((at) => brightness(bands, at));
  const [usualBright, spread] = [quantile(bright, 0.5), Math.max(1, quantile(bright, 0.84) - quantile(bright, 0.16))];
  const four = colours.map((_, bar) => novelty(apart, bars, bar, 4));
  const against = (of: readonly number[], bar: number, by: number) =>
    of[bar]! - Math.max(of[bar - by] ?? -6, of[bar + by] ?? -6);
  const step = (of: readonly number[], bar: number) => {
    const before = of.slice(Math.max(0, bar - 4), bar);
    return before.length === 0 ? 0 : mean(of.slice(bar, bar + 4)) - mean(before);
  };
  const between = (a: number, b: number) => (a < 0 || b < 0 || a >= bars || b >= bars ? 1 : apart[a * bars + b]!);
  const tells = colours.map((_, bar) => {
    const [louder, lower] = [step(loud, bar) / usualLoud, step(low, bar) / usualLow];
    return [
      said[bar]!,
      against(said, bar, 1),
      against(said, bar, 2),
      novelty(apart, bars, bar, 2),
      four[bar]!,
      novelty(apart, bars, bar, 8),
      novelty(apart, bars, bar, 16),
      against(four, bar, 1),
      Math.abs(louder),
      louder,
      Math.abs(lower),
      lower,
      between(bar - 1, bar - 2) - (between(bar - 2, bar - 3) + between(bar - 3, bar - 4)) / 2,
      between(bar, bar - 1) - between(bar, bar + 1),
      againFrom(between, bars, bar, 1),
      againFrom(between, bars, bar, -1),
      Math.max(-2, Math.min(4, (bright[bar]! - usualBright) / spread)),
    ];
  });
  return { colours, apart, tells };
}

/**
 * How far what follows a line (`way` 1), or went before it (-1), is like some other place, while on the other side of the
 * line it is not: where a repetition begins, or ends.
 */
function againFrom(between: (a: number, b: number) => number, bars: number, line: number, way: 1 | -1): number {
  const [own, off] = way === 1 ? [line, line - 1] : [line - 1, line];
  let most = -1;
  for (let other = 0; other < bars; other++) {
    if (Math.abs(other - own) < 4) continue;
    let like = 0;
    for (let i = 0; i < 4; i++) like += between(own + i * way, other + i * way) / 4;
    most = Math.max(most, between(off, other - way) - like);
  }
  return most;
}

/** How loud the highest bands are as a bar begins. */
function brightness(bands: Uint8Array, at: number): number {
  const [first, last] = [Math.round((at - 0.03) * FRAME_RATE), Math.round((at + 0.4) * FRAME_RATE)];
  let sum = 0;
  for (let f = first; f < last; f++)
    for (let b = HIGH_BANDS; b < NETWORK_BANDS; b++) sum += bands[f * NETWORK_BANDS + b] ?? 0;
  return sum / (last - first) / (NETWORK_BANDS - HIGH_BANDS);
}

const mean = (values: readonly number[]): number =>
  values.reduce((sum, one) => sum + one, 0) / Math.max(1, values.length);

/** How a bar sounds: the mean of each band, and how much each of four regions moves. */
function barColour(bands: Uint8Array, from: number, to: number): Float64Array {
  const [first, last] = [Math.round(from * FRAME_RATE), Math.round(to * FRAME_RATE)];
  const colour = new Float64Array(NETWORK_BANDS + 4);
  const count = Math.max(1, last - first);
  for (let f = first; f < last; f++)
    for (let b = 0; b < NETWORK_BANDS; b++) {
      const value = bands[f * NETWORK_BANDS + b] ?? 0;
      const rise = Math.max(0, value - (bands[(f - 2) * NETWORK_BANDS + b] ?? value));
      colour[b] = colour[b]! + value / count;
      const region = NETWORK_BANDS + (b >> 4);
      colour[region] = colour[region]! + rise / count;
    }
  return colour;
}

/** Distances between all bars over their median, 0…3. */
function distances(colours: readonly Float64Array[]): Float64Array {
  const bars = colours.length;
  const apart = new Float64Array(bars * bars);
  for (let a = 0; a < bars; a++)
    for (let b = 0; b < a; b++) {
      let sum = 0;
      for (let i = 0; i < colours[a]!.length; i++) sum += (colours[a]![i]! - colours[b]![i]!) ** 2;
      apart[a * bars + b] = apart[b * bars + a] = Math.sqrt(sum);
    }
  const above = [...apart].filter((value) => value > 0);
  const usual = Math.max(ALIKE, quantile(above, 0.5));
  return apart.map((value) => Math.min(3, value / usual));
}

/** How much further the bars before a line are from those after it than from each other, about −0.5…1. */
function novelty(apart: Float64Array, bars: number, line: number, reach: number): number {
  const [first, last] = [Math.max(0, line - reach), Math.min(bars, line + reach)];
  // A single bar is not unlike itself, so it would be unlike anything.
  if (line - first < 2 || last - line < 2) return 0;
  const mean = (fromA: number, toA: number, fromB: number, toB: number) => {
    let sum = 0;
    let count = 0;
    for (let a = fromA; a < toA; a++)
      for (let b = fromB; b < toB; b++)
        if (a !== b) {
          sum += apart[a * bars + b]!;
          count++;
        }
    return count > 0 ? sum / count : 0;
  };
  return mean(first, line, line, last) - (mean(first, line, first, line) + mean(line, last, line, last)) / 2;
}

/** Mean of the lowest `bands` over some bars. */
export function meanLevel(colours: readonly Float64Array[], from: number, to: number, bands: number): number {
  let sum = 0;
  for (let bar = from; bar < to; bar++) for (let b = 0; b < bands; b++) sum += colours[bar]![b]!;
  return sum / Math.max(1, to - from) / bands;
}

/** The most the network says within half a second. */
function around(odds: Float32Array, at: number): number {
  const middle = Math.round(at * ACTIVATION_RATE);
  let most = -Infinity;
  for (let i = middle - 25; i <= middle + 25; i++) most = Math.max(most, odds[i] ?? -Infinity);
  return most;
}

/** So many lines to either side of one are looked at with it. */
export const REACH = 3;

/** A network with one hidden layer: for each hidden unit its weights and what it begins with, then those of the sum. */
export type LineNet = {
  /** By what is looked at, its mean and its spread. */
  readonly means: Float64Array;
  readonly spreads: Float64Array;
  readonly hidden: number;
  readonly weights: Float64Array;
};

let learned: LineNet | undefined;
const learnedNet = (): LineNet =>
  (learned ??= {
    means: Float64Array.from(stored.means),
    spreads: Float64Array.from(stored.spreads),
    hidden: stored.hidden,
    weights: halvesOf(stored.weights),
  });

/** By bar line, the log odds that a section begins there. */
export function beginnings(tells: Bars['tells'], net: LineNet = learnedNet()): Float64Array {
  const seen = tells.map((one) => one.map((tell, i) => (tell - net.means[i]!) / net.spreads[i]!));
  const { hidden, weights } = net;
  const width = LINE_TELLS.length * (2 * REACH + 1);
  return Float64Array.from(tells, (_, line) => {
    const inputs = beside(seen, line);
    let odds = weights[(width + 2) * hidden]!;
    for (let h = 0; h < hidden; h++) {
      let sum = weights[width * hidden + h]!;
      for (let i = 0; i < width; i++) sum += inputs[i]! * weights[h * width + i]!;
      odds += Math.max(0, sum) * weights[(width + 1) * hidden + h]!;
    }
    return odds;
  });
}

/** What is heard of a line and of those beside it, in order; before the first and after the last lie no others. */
export function beside(seen: Bars['tells'], line: number): readonly number[] {
  const around: number[] = [];
  for (let by = -REACH; by <= REACH; by++) around.push(...seen[Math.max(0, Math.min(seen.length - 1, line + by))]!);
  return around;
}
