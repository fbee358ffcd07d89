// A small network over log bands that says how likely each moment is a beat, a downbeat, the start of a section: two
// convolutions over bands and time, then dilated convolutions over time that see 40 seconds to either side (after
// Böck and Davies 2020). Trained by `training/`; docs/music.md tells on what.

import { NETWORK_BANDS, VALUES_PER_BYTE } from './bands';
import { linearMaker, type MakeLinear } from './dense';
import type { Layer } from './layers';
import { CHANNELS, FIRST, OUTPUTS, readWeights, SECOND, TAPS, type Weights } from './weights';

/** Activations a second. One covers two frames of bands. */
export const ACTIVATION_RATE = 50;

/** Log odds, one for each activation. */
export type Activations = {
  readonly frames: number;
  readonly beat: Float32Array;
  readonly downbeat: Float32Array;
  readonly section: Float32Array;
};

/** What the host does between stretches: shows progress, 0…1, and says whether to stop. */
export type Pause = (progress: number) => Promise<'go-on' | 'stop'>;

/** Frames between two pauses: some tenths of a second of work. */
const STRETCH = 4000;

let known: Weights | undefined;

/**
 * Runs the network over a whole recording.
 * @param bands bytes, `NETWORK_BANDS` for each hundredth of a second.
 * @returns undefined where the host said stop.
 */
export async function activationsOf(bands: Uint8Array, pause: Pause): Promise<Activations | undefined> {
  known ??= readWeights();
  const weights = known;
  const frames = Math.floor(bands.length / NETWORK_BANDS / 2);
  let flow = new Float32Array(frames * CHANNELS);
  const linear = linearMaker();
  const front = frontEnd(weights, linear, bands, frames);
  const steps = weights.blocks.length + 1;
  for (let from = 0; from < frames; from += STRETCH) {
    front(from, Math.min(frames, from + STRETCH), flow);
    if ((await pause((0.5 * from) / frames)) === 'stop') return undefined;
  }
  let next = new Float32Array(flow.length);
  for (const [i, block] of weights.blocks.entries()) {
    const run = dilatedBlock(block, linear, frames);
    for (let from = 0; from < frames; from += STRETCH) {
      run(flow, next, from, Math.min(frames, from + STRETCH));
      if ((await pause(0.5 + (0.5 * (i + from / frames)) / steps)) === 'stop') return undefined;
    }
    [flow, next] = [next, flow];
  }
  return headsOf(weights.heads, flow, frames);
}

const elu = (x: number) => (x > 0 ? x : Math.exp(x) - 1);

// Loops over channels stand outside: inside, what they share with a layer is looked up again for each number.

function copy(out: Float32Array, to: number, from: Float32Array, at: number, count: number): void {
  for (let i = 0; i < count; i++) out[to + i] = from[at + i]!;
}

/** Writes the curve of some values. */
function curve(out: Float32Array, to: number, from: Float32Array, count: number): void {
  for (let i = 0; i < count; i++) out[to + i] = elu(from[i]!);
}

function add(out: Float32Array, at: number, one: Float32Array, two: Float32Array, count: number): void {
  for (let i = 0; i < count; i++) out[at + i] = one[at + i]! + two[i]!;
}

/** Four frames of three bands, as the first convolution takes them; frames outside are silent. */
function heardAt(out: Float32Array, to: number, bands: Uint8Array, frame: number, last: number, band: number): void {
  for (let dt = 0; dt < 4; dt++) {
    const inside = frame + dt >= 0 && frame + dt < last;
    const at = (frame + dt) * NETWORK_BANDS + band;
    for (let db = 0; db < 3; db++) out[to + dt * 3 + db] = inside ? bands[at + db]! : 0;
  }
}

/** Bands to channels: writes rows `from` to `to` of `out`. Rows of the first convolution are made once and kept for three. */
function frontEnd({ first, second, joined }: Weights, linear: MakeLinear, bands: Uint8Array, frames: number) {
  const row = FIRST.bands * FIRST.filters;
  const ring = [0, 1, 2].map(() => ({ of: -9, values: new Float32Array(row) }));
  const nothing = new Float32Array(row);
  const firstAt = firstRow(first, linear, bands, frames);
  const rowOf = (t: number): Float32Array => {
    if (t < 0 || t >= frames) return nothing;
    const place = ring[t % 3]!;
    if (place.of !== t) {
      firstAt(t, place.values);
      place.of = t;
    }
    return place.values;
  };
  const secondAt = secondRow(second, linear);
  const inputs = SECOND.filters * SECOND.bands;
  // The trainer joins them by filter and band; here they lie by band and filter.
  const join = linear(inputs, CHANNELS, joined.biases, (output, input) => {
    const [band, filter] = [Math.floor(input / SECOND.filters), input % SECOND.filters];
    return joined.weights[output * inputs + filter * SECOND.bands + band]!;
  });
  const two = [join.values.subarray(0, inputs), join.values.subarray(inputs)] as const;
  return (from: number, to: number, out: Float32Array): void => {
    for (let t = from; t < to; t += 2) {
      secondAt(rowOf(t - 1), rowOf(t), rowOf(t + 1), two[0]);
      secondAt(rowOf(t), rowOf(t + 1), rowOf(t + 2), two[1]);
      join.run();
      curve(out, t * CHANNELS, join.sums, Math.min(2, to - t) * CHANNELS);
    }
  };
}

