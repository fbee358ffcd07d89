// How near a lamp comes to a colour.

import { differenceCiede2000 } from 'culori';
import {
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
  /** Mixes it, this far off (CIEDE2000; below 2 nobody notices). */
  | { readonly how: 'mixes'; readonly off: number }
  | { readonly how: 'wheel'; readonly slot: number; readonly name: string; readonly off: number }
  | { readonly how: 'gel'; readonly off: number }
  /** One colour of its own that we do not know, or no light at all. */
  | { readonly how: 'none' };

const difference = differenceCiede2000();

export function colourMatch({ profile, mode, fixture }: Patched, colour: Chromaticity): ColourMatch {
  const mixer = mixerOf({ profile, mode }, 0) ?? mixerOf({ profile, mode }, undefined);
  if (mixer) {
    const [drives, light] = [new Float64Array(16), new Float64Array(3)];
    const { r, g, b } = linearFromChromaticity(colour);
    solveMix(mixer, r, g, b, drives);
    lightOfMix(mixer, drives, light);
    const most = Math.max(...light, 1e-9);
    return { how: 'mixes', off: off({ r: light[0]! / most, g: light[1]! / most, b: light[2]! / most }, colour) };
  }
  if (profile.colours.length > 0 && mode.channels.some(({ attribute }) => attribute === 'Color1')) {
    const { slot, off: far } = nearestSlot(profile.colours.map((one) => one.colour), colour); // prettier-ignore
    return { how: 'wheel', slot, name: profile.colours[slot]!.name, off: far };
  }
  return fixture.gel ? { how: 'gel', off: off(linearFromChromaticity(fixture.gel), colour) } : { how: 'none' };
}

function off(light: { r: number; g: number; b: number }, wanted: Chromaticity): number {
  const display = ({ r, g, b }: { r: number; g: number; b: number }) =>
    ({ mode: 'rgb', r: srgbFromLinear(r), g: srgbFromLinear(g), b: srgbFromLinear(b) }) as const;
  return difference(display(light), display(linearFromChromaticity(wanted)));
}
