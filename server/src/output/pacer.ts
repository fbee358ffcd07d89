// A steady beat from an unsteady timer.

export const FRAMES_PER_SECOND = 44;

export type PacerReport = {
  readonly frames: number;
  /** Frames that were due while the machine was busy or asleep, and were left out. */
  readonly skipped: number;
};

export type Pacer = { readonly report: () => PacerReport; readonly stop: () => void };

/**
 * Calls `frame(due)` at `start + n / rate`, each moment computed from the start so that nothing adds up. A frame that
 * is late by more than one frame's length is left out and counted.
 * @param now seconds of a steady clock. @param rate frames a second.
 */
export function startPacer(now: () => number, rate: number, frame: (due: number) => void): Pacer {
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
  const fire = () => {
    const behind = Math.floor((now() - start) * rate) - n;
    if (behind > 0) {
      skipped += behind;
      n += behind;
    }
    frames++;
    frame(start + n / rate);
    n++;
    wait();
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
