// The few host things that are the same in a page, a worker and Node.
declare class TextEncoder {
  encode(text: string): Uint8Array<ArrayBuffer>;
}
declare class TextDecoder {
  constructor(label?: string, options?: { fatal?: boolean });
  decode(bytes: Uint8Array): string;
}
declare module 'fft.js' {
  /** Radix-4 FFT. `size` is a power of two. Complex arrays interleave real and imaginary roles. */
  export default class FFT {
    constructor(size: number);
    createComplexArray(): number[];
    realTransform(out: number[] | Float64Array, input: ArrayLike<number>): void;
    transform(out: number[] | Float64Array, input: ArrayLike<number>): void;
  }
}
