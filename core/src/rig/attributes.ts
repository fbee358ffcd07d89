// What a channel can be: GDTF's names (DIN SPEC 15800, annex A), our words for them, and what is usual for each.

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
  /** What manuals call it: whole words, lower case, other languages too. */
  readonly words: readonly string[];
};

const at = (
  attribute: string,
  name: string,
  family: Family,
  words: string,
  rest: { readonly home?: number; readonly test?: number; readonly snap?: boolean } = {},
): Attribute => ({ attribute, name, family, words: words.split('|').filter(Boolean), home: 0, ...rest });

/** Rising order of how likely they are asked for: the first that fits a text is offered first. */
export const ATTRIBUTES: readonly Attribute[] = [
  at('Dimmer', 'Dimmer', 'level', 'dimmer|dimming|dim|intensity|master dimmer|total dimming|brightness|helligkeit|dimmerintensität|intensité|gradateur|intensidad|intensità|总调光', { test: 1 }),
  at('Pan', 'Pan', 'aim', 'pan|pan movement|x axis|x-axis|horizontal', { home: 0.5 }),
  at('Tilt', 'Tilt', 'aim', 'tilt|tilt movement|y axis|y-axis|vertical', { home: 0.5 }),
  at('ColorAdd_R', 'Red', 'colour', 'red|r|rot|rouge|rojo|rosso|红', { test: 1 }),
  at('ColorAdd_G', 'Green', 'colour', 'green|g|grün|vert|verde|绿', { test: 1 }),
  at('ColorAdd_B', 'Blue', 'colour', 'blue|b|blau|bleu|azul|blu|蓝', { test: 1 }),
  at('ColorAdd_W', 'White', 'colour', 'white|w|weiß|weiss|blanc|blanco|bianco|cool white|cold white|cw|白', { test: 1 }),
  at('ColorAdd_WW', 'Warm white', 'colour', 'warm white|ww|warmweiß|warmweiss|blanc chaud', { test: 1 }),
  at('ColorAdd_CW', 'Cool white', 'colour', 'cool white led', { test: 1 }),
  at('ColorAdd_A', 'Amber', 'colour', 'amber|a|ambre|ámbar|ambra|bernstein'),
  at('ColorAdd_UV', 'UV', 'colour', 'uv|ultraviolet|ultra violet|violet|blacklight|purple'),
  at('ColorAdd_L', 'Lime', 'colour', 'lime|mint'),
  at('ColorAdd_C', 'Cyan, added', 'colour', 'cyan led'),
  at('ColorAdd_Y', 'Yellow, added', 'colour', 'yellow led'),
  at('ColorAdd_GC', 'Blue-green', 'colour', 'blue-green led'),
  at('ColorAdd_BC', 'Light blue', 'colour', 'light blue led'),
  at('ColorAdd_BM', 'Indigo', 'colour', 'indigo led'),
  at('ColorAdd_RM', 'Pink', 'colour', 'pink led'),
  at('ColorAdd_M', 'Magenta, added', 'colour', 'magenta led'),
  at('ColorSub_C', 'Cyan', 'colour', 'cyan|c'),
  at('ColorSub_M', 'Magenta', 'colour', 'magenta|m'),
  at('ColorSub_Y', 'Yellow', 'colour', 'yellow|y|gelb|jaune|amarillo|giallo'),
  at('CTC', 'Colour temperature', 'colour', 'ctc|cto|ctb|colour temperature|color temperature|cct|farbtemperatur|température de couleur'),
  at('Color1', 'Colour wheel', 'colour', 'colour wheel|color wheel|colour|color|colors|colours|colour wheel 1|color wheel 1|farbrad|farbe|roue de couleur|couleur|rueda de color', { snap: true }),
  at('Color2', 'Second colour wheel', 'colour', 'colour wheel 2|color wheel 2|farbrad 2', { snap: true }),
  at('ColorMacro1', 'Colour macro', 'colour', 'colour macro|color macro|colour macros|color macros|colour preset|color preset|colour change|color change|macro|macros', { snap: true }),
  at('Shutter1', 'Shutter and strobe', 'rate', 'shutter|strobe|shutter strobe|strobe shutter|shutter/strobe|strobe/shutter|flash|stroboscope|strob|stroboskop|obturateur|obturador|estrobo', { snap: true, home: 1 }),
  at('Gobo1', 'Gobo wheel', 'beam', 'gobo|gobo wheel|gobos|gobo wheel 1|static gobo|fixed gobo|goborad|pattern|patterns', { snap: true }),
  at('Gobo1Pos', 'Gobo turning', 'beam', 'gobo rotation|gobo rot|gobo index|rotating gobo rotation|goborotation|gobo turning', { home: 0.5 }),
  at('Gobo2', 'Second gobo wheel', 'beam', 'gobo wheel 2|gobo 2|rotating gobo|rotating gobos|goborad 2', { snap: true }),
  at('Gobo2Pos', 'Second gobo turning', 'beam', 'gobo 2 rotation', { home: 0.5 }),
  at('Prism1', 'Prism', 'beam', 'prism|prisma|prisme|prism 1', { snap: true }),
  at('Prism1Pos', 'Prism turning', 'beam', 'prism rotation|prism rot|prismarotation|prism index'),
  at('Focus1', 'Focus', 'beam', 'focus|fokus|mise au point|enfoque', { home: 0.5 }),
  at('Zoom', 'Zoom', 'beam', 'zoom', { home: 0.5 }),
  at('Iris', 'Iris', 'beam', 'iris', { home: 1, test: 1 }),
  at('Frost1', 'Frost', 'beam', 'frost|diffusion'),
  at('Effects1', 'Built-in effect', 'other', 'effect|effects|auto|auto program|auto programs|program|programs|programme|built-in programs|mode|function mode|effekt|programm', { snap: true }),
  at('EffectsSpeed', 'Effect speed', 'rate', 'effect speed|program speed|auto speed|speed|macro speed|geschwindigkeit|vitesse|velocidad'),
  at('SoundSensitivity', 'Sound sensitivity', 'other', 'sound|sound sensitivity|mic sensitivity|sound control'),
  at('PanTiltSpeed', 'Movement speed', 'aim', 'pan tilt speed|pan/tilt speed|p/t speed|movement speed|xy speed|speed pan/tilt|vector speed|motor speed|speed of pan/tilt'),
  at('LampControl', 'Lamp control', 'other', 'control|lamp control|special|special functions|function|functions|settings|reset|lamp|reset and lamp|sonderfunktionen|maintenance', { snap: true }),
  at('Fog1', 'Fog', 'other', 'fog|haze|smoke|output|fog output|haze output|nebel'),
  at('Fans', 'Fan', 'other', 'fan|fan speed|fans|lüfter|ventilator', { home: 0.5 }),
  at('DimmerCurve', 'Dimmer curve', 'other', 'dimmer curve|dimming curve|dimmer speed|dimming speed|dimmer mode', { snap: true }),
  at('Reserved', 'Not used', 'other', 'reserved|not used|unused|no function|none|n/a|frei|keine funktion', { snap: true }),
]; // prettier-ignore

