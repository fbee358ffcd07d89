// A fixture type from a GDTF file (DIN SPEC 15800:2022), trusting nothing in it, and saying what could not be kept.

import { XMLParser } from 'fast-xml-parser';
import { unzipSync } from 'fflate';
import { failed, ok, type Result } from '../../problem';
import { meaningOf, PATTERNS, Profile, type Channel, type Gobo, type Mode, type Range } from '../../rig';
import { baseOf, fromGdtf, rangeOfStretch, type Stretch } from './functions';
import { GAP, LUMENS } from './write';

export type GdtfRead = {
  readonly profile: Profile;
  /** What of the file has no place in a type of ours, in words. */
  readonly notKept: readonly string[];
};

const MOST_MEGABYTES = 20;
const MOST_CHANNELS = 512;

/** An element: its attributes by `@Name`, its children by name, always in lists. */
type Element = { readonly [name: string]: string | readonly Element[] | undefined };

/**
 * @param name the file's name, for a problem's words.
 * @param id what the type is called among the show's.
 */
export function readGdtf(bytes: Uint8Array, name: string, id: string): Result<GdtfRead> {
  const no = (detail: string) => failed({ code: 'not-gdtf', name, detail } as const);
  if (bytes.length === 0) return failed({ code: 'empty-file', name });
  if (bytes[0] !== 0x50 || bytes[1] !== 0x4b) return no('it is not a zip file, as every GDTF file is');
  const text = description(bytes);
  if (typeof text !== 'string') return no(text.wrong);
  if (/<!DOCTYPE|<!ENTITY/i.test(text))
    return no('it declares XML entities of its own, which no fixture type needs and which can be an attack');
  const root = parsed(text);
  if (!root) return no('its description.xml is not well-formed XML');
  const type = only(only(root, 'GDTF'), 'FixtureType');
  if (!type) return no('its description.xml has no fixture type in it');
  const notKept: string[] = [];
  const modes = list(only(type, 'DMXModes'), 'DMXMode').flatMap((mode, i) => modeOf(type, mode, i, notKept) ?? []);
  if (modes.length === 0) return no('it has no DMX mode that can be used');
  const checked = Profile.safeParse(profileOf(type, modes, id, notKept));
  if (!checked.success) {
    const issue = checked.error.issues[0]!;
    return no(`it contradicts itself at ${issue.path.join('.')}: ${issue.message}`);
  }
  return ok({ profile: checked.data, notKept: [...new Set(notKept)] });
}

function description(bytes: Uint8Array): string | { readonly wrong: string } {
  let tooBig = false;
  try {
    const found = unzipSync(bytes, {
      filter({ name, originalSize, size }) {
        if (name.toLowerCase() !== 'description.xml') return false;
        tooBig = Math.max(originalSize, size) > MOST_MEGABYTES * 1e6;
        return !tooBig;
      },
    });
    const [xml] = Object.values(found);
    if (tooBig) return { wrong: `its description.xml is larger than ${MOST_MEGABYTES} MB` };
    if (!xml) return { wrong: 'there is no description.xml in it' };
    return new TextDecoder('utf-8', { fatal: true }).decode(xml);
  } catch (error) {
    return { wrong: `it cannot be unpacked (${error instanceof Error ? error.message : String(error)})` };
  }
}

function parsed(text: string): Element | undefined {
  const parser = new XMLParser({
    ignoreAttributes: false,
    attributeNamePrefix: '@',
    parseAttributeValue: false,
    parseTagValue: false,
    // The five that XML itself has; there are no others without a DOCTYPE.
    processEntities: true,
    isArray: (_name, _path, _leaf, isAttribute) => !isAttribute,
  });
  try {
    const root: unknown = parser.parse(text, true);
    return typeof root === 'object' && root !== null ? (root as Element) : undefined;
  } catch {
    // The parser throws on whatever is not well-formed; where exactly does not help whoever chose the file.
    return undefined;
  }
}

