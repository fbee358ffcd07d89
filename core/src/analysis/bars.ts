// Which beats start a bar: bars of several lengths in competition, over the network's odds of a downbeat at each beat.

import { beatEvidence } from './beats';
import { STEP_RATE } from './paths';
import { FRAME_RATE } from './features';
import { ACTIVATION_RATE } from './network';

export const BAR_LENGTHS = [2, 3, 4, 5, 6, 7] as const;
export type BarLength = (typeof BAR_LENGTHS)[number];

export type Bars = {
  /** Beats in most bars, as they are felt. */
  readonly beatsInBar: BarLength;
  /** Indexes of the beats that start a bar, rising; bars have their own lengths where the meter changes. */
  readonly starts: readonly number[];
  /** True when each beat divides in three throughout, as in 6/8. */
  readonly compound: boolean;
};

type Common = Readonly<Record<BarLength, number>>;

/** How common bars of a length are: what they earn counts by so much. */
const COMMON: Common = { 2: 0.7, 3: 0.92, 4: 1, 5: 0.7, 6: 0.6, 7: 0.65 };
/**
 * Where beats divide in three, bars of two are commoner: 6/8 beside 12/8. On 42 pieces of our own all from 0.85 on are nearly
 * alike; a song of the demo is in 6/8 from 0.99 on.
 */
const COMPOUND: Common = { ...COMMON, 2: 0.99 };
/** What each of its beats earns besides: where no beat is stronger than others, people count four. */
const USUAL: Readonly<Record<BarLength, number>> = { 2: 0, 3: 0, 4: 0.01, 5: -0.03, 6: -0.03, 7: -0.03 };
/** Price of another length of bar than the one before, in beats of full evidence. */
const METER_PRICE = 2.5;
/** Bars of one length need only earn so much of what the best earn: one bar of another length moves all after it. */
const NEARLY_AS_GOOD = 0.75;
/**
 * How far changes of harmony are spread over the beats of a song, as likelihoods: a network that is sure of its downbeats is
 * spread by 0.4 and goes before them, one that is not goes after them.
 */
const HARMONY = 0.15;
/** Changes that are spread by less are none: drums alone, or one chord. */
const FAINT = 0.03;
/** Likelihood of a beat that shall start no bar. */
const CLOSED = -5;

/** Limits of bars, to ask for others than the likeliest. */
export type BarLimits = {
  /** All bars have this many beats. */
  readonly length?: BarLength;
  /** Indexes of beats that shall start no bar. */
  readonly avoid?: readonly number[];
};

/** What tells of the first beat of a bar, `ACTIVATION_RATE` values a second. */
export type BarSigns = {
  /** Log odds of a downbeat. */
  readonly downbeat: Float32Array;
  /** How much the harmony changes; empty where that is not known. */
  readonly change: Float32Array;
};

/** The likeliest bars over some beats. */
export function findBars(signs: BarSigns, beats: readonly number[], compound: boolean, limits: BarLimits = {}): Bars {
  if (beats.length < 8) return { beatsInBar: 4, starts: [], compound: false };
  const likely = likelyStarts(signs, beats);
  for (const i of limits.avoid ?? []) likely[i] = CLOSED;
  const common = compound ? COMPOUND : COMMON;
  const { bars } = limits.length === undefined ? evenly(likely, common) : bestBars(likely, [limits.length], common);
  const beatsInBar = usualLength(bars);
  return { beatsInBar, starts: bars.map(({ start }) => start), compound };
}

/** How likely each beat starts a bar: 0…1 by the network, more or less where the harmony changes much or little. */
function likelyStarts({ downbeat, change }: BarSigns, beats: readonly number[]): number[] {
  const evidence = beatEvidence(downbeat);
  const likely = beats.map((beat) => {
    const step = Math.round(beat * STEP_RATE);
    return Math.max(...[-2, -1, 0, 1, 2].map((k) => evidence[step + k] ?? 0));
  });
  const changes = beats.map((beat) => change[Math.round(beat * ACTIVATION_RATE)] ?? 0);
  const [usual, spread] = spreadOf(changes);
  const by = HARMONY / Math.max(FAINT, spread);
  return likely.map((value, i) => value + by * (changes[i]! - usual));
}

/** Mean and standard deviation. */
function spreadOf(values: readonly number[]): readonly [number, number] {
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  return [mean, Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / values.length)];
}