const BY_NAME = new Map(ATTRIBUTES.map((one) => [one.attribute, one]));

/** What is known of an attribute; for one of a stranger's own, what can be said of any. */
export function attributeOf(attribute: string): Attribute {
  return (
    BY_NAME.get(attribute) ?? { attribute, name: attribute.replace(/_/g, ' '), family: 'other', home: 0, words: [] }
  );
}

/** What a channel is called: by its maker or owner, or else by what it does. */
export const nameOfChannel = ({ name, attribute }: Pick<Channel, 'name' | 'attribute'>): string =>
  name ?? attributeOf(attribute).name;

/** Attributes whose name, GDTF name or any word begins with or holds `text`; those that begin with it first. Empty finds all. */
export function searchAttributes(text: string): readonly Attribute[] {
  const wanted = text.trim().toLowerCase();
  if (wanted === '') return ATTRIBUTES;
  const rank = ({ attribute, name, words }: Attribute) => {
    const all = [name.toLowerCase(), attribute.toLowerCase(), ...words];
    if (all.includes(wanted)) return 0;
    if (all.some((word) => word.startsWith(wanted))) return 1;
    return all.some((word) => word.includes(wanted)) ? 2 : 3;
  };
  return ATTRIBUTES.map((one) => ({ one, rank: rank(one) }))
    .filter(({ rank: place }) => place < 3)
    .sort((a, b) => a.rank - b.rank)
    .map(({ one }) => one);
}

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
const UNDRAWN = new Set(['Prism1', 'Prism1Pos', 'Gobo2', 'Gobo2Pos', 'Focus1', 'Iris', 'Frost1', 'Effects1', 'Gobo1Pos', 'ColorMacro1', 'Color2', 'CTC', 'ColorAdd_UV']); // prettier-ignore

/** What the given channels can do and no picture shows, by name, each once. */
export function undrawn(channels: readonly Channel[]): readonly string[] {
  const found = channels.map((channel) => channel.attribute).filter((attribute) => UNDRAWN.has(attribute));
  return [...new Set(found)].map((attribute) => attributeOf(attribute).name.toLowerCase());
}
