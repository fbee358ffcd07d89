// Taking a show to another room: who plays which role there, and what each role loses.

import { namedIn } from '../light/drive';
import type { Chase, Look, LookValue } from '../light/schema';
import { patchedFixtures, type Patched } from './patch';
import type { Casting, Channel, Role, Profile, Rig } from './schema';

/** What a lamp can do of what looks ask for. */
export type Ability = {
  readonly light: boolean;
  readonly colour: 'any' | 'wheel' | 'none';
  readonly aim: boolean;
  readonly strobe: boolean;
  readonly gobo: boolean;
  readonly zoom: boolean;
  readonly haze: boolean;
};

export function abilityOf({ profile, mode }: Pick<Patched, 'profile' | 'mode'>): Ability {
  const has = (attribute: string) => mode.channels.some((channel: Channel) => channel.attribute === attribute);
  const mixes =
    ['R', 'G', 'B'].every((name) => has(`ColorAdd_${name}`)) ||
    ['C', 'M', 'Y'].every((name) => has(`ColorSub_${name}`)) ||
    (has('HSB_Hue') && has('HSB_Saturation'));
  const light =
    has('Dimmer') || mode.channels.some(({ attribute }) => attribute.startsWith('ColorAdd_')) || has('Shutter1');
  return {
    light: light && profile.kind !== 'hazer',
    colour: mixes ? 'any' : has('Color1') ? 'wheel' : 'none',
    aim: profile.panRange > 0 && has('Pan'),
    strobe: has('Shutter1') || (light && profile.strobesByLevel),
    gobo: has('Gobo1'),
    zoom: has('Zoom'),
    haze: has('Fog1'),
  };
}

export type Asked = 'level' | 'colour' | 'aim' | 'strobe' | 'gobo' | 'zoom' | 'haze';

export type Loss =
  | { readonly code: 'nobody' }
  | { readonly code: 'fewer'; readonly from: number; readonly to: number }
  | { readonly code: 'lost'; readonly what: Asked; readonly lamps: number; readonly of: number }
  | { readonly code: 'nearest colour'; readonly lamps: number; readonly of: number };

export type RoleReport = {
  readonly role: Role;
  /** What the show's looks ask of this role at all; a role nobody asks loses nothing. */
  readonly asked: readonly Asked[];
  readonly losses: readonly Loss[];
};

type Showing = {
  readonly profiles: readonly Profile[];
  readonly roles: readonly Role[];
  readonly looks: readonly Look[];
  readonly chases: readonly Chase[];
};

/**
 * What each role loses from one rig to another. `casting` is who would play it there. A lamp that never could do a
 * thing in the old rig is no loss in the new one.
 */
export function castingReport(show: Showing, from: Rig, to: Rig, casting: readonly Casting[]): readonly RoleReport[] {
  const here = abilities(show, from);
  const there = abilities(show, to);
  return show.roles.map((role) => {
    const asked = askedOf(show, role);
    const was = castOf(from.casting, role, here);
    const is = castOf(casting, role, there);
    return { role, asked, losses: asked.length === 0 ? [] : lossesOf(asked, was, is) };
  });
}

/** What looks and chases say to a role. */
export function askedOf({ looks, chases }: Pick<Showing, 'looks' | 'chases'>, role: Role): readonly Asked[] {
  const made = [...looks, ...chases.flatMap((chase) => chase.steps)];
  const values = made.flatMap((one) => one.values.filter((value) => value.role === role.id));
  return ASKED.filter((what) => values.some((value) => asks(value, what)));
}

const ASKED: readonly Asked[] = ['level', 'colour', 'aim', 'strobe', 'gobo', 'zoom', 'haze'];

function asks(value: LookValue, what: Asked): boolean {
  const drive = value[what];
  const moving = [...(value.waves ?? []), ...(value.followers ?? [])];
  if (moving.some((one) => MOVED_BY[what]?.includes('on' in one ? one.on : one.type))) return true;
  if (!drive) return false;
  // Asking for a steady, open beam asks for nothing.
  if (what !== 'strobe' && what !== 'gobo') return true;
  return namedIn<unknown>(drive).some((one) => one !== 0);
}

/** Which waves and followers ask for what. */
const MOVED_BY: Readonly<Partial<Record<Asked, readonly string[]>>> = {
  level: ['level'],
  colour: ['hue', 'colours'],
  aim: ['pan', 'tilt', 'move'],
  strobe: ['strobe'],
  zoom: ['zoom'],
  haze: ['haze'],
};

