// How often and how sharp a moving picture can be on this machine.

/** Painting takes at most one part in so many of the time: a slow machine shows fewer pictures, and stays quick. */
const SHARE = 3;
/** Pixels of the picture for each of the page, as parts of what the screen could show. */
const SHARPNESS = [1, 0.7, 0.5] as const;
/** Pictures that take longer than this, in ms on average, are painted less sharp; twice as sharp takes up to four times as long. */
const SLOW = 12;
const QUICK = 3;
/** How much one picture counts in the average. */
const WEIGHT = 0.1;
/** One that was too slow when it was sharper is not tried again for so long, in ms. */
const TRY_AGAIN = 20_000;

export type Pace = {
  /** @param at ms. @returns whether the next picture may be painted. */
  readonly due: (at: number) => boolean;
  /** A picture was begun at `begun` and is done at `done`, in ms, the screen's part of the work counted. */
  readonly took: (begun: number, done: number) => void;
  /** Pixels for each of those the screen could show, 0.5 to 1. */
  readonly sharpness: () => number;
};

export function pace(): Pace {
  let level = 0;
  let average = 0;
  let next = -Infinity;
  let triedAt = -Infinity;
  return {
    due: (at) => at >= next,
    took(begun, done) {
      const spent = done - begun;
      next = begun + spent * SHARE;
      average += (spent - average) * WEIGHT;
      if (average > SLOW && level < SHARPNESS.length - 1) {
        level++;
        average = SLOW / 2;
        triedAt = done;
      } else if (average < QUICK && level > 0 && done - triedAt > TRY_AGAIN) {
        level--;
        triedAt = done;
      }
    },
    sharpness: () => SHARPNESS[level]!,
  };
}
