// The looks of the night, and where in each song they lie.

import type { z } from 'zod';
import { chromaticityFromHex } from '@hovlix/core/colour';
import type { Chase, Kit, Look, LookValue } from '@hovlix/core/light';

type LookIn = z.input<typeof Look>;
type ValueIn = z.input<typeof LookValue>;

const colour = (...hexes: string[]): NonNullable<ValueIn['colour']> =>
  hexes.length === 1
    ? { type: 'hold', value: chromaticityFromHex(hexes[0]!) }
    : { type: 'spread', values: hexes.map(chromaticityFromHex) };
const level = (...values: number[]): NonNullable<ValueIn['level']> =>
  values.length === 1 ? { type: 'hold', value: values[0]! } : { type: 'spread', values };
const aim = (...names: string[]): NonNullable<ValueIn['aim']> => ({
  type: 'spread',
  values: names.map((name) => ({ aim: name })),
});
const zoom = (value: number): NonNullable<ValueIn['zoom']> => ({ type: 'hold', value });
const gobo = (value: number): NonNullable<ValueIn['gobo']> => ({ type: 'hold', value });

let number = 0;
const look = (name: string, fadeIn: number, fadeOut: number, values: ValueIn[], keep = false): LookIn => ({
  id: name.toLowerCase().replaceAll(/[^a-z]+/g, '-'),
  number: ++number,
  name,
  fadeIn,
  fadeOut,
  keep,
  values,
});

const swell = (low: number, high: number, span: { beats: number } | { seconds: number }, more: object = {}) =>
  ({ type: 'wave', on: 'level', shape: 'sine', low, high, span, turn: 1, ...more }) as const;
const figure = (shape: 'circle' | 'wander', width: number, height: number, beats: number) =>
  ({ type: 'move', shape, width, height, span: { beats }, turn: 1, flip: shape === 'circle' }) as const;

const CROWD = aim('crowd-right', 'crowd-right', 'crowd-left', 'crowd-left');
const ROOF = aim('roof-right', 'roof-left', 'roof-right', 'roof-left');
const CROSS = aim('left', 'left', 'right', 'right');
const DRUMS = aim('drums', 'drums', 'drums', 'drums');
const SINGER = aim('singer', 'singer', 'singer', 'singer');

