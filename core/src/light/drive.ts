// How one attribute gets its value over a cast.

import { z } from 'zod';
import { rankOf, WAYS } from './places';

const Groups = z.number().int().min(1).max(512);
const Seed = z.number().int().min(0).max(1e6);

/** In which order a fan or a wave runs over the cast. `groups`: it begins anew after so many lamps. */
export const RunShape = {
  way: z.enum(WAYS).default('across'),
  groups: Groups.optional(),
  seed: Seed.optional(),
};

/**
 * `hold` gives all lamps the same; `spread` deals a list out over the lamps in cast order, again and again; `fan` goes
 * evenly from one value to the other.
 */
export const drive = <T extends z.ZodType>(value: T) =>
  z.discriminatedUnion('type', [
    z.strictObject({ type: z.literal('hold'), value }),
    z.strictObject({ type: z.literal('spread'), values: z.array(value).min(1).max(512).readonly() }),
    z.strictObject({ type: z.literal('fan'), from: value, to: value, ...RunShape }),
  ]);

export type Drive<T> =
  | { readonly type: 'hold'; readonly value: T }
  | { readonly type: 'spread'; readonly values: readonly T[] }
  | {
      readonly type: 'fan';
      readonly from: T;
      readonly to: T;
      readonly way: (typeof WAYS)[number];
      readonly groups?: number | undefined;
      readonly seed?: number | undefined;
    };

/** The value for the lamp at `place` of a cast of `count`; `between` mixes the ends of a fan, 0…1. */
export function valueAt<T, U>(
  source: Drive<T>,
  place: number,
  count: number,
  read: (value: T) => U,
  between: (from: U, to: U, share: number) => U,
): U {
  if (source.type === 'hold') return read(source.value);
  if (source.type === 'spread') return read(source.values[place % source.values.length]!);
  const { rank, of } = rankOf(source, place, count);
  return between(read(source.from), read(source.to), of > 1 ? rank / (of - 1) : 0);
}

/** For numbers. */
export function numberAt(source: Drive<number>, place: number, count: number): number {
  return valueAt(source, place, count, same, mixed);
}

const same = (value: number) => value;
const mixed = (from: number, to: number, share: number) => from + (to - from) * share;

/** Every value a drive names. */
export function namedIn<T>(source: Drive<T>): readonly T[] {
  if (source.type === 'hold') return [source.value];
  return source.type === 'spread' ? source.values : [source.from, source.to];
}
