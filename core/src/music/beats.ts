// Where the beats are. A dynamic programme over (moment, interval): each beat wants a strong onset, the stretch between
// two beats wants few, and the interval may change, at a price. This is the bar-pointer idea of Whiteley, Cemgil and
// Godsill (2006) with the tempo changing only at beats (Krebs, Böck, Widmer 2015), solved as a semi-Markov chain.

import { FRAME_RATE, type Features } from './features';

/** Intervals considered, in frames: 215 down to 50 beats a minute. */
const SHORTEST = 28;
const LONGEST = 120;
const INTERVALS = LONGEST - SHORTEST + 1;

/** Price of a tempo change: this times its size as a natural logarithm, up to the most. */
const CHANGE_PRICE = 70;
const MOST_PRICE = 14;
/** People tap about here; each beat pays for its distance in octaves, squared. Moelants 2002 (preferred tempo). */
const LIKELY_BPM = 122;
const LIKELY_WEIGHT = 0.9;

/** Onset frames are seen this much late: half the two-frame step over which a rise is measured. */
const LATENCY = 0.5 / FRAME_RATE;

/** Moments of the beats, in seconds, rising. Empty where nothing begins at all. */
export function findBeats(features: Features): readonly number[] {
  const { frames } = features;
  if (frames < SHORTEST * 3) return [];
  const strength = evenedOut(features.onset);
  if (!strength.some((value) => value > 0)) return [];
  const path = bestPath(strength, frames);
  let last = -Infinity;
  return trimmed(path, strength).map((frame) => {
    const near = refined(frame, features.onset);
    // Two beats that both went to the onset between them would be at one moment: the later one stays where it was.
    last = near > last + SHORTEST / 2 ? near : frame;
    return last / FRAME_RATE - LATENCY;
  });
}

/** Onset strength against its surroundings (±1.5 s), squashed to 0…1: a quiet bridge counts like a loud chorus. */
export function evenedOut(onset: Float32Array): Float32Array {
  const reach = Math.round(1.5 * FRAME_RATE);
  const sums = new Float64Array(onset.length + 1);
  const squares = new Float64Array(onset.length + 1);
  onset.forEach((value, i) => {
    sums[i + 1] = sums[i]! + value;
    squares[i + 1] = squares[i]! + value * value;
  });
  const overall = Math.sqrt(squares[onset.length]! / Math.max(1, onset.length));
  return Float32Array.from(onset, (value, i) => {
    const from = Math.max(0, i - reach);
    const to = Math.min(onset.length, i + reach + 1);
    const mean = (sums[to]! - sums[from]!) / (to - from);
    const spread = Math.sqrt(Math.max(0, (squares[to]! - squares[from]!) / (to - from) - mean * mean));
    const z = (value - mean * 0.5) / (spread * 2.5 + overall * 0.15 + 1e-9);
    return z <= 0 ? 0 : z >= 1 ? 1 : z;
  });
}

