// Where the lines of a lead sheet lie.

import type { leadSheetLines, Song } from '@hovlix/core/song';
import { LINE_HEIGHT } from './Line';

export const HEAD_HEIGHT = 44;

export type Lines = ReturnType<typeof leadSheetLines>;

/** A line has a section's head above it when the section begins there. */
export function headed(lines: Lines, song: Song, index: number): boolean {
  const line = lines[index];
  const section = line && song.sections[line.section];
  return section !== undefined && lines[index - 1]?.section !== line!.section;
}

export function layoutOf(lines: Lines, song: Song, index: number) {
  let offset = 0;
  for (let i = 0; i < index; i++) offset += LINE_HEIGHT + (headed(lines, song, i) ? HEAD_HEIGHT : 0);
  return { length: LINE_HEIGHT + (headed(lines, song, index) ? HEAD_HEIGHT : 0), offset, index };
}
