// The best way through (moment, interval): a beat at a step, reached over an interval, earns what is likely there above a
// threshold, and another interval costs by how different it is. Most of the search's time goes here, so that WebAssembly of
// our own does four intervals at a time (kernels/paths.wat); where a browser lacks it, plain code finds the same.

import { instanceOf, PATHS, roomIn } from './kernels';

/** Steps a second at which beats are placed; activations are interpolated between. */
export const STEP_RATE = 100;
/** Intervals considered, in steps: 272 down to 40 beats a minute. */
const SHORTEST = 22;
export const LONGEST = 150;
const INTERVALS = LONGEST - SHORTEST + 1;
/** Steps whose scores are remembered: more than the longest interval. */
const KEPT = 256;
/** Values of a row: four go through the kernel at once, and sixteen are made bytes at once. */
const ROW = 144;

/** Price of a tempo change, in beats of full evidence: this times its size as a natural logarithm, up to the most. */
const CHANGE_PRICE = 80;
const MOST_PRICE = 8;
/** One step more or less is only the grid's coarseness. */
const STEP_PRICE = 0.03;
/** Of intervals that there are not. */
const NEVER = 1e9;

/** Intervals that are considered, by their numbers. */
type Range = { readonly low: number; readonly high: number };

/** What came out at a step: the most that any beat there has earned, and over which interval. */
type Top = { readonly score: number; readonly step: number; readonly interval: number };

/** Where each (step, interval) came from, a row of intervals for each step, and the best at the end. */
type Followed = (threshold: number, range: Range) => { readonly came: Uint8Array; readonly best: Top };

/** Finds steps of the path that earns the most; each beat earns its likelihood above the threshold. */
export type PathFinder = (threshold: number, allowed: (interval: number) => boolean) => number[];

/**
 * @param strength likelihood of a beat at each step, 0…1.
 * @param vector false for plain code.
 */
export function pathFinder(strength: Float32Array, vector = true): PathFinder {
  const follow = (vector ? inKernel(strength) : undefined) ?? inPlainCode(strength);
  return (threshold, allowed) => {
    const open = Array.from({ length: INTERVALS }, (_, i) => i).filter((i) => allowed(i + SHORTEST));
    if (open.length === 0) return [0];
    const { came, best } = follow(threshold, { low: open[0]!, high: open.at(-1)! });
    return traced(came, best.step, best.interval);
  };
}

/** What it costs to go on with one interval after another, either way round, and which cost less than a jump. */
type Prices = { readonly price: Float32Array; readonly from: Int32Array; readonly to: Int32Array };

let known: Prices | undefined;

function changePrices(): Prices {
  if (known) return known;
  const price = new Float32Array(INTERVALS * ROW).fill(NEVER);
  const from = new Int32Array(INTERVALS).fill(INTERVALS);
  const to = new Int32Array(INTERVALS).fill(-1);
  for (let after = 0; after < INTERVALS; after++)
    for (let before = 0; before < INTERVALS; before++) {
      const size = Math.max(0, Math.abs(after - before) - 1) / (Math.min(after, before) + SHORTEST);
      const cost = CHANGE_PRICE * Math.log(1 + size) + (after === before ? 0 : STEP_PRICE);
      price[after * ROW + before] = cost;
      if (cost >= MOST_PRICE) continue;
      from[after] = Math.min(from[after]!, before);
      to[after] = Math.max(to[after]!, before);
    }
  return (known = { price, from, to });
}

/** The better of two tops; only near the end of a recording may a path end. */
const better = (best: Top, score: number, step: number, interval: number, steps: number): Top =>
  step >= steps - LONGEST && score > best.score ? { score, step, interval } : best;

const NOTHING: Top = { score: -Infinity, step: 0, interval: 0 };

