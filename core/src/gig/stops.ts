// A set as one line of stops, so that a single switch can lead through the whole night.

import { banksOf, type Bank, type Chase, type Look } from '../light';
import type { Section, Song } from '../song';
import type { Entry, SetList, SongEntry } from './set';

export type Stop = { readonly id: string; readonly entry: Entry } &
  /** The song is next, and has not begun. */
  (
    | { readonly at: 'ready'; readonly song: Song }
    | { readonly at: 'song'; readonly song: Song }
    | { readonly at: 'section'; readonly song: Song; readonly section: Section }
    | { readonly at: 'look'; readonly look: Look['id']; readonly bank: Bank['id'] | null }
    | { readonly at: 'dark' }
    | { readonly at: 'pause'; readonly minutes: number }
  );

type Played = {
  readonly songs: readonly Song[];
  readonly banks: readonly Bank[];
  readonly looks: readonly Look[];
  readonly chases: readonly Chase[];
};

/** All stops of a set, in order. Songs and looks that are gone have none. */
export function stopsOf(set: SetList, show: Played): readonly Stop[] {
  const songs = new Map(show.songs.map((song) => [song.id, song]));
  return set.entries.flatMap((entry) => {
    if (entry.kind === 'pause') return [{ id: `${entry.id}/pause`, entry, at: 'pause', minutes: entry.minutes }];
    if (entry.kind === 'look')
      return isThere(show, entry.look)
        ? [{ id: `${entry.id}/look`, entry, at: 'look', look: entry.look, bank: null }]
        : [];
    const song = songs.get(entry.song);
    return song ? stopsOfSong(entry, song, show, set.dark === true) : [];
  });
}

function stopsOfSong(entry: SongEntry, song: Song, show: Played, dark: boolean): readonly Stop[] {
  return [
    { id: `${entry.id}/ready`, entry, at: 'ready', song },
    ...within(entry, song, show),
    ...(dark ? [{ id: `${entry.id}/dark`, entry, at: 'dark' as const }] : []),
  ];
}

/** The stops between the start of a song and its end. */
function within(entry: SongEntry, song: Song, show: Played): readonly Stop[] {
  const whole: Stop = { id: `${entry.id}/song`, entry, at: 'song', song };
  if (entry.stops === 'sections' && song.sections.length > 0)
    return song.sections.map((section) => ({ id: `${entry.id}/${section.id}`, entry, at: 'section', song, section }));
  if (entry.stops !== 'looks') return [whole];
  const banks = banksOf(show);
  const bank = banks.find(({ id }) => id === entry.bank) ?? banks[0];
  const pads = bank?.pads.filter(({ skip, look }) => !skip && isThere(show, look)) ?? [];
  if (pads.length === 0) return [whole];
  return pads.map(({ look }, i) => ({ id: `${entry.id}/${i}/${look}`, entry, at: 'look', look, bank: bank!.id }));
}

const isThere = ({ looks, chases }: Played, look: string): boolean =>
  looks.some(({ id }) => id === look) || chases.some(({ id }) => id === look);
