// Songs: music with its tempo map, sections and lanes.

import { z } from 'zod';
import { seconds } from '../units';
import { Name, idOf } from '../rig/schema';
import { Beat, Lane, MOST_LANES } from './lane-schema';

const Moment = z.number().min(-1e6).max(1e6).transform(seconds);

/** From a bar on the song has a name for what it is, and a note on what the light should do there. */
export const Section = z.strictObject({
  id: idOf<'Section'>(),
  bar: z.number().int().min(-64).max(100000),
  name: Name,
  note: z.string().max(400).default(''),
  tint: z.number().int().min(0).max(7),
});
export type Section = z.infer<typeof Section>;

/** A place with a name, anywhere in the song. */
export const MOST_MARKERS = 1000;
export const Marker = z.strictObject({ id: idOf<'Marker'>(), at: Beat, name: Name });
export type Marker = z.infer<typeof Marker>;

/** The music itself lies beside the show, found by the SHA-256 of its bytes. */
export const Music = z.strictObject({
  hash: z.string().regex(/^[0-9a-f]{64}$/),
  name: z.string().min(1).max(255),
  type: z.enum(['wav', 'flac', 'mp3', 'ogg']),
  bytes: z.number().int().min(1),
});
export type Music = z.infer<typeof Music>;

/** A recording that sounds beside the music: a stem, a jingle, a click. Light goes by the music alone. */
export const Track = z.strictObject({
  id: idOf<'Track'>(),
  name: Name,
  music: Music,
  /** When it begins, in seconds of the song; below 0, so much of it is left out. */
  at: z.number().min(-36_000).max(36_000),
  level: z.number().min(0).max(1).default(1),
  muted: z.boolean().optional(),
});
export type Track = z.infer<typeof Track>;

export const MOST_TRACKS = 16;

/** Beats a minute that a tempo map may have; nobody plays a tenth of the most. */
const MOST_BPM = 2000;
const ANCHORS_RISE = `each anchor must be later than the one before it in beats and in time, with at most ${MOST_BPM} beats a minute between them`;

type AnchorIn = { readonly beat: number; readonly time: number };
const risesFrom = (before: AnchorIn, here: AnchorIn): boolean =>
  here.beat > before.beat &&
  here.time > before.time &&
  (here.beat - before.beat) * 60 <= MOST_BPM * (here.time - before.time);

/** Seconds of a fade. */
const Fade = z.number().min(0).max(60).default(2);

/**
 * What the light does when the music is over: its last moment stays, it goes dark, a look comes, or the next song of
 * the set begins. It stays like that until something else is pressed.
 */
export const Ending = z.discriminatedUnion('then', [
  z.strictObject({ then: z.literal('hold') }),
  z.strictObject({ then: z.literal('dark'), fade: Fade }),
  z.strictObject({ then: z.literal('look'), look: idOf<'Look'>(), fade: Fade }),
  z.strictObject({ then: z.literal('next') }),
]);
export type Ending = z.infer<typeof Ending>;

export const Song = z.strictObject({
  id: idOf<'Song'>(),
  title: Name,
  by: z.string().max(120).default(''),
  /** The key it is played in, as musicians write it: Em, B flat. */
  key: z.string().trim().min(1).max(24).optional(),
  /** What to know before it is played. */
  notes: z.string().trim().min(1).max(2000).optional(),
  /** At what time of another machine it begins, in seconds of the day: it then goes by that machine's timecode. */
  timecode: z.number().min(0).max(86_400).optional(),
  music: Music.nullable(),
  tracks: z.array(Track).max(MOST_TRACKS).optional(),
  /** Ten hours at most. */
  duration: z.number().min(0).max(36_000).transform(seconds),
  tempo: z.strictObject({
    anchors: z
      .array(z.strictObject({ beat: Beat, time: Moment }))
      .min(2)
      .max(200000)
      .superRefine((anchors, context) => {
        const at = anchors.findIndex((here, i) => i > 0 && !risesFrom(anchors[i - 1]!, here));
        if (at > 0) context.addIssue({ code: 'custom', path: [at], message: ANCHORS_RISE });
      }),
  }),
  meter: z
    .array(
      z.strictObject({
        bar: z.number().int().min(-64).max(100000),
        numerator: z.number().int().min(1).max(32),
        denominator: z.union([z.literal(1), z.literal(2), z.literal(4), z.literal(8), z.literal(16)]),
      }),
    )
    .min(1)
    .max(1000),
  sections: z.array(Section).max(1000),
  /** Sorted by place. */
  markers: z.array(Marker).max(MOST_MARKERS).optional(),
  /** Without, looks that were on before it come back. */
  ending: Ending.optional(),
  lanes: z.array(Lane).min(1).max(MOST_LANES),
});
export type Song = z.infer<typeof Song>;

/** All recordings that songs need, each once. */
export function recordingsOf(songs: readonly Pick<Song, 'music' | 'tracks'>[]): readonly Music[] {
  const all = songs.flatMap(({ music, tracks }) => [
    ...(music ? [music] : []),
    ...(tracks ?? []).map((one) => one.music),
  ]);
  return [...new Map(all.map((music) => [music.hash, music])).values()];
}
