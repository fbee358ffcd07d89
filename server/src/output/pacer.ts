// A steady beat from an unsteady timer.

export const FRAMES_PER_SECOND = 44;

export type PacerReport = {
  readonly frames: number;
  /** Frames that were due while the machine was busy or asleep, and were left out. */
  readonly skipped: number;
};

export type Pacer = {
  readonly report: () => PacerReport;
  /** Somebody pressed: the next frame is due as soon as half a frame's length has passed since the one before. */
  readonly hurry: () => void;
  readonly stop: () => void;
};

/** A thread that sleeps wakes so long after it should at most, in milliseconds, unless the computer is busy. */
const WAKES_WITHIN = 0.15;
/** Where it woke so much too late, in milliseconds, so many times in a row, its timers are coarse: it stays awake for so many frames. */
const OVERSLEPT = 0.5;
const IN_A_ROW = 3;
const AWAKE_FOR = 5000;
/** Work between frames ends so long before the next one, in seconds: it is asked every millisecond or so. */
const NEAR = 0.005;
/** No two frames are nearer to each other than this, in lengths of a frame. */
const NEAREST = 0.5;
/** Each frame after one that came early is later by so much, in lengths of a frame, until all is as before. */
const GIVEN_BACK = 0.04;
/** Frames come early by so much in sum, in lengths of a frame, before they have to give back some. */
const MOST_EARLY = 2;

const nobody = new Int32Array(new SharedArrayBuffer(4));
/** Stops this thread for so many milliseconds, finer than a timer does and without keeping a processor busy. */
const sleep = (milliseconds: number) => void Atomics.wait(nobody, 0, 0, milliseconds);

/**
 * Calls `frame(due)` at `start + n / rate`, each moment computed from the start so that nothing adds up. A frame that
 * is late by more than one frame's length is left out and counted. A frame that came early for a press takes the next
 * ones with it; they drift back, so that there are never more than `rate` and three in any second (ANSI E1.31, clause
 * 6.6.1, wants no more than DMX512 can carry).
 * @param now seconds of a steady clock. @param rate frames a second.
 * @param between work that can wait is done after each frame, until it is told that the next one is near.
 */
export function startPacer(
  now: () => number,
  rate: number,
  frame: (due: number) => void,
  between?: (enough: () => boolean) => void,
): Pacer {
  const start = now();
  let n = 0;
  /** By how much the next frame is early, and when the one before was called; seconds. */
  let early = 0;
  let last = -Infinity;
  let frames = 0;
  let skipped = 0;
  /** How many times in a row it woke too late, and up to which frame it does not sleep. */
  let overslept = 0;
  let awakeUntil = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let spin: ReturnType<typeof setImmediate> | undefined;
  const next = () => start + n / rate - early;
  const wait = () => {
    timer = undefined;
    const left = (next() - now()) * 1000;
    // Timers may fire up to a millisecond early or late: the last stretch is slept, then waited out turn by turn.
    if (left > 1.6) timer = setTimeout(wait, left - 1.4);
    else if (left > 0.05) {
      if (left > WAKES_WITHIN && n >= awakeUntil) {
        sleep(left - WAKES_WITHIN);
        overslept = (now() - next()) * 1000 > OVERSLEPT ? overslept + 1 : 0;
        if (overslept === IN_A_ROW) {
          overslept = 0;
          awakeUntil = n + AWAKE_FOR;
        }
      }
      spin = setImmediate(wait);
    }
    // In a turn of its own: what the frame before handed to the network has left by then, though it was late.
    else spin = setImmediate(fire);
  };
  const near = () => next() - now() < NEAR;
  /** In a turn of its own, so that what was sent leaves first. */
  const work = () => {
    if (!near()) between!(near);
    wait();
  };
  const fire = () => {
    const behind = Math.floor((now() - start + early) * rate) - n;
    if (behind > 0) {
      skipped += behind;
      n += behind;
    }
    frames++;
    last = now();
    frame(next());
    n++;
    early = Math.max(0, early - GIVEN_BACK / rate);
    if (between) spin = setImmediate(work);
    else wait();
  };
  wait();
  return {
    report: () => ({ frames, skipped }),
    hurry() {
      const soonest = Math.max(now(), last + NEAREST / rate);
      const gained = Math.min(next() - soonest, MOST_EARLY / rate - early);
      if (gained <= 0) return;
      early += gained;
      if (timer === undefined) return;
      clearTimeout(timer);
      wait();
    },
    stop() {
      clearTimeout(timer);
      clearImmediate(spin);
    },
  };
}
