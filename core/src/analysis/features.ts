// Spectrum, loudness and peaks of a recording, 100 times a second, taken as the sound comes.

import FFT from 'fft.js';
import { binsOf, LOUDNESS_BANDS, loudnessByte } from '../music';
import { bandBytes, filterBank, NETWORK_BANDS } from './network';

/** Frames a second. Every array of `Features` has one value per frame unless said otherwise. */
export const FRAME_RATE = 100;

export type Features = {
  readonly frames: number;
  readonly seconds: number;
  /** What the network listens to: `NETWORK_BANDS` bytes per frame, low to high. */
  readonly bands: Uint8Array;
  /** Largest sample, 0…1. */
  readonly peaks: Float32Array;
  /** Loudness as bytes, `LOUDNESS_BANDS` values per frame: see `dbOf`. */
  readonly loudness: Uint8Array;
};

/** Takes sound in any slices and any sample rate; `end` gives the features of all of it. */
export type FeatureTaker = {
  readonly take: (channels: readonly Float32Array[], sampleRate: number) => void;
  readonly end: () => Features;
};

export function featureTaker(): FeatureTaker {
  const bands = growing((room) => new Uint8Array(room));
  const peaks = growing((room) => new Float32Array(room));
  const loudness = growing((room) => new Uint8Array(room));
  let machine: ReturnType<typeof spectrumMachine> | undefined;
  let samples = 0;
  let rate = 44100;
  return {
    take(channels, sampleRate) {
      rate = sampleRate;
      machine ??= spectrumMachine(sampleRate, bands, peaks, loudness);
      samples += channels[0]?.length ?? 0;
      machine.push(channels);
    },
    end() {
      machine?.finish();
      const frames = Math.floor(bands.length() / NETWORK_BANDS);
      return {
        frames,
        seconds: samples / rate,
        bands: bands.values(),
        peaks: peaks.values().subarray(0, frames),
        loudness: loudness.values(),
      };
    },
  };
}

/** Windows of about 46 ms, centred on their frame's moment, every 10 ms. */
function spectrumMachine(
  sampleRate: number,
  bands: Growing<Uint8Array<ArrayBuffer>>,
  peaks: Growing<Float32Array<ArrayBuffer>>,
  loudness: Growing<Uint8Array<ArrayBuffer>>,
) {
  const size = 2 ** Math.max(8, Math.round(Math.log2(sampleRate * 0.046)));
  const realPower = powerMachine(size);
  const power = new Float64Array(size / 2 + 1);
  const half = Math.round(sampleRate / FRAME_RATE / 2);
  const windowed = new Float64Array(size);
  const hann = Float64Array.from({ length: size }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size));
  const bank = filterBank(sampleRate, size);
  const buffer = new Float32Array(size * 4);
  // Half a window of silence before the start centres frame 0 on sample 0.
  let filled = size / 2;
  let first = -size / 2;
  let frame = 0;
  const row = new Uint8Array(NETWORK_BANDS);
  const bins = binsOf(sampleRate, size);
  const loud = new Uint8Array(LOUDNESS_BANDS);
  // A sine at full scale puts this much power into the three bins a Hann window spreads it over.
  const full = 1.5 * (size / 4) ** 2;

  const emit = () => {
    const start = Math.round((frame * sampleRate) / FRAME_RATE) - size / 2 - first;
    multiplied(buffer, start, hann, windowed);
    realPower(windowed, power);
    bandBytes(power, size, bank, row);
    for (let band = 0; band < LOUDNESS_BANDS; band++) {
      let sum = 0;
      const to = bins[band + 1]!;
      for (let k = bins[band]!; k < to; k++) sum += power[k]!;
      loud[band] = loudnessByte(sum / full);
    }
    bands.add(row);
    loudness.add(loud);
    peaks.addOne(loudestOf(buffer, start + size / 2 - half, start + size / 2 + half));
    frame++;
  };
  const drain = (until: number) => {
    while (Math.round((frame * sampleRate) / FRAME_RATE) + size / 2 <= until) emit();
    const keepFrom = Math.round((frame * sampleRate) / FRAME_RATE) - size / 2;
    const drop = Math.min(filled, Math.max(0, keepFrom - first));
    buffer.copyWithin(0, drop, filled);
    filled -= drop;
    first += drop;
  };
  const push = (channels: readonly Float32Array[]) => {
    const length = channels[0]?.length ?? 0;
    for (let i = 0; i < length;) {
      const count = Math.min(length - i, buffer.length - filled);
      buffer.fill(0, filled, filled + count);
      for (const channel of channels) addTo(buffer, filled, channel, i, count, 1 / channels.length);
      filled += count;
      i += count;
      drain(first + filled);
    }
  };
  return { push, finish: () => push([new Float32Array(size / 2)]) };
}

