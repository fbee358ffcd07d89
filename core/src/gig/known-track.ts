// Tracks of a DJ player, and the songs they are.

import { z } from 'zod';
import { idOf } from '../rig/schema';

/** What a player says of a track. */
export const DeckTrack = z.strictObject({
  title: z.string().max(200),
  by: z.string().max(200),
  /** In seconds, at its own speed; 0 where the player does not say. */
  length: z.number().min(0).max(36_000),
  /** SHA-256 of its file in hexadecimal digits, from players that know it. */
  content: z
    .string()
    .regex(/^[0-9a-f]{64}$/)
    .optional(),
});
export type DeckTrack = z.infer<typeof DeckTrack>;

/** Once found or chosen, it is kept. Null is a track that is none of this show's songs. */
export const KnownTrack = z.strictObject({
  id: idOf<'KnownTrack'>(),
  track: DeckTrack,
  song: idOf<'Song'>().nullable(),
});
export type KnownTrack = z.infer<typeof KnownTrack>;

export const MOST_KNOWN = 5000;

/** What a show knows of a DJ player. */
export const DjPlayer = z.strictObject({
  tracks: z.array(KnownTrack).max(MOST_KNOWN),
  /** Comes on while a track plays that is none of the songs. */
  unknown: idOf<'Look'>().optional(),
});
export type DjPlayer = z.infer<typeof DjPlayer>;

/** Recordings that are the same differ by less, in seconds: encoders add some silence. */
export const SAME_LENGTH = 2;

/** Whether a player means the same track: by its file where both know it, else by title, artist and length. */
export function sameTrack(a: DeckTrack, b: DeckTrack): boolean {
  if (a.content !== undefined && b.content !== undefined) return a.content === b.content;
  return (
    plain(a.title) === plain(b.title) && plain(a.by) === plain(b.by) && Math.abs(a.length - b.length) <= SAME_LENGTH
  );
}

/** Letters and digits alone, in small letters, without accents: how a title is compared. */
export const plain = (text: string): string =>
  text
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '');
