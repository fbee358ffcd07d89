// Entries of a set in words.

import { SetList, setsOf, type Entry, type Start } from '@hovlix/core/gig';
import { lookName } from '@hovlix/core/live';
import type { Show } from '@hovlix/core/show';
import { WORDS } from './words';

export function entryTitle(show: Show, entry: Entry): string {
  if (entry.kind === 'pause') return 'Pause';
  if (entry.kind === 'look') return lookName(show, entry.look);
  return show.songs.find(({ id }) => id === entry.song)?.title ?? 'A song that is gone';
}

/** What an entry does beside its song, in few words. */
export function entryWords(show: Show, entry: Entry): string {
  if (entry.kind !== 'song') return entry.kind === 'pause' ? `${entry.minutes} min` : 'look between songs';
  const words = [
    startWords(show, entry.start),
    entry.stops === 'song' ? '' : `pedal stops at ${entry.stops}`,
    entry.bank ? `bank ${show.banks.find(({ id }) => id === entry.bank)?.name ?? ''}` : '',
    entry.tempo ? `${entry.tempo} bpm` : '',
  ];
  return words.filter(Boolean).join(' · ') || 'starts with what is on';
}

const startWords = (show: Show, start: Start): string =>
  start.with === 'keep'
    ? ''
    : start.with === 'dark'
      ? 'starts in the dark'
      : `starts with ${lookName(show, start.look)}`;

/** `3:24`; nothing where it takes no time. */
export function lengthWords(seconds: number): string {
  if (seconds <= 0) return '';
  const whole = Math.round(seconds);
  const [hours, minutes] = [Math.floor(whole / 3600), Math.floor((whole % 3600) / 60)];
  const two = (value: number) => String(value).padStart(2, '0');
  return hours > 0 ? `${hours}:${two(minutes)}:${two(whole % 60)}` : `${minutes}:${two(whole % 60)}`;
}

/** A set of one's own, out of the one that is made of all songs where there is none yet. */
export function ownSet(show: Show, set: SetList, id: string): SetList {
  return show.sets.some((one) => one.id === set.id) ? set : SetList.parse({ ...set, id, name: WORDS.mySet });
}

/** Songs the set has not. */
export function songsLeft(show: Show, set: SetList) {
  const has = new Set(set.entries.flatMap((entry) => (entry.kind === 'song' ? [entry.song as string] : [])));
  return show.songs.filter(({ id }) => !has.has(id));
}

export const nextSetName = (show: Show): string => `Set ${setsOf(show).length + 1}`;
