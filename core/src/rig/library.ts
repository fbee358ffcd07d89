// Fixture types that come along: generic ones, and those of makers we made up, over everything that hangs on a stage.

import type { z } from 'zod';
import { PATTERNS, Profile } from './schema';

type ProfileIn = z.input<typeof Profile>;
type ChannelIn = ProfileIn['modes'][number]['channels'][number];
type Kind = ProfileIn['kind'];

/** One type in a line. A mode is a row of channel words, `16` after one for two bytes, `8*(r g b)` for eight cells. */
type Line = {
  readonly model: string;
  readonly label: string;
  readonly kind: Kind;
  readonly beam: number;
  readonly output?: number;
  readonly pan?: number;
  readonly tilt?: number;
  /** Slots of the colour and the gobo wheel, open included. */
  readonly colours?: number;
  readonly gobos?: number;
  readonly modes: readonly string[];
};

/** What each channel word stands for, by GDTF attribute name (DIN SPEC 15800, annex A), and where it rests. */
const WORDS: Readonly<Record<string, { readonly attribute: string; readonly home?: number }>> = {
  dim: { attribute: 'Dimmer' },
  r: { attribute: 'ColorAdd_R' },
  g: { attribute: 'ColorAdd_G' },
  b: { attribute: 'ColorAdd_B' },
  w: { attribute: 'ColorAdd_W' },
  ww: { attribute: 'ColorAdd_WW' },
  a: { attribute: 'ColorAdd_A' },
  uv: { attribute: 'ColorAdd_UV' },
  cyan: { attribute: 'ColorSub_C' },
  magenta: { attribute: 'ColorSub_M' },
  yellow: { attribute: 'ColorSub_Y' },
  shutter: { attribute: 'Shutter1', home: 1 },
  pan: { attribute: 'Pan', home: 0.5 },
  tilt: { attribute: 'Tilt', home: 0.5 },
  colour: { attribute: 'Color1' },
  gobo: { attribute: 'Gobo1' },
  gobo2: { attribute: 'Gobo2' },
  turn: { attribute: 'Gobo1Pos', home: 0.5 },
  prism: { attribute: 'Prism1' },
  focus: { attribute: 'Focus1', home: 0.5 },
  zoom: { attribute: 'Zoom', home: 0.5 },
  iris: { attribute: 'Iris', home: 1 },
  frost: { attribute: 'Frost1' },
  ctc: { attribute: 'CTC' },
  speed: { attribute: 'PanTiltSpeed' },
  macro: { attribute: 'ColorMacro1' },
  effect: { attribute: 'Effects1' },
  rate: { attribute: 'EffectsSpeed' },
  control: { attribute: 'LampControl' },
  fog: { attribute: 'Fog1' },
  fan: { attribute: 'Fans', home: 0.5 },
};