function inPlainCode(strength: Float32Array): Followed {
  const { price, from, to } = changePrices();
  const steps = strength.length;
  const came = new Uint8Array(steps * ROW);
  const arrived = new Float32Array(INTERVALS);
  return (threshold, { low, high }) => {
    // Of a beat at a step, reached over an interval: what it earned so far, once the next interval has been paid for.
    // Only the last steps are asked for again.
    const earned = new Float32Array(KEPT * ROW);
    let best = NOTHING;
    for (let step = 0; step < steps; step++) {
      let top = -Infinity;
      let topAt = 0;
      for (let i = low; i <= high; i++) {
        const start = step - i - SHORTEST;
        const before = start >= 0 ? earned[(start % KEPT) * ROW + i]! : 0;
        arrived[i] = before + strength[step]! - threshold;
        if (arrived[i]! > top) [top, topAt] = [arrived[i]!, i];
      }
      best = better(best, top, step, topAt, steps);
      const row = step * ROW;
      const keptRow = (step % KEPT) * ROW;
      // A jump from anywhere costs the most there is.
      const jumped = top - MOST_PRICE;
      earned.fill(jumped, keptRow, keptRow + INTERVALS);
      came.fill(topAt, row, row + INTERVALS);
      for (let k = low; k <= high; k++) {
        // What earned so little is never gone on from.
        const value = arrived[k]!;
        if (value <= jumped) continue;
        const last = Math.min(high, to[k]!);
        for (let i = Math.max(low, from[k]!); i <= last; i++) {
          const left = Math.fround(value - price[k * ROW + i]!);
          if (left <= earned[keptRow + i]!) continue;
          earned[keptRow + i] = left;
          came[row + i] = k;
        }
      }
    }
    return { came, best };
  };
}

type Kernel = {
  readonly follow: (
    step: number,
    end: number,
    low: number,
    high: number,
    threshold: number,
    most: number,
    earned: number,
    arrived: number,
    came: number,
    ranges: number,
    prices: number,
    strength: number,
    tops: number,
    bytes: number,
  ) => void;
};

/** Steps that go through the kernel at once. */
const STRETCH = 1024;
/** Bytes of a number, and of four. */
const WIDE = 4;
const FOUR = 4 * WIDE;

function inKernel(strength: Float32Array): Followed | undefined {
  const kernel = instanceOf<Kernel>(PATHS);
  if (!kernel) return undefined;
  const { price, from, to } = changePrices();
  const { floats, integers, bytes } = roomIn(kernel.memory);
  const [earned, arrived, cameFrom] = [floats(KEPT * ROW), floats(ROW), integers(ROW)];
  const [ranges, prices] = [integers(2 * INTERVALS), floats(INTERVALS * ROW)];
  const [strong, tops, origins] = [floats(STRETCH), bytes(8 * STRETCH), bytes(STRETCH * ROW)];
  const told = new DataView(tops.buffer, tops.byteOffset);
  prices.set(price);
  const steps = strength.length;
  const came = new Uint8Array(steps * ROW);
  return (threshold, { low, high }) => {
    for (let i = low; i <= high; i++) {
      // Fours of intervals, in bytes: what lies in them beyond the range costs no less than a jump, or is never asked for.
      ranges[2 * i] = (Math.max(low, from[i]!) >> 2) * FOUR;
      ranges[2 * i + 1] = Math.min(high, to[i]!) * WIDE;
    }
    let best = NOTHING;
    for (let step = 0; step < steps; step += STRETCH) {
      const end = Math.min(steps, step + STRETCH);
      strong.set(strength.subarray(step, end));
      kernel.follow(
        step,
        end,
        low,
        high,
        threshold,
        MOST_PRICE,
        earned.byteOffset,
        arrived.byteOffset,
        cameFrom.byteOffset,
        ranges.byteOffset,
        prices.byteOffset,
        strong.byteOffset,
        tops.byteOffset,
        origins.byteOffset,
      );
      came.set(origins.subarray(0, (end - step) * ROW), step * ROW);
      for (let k = 0; k < end - step; k++)
        best = better(best, told.getFloat32(8 * k, true), step + k, told.getInt32(8 * k + 4, true), steps);
    }
    return { came, best };
  };
}

function traced(came: Uint8Array, last: number, interval: number): number[] {
  const path: number[] = [];
  for (let step = last, i = interval; step >= 0;) {
    path.push(step);
    const start = step - i - SHORTEST;
    if (start < 0) break;
    i = came[start * ROW + i]!;
    step = start;
  }
  return path.reverse();
}
