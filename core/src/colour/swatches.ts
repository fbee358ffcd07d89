// Our own list of colours, as one would ask for gels.

import { chromaticityFromHex, type Chromaticity } from './spaces';

export const SWATCHES: readonly { readonly name: string; readonly colour: Chromaticity }[] = (
  [
    ['Candlelight', '#ffb46b'],
    ['Warm white', '#ffcf9a'],
    ['White', '#ffffff'],
    ['Cool white', '#d8e8ff'],
    ['Red-orange', '#ff3a1a'],
    ['Red', '#ff1030'],
    ['Amber', '#ffa024'],
    ['Yellow', '#ffd24a'],
    ['Lime', '#9cff3a'],
    ['Green', '#18d860'],
    ['Turquoise', '#12d6c8'],
    ['Cyan', '#27d4ff'],
    ['Blue', '#2a62ff'],
    ['Deep blue', '#2416ff'],
    ['Violet', '#9a4dff'],
    ['Magenta', '#ff4fd0'],
    ['Pink', '#ff5a8a'],
    ['Pale pink', '#ffb0b8'],
  ] as const
).map(([name, hex]) => ({ name, colour: chromaticityFromHex(hex) }));
