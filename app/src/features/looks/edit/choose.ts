// Choosing lamps, worked out without React: the one a tap means, and walking from one to the next by keys.

import type { Fixture } from '@hovlix/core/rig';

type Id = Fixture['id'];
/** A place on the plan in metres, y growing towards the audience. */
export type Spot = readonly [x: number, y: number];
type Placed = { readonly x: number; readonly y: number };

/** What is nearest to a place, and no further from it than `reach`. */
export function nearest<T extends Placed>(all: readonly T[], [x, y]: Spot, reach: number): T | undefined {
  const far = (one: Placed) => Math.hypot(one.x - x, one.y - y);
  return all.filter((one) => far(one) <= reach).sort((a, b) => far(a) - far(b))[0];
}

/**
 * The lamps that are meant after an arrow key: the next one along, from the end round to the start; with `add`, beside
 * those that were.
 */
export function walked(lamps: readonly Id[], chosen: readonly Id[], way: 1 | -1, add: boolean): readonly Id[] {
  if (lamps.length === 0) return [];
  const places = chosen.map((id) => lamps.indexOf(id)).filter((place) => place >= 0);
  const edge = places.length === 0 ? (way > 0 ? -1 : 0) : way > 0 ? Math.max(...places) : Math.min(...places);
  const next = lamps[(edge + way + lamps.length) % lamps.length]!;
  return add ? lamps.filter((id) => id === next || chosen.includes(id)) : [next];
}
