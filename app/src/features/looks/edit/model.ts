// What can be shaped with the lamps that are chosen, worked out without React.

import { chromaticityFromHex, hexFromChromaticity, type Chromaticity } from '@hovlix/core/colour';
import { colourMatch } from '@hovlix/core/engine';
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

/** Our own list of colours, as one would ask for gels. */
export const SWATCHES: readonly { readonly name: string; readonly colour: Chromaticity }[] = (
  [
    ['Candlelight', '#ffb46b'],
    ['Warm white', '#ffcf9a'],
    ['White', '#ffffff'],
    ['Cool white', '#d8e8ff'],
    ['Red-orange', '#ff3a1a'],
    ['Red', '#ff1030'],
    ['Amber', '#ffa024'],
    ['Yellow', '#ffd24a'],
    ['Lime', '#9cff3a'],
    ['Green', '#18d860'],
    ['Turquoise', '#12d6c8'],
    ['Cyan', '#27d4ff'],
    ['Blue', '#2a62ff'],
    ['Deep blue', '#2416ff'],
    ['Violet', '#9a4dff'],
    ['Magenta', '#ff4fd0'],
    ['Pink', '#ff5a8a'],
    ['Pale pink', '#ffb0b8'],
  ] as const
).map(([name, hex]) => ({ name, colour: chromaticityFromHex(hex) }));

/** How near the chosen lamps come to a colour: one line for those that meet it, one for each that only comes near. */
export function matchLines(lamps: readonly Patched[], colour: Chromaticity): readonly string[] {
  const near: string[] = [];
  let exact = 0;
  let fixed = 0;
  for (const lamp of lamps) {
    const match = colourMatch(lamp, colour);
    if (match.how === 'none') fixed++;
    else if (match.how === 'gel') near.push(`${lamp.fixture.name} has a gel, ${match.off.toFixed(0)} off: only its level follows`);
    else if (match.off < 2) exact++;
    else if (match.how === 'wheel') near.push(`${lamp.fixture.name} takes ${match.name} from its wheel, ${match.off.toFixed(0)} off`);
    else near.push(`${lamp.fixture.name} mixes it ${match.off.toFixed(0)} off`);
  } // prettier-ignore
  const all = exact === lamps.length && exact > 0 ? ['All lamps mix this colour.'] : [];
  const some = exact > 0 && exact < lamps.length ? [`${exact} of ${lamps.length} lamps mix it.`] : [];
  const same = near.length > 3 ? [...near.slice(0, 3), `and ${near.length - 3} more come only near`] : near;
  const none = fixed > 0 ? [`${fixed} ${fixed === 1 ? 'lamp has' : 'lamps have'} one colour only.`] : [];
  return [...all, ...some, ...same, ...none];
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
