// Followers: attributes that follow what is heard, in a song or by the microphone.

import { z } from 'zod';
import { DRUMS } from '../music/drums';
import { Chroma } from '../rig/schema';
import { RunShape } from './drive';
import { Moved } from './wave';

/** Bands of hearing in hertz. */
export const HEARING_BANDS = {
  all: { low: 20, high: 16000 },
  sub: { low: 20, high: 60 },
  low: { low: 60, high: 250 },
  mid: { low: 250, high: 2500 },
  high: { low: 2500, high: 16000 },
} as const;
export type HearingBand = keyof typeof HEARING_BANDS;

export const HERTZ = { least: 20, most: 16000 } as const;
const Hertz = z.number().min(HERTZ.least).max(HERTZ.most);

/** What is measured over all of the spectrum: how loud it sounds to people, and how much of it lies high up. */
export const MEASURES = ['loudness', 'brightness'] as const;
export type Measure = (typeof MEASURES)[number];

/** What is listened for: loudness in a band, between two frequencies, a measure of the whole, or the strokes of a drum. */
export const Hears = z.union([
  z.strictObject({ band: z.enum(Object.keys(HEARING_BANDS) as [HearingBand, ...HearingBand[]]) }),
  z.strictObject({ from: Hertz, to: Hertz }),
  z.strictObject({ measure: z.enum(MEASURES) }),
  z.strictObject({ drum: z.enum(DRUMS) }),
]);
export type Hears = z.infer<typeof Hears>;

/** Longest attack or release, in seconds. */
export const LONGEST_SLEW = 10;
const Slew = z.number().min(0).max(LONGEST_SLEW);
const Unit = z.number().min(0).max(1);

/** How loudness becomes a height, 0…1. */
const heard = {
  /** The song, and the microphone where no song with music is on; or always the microphone. */
  source: z.enum(['song', 'microphone']).default('song'),
  hears: Hears,
  /** Seconds from nothing to all, and back. */
  attack: Slew,
  release: Slew,
  /** What is heard below `floor` counts as nothing, above `ceiling` as all; with floor at or above ceiling it is a gate. */
  floor: Unit.default(0),
  ceiling: Unit.default(1),
  /** Decibels that are added to what is heard; without, it adapts to how loud it is. */
  gain: z.number().min(-20).max(60).optional(),
  /** The lamps fill up one after the other, as a meter does. */
  meter: z.boolean().optional(),
  ...RunShape,
};

export const Follower = z.discriminatedUnion('type', [
  /** A number from `low`, where nothing is heard, to `high`; with low above high it is upside down. */
  z.strictObject({
    type: z.literal('follow'),
    on: Moved,
    low: z.number().min(-1000).max(1000),
    high: z.number().min(-1000).max(1000),
    blend: z.enum(['replace', 'add']).default('replace'),
    ...heard,
  }),
  /** From one colour to another. */
  z.strictObject({ type: z.literal('colours'), from: Chroma, to: Chroma, ...heard }),
]);
export type Follower = z.infer<typeof Follower>;

/** The frequencies of what is listened for, in hertz; the lower one first, whichever was drawn first. */
export function hertzOf(hears: Exclude<Hears, { drum: unknown } | { measure: unknown }>): {
  readonly low: number;
  readonly high: number;
} {
  if ('band' in hears) return HEARING_BANDS[hears.band];
  return { low: Math.min(hears.from, hears.to), high: Math.max(hears.from, hears.to) };
}
