// Weights of a network as `training/` writes them, in base64: for each layer the scales of its outputs and its biases as
// 32-bit floats, little-endian, then its weights as whole numbers of 8 bits that count by the scale of their output.

import { bytesOf } from '../kernels';

/** A layer's weights and biases in PyTorch's order, flat: by output, then input, then place. */
export type Layer = { readonly weights: Float32Array; readonly biases: Float32Array };

/**
 * Reads layers one after another.
 * @param file what is told of where their number is another. @throws {RangeError} then.
 */
export function layerReader(text: string, file: string) {
  const bytes = bytesOf(text);
  const view = new DataView(bytes.buffer);
  let at = 0;
  const need = (count: number) => {
    if (at + count > bytes.length) throw new RangeError(`${file} has ${bytes.length} bytes; the network has more`);
  };
  const floats = (count: number): Float32Array => {
    need(count * 4);
    return Float32Array.from({ length: count }, () => view.getFloat32((at += 4) - 4, true));
  };
  return {
    /** @param each weights of one output. */
    next(outputs: number, each: number): Layer {
      const [scales, biases] = [floats(outputs), floats(outputs)];
      need(outputs * each);
      const whole = new Int8Array(bytes.buffer, at, outputs * each);
      at += whole.length;
      return { biases, weights: Float32Array.from(whole, (value, i) => value * scales[Math.floor(i / each)]!) };
    },
    end(): void {
      if (at !== bytes.length) throw new RangeError(`${file} has ${bytes.length} bytes; the network has ${at}`);
    },
  };
}
