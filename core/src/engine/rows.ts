// Rows of numbers, filled one after the other: `Float64Array.from` with a function takes ten times as long.

export function floats(count: number, of: (row: number) => number): Float64Array {
  const out = new Float64Array(count);
  for (let row = 0; row < count; row++) out[row] = of(row);
  return out;
}

export function whole(count: number, of: (row: number) => number): Int32Array {
  const out = new Int32Array(count);
  for (let row = 0; row < count; row++) out[row] = of(row);
  return out;
}

/** 1 where it is so. */
export function flags(count: number, is: (row: number) => boolean): Uint8Array {
  const out = new Uint8Array(count);
  for (let row = 0; row < count; row++) out[row] = is(row) ? 1 : 0;
  return out;
}
