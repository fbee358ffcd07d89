// A look in the making: saying something to some lamps, so that it is heard.

import { counted } from '../counted';
import { own } from '../own';
import type { Casting } from '../rig/schema';
import type { Follower } from './follow';
import { ASPECTS, type FAMILIES, type LookValue } from './schema';
import type { Wave } from './wave';
import { lampsOf, whoKey, type Who } from './who';

/** What is said: aspects to set, or undefined to leave them alone from now on; `more` by attribute likewise. */
export type Saying = {
  readonly [K in keyof Omit<LookValue, 'role' | 'pick' | 'lamps' | 'more'>]?: LookValue[K] | undefined;
} & { readonly more?: { readonly [attribute: string]: NonNullable<LookValue['more']>[string] | undefined } };

type Values = readonly LookValue[];

/**
 * The values after something was said to some lamps. What narrower values said about the same is taken back, so that
 * “all red” makes all red; a broader one stays and is heard where nothing else is said.
 */
export function saidTo(values: Values, who: Who, saying: Saying, casting: readonly Casting[]): Values {
  const key = whoKey(who);
  const meant = new Set<string>(lampsOf(who, casting));
  const lamps = new Map(values.map((value) => [value, lampsOf(value, casting)]));
  const covered = (value: LookValue) => {
    const own = lamps.get(value)!;
    return own.length > 0 && own.every((lamp) => meant.has(lamp));
  };
  const place = values.findIndex((value) => whoKey(value) === key);
  const before = place >= 0 ? values[place]! : { ...who };
  const after = withSaying(before, saying);
  const others = values.map((value) =>
    value !== before && covered(value) ? withSaying(value, silence(saying)) : value,
  );
  const hidden =
    place >= 0 &&
    values.slice(place + 1).some((value) => !covered(value) && lamps.get(value)!.some((lamp) => meant.has(lamp)));
  const placed =
    place < 0 || hidden
      ? [...others.filter((_, i) => i !== place), after]
      : others.map((value, i) => (i === place ? after : value));
  return placed.filter(setsAnything);
}

/** The same keys, all taken back. */
function silence(saying: Saying): Saying {
  const { more, ...rest } = saying;
  const mute = (of: object) => Object.fromEntries(Object.keys(of).map((key) => [key, undefined]));
  return { ...mute(rest), ...(more ? { more: mute(more) } : {}) };
}

function withSaying(value: LookValue, { more, ...rest }: Saying): LookValue {
  const merged = { ...value.more, ...more };
  const kept = Object.entries(merged).filter((entry) => entry[1] !== undefined);
  const after = { ...value, ...rest, more: kept.length > 0 ? Object.fromEntries(kept) : undefined };
  return Object.fromEntries(Object.entries(after).filter((entry) => entry[1] !== undefined)) as LookValue;
}

/** Whether a value sets anything at all. */
export function setsAnything(value: LookValue): boolean {
  return ASPECTS.some((aspect) => value[aspect]) || value.more !== undefined || movingIn(value).length > 0;
}

/**
 * All that a value says, to be said to other lamps.
 * @param over what those lamps were told before: whatever of it the value is silent about is taken back.
 */
export function saidAgain(value: LookValue, over: Values = []): Saying {
  const { role: _part, pick: _pick, lamps: _lamps, ...said } = value;
  const known = over.flatMap(({ more }) => Object.keys(more ?? {}));
  const mute = Object.fromEntries([...ASPECTS, 'waves', 'followers', 'times'].map((key) => [key, undefined]));
  const more = { ...Object.fromEntries(known.map((attribute) => [attribute, undefined])), ...said.more };
  return { ...mute, ...said, more };
}

/** Waves and followers of a value. */
export function movingIn(value: LookValue): readonly (Wave | Follower)[] {
  return [...(value.waves ?? []), ...(value.followers ?? [])];
}