/** The likeliest bars, but all of one length where that is nearly as good: most music never changes its meter. */
function evenly(likely: readonly number[], common: Common): BestBars {
  const free = bestBars(likely, BAR_LENGTHS, common);
  const even = bestBars(likely, [usualLength(free.bars)], common);
  return even.score >= NEARLY_AS_GOOD * free.score ? even : free;
}

/** The length of most beats' bars. */
function usualLength(bars: readonly Bar[]): BarLength {
  const beatsOf = (length: BarLength) => bars.filter((bar) => bar.length === length).length * length;
  return bars.map(({ length }) => length).reduce((a, b) => (beatsOf(b) > beatsOf(a) ? b : a));
}

type Bar = { readonly start: number; readonly length: BarLength };
type BestBars = { readonly bars: readonly Bar[]; readonly score: number };

/**
 * The bars that together earn the most. A bar earns, for each of its beats, how much likelier a downbeat its first is
 * than its others are: so bars of different lengths compete over the same music on even terms. Beats before the first
 * bar, and what is missing of the last one, are free.
 */
function bestBars(likely: readonly number[], lengths: readonly BarLength[], common: Common): BestBars {
  const count = likely.length;
  const sums = [0];
  likely.forEach((value, i) => sums.push(sums[i]! + Math.max(0, value)));
  const earns = (start: number, length: BarLength): number => {
    const end = Math.min(count, start + length);
    const others = (sums[end]! - sums[start + 1]!) / Math.max(1, end - start - 1);
    return (end - start) * (common[length] * (likely[start]! - others) + USUAL[length]);
  };
  // By the beat at which a bar begins and its length: what it and all bars after it earn.
  const best = new Map<number, { readonly score: number; readonly next: BarLength | undefined }>();
  const key = (start: number, length: BarLength) => start * 8 + length;
  for (let start = count - 1; start >= 0; start--)
    for (const length of lengths) {
      let score = earns(start, length);
      let next: BarLength | undefined;
      if (start + length < count) {
        let most = -Infinity;
        for (const other of lengths) {
          const after = best.get(key(start + length, other))!.score - (other === length ? 0 : METER_PRICE);
          if (after > most) [most, next] = [after, other];
        }
        score += most;
      }
      best.set(key(start, length), { score, next });
    }
  let top = { score: -Infinity, start: 0, length: lengths[0]! };
  for (const length of lengths)
    for (let start = 0; start < Math.min(length, count); start++) {
      const { score } = best.get(key(start, length))!;
      if (score > top.score) top = { score, start, length };
    }
  const bars: Bar[] = [];
  let next: BarLength | undefined = top.length;
  for (let start = top.start; next !== undefined; start += bars.at(-1)!.length) {
    bars.push({ start, length: next });
    next = best.get(key(start, next))!.next;
  }
  return { bars, score: top.score };
}

/**
 * Bars of three beats can be 6/8 counted in quarters: then the middle of the bar, which is no beat, is stronger than the
 * second and third beat.
 */
export function middleIsStrong(onset: Float32Array, downbeats: readonly number[]): boolean {
  let middle = 0;
  let beats = 0;
  for (let i = 0; i + 1 < downbeats.length; i++) {
    const [from, length] = [downbeats[i]!, downbeats[i + 1]! - downbeats[i]!];
    middle += around(onset, from + length / 2);
    beats += (around(onset, from + length / 3) + around(onset, from + (2 * length) / 3)) / 2;
  }
  return middle > beats * 1.2;
}

/** The strongest onset within 30 ms of a moment. */
function around(onset: Float32Array, at: number): number {
  const frame = Math.round(at * FRAME_RATE);
  let most = 0;
  for (let f = Math.max(0, frame - 2); f <= Math.min(onset.length - 1, frame + 3); f++)
    most = Math.max(most, onset[f]!);
  return most;
}

/** In 6/8 something begins a third and two thirds into the beat, and little halfway. Swing has only the last third. */
export function dividesInThree(onset: Float32Array, beats: readonly number[]): boolean {
  let thirds = 0;
  let half = 0;
  let quarter = 0;
  for (let i = 0; i + 1 < beats.length; i++) {
    const [from, length] = [beats[i]!, beats[i + 1]! - beats[i]!];
    thirds += Math.min(around(onset, from + length / 3), around(onset, from + (2 * length) / 3));
    half += around(onset, from + length / 2);
    quarter += Math.max(around(onset, from + length / 4), around(onset, from + length * 0.75));
  }
  const period = (beats.at(-1)! - beats[0]!) / (beats.length - 1);
  return period > 0.4 && thirds > half * 1.5 && thirds > quarter;
}
