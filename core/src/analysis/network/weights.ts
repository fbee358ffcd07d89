// The trained weights of the network of beats, layer by layer. `training/` makes the file.

import { layerReader, type Layer } from './layers';
import stored from './weights.json';

export type Weights = {
  readonly first: Layer;
  readonly second: Layer;
  readonly joined: Layer;
  readonly blocks: readonly { readonly dilation: number; readonly dilated: Layer; readonly mixed: Layer }[];
  readonly heads: Layer;
};

/** Channels between the layers, and how many things the network says. */
export const CHANNELS = 48;
export const OUTPUTS = 3;
/** Filters of the two convolutions over bands and time, and the bands that are left after each. */
export const FIRST = { filters: 16, bands: 20, taps: 12 } as const;
export const SECOND = { filters: 20, bands: 6 } as const;
export const TAPS = 5;

export function readWeights(): Weights {
  const layers = layerReader(stored.weights, 'weights.json');
  const weights: Weights = {
    first: layers.next(FIRST.filters, FIRST.taps),
    second: layers.next(SECOND.filters, FIRST.filters * 9),
    joined: layers.next(CHANNELS, SECOND.filters * SECOND.bands),
    blocks: stored.dilations.map((dilation) => ({
      dilation,
      dilated: layers.next(CHANNELS, CHANNELS * TAPS),
      mixed: layers.next(CHANNELS, CHANNELS),
    })),
    heads: layers.next(OUTPUTS, CHANNELS),
  };
  layers.end();
  return weights;
}
