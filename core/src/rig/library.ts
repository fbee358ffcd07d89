// Fixture types that come along: generic ones, and those of makers we made up, over everything that hangs on a stage.

import type { z } from 'zod';
import { finder, folded } from '../letters';
import { PATTERNS, Profile } from './schema';
import { ARDENT, GENERIC, NORTHLAMP, QUILLON, type Line } from './types-at-hand';

type ProfileIn = z.input<typeof Profile>;
type ChannelIn = ProfileIn['modes'][number]['channels'][number];

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
  const fits = finder(text);
  const words = folded(text).split(/\s+/).filter(Boolean);
  const ranked = types.flatMap((type) => {
    const counts = type.modes.map((mode) => `${mode.channels.reduce((most, { at }) => Math.max(most, ...at), 0)}ch`);
    const names = [type.maker, type.model, type.label, type.kind, ...counts].join(' ');
    if (!fits(names)) return [];
    const all = folded(` ${names}`);
    const begins = words.filter((word) => all.includes(` ${word}`)).length;
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
  ['Open', 0.3127, 0.329],
  ['Red', 0.68, 0.31],
  ['Orange', 0.58, 0.4],
  ['Yellow', 0.45, 0.49],
  ['Green', 0.25, 0.65],
  ['Cyan', 0.2, 0.35],
  ['Blue', 0.15, 0.08],
  ['Violet', 0.24, 0.11],
  ['Magenta', 0.4, 0.19],
  ['Pink', 0.4, 0.28],
  ['Lime', 0.36, 0.56],
  ['Sky', 0.24, 0.27],
  ['Warm white', 0.44, 0.4],
  ['Deep blue', 0.155, 0.045],
] as const;
