import type { Contribution } from '@hovlix/core/engine';
import type { OutputRow, RowReport } from '@hovlix/core/connect';
import type { Fixture, Patched, Rig } from '@hovlix/core/rig';
import { attributeOf, footprint } from '@hovlix/core/rig';
import { UNHEARD, WORDS } from './words';

/**
 * Why nothing of a universe arrives anywhere, where that is so.
 * @param rows what the server says of its outputs.
 */
export function unheardWords(
  universe: number,
  outputs: readonly Pick<OutputRow, 'id' | 'universe' | 'on'>[],
  rows: readonly Pick<RowReport, 'id' | 'state'>[],
): string | undefined {
  const mine = outputs.filter((row) => row.universe === universe);
  if (mine.length === 0) return UNHEARD.none(universe);
  if (mine.every(({ on }) => !on)) return UNHEARD.off(universe);
  const failed = (id: string) => rows.find((row) => row.id === id)?.state === 'failed';
  return mine.filter(({ on }) => on).every(({ id }) => failed(id)) ? UNHEARD.failed(universe) : undefined;
}

/** One line a source: which attributes it gives, and how much of it counts. The strongest last, as the last one wins. */
export function contributionWords(contributions: readonly Contribution[]): readonly string[] {
  const sources = new Map<string, { attributes: string[]; weight: number }>();
  for (const { source, attribute, values, weight, moving } of contributions) {
    const line = sources.get(source) ?? { attributes: [], weight };
    if (attribute === 'slot') continue;
    const name = attribute === 'level' ? `level ${Math.round(values[0]! * 100)} %` : fieldWord(attribute);
    line.attributes.push(moving ? `${name} in a wave` : name);
    line.weight = Math.min(line.weight, weight);
    sources.set(source, line);
  }
  return [...sources].map(
    ([source, { attributes, weight }]) =>
      `${source}: ${attributes.join(', ')}${weight < 0.995 ? ` (${Math.round(weight * 100)} % in)` : ''}`,
  );
}

/** The word for a field of the engine, or for an attribute that a look sets by its name. */
function fieldWord(field: string): string {
  const own: Readonly<Record<string, string>> = { move: 'movement', strobe: 'strobe', haze: 'haze', zoom: 'zoom' };
  return own[field] ?? (/^[a-z]/.test(field) ? field : attributeOf(field).name.toLowerCase());
}

/** Index of the tint of the first role a fixture plays; undefined where it plays none. */
export function tintsByFixture(rig: Rig, roles: readonly { readonly id: string; readonly tint: number }[]) {
  const tints = new Map<string, number>();
  for (const { role, fixtures } of rig.casting) {
    const tint = roles.find(({ id }) => id === role)?.tint;
    if (tint !== undefined) for (const fixture of fixtures) if (!tints.has(fixture)) tints.set(fixture, tint);
  }
  return (fixture: string): number | undefined => tints.get(fixture);
}

/** “Spot 1”, “Spot 1 and Spot 2”, “Spot 1, Spot 2 and 4 more”. */
export function namesOf(lamps: readonly Pick<Fixture, 'name'>[]): string {
  const names = lamps.map(({ name }) => name);
  if (names.length <= 1) return names[0] ?? WORDS.noLamp;
  if (names.length === 2) return `${names[0]} and ${names[1]}`;
  return names.length === 3
    ? `${names[0]}, ${names[1]} and ${names[2]}`
    : `${names[0]}, ${names[1]} and ${names.length - 2} more`;
}

/** Lamps of which at least one channel is held by hand. */
export function heldLamps(
  patched: readonly Patched[],
  held: readonly { readonly universe: number; readonly address: number }[],
): ReadonlySet<string> {
  if (held.length === 0) return new Set();
  const taken = new Set(held.map(({ universe, address }) => universe * 512 + address));
  const found = patched.filter(({ fixture, mode }) => {
    for (let at = 0; at < footprint(mode); at++)
      if (taken.has(fixture.universe * 512 + fixture.address + at)) return true;
    return false;
  });
  return new Set(found.map(({ fixture }) => fixture.id));
}
