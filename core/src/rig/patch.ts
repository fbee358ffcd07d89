// Addresses: how long a lamp is, where it ends, who overlaps whom, and how its switches are set.

import { address, type Address } from '../units';
import { attributeOf } from './attributes';
import type { Fixture, Mode, Profile, Range, Rig } from './schema';

/** Channels a mode takes, from 1. */
export function footprint(mode: Mode): number {
  return mode.channels.reduce((most, channel) => Math.max(most, ...channel.at), 0);
}

export function modeOf(profile: Profile, fixture: Fixture): Mode | undefined {
  return profile.modes.find((mode) => mode.id === fixture.mode);
}

/** How many cells with light of their own a mode has; 1 for a lamp that is one. */
export function cellsOf(mode: Mode): number {
  return 1 + mode.channels.reduce((most, channel) => Math.max(most, channel.cell ?? 0), 0);
}

/** Acts of a lamp that hurt by accident. */
const HURTS: readonly Range['does'][] = ['reset', 'lamp on', 'lamp off'];

/**
 * Channels, from 1, by which a lamp is seen where it stands: its dimmer and emitters. One that has neither is seen by all
 * but what moves it, resets it, or puts its light out; where that is nothing, by all it has.
 */
export function seenBy({ channels }: Mode): readonly number[] {
  const lights = channels.filter(({ attribute }) => attribute === 'Dimmer' || attribute.startsWith('ColorAdd_'));
  const harmless = channels.filter(
    ({ attribute, ranges }) =>
      attributeOf(attribute).family !== 'aim' &&
      attribute !== 'LampControl' &&
      !ranges.some(({ does }) => HURTS.includes(does)),
  );
  const seen = [lights, harmless, channels].find(({ length }) => length > 0)!;
  return seen.flatMap(({ at }) => at);
}

/** So many lamps and cells are rendered well within a frame. */
export const MOST_LIGHTS = 12_000;

/** What is too much in a rig, in words; undefined where nothing is. */
export function tooMuchIn(rig: Rig, profiles: readonly Profile[]): string | undefined {
  const lights = patchedFixtures(rig, profiles).reduce((sum, { mode }) => sum + cellsOf(mode), 0);
  return lights > MOST_LIGHTS
    ? `“${rig.name}” has ${lights} lamps and cells, there may be ${MOST_LIGHTS} in a rig`
    : undefined;
}

/** A fixture with its type and mode found, or what is missing. */
export type Patched = { readonly fixture: Fixture; readonly profile: Profile; readonly mode: Mode };

/** The fixtures whose type and mode are known, in the rig's order. */
export function patchedFixtures(rig: Rig, profiles: readonly Profile[]): readonly Patched[] {
  const byId = new Map(profiles.map((profile) => [profile.id, profile]));
  return rig.fixtures.flatMap((fixture) => {
    const profile = byId.get(fixture.profile);
    const mode = profile && modeOf(profile, fixture);
    return profile && mode ? [{ fixture, profile, mode }] : [];
  });
}

/** Two lamps of one type and mode on one address: they move as one, on purpose. */
export function areTwins(a: Fixture, b: Fixture): boolean {
  return a.universe === b.universe && a.address === b.address && a.profile === b.profile && a.mode === b.mode;
}

/** Pairs of fixtures that share at least one channel of one universe without being twins, each pair once. */
export function overlaps(patched: readonly Patched[]): readonly (readonly [Fixture, Fixture])[] {
  const sorted = [...patched].sort(
    (a, b) => a.fixture.universe - b.fixture.universe || a.fixture.address - b.fixture.address,
  );
  return sorted.flatMap((first, i) => {
    const end = first.fixture.address + footprint(first.mode);
    const pairs: (readonly [Fixture, Fixture])[] = [];
    for (let j = i + 1; j < sorted.length; j++) {
      const second = sorted[j]!.fixture;
      if (second.universe !== first.fixture.universe || second.address >= end) break;
      if (!areTwins(first.fixture, second)) pairs.push([first.fixture, second]);
    }
    return pairs;
  });
}

/** The first address at which `length` channels are free in a universe, or undefined when there is no such gap. */
export function nextFree(patched: readonly Patched[], universe: number, length: number): Address | undefined {
  const taken = new Uint8Array(513);
  for (const { fixture, mode } of patched)
    if (fixture.universe === universe) taken.fill(1, fixture.address, Math.min(513, fixture.address + footprint(mode)));
  for (let start = 1, run = 0; start <= 512; start++) {
    run = taken[start] ? 0 : run + 1;
    if (run === length) return address(start - length + 1);
  }
  return undefined;
}

/** The nine address switches of a lamp, lowest first; switch n is worth 2^(n-1) and the sum is the address. */
export function dipSwitches(at: Address): readonly boolean[] {
  return Array.from({ length: 9 }, (_, bit) => ((at >> bit) & 1) === 1);
}
