// A look in other colours: the same light, its hues turned together.

import { chromaticityFromLinear, linearFromOkLab, okLabFromChromaticity, type Chromaticity } from '../colour';
import { namedIn, type Drive } from './drive';
import type { Follower } from './follow';
import type { LookValue } from './schema';
import type { Wave } from './wave';

/** The colour turned by degrees in OKLab; whites stay white. */
export function hueTurned(colour: Chromaticity, degrees: number): Chromaticity {
  const { L, a, b } = okLabFromChromaticity(colour);
  const angle = (degrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const light = new Float64Array(3);
  linearFromOkLab(L, a * cos - b * sin, a * sin + b * cos, light);
  const [r, g, blue] = Array.from(light, (role) => Math.max(0, role));
  return chromaticityFromLinear({ r: r!, g: g!, b: blue! });
}

/** Degrees of a colour's hue in OKLab, 0…360; undefined for what has hardly any. */
export function hueOf(colour: Chromaticity): number | undefined {
  const { a, b } = okLabFromChromaticity(colour);
  return Math.hypot(a, b) < 0.02 ? undefined : ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360;
}

/** The values with all their colours, and those of their waves, turned by degrees. */
export function recoloured(values: readonly LookValue[], degrees: number): readonly LookValue[] {
  const turned = (colour: Chromaticity) => hueTurned(colour, degrees);
  const recolour = <T extends Wave | Follower>(moving: T): T =>
    moving.type === 'colours' ? { ...moving, from: turned(moving.from), to: turned(moving.to) } : moving;
  return values.map((value) => ({
    ...value,
    ...(value.colour ? { colour: driveMapped(value.colour, turned) } : {}),
    ...(value.waves ? { waves: value.waves.map(recolour) } : {}),
    ...(value.followers ? { followers: value.followers.map(recolour) } : {}),
  }));
}

/** A drive with each value it names changed. */
export function driveMapped<T>(drive: Drive<T>, change: (value: T) => T): Drive<T> {
  return drive.type === 'hold'
    ? { ...drive, value: change(drive.value) }
    : drive.type === 'spread'
      ? { ...drive, values: drive.values.map(change) }
      : { ...drive, from: change(drive.from), to: change(drive.to) };
}

/** The most saturated colour that values name: what a look is known by. */
export function mainColour(values: readonly LookValue[]): Chromaticity | undefined {
  const all = values.flatMap((value) => (value.colour ? namedIn<Chromaticity>(value.colour) : []));
  const strength = (colour: Chromaticity) => {
    const { a, b } = okLabFromChromaticity(colour);
    return Math.hypot(a, b);
  };
  return all.reduce<Chromaticity | undefined>(
    (best, colour) => (best && strength(best) >= strength(colour) ? best : colour),
    undefined,
  );
}