export const LOOKS: readonly LookIn[] = [
  look('Harbour blue', 2, 2, [
    { role: 'front', level: level(0.14, 0.3, 0.14, 0.1), colour: colour('#ffcf9a') },
    { role: 'back', level: level(0.95), colour: colour('#1f3cff', '#2a62ff', '#2a62ff', '#1f3cff') },
    { role: 'movers', level: level(0.35, 0, 0, 0.35), colour: colour('#2436ff'), aim: ROOF, zoom: zoom(0.7) },
    { role: 'bars', level: level(0.1), colour: colour('#1a2cff') },
  ]),
  look('Full sail', 0.5, 2, [
    { role: 'front', level: level(0.5), colour: colour('#ffd9b0') },
    { role: 'back', level: level(1), colour: colour('#9a4dff', '#ff4f7a', '#9a4dff', '#ff4f7a') },
    {
      role: 'movers',
      level: level(1),
      colour: colour('#27d4ff', '#ffffff', '#ffffff', '#27d4ff'),
      aim: CROSS,
      zoom: zoom(0.3),
      gobo: gobo(0),
      waves: [figure('circle', 16, 10, 8)],
    },
    {
      role: 'bars',
      level: level(0.9),
      colour: colour('#ff4f7a', '#ff4f7a', '#ffffff', '#ff4f7a', '#9a4dff', '#9a4dff', '#ffffff', '#9a4dff'),
    },
    { role: 'accent', level: level(0.8) },
  ]),
  look('Full sail, wide', 0.5, 2, [
    { role: 'front', level: level(0.42), colour: colour('#ffd9b0') },
    { role: 'back', level: level(1), colour: colour('#ff4f7a', '#9a4dff', '#ff4f7a', '#9a4dff') },
    {
      role: 'movers',
      level: level(1),
      colour: colour('#ff5aa8', '#27d4ff', '#27d4ff', '#ff5aa8'),
      aim: CROWD,
      zoom: zoom(0.45),
      gobo: gobo(0),
    },
    {
      role: 'bars',
      level: level(0.9),
      colour: colour('#9a4dff', '#9a4dff', '#ffffff', '#9a4dff', '#ff4f7a', '#ff4f7a', '#ffffff', '#ff4f7a'),
    },
    { role: 'accent', level: level(0.8) },
  ]),
  look('Lift', 4, 1, [
    { role: 'front', level: level(0.25), colour: colour('#ffc69a') },
    { role: 'back', level: level(0.9), colour: colour('#6a4dff', '#b04dff', '#b04dff', '#6a4dff') },
    { role: 'movers', level: level(0.7), colour: colour('#9a3cff'), aim: DRUMS, zoom: zoom(0.5) },
    { role: 'bars', level: level(0.2, 0.4, 0.7, 1, 1, 0.7, 0.4, 0.2), colour: colour('#ff5aa8') },
  ]),
  look('Embers', 2, 4, [
    { role: 'front', level: level(0.2), colour: colour('#ff9a4a') },
    {
      role: 'back',
      level: level(0.85, 0.6, 0.6, 0.85),
      colour: colour('#ff7a1f', '#ff4a1a'),
      waves: [swell(-0.25, 0.1, { seconds: 1.3 }, { blend: 'add', way: 'random' })],
    },
    { role: 'movers', level: level(0.3, 0, 0, 0.3), colour: colour('#ff6a1a'), aim: DRUMS, zoom: zoom(0.6) },
    { role: 'accent', level: level(1) },
    { role: 'bars', level: level(0.5, 0.15, 0.3, 0.1), colour: colour('#ff6a1a') },
  ]),
  look('Sparks', 0.25, 2, [
    { role: 'front', level: level(0.45), colour: colour('#ffb070') },
    { role: 'back', level: level(1), colour: colour('#ff3a1a', '#ffa024', '#ff3a1a', '#ffa024') },
    { role: 'movers', level: level(1), colour: colour('#ffa024'), aim: ROOF, zoom: zoom(0.25), gobo: gobo(3) },
    { role: 'accent', level: level(1) },
    { role: 'bars', level: level(1, 0.1, 0.5, 0.1, 1, 0.2, 0.6, 0.1), colour: colour('#ffc04a') },
  ]),
  look('Undertow', 2, 2, [
    { role: 'front', level: level(0.12), colour: colour('#9affea') },
    {
      role: 'back',
      level: level(0.9),
      colour: colour('#12c8b4', '#1f9a5a', '#12b4c8', '#1f5aff'),
      waves: [swell(0.45, 1, { beats: 8 })],
    },
    {
      role: 'movers',
      level: level(0.8, 0.6, 0.6, 0.8),
      colour: colour('#2fd8ff'),
      aim: CROSS,
      gobo: gobo(2),
      zoom: zoom(0.5),
      waves: [figure('wander', 30, 20, 16)],
    },
    { role: 'bars', level: level(0.5, 0.2), colour: colour('#12c8b4', '#1f5aff') },
  ]),
  look('Moonrise', 4, 4, [
    { role: 'back', level: level(0.5, 0.8, 0.8, 0.5), colour: colour('#b8ccff') },
    { role: 'movers', level: level(0, 0.55, 0.55, 0), colour: colour('#ffffff'), aim: SINGER, gobo: gobo(0) },
  ]),
  look('Lanterns', 2, 3, [
    { role: 'front', level: level(0.35), colour: colour('#ffb877') },
    { role: 'back', level: level(0.8), colour: colour('#ff9a4a', '#ff5a7a', '#ff9a4a', '#ff5a7a') },
    { role: 'movers', level: level(0.7), colour: colour('#ffa024'), aim: CROSS, gobo: gobo(4), zoom: zoom(0.6) },
    { role: 'accent', level: level(0.9) },
    { role: 'bars', level: level(0.6, 0, 0, 0.6, 0, 0, 0.6, 0), colour: colour('#ffb04a') },
  ]),
  look('Singer alone', 2, 2, [
    { role: 'front', level: level(0, 0.55, 0, 0), colour: colour('#ffe2c4') },
    { role: 'movers', level: level(0, 0.7, 0, 0), colour: colour('#ffffff'), aim: SINGER, gobo: gobo(0) },
    { role: 'back', level: level(0.12), colour: colour('#3a2cff') },
  ]),
  look('Night Ferry', 0.5, 2, [
    { role: 'back', level: level(1), colour: colour('#2fd8ff', '#9a3cff', '#9a3cff', '#2fd8ff') },
    {
      role: 'movers',
      level: level(1),
      colour: colour('#9a3cff', '#2fd8ff', '#2fd8ff', '#9a3cff'),
      aim: CROWD,
      gobo: gobo(0),
      zoom: zoom(0.2),
    },
    { role: 'bars', level: level(1), colour: colour('#2fd8ff', '#2fd8ff', '#9a3cff', '#9a3cff') },
    { role: 'front', level: level(0.1), colour: colour('#b48aff') },
  ]),
  look('Night Ferry, turned', 0.5, 2, [
    { role: 'back', level: level(1), colour: colour('#9a3cff', '#2fd8ff', '#2fd8ff', '#9a3cff') },
    {
      role: 'movers',
      level: level(1),
      colour: colour('#2fd8ff', '#ff5aa8', '#ff5aa8', '#2fd8ff'),
      aim: ROOF,
      gobo: gobo(0),
      zoom: zoom(0.2),
    },
    { role: 'bars', level: level(1), colour: colour('#ff5aa8', '#ff5aa8', '#2fd8ff', '#2fd8ff') },
    { role: 'front', level: level(0.1), colour: colour('#b48aff') },
  ]),
  look('White blink', 0, 0.5, [
    { role: 'bars', level: level(1), colour: colour('#ffffff') },
    { role: 'front', level: level(0.9), colour: colour('#ffffff') },
    { role: 'accent', level: level(1) },
  ]),
  look('Blinder', 0, 1, [
    { role: 'front', level: level(1), colour: colour('#fff2e0') },
    { role: 'accent', level: level(1) },
    { role: 'bars', level: level(1), colour: colour('#ffffff') },
    { role: 'strobe', level: level(0.8), strobe: { type: 'hold', value: 0 } },
  ]),
  look('Haze, a little', 4, 4, [{ role: 'haze', haze: { type: 'hold', value: 0.35 } }], true),
  look('House warm', 4, 4, [
    { role: 'front', level: level(0.4), colour: colour('#ffcf9a') },
    { role: 'back', level: level(0.3), colour: colour('#ff9a5a') },
    { role: 'bars', level: level(0.08), colour: colour('#ff9a5a') },
  ]),
];

