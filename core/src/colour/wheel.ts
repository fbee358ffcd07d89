// The slot of a colour wheel that comes nearest to a wanted colour.

import type { Rgb } from 'culori/fn';
import { chromaAndHue, colourDifference } from './difference';
import { linearFromChromaticity, srgbFromLinear, type Chromaticity } from './spaces';

/** A filter more than twice as colourful as what is wanted is further from it than white is. */
const TOO_COLOURFUL = 2;
/** Amber is meant by a pale amber all the same: hues that differ by no more than this, in degrees, are one. */
const SAME_HUE = 10;

/**
 * Index of the slot nearest to `target` and how far off it is (CIEDE2000; below 2 nobody notices). The formula is for
 * small differences: it takes a deep yellow for as near to a warm white as white is. So filters that are too colourful
 * and of another hue come after all others.
 */
export function nearestSlot(
  slots: readonly Chromaticity[],
  target: Chromaticity,
): { readonly slot: number; readonly off: number } {
  const wanted = display(target);
  const [chroma, hue] = chromaAndHue(wanted);
  let best = { slot: 0, off: Infinity, astray: true };
  slots.forEach((candidate, slot) => {
    const shown = display(candidate);
    const off = colourDifference(shown, wanted);
    const [itsChroma, itsHue] = chromaAndHue(shown);
    const turn = Math.abs(itsHue - hue);
    // A chroma of next to nothing has no hue.
    const astray = itsChroma > 2 && itsChroma > chroma * TOO_COLOURFUL && Math.min(turn, 360 - turn) > SAME_HUE;
    if (astray === best.astray ? off < best.off : best.astray) best = { slot, off, astray };
  });
  return { slot: best.slot, off: best.off };
}

function display(colour: Chromaticity): Rgb {
  const { r, g, b } = linearFromChromaticity(colour);
  return { mode: 'rgb', r: srgbFromLinear(r), g: srgbFromLinear(g), b: srgbFromLinear(b) };
}