const GENERIC: readonly Line[] = [
  { model: 'Dimmer', label: 'Dim', kind: 'dimmer', beam: 40, modes: ['dim', 'dim16'] },
  { model: 'Switch', label: 'Switch', kind: 'dimmer', beam: 40, output: 0, modes: ['dim'] },
  { model: 'Gelled PAR', label: 'PAR', kind: 'dimmer', beam: 28, output: 1.4, modes: ['dim'] },
  { model: 'Profile spot on a dimmer', label: 'Prof', kind: 'dimmer', beam: 19, output: 1.6, modes: ['dim'] },
  { model: 'LED PAR RGB', label: 'RGB', kind: 'par', beam: 30, modes: ['r g b', 'dim r g b', 'dim shutter r g b', 'r g b dim shutter macro rate'] },
  { model: 'LED PAR RGBW', label: 'RGBW', kind: 'par', beam: 30, modes: ['r g b w', 'dim r g b w', 'dim shutter r g b w', 'dim r g b w shutter macro rate'] },
  { model: 'LED PAR RGBA', label: 'RGBA', kind: 'par', beam: 30, modes: ['r g b a', 'dim r g b a', 'dim shutter r g b a'] },
  { model: 'LED PAR RGBAW+UV', label: 'Hex', kind: 'par', beam: 28, modes: ['r g b a w uv', 'dim r g b a w uv', 'dim r g b a w uv shutter macro rate control'] },
  { model: 'LED PAR white and warm', label: 'Tune', kind: 'par', beam: 40, output: 1.3, modes: ['w ww', 'dim w ww', 'dim ctc'] },
  { model: 'LED flood UV', label: 'UV', kind: 'par', beam: 60, output: 0.4, modes: ['dim', 'dim shutter'] },
  { model: 'LED bar, 4 cells RGB', label: 'Bar 4', kind: 'bar', beam: 50, modes: ['r g b', '4*(r g b)', 'dim shutter 4*(r g b)'] },
  { model: 'LED bar, 8 cells RGB', label: 'Bar 8', kind: 'bar', beam: 40, modes: ['r g b', 'dim r g b shutter', '8*(r g b)'] },
  { model: 'LED bar, 16 cells RGB', label: 'Bar 16', kind: 'bar', beam: 30, modes: ['r g b', '16*(r g b)'] },
  { model: 'LED bar, 8 cells RGBW', label: 'BarW 8', kind: 'bar', beam: 40, modes: ['r g b w', '8*(r g b w)'] },
  { model: 'Strobe', label: 'Strobe', kind: 'strobe', beam: 90, output: 4, modes: ['shutter dim', 'dim shutter', 'dim'] },
  { model: 'Moving head, wash RGBW', label: 'MWash', kind: 'moving wash', beam: 24, output: 1.8, pan: 540, tilt: 220, modes: ['pan tilt dim shutter r g b w', 'pan16 tilt16 speed dim shutter r g b w zoom'] },
  { model: 'Moving head, spot', label: 'MSpot', kind: 'moving spot', beam: 15, output: 2, pan: 540, tilt: 250, colours: 8, gobos: 8, modes: ['pan tilt colour gobo dim shutter', 'pan16 tilt16 speed colour gobo turn prism focus dim shutter control'] },
  { model: 'Scanner', label: 'Scan', kind: 'moving spot', beam: 12, output: 1.4, pan: 180, tilt: 90, colours: 8, gobos: 8, modes: ['pan tilt colour gobo shutter dim'] },
  { model: 'Hazer', label: 'Hazer', kind: 'hazer', beam: 30, output: 0, modes: ['fog', 'fog fan'] },
  { model: 'Fog machine', label: 'Fog', kind: 'hazer', beam: 30, output: 0, modes: ['fog'] },
  { model: 'Fan', label: 'Fan', kind: 'dimmer', beam: 30, output: 0, modes: ['fan'] },
]; // prettier-ignore

const ARDENT: readonly Line[] = [
  { model: 'Wren 7', label: 'Wren', kind: 'par', beam: 25, modes: ['r g b w', 'dim r g b w shutter', 'dim r g b w shutter macro rate'] },
  { model: 'Linnet 12', label: 'Linnet', kind: 'par', beam: 40, output: 1.3, modes: ['r g b a w uv', 'dim shutter r g b a w uv'] },
  { model: 'Curlew bar', label: 'Curlew', kind: 'bar', beam: 20, output: 1.1, modes: ['r g b', 'dim shutter r g b', '12*(r g b)'] },
  { model: 'Kestrel wash 19', label: 'Kestr', kind: 'moving wash', beam: 18, output: 2.4, pan: 540, tilt: 230, modes: ['pan tilt dim shutter r g b w zoom', 'pan16 tilt16 speed dim16 shutter r g b w ctc zoom macro control'] },
  { model: 'Kestrel spot 150', label: 'KSpot', kind: 'moving spot', beam: 16, output: 2.6, pan: 540, tilt: 270, colours: 9, gobos: 8, modes: ['pan16 tilt16 dim shutter colour gobo turn prism focus', 'pan16 tilt16 speed dim16 shutter colour gobo turn gobo2 prism focus zoom frost control'] },
  { model: 'Flash 900', label: 'Flash', kind: 'strobe', beam: 100, output: 6, modes: ['shutter dim', 'dim shutter r g b'] },
]; // prettier-ignore

