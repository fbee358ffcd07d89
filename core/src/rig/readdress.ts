// Giving many lamps new numbers, addresses or modes at once, without ever laying one over another by accident.

import { address, universe as asUniverse, type Address, type Universe } from '../units';
import { clashesAt, takenIn } from './add';
import { footprint, patchedFixtures, type Patched } from './patch';
import type { Fixture, Mode, Profile, Rig } from './schema';

export type Readdressed = {
  readonly fixtures: readonly Fixture[];
  /** Lamps outside the chosen ones that would share channels, by name. */
  readonly clashes: readonly string[];
  /** The first lamp that would end past 512, by name. */
  readonly past?: string;
};

/**
 * Lays lamps one behind the other from `start`, in the order given.
 * @param block addresses from one to the next; never less than each takes.
 */
export function packed(
  rig: Rig,
  profiles: readonly Profile[],
  lamps: readonly Patched[],
  to: { readonly universe: Universe; readonly start: Address; readonly block?: number },
): Readdressed {
  return packedInto(takenIn(without(rig, lamps), profiles, to.universe), lamps, to);
}

type Taken = ReturnType<typeof takenIn>;

function packedInto(
  taken: Taken,
  lamps: readonly Patched[],
  to: { readonly universe: Universe; readonly start: Address; readonly block?: number },
): Readdressed {
  let next: number = to.start;
  let past: string | undefined;
  const clashes = new Set<string>();
  const fixtures = lamps.flatMap(({ fixture, profile, mode }) => {
    const length = footprint(mode);
    if (past !== undefined || next + length > 513) {
      past ??= fixture.name;
      return [];
    }
    const start = address(next);
    const wanted = { profile, mode, count: 1, universe: to.universe };
    for (const name of clashesAt(taken, wanted, start)) clashes.add(name);
    next += Math.max(length, to.block ?? 0);
    return [{ ...fixture, universe: asUniverse(to.universe), address: start }];
  });
  return { fixtures, clashes: [...clashes], ...(past === undefined ? {} : { past }) };
}

/** The lowest start at which lamps laid one behind the other are free and inside the universe; none where it is full. */
export function packedStart(
  rig: Rig,
  profiles: readonly Profile[],
  lamps: readonly Patched[],
  to: { readonly universe: Universe; readonly block?: number },
): Address | undefined {
  const taken = takenIn(without(rig, lamps), profiles, to.universe);
  for (let start = 1; start <= 512; start++) {
    const tried = packedInto(taken, lamps, { ...to, start: address(start) });
    if (tried.past !== undefined) return undefined;
    if (tried.clashes.length === 0) return address(start);
  }
  return undefined;
}

function without(rig: Rig, lamps: readonly Patched[]): Rig {
  const chosen = new Set(lamps.map(({ fixture }) => fixture.id));
  return { ...rig, fixtures: rig.fixtures.filter((fixture) => !chosen.has(fixture.id)) };
}

/** Numbers from `first` in the order given. Other lamps that have one of them take the numbers that became free. */
export function renumbered(rig: Rig, lamps: readonly Fixture[], first: number): readonly Fixture[] {
  const chosen = new Set(lamps.map(({ id }) => id));
  const next = new Set(lamps.map((_, i) => first + i));
  const freed = lamps.map(({ number }) => number).filter((number) => !next.has(number));
  const pushed = rig.fixtures
    .filter((fixture) => !chosen.has(fixture.id) && next.has(fixture.number))
    .map((fixture, i) => ({ ...fixture, number: freed[i] ?? fixture.number }));
  return [...lamps.map((fixture, i) => ({ ...fixture, number: first + i })), ...pushed];
}

export type Repacked = {
  readonly fixtures: readonly Fixture[];
  readonly moved: readonly string[];
  readonly homeless: readonly string[];
};

/**
 * Lamps in another mode. Each stays at its address where its new length fits there, else it goes to the first free
 * run of its universe; `homeless` are those for which there is none: they keep mode and address.
 */
export function inMode(rig: Rig, profiles: readonly Profile[], lamps: readonly Patched[], mode: Mode): Repacked {
  const [moved, homeless]: [string[], string[]] = [[], []];
  // Those still to come keep their place in their old mode until it is their turn.
  const taken = new Map<number, (string | undefined)[]>();
  const takenFor = (universe: Universe) => {
    if (!taken.has(universe)) taken.set(universe, [...takenIn(rig, profiles, universe)]);
    return taken.get(universe)!;
  };
  const fixtures = lamps.flatMap(({ fixture, profile, mode: old }) => {
    const places = takenFor(fixture.universe);
    const own = (at: number, length: number, name: string | undefined) => {
      for (let i = 0; i < length; i++) if (name !== undefined || places[at + i] === fixture.name) places[at + i] = name;
    };
    own(fixture.address, footprint(old), undefined);
    const wanted = { profile, mode, count: 1, universe: fixture.universe };
    const fits = (at: number) => at + footprint(mode) <= 513 && clashesAt(places, wanted, address(at)).length === 0;
    const start = fits(fixture.address) ? fixture.address : firstThat(fits);
    if (start === undefined) {
      own(fixture.address, footprint(old), fixture.name);
      homeless.push(fixture.name);
      return [];
    }
    if (start !== fixture.address) moved.push(fixture.name);
    own(start, footprint(mode), fixture.name);
    return [{ ...fixture, mode: mode.id, address: address(start) }];
  });
  return { fixtures, moved, homeless };
}

function firstThat(fits: (at: number) => boolean): number | undefined {
  for (let at = 1; at <= 512; at++) if (fits(at)) return at;
  return undefined;
}

/** Watts by universe and by circuit, of lamps whose draw is known; `unknown` counts the others. */
export function loads(rig: Rig, profiles: readonly Profile[]) {
  const universes = new Map<number, number>();
  const circuits = new Map<string, number>();
  let unknown = 0;
  for (const { fixture, profile } of patchedFixtures(rig, profiles)) {
    const watts = fixture.watts ?? profile.watts;
    if (watts === undefined) unknown++;
    else {
      universes.set(fixture.universe, (universes.get(fixture.universe) ?? 0) + watts);
      if (fixture.circuit) circuits.set(fixture.circuit, (circuits.get(fixture.circuit) ?? 0) + watts);
    }
  }
  return { universes, circuits, unknown };
}