function profileOf(type: Element, modes: readonly Mode[], id: string, notKept: string[]) {
  const said = text(type, 'Description');
  const beam = everyGeometry(type).find(({ kind }) => kind === 'Beam')?.element;
  const functions = list(only(type, 'DMXModes'), 'DMXMode').flatMap((mode) => functionsOf(mode));
  const turn = (attribute: string) =>
    Math.max(
      0,
      ...functions
        .filter((one) => text(one, 'Attribute') === attribute)
        .map((one) => Math.abs(number(one, 'PhysicalTo', 0) - number(one, 'PhysicalFrom', 0))),
    );
  // From 0 to 1 is what stands there when nobody said how far it turns.
  const turns = (attribute: string) => (turn(attribute) > 1 ? turn(attribute) : 0);
  const panRange = Math.min(1080, turns('Pan'));
  if (only(type, 'Models') && list(only(type, 'Models'), 'Model').length > 0) notKept.push('3D models');
  if (list(only(only(type, 'PhysicalDescriptions'), 'DMXProfiles'), 'DMXProfile').length > 0)
    notKept.push('DMX curves');
  if (list(only(type, 'FTPresets'), 'FTPreset').length > 0) notKept.push('presets');
  const maker = text(type, 'Manufacturer') || 'Unknown maker';
  const model = text(type, 'Name') || text(type, 'LongName') || 'Unnamed';
  const short = text(type, 'ShortName') || model;
  const watts = number(beam, 'PowerConsumption', 0);
  const kind = /^Kind: ([a-z ]+)\./.exec(said)?.[1];
  return {
    id,
    maker: maker.slice(0, 120),
    model: model.slice(0, 120),
    label: short.trim().slice(0, 6).trim() || 'Lamp',
    kind: isKind(kind) ? kind : guessedKind(modes, panRange),
    beamAngle: Math.min(180, Math.max(0.5, number(beam, 'BeamAngle', 25))),
    panRange,
    tiltRange: Math.min(360, turns('Tilt')),
    output: Math.min(50, Math.max(0, number(beam, 'LuminousFlux', LUMENS) / LUMENS)),
    ...(watts > 0 ? { watts } : {}),
    colours: wheelSlots(type, functions, 'Color').map((slot, i) => ({
      name: text(slot, 'Name') || `Colour ${i}`,
      colour: chromaticity(slot),
    })),
    gobos: wheelSlots(type, functions, 'Gobo').map((slot, i): Gobo => ({
      name: text(slot, 'Name') || `Pattern ${i}`,
      pattern: patternOf(slot, i),
    })),
    emitters: list(only(only(type, 'PhysicalDescriptions'), 'Emitters'), 'Emitter')
      .filter((emitter) => /^Color/.test(text(emitter, 'Name')))
      .map((emitter) => ({ attribute: fromGdtf(text(emitter, 'Name')), colour: chromaticity(emitter) })),
    strobesByLevel: !/No strobe by level/.test(said),
    modes,
  };
}

const KINDS = ['dimmer', 'par', 'wash', 'bar', 'strobe', 'moving spot', 'moving wash', 'hazer'] as const;
type Kind = (typeof KINDS)[number];
const isKind = (text: string | undefined): text is Kind => KINDS.some((kind) => kind === text);

/** What a lamp is drawn as, from what it can do. */
function guessedKind(modes: readonly Mode[], panRange: number): Kind {
  const channels = modes.flatMap((mode) => mode.channels);
  const has = (pattern: RegExp) => channels.some(({ attribute }) => pattern.test(attribute));
  if (panRange > 0 || has(/^Pan$/)) return has(/^Gobo/) ? 'moving spot' : 'moving wash';
  if (has(/^(Fog|Haze)/)) return 'hazer';
  if (channels.some(({ cell }) => cell !== undefined)) return 'bar';
  if (has(/^ColorAdd|^ColorSub/)) return 'par';
  return has(/^Shutter/) ? 'strobe' : 'dimmer';
}

/** The slots of the wheel that is turned to colours or patterns, the first of two, whatever it is called; else of one that is called so. */
function wheelSlots(type: Element, functions: readonly Element[], of: 'Color' | 'Gobo'): readonly Element[] {
  const wheels = list(only(type, 'Wheels'), 'Wheel');
  const turned = (by: RegExp) => functions.find((one) => by.test(text(one, 'Attribute')) && text(one, 'Wheel') !== '');
  const used = turned(new RegExp(`^${of}1`)) ?? turned(new RegExp(`^${of}\\d`));
  const wheel =
    wheels.find((one) => text(one, 'Name') === text(used, 'Wheel')) ??
    wheels.find((one) => text(one, 'Name').toLowerCase().startsWith(of.toLowerCase()));
  return list(wheel, 'Slot').slice(0, 64);
}

