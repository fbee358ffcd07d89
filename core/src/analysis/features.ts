// Spectrum, loudness and peaks of a recording, 100 times a second, taken as the sound comes.

import { binsOf, LOUDNESS_BANDS, loudnessByte } from '../music';
import { bandByte, filterBank, NETWORK_BANDS } from './network';
import { LANES, spectraOf } from './spectra';
import { growing, slidingWindow, type Growing, type Sliding } from './windows';

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
): Sliding {
  const size = 2 ** Math.max(8, Math.round(Math.log2(sampleRate * 0.046)));
  const half = Math.round(sampleRate / FRAME_RATE / 2);
  const row = new Uint8Array(NETWORK_BANDS);
  const bins = binsOf(sampleRate, size);
  const loud = new Uint8Array(LOUDNESS_BANDS);
  // A sine at full scale puts this much power into the three bins a Hann window spreads it over.
  const full = 1.5 * (size / 4) ** 2;
  const loudnessBands = Array.from({ length: LOUDNESS_BANDS }, (_, band) => ({
    first: bins[band]!,
    weights: Array.from({ length: Math.max(0, bins[band + 1]! - bins[band]!) }, () => 1),
  }));
  const spectra = spectraOf(size, [...filterBank(sampleRate, size), ...loudnessBands], ({ bands: sums, lane }) => {
    for (let band = 0; band < NETWORK_BANDS; band++) row[band] = bandByte(sums[band * LANES + lane]!, size);
    for (let band = 0; band < LOUDNESS_BANDS; band++)
      loud[band] = loudnessByte(sums[(NETWORK_BANDS + band) * LANES + lane]! / full);
    bands.add(row);
    loudness.add(loud);
  });
  const windows = slidingWindow(sampleRate, FRAME_RATE, size, (samples, start) => {
    spectra.put(samples, start);
    peaks.addOne(loudestOf(samples, start + size / 2 - half, start + size / 2 + half));
  });
  return {
    push: windows.push,
    finish: () => {
      windows.finish();
      spectra.finish();
    },
  };
}

function loudestOf(values: Float32Array, from: number, to: number): number {
  let most = 0;
  for (let i = from; i < to; i++) {
    const value = values[i]!;
    if (value > most) most = value;
    else if (-value > most) most = -value;
  }
  return most;
}
