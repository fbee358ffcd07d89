// What looks, chases and songs are compiled on: the heads of a rig, and how their channels are written.

import type { Chase, Look } from '../light';
import { attributeOf, cellsOf, patchedFixtures, snaps, type Patched, type Rig, type Role } from '../rig';
import type { Show } from '../show';
import { inputBook } from './follower-inputs';
import { ABOVE, FIELDS, fieldOf, type Field } from './fields';
import { aimSolver, slotFinder, type Ground } from './ground';
import { headPlan, snapsOf } from './head-plan';
import type { SongBook } from './lanes';
import { lightMeter } from './light-meter';
import { MOST_OVERLAPPING, type Program, type Scratch } from './program';
import { lightShares, shinesIn } from './safety';
import { turnBook } from './turns';
import type { Maker } from './variants';
import { writerTable } from './write';
import { HEADS_AT_ONCE, MIX, type Head, type HeadPlan, type Play } from './parts';

/** What looks, chases and songs stand on, and what was made of them on it. */
export type Base = SongBook &
  Pick<Program, 'plans' | 'table' | 'meter' | 'universes' | 'overlapping' | 'fields' | 'casts' | 'scratch'> & {
    readonly room: Rig;
    readonly profiles: Show['profiles'];
    readonly aims: Show['aims'];
    readonly ground: Ground;
    readonly notes: Set<string>;
    readonly slowest: Float64Array;
    /** By the key of a variant. */
    readonly makers: Map<string, Maker>;
    readonly looks: WeakMap<Look, Play>;
    readonly chases: WeakMap<Chase, { readonly looks: readonly (Look | undefined)[]; readonly play: Play }>;
    kits?: { readonly of: Show['kits']; readonly struck: Program['struck'] };
    hands?: { readonly of: Show['roles']; readonly hand: Program['hand'] };
  };

const mostOf = ({ safety }: Show): number => (safety.on ? safety.most : Infinity);

export const standsOn = (base: Base, show: Show, room: Rig): boolean =>
  base.room === room && base.profiles === show.profiles && base.aims === show.aims && base.ground.most === mostOf(show);

export function* baseOf(show: Show, room: Rig): Generator<void, Base> {
  const patched = patchedFixtures(room, show.profiles);
  const universes = [...new Set(patched.map(({ fixture }) => fixture.universe as number))].sort((a, b) => a - b);
  const rolesOf = new Map<string, Role['id'][]>();
  for (const { role, fixtures } of room.casting)
    for (const fixture of fixtures) rolesOf.set(fixture, [...(rolesOf.get(fixture) ?? []), role]);
  const heads: Head[] = [];
  const headsByFixture = new Map<string, number[]>();
  for (const [lamp, one] of patched.entries()) {
    if (lamp % HEADS_AT_ONCE === 0) yield;
    for (const head of headsOf(one, rolesOf.get(one.fixture.id) ?? [])) {
      const known = headsByFixture.get(one.fixture.id);
      if (known) known.push(heads.length);
      else headsByFixture.set(one.fixture.id, [heads.length]);
      heads.push(head);
    }
  }
  const notes = new Set<string>();
  for (const fixture of room.fixtures)
    if (!headsByFixture.has(fixture.id)) notes.add(`${fixture.name}: its type or mode is missing`);
  yield;
  const fields = fieldsFor(heads);
  yield;
  const ground: Ground = {
    inputFor: inputBook(mostOf(show)),
    most: mostOf(show),
    shares: lightShares(heads),
    shines: shinesIn(fields.map(({ name }) => name)),
    heads,
    fields,
    casts: new Map(
      room.casting.map(({ role, fixtures }) => [role, [...new Set(fixtures)].filter((id) => headsByFixture.has(id))]),
    ),
    headsOf: headsByFixture,
    ownFields: new Map(fields.flatMap((field, i) => (i >= FIELDS.length ? [[field.name, i] as const] : []))),
    aimed: aimSolver(show, (note) => notes.add(note)),
    slotOf: slotFinder(),
  };
  const plans: HeadPlan[] = [];
  for (const head of heads) {
    plans.push(headPlan(head, plans.length, universes, ground.ownFields, fields));
    if (plans.length % HEADS_AT_ONCE === 0) yield;
  }
  yield;
  const table = yield* writerTable(plans);
  const meter = yield* lightMeter(heads, plans, ground.shares);
  yield;
  const overlapping = overlapsIn(patched);
  yield;
  return {
    room,
    profiles: show.profiles,
    aims: show.aims,
    ground,
    plans,
    table,
    meter,
    universes,
    notes,
    overlapping,
    fields,
    casts: castsOf(room, headsByFixture),
    slowest: Float64Array.from(plans, slowestStrobe),
    scratch: scratchFor(heads.length),
    looks: new WeakMap(),
    chases: new WeakMap(),
    songs: new WeakMap(),
    lanes: new WeakMap(),
    makers: new Map(),
    spreads: new WeakMap(),
    gains: new WeakMap(),
    used: new WeakMap(),
    turns: turnBook(plans),
  };
}

