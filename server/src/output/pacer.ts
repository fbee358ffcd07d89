// A steady beat from an unsteady timer.

export const FRAMES_PER_SECOND = 44;

export type PacerReport = {
  readonly frames: number;
  /** Frames that were due while the machine was busy or asleep, and were left out. */
  readonly skipped: number;
};

export type Pacer = { readonly report: () => PacerReport; readonly stop: () => void };

/** Work between frames ends so long before the next one, in seconds: it is asked every millisecond or so. */
const NEAR = 0.005;

/**
 * Calls `frame(due)` at `start + n / rate`, each moment computed from the start so that nothing adds up. A frame that
 * is late by more than one frame's length is left out and counted.
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
  let frames = 0;
  let skipped = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let spin: ReturnType<typeof setImmediate> | undefined;
  const wait = () => {
    const left = (start + n / rate - now()) * 1000;
    // Timers may fire up to a millisecond early or late: the last stretch is waited out turn by turn.
    if (left > 1.6) timer = setTimeout(wait, left - 1.4);
    else if (left > 0.05) spin = setImmediate(wait);
    // In a turn of its own: what the frame before handed to the network has left by then, though it was late.
    else spin = setImmediate(fire);
  };
  const near = () => start + n / rate - now() < NEAR;
  /** In a turn of its own, so that what was sent leaves first. */
  const work = () => {
    if (!near()) between!(near);
    wait();
  };
  const fire = () => {
    const behind = Math.floor((now() - start) * rate) - n;
    if (behind > 0) {
      skipped += behind;
      n += behind;
    }
    frames++;
    frame(start + n / rate);
    n++;
    if (between) spin = setImmediate(work);
    else wait();
  };
  wait();
  return {
    report: () => ({ frames, skipped }),
    stop() {
      clearTimeout(timer);
      clearImmediate(spin);
    },
  };
}
