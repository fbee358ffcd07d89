// What follows the clock, picture by picture and without React: one loop for all of it.

const drawers = new Set<() => void>();
let asked = 0;

function frame(): void {
  asked = requestAnimationFrame(frame);
  for (const draw of drawers)
    try {
      draw();
    } catch (error) {
      // One that fails is told of, and keeps no other from drawing.
      reportError(error);
    }
}

/** Calls `draw` now and with every picture of the screen, until what it gives back is called. */
export function eachFrame(draw: () => void): () => void {
  draw();
  drawers.add(draw);
  asked ||= requestAnimationFrame(frame);
  return () => {
    drawers.delete(draw);
    if (drawers.size > 0) return;
    cancelAnimationFrame(asked);
    asked = 0;
  };
}
