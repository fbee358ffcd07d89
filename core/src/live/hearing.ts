// What a microphone hears, as it comes into the log: the last two seconds of it, and strokes counted.

import { z } from 'zod';
import { LOUDNESS_BANDS } from '../music/bands';
import { DRUMS, type Drum } from '../music/drums';
import { seconds, type Seconds } from '../units';

const Moment = z.number().transform(seconds);
export const LevelBytes = z.array(z.number().int().min(0).max(255)).length(LOUDNESS_BANDS);
export const StrokeSizes = z.strictObject({
  kick: z.number().min(0).max(1).optional(),
  snare: z.number().min(0).max(1).optional(),
  hat: z.number().min(0).max(1).optional(),
});

/** All strokes, and those with room between them. */
const Count = z.strictObject({ count: z.number().int(), at: Moment, spaced: z.number().int(), spacedAt: Moment });

export const Hearing = z.strictObject({
  /** The screen that listens. */
  by: z.string(),
  /** The last two seconds, rising. */
  moments: z.array(
    z.strictObject({
      at: Moment,
      levels: LevelBytes,
      strokes: StrokeSizes,
      /** Strokes that came too soon after one that counts for where flashes are limited. */
      crowded: z.array(z.enum(DRUMS)).optional(),
    }),
  ),
  /** By band, the loudest of late. */
  loudest: z.array(z.number()).length(LOUDNESS_BANDS),
  /** Strokes since it began to listen, and when the last one was. */
  counts: z.strictObject({ kick: Count, snare: Count, hat: Count }),
});
export type Hearing = z.infer<typeof Hearing>;

const KEPT_SECONDS = 2;
const KEPT_MOMENTS = 128;
/** Bytes of loudness by which the loudest is forgotten in a second: 2 dB. */
const FORGETS = (2 * 255) / 90;
/** Strokes with so many seconds between them are no more than three flashes a second. */
export const STROKE_GAP = 1 / 3;
/** Another screen may take over from one that has said nothing for so long. */
const TAKEN_OVER_AFTER = 1;

export type Heard = { readonly levels: readonly number[]; readonly strokes?: z.infer<typeof StrokeSizes> | undefined };

/** One more moment. While one screen listens, what another hears does not count. */
export function hearingWith(before: Hearing | null, by: string, { levels, strokes = {} }: Heard, at: Seconds): Hearing {
  const last = before?.moments.at(-1);
  if (before && before.by !== by && last && at - last.at < TAKEN_OVER_AFTER) return before;
  const goes = before?.by === by ? before : null;
  const passed = goes && last ? Math.max(0, at - last.at) : 0;
  const kept = (goes?.moments ?? []).filter((one) => one.at > at - KEPT_SECONDS).slice(1 - KEPT_MOMENTS);
  const counted = (drum: Drum) => {
    const counts = goes?.counts[drum] ?? { count: 0, at, spaced: 0, spacedAt: seconds(-1e9) };
    if ((strokes[drum] ?? 0) <= 0) return counts;
    const room = at - counts.spacedAt >= STROKE_GAP;
    return { count: counts.count + 1, at, spaced: counts.spaced + Number(room), spacedAt: room ? at : counts.spacedAt };
  };
  const [kick, snare, hat] = DRUMS.map(counted);
  const now = { kick: kick!, snare: snare!, hat: hat! };
  const crowded = DRUMS.filter((drum) => (strokes[drum] ?? 0) > 0 && now[drum].spacedAt !== at);
  return {
    by,
    moments: [...kept, { at, levels: [...levels], strokes, ...(crowded.length > 0 ? { crowded } : {}) }],
    loudest: levels.map((level, i) => Math.max(level, (goes?.loudest[i] ?? 0) - FORGETS * passed)),
    counts: now,
  };
}
