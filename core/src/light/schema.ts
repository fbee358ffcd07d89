// Looks: what the parts of a show should do, without a word about channels.

import { z } from 'zod';
import { beats } from '../units';
import { Chroma, Name, idOf } from '../rig/schema';

/**
 * How an attribute gets its value over a cast. `hold` gives all lamps the same; `spread` deals a list out over the
 * lamps in cast order, again and again. Waves and followers will be further members of this union.
 */
const drive = <T extends z.ZodType>(value: T) =>
  z.discriminatedUnion('type', [
    z.strictObject({ type: z.literal('hold'), value }),
    z.strictObject({ type: z.literal('spread'), values: z.array(value).min(1).max(512) }),
  ]);

/** Where heads point: a named aim, or pan and tilt in degrees from the middle. */
export const AimValue = z.union([
  z.strictObject({ aim: idOf<'Aim'>() }),
  z.strictObject({ pan: z.number().min(-540).max(540), tilt: z.number().min(-180).max(180) }),
]);
export type AimValue = z.infer<typeof AimValue>;

/** What one part does in a look. What is left out is left alone. */
export const LookValue = z.strictObject({
  part: idOf<'Part'>(),
  /** 0…1 */
  level: drive(z.number().min(0).max(1)).optional(),
  colour: drive(Chroma).optional(),
  aim: drive(AimValue).optional(),
  /** Flashes a second; 0 is steady. */
  strobe: drive(z.number().min(0).max(30)).optional(),
  /** Slot of the gobo wheel; 0 is open. */
  gobo: drive(z.number().int().min(0).max(63)).optional(),
  /** 0 narrow … 1 wide */
  zoom: drive(z.number().min(0).max(1)).optional(),
  /** 0…1 */
  haze: drive(z.number().min(0).max(1)).optional(),
});
export type LookValue = z.infer<typeof LookValue>;

export const Look = z.strictObject({
  id: idOf<'Look'>(),
  number: z.number().int().min(1).max(9999),
  name: Name,
  fadeIn: z.number().min(0).max(256).transform(beats),
  fadeOut: z.number().min(0).max(256).transform(beats),
  /** Stays on when a song starts. */
  keep: z.boolean().default(false),
  values: z.array(LookValue).max(200),
});
export type Look = z.infer<typeof Look>;
export type Drive<T> =
  { readonly type: 'hold'; readonly value: T } | { readonly type: 'spread'; readonly values: readonly T[] };

/** The value for the lamp at place `index` of its cast. */
export function valueAt<T>(source: Drive<T>, index: number): T {
  return source.type === 'hold' ? source.value : source.values[index % source.values.length]!;
}