function patternOf(slot: Element, index: number): Gobo['pattern'] {
  const media = text(slot, 'MediaFileName');
  return (
    PATTERNS.find((pattern) => pattern === media) ??
    (index === 0 ? 'open' : PATTERNS[1 + ((index - 1) % (PATTERNS.length - 1))]!)
  );
}

/** `x,y,Y` as CIE 1931; white where the file says none or an impossible one. */
function chromaticity(element: Element): { x: number; y: number } {
  const [x, y] = text(element, 'Color').split(',').map(Number);
  const fine = x !== undefined && y !== undefined && x >= 0 && x <= 1 && y >= 0.001 && y <= 1;
  return fine ? { x, y } : { x: 0.3127, y: 0.329 };
}

function modeOf(type: Element, mode: Element, index: number, notKept: string[]): Mode | undefined {
  const name = text(mode, 'Name') || `Mode ${index + 1}`;
  const said = list(only(mode, 'DMXChannels'), 'DMXChannel');
  const cells = cellsOf(type, said);
  const firsts = said.map((channel) => firstAttribute(list(channel, 'LogicalChannel')[0]));
  const dimmed = firsts.includes('Dimmer');
  const channels = said.flatMap((channel) => channelsOf(channel, cells, dimmed, name, notKept));
  const places = channels.flatMap(({ at }) => at);
  if (places.some((place) => place > MOST_CHANNELS)) {
    notKept.push(`mode “${name}”: it needs more than ${MOST_CHANNELS} channels`);
    return undefined;
  }
  const taken = new Set<number>();
  const own = channels.filter(({ at }) => {
    const twice = at.some((place) => taken.has(place));
    for (const place of at) taken.add(place);
    if (twice) notKept.push(`mode “${name}”: a second channel at place ${at[0]}`);
    return !twice;
  });
  if (own.length === 0) {
    notKept.push(`mode “${name}”: it has no channels`);
    return undefined;
  }
  if (list(only(mode, 'Relations'), 'Relation').length > 0) notKept.push(`mode “${name}”: relations between channels`);
  if (list(only(mode, 'FTMacros'), 'FTMacro').length > 0) notKept.push(`mode “${name}”: macros`);
  const id = `m${index + 1}` as Mode['id'];
  return { id, name: name.slice(0, 120), channels: own };
}

type Cells = {
  /** Which cell a geometry is; none for geometries that are not repeated. */
  readonly cellOf: ReadonlyMap<string, number>;
  /** Where each copy of a geometry begins that is referred to instead of repeated. */
  readonly copies: ReadonlyMap<string, readonly number[]>;
};

/** Cells are geometries of a channel that comes again and again, or one geometry that is referred to many times. */
function cellsOf(type: Element, channels: readonly Element[]): Cells {
  const all = everyGeometry(type);
  const copies = new Map<string, number[]>();
  for (const { kind, element } of all) {
    if (kind !== 'GeometryReference') continue;
    const template = text(element, 'Geometry');
    const [first] = list(element, 'Break');
    const offset = first ? number(first, 'DMXOffset', 1) : 1;
    const known = copies.get(template);
    if (known) known.push(offset);
    else copies.set(template, [offset]);
  }
  const beams = new Set(all.filter(({ kind }) => kind === 'Beam').map(({ element }) => text(element, 'Name')));
  const used = [...new Set(channels.map((channel) => text(channel, 'Geometry')))].filter(
    (name) => beams.has(name) && !copies.has(name),
  );
  return { cellOf: new Map(used.length > 1 ? used.map((name, i) => [name, i]) : []), copies };
}

const firstAttribute = (logical: Element | undefined): string =>
  text(logical, 'Attribute') || text(list(logical, 'ChannelFunction')[0], 'Attribute') || 'NoFeature';

