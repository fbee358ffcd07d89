// What follows the clock, picture by picture and without React: one loop for all of it, which rests while nothing moves.

/** What draws may say how long it looks the same, in ms; else it draws with every picture of the screen. */
export type Draw = () => number | void;

type Drawer = { readonly draw: Draw; due: number };

/** Nothing rests for longer, whatever it says; in ms. */
export const REST_MS = 1000;
/** A rest that is shorter than two pictures is none; the last picture of one is not slept through. */
const PICTURE_MS = 17;

const drawers = new Set<Drawer>();
let asked = 0;
let sleeping: ReturnType<typeof setTimeout> | undefined;

function frame(): void {
  asked = 0;
  const at = performance.now();
  let rest = REST_MS;
  for (const drawer of drawers) {
    if (drawer.due <= at) drawer.due = at + drawnSafely(drawer.draw);
    rest = Math.min(rest, drawer.due - at);
  }
  if (rest < 2 * PICTURE_MS) askForFrame();
  else if (drawers.size > 0 && asked === 0) sleeping = setTimeout(askForFrame, rest - PICTURE_MS);
}

/** @returns how long it rests. */
const drawn = (draw: Draw): number => Math.min(draw() ?? 0, REST_MS);

function drawnSafely(draw: Draw): number {
  try {
    return drawn(draw);
  } catch (error) {
    // One that fails is told of, and keeps no other from drawing.
    reportError(error);
    return 0;
  }
}

function askForFrame(): void {
  clearTimeout(sleeping);
  sleeping = undefined;
  if (drawers.size > 0) asked ||= requestAnimationFrame(frame);
}

/**
 * Calls `draw` now and with every picture of the screen, until what it gives back is called.
 * @param wakes subscribes to what ends a rest: something was pressed, or the song is another.
 */
export function eachFrame(draw: Draw, wakes?: (wake: () => void) => () => void): () => void {
  const drawer = { draw, due: performance.now() + drawn(draw) };
  drawers.add(drawer);
  askForFrame();
  const stop = wakes?.(() => {
    drawer.due = 0;
    askForFrame();
  });
  return () => {
    stop?.();
    drawers.delete(drawer);
    if (drawers.size > 0) return;
    clearTimeout(sleeping);
    cancelAnimationFrame(asked);
    asked = 0;
  };
}