/** 4 × 3 over two frames and one to either side, then the largest of three bands. Written as [band][filter]. */
function firstRow({ weights, biases }: Layer, linear: MakeLinear, bands: Uint8Array, frames: number) {
  const { filters, bands: kept, taps } = FIRST;
  // The bytes' scale is in the weights.
  const filter = linear(taps, filters, biases, (output, tap) => weights[output * taps + tap]! * VALUES_PER_BYTE);
  const { values: heard, sums } = filter;
  const last = frames * 2;
  return (t: number, out: Float32Array): void => {
    for (let band = 0; band < kept * 3; band += 2) {
      heardAt(heard, 0, bands, 2 * t - 1, last, band);
      heardAt(heard, taps, bands, 2 * t - 1, last, band + 1);
      filter.run();
      keepLargest(sums, 0, filters, out, band);
      keepLargest(sums, filters, filters, out, band + 1);
    }
    curve(out, 0, out, out.length);
  };
}

/** 3 × 3 over frames and bands, then the largest of three bands. Written as [band][filter]. */
function secondRow({ weights, biases }: Layer, linear: MakeLinear) {
  const { filters, bands: kept } = SECOND;
  const inputs = FIRST.filters;
  const width = 3 * inputs;
  // Inputs lie by frame, band and filter of the first layer.
  const filter = linear(3 * width, filters, biases, (output, input) => {
    const [frame, band, from] = [Math.floor(input / width), Math.floor((input % width) / inputs), input % inputs];
    return weights[(output * inputs + from) * 9 + frame * 3 + band]!;
  });
  const { values: heard, sums } = filter;
  return (before: Float32Array, here: Float32Array, after: Float32Array, out: Float32Array): void => {
    for (let band = 0; band < kept * 3; band += 2) {
      for (let k = 0; k < 2; k++) {
        const at = (band + k) * inputs;
        const to = k * 3 * width;
        copy(heard, to, before, at, width);
        copy(heard, to + width, here, at, width);
        copy(heard, to + 2 * width, after, at, width);
      }
      filter.run();
      keepLargest(sums, 0, filters, out, band);
      keepLargest(sums, filters, filters, out, band + 1);
    }
    curve(out, 0, out, out.length);
  };
}

/** Of three bands after the other, the largest of each filter. The curve comes later: it only ever rises. */
function keepLargest(sums: Float32Array, from: number, filters: number, out: Float32Array, band: number): void {
  const to = Math.floor(band / 3) * filters;
  const fresh = band % 3 === 0;
  for (let f = 0; f < filters; f++) if (fresh || sums[from + f]! > out[to + f]!) out[to + f] = sums[from + f]!;
}

/** One dilated convolution, a mix of channels, and the input added; two frames at a time. */
function dilatedBlock(block: Weights['blocks'][number], linear: MakeLinear, frames: number) {
  const { dilation, dilated, mixed } = block;
  const size = CHANNELS;
  const width = TAPS * size;
  const filter = linear(width, size, dilated.biases, (output, input) => {
    const [tap, from] = [Math.floor(input / size), input % size];
    return dilated.weights[(output * size + from) * TAPS + tap]!;
  });
  const mix = linear(size, size, mixed.biases, (output, input) => mixed.weights[output * size + input]!);
  const { values: heard, sums } = filter;
  return (input: Float32Array, out: Float32Array, from: number, to: number): void => {
    for (let t = from; t < to; t += 2) {
      for (let k = 0; k < 2; k++)
        for (let tap = 0; tap < TAPS; tap++) {
          const at = t + k + (tap - 2) * dilation;
          const place = k * width + tap * size;
          if (at >= 0 && at < frames) copy(heard, place, input, at * size, size);
          else heard.fill(0, place, place + size);
        }
      filter.run();
      curve(mix.values, 0, sums, sums.length);
      mix.run();
      add(out, t * size, input, mix.sums, Math.min(2, to - t) * size);
    }
  };
}

function headsOf({ weights, biases }: Layer, flow: Float32Array, frames: number): Activations {
  const rows = Array.from({ length: OUTPUTS }, () => new Float32Array(frames)) as [
    Float32Array,
    Float32Array,
    Float32Array,
  ];
  for (let t = 0; t < frames; t++)
    for (let o = 0; o < OUTPUTS; o++) {
      let sum = biases[o]!;
      for (let c = 0; c < CHANNELS; c++) sum += weights[o * CHANNELS + c]! * elu(flow[t * CHANNELS + c]!);
      rows[o]![t] = sum;
    }
  return { frames, beat: rows[0], downbeat: rows[1], section: rows[2] };
}
