// The first looks of a new show: made for the roles it has, to be used tonight and changed tomorrow.

import { chromaticityFromHex } from '../colour';
import type { Casting } from '../rig/schema';
import { Look, type LookValue } from './schema';
import { Wave } from './wave';

/** The roles that somebody plays here. */
const playedIn = (casting: readonly Casting[]) => casting.filter(({ fixtures }) => fixtures.length > 0);

/**
 * Three looks: everything full, one colour, and a slow wave over two bars, spread over the lamps of each role.
 * @param numbers the first free number. @param fresh makes an id.
 */
export function firstLooks(casting: readonly Casting[], number: number, fresh: () => string): readonly Look[] {
  const roles = playedIn(casting).map(({ role }) => role);
  const all = (value: Omit<LookValue, 'role'>): LookValue[] => roles.map((role) => ({ role, ...value }));
  const full = { type: 'hold' as const, value: 1 };
  const colour = (hex: string) => ({ type: 'hold' as const, value: chromaticityFromHex(hex) });
  const wave = Wave.parse({
    type: 'wave',
    on: 'level',
    shape: 'sine',
    low: 0.25,
    high: 1,
    span: { beats: 8 },
    turn: 1,
  });
  const look = (n: number, name: string, values: readonly LookValue[]): Look =>
    Look.parse({ id: fresh(), number: number + n, name, fadeIn: 1, fadeOut: 2, values });
  return [
    look(0, 'Full', all({ level: full, colour: colour('#ffcf9a') })),
    look(1, 'Blue', all({ level: { type: 'hold', value: 0.8 }, colour: colour('#2a62ff') })),
    look(2, 'Slow wave', all({ level: full, colour: colour('#ff5a8a'), waves: [wave] })),
  ];
}
