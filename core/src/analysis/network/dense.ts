// Vectors times a matrix, where the network spends its time: WebAssembly of our own does four products at a time
// (kernels/dense.wat); where a browser lacks its vector instructions, plain code does the same.

import { DENSE, instanceOf, roomIn } from '../kernels';

/** A matrix, and room for two vectors that go through it at once. */
export type Linear = {
  /** Two vectors of inputs, one after the other. */
  readonly values: Float32Array;
  /** Biases and products of both, one after the other, once `run` has run. */
  readonly sums: Float32Array;
  readonly run: () => void;
};

/** From one input to one output. */
type WeightAt = (output: number, input: number) => number;

/** @param inputs a multiple of two. @param outputs a multiple of four. */
export type MakeLinear = (inputs: number, outputs: number, biases: ArrayLike<number>, weightAt: WeightAt) => Linear;

type MultiplyTwo = (
  inputs: number,
  outputs: number,
  weights: number,
  biases: number,
  values: number,
  out: number,
) => void;

/** Makes matrices that share one memory: one for each run of the network. @param vector false for plain code. */
export function linearMaker(vector = true): MakeLinear {
  const kernel = vector ? instanceOf<{ readonly multiplyTwo: MultiplyTwo }>(DENSE) : undefined;
  if (!kernel) return plainLinear;
  const { memory, multiplyTwo } = kernel;
  const { floats } = roomIn(memory);
  return (inputs, outputs, biases, weightAt) => {
    const weights = floats(inputs * outputs);
    const added = floats(outputs);
    const values = floats(2 * inputs);
    const sums = floats(2 * outputs);
    weights.set(byFours(inputs, outputs, weightAt));
    added.set(biases);
    const run = () =>
      multiplyTwo(inputs, outputs, weights.byteOffset, added.byteOffset, values.byteOffset, sums.byteOffset);
    return { values, sums, run };
  };
}

/** Weights as [group of four outputs][input][four]. */
function byFours(inputs: number, outputs: number, weightAt: WeightAt): Float32Array {
  const weights = new Float32Array(inputs * outputs);
  for (let o = 0; o < outputs; o++)
    for (let i = 0; i < inputs; i++) weights[((o >> 2) * inputs + i) * 4 + (o & 3)] = weightAt(o, i);
  return weights;
}

const plainLinear: MakeLinear = (inputs, outputs, biases, weightAt) => {
  const weights = byFours(inputs, outputs, weightAt);
  const values = new Float32Array(2 * inputs);
  const sums = new Float32Array(2 * outputs);
  const run = () => {
    for (const vector of [0, 1])
      for (let o = 0, w = 0; o < outputs; o += 4) {
        let [a, b, c, d] = [biases[o]!, biases[o + 1]!, biases[o + 2]!, biases[o + 3]!];
        for (let i = vector * inputs; i < (vector + 1) * inputs; i++, w += 4) {
          const value = values[i]!;
          a += value * weights[w]!;
          b += value * weights[w + 1]!;
          c += value * weights[w + 2]!;
          d += value * weights[w + 3]!;
        }
        sums.set([a, b, c, d], vector * outputs + o);
      }
  };
  return { values, sums, run };
};
