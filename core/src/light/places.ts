// Places in a cast: which of them are meant, and in which order something runs over them.

import { z } from 'zod';
import { chance } from './chance';

const Whole = (low: number, high: number) => z.number().int().min(low).max(high);

/** Some of the places of a cast, said so that it holds for a cast of any size. */
export const Pick = z.discriminatedUnion('type', [
  /** Every nth, counted from place `from` (0 is the first). Odd lamps are 2 from 0, even ones 2 from 1. */
  z.strictObject({ type: z.literal('every'), nth: Whole(1, 64), from: Whole(0, 63) }),
  /** Of five lamps the first and the outer half have three. */
  z.strictObject({ type: z.literal('half'), which: z.enum(['first', 'second', 'outer', 'inner']) }),
  z.strictObject({ type: z.literal('places'), places: z.array(Whole(0, 1999)).min(1).max(2000) }),
]);
export type Pick = z.infer<typeof Pick>;

/** The places of a cast of `count` that are meant, rising. Without a pick: all. */
export function pickedPlaces(pick: Pick | undefined, count: number): readonly number[] {
  const all = Array.from({ length: Math.max(0, count) }, (_, place) => place);
  return pick ? all.filter((place) => isPicked(pick, place, count)) : all;
}

function isPicked(pick: Pick, place: number, count: number): boolean {
  switch (pick.type) {
    case 'every':
      return place >= pick.from && (place - pick.from) % pick.nth === 0;
    case 'places':
      return pick.places.includes(place);
    case 'half': {
      const inner = isInner(place, count);
      if (pick.which === 'inner' || pick.which === 'outer') return inner === (pick.which === 'inner');
      return place < Math.ceil(count / 2) === (pick.which === 'first');
    }
  }
}

function isInner(place: number, count: number): boolean {
  const inside = Math.floor(count / 2);
  const from = Math.ceil((count - inside) / 2);
  return place >= from && place < from + inside;
}

/** In which order something runs over a cast. */
export const WAYS = ['across', 'back', 'mirror', 'centre', 'random'] as const;
export type Way = (typeof WAYS)[number];

export type Run = { readonly way: Way; readonly groups?: number | undefined; readonly seed?: number | undefined };

/** How far along a run a place is: `rank` of `of` steps. */
export type Rank = { readonly rank: number; readonly of: number };

/**
 * Across counts from the first place to the last, back the other way; mirror from both ends to the middle, centre from
 * the middle out; random deals the ranks by `seed`. With `groups` the run begins anew after each so many places.
 */
export function rankOf({ way, groups, seed = 0 }: Run, place: number, count: number): Rank {
  const length = groups && groups > 0 ? Math.min(groups, Math.max(1, count)) : Math.max(1, count);
  const at = place % length;
  const half = Math.ceil(length / 2);
  const fromEdge = Math.min(at, length - 1 - at);
  switch (way) {
    case 'across':
      return { rank: at, of: length };
    case 'back':
      return { rank: length - 1 - at, of: length };
    case 'mirror':
      return { rank: fromEdge, of: half };
    case 'centre':
      return { rank: half - 1 - fromEdge, of: half };
    case 'random':
      return { rank: shuffled(length, seed).indexOf(at), of: length };
  }
}

/** 0 … n - 1 in an order that a seed gives: always the same for the same seed. */
export function shuffled(count: number, seed: number): readonly number[] {
  const order = Array.from({ length: count }, (_, i) => i);
  for (let i = count - 1; i > 0; i--) {
    const j = Math.floor(chance(seed, i, count) * (i + 1));
    [order[i], order[j]] = [order[j]!, order[i]!];
  }
  return order;
}