/** Looks that follow one another by themselves. */
export const CHASES: readonly z.input<typeof Chase>[] = [
  {
    id: 'harbour-lights',
    number: 17,
    name: 'Harbour lights',
    fadeIn: 2,
    fadeOut: 2,
    pace: 'beats',
    steps: [
      { id: 'one', look: 'harbour-blue', fade: 2, hold: 2 },
      { id: 'two', look: 'undertow', fade: 2, hold: 2 },
      { id: 'three', look: 'moonrise', fade: 2, hold: 2 },
    ],
  },
  {
    id: 'buoys',
    number: 18,
    name: 'Buoys',
    fadeIn: 0,
    fadeOut: 1,
    pace: 'beats',
    direction: 'bounce',
    steps: [0, 1, 2, 3].map((place) => ({
      id: `lamp-${place + 1}`,
      fade: 0.25,
      hold: 0.75,
      values: [
        { role: 'back', level: level(0.08), colour: colour('#1f5aff') },
        { role: 'back', pick: { type: 'places', places: [place] }, level: level(1), colour: colour('#ff3a1a') },
      ],
    })),
  },
];

/** What a section wears: looks take turns every `turn` bars; `blinks` are accents, in beats of each bar. */
const struck = (name: string, note: number, hex: string, more: object) => ({
  id: name.toLowerCase().replaceAll(' ', '-'),
  name,
  low: note,
  high: note,
  level: 1,
  colour: chromaticityFromHex(hex),
  attack: { seconds: 0 },
  hold: { seconds: 0.03 },
  release: { beats: 0.5 },
  ...more,
});

