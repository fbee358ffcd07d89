// Which lamps a value is for: a role, some places of it, or bare lamps; and how a choice of lamps is said in those terms.

import type { Casting } from '../rig/schema';
import { pickedPlaces, type Pick } from './places';
import type { LookValue } from './schema';

export type Who = globalThis.Pick<LookValue, 'role' | 'pick' | 'lamps'>;
type Lamp = NonNullable<LookValue['lamps']>[number];

/** Two values with the same key are for the same lamps. */
export function whoKey({ role, pick, lamps }: Who): string {
  return JSON.stringify([role ?? null, pick ?? null, lamps ?? null]);
}

/** The lamps of a room that are meant, in cast order. */
export function lampsOf({ role, pick, lamps }: Who, casting: readonly Casting[]): readonly Lamp[] {
  const cast = role === undefined ? (lamps ?? []) : (casting.find((one) => one.role === role)?.fixtures ?? []);
  return pickedPlaces(pick, cast.length).map((place) => cast[place]!);
}

/**
 * A choice of lamps as roles and places, so that it means the same in another room: whole roles first, those in
 * `preferred` before others; then places of roles; lamps that play no role stand by themselves.
 */
export function whosOf(
  chosen: readonly Lamp[],
  casting: readonly Casting[],
  preferred: readonly string[] = [],
): readonly Who[] {
  const left = new Set(chosen);
  const found: Who[] = [];
  const first = casting.filter(({ role }) => preferred.includes(role));
  const order = [...first, ...casting.filter((cast) => !first.includes(cast))];
  const take = (cast: Casting, who: Who) => {
    found.push(who);
    for (const lamp of cast.fixtures) left.delete(lamp);
  };
  for (const cast of order)
    if (cast.fixtures.length > 0 && cast.fixtures.every((lamp) => left.has(lamp))) take(cast, { role: cast.role });
  for (const cast of order) {
    const places = cast.fixtures.flatMap((lamp, place) => (left.has(lamp) ? [place] : []));
    if (places.length > 0) take(cast, { role: cast.role, pick: pickOf(places, cast.fixtures.length) });
  }
  return left.size > 0 ? [...found, { lamps: chosen.filter((lamp) => left.has(lamp)) }] : found;
}

/** The quick choices, in the order in which they are offered. */
export const QUICK_PICKS: readonly { readonly name: string; readonly pick: Pick }[] = [
  { name: 'Odd', pick: { type: 'every', nth: 2, from: 0 } },
  { name: 'Even', pick: { type: 'every', nth: 2, from: 1 } },
  { name: 'First half', pick: { type: 'half', which: 'first' } },
  { name: 'Second half', pick: { type: 'half', which: 'second' } },
  { name: 'Outer', pick: { type: 'half', which: 'outer' } },
  { name: 'Inner', pick: { type: 'half', which: 'inner' } },
  { name: 'Every 3rd', pick: { type: 'every', nth: 3, from: 0 } },
  { name: 'Every 4th', pick: { type: 'every', nth: 4, from: 0 } },
];

/** The places of a cast as a pick that holds for casts of other sizes, where they are such a one. */
function pickOf(places: readonly number[], count: number): Pick {
  const key = places.join();
  const known = QUICK_PICKS.find(({ pick }) => places.length > 1 && pickedPlaces(pick, count).join() === key);
  return known?.pick ?? { type: 'places', places: [...places] };
}

/** “Front wash, odd”, “Movers”, “2 single lamps”. */
export function whoWords(who: Who, roles: readonly { readonly id: string; readonly name: string }[]): string {
  if (who.lamps) return who.lamps.length === 1 ? '1 single lamp' : `${who.lamps.length} single lamps`;
  const name = roles.find(({ id }) => id === who.role)?.name ?? 'a role that is gone';
  if (!who.pick) return name;
  const key = JSON.stringify(who.pick);
  const known = QUICK_PICKS.find(({ pick }) => JSON.stringify(pick) === key);
  if (known) return `${name}, ${known.name.toLowerCase()}`;
  if (who.pick.type === 'places') return `${name}, no. ${who.pick.places.map((place) => place + 1).join(', ')}`;
  return who.pick.type === 'every' ? `${name}, every ${who.pick.nth} from ${who.pick.from + 1}` : name;
}

/** Lamp numbers typed as “1-6, 9”; undefined where it is not that. */
export function numbersFromText(text: string): readonly number[] | undefined {
  const pieces = text.split(/[,;\s]+/).filter(Boolean);
  const ranges = pieces.map((piece) => /^(\d{1,5})(?:[-–](\d{1,5}))?$/.exec(piece));
  if (pieces.length === 0 || ranges.some((range) => !range)) return undefined;
  const numbers = ranges.flatMap((range) => {
    const [from, to] = [Number(range![1]), Number(range![2] ?? range![1])];
    const [low, high] = [Math.min(from, to), Math.min(Math.max(from, to), Math.min(from, to) + 9999)];
    return Array.from({ length: high - low + 1 }, (_, i) => low + i);
  });
  return [...new Set(numbers)];
}
