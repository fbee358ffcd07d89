// A song as its recording was heard: bars and sections from the analysis, a title from the tags or the file's name.

import type { z } from 'zod';
import { beatAt, type Meter, type TempoMap } from '../time';
import { id, type Seconds } from '../units';
import { kindOfSection, nearestBar, timeOfBar } from './bars';
import { Song, type Music, type Section } from './schema';

/** What an analysis finds out that becomes part of a song. */
export type FoundMusic = {
  readonly type: Music['type'];
  readonly duration: Seconds;
  readonly tempo: TempoMap;
  readonly meter: Meter;
  /** Sections with one letter are alike. */
  readonly sections: readonly { readonly bar: number; readonly role: string; readonly letter: string }[];
};

/** A recording that is kept under the SHA-256 of its bytes, and what its tags say. */
export type KeptFile = {
  readonly name: string;
  readonly hash: string;
  readonly bytes: number;
  readonly tags?: { readonly title?: string; readonly artist?: string; readonly key?: string };
};

/** @param newId gives an id nobody has. */
export function songOfRecording(file: KeptFile, found: FoundMusic, newId: () => string): Song {
  const { title, artist, key } = file.tags ?? {};
  return Song.parse({
    id: newId(),
    title: title ?? titleOfFile(file.name),
    by: artist ?? '',
    ...(key ? { key: key.slice(0, 24) } : {}),
    music: { hash: file.hash, name: file.name.slice(0, 255), type: found.type, bytes: file.bytes },
    duration: found.duration,
    tempo: { anchors: [...found.tempo.anchors] },
    meter: found.meter.map((change) => ({ ...change, denominator: change.denominator as 4 | 8 })),
    sections: sectionsFound(found.sections, newId),
    lanes: [
      { id: 'looks', name: 'Looks', type: 'looks', clips: [] },
      { id: 'accents', name: 'Accents', type: 'looks', clips: [] },
    ],
  } satisfies z.input<typeof Song>);
}

/**
 * A file's name as a title: without what says its kind and the number it has on a record (“01 ”, “12 - ”), with spaces for
 * underscores.
 */
export const titleOfFile = (fileName: string): string =>
  fileName
    .normalize('NFC')
    .replace(/\.[a-z0-9]{1,5}$/i, '')
    .replaceAll(/[_\s]+/g, ' ')
    .trim()
    .replace(/^(?:0\d{1,2}(?:[.)]? [–-]? ?|[.)–-] ?)|\d{1,3}(?: [–-] |\) ?))(?=\p{L})/u, '')
    .slice(0, 120) || 'Untitled';

/**
 * Sections that were found in a recording, on the bars of a song that plays it: each begins at the bar line nearest to its
 * moment, what lies before bar 1 in bar 1. Of two on one line the later one is taken: it is what sounds there.
 */
export function sectionsOn(bars: Pick<Song, 'tempo' | 'meter'>, heard: Song): Section[] {
  const placed = new Map<number, Section>();
  for (const section of heard.sections) {
    const bar = Math.max(0, nearestBar(bars.meter, beatAt(bars.tempo, timeOfBar(heard, section.bar))));
    placed.set(bar, { ...section, bar });
  }
  return [...placed.values()];
}

/** Found sections by their names: “Chorus”, “Chorus 2”; those that sound alike have one colour. */
export function sectionsFound(sections: FoundMusic['sections'], newId: () => string): Section[] {
  const letters = [...new Set(sections.map(({ letter }) => letter))];
  const counts = new Map<string, number>();
  return sections.map(({ bar, role, letter }) => {
    const count = (counts.get(kindOfSection(role)) ?? 0) + 1;
    counts.set(kindOfSection(role), count);
    const name = count === 1 ? role : `${role} ${count}`;
    return { id: id<'Section'>(newId()), bar, name, note: '', tint: letters.indexOf(letter) % 8 };
  });
}
