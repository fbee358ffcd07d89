// What the ear would notice, 100 times a second: how strongly something begins, and where in the spectrum.

import FFT from 'fft.js';
import { binsOf, LOUDNESS_BANDS, loudnessByte } from './bands';

/** Frames a second. Every array of `Features` has one value per frame unless said otherwise. */
export const FRAME_RATE = 100;

export const BANDS = 30;

export type Features = {
  readonly frames: number;
  readonly seconds: number;
  /** Half-wave rectified rise of log energy, summed over the bands; 0 is nothing new. */
  readonly onset: Float32Array;
  /** The same in the lowest bands alone, up to about 200 Hz: kick and bass. */
  readonly low: Float32Array;
  /** Log energy, `BANDS` values per frame, low to high. */
  readonly bands: Float32Array;
  /** Largest sample, 0…1. */
  readonly peaks: Float32Array;
  /** Loudness as bytes, `LOUDNESS_BANDS` values per frame: see `dbOf`. */
  readonly loudness: Uint8Array;
};

const LOWEST_HZ = 30;
const HIGHEST_HZ = 15000;
/** A rise is measured against two frames (20 ms) before, over neighbouring bands, so that vibrato is no onset. */
const LAG = 2;
/** Kick and bass lie in few bands and mean more for the beat than hats, which lie in many. */
const LOW_BANDS = 3;
const LOW_WEIGHT = 2;

/** Takes sound in any slices and any sample rate; `end` gives the features of all of it. */
export type FeatureTaker = {
  readonly take: (channels: readonly Float32Array[], sampleRate: number) => void;
  readonly end: () => Features;
};

export function featureTaker(): FeatureTaker {
  const bands = growing((room) => new Float32Array(room));
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
      const frames = Math.floor(bands.length() / BANDS);
      const energies = bands.values();
      return {
        frames,
        seconds: samples / rate,
        ...risesOf(energies, frames),
        bands: energies,
        peaks: peaks.values().subarray(0, frames),
        loudness: loudness.values(),
      };
    },
  };
}

/** Windows of about 46 ms, centred on their frame's moment, every 10 ms. */
function spectrumMachine(
  sampleRate: number,
  bands: Growing<Float32Array<ArrayBuffer>>,
  peaks: Growing<Float32Array<ArrayBuffer>>,
  loudness: Growing<Uint8Array<ArrayBuffer>>,
) {
  const size = 2 ** Math.max(8, Math.round(Math.log2(sampleRate * 0.046)));
  const fft = new FFT(size);
  const spectrum = new Float64Array(size * 2);
  const windowed = new Float64Array(size);
  const hann = Float64Array.from({ length: size }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size));
  const edges = bandEdges(sampleRate, size);
  const buffer = new Float32Array(size * 4);
  // Half a window of silence before the start centres frame 0 on sample 0.
  let filled = size / 2;
  let first = -size / 2;
  let frame = 0;
  const row = new Float32Array(BANDS);
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
    for (let band = 0; band < BANDS; band++) {
      let energy = 0;
      const to = edges[band + 1]!;
      for (let k = edges[band]!; k < to; k++) energy += spectrum[2 * k]! ** 2 + spectrum[2 * k + 1]! ** 2;
      row[band] = Math.log10(1 + (1000 * Math.sqrt(energy)) / size);
    }
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

/** First FFT bin of each band, equal steps on the mel scale (O'Shaughnessy 1987); every band has a bin. */
function bandEdges(sampleRate: number, size: number): number[] {
  const mel = (hz: number) => 2595 * Math.log10(1 + hz / 700);
  const hz = (m: number) => 700 * (10 ** (m / 2595) - 1);
  const high = Math.min(HIGHEST_HZ, sampleRate * 0.48);
  const edges = [Math.max(1, Math.round((LOWEST_HZ * size) / sampleRate))];
  for (let i = 1; i <= BANDS; i++) {
    const at = hz(mel(LOWEST_HZ) + ((mel(high) - mel(LOWEST_HZ)) * i) / BANDS);
    edges.push(Math.min(size / 2, Math.max(edges[i - 1]! + 1, Math.round((at * size) / sampleRate))));
  }
  return edges;
}

function risesOf(bands: Float32Array, frames: number): { onset: Float32Array; low: Float32Array } {
  const onset = new Float32Array(frames);
  const low = new Float32Array(frames);
  // Before the start there is silence, so a file that begins on the beat begins with an onset.
  const level = (frame: number, band: number) => (frame < 0 ? 0 : bands[frame * BANDS + band]!);
  for (let f = 0; f < frames; f++) {
    for (let b = 0; b < BANDS; b++) {
      const [under, over] = [Math.max(0, b - 1), Math.min(BANDS - 1, b + 1)];
      const before = f - LAG;
      const around = Math.max(level(before, b), level(before, under), level(before, over));
      const rise = level(f, b) - around;
      if (rise <= 0) continue;
      onset[f] = onset[f]! + rise * (b < LOW_BANDS ? LOW_WEIGHT : 1);
      if (b < LOW_BANDS) low[f] = low[f]! + rise;
    }
  }
  return { onset, low };
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
