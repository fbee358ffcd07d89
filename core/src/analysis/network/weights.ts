// The trained weights: float16 numbers in the order of the layers, as base64. `training/` makes the file.

import { halvesOf } from './base64';
import stored from './weights.json';

/** A layer's weights and biases, as `training/music/export.py` writes them: PyTorch's order, flat. */
export type Layer = { readonly weights: Float64Array; readonly biases: Float64Array };

export type Weights = {
  readonly first: Layer;
  readonly second: Layer;
  readonly joined: Layer;
  readonly blocks: readonly { readonly dilation: number; readonly dilated: Layer; readonly mixed: Layer }[];
  readonly heads: Layer;
};

/** Channels between the layers, and how many things the network says. */
export const CHANNELS = 32;
export const OUTPUTS = 3;
/** Filters of the two convolutions over bands and time, and the bands that are left after each. */
export const FIRST = { filters: 16, bands: 20, taps: 12 } as const;
export const SECOND = { filters: 20, bands: 6 } as const;
export const TAPS = 5;

export function readWeights(): Weights {
  const numbers = halvesOf(stored.weights);
  let at = 0;
  const take = (count: number) => numbers.subarray(at, (at += count));
  const layer = (weights: number, biases: number): Layer => ({ weights: take(weights), biases: take(biases) });
  const weights: Weights = {
    first: layer(FIRST.filters * FIRST.taps, FIRST.filters),
    second: layer(SECOND.filters * FIRST.filters * 9, SECOND.filters),
    joined: layer(CHANNELS * SECOND.filters * SECOND.bands, CHANNELS),
    blocks: stored.dilations.map((dilation) => ({
      dilation,
      dilated: layer(CHANNELS * CHANNELS * TAPS, CHANNELS),
      mixed: layer(CHANNELS * CHANNELS, CHANNELS),
    })),
    heads: layer(OUTPUTS * CHANNELS, OUTPUTS),
  };
  if (at !== numbers.length) throw new RangeError(`weights.json has ${numbers.length} weights; the network has ${at}`);
  return weights;
}
