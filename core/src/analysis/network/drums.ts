// Strokes of drums in a recording: a small network over the same bands that sees a sixth of a second to either side and
// says how likely each hundredth of a second begins a stroke. Trained by `training/`; docs/music.md tells on what.

import { DRUMS, type Drum } from '../../music';
import { NETWORK_BANDS, VALUES_PER_BYTE } from './bands';
import { linearMaker, type MakeLinear } from './dense';
import stored from './drum-weights.json';
import { layerReader, type Layer } from './layers';
import type { Pause } from './network';

/** By drum, log odds of a stroke, one for each frame of bands. */
export type DrumOdds = Readonly<Record<Drum, Float32Array>>;

const CHANNELS = 32;
/** Frames that the first layer takes, and those that the others do. */
const FIRST_TAPS = 5;
const TAPS = 3;
/** Vectors go through a matrix two at a time, and outputs come in fours. */
const ROOM = 4;
const STRETCH = 4000;
const FRAME_RATE = 100;

type Weights = { readonly first: Layer; readonly blocks: readonly Layer[]; readonly heads: Layer };

let known: Weights | undefined;

/**
 * Runs the network over a whole recording.
 * @param bands bytes, `NETWORK_BANDS` for each hundredth of a second.
 * @returns undefined where the host said stop.
 */
export async function drumOdds(bands: Uint8Array, pause: Pause): Promise<DrumOdds | undefined> {
  known ??= readWeights();
  const { first, blocks, heads } = known;
  const frames = Math.floor(bands.length / NETWORK_BANDS);
  const linear = linearMaker();
  let flow = new Float32Array(frames * CHANNELS);
  let next = new Float32Array(flow.length);
  const odds: DrumOdds = {
    kick: new Float32Array(frames),
    snare: new Float32Array(frames),
    hat: new Float32Array(frames),
  };
  const steps = [
    firstLayer(first, linear, bands, frames),
    ...blocks.map((block, i) => dilated(block, linear, stored.dilations[i]!, frames)),
    headsOf(heads, linear, odds),
  ];
  for (const [i, step] of steps.entries()) {
    for (let from = 0; from < frames; from += STRETCH) {
      step(flow, next, from, Math.min(frames, from + STRETCH));
      if ((await pause((i + from / frames) / steps.length)) === 'stop') return undefined;
    }
    [flow, next] = [next, flow];
  }
  return odds;
}

/** From what the layer before wrote to what this one writes, for some frames. */
type Step = (input: Float32Array, out: Float32Array, from: number, to: number) => void;

function firstLayer({ biases, weights }: Layer, linear: MakeLinear, bands: Uint8Array, frames: number): Step {
  const width = FIRST_TAPS * NETWORK_BANDS;
  // The bytes' scale is in the weights.
  const { values, sums, run } = linear(width, CHANNELS, biases, (output, input) => {
    const [tap, band] = [Math.floor(input / NETWORK_BANDS), input % NETWORK_BANDS];
    return weights[(output * NETWORK_BANDS + band) * FIRST_TAPS + tap]! * VALUES_PER_BYTE;
  });
  return (_, out, from, to) => {
    for (let t = from; t < to; t += 2) {
      for (let k = 0; k < 2; k++) gather(values, k * width, bands, t + k, frames, FIRST_TAPS, 1, NETWORK_BANDS);
      run();
      const count = Math.min(2, to - t) * CHANNELS;
      for (let i = 0; i < count; i++) out[t * CHANNELS + i] = Math.max(0, sums[i]!);
    }
  };
}

/** A dilated convolution over time, and its input added. */
function dilated({ biases, weights }: Layer, linear: MakeLinear, dilation: number, frames: number): Step {
  const width = TAPS * CHANNELS;
  const { values, sums, run } = linear(width, CHANNELS, biases, (output, input) => {
    const [tap, from] = [Math.floor(input / CHANNELS), input % CHANNELS];
    return weights[(output * CHANNELS + from) * TAPS + tap]!;
  });
  return (flow, out, from, to) => {
    for (let t = from; t < to; t += 2) {
      for (let k = 0; k < 2; k++) gather(values, k * width, flow, t + k, frames, TAPS, dilation, CHANNELS);
      run();
      const count = Math.min(2, to - t) * CHANNELS;
      for (let i = 0, at = t * CHANNELS; i < count; i++, at++) out[at] = flow[at]! + Math.max(0, sums[i]!);
    }
  };
}

function headsOf({ biases, weights }: Layer, linear: MakeLinear, odds: DrumOdds): Step {
  const padded = Float32Array.from({ length: ROOM }, (_, output) => biases[output] ?? 0);
  const { values, sums, run } = linear(CHANNELS, ROOM, padded, (output, input) =>
    output < DRUMS.length ? weights[output * CHANNELS + input]! : 0,
  );
  return (flow, _, from, to) => {
    for (let t = from; t < to; t += 2) {
      for (let i = 0; i < 2 * CHANNELS; i++) values[i] = flow[t * CHANNELS + i] ?? 0;
      run();
      for (let k = 0; k < Math.min(2, to - t); k++)
        for (let drum = 0; drum < DRUMS.length; drum++) odds[DRUMS[drum]!][t + k] = sums[k * ROOM + drum]!;
    }
  };
}

/** Frames around one, each of so many values; those outside are silent. */
function gather(
  out: Float32Array,
  to: number,
  from: ArrayLike<number>,
  frame: number,
  frames: number,
  taps: number,
  dilation: number,
  wide: number,
): void {
  for (let tap = 0; tap < taps; tap++) {
    const at = frame + (tap - (taps >> 1)) * dilation;
    const place = to + tap * wide;
    if (at < 0 || at >= frames) out.fill(0, place, place + wide);
    else for (let i = 0; i < wide; i++) out[place + i] = from[at * wide + i]!;
  }
}

/** When strokes begin, in seconds, rising: where the odds of a drum have a top and the network is sure enough of it. */
export function strokesOf(odds: DrumOdds): Readonly<Record<Drum, Float64Array>> {
  const tops = (drum: Drum): Float64Array => {
    const likely = odds[drum].map((value) => 1 / (1 + Math.exp(-value)));
    const found: number[] = [];
    for (let t = 1; t < likely.length - 1; t++) {
      const [before, here, after] = [likely[t - 1]!, likely[t]!, likely[t + 1]!];
      if (here < stored.sure[drum] || here < before || here <= after) continue;
      const bend = before - 2 * here + after;
      found.push((t + Math.max(-0.5, Math.min(0.5, (0.5 * (before - after)) / bend))) / FRAME_RATE);
    }
    return Float64Array.from(found);
  };
  return { kick: tops('kick'), snare: tops('snare'), hat: tops('hat') };
}

function readWeights(): Weights {
  const layers = layerReader(stored.weights, 'drum-weights.json');
  const weights = {
    first: layers.next(CHANNELS, NETWORK_BANDS * FIRST_TAPS),
    blocks: stored.dilations.map(() => layers.next(CHANNELS, CHANNELS * TAPS)),
    heads: layers.next(DRUMS.length, CHANNELS),
  };
  layers.end();
  return weights;
}