function abilities(show: Showing, rig: Rig): ReadonlyMap<string, Ability> {
  return new Map(patchedFixtures(rig, show.profiles).map((one) => [one.fixture.id as string, abilityOf(one)]));
}

function castOf(casting: readonly Casting[], role: Role, known: ReadonlyMap<string, Ability>): readonly Ability[] {
  const fixtures = casting.find((cast) => cast.role === role.id)?.fixtures ?? [];
  return fixtures.flatMap((fixture) => known.get(fixture) ?? []);
}

function lossesOf(asked: readonly Asked[], was: readonly Ability[], is: readonly Ability[]): readonly Loss[] {
  if (is.length === 0) return [{ code: 'nobody' }];
  const losses: Loss[] = [];
  if (is.length < was.length) losses.push({ code: 'fewer', from: was.length, to: is.length });
  for (const what of asked) {
    if (was.length > 0 && !was.some((ability) => can(ability, what))) continue;
    const without = is.filter((ability) => !can(ability, what)).length;
    if (without > 0) losses.push({ code: 'lost', what, lamps: without, of: is.length });
  }
  const wheels = is.filter((ability) => ability.colour === 'wheel').length;
  if (asked.includes('colour') && wheels > 0 && was.some((ability) => ability.colour === 'any'))
    losses.push({ code: 'nearest colour', lamps: wheels, of: is.length });
  return losses;
}

function can(ability: Ability, what: Asked): boolean {
  if (what === 'level') return ability.light;
  return what === 'colour' ? ability.colour !== 'none' : ability[what];
}

/** A loss, and the closest thing that happens instead, in words. */
export function lossWords(loss: Loss): string {
  switch (loss.code) {
    case 'nobody':
      return 'Nobody plays it: what it does is not seen.';
    case 'fewer':
      return `${loss.to} ${loss.to === 1 ? 'lamp' : 'lamps'} instead of ${loss.from}: values repeat over fewer lamps.`;
    case 'nearest colour':
      return `${some(loss.lamps, loss.of)} a colour wheel: the nearest slot is taken.`;
    case 'lost':
      return `${some(loss.lamps, loss.of)} ${LOST[loss.what]}`;
  }
}

const LOST: Readonly<Record<Asked, string>> = {
  level: 'no light to dim: it stays dark.',
  colour: 'one colour only: they follow the level.',
  aim: 'no pan and tilt: they shine where they point.',
  strobe: 'no strobe: they shine steadily.',
  gobo: 'no gobos: the beam is open.',
  zoom: 'no zoom: the beam keeps its width.',
  haze: 'no fog: nothing happens.',
};

function some(lamps: number, of: number): string {
  return lamps === of ? (of === 1 ? 'It has' : `All ${of} have`) : `${lamps} of ${of} ${lamps === 1 ? 'has' : 'have'}`;
}

/**
 * Who could play what in another room. A role that is cast there already stays so; else the lamps that can most of what
 * the role is asked and hang where its lamps hung, front or back. A lamp may be given to several roles.
 */
export function suggestedCasting(show: Showing, from: Rig, to: Rig): readonly Casting[] {
  const here = new Map(patchedFixtures(from, show.profiles).map((one) => [one.fixture.id as string, one]));
  const there = patchedFixtures(to, show.profiles);
  return show.roles.flatMap((role) => {
    const own = to.casting.find((cast) => cast.role === role.id);
    if (own && own.fixtures.length > 0) return [own];
    const asked = askedOf(show, role);
    const was = (from.casting.find((cast) => cast.role === role.id)?.fixtures ?? []).flatMap(
      (id) => here.get(id) ?? [],
    );
    if (asked.length === 0 || was.length === 0) return [];
    const scored = there.map((one) => ({ one, score: likeness(one, was, asked) }));
    const best = Math.max(0, ...scored.map(({ score }) => score));
    const fixtures = scored.filter(({ score }) => best > 0 && score >= best - 0.5).map(({ one }) => one.fixture.id);
    return fixtures.length > 0 ? [{ role: role.id, fixtures }] : [];
  });
}

function likeness(lamp: Patched, was: readonly Patched[], asked: readonly Asked[]): number {
  const ability = abilityOf(lamp);
  if (asked.includes('haze') !== ability.haze) return 0;
  const able = asked.filter((what) => can(ability, what)).length / asked.length;
  if (able === 0) return 0;
  const kind = was.some(({ profile }) => profile.kind === lamp.profile.kind) ? 1.5 : 0;
  const front = (one: Patched) => one.fixture.mount.y < 1;
  const side = was.filter((one) => front(one) === front(lamp)).length / was.length;
  return able * 3 + kind + side;
}
