// A vector times a matrix, written for how JavaScript engines compile: four outputs at a time stay in registers, and
// the matrix is read from its first number to its last.

export type Matrix = {
  readonly inputs: number;
  readonly outputs: number;
  /** [group of four outputs][input][four]. */
  readonly weights: Float64Array;
  readonly biases: Float64Array;
};

/** @param outputs a multiple of four. @param weightAt from one input to one output. */
export function matrix(
  inputs: number,
  outputs: number,
  biases: Float64Array,
  weightAt: (output: number, input: number) => number,
): Matrix {
  const weights = new Float64Array(inputs * outputs);
  for (let o = 0; o < outputs; o++)
    for (let i = 0; i < inputs; i++) weights[((o >> 2) * inputs + i) * 4 + (o & 3)] = weightAt(o, i);
  return { inputs, outputs, weights, biases };
}

/** Writes biases and products into the first `outputs` of `out`. @param from where the inputs begin in `values`. */
export function multiply(
  { inputs, outputs, weights, biases }: Matrix,
  values: Float32Array | Float64Array,
  from: number,
  out: Float64Array,
): void {
  let w = 0;
  const end = from + inputs;
  for (let o = 0; o < outputs; o += 4) {
    let [a, b, c, d] = [biases[o]!, biases[o + 1]!, biases[o + 2]!, biases[o + 3]!];
    for (let i = from; i < end; i++, w += 4) {
      const value = values[i]!;
      a += value * weights[w]!;
      b += value * weights[w + 1]!;
      c += value * weights[w + 2]!;
      d += value * weights[w + 3]!;
    }
    out[o] = a;
    out[o + 1] = b;
    out[o + 2] = c;
    out[o + 3] = d;
  }
}

/**
 * The same for two vectors that lie one after the other, which reads the matrix once for both.
 * @param values two vectors. @param out their products, one after the other.
 */
export function multiplyTwo(
  { inputs, outputs, weights, biases }: Matrix,
  values: Float64Array,
  out: Float64Array,
): void {
  let w = 0;
  for (let o = 0; o < outputs; o += 4) {
    let a0 = biases[o]!;
    let b0 = biases[o + 1]!;
    let c0 = biases[o + 2]!;
    let d0 = biases[o + 3]!;
    let a1 = a0;
    let b1 = b0;
    let c1 = c0;
    let d1 = d0;
    for (let i = 0; i < inputs; i++, w += 4) {
      const v0 = values[i]!;
      const v1 = values[inputs + i]!;
      const wa = weights[w]!;
      const wb = weights[w + 1]!;
      const wc = weights[w + 2]!;
      const wd = weights[w + 3]!;
      a0 += v0 * wa;
      b0 += v0 * wb;
      c0 += v0 * wc;
      d0 += v0 * wd;
      a1 += v1 * wa;
      b1 += v1 * wb;
      c1 += v1 * wc;
      d1 += v1 * wd;
    }
    out[o] = a0;
    out[o + 1] = b0;
    out[o + 2] = c0;
    out[o + 3] = d0;
    out[outputs + o] = a1;
    out[outputs + o + 1] = b1;
    out[outputs + o + 2] = c1;
    out[outputs + o + 3] = d1;
  }
}
