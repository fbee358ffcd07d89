// What the lead sheet says.

import type { Song } from '@hovlix/core/song';
import { kindOfSection } from '@hovlix/core/song';

/** Sections that most songs have, to choose from. */
export const USUAL_SECTIONS = ['Intro', 'Verse', 'Chorus', 'Bridge', 'Solo', 'Outro'] as const;

/** The kinds of sections to offer: those of the song first, then the usual ones. */
export function kindsFor(song: Song): readonly string[] {
  const own = song.sections.map(({ name }) => name.replace(/[\s\d.#]+$/, ''));
  const known = new Map<string, string>();
  for (const name of [...own, ...USUAL_SECTIONS]) {
    const kind = kindOfSection(name);
    if (kind && !known.has(kind)) known.set(kind, name);
  }
  return [...known.values()];
}

/** What the next section of a kind is called: “Chorus”, “Chorus 2”. */
export function nextName(song: Song, kind: string): string {
  const same = song.sections.filter(({ name }) => kindOfSection(name) === kind.toLowerCase());
  if (same.length === 0) return kind;
  const numbers = same.map(({ name }) => Number(/\d+$/.exec(name)?.[0] ?? 1));
  return `${kind} ${Math.max(...numbers) + 1}`;
}
