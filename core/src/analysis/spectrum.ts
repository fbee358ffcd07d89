// What every spectrum of a recording is made of: windows that slide over the sound, and their power.

import FFT from 'fft.js';

export type Sliding = {
  readonly push: (channels: readonly Float32Array[]) => void;
  /** Half a window of silence, so that the last frames are whole. */
  readonly finish: () => void;
};

/**
 * Windows of `size` samples, each centred on its frame's moment, `perSecond` a second, over channels mixed into one.
 * @param emit lent the samples and where the window begins among them.
 */
export function slidingWindow(
  sampleRate: number,
  perSecond: number,
  size: number,
  emit: (samples: Float32Array, start: number) => void,
): Sliding {
  const buffer = new Float32Array(size * 4);
  // Half a window of silence before the start centres frame 0 on sample 0.
  let filled = size / 2;
  let first = -size / 2;
  let frame = 0;
  const middle = () => Math.round((frame * sampleRate) / perSecond);
  const drain = (until: number) => {
    while (middle() + size / 2 <= until) {
      emit(buffer, middle() - size / 2 - first);
      frame++;
    }
    const drop = Math.min(filled, Math.max(0, middle() - size / 2 - first));
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

export const hann = (size: number): Float64Array =>
  Float64Array.from({ length: size }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size));

// Loops over samples stand outside: inside, what they share with the machine is looked up again for each sample.

export function multiplied(from: Float32Array, start: number, by: Float64Array, out: Float64Array): void {
  for (let i = 0; i < out.length; i++) out[i] = from[start + i]! * by[i]!;
}

function addTo(out: Float32Array, at: number, from: Float32Array, start: number, count: number, share: number): void {
  for (let k = 0; k < count; k++) out[at + k]! += from[start + k]! * share;
}

/** Power spectra of real values, bins 0 to `size / 2`. */
export function powerMachine(size: number): (values: Float64Array, power: Float64Array) => void {
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

export type Growing<T> = {
  readonly add: (values: T) => void;
  readonly addOne: (value: number) => void;
  readonly length: () => number;
  readonly values: () => T;
};

/** A list of numbers that doubles its room as it fills. */
export function growing<T extends Float32Array<ArrayBuffer> | Uint8Array<ArrayBuffer>>(
  make: (room: number) => T,
): Growing<T> {
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
