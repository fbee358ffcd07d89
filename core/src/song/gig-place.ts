// Where in a song the band is, as the night shows it.

import { barAt, beatAt } from '../time';
import { sectionAt } from './bars';
import type { Section, Song } from './schema';
import { seconds } from '../units';

export type GigPlace = {
  readonly section: Section | undefined;
  readonly next: Section | undefined;
  /** Counted from 1 within the section. */
  readonly bar: number;
  readonly of: number;
};

/**
 * What comes when the song is over, as the night shows it: “fade to dark”.
 * @param looks names of looks by id. @param next the title of the song behind it.
 */
export function endingWords({ ending }: Song, looks: ReadonlyMap<string, string>, next: string | undefined): string {
  switch (ending?.then) {
    case undefined:
      return 'the end';
    case 'hold':
      return 'hold the last light';
    case 'dark':
      return 'fade to dark';
    case 'look':
      return `fade to ${looks.get(ending.look) ?? 'a look that is gone'}`;
    case 'next':
      return next === undefined ? 'hold the last light' : `“${next}” by itself`;
  }
}

/** Where a moment lies in its section. Before the first section, and in songs without any, the song is one section. */
export function gigPlace(song: Song, time: number, lastBar: number): GigPlace {
  const bar = Math.min(lastBar, barAt(song.meter, beatAt(song.tempo, seconds(time))).bar);
  const section = sectionAt(song, bar) ?? song.sections[0];
  const at = section ? song.sections.indexOf(section) : -1;
  const next = at >= 0 ? song.sections[at + 1] : undefined;
  const start = section?.bar ?? 0;
  const of = Math.max(1, (next?.bar ?? lastBar + 1) - start);
  return { section, next, bar: Math.min(of, Math.max(1, bar - start + 1)), of };
}