function bestPath(strength: Float32Array, frames: number): number[] {
  const onBeat = new Float32Array(frames);
  const between = new Float64Array(frames + 1);
  for (let f = 0; f < frames; f++) {
    // A beat may be seen a frame early or late.
    const near = Math.max(strength[f]!, 0.9 * (strength[f - 1] ?? 0), 0.9 * (strength[f + 1] ?? 0));
    onBeat[f] = Math.log(0.02 + 0.98 * near);
    between[f + 1] = between[f]! + Math.log(1 - 0.9 * strength[f]!) * 0.35;
  }
  const likely = Float32Array.from({ length: INTERVALS }, (_, i) => {
    const octaves = Math.log2((60 * FRAME_RATE) / (i + SHORTEST) / LIKELY_BPM);
    return -LIKELY_WEIGHT * octaves * octaves;
  });
  // Longer intervals have fewer beats to pay for: every beat is weighed by how long it lasts.
  const prices = changePrices();
  const score = new Float32Array(frames * INTERVALS).fill(-Infinity);
  const from = new Uint8Array(frames * INTERVALS);
  const arrival = new Float32Array(INTERVALS);
  for (let f = 0; f < frames; f++) {
    for (let i = 0; i < INTERVALS; i++) {
      const interval = i + SHORTEST;
      const start = f - interval;
      const weight = interval / 50;
      const quiet = between[f - 1 > 0 ? f - 1 : 0]! - between[Math.max(0, start + 2)]!;
      const before = start >= 0 ? score[start * INTERVALS + i]! : f < LONGEST ? 0 : -Infinity;
      arrival[i] = before + quiet + weight * (onBeat[f]! + likely[i]!);
    }
    for (let i = 0; i < INTERVALS; i++) {
      let best = -Infinity;
      let came = i;
      const low = Math.max(0, prices.from[i]!);
      const high = Math.min(INTERVALS - 1, prices.to[i]!);
      for (let k = low; k <= high; k++) {
        const value = arrival[k]! - prices.table[k * INTERVALS + i]!;
        if (value > best) [best, came] = [value, k];
      }
      score[f * INTERVALS + i] = best;
      from[f * INTERVALS + i] = came;
    }
  }
  return traced(score, from, frames);
}

/** What it costs to go from one interval to another, and how far from it is worth looking. */
function changePrices() {
  const table = new Float32Array(INTERVALS * INTERVALS);
  for (let a = 0; a < INTERVALS; a++)
    for (let b = 0; b < INTERVALS; b++) {
      // One frame more or less is only the grid's coarseness.
      const size = Math.max(0, Math.abs(a - b) - 1);
      const change = Math.log(1 + size / Math.min(a + SHORTEST, b + SHORTEST));
      table[a * INTERVALS + b] = Math.min(MOST_PRICE, CHANGE_PRICE * change) + (a === b ? 0 : 0.15);
    }
  const from = Int32Array.from({ length: INTERVALS }, (_, i) => Math.floor((i + SHORTEST) * 0.55) - SHORTEST);
  const to = Int32Array.from({ length: INTERVALS }, (_, i) => Math.ceil((i + SHORTEST) * 1.82) - SHORTEST);
  return { table, from, to };
}

function traced(score: Float32Array, from: Uint8Array, frames: number): number[] {
  let best = -Infinity;
  let frame = frames - 1;
  let interval = 0;
  for (let f = Math.max(0, frames - LONGEST); f < frames; f++)
    for (let i = 0; i < INTERVALS; i++)
      if (score[f * INTERVALS + i]! > best) {
        best = score[f * INTERVALS + i]!;
        frame = f;
        interval = i;
      }
  const path: number[] = [];
  while (frame >= 0) {
    path.push(frame);
    interval = from[frame * INTERVALS + interval]!;
    frame -= interval + SHORTEST;
  }
  return path.reverse();
}

/** Leaves out beats counted in the silence before and after the music. */
function trimmed(path: readonly number[], strength: Float32Array): readonly number[] {
  const heard = (frame: number) => {
    for (let f = Math.max(0, frame - 4); f <= frame + 4; f++) if ((strength[f] ?? 0) > 0.25) return true;
    return false;
  };
  const first = path.findIndex(heard);
  const last = path.findLastIndex(heard);
  return first < 0 ? [] : path.slice(first, last + 1);
}

/** The frame with its fraction, at the top of the onset near it. */
function refined(frame: number, onset: Float32Array): number {
  let top = frame;
  for (let f = Math.max(1, frame - 3); f <= Math.min(onset.length - 2, frame + 3); f++)
    if (onset[f]! > onset[top]!) top = f;
  const [before, here, after] = [onset[top - 1] ?? 0, onset[top]!, onset[top + 1] ?? 0];
  const bend = before - 2 * here + after;
  if (bend > -1e-9) return top;
  // Where the onset still rises at the edge of what is looked at, the top of the parabola lies far away.
  return top + Math.max(-0.5, Math.min(0.5, (0.5 * (before - after)) / bend));
}
