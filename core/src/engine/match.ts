// How near a lamp comes to a colour.

import {
  chromaticityFromLinear,
  colourDifference,
  hexFromChromaticity,
  linearFromChromaticity,
  nearestSlot,
  lightOfMix,
  solveMix,
  srgbFromLinear,
  type Chromaticity,
} from '../colour';
import type { Patched } from '../rig';
import { mixerOf } from './head-plan';

export type ColourMatch =
  /** Mixes it, or goes from one white to another, this far off (CIEDE2000; below 2 nobody notices), and what comes of it as `#rrggbb`. */
  | { readonly how: 'mixes'; readonly off: number; readonly hex: string }
  | { readonly how: 'wheel'; readonly slot: number; readonly name: string; readonly off: number; readonly hex: string }
  | { readonly how: 'gel'; readonly off: number; readonly hex: string }
  /** One colour of its own that we do not know, or no light at all. */
  | { readonly how: 'none' };

export function colourMatch({ profile, mode, fixture }: Patched, colour: Chromaticity): ColourMatch {
  const mixer = mixerOf({ profile, mode }, 0) ?? mixerOf({ profile, mode }, undefined);
  const turns = profile.colours.length > 0 && mode.channels.some(({ attribute }) => attribute === 'Color1');
  // Whites have the colour of the wheel or the gel before them.
  if (mixer && !(mixer.between && (turns || fixture.gel))) {
    const [drives, light] = [new Float64Array(16), new Float64Array(3)];
    const { r, g, b } = linearFromChromaticity(colour);
    solveMix(mixer, r, g, b, drives);
    lightOfMix(mixer, drives, light);
    const most = Math.max(...light, 1e-9);
    const mixed = { r: light[0]! / most, g: light[1]! / most, b: light[2]! / most };
    return { how: 'mixes', off: off(mixed, colour), hex: hexFromChromaticity(chromaticityFromLinear(mixed)) };
  }
  if (turns) {
    const { slot, off: far } = nearestSlot(
      profile.colours.map((one) => one.colour),
      colour,
    );
    return {
      how: 'wheel',
      slot,
      name: profile.colours[slot]!.name,
      off: far,
      hex: hexFromChromaticity(profile.colours[slot]!.colour),
    };
  }
  if (!fixture.gel) return { how: 'none' };
  return { how: 'gel', off: off(linearFromChromaticity(fixture.gel), colour), hex: hexFromChromaticity(fixture.gel) };
}

function off(light: { r: number; g: number; b: number }, wanted: Chromaticity): number {
  const display = ({ r, g, b }: { r: number; g: number; b: number }) =>
    ({ mode: 'rgb', r: srgbFromLinear(r), g: srgbFromLinear(g), b: srgbFromLinear(b) }) as const;
  return colourDifference(display(light), display(linearFromChromaticity(wanted)));
}