/** How much of values moves by itself, in words: “2 waves, 1 follower”; nothing where nothing moves. */
export function movingWords(values: Values): string {
  const some = (count: number, word: string) => (count > 0 ? [counted(count, word)] : []);
  const waves = values.reduce((sum, value) => sum + (value.waves?.length ?? 0), 0);
  const followers = values.reduce((sum, value) => sum + (value.followers?.length ?? 0), 0);
  return [...some(waves, 'wave'), ...some(followers, 'follower')].join(', ');
}

/** What all of the given lamps hear together: from values that are for each of them, later ones over earlier ones. */
export function heardBy(values: Values, who: Who, casting: readonly Casting[]): LookValue {
  const meant = lampsOf(who, casting);
  const key = whoKey(who);
  const heard = values.filter((value) => {
    if (whoKey(value) === key) return true;
    const own = new Set<string>(lampsOf(value, casting));
    return meant.length > 0 && meant.every((lamp) => own.has(lamp));
  });
  return heard.reduce<LookValue>((sum, { role: _p, pick: _k, lamps: _l, ...said }) => {
    const more = { ...sum.more, ...said.more };
    return { ...sum, ...said, ...(Object.keys(more).length > 0 ? { more } : {}) };
  }, who);
}

export type Family = (typeof FAMILIES)[number];

/** The families of all that has a word of its own: aspects, what waves move, and the engine's fields. */
const FAMILIES_BY_NAME: Readonly<Record<string, Family>> = {
  level: 'level',
  colour: 'colour',
  colours: 'colour',
  hue: 'colour',
  slot: 'colour',
  aim: 'aim',
  move: 'aim',
  pan: 'aim',
  tilt: 'aim',
  gobo: 'beam',
  zoom: 'beam',
  strobe: 'rate',
  haze: 'other',
};

/** The family of a name of ours, or of an attribute by its GDTF name, which `familyOf` knows. */
export function familyOfName(name: string, familyOf: (attribute: string) => Family): Family {
  return own(FAMILIES_BY_NAME, name) ?? familyOf(name);
}

/** @param familyOf the family of an attribute by its GDTF name. */
export function familiesOf(value: LookValue, familyOf: (attribute: string) => Family): ReadonlySet<Family> {
  const found = new Set<Family>();
  for (const aspect of ASPECTS) if (value[aspect]) found.add(familyOfName(aspect, familyOf));
  for (const attribute of Object.keys(value.more ?? {})) found.add(familyOf(attribute));
  for (const moving of movingIn(value)) found.add(movedFamily(moving, familyOf));
  return found;
}

/** The attributes that values set, by our names and GDTF names, in the order in which we list them. */
export function namesSaid(values: Values): readonly string[] {
  const own = values.flatMap(({ more }) => Object.keys(more ?? {}));
  return [...ASPECTS.filter((aspect) => values.some((value) => value[aspect])), ...new Set(own)];
}

function movedFamily(moving: Wave | Follower, familyOf: (attribute: string) => Family): Family {
  return familyOfName('on' in moving ? moving.on : moving.type, familyOf);
}

/** Only what the values say in some families. */
export function inFamilies(
  values: Values,
  families: ReadonlySet<Family>,
  familyOf: (attribute: string) => Family,
): Values {
  return values
    .map((value) => {
      const out: Record<string, undefined> = {};
      for (const aspect of ASPECTS) if (!families.has(familyOfName(aspect, familyOf))) out[aspect] = undefined;
      const mute = Object.keys(value.more ?? {}).filter((attribute) => !families.has(familyOf(attribute)));
      const within = (moving: Wave | Follower) => families.has(movedFamily(moving, familyOf));
      const waves = value.waves?.filter(within);
      const followers = value.followers?.filter(within);
      return withSaying(value, {
        ...out,
        more: Object.fromEntries(mute.map((attribute) => [attribute, undefined])),
        waves: waves && waves.length > 0 ? waves : undefined,
        followers: followers && followers.length > 0 ? followers : undefined,
      });
    })
    .filter(setsAnything);
}
