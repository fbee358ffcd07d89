// How far apart two colours look.

import { differenceCiede2000, modeLab65, modeRgb, useMode as converterOf, type Rgb } from 'culori/fn';

// The formula asks the library for these two by name.
converterOf(modeRgb);
const lab = converterOf(modeLab65);

/** CIEDE2000 (CIE 142:2001) of two display colours; below 2 nobody notices. */
export const colourDifference: (one: Rgb, other: Rgb) => number = differenceCiede2000();

/** How colourful a display colour is, its chroma in CIELAB (about 130 at the most), and its hue there in degrees (CIE 15:2004). */
export function chromaAndHue(colour: Rgb): readonly [chroma: number, hue: number] {
  const { a, b } = lab(colour);
  return [Math.hypot(a, b), (Math.atan2(b, a) * 180) / Math.PI];
}