const NORTHLAMP: readonly Line[] = [
  { model: 'Egret 30', label: 'Egret', kind: 'moving spot', beam: 14, output: 1.2, pan: 540, tilt: 210, colours: 8, gobos: 7, modes: ['pan tilt dim shutter colour gobo', 'pan16 tilt16 speed dim shutter colour gobo turn'] },
  { model: 'Bittern beam 230', label: 'Bitt', kind: 'moving spot', beam: 3, output: 4, pan: 540, tilt: 270, colours: 14, gobos: 16, modes: ['colour shutter dim gobo prism turn frost focus pan16 tilt16 speed control'] },
  { model: 'Gannet CMY 400', label: 'Gann', kind: 'moving spot', beam: 20, output: 5, pan: 540, tilt: 270, colours: 7, gobos: 7, modes: ['pan16 tilt16 dim16 shutter cyan magenta yellow ctc colour gobo turn gobo2 prism focus zoom iris frost control'] },
  { model: 'Osprey wash CMY', label: 'Ospr', kind: 'moving wash', beam: 30, output: 4, pan: 540, tilt: 240, modes: ['pan16 tilt16 dim shutter cyan magenta yellow ctc zoom control'] },
  { model: 'Dunlin scanner', label: 'Dunlin', kind: 'moving spot', beam: 10, output: 1.6, pan: 176, tilt: 84, colours: 10, gobos: 10, modes: ['shutter colour gobo turn pan tilt', 'shutter dim colour gobo turn prism pan16 tilt16'] },
  { model: 'Fresnel LED 100', label: 'Fres', kind: 'wash', beam: 35, output: 1.8, modes: ['dim', 'dim16 zoom', 'dim shutter zoom'] },
  { model: 'Fresnel LED 200 colour', label: 'FresC', kind: 'wash', beam: 35, output: 2, modes: ['dim r g b w', 'dim16 r g b a w zoom'] },
]; // prettier-ignore

const QUILLON: readonly Line[] = [
  { model: 'Derby', label: 'Derby', kind: 'strobe', beam: 80, output: 0.8, modes: ['r g b shutter effect', 'r g b w a shutter effect rate'] },
  { model: 'Party bar 4', label: 'Party', kind: 'bar', beam: 30, modes: ['r g b', 'dim shutter r g b macro', '4*(r g b)'] },
  { model: 'Laser fan', label: 'Laser', kind: 'strobe', beam: 60, output: 0.6, modes: ['effect rate control', 'shutter effect rate pan tilt zoom control'] },
  { model: 'Moonflower', label: 'Moon', kind: 'strobe', beam: 90, output: 0.9, modes: ['effect rate shutter', 'r g b w effect rate shutter'] },
  { model: 'Pixel tube 24', label: 'Tube', kind: 'bar', beam: 110, output: 0.7, modes: ['dim r g b', '24*(r g b)'] },
  { model: 'Blinder 4', label: 'Blind', kind: 'wash', beam: 60, output: 5, modes: ['dim', '4*(dim)', 'dim ww shutter'] },
  { model: 'Uplight, battery', label: 'Uplit', kind: 'par', beam: 25, output: 0.8, modes: ['r g b a', 'dim r g b a uv', 'dim r g b a uv shutter macro'] },
  { model: 'Mist 2', label: 'Mist', kind: 'hazer', beam: 30, output: 0, modes: ['fog fan', 'fog fan control'] },
]; // prettier-ignore

/** Every type that comes along, parsed like any other. Made once, when first asked for. */
export function fixtureLibrary(): readonly Profile[] {
  made ??= (
    [
      ['Generic', GENERIC],
      ['Ardent', ARDENT],
      ['Northlamp', NORTHLAMP],
      ['Quillon', QUILLON],
    ] as const
  ).flatMap(([maker, lines]) => lines.map((line) => profileOf(maker, line)));
  return made;
}
let made: readonly Profile[] | undefined;

/**
 * Types whose maker, model, label, kind or channel count hold every word of `text`, in the order given; words that
 * begin a name go before those inside one. An empty text finds all.
 */
