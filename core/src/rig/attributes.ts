// What a channel can be: GDTF's names (DIN SPEC 15800, annex A), our words for them, and what is usual for each.

import { openOf } from './amounts';
import type { Channel, Range } from './schema';

export type Family = 'level' | 'colour' | 'aim' | 'beam' | 'rate' | 'other';

export type Attribute = {
  /** GDTF name. */
  readonly attribute: string;
  /** As people say it. */
  readonly name: string;
  readonly family: Family;
  /** Where it rests, 0…1. */
  readonly home: number;
  /** What lights the lamp for a test; none where the attribute has no say in that. */
  readonly test?: number;
  readonly snap?: boolean;
};

const at = (
  attribute: string,
  name: string,
  family: Family,
  rest: { readonly home?: number; readonly test?: number; readonly snap?: boolean } = {},
): Attribute => ({ attribute, name, family, home: 0, ...rest });

/** Rising order of how likely they are asked for: the first that fits a text is offered first. */
export const ATTRIBUTES: readonly Attribute[] = [
  at('Dimmer', 'Dimmer', 'level', { test: 1 }),
  at('Pan', 'Pan', 'aim', { home: 0.5 }),
  at('Tilt', 'Tilt', 'aim', { home: 0.5 }),
  at('ColorAdd_R', 'Red', 'colour', { test: 1 }),
  at('ColorAdd_G', 'Green', 'colour', { test: 1 }),
  at('ColorAdd_B', 'Blue', 'colour', { test: 1 }),
  at('ColorAdd_W', 'White', 'colour', { test: 1 }),
  at('ColorAdd_WW', 'Warm white', 'colour', { test: 1 }),
  at('ColorAdd_CW', 'Cool white', 'colour', { test: 1 }),
  at('ColorAdd_A', 'Amber', 'colour'),
  at('ColorAdd_UV', 'UV', 'colour'),
  at('ColorAdd_L', 'Lime', 'colour'),
  at('ColorAdd_C', 'Cyan, added', 'colour'),
  at('ColorAdd_Y', 'Yellow, added', 'colour'),
  at('ColorAdd_GC', 'Blue-green', 'colour'),
  at('ColorAdd_BC', 'Light blue', 'colour'),
  at('ColorAdd_BM', 'Indigo', 'colour'),
  at('ColorAdd_RM', 'Pink', 'colour'),
  at('ColorAdd_M', 'Magenta, added', 'colour'),
  at('ColorSub_C', 'Cyan', 'colour'),
  at('ColorSub_M', 'Magenta', 'colour'),
  at('ColorSub_Y', 'Yellow', 'colour'),
  at('HSB_Hue', 'Hue', 'colour'),
  at('HSB_Saturation', 'Saturation', 'colour', { test: 0 }),
  at('CTC', 'Colour temperature', 'colour'),
  at('CTO', 'Warm filter (CTO)', 'colour'),
  at('CTB', 'Cold filter (CTB)', 'colour'),
  at('Color1', 'Colour wheel', 'colour', { snap: true }),
  at('Color2', 'Second colour wheel', 'colour', { snap: true }),
  at('ColorMacro1', 'Colour macro', 'colour', { snap: true }),
  at('Shutter1', 'Shutter and strobe', 'rate', { snap: true, home: 1 }),
  at('Gobo1', 'Gobo wheel', 'beam', { snap: true }),
  at('Gobo1Pos', 'Gobo turning', 'beam', { home: 0.5 }),
  at('Gobo2', 'Second gobo wheel', 'beam', { snap: true }),
  at('Gobo2Pos', 'Second gobo turning', 'beam', { home: 0.5 }),
  at('Prism1', 'Prism', 'beam', { snap: true }),
  at('Prism1Pos', 'Prism turning', 'beam'),
  at('Focus1', 'Focus', 'beam', { home: 0.5 }),
  at('Zoom', 'Zoom', 'beam', { home: 0.5 }),
  at('Iris', 'Iris', 'beam', { home: 1, test: 1 }),
  at('Frost1', 'Frost', 'beam'),
  at('Effects1', 'Built-in effect', 'other', { snap: true }),
  at('EffectsSpeed', 'Effect speed', 'rate'),
  at('SoundSensitivity', 'Sound sensitivity', 'other'),
  at('PanTiltSpeed', 'Movement speed', 'aim'),
  at('LampControl', 'Lamp control', 'other', { snap: true }),
  at('Fog1', 'Fog', 'other'),
  at('Fans', 'Fan', 'other', { home: 0.5 }),
  at('DimmerCurve', 'Dimmer curve', 'other', { snap: true }),
  at('Reserved', 'Not used', 'other', { snap: true }),
];

const BY_NAME = new Map(ATTRIBUTES.map((one) => [one.attribute, one]));

/** What is known of an attribute; for one of a stranger's own, what can be said of any. */
export function attributeOf(attribute: string): Attribute {
  return BY_NAME.get(attribute) ?? { attribute, name: attribute.replace(/_/g, ' '), family: 'other', home: 0 };
}

/** What a channel is called: by its maker or owner, or else by what it does. */
export const nameOfChannel = ({ name, attribute }: Pick<Channel, 'name' | 'attribute'>): string =>
  name ?? attributeOf(attribute).name;

/** A channel of this attribute at these places, with what is usual for it. */
export function usualChannel(attribute: string, places: readonly number[], ranges: readonly Range[] = []): Channel {
  const known = attributeOf(attribute);
  const open = ranges.find((range) => range.does === 'open');
  const home = open && attribute === 'Shutter1' ? middle(open) : known.home;
  return { attribute, at: [...places], home, ranges: [...ranges] };
}

/** What lights the lamp in a test, 0…1; null where this channel is left alone. */
export function testValue(channel: Channel): number | null {
  if (channel.test !== undefined) return channel.test;
  if (/^Shutter\d/.test(channel.attribute)) return openOf(channel) / 255;
  const open = channel.ranges.find((range) => range.does === 'open');
  if (open) return middle(open);
  return attributeOf(channel.attribute).test ?? channel.home;
}

/** Whether a channel jumps rather than fades. */
export function snaps(channel: Channel): boolean {
  return channel.snap ?? attributeOf(channel.attribute).snap ?? false;
}

function middle(range: Range): number {
  return Math.round((range.from + range.to) / 2) / 255;
}

/** What none of our pictures can draw, so that the picture can say so. */
const UNDRAWN = new Set([
  'Prism1',
  'Prism1Pos',
  'Gobo2',
  'Gobo2Pos',
  'Focus1',
  'Iris',
  'Frost1',
  'Effects1',
  'Gobo1Pos',
  'ColorMacro1',
  'Color2',
  'CTC',
  'CTO',
  'CTB',
  'ColorAdd_UV',
]);

/** What lamps of the given channels can do and no picture shows, by name, each once. */
export function undrawn(lamps: readonly (readonly Channel[])[]): readonly string[] {
  const found = lamps.flatMap((channels) => {
    // What has no other colour goes from warm to cold in pictures, too.
    const drawn = channels.some(({ attribute }) => /^(?:Color|HSB_)/.test(attribute)) ? undefined : 'CTC';
    return channels.flatMap(({ attribute }) => (UNDRAWN.has(attribute) && attribute !== drawn ? attribute : []));
  });
  return [...new Set(found)].map((attribute) => attributeOf(attribute).name.toLowerCase());
}
