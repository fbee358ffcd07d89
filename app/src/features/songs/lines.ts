// Where the lines of a lead sheet lie, and which lanes they show where.

import type { Lane, leadSheetLines, LookLane, Song } from '@hovlix/core/song';

export const HEAD_HEIGHT = 44;
/** Where the named looks of a line lie. */
export const CLIPS_TOP = 76;
/** Of a line: numbers, waveform, ribbon and the names of looks; then a row for each further lane. */
export const ROWS_TOP = 97;
export const ROW_HEIGHT = 12;
const FOOT = 3;
export const LINE_GAP = 8;
/** More lanes than these are seen in Close-up. */
const MOST_ROWS = 6;

export type Lines = ReturnType<typeof leadSheetLines>;

/** The lane whose looks are named on the sheet: the lowest that has looks. */
export const mainLane = (song: Song): LookLane | undefined =>
  song.lanes.find((lane): lane is LookLane => lane.type === 'looks');

const others = new WeakMap<Song, readonly Lane[]>();

/** The lanes that have a row each, lowest first. */
export function otherLanes(song: Song): readonly Lane[] {
  const known = others.get(song);
  if (known) return known;
  const main = mainLane(song);
  const found = song.lanes.filter((lane) => lane !== main).slice(0, MOST_ROWS);
  others.set(song, found);
  return found;
}

/** Where a lane's clips lie on a line; undefined where it has no row. */
export function topOf(song: Song, lane: Lane): number | undefined {
  if (lane === mainLane(song)) return CLIPS_TOP;
  const row = otherLanes(song).indexOf(lane);
  return row < 0 ? undefined : ROWS_TOP + row * ROW_HEIGHT - 4;
}

/** With the gap below it. */
export const lineHeight = (song: Song): number => ROWS_TOP + otherLanes(song).length * ROW_HEIGHT + FOOT + LINE_GAP;

/** A line has a section's head above it when the section begins there. */
export function headed(lines: Lines, song: Song, index: number): boolean {
  const line = lines[index];
  const section = line && song.sections[line.section];
  return section !== undefined && lines[index - 1]?.section !== line!.section;
}

type Layout = { readonly length: number; readonly offset: number; readonly index: number };
const layouts = new WeakMap<Lines, { readonly song: Song; readonly all: readonly Layout[] }>();

/** Where a line lies from the top, with the head above it. */
export function layoutOf(lines: Lines, song: Song, index: number): Layout {
  let known = layouts.get(lines);
  if (known?.song !== song) {
    const height = lineHeight(song);
    let offset = 0;
    const all = lines.map((_, i) => {
      const length = height + (headed(lines, song, i) ? HEAD_HEIGHT : 0);
      offset += length;
      return { length, offset: offset - length, index: i };
    });
    layouts.set(lines, (known = { song, all }));
  }
  return known.all[index] ?? { length: 0, offset: 0, index };
}