export function searchTypes(types: readonly Profile[], text: string): readonly Profile[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const ranked = types.flatMap((type) => {
    const counts = type.modes.map((mode) => `${mode.channels.reduce((most, { at }) => Math.max(most, ...at), 0)}ch`);
    const names = [type.maker, type.model, type.label, type.kind, ...counts].join(' ').toLowerCase();
    if (!words.every((word) => names.includes(word))) return [];
    const begins = words.filter((word) => ` ${names}`.includes(` ${word}`)).length;
    return [{ type, begins }];
  });
  return ranked.sort((a, b) => b.begins - a.begins).map(({ type }) => type);
}

function profileOf(maker: string, line: Line): Profile {
  const id = `${maker}-${line.model}`
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/-$/, '');
  return Profile.parse({
    id,
    maker,
    model: line.model,
    label: line.label,
    kind: line.kind,
    beamAngle: line.beam,
    output: line.output ?? 1,
    panRange: line.pan ?? 0,
    tiltRange: line.tilt ?? 0,
    colours: WHEEL.slice(0, line.colours ?? 0).map(([name, x, y]) => ({ name, colour: { x, y } })),
    gobos: Array.from({ length: line.gobos ?? 0 }, (_, n) =>
      n === 0
        ? { name: 'Open', pattern: 'open' as const }
        : { name: `Pattern ${n}`, pattern: PATTERNS[1 + ((n - 1) % (PATTERNS.length - 1))]! },
    ),
    modes: line.modes.map((words) => {
      const channels = channelsOf(words, line);
      const length = channels.reduce((most, { at }) => Math.max(most, ...at), 0);
      return {
        id: `m${length}-${words.replace(/[^a-z0-9]+/g, '')}`.slice(0, 80),
        name: `${length} channels`,
        channels,
      };
    }),
  } satisfies ProfileIn);
}

function channelsOf(words: string, line: Line): ChannelIn[] {
  const channels: ChannelIn[] = [];
  let next = 1;
  const add = (word: string, cell?: number) => {
    const [, name, wide] = /^([a-z]+2?)(16)?$/.exec(word)!;
    const { attribute, home } = WORDS[name!]!;
    const at = wide ? [next, next + 1] : [next];
    next += at.length;
    channels.push({
      attribute,
      at,
      ...(home === undefined ? {} : { home }),
      ...(cell === undefined ? {} : { cell }),
      ...(attribute === 'Shutter1' ? { ranges: SHUTTER } : {}),
      ...(attribute === 'Color1' ? { ranges: slots(line.colours ?? 1) } : {}),
      ...(attribute === 'Gobo1' ? { ranges: slots(line.gobos ?? 1) } : {}),
    });
  };
  for (const [, times, cells, word] of words.matchAll(/(\d+)\*\(([^)]*)\)|(\S+)/g)) {
    if (word) add(word);
    else for (let cell = 0; cell < Number(times); cell++) for (const each of cells!.split(' ')) add(each, cell);
  }
  return channels;
}

const SHUTTER: NonNullable<ChannelIn['ranges']> = [
  { from: 0, to: 9, does: 'closed' },
  { from: 10, to: 199, does: 'strobe', low: 1, high: 18 },
  { from: 200, to: 255, does: 'open' },
];

/** As many equal stretches as the wheel has slots. */
function slots(count: number): NonNullable<ChannelIn['ranges']> {
  const size = Math.floor(128 / count);
  return Array.from({ length: count }, (_, slot) => ({
    from: slot * size,
    to: slot * size + size - 1,
    does: slot === 0 ? ('open' as const) : ('slot' as const),
    slot,
  }));
}

/** Filters of a colour wheel as CIE 1931 chromaticities, from deep to pale. */
const WHEEL = [
  ['Open', 0.3127, 0.329], ['Red', 0.68, 0.31], ['Orange', 0.58, 0.4], ['Yellow', 0.45, 0.49], ['Green', 0.25, 0.65],
  ['Cyan', 0.2, 0.35], ['Blue', 0.15, 0.08], ['Violet', 0.24, 0.11], ['Magenta', 0.4, 0.19], ['Pink', 0.4, 0.28],
  ['Lime', 0.36, 0.56], ['Sky', 0.24, 0.27], ['Warm white', 0.44, 0.4], ['Deep blue', 0.155, 0.045],
] as const; // prettier-ignore