/** What the drummer's pads do, on the bars and on the wash behind. */
export const KITS: readonly z.input<typeof Kit>[] = [
  {
    id: 'barrel-drums',
    name: 'Barrel drums',
    hits: [
      struck('Kick', 36, '#fff1d6', {}),
      struck('Snare', 38, '#ff3b2e', { pick: { type: 'every', nth: 2, from: 0 } }),
      struck('Hat', 42, '#8fd8ff', { spread: 'chance', level: 0.7, release: { beats: 0.25 }, choke: 1 }),
      struck('Open hat', 46, '#8fd8ff', { spread: 'chance', release: { beats: 2 }, choke: 1 }),
      struck('Tom', 45, '#ffa02e', { spread: 'next', release: { beats: 1 } }),
      struck('Crash', 49, '#ffd9a0', { release: { beats: 4 }, curve: 'sharp' }),
    ],
    channels: [
      { channel: 10, role: 'bars' },
      { channel: 11, role: 'back' },
    ],
  },
];

export type Wardrobe = {
  readonly looks: readonly string[];
  readonly turn: number;
  readonly blinks?: { readonly look: string; readonly beats: readonly number[]; readonly length: number };
};

const snare = { look: 'white-blink', beats: [1, 3], length: 0.5 };

export const WARDROBES: Readonly<Record<string, Readonly<Record<string, Wardrobe>>>> = {
  'paper-lighthouse': {
    Intro: { looks: ['singer-alone', 'moonrise'], turn: 2 },
    'Verse 1': { looks: ['harbour-blue'], turn: 8 },
    'Verse 2': { looks: ['harbour-blue', 'moonrise'], turn: 4 },
    Lift: { looks: ['lift'], turn: 4 },
    'Chorus 1': { looks: ['full-sail', 'full-sail-wide'], turn: 1, blinks: snare },
    'Chorus 2': { looks: ['full-sail', 'full-sail-wide'], turn: 1, blinks: snare },
    'Chorus 3': { looks: ['full-sail', 'full-sail-wide'], turn: 0.5, blinks: snare },
    Bridge: { looks: ['singer-alone'], turn: 8 },
    Outro: { looks: ['harbour-blue', 'moonrise'], turn: 2 },
  },
  'salt-and-signal': {
    Intro: { looks: ['moonrise'], turn: 4 },
    'Verse 1': { looks: ['singer-alone', 'undertow'], turn: 4 },
    'Chorus 1': { looks: ['lanterns'], turn: 8 },
    'Verse 2': { looks: ['undertow'], turn: 8 },
    'Chorus 2': { looks: ['lanterns', 'embers'], turn: 4 },
    Outro: { looks: ['moonrise'], turn: 4 },
  },
  'low-tide-engine': {
    Intro: { looks: ['embers'], turn: 4 },
    Verse: { looks: ['embers', 'lanterns'], turn: 4 },
    Chorus: { looks: ['sparks', 'full-sail-wide'], turn: 1, blinks: snare },
    Breakdown: { looks: ['undertow'], turn: 4 },
    Outro: { looks: ['embers'], turn: 4 },
  },
  'night-ferry': {
    Groove: { looks: ['undertow'], turn: 8 },
    Theme: { looks: ['undertow', 'night-ferry'], turn: 4 },
    Breakdown: { looks: ['moonrise'], turn: 8 },
    'Build-up': { looks: ['lift'], turn: 4, blinks: { look: 'white-blink', beats: [0, 2], length: 0.5 } },
    Drop: {
      looks: ['night-ferry', 'night-ferry-turned'],
      turn: 0.5,
      blinks: { look: 'blinder', beats: [0], length: 0.5 },
    },
    Outro: { looks: ['undertow'], turn: 8 },
  },
};
