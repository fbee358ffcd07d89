// Set lists: songs in their order, what lies between them, and what the pedal does at each.

import { z } from 'zod';
import { idOf, Name } from '../rig/schema';

/** What is on when a song is next and has not begun. */
export const Start = z.discriminatedUnion('with', [
  z.strictObject({ with: z.literal('keep') }),
  z.strictObject({ with: z.literal('dark') }),
  z.strictObject({ with: z.literal('look'), look: idOf<'Look'>() }),
]);
export type Start = z.infer<typeof Start>;

/** Where the pedal stops in a song: only at its start, at each of its sections, or at each look of its bank. */
export const STOPS = ['song', 'sections', 'looks'] as const;

const common = {
  id: idOf<'Entry'>(),
  /** Played only if they want more. */
  encore: z.boolean().optional(),
  notes: z.string().trim().max(400).optional(),
};

export const Entry = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('song'),
    ...common,
    song: idOf<'Song'>(),
    start: Start.default({ with: 'keep' }),
    stops: z.enum(STOPS).default('song'),
    /** What pads and pedal do there; without, the bank stays. */
    bank: idOf<'Bank'>().optional(),
    /** Beats a minute of the free clock, until the song plays. */
    tempo: z.number().min(30).max(400).optional(),
    /** Where the song is played in another key tonight. */
    key: z.string().trim().min(1).max(24).optional(),
  }),
  z.strictObject({ kind: z.literal('look'), ...common, look: idOf<'Look'>() }),
  z.strictObject({ kind: z.literal('pause'), ...common, minutes: z.number().min(0).max(600) }),
]);
export type Entry = z.infer<typeof Entry>;
export type SongEntry = Extract<Entry, { kind: 'song' }>;

/** How many places a set may have. */
export const MOST_ENTRIES = 500;

export const SetList = z.strictObject({
  id: idOf<'Set'>(),
  name: Name,
  entries: z.array(Entry).max(MOST_ENTRIES),
  /** What happens by itself when a song is over. */
  after: z.enum(['wait', 'ready', 'play']).default('ready'),
  /** Jump to sections at the next bar line, or at once. */
  jumps: z.enum(['bar', 'now']).default('bar'),
  /** How long the light of the place that is left fades, in beats; without, it cuts. */
  jumpFade: z.number().min(0).max(32).optional(),
  /** A stop of darkness after each song. */
  dark: z.boolean().optional(),
});
export type SetList = z.infer<typeof SetList>;

type Listed = {
  readonly sets: readonly SetList[];
  readonly songs: readonly { readonly id: SongEntry['song'] }[];
};

/** Asked for many times a second by what shows them: made once for the same songs. */
const made = new WeakMap<Listed['songs'], readonly SetList[]>();

/** The sets of a show; all songs in their order where nobody made any. */
export function setsOf({ sets, songs }: Listed): readonly SetList[] {
  if (sets.length > 0) return sets;
  const before = made.get(songs);
  if (before) return before;
  const entries = songs
    .slice(0, MOST_ENTRIES)
    .map(({ id }) => ({ kind: 'song' as const, id: id as string, song: id as string }));
  const all = [SetList.parse({ id: 'all', name: 'All songs', entries })];
  made.set(songs, all);
  return all;
}

/** Tonight's set: the one that was chosen, else the first. */
export function setInUse(show: Listed & { readonly set?: string | undefined }): SetList {
  const sets = setsOf(show);
  return sets.find(({ id }) => id === show.set) ?? sets[0]!;
}
