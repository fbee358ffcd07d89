// How much the harmony changes at each moment. Chords change at the first beat of a bar far more often than elsewhere
// (Goto 2001): where a bar begins can be heard from that alone, in music of any style, and without training.

import { LANES, spectraOf } from './spectra';
import { addTo, growing, slidingWindow, type Sliding } from './windows';

/** Spectra a second. */
const RATE = 20;
/** Sound is thinned out to about this rate: notes up to `HIGHEST` are all that is asked for. */
const SAMPLE_RATE = 11025;
/** A window so long, in seconds, tells neighbouring notes of the second octave apart. */
const WINDOW = 0.37;
/** Hertz. */
const LOWEST = 65;
const HIGHEST = 1400;
const NOTES = 12;
/** What was heard for so long before a moment is compared with what is heard for as long after it, in seconds. */
const SPAN = 1;

/** Takes sound in any slices and any sample rate. */
export type HarmonyTaker = {
  readonly take: (channels: readonly Float32Array[], sampleRate: number) => void;
  /** How much the notes after each moment differ from those before it, 0 (the same) … 2, `rate` values a second. */
  readonly end: (frames: number, rate: number) => Float32Array;
};

export function harmonyTaker(): HarmonyTaker {
  const notes = growing((room) => new Float32Array(room));
  let thin: ReturnType<typeof thinner> | undefined;
  let windows: Sliding | undefined;
  return {
    take(channels, sampleRate) {
      const by = Math.max(1, Math.round(sampleRate / SAMPLE_RATE));
      thin ??= thinner(by);
      windows ??= noteWindows(sampleRate / by, notes.add);
      windows.push([thin(channels)]);
    },
    end(frames, rate) {
      windows?.finish();
      const changes = changesOf(notes.values());
      return Float32Array.from({ length: frames }, (_, i) => changes[Math.round((i * RATE) / rate)] ?? 0);
    },
  };
}

/** Means of every `by` samples, over all channels: what folds down onto low notes lies where such a mean is deaf. */
function thinner(by: number): (channels: readonly Float32Array[]) => Float32Array {
  let rest = new Float32Array();
  return (channels) => {
    const length = channels[0]?.length ?? 0;
    const mixed = new Float32Array(rest.length + length);
    mixed.set(rest);
    for (const channel of channels) addTo(mixed, rest.length, channel, 0, length, 1 / channels.length);
    const thinned = new Float32Array(Math.floor(mixed.length / by));
    means(mixed, by, thinned);
    rest = mixed.slice(thinned.length * by);
    return thinned;
  };
}

function means(from: Float32Array, by: number, out: Float32Array): void {
  for (let i = 0, at = 0; i < out.length; i++) {
    let sum = 0;
    for (let k = 0; k < by; k++) sum += from[at++]!;
    out[i] = sum / by;
  }
}

/** How loud each of the twelve notes is, in all octaves together, `RATE` times a second. */
function noteWindows(sampleRate: number, add: (notes: Float32Array<ArrayBuffer>) => void): Sliding {
  const size = 2 ** Math.max(8, Math.round(Math.log2(sampleRate * WINDOW)));
  const row = new Float32Array(NOTES);
  const from = Math.ceil((LOWEST * size) / sampleRate);
  const to = Math.floor(Math.min(HIGHEST / sampleRate, 0.5) * size);
  // Counted from the A of 440 Hz; which note is which does not matter here.
  const noteAt = Uint8Array.from({ length: to + 1 }, (_, k) => {
    const note = Math.round(NOTES * Math.log2(Math.max(1, k * sampleRate) / size / 440));
    return ((note % NOTES) + NOTES) % NOTES;
  });
  const spectra = spectraOf(size, [], ({ power, lane }) => {
    row.fill(0);
    // A sine at full scale comes to 512.
    for (let k = from; k <= to; k++)
      row[noteAt[k]!]! += Math.log1p((2048 * Math.sqrt(power[k * LANES + lane]!)) / size);
    add(row);
  });
  const windows = slidingWindow(sampleRate, RATE, size, spectra.put);
  return {
    push: windows.push,
    finish: () => {
      windows.finish();
      spectra.finish();
    },
  };
}

/** One less the correlation of the notes before and after each moment. @param notes `NOTES` for each frame. */
function changesOf(notes: Float32Array): Float32Array {
  const frames = notes.length / NOTES;
  const span = SPAN * RATE;
  const sums = new Float64Array((frames + 1) * NOTES);
  for (let i = 0; i < notes.length; i++) sums[i + NOTES] = sums[i]! + notes[i]!;
  const before = new Float64Array(NOTES);
  const after = new Float64Array(NOTES);
  return Float32Array.from({ length: frames }, (_, frame) => {
    const [from, to] = [Math.max(0, frame - span), Math.min(frames, frame + span)];
    if (frame - from < 2 || to - frame < 2) return 0;
    for (let n = 0; n < NOTES; n++) {
      before[n] = sums[frame * NOTES + n]! - sums[from * NOTES + n]!;
      after[n] = sums[to * NOTES + n]! - sums[frame * NOTES + n]!;
    }
    return 1 - correlation(before, after);
  });
}

function correlation(a: Float64Array, b: Float64Array): number {
  const mean = (values: Float64Array) => values.reduce((sum, value) => sum + value, 0) / values.length;
  const [meanA, meanB] = [mean(a), mean(b)];
  let [ab, aa, bb] = [0, 0, 0];
  for (let i = 0; i < a.length; i++) {
    const [da, db] = [a[i]! - meanA, b[i]! - meanB];
    ab += da * db;
    aa += da * da;
    bb += db * db;
  }
  // Silence, or noise in which all notes are as loud, is no change.
  return aa * bb > 1e-12 ? ab / Math.sqrt(aa * bb) : 1;
}
