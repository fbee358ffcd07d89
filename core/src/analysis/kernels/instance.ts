// WebAssembly of our own, which does four sums at a time. Each `.wat` here is one kernel; `npm run wasm` makes `kernels.ts`.

import { bytesOf } from './base64';

type Memory = { readonly buffer: ArrayBuffer };

/** As far as it is needed here: the core knows no browser and no Node.js. */
declare const WebAssembly:
  | undefined
  | {
      validate: (bytes: Uint8Array) => boolean;
      Module: new (bytes: Uint8Array) => object;
      Instance: new (module: object) => { exports: unknown };
    };

/**
 * A kernel with a memory of its own.
 * @returns undefined where there is no WebAssembly, or none with vectors: plain code then does the same.
 */
export function instanceOf<T>(kernel: string): (T & { readonly memory: Memory }) | undefined {
  const bytes = bytesOf(kernel);
  if (typeof WebAssembly === 'undefined' || !WebAssembly.validate(bytes)) return undefined;
  return new WebAssembly.Instance(new WebAssembly.Module(bytes)).exports as T & { readonly memory: Memory };
}

/** Arrays begin at multiples of this, in bytes. */
const ALIGNED = 16;

/** Arrays in a kernel's memory, one behind the other; each is passed to it by its `byteOffset`. @throws {RangeError} where it is full. */
export function roomIn(memory: Memory) {
  let used = 0;
  const take = (bytes: number): number => {
    const at = used;
    used += Math.ceil(bytes / ALIGNED) * ALIGNED;
    return at;
  };
  return {
    floats: (count: number) => new Float32Array(memory.buffer, take(4 * count), count),
    integers: (count: number) => new Int32Array(memory.buffer, take(4 * count), count),
    bytes: (count: number) => new Uint8Array(memory.buffer, take(count), count),
  };
}
