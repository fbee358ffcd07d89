// The slot of a colour wheel that comes nearest to a wanted colour.

import type { Rgb } from 'culori/fn';
import { colourDifference } from './difference';
import { linearFromChromaticity, srgbFromLinear, type Chromaticity } from './spaces';

/** Index of the slot nearest to `target` and how far off it is (CIEDE2000; below 2 nobody notices). */
export function nearestSlot(
  slots: readonly Chromaticity[],
  target: Chromaticity,
): { readonly slot: number; readonly off: number } {
  let slot = 0;
  let off = Infinity;
  slots.forEach((candidate, i) => {
    const here = colourDifference(display(candidate), display(target));
    if (here < off) [slot, off] = [i, here];
  });
  return { slot, off };
}

function display(colour: Chromaticity): Rgb {
  const { r, g, b } = linearFromChromaticity(colour);
  return { mode: 'rgb', r: srgbFromLinear(r), g: srgbFromLinear(g), b: srgbFromLinear(b) };
}
