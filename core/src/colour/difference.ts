// How far apart two colours look.

import { differenceCiede2000, modeLab65, modeRgb, useMode as converterOf, type Rgb } from 'culori/fn';

// The formula asks the library for these two by name.
converterOf(modeRgb);
converterOf(modeLab65);

/** CIEDE2000 (CIE 142:2001) of two display colours; below 2 nobody notices. */
export const colourDifference: (one: Rgb, other: Rgb) => number = differenceCiede2000();
