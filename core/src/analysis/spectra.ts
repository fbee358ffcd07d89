// Power spectra of windows that slide over a recording. Hearing a song takes thirty thousand of them: WebAssembly of our own
// makes four at once, one in each lane (kernels/spectra.wat); where a browser lacks it, plain code does the same.

import { instanceOf, roomIn, SPECTRA } from './kernels';

/** Windows that are made at once. */
export const LANES = 4;
/** Bytes of a number. */
const WIDE = 4;

/** Some bins, each with its weight. */
export type Band = { readonly first: number; readonly weights: readonly number[] };

/** Four windows at once. Lent arrays have four values, one a window, for each of what they tell of. */
type Machine = {
  /** Samples, in turn of the four windows. */
  readonly samples: Float32Array;
  /** Power of bins 0 to half of the size. */
  readonly power: () => Float32Array;
  /** Weighted sums of power, band by band; `power` comes first. */
  readonly bands: () => Float32Array;
};

/** What comes of one window. */
export type Spectrum = {
  /** Power of bin `k` is at `k * LANES + lane`. */
  readonly power: Float32Array;
  /** That of band `b` is at `b * LANES + lane`. */
  readonly bands: Float32Array;
  readonly lane: number;
};

export type Spectra = {
  /** One more window. Its spectrum comes once those of four are made. */
  readonly put: (samples: Float32Array, start: number) => void;
  /** Makes the last ones. */
  readonly finish: () => void;
};

/**
 * Spectra of windows of `size` samples, in their order.
 * @param size a power of two, 8 at the least.
 * @param bands what is summed up of each, by bins.
 * @param emit lent one that holds only as long as the call.
 * @param vector false for plain code.
 */
export function spectraOf(
  size: number,
  bands: readonly Band[],
  emit: (spectrum: Spectrum) => void,
  vector = true,
): Spectra {
  const machine = (vector ? inKernel(size, bands) : undefined) ?? inPlainCode(size, bands);
  const window = hann(size);
  let waiting = 0;
  const make = () => {
    const spectrum = { power: machine.power(), bands: machine.bands(), lane: 0 };
    for (; spectrum.lane < waiting; spectrum.lane++) emit(spectrum);
    waiting = 0;
  };
  return {
    put(samples, start) {
      windowed(samples, start, window, machine.samples, waiting++);
      if (waiting === LANES) make();
    },
    finish() {
      if (waiting > 0) make();
    },
  };
}

const hann = (size: number): Float64Array =>
  Float64Array.from({ length: size }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size));

// Loops over samples stand outside: inside, what they share with the machine is looked up again for each sample.

function windowed(from: Float32Array, start: number, by: Float64Array, out: Float32Array, lane: number): void {
  for (let i = 0, at = lane; i < by.length; i++, at += LANES) out[at] = from[start + i]! * by[i]!;
}

type Kernel = {
  readonly transform: (count: number, from: number, room: number, turns: number) => number;
  readonly unfold: (count: number, from: number, halves: number, power: number) => void;
  readonly sums: (bands: number, bank: number, weights: number, power: number, out: number) => void;
};

function inKernel(size: number, bands: readonly Band[]): Machine | undefined {
  const kernel = instanceOf<Kernel>(SPECTRA);
  if (!kernel) return undefined;
  const { memory, transform, unfold, sums } = kernel;
  const count = size / 2;
  const weights = bands.flatMap((band) => band.weights);
  const { floats, integers } = roomIn(memory);
  const [values, other, turns, halves] = [floats(size * LANES), floats(size * LANES), floats(size), floats(size)];
  const [bank, weighed] = [integers(2 * bands.length), floats(weights.length)];
  const [power, summed] = [floats((count + 1) * LANES), floats(bands.length * LANES)];
  turns.set(rootsOf(count, count));
  halves.set(rootsOf(size, count));
  weighed.set(weights);
  bank.set(bands.flatMap((band) => [band.first * LANES * WIDE, band.weights.length]));
  return {
    samples: values,
    power: () => {
      const done = transform(count, values.byteOffset, other.byteOffset, turns.byteOffset);
      unfold(count, done, halves.byteOffset, power.byteOffset);
      return power;
    },
    bands: () => {
      if (bands.length > 0)
        sums(bands.length, bank.byteOffset, weighed.byteOffset, power.byteOffset, summed.byteOffset);
      return summed;
    },
  };
}

