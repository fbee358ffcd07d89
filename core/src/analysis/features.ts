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
  const fft = new FFT(size);
  const spectrum = new Float64Array(size * 2);
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
    let peak = 0;
    const half = Math.round(sampleRate / FRAME_RATE / 2);
    for (let i = -half; i < half; i++) peak = Math.max(peak, Math.abs(buffer[start + size / 2 + i] ?? 0));
    for (let i = 0; i < size; i++) windowed[i] = buffer[start + i]! * hann[i]!;
    fft.realTransform(spectrum, windowed);
    bandBytes(spectrum, size, bank, row);
    for (let band = 0; band < LOUDNESS_BANDS; band++) {
      let power = 0;
      const to = bins[band + 1]!;
      for (let k = bins[band]!; k < to; k++) power += spectrum[2 * k]! ** 2 + spectrum[2 * k + 1]! ** 2;
      loud[band] = loudnessByte(power / full);
    }
    bands.add(row);
    loudness.add(loud);
    peaks.addOne(peak);
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
      for (let k = 0; k < count; k++) {
        let sum = 0;
        for (let c = 0; c < channels.length; c++) sum += channels[c]![i + k]!;
        buffer[filled + k] = sum / channels.length;
      }
      filled += count;
      i += count;
      drain(first + filled);
    }
  };
  return { push, finish: () => push([new Float32Array(size / 2)]) };
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
