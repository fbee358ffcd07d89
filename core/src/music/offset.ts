// How much later one recording is than another of the same performance: a remaster, a live take's two microphones.

/** What peaks are counted in, a second. */
const RATE = 100;
/** Searched coarsely first, by so many peaks at a time. */
const COARSE = 5;
/** The most that two recordings may be apart, in seconds. */
const MOST_SECONDS = 90;

export type Offset = {
  /** So much later a thing sounds in the second recording; below 0, earlier. To some milliseconds. */
  readonly seconds: number;
  /** How alike they are there: the correlation of their rises, 1 for the same. Below 0.3 they are not one performance. */
  readonly alike: number;
};

/** From where on two recordings are of one performance. */
export const ALIKE = 0.3;

/** Compares how two recordings rise and fall. @param peaks one byte a hundredth of a second, as analysis makes them. */
export function offsetBetween(before: Uint8Array, after: Uint8Array): Offset {
  const [a, b] = [rises(before), rises(after)];
  const [coarseA, coarseB] = [sums(a), sums(b)];
  const most = Math.round((MOST_SECONDS * RATE) / COARSE);
  const rough = bestLag(coarseA, coarseB, -most, most).lag * COARSE;
  const { lag, alike } = bestLag(a, b, rough - 2 * COARSE, rough + 2 * COARSE);
  const [left, here, right] = [-1, 0, 1].map((step) => likeness(a, b, lag + step)) as [number, number, number];
  // The top of the parabola through the three.
  const bend = left - 2 * here + right;
  const fine = bend < 0 ? (left - right) / (2 * bend) : 0;
  return { seconds: (lag + Math.max(-0.5, Math.min(0.5, fine))) / RATE, alike };
}

/** How much louder it gets from peak to peak, with the mean taken off. */
function rises(peaks: Uint8Array): Float64Array {
  const out = new Float64Array(peaks.length);
  let sum = 0;
  for (let i = 0; i < peaks.length; i++) sum += out[i] = Math.max(0, peaks[i]! - (peaks[i - 1] ?? 0));
  const mean = sum / Math.max(1, peaks.length);
  for (let i = 0; i < out.length; i++) out[i] = out[i]! - mean;
  return out;
}

function sums(fine: Float64Array): Float64Array {
  const out = new Float64Array(Math.floor(fine.length / COARSE));
  for (let i = 0; i < out.length; i++) for (let k = 0; k < COARSE; k++) out[i] = out[i]! + fine[i * COARSE + k]!;
  return out;
}

function bestLag(
  a: Float64Array,
  b: Float64Array,
  from: number,
  to: number,
): { readonly lag: number; readonly alike: number } {
  let best = { lag: 0, alike: -Infinity };
  for (let lag = from; lag <= to; lag++) {
    const alike = likeness(a, b, lag);
    if (alike > best.alike) best = { lag, alike };
  }
  return best;
}

/**
 * The correlation of `a[i]` with `b[i + lag]`, -1…1, over what they share. A short overlap counts for less, and of two
 * places that are as good, as every bar of a steady beat is, the one where they share more is meant.
 */
function likeness(a: Float64Array, b: Float64Array, lag: number): number {
  const from = Math.max(0, -lag);
  const to = Math.min(a.length, b.length - lag);
  let [product, powerA, powerB] = [0, 0, 0];
  for (let i = from; i < to; i++) {
    const [x, y] = [a[i]!, b[i + lag]!];
    product += x * y;
    powerA += x * x;
    powerB += y * y;
  }
  if (powerA <= 0 || powerB <= 0) return 0;
  const shared = (to - from) / Math.min(a.length, b.length);
  return (product / Math.sqrt(powerA * powerB)) * Math.min(1, shared * 2) * (0.9 + 0.1 * shared);
}
