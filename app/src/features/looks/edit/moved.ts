// What the chosen lamps can have moved, by a wave or by sound, with bounds to start from.

import { WAVE_UNITS } from '@hovlix/core/light';
import { attributeOf, type Patched } from '@hovlix/core/rig';

export type Movable = { readonly name: string; readonly on: string; readonly low: number; readonly high: number };

/** Attributes that are moved as a share of their channel. */
const SHARES = ['ColorAdd_W', 'ColorAdd_A', 'ColorAdd_UV', 'Iris', 'Focus1', 'Frost1', 'Gobo1Pos', 'Prism1Pos'];

export function movables(lamps: readonly Patched[]): readonly Movable[] {
  const has = (attribute: string) => lamps.some(({ mode }) => mode.channels.some((one) => one.attribute === attribute));
  const moves = lamps.some(({ profile }) => profile.panRange > 0);
  return [
    { name: 'Level', on: 'level', low: 0, high: 1 },
    { name: 'Hue', on: 'hue', low: 0, high: 360 },
    ...(moves
      ? [
          { name: 'Pan', on: 'pan', low: -30, high: 30 },
          { name: 'Tilt', on: 'tilt', low: -15, high: 15 },
        ]
      : []),
    ...(has('Zoom') ? [{ name: 'Zoom', on: 'zoom', low: 0.1, high: 0.9 }] : []),
    { name: 'Strobe', on: 'strobe', low: 0, high: 8 },
    ...SHARES.filter(has).map((on) => ({ name: attributeOf(on).name, on, low: 0, high: 1 })),
  ];
}

export const canMove = (lamps: readonly Patched[]): boolean => lamps.some(({ profile }) => profile.panRange > 0);

export function nameOfMoved(on: string): string {
  return Object.hasOwn(WAVE_UNITS, on) ? on : attributeOf(on).name.toLowerCase();
}