function channelsOf(
  channel: Element,
  { cellOf, copies }: Cells,
  dimmed: boolean,
  mode: string,
  notKept: string[],
): readonly Channel[] {
  const logical = list(channel, 'LogicalChannel');
  const offsets = text(channel, 'Offset')
    .split(',')
    .map((one) => Number(one.trim()));
  if (logical.length === 0) return [];
  // A channel without a place is one the lamp computes for itself.
  if (offsets.some((place) => !Number.isInteger(place) || place < 1)) {
    if (text(channel, 'Offset') !== '' && text(channel, 'Offset') !== 'None')
      notKept.push(`mode “${mode}”: a channel at “${text(channel, 'Offset')}”`);
    return [];
  }
  if (number(channel, 'DMXBreak', 1) > 1) notKept.push(`mode “${mode}”: channels of a second address`);
  if (offsets.length > 3) notKept.push(`mode “${mode}”: bytes finer than 24 bits`);
  if (logical.length > 1) notKept.push(`mode “${mode}”: a second logical channel at place ${offsets[0]}`);
  const first = logical[0]!;
  const all = list(first, 'ChannelFunction');
  const base = baseOf(fromGdtf(firstAttribute(first)));
  // Where nothing else dims the lamp, a shutter that also dims is its dimmer.
  const dims = !dimmed && SHUTTER.test(base) && all.some((one) => text(one, 'Attribute') === 'Dimmer');
  const attribute = dims || (!dimmed && base === 'HSB_Brightness') ? 'Dimmer' : base;
  const initial = initialOf(channel, all);
  // Where another channel says which of them count, those count that go with the one that is on by itself.
  const functions = all.filter((one) => conditionOf(one) === conditionOf(initial));
  if (functions.length < all.length)
    notKept.push(`mode “${mode}”: functions that another channel turns on, at place ${offsets[0]}`);
  const at = offsets.slice(0, 3);
  const snap = text(first, 'Snap');
  const own = text(first, 'Name');
  const highlight = text(channel, 'Highlight');
  const home = valueOf(text(initial, 'Default') || text(channel, 'Default'));
  const made: Channel = {
    attribute: attribute === 'NoFeature' ? 'Reserved' : attribute.slice(0, 60),
    ...(own ? { name: own.slice(0, 80) } : {}),
    at,
    home,
    ...(highlight !== '' && highlight !== 'None' ? { test: valueOf(highlight) } : {}),
    ...(snap === 'On' || snap === 'Off' ? { snap: snap === 'On' } : {}),
    ...(text(first, 'Master') === 'None' && attribute === 'Dimmer' ? { masters: false } : {}),
    ranges: rangesOf(functions, attribute).slice(0, 128),
  };
  const geometry = text(channel, 'Geometry');
  const repeated = copies.get(geometry);
  if (repeated) return repeated.map((start, cell) => ({ ...made, at: at.map((place) => start + place - 1), cell }));
  const cell = cellOf.get(geometry);
  return [cell === undefined ? made : { ...made, cell }];
}

/** The function that is on by itself: the first one, unless the channel names another by geometry, attribute and name. */
function initialOf(channel: Element, functions: readonly Element[]): Element | undefined {
  const name = text(channel, 'InitialFunction').split('.').at(-1);
  const named = (one: Element, i: number) => text(one, 'Name') || `${text(one, 'Attribute')} ${i + 1}`;
  return functions.find((one, i) => named(one, i) === name) ?? functions[0];
}

/** When a function counts: while another channel lies between two values, or always. */
const conditionOf = (one: Element | undefined): string =>
  text(one, 'ModeMaster') === '' ? '' : ['ModeMaster', 'ModeFrom', 'ModeTo'].map((name) => text(one, name)).join(' ');

