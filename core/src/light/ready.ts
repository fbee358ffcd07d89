// Effects to begin with: nothing but levels, colours and waves, so each can be changed like one's own.

import type { z } from 'zod';
import { chromaticityFromHex } from '../colour';
import type { Saying } from './draft';
import { Wave } from './wave';

export type ReadyEffect = {
  readonly name: string;
  /** Only for lamps that move. */
  readonly moves?: boolean;
  readonly saying: Saying;
};

type WaveIn = z.input<typeof Wave>;

const level = (value: number): NonNullable<Saying['level']> => ({ type: 'hold', value });
const colour = (hex: string): NonNullable<Saying['colour']> => ({ type: 'hold', value: chromaticityFromHex(hex) });
const waves = (...list: WaveIn[]): Wave[] => list.map((wave) => Wave.parse(wave));
const on = (
  attribute: string,
  shape: Exclude<WaveIn, { type: 'move' }>['shape'],
  low: number,
  high: number,
  span: WaveIn['span'],
  more: object = {},
): WaveIn => ({ type: 'wave', on: attribute, shape, low, high, span, ...more });
const between = (from: string, to: string, span: WaveIn['span'], more: object = {}): WaveIn => ({
  type: 'colours',
  shape: 'sine',
  from: chromaticityFromHex(from),
  to: chromaticityFromHex(to),
  span,
  ...more,
});

/** A wave of each lamp for itself: drawn apart by chance. */
const EACH = { turn: 1, way: 'random' } as const;

export const READY_EFFECTS: readonly ReadyEffect[] = [
  { name: 'Breathing', saying: { level: level(1), waves: waves(on('level', 'sine', 0.1, 1, { beats: 8 })) } },
  { name: 'Pulse', saying: { level: level(1), waves: waves(on('level', 'down', 0.1, 1, { beats: 1 })) } },
  {
    name: 'Candle',
    saying: {
      level: level(0.5),
      colour: colour('#ffb46b'),
      waves: waves(
        on('level', 'random', 0.35, 0.6, { seconds: 0.13 }, EACH),
        on('level', 'sine', -0.1, 0.15, { seconds: 1.7 }, { ...EACH, blend: 'add' }),
      ),
    },
  },
  {
    name: 'Fire',
    saying: {
      level: level(0.8),
      waves: waves(
        on('level', 'random', 0.35, 1, { seconds: 0.16 }, EACH),
        between('#ff2a08', '#ffa024', { seconds: 0.4 }, { ...EACH, shape: 'random' }),
      ),
    },
  },
  {
    name: 'Sparkle',
    saying: {
      level: level(1),
      waves: waves(
        on('level', 'drawn', 0, 1, { beats: 2 }, { ...EACH, points: [1, 0.3, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0] }),
      ),
    },
  },
  {
    name: 'Rainbow',
    saying: {
      level: level(1),
      colour: colour('#ff1030'),
      waves: waves(on('hue', 'up', 0, 360, { beats: 16 }, { turn: 1 })),
    },
  },
  {
    name: 'Left to right',
    saying: { level: level(1), waves: waves(on('level', 'square', 0, 1, { beats: 4 }, { turn: 1, width: 0.25 })) },
  },
  {
    name: 'To the middle',
    saying: { level: level(1), waves: waves(on('level', 'triangle', 0, 1, { beats: 4 }, { turn: 1, way: 'mirror' })) },
  },
  {
    name: 'Build-up',
    saying: {
      level: level(1),
      colour: colour('#ffffff'),
      waves: waves(on('level', 'up', 0.05, 1, { beats: 32 }), on('strobe', 'up', 0, 12, { beats: 32 })),
    },
  },
  {
    name: 'Blinder hit',
    saying: {
      level: level(1),
      colour: colour('#ffcf9a'),
      waves: waves(on('level', 'drawn', 0, 1, { beats: 8 }, { points: [1, 0.45, 0.15, 0, 0, 0, 0, 0] })),
    },
  },
  {
    name: 'Lightning',
    saying: {
      level: level(0),
      colour: colour('#d8e8ff'),
      waves: waves(
        on('level', 'random', -1.2, 1, { seconds: 0.09 }),
        on('level', 'random', -3, 0.4, { seconds: 1.9 }, { blend: 'add' }),
      ),
    },
  },
  {
    name: 'Alarm',
    saying: {
      level: level(1),
      colour: colour('#ffa024'),
      waves: waves(on('level', 'square', 0, 1, { beats: 1 }, { turn: 1, groups: 2 })),
    },
  },
  {
    name: 'Underwater',
    saying: {
      level: level(0.6),
      waves: waves(
        between('#12d6c8', '#2a40ff', { seconds: 11 }, EACH),
        on('level', 'sine', 0.3, 0.8, { seconds: 6.3 }, EACH),
      ),
    },
  },
  {
    name: 'Ballyhoo',
    moves: true,
    saying: {
      level: level(1),
      waves: waves({ type: 'move', shape: 'wander', width: 120, height: 60, span: { beats: 8 }, ...EACH }),
    },
  },
  {
    name: 'Searching',
    moves: true,
    saying: {
      level: level(1),
      waves: waves({ type: 'move', shape: 'eight', width: 70, height: 30, span: { beats: 16 }, turn: 1, flip: true }),
    },
  },
];
