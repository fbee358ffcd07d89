// Which lamps looks and chases are made for.

import type { Chase, Look, LookValue } from '../light';
import { rigInUse, type Show } from './schema';

type Playable = Look | Chase;

/** All values of a look, or of a chase with the looks of its steps. */
export function valuesIn(play: Playable, plays: ReadonlyMap<string, Playable>): readonly LookValue[] {
  const looks = 'steps' in play ? play.steps.map(({ look }) => (look ? plays.get(look) : undefined)) : [play];
  return [
    ...looks.flatMap((one) => (one && 'values' in one ? one.values : [])),
    ...('steps' in play ? play.steps.flatMap((step) => step.values) : []),
  ];
}

/** Roles that a look, or a chase with the looks of its steps, is made for; none where it is made for single lamps. */
export function rolesIn(play: Playable, plays: ReadonlyMap<string, Playable>): readonly string[] {
  const values = valuesIn(play, plays);
  return values.some(({ lamps }) => lamps) ? [] : [...new Set(values.flatMap(({ role }) => role ?? []))];
}

const found = new WeakMap<Show, ReadonlySet<string>>();

/** Ids of the looks and chases whose roles have no lamps in the rig in use: whatever presses them lights nothing. */
export function unlitPlays(show: Show): ReadonlySet<string> {
  const known = found.get(show);
  if (known) return known;
  const all = [...show.looks, ...show.chases];
  const plays = new Map(all.map((play) => [play.id as string, play]));
  const cast = new Set(
    rigInUse(show).casting.flatMap(({ role, fixtures }) => (fixtures.length > 0 ? [role as string] : [])),
  );
  const unlit = all.filter((play) => {
    const roles = rolesIn(play, plays);
    return roles.length > 0 && !roles.some((role) => cast.has(role));
  });
  const ids = new Set(unlit.map(({ id }) => id as string));
  found.set(show, ids);
  return ids;
}
