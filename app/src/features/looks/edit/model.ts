// What can be shaped with the lamps that are chosen, worked out without React.

import { hexFromChromaticity, type Chromaticity } from '@hovlix/core/colour';
import { colourMatch } from '@hovlix/core/picture';
import {
  FAMILIES,
  familiesOf,
  movingWords,
  whoWords,
  type Family,
  type LookValue,
  type Setting,
} from '@hovlix/core/light';
import { attributeOf, patchedFixtures, type Patched, type Range } from '@hovlix/core/rig';
import { rigInUse, type Show } from '@hovlix/core/show';
import { WORDS } from './words';

export const FAMILY_NAMES: Readonly<Record<Family, string>> = {
  level: 'Level',
  colour: 'Colour',
  aim: 'Aim',
  beam: 'Beam',
  rate: 'Rate',
  other: 'Other',
};

export const familyOf = (attribute: string): Family => attributeOf(attribute).family;

/** The chosen lamps in the order they were chosen in, with their types. */
export function chosenLamps(show: Show, chosen: readonly string[]): readonly Patched[] {
  const known = new Map(patchedFixtures(rigInUse(show), show.profiles).map((one) => [one.fixture.id as string, one]));
  return chosen.flatMap((id) => known.get(id) ?? []);
}

/** One more attribute that some of the chosen lamps have, with what its ranges are called. */
export type Own = {
  readonly attribute: string;
  readonly name: string;
  readonly ranges: readonly {
    readonly name: string;
    readonly setting: Setting;
    readonly range: Range;
    /** Of a slot of a colour wheel. */
    readonly hex?: string;
  }[];
  readonly lamps: number;
};

/** What has a control of its own elsewhere on the screen. */
const ELSEWHERE = new Set(['Dimmer', 'Pan', 'Tilt', 'Zoom', 'Fog1', 'Gobo1', 'Reserved']);

/** The further attributes of one family, in the order of the lamps' channels. */
export function ownAttributes(lamps: readonly Patched[], family: Family): readonly Own[] {
  const found = new Map<string, { ranges: Map<string, Own['ranges'][number]>; lamps: number }>();
  for (const { mode, profile } of lamps) {
    const seen = new Set<string>();
    for (const { attribute, ranges } of mode.channels) {
      if (ELSEWHERE.has(attribute) || familyOf(attribute) !== family) continue;
      const own = found.get(attribute) ?? { ranges: new Map<string, Own['ranges'][number]>(), lamps: 0 };
      found.set(attribute, own);
      if (!seen.has(attribute)) own.lamps++;
      seen.add(attribute);
      for (const range of ranges) {
        const slot = attribute === 'Color1' && range.slot !== undefined ? profile.colours[range.slot] : undefined;
        const name = slot?.name ?? range.name ?? range.does;
        const setting: Setting = slot ? { does: range.does, slot: range.slot! } : { range: name };
        const key = name.toLowerCase();
        if (!own.ranges.has(key))
          own.ranges.set(key, { name, setting, range, ...(slot ? { hex: hexFromChromaticity(slot.colour) } : {}) });
      }
    }
  }
  return [...found].map(([attribute, { ranges, lamps: count }]) => ({
    attribute,
    name: attributeOf(attribute).name,
    ranges: [...ranges.values()],
    lamps: count,
  }));
}

/** Lamps of one type that come equally near to a colour. */
export type MatchGroup = {
  readonly key: string;
  /** Their type, or the lamp's own name where it is alone. */
  readonly name: string;
  readonly count: number;
  /** What they make of it; null for lamps of one unknown colour. */
  readonly hex: string | null;
  readonly words: string;
  /** Nobody will notice that it is another. */
  readonly exact: boolean;
};

/** Below it nobody notices (CIEDE2000). */
const UNNOTICED = 2;

/** How near the chosen lamps come to a colour, type by type, in the order they were chosen in. */
export function matchGroups(lamps: readonly Patched[], colour: Chromaticity): readonly MatchGroup[] {
  const groups = new Map<string, MatchGroup>();
  for (const lamp of lamps) {
    const match = colourMatch(lamp, colour);
    const exact = match.how !== 'none' && match.how !== 'gel' && match.off < UNNOTICED;
    const far = match.how === 'none' ? '' : exact ? WORDS.matches : WORDS.off(match.off.toFixed(0));
    const words =
      match.how === 'none'
        ? WORDS.oneColourOnly
        : match.how === 'gel'
          ? WORDS.itsGel(far)
          : match.how === 'wheel'
            ? WORDS.fromWheel(match.name, far)
            : far;
    const hex = match.how === 'none' ? null : match.hex;
    const key = `${lamp.profile.id} ${words} ${hex ?? ''}`;
    const before = groups.get(key);
    const name = before ? lamp.profile.label : lamp.fixture.name;
    groups.set(key, { key, name, count: (before?.count ?? 0) + 1, hex, words, exact });
  }
  return [...groups.values()];
}

/** The same in a sentence. */
export function matchWords(groups: readonly MatchGroup[]): string {
  const count = (some: readonly MatchGroup[]) => some.reduce((sum, one) => sum + one.count, 0);
  const [all, exact] = [count(groups), count(groups.filter((one) => one.exact))];
  if (exact === all) return all === 1 ? WORDS.lampMatches : WORDS.allMatch;
  return exact === 0 ? WORDS.noneMatches : WORDS.someMatch(exact, all);
}

/** What is in hand, one line for each value: “Front wash, odd: level, colour”. */
export function draftLines(
  values: readonly LookValue[],
  roles: readonly { readonly id: string; readonly name: string }[],
): readonly string[] {
  return values.map((value) => {
    const said = familiesOf(value, familyOf);
    const families = FAMILIES.filter((family) => said.has(family)).map((family) => FAMILY_NAMES[family].toLowerCase());
    const moving = movingWords([value]);
    return `${whoWords(value, roles)}: ${[...families, ...(moving ? [moving] : [])].join(', ')}`;
  });
}