/** Ranges from functions and their sets. One function over all of it, without a name or sets, is no range, unless it falls. */
function rangesOf(functions: readonly Element[], attribute: string): Range[] {
  const starts = functions.map((one) => Math.floor(255 * coarse(text(one, 'DMXFrom')) + 0.5));
  const stretches = functions.flatMap((one, i): Stretch[] => {
    const [from, to] = [starts[i]!, Math.max(starts[i]!, (starts[i + 1] ?? 256) - 1)];
    const name = text(one, 'Name');
    const plain = text(one, 'Attribute');
    const numbered = name.startsWith(plain) && /^(?: \d{1,9})?$/.test(name.slice(plain.length));
    const given = numbered ? '' : name;
    const whole: Stretch = {
      attribute: fromGdtf(plain),
      from,
      to,
      physicalFrom: number(one, 'PhysicalFrom', 0),
      physicalTo: number(one, 'PhysicalTo', 1),
      name: given.slice(0, 80),
      slot: 0,
    };
    const sets = list(one, 'ChannelSet').filter(
      (set) => text(set, 'Name') !== '' || text(set, 'WheelSlotIndex') !== '',
    );
    // Of an amount they name its ends, and what lies between them has no name.
    if (sets.length === 0 || AMOUNT.test(whole.attribute)) return [whole];
    const begins = sets.map((set) => Math.max(from, Math.floor(255 * coarse(text(set, 'DMXFrom')) + 0.5)));
    return sets.map((set, k) => ({
      ...whole,
      from: begins[k]!,
      to: Math.max(begins[k]!, (begins[k + 1] ?? to + 1) - 1),
      physicalFrom: number(set, 'PhysicalFrom', whole.physicalFrom),
      physicalTo: number(set, 'PhysicalTo', whole.physicalTo),
      name: sets.length === 1 ? whole.name : text(set, 'Name').slice(0, 80),
      slot: number(set, 'WheelSlotIndex', 0),
    }));
  });
  const [only_] = stretches;
  if (
    stretches.length === 1 &&
    only_!.from === 0 &&
    only_!.name === '' &&
    only_!.slot === 0 &&
    (only_!.physicalFrom <= only_!.physicalTo || /^(?:Pan|Tilt)$/.test(attribute)) &&
    baseOf(only_!.attribute) === attribute &&
    !SHUTTER.test(attribute)
  )
    return [];
  return stretches
    .filter(({ attribute: of, name, from, to }) => !(of === 'NoFeature' && name === GAP) && from <= 255 && to <= 255)
    .map((stretch) => inWords(rangeOfStretch({ ...stretch, slot: Math.min(64, stretch.slot) }, attribute), attribute));
}

const SHUTTER = /^Shutter\d/;
const AMOUNT = /^(?:Dimmer|Zoom|Iris|Pan|Tilt|Fog\d|Color(?:Add|Sub)_\w+|HSB_\w+|CTC|\w+Strobe)$/;

/** Where a shutter's physical ends are left at what they are for anything, 0 and 1, its words say what it does. */
function inWords(range: Range, attribute: string): Range {
  if (!SHUTTER.test(attribute) || range.does !== 'level' || range.low !== undefined || !range.name) return range;
  const { sure, ...meaning } = meaningOf(range.name, 'Shutter1');
  return sure ? { ...range, ...meaning } : range;
}

/** A DMX value “v/n” of n bytes, 0…1; null where the file gives none. */
function valueOf(value: string): number | null {
  const [, whole, bytes] = /^(\d+)\/([1-4])s?$/.exec(value.trim()) ?? [];
  if (whole === undefined || bytes === undefined) return null;
  return Math.min(1, Number(whole) / (256 ** Number(bytes) - 1));
}

/** The coarse byte of a DMX value over 255. */
function coarse(value: string): number {
  const [, whole, bytes] = /^(\d+)\/([1-4])s?$/.exec(value.trim()) ?? [];
  if (whole === undefined || bytes === undefined) return 0;
  return Math.floor(Number(whole) / 256 ** (Number(bytes) - 1)) / 255;
}

function functionsOf(mode: Element): readonly Element[] {
  return list(only(mode, 'DMXChannels'), 'DMXChannel').flatMap((channel) =>
    list(channel, 'LogicalChannel').flatMap((logical) => list(logical, 'ChannelFunction')),
  );
}

/** All geometries below the top, whatever they are nested in. */
function everyGeometry(type: Element): readonly { readonly kind: string; readonly element: Element }[] {
  const found: { kind: string; element: Element }[] = [];
  const walk = (element: Element | undefined, deep: number) => {
    if (!element || deep > 40) return;
    for (const [kind, children] of Object.entries(element)) {
      if (!Array.isArray(children)) continue;
      for (const child of children as readonly Element[]) {
        if (typeof child !== 'object' || child === null) continue;
        found.push({ kind, element: child });
        walk(child, deep + 1);
      }
    }
  };
  walk(only(type, 'Geometries'), 0);
  return found;
}

function only(element: Element | undefined, name: string): Element | undefined {
  return list(element, name)[0];
}

function list(element: Element | undefined, name: string): readonly Element[] {
  const found = element?.[name];
  return Array.isArray(found)
    ? (found as readonly Element[]).filter((one) => typeof one === 'object' && one !== null)
    : [];
}

function text(element: Element | undefined, name: string): string {
  const found = element?.[`@${name}`];
  return typeof found === 'string' ? found.trim() : '';
}

function number(element: Element | undefined, name: string, otherwise: number): number {
  const value = Number(text(element, name));
  return text(element, name) !== '' && Number.isFinite(value) ? value : otherwise;
}
