// How our ranges are said in channel functions, and channel functions in our ranges (DIN SPEC 15800, annex A).

import type { Range } from '../../rig';

/** A stretch of a channel as GDTF has it: an attribute with its physical ends, perhaps a slot of a wheel. */
export type Stretch = {
  readonly attribute: string;
  readonly from: number;
  readonly to: number;
  readonly physicalFrom: number;
  readonly physicalTo: number;
  readonly name: string;
  /** Counted from 1, as in the file; 0 for none. */
  readonly slot: number;
};

const isWheel = (attribute: string) => /^(Color|Gobo)\d$/.test(attribute);
const RPM_TO_DEGREES_A_SECOND = 6;

/** The channel function for a range on a channel of this attribute. */
export function stretchOf(range: Range, attribute: string): Stretch {
  const { from, to, name = '', low, high } = range;
  const as = (of: string, physicalFrom: number, physicalTo: number, slot = 0): Stretch => ({
    attribute: of,
    from,
    to,
    physicalFrom,
    physicalTo,
    name,
    slot,
  });
  switch (range.does) {
    case 'open':
      return isWheel(attribute) ? as(attribute, 0, 0, (range.slot ?? 0) + 1) : as(attribute, 1, 1);
    case 'closed':
      return as(attribute, 0, 0);
    case 'slot':
      return as(attribute, 0, 0, (range.slot ?? 0) + 1);
    case 'strobe':
      return as(`${attribute}Strobe`, low ?? 1, high ?? 20);
    case 'rotate': {
      const spin = isWheel(attribute) ? `${attribute}WheelSpin` : `${attribute}Rotate`;
      return as(spin, (low ?? 0) * RPM_TO_DEGREES_A_SECOND, (high ?? 0) * RPM_TO_DEGREES_A_SECOND);
    }
    case 'shake':
      return as(`${attribute}SelectShake`, low ?? 0, high ?? 0);
    case 'index':
      return as(isWheel(attribute) ? `${attribute}WheelIndex` : attribute, low ?? 0, high ?? 360);
    case 'level':
      return as(attribute, low ?? 0, high ?? 1);
    case 'reset':
      return as('FixtureGlobalReset', 0, 1);
    case 'lamp on':
      return as('LampOn', 0, 1);
    case 'lamp off':
      return as('LampOff', 0, 1);
    case 'nothing':
      return as('NoFeature', 0, 0);
  }
}

/** What dims a lamp on a channel of whatever name. */
const LEVELS: ReadonlySet<string> = new Set(['Dimmer', 'HSB_Brightness']);

/** Our range for a channel function on a channel of this attribute. */
export function rangeOfStretch(stretch: Stretch, attribute: string): Range {
  const { from, to, physicalFrom, physicalTo, name } = stretch;
  const as = (range: Omit<Range, 'from' | 'to' | 'name'>): Range => ({ from, to, ...(name ? { name } : {}), ...range });
  const of = stretch.attribute;
  const ends = { low: physicalFrom, high: physicalTo };
  if (of === 'NoFeature') return as({ does: 'nothing' });
  if (/Reset$/.test(of)) return as({ does: 'reset', hold: 5 });
  if (of === 'LampOn') return as({ does: 'lamp on', hold: 3 });
  if (of === 'LampOff') return as({ does: 'lamp off', hold: 3 });
  if (/Shake/.test(of)) return as({ does: 'shake', ...ends });
  if (/Strobe/.test(of)) return as({ does: 'strobe', ...ends });
  if (/(Spin|Rotate)/.test(of))
    return as({
      does: 'rotate',
      low: physicalFrom / RPM_TO_DEGREES_A_SECOND,
      high: physicalTo / RPM_TO_DEGREES_A_SECOND,
    });
  if (isWheel(attribute)) {
    if (/Index/.test(of)) return as({ does: 'index', ...ends });
    if (stretch.slot > 0) return as({ does: stretch.slot === 1 ? 'open' : 'slot', slot: stretch.slot - 1 });
    return as({ does: 'nothing' });
  }
  if (physicalFrom === physicalTo && (physicalTo === 0 || physicalTo === 1))
    return as({ does: physicalTo === 1 ? 'open' : 'closed' });
  if (!LEVELS.has(of) && (of !== attribute || /Pos$/.test(of))) return as({ does: 'index', ...ends });
  return as({ does: 'level', ...(physicalFrom === 0 && physicalTo === 1 ? {} : ends) });
}

/** Emitters that GDTF names by the colours between which they lie (DIN SPEC 15800, annex A), as they are named here. */
const EMITTER_NAMES = new Map([
  ['ColorAdd_RY', 'ColorAdd_A'],
  ['ColorAdd_GY', 'ColorAdd_L'],
]);
const NAMES_IN_GDTF = new Map([...EMITTER_NAMES].map(([theirs, ours]) => [ours, theirs]));
/** Colours that the lamp itself mixes of what it has: to whoever asks for them they are emitters. */
const INDIRECT = new Map([
  ['ColorRGB_Red', 'ColorAdd_R'],
  ['ColorRGB_Green', 'ColorAdd_G'],
  ['ColorRGB_Blue', 'ColorAdd_B'],
]);

export const fromGdtf = (attribute: string): string =>
  EMITTER_NAMES.get(attribute) ?? INDIRECT.get(attribute) ?? attribute;
export const toGdtf = (attribute: string): string => NAMES_IN_GDTF.get(attribute) ?? attribute;

/** The attribute a channel has as a whole: what its first function moves, without what is said of the way it does so. */
export function baseOf(attribute: string): string {
  // No attribute has so long a name (DIN SPEC 15800, annex A); the pattern below goes through it from every letter.
  if (attribute.length > 100) return attribute;
  const base = /^((?:Gobo|Color|Prism|Shutter|AnimationWheel)\d)(?!.*Pos)/.exec(attribute);
  if (base) return base[1]!;
  return attribute.replace(/(Rotate|Shake|Strobe|Random|Pulse|Open|Close)+$/, '');
}
