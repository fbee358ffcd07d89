// Hue and saturation as a colour circle on a screen shows them. Apart from the other spaces: only this asks the library.

import { modeHsv, modeRgb, useMode as converterOf } from 'culori/fn';
import { chromaticityFromLinear, hexFromChromaticity, linearFromSrgb, type Chromaticity } from './spaces';

const toHsv = converterOf(modeHsv);
const toRgb = converterOf(modeRgb);

/** The chromaticity of a hue (degrees) and a saturation (0…1), as a colour circle on a screen shows them. */
export function chromaticityFromHue(hue: number, saturation: number): Chromaticity {
  const { r, g, b } = toRgb({ mode: 'hsv', h: hue, s: saturation, v: 1 });
  return chromaticityFromLinear({ r: linearFromSrgb(r), g: linearFromSrgb(g), b: linearFromSrgb(b) });
}

/** The inverse of `chromaticityFromHue`; the hue of white is 0. */
export function hueFromChromaticity(colour: Chromaticity): { readonly hue: number; readonly saturation: number } {
  const { h, s } = toHsv(hexFromChromaticity(colour)) ?? { h: 0, s: 0 };
  return { hue: h ?? 0, saturation: s };
}
