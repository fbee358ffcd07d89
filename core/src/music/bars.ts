// Which beats start a bar: how many beats a bar has, and on which of them it begins.

import { BANDS, FRAME_RATE, type Features } from './features';

export type BarGuess = {
  /** Beats in a bar, as they are felt. */
  readonly beatsInBar: 2 | 3 | 4;
  /** Index of the first beat that starts a bar, below `beatsInBar`. */
  readonly firstDownbeat: number;
  /** True when each beat divides in three throughout, as in 6/8. */
  readonly compound: boolean;
};

/** @param compound where it is known that each beat divides in three; without, it is found out. */
export function findBars(
  features: Features,
  beats: readonly number[],
  compound = dividesInThree(features, beats),
): BarGuess {
  if (beats.length < 8) return { beatsInBar: 4, firstDownbeat: 0, compound: false };
  const accents = accentsOf(features, beats);
  const sizes = compound ? ([2] as const) : ([4, 3] as const);
  let best = { score: -Infinity, beatsInBar: sizes[0] as BarGuess['beatsInBar'], firstDownbeat: 0 };
  for (const beatsInBar of sizes) {
    // Four in a bar is by far the most common; three must be clearly better.
    const prior = beatsInBar === 4 ? 1 : 0.9;
    const repeats = sameness(features, beats, beatsInBar);
    for (let phase = 0; phase < beatsInBar; phase++) {
      const score = contrast(accents, beatsInBar, phase) * prior + repeats;
      if (score > best.score) best = { score, beatsInBar, firstDownbeat: phase };
    }
  }
  return { beatsInBar: best.beatsInBar, firstDownbeat: best.firstDownbeat, compound };
}

/** How much each beat sounds like a downbeat: a change of harmony, a low note, a strong start. Standardised. */
function accentsOf(features: Features, beats: readonly number[]): Float64Array {
  const colours = beats.map((beat, i) => meanBands(features, beat, beats[i + 1] ?? beat + 0.4));
  const change = beats.map((_, i) => (i === 0 ? 0 : distance(colours[i]!, colours[i - 1]!)));
  const bass = beats.map((beat) => around(features.low, beat));
  const start = beats.map((beat) => around(features.onset, beat));
  const parts = [change, bass, start].map(standardised);
  return Float64Array.from(beats, (_, i) => parts[0]![i]! * 1 + parts[1]![i]! * 0.7 + parts[2]![i]! * 0.5);
}

function contrast(accents: Float64Array, size: number, phase: number): number {
  let on = 0;
  let off = 0;
  let count = 0;
  accents.forEach((value, i) => {
    if (i % size === phase) {
      on += value;
      count++;
    } else off += value;
  });
  return on / count - off / (accents.length - count);
}

/** How much better a beat resembles the one a bar later than its other neighbours do. */
function sameness(features: Features, beats: readonly number[], size: number): number {
  const short = beats.map((beat) => meanBands(features, beat - 0.01, beat + 0.09));
  const lagged = (lag: number) => {
    let sum = 0;
    for (let i = 0; i + lag < short.length; i++) sum += distance(short[i]!, short[i + lag]!);
    return sum / Math.max(1, short.length - lag);
  };
  const all = [2, 3, 4, 5, 6, 7, 8].map(lagged);
  const mean = all.reduce((sum, value) => sum + value, 0) / all.length || 1;
  return (2 * (mean - (lagged(size) + lagged(size * 2)) / 2)) / mean;
}

/** In 6/8 something begins a third and two thirds into the beat, and little halfway. Swing has only the last third. */
function dividesInThree(features: Features, beats: readonly number[]): boolean {
  let thirds = 0;
  let half = 0;
  let quarter = 0;
  for (let i = 0; i + 1 < beats.length; i++) {
    const [from, length] = [beats[i]!, beats[i + 1]! - beats[i]!];
    thirds += Math.min(around(features.onset, from + length / 3), around(features.onset, from + (2 * length) / 3));
    half += around(features.onset, from + length / 2);
    quarter += Math.max(around(features.onset, from + length / 4), around(features.onset, from + length * 0.75));
  }
  const period = (beats.at(-1)! - beats[0]!) / (beats.length - 1);
  return period > 0.55 && thirds > half * 1.5 && thirds > quarter;
}

function meanBands(features: Features, from: number, to: number): Float64Array {
  const first = Math.max(0, Math.round(from * FRAME_RATE));
  const last = Math.min(features.frames, Math.max(first + 1, Math.round(to * FRAME_RATE)));
  const mean = new Float64Array(BANDS);
  for (let f = first; f < last; f++)
    for (let b = 0; b < BANDS; b++) mean[b] = mean[b]! + features.bands[f * BANDS + b]! / (last - first);
  return mean;
}

function distance(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += (a[i]! - b[i]!) ** 2;
  return Math.sqrt(sum);
}

function around(values: Float32Array, at: number): number {
  const frame = Math.round(at * FRAME_RATE);
  let most = 0;
  for (let f = Math.max(0, frame - 2); f <= Math.min(values.length - 1, frame + 3); f++)
    most = Math.max(most, values[f]!);
  return most;
}

function standardised(values: readonly number[]): Float64Array {
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  const spread = Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / values.length) || 1;
  return Float64Array.from(values, (value) => (value - mean) / spread);
}