/** The first so many roots of unity, clockwise: re and im in turn. */
const rootsOf = (of: number, count: number): Float32Array =>
  Float32Array.from({ length: 2 * count }, (_, i) => {
    const angle = (2 * Math.PI * (i >> 1)) / of;
    return i % 2 ? -Math.sin(angle) : Math.cos(angle);
  });

function inPlainCode(size: number, bands: readonly Band[]): Machine {
  const count = size / 2;
  const [turns, halves] = [rootsOf(count, count), rootsOf(size, count)];
  const values = new Float64Array(size);
  const room = new Float64Array(size);
  const samples = new Float32Array(size * LANES);
  const power = new Float32Array((count + 1) * LANES);
  const sums = new Float32Array(bands.length * LANES);
  return {
    samples,
    power: () => {
      for (let lane = 0; lane < LANES; lane++) {
        for (let i = 0; i < size; i++) values[i] = samples[i * LANES + lane]!;
        unfolded(transformed(values, room, count, turns), count, halves, power, lane);
      }
      return power;
    },
    bands: () => {
      for (const [b, { first, weights }] of bands.entries())
        for (let lane = 0; lane < LANES; lane++) {
          let sum = 0;
          for (let i = 0; i < weights.length; i++) sum += weights[i]! * power[(first + i) * LANES + lane]!;
          sums[b * LANES + lane] = sum;
        }
      return sums;
    },
  };
}

/** As the kernel's `transform`, by stages of two. @returns which of both has the result. */
function transformed(values: Float64Array, room: Float64Array, count: number, turns: Float32Array): Float64Array {
  let [from, to] = [values, room];
  for (let n = count, s = 1; n > 1; n /= 2, s *= 2) {
    for (let p = 0; p < n / 2; p++) {
      const [turnRe, turnIm] = [turns[2 * p * s]!, turns[2 * p * s + 1]!];
      for (let q = 0; q < s; q++) {
        const [one, other, at] = [2 * (q + s * p), 2 * (q + s * (p + n / 2)), 2 * (q + 2 * s * p)];
        const re = from[one]! - from[other]!;
        const im = from[one + 1]! - from[other + 1]!;
        to[at] = from[one]! + from[other]!;
        to[at + 1] = from[one + 1]! + from[other + 1]!;
        to[at + 2 * s] = re * turnRe - im * turnIm;
        to[at + 2 * s + 1] = re * turnIm + im * turnRe;
      }
    }
    [from, to] = [to, from];
  }
  return from;
}

/** As the kernel's `unfold`. */
function unfolded(values: Float64Array, count: number, halves: Float32Array, power: Float32Array, lane: number): void {
  for (let k = 0; k <= count / 2; k++) {
    const at = 2 * k;
    const other = k === 0 ? 0 : 2 * (count - k);
    const evenRe = (values[at]! + values[other]!) / 2;
    const evenIm = (values[at + 1]! - values[other + 1]!) / 2;
    const oddRe = (values[at + 1]! + values[other + 1]!) / 2;
    const oddIm = (values[other]! - values[at]!) / 2;
    const [turnRe, turnIm] = [halves[2 * k]!, halves[2 * k + 1]!];
    const re = turnRe * oddRe - turnIm * oddIm;
    const im = turnRe * oddIm + turnIm * oddRe;
    power[k * LANES + lane] = (evenRe + re) ** 2 + (evenIm + im) ** 2;
    power[(count - k) * LANES + lane] = (evenRe - re) ** 2 + (evenIm - im) ** 2;
  }
}
