// Adding lamps: where they fit, what they are called, where they hang until somebody hangs them.

import { address, id, universe, type Address, type Universe } from '../units';
import { footprint, patchedFixtures } from './patch';
import type { Fixture, Mode, Role, Profile, Rig } from './schema';

export type Wanted = {
  readonly profile: Profile;
  readonly mode: Mode;
  readonly count: number;
  readonly universe: Universe;
  /** Addresses from one lamp to the next; never less than the mode takes. */
  readonly block?: number;
  /** All of them on one address: they move as one. */
  readonly together?: boolean;
};

/** Channels from the first lamp's first to the last lamp's last. */
export function runLength({ mode, count, block = 0, together = false }: Wanted): number {
  const length = footprint(mode);
  if (together) return length;
  return (count - 1) * Math.max(length, block) + length;
}

/** Where a run begins: the first gap of its universe that holds all of it; undefined where there is none. */
export function firstRun(rig: Rig, profiles: readonly Profile[], wanted: Wanted): Address | undefined {
  const taken = takenIn(rig, profiles, wanted.universe);
  for (let start = 1; start + runLength(wanted) <= 513; start++)
    if (clashesAt(taken, wanted, address(start)).length === 0) return address(start);
  return undefined;
}

/** Lamps of the rig that a run from `start` would share channels with, by name; empty where it is free. */
export function clashes(rig: Rig, profiles: readonly Profile[], wanted: Wanted, start: Address): readonly string[] {
  return clashesAt(takenIn(rig, profiles, wanted.universe), wanted, start);
}

/**
 * The lamps of a run: numbered on from the rig's last, named on from the last of the same name, and hung in a row
 * across the front, beside the lamps there are, until somebody hangs them. Ids come from `fresh`.
 * @throws RangeError where the run ends past address 512.
 */
export function lampsOf(rig: Rig, wanted: Wanted, start: Address, fresh: (n: number) => string): readonly Fixture[] {
  const { profile, mode, count, block = 0, together = false } = wanted;
  const step = together ? 0 : Math.max(footprint(mode), block);
  if (start + runLength(wanted) > 513)
    throw new RangeError(`The run ends at ${start + runLength(wanted) - 1}, past 512`);
  const number = Math.max(0, ...rig.fixtures.map((fixture) => fixture.number));
  const named = nextName(rig, profile.label);
  const floor = profile.kind === 'bar' || profile.kind === 'hazer';
  const row = freeRow(rig, count, floor ? 0.2 : 4);
  return Array.from({ length: count }, (_, n) => ({
    id: id<'Fixture'>(fresh(n)),
    number: number + n + 1,
    name: `${profile.label} ${named + n}`,
    profile: profile.id,
    mode: mode.id,
    universe: universe(wanted.universe),
    address: address(start + n * step),
    mount: {
      ...row[n]!,
      yaw: 0,
      pitch: floor ? 180 : profile.panRange > 0 ? 0 : 35,
      roll: 0,
    },
  }));
}

/** Metres that two lamps need between them, and from one row to the next one up-stage. */
const APART = 0.4;
const NEXT_ROW = 1;

/** A row across the stage with nothing in it yet: the front one, or the first behind it that is free. */
function freeRow(
  rig: Rig,
  count: number,
  z: number,
): readonly { readonly x: number; readonly y: number; readonly z: number }[] {
  const across = Math.max(8, (count - 1) * APART);
  const places = (y: number) =>
    Array.from({ length: count }, (_, n) => ({
      x: count === 1 ? 0 : Math.round(((n / (count - 1)) * across - across / 2) * 100) / 100,
      y,
      z,
    }));
  const taken = (place: { x: number; y: number; z: number }) =>
    rig.fixtures.some(({ mount }) => Math.hypot(mount.x - place.x, mount.y - place.y, mount.z - place.z) < APART);
  let row = places(0.5);
  for (let n = 1; n <= rig.fixtures.length && row.some(taken); n++) row = places(0.5 + n * NEXT_ROW);
  return row;
}

/** The role that new lamps of a type are cast in: the one their kind has already, else a new one of that kind's name. */
export function roleFor(
  rig: Rig,
  profiles: readonly Profile[],
  roles: readonly Role[],
  profile: Profile,
  fresh: string,
): Role {
  const alike = rig.casting.find(({ fixtures }) => {
    const first = rig.fixtures.find((fixture) => fixture.id === fixtures[0]);
    return first !== undefined && first.profile === profile.id;
  });
  const known = roles.find((role) => role.id === alike?.role);
  if (known) return known;
  const name = NAMES[profile.kind];
  const same = roles.find((role) => role.name === name);
  return same ?? { id: id<'Role'>(fresh), name, tint: roles.length % 8 };
}

const NAMES: Readonly<Record<Profile['kind'], string>> = {
  dimmer: 'Dimmers',
  par: 'PARs',
  wash: 'Wash',
  bar: 'Bars',
  strobe: 'Strobe',
  'moving spot': 'Spots',
  'moving wash': 'Moving wash',
  hazer: 'Haze',
};

function nextName(rig: Rig, label: string): number {
  const used = rig.fixtures.flatMap(({ name }) => {
    const match = name.startsWith(`${label} `) ? /^\d+$/.exec(name.slice(label.length + 1)) : null;
    return match ? [Number(match[0])] : [];
  });
  return Math.max(0, ...used) + 1;
}

/** For each address, the name of the lamp that listens to it. */
export function takenIn(rig: Rig, profiles: readonly Profile[], number: Universe): readonly (string | undefined)[] {
  const taken: (string | undefined)[] = [];
  for (const { fixture, mode } of patchedFixtures(rig, profiles))
    if (fixture.universe === number)
      for (let at = 0; at < footprint(mode); at++) taken[fixture.address + at] = fixture.name;
  return taken;
}

/** What a run from `start` meets of `takenIn`. */
export function clashesAt(taken: readonly (string | undefined)[], wanted: Wanted, start: Address): readonly string[] {
  const length = footprint(wanted.mode);
  const step = wanted.together ? 0 : Math.max(length, wanted.block ?? 0);
  const names = new Set<string>();
  for (let n = 0; n < wanted.count; n++)
    for (let at = 0; at < length; at++) {
      const name = taken[start + n * step + at];
      if (name !== undefined) names.add(name);
    }
  return [...names];
}