function headsOf({ fixture, profile, mode }: Patched, roles: readonly Role['id'][]): Head[] {
  const cells = cellsOf(mode);
  return Array.from({ length: cells }, (_, cell) => ({
    fixture,
    profile,
    mode,
    cell,
    cells,
    mount: fixture.mount,
    roles,
  }));
}

/** What looks set in ways of its own. */
const SET_APART = new Set(['Dimmer', 'Pan', 'Tilt', 'Reserved']);

/** The fields of every program, then one for each attribute that a lamp here has. */
function fieldsFor(heads: readonly Head[]): readonly Field[] {
  const bySnaps = heads.map(snapsOf);
  const known = FIELDS.map((kind, f) => fieldOf(kind, heads.length, (head) => bySnaps[head]![f]!));
  const attributes = new Set(heads.flatMap(({ mode }) => mode.channels.map((channel) => channel.attribute)));
  const own = [...attributes]
    .filter((attribute) => !SET_APART.has(attribute))
    .map((name) => {
      const snap = attributeOf(name).snap ?? false;
      const jumps = (head: number) => {
        const channel = heads[head]!.mode.channels.find((one) => one.attribute === name);
        return channel ? snaps(channel) : snap;
      };
      return fieldOf({ name, home: [0], snap }, heads.length, jumps);
    });
  return [...known, ...own];
}

function castsOf(room: Rig, headsByFixture: ReadonlyMap<string, readonly number[]>): Program['casts'] {
  return new Map(
    room.casting.map(({ role, fixtures }) => [
      role,
      Int32Array.from(fixtures.flatMap((fixture) => headsByFixture.get(fixture) ?? [])),
    ]),
  );
}

function overlapsIn(patched: readonly Patched[]): ReadonlySet<string> {
  const owner = new Map<number, string>();
  const found = new Set<string>();
  for (const { fixture, mode } of patched) {
    for (const place of mode.channels.flatMap((channel) => channel.at)) {
      const at = fixture.universe * 1024 + fixture.address + place - 1;
      const other = owner.get(at);
      if (other !== undefined && other !== fixture.id) found.add(other).add(fixture.id);
      owner.set(at, fixture.id);
    }
  }
  return found;
}

/** In Hz; a lamp that strobes by its level, or not at all, has no slowest. */
function slowestStrobe({ writers }: HeadPlan): number {
  return writers.find(({ kind }) => kind === 'shutter')?.shutter[3] ?? 0;
}

function scratchFor(heads: number): Scratch {
  return {
    masters: new Float64Array(heads),
    mixedAims: new Uint8Array(heads),
    laneMixedAims: new Uint8Array(heads),
    keptMixedAims: new Uint8Array(heads),
    timing: { rise: 1, fall: 1, at: 0, begin: 0, from: 0, to: 1, end: Infinity, pulse: 0.5, leaving: false, scale: 1 },
    linear: new Float64Array(3),
    heights: new Float64Array(heads),
    mixes: new Float64Array(heads * MIX),
    mixed: new Float64Array(heads * 3).fill(-1),
    place: new Int32Array(3),
    turned: new Float64Array(3),
    now: new Float64Array(4),
    lefts: new Float64Array(MOST_OVERLAPPING),
    position: { step: -1, before: -1, share: 1, ended: true },
    pace: 2,
    run: { beat: 0, time: 0, speed: 1, size: 1 },
    layer: ABOVE,
  };
}