// Loops over samples stand outside: inside, what they share with the machine is looked up again for each sample.

function multiplied(from: Float32Array, start: number, by: Float64Array, out: Float64Array): void {
  for (let i = 0; i < out.length; i++) out[i] = from[start + i]! * by[i]!;
}

function loudestOf(values: Float32Array, from: number, to: number): number {
  let most = 0;
  for (let i = from; i < to; i++) most = Math.max(most, Math.abs(values[i]!));
  return most;
}

function addTo(out: Float32Array, at: number, from: Float32Array, start: number, count: number, share: number): void {
  for (let k = 0; k < count; k++) out[at + k]! += from[start + k]! * share;
}

/** Power spectra of real values, bins 0 to `size / 2`. */
function powerMachine(size: number): (values: Float64Array, power: Float64Array) => void {
  const count = size / 2;
  const fft = new FFT(count);
  const out = new Float64Array(size);
  const turn = (wave: (angle: number) => number) =>
    Float64Array.from({ length: count + 1 }, (_, k) => wave((2 * Math.PI * k) / size));
  const [cosines, sines] = [turn(Math.cos), turn(Math.sin)];
  return (values, power) => {
    fft.transform(out, values);
    unfolded(out, count, cosines, sines, power);
  };
}

/**
 * Even and odd values are the two halves of one complex transform of half the length, and are told apart by its symmetry
 * (Press et al., "Numerical Recipes", 12.3).
 */
function unfolded(
  out: Float64Array,
  count: number,
  cosines: Float64Array,
  sines: Float64Array,
  power: Float64Array,
): void {
  for (let k = 0; k <= count / 2; k++) {
    const at = 2 * k;
    const other = k === 0 ? 0 : 2 * (count - k);
    const evenRe = (out[at]! + out[other]!) / 2;
    const evenIm = (out[at + 1]! - out[other + 1]!) / 2;
    const oddRe = (out[at + 1]! + out[other + 1]!) / 2;
    const oddIm = (out[other]! - out[at]!) / 2;
    const re = cosines[k]! * oddRe + sines[k]! * oddIm;
    const im = cosines[k]! * oddIm - sines[k]! * oddRe;
    power[k] = (evenRe + re) * (evenRe + re) + (evenIm + im) * (evenIm + im);
    power[count - k] = (evenRe - re) * (evenRe - re) + (evenIm - im) * (evenIm - im);
  }
}

type Growing<T> = {
  readonly add: (values: T) => void;
  readonly addOne: (value: number) => void;
  readonly length: () => number;
  readonly values: () => T;
};

/** A list of numbers that doubles its room as it fills. */
function growing<T extends Float32Array<ArrayBuffer> | Uint8Array<ArrayBuffer>>(make: (room: number) => T): Growing<T> {
  let room = make(1 << 14);
  let used = 0;
  const ensure = (more: number) => {
    if (used + more <= room.length) return;
    const larger = make(room.length * 2);
    larger.set(room);
    room = larger;
  };
  return {
    add(values) {
      ensure(values.length);
      room.set(values, used);
      used += values.length;
    },
    addOne(value) {
      ensure(1);
      room[used++] = value;
    },
    length: () => used,
    values: () => room.slice(0, used) as T,
  };
}
