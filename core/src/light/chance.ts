// Chance that is the same on every machine: a hash, never a running generator.

/**
 * 0…1 (1 left out) from whole numbers. Two rounds of the finaliser of MurmurHash3 (A. Appleby, public domain), which
 * flips each bit of the result with every bit of the input about half of the time. Allocates nothing.
 */
export function chance(seed: number, a: number, b = 0): number {
  let h = Math.imul(seed | 0, 0x9e3779b1) ^ Math.imul(a | 0, 0x85ebca6b) ^ Math.imul(b | 0, 0xc2b2ae35);
  h = mixed(h);
  h = mixed(h ^ 0x27d4eb2f);
  return (h >>> 0) / 4294967296;
}

function mixed(value: number): number {
  let h = value;
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return h ^ (h >>> 16);
}
