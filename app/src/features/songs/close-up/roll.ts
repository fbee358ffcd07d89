// The roll of a hit lane, worked out without React: which pad has which row, what lies under a finger, what a drag makes.

import { drumOfNote, noteName, type Hit, type Kit } from '@hovlix/core/light';
import type { HitLane, Note, Song } from '@hovlix/core/song';
import { beats, clamp } from '@hovlix/core/units';
import { keptInSong, xOf, type Window } from './grid';

/** Pixels of a row: a finger finds it. */
export const PAD_HEIGHT = 44;

export type Pad = { readonly note: number; readonly name: string; readonly hit: Hit | undefined };

/** A hit that answers to many notes has so many rows at the most. */
const MOST_ROWS = 12;

/** A row for each note that a kit answers to, in its order; then those of the lane that nothing answers to. */
export function padsOf(kit: Kit | undefined, lane: Pick<HitLane, 'notes'>): readonly Pad[] {
  const pads = new Map<number, Pad>();
  for (const hit of kit?.hits ?? []) {
    const [low, high] = [Math.min(hit.low, hit.high), Math.max(hit.low, hit.high)];
    for (let note = low; note <= Math.min(high, low + MOST_ROWS - 1); note++)
      if (!pads.has(note))
        pads.set(note, { note, name: low === high ? hit.name : `${hit.name} ${note - low + 1}`, hit });
  }
  const others = new Set(lane.notes.map(({ note }) => note));
  for (const note of [...others].sort((a, b) => a - b))
    if (!pads.has(note)) pads.set(note, { note, name: drumOfNote(note) ?? `Note ${noteName(note)}`, hit: undefined });
  return [...pads.values()];
}

/** Notes that show in a window, with where they lie in it. */
export type Laid = { readonly note: Note; readonly row: number; readonly left: number; readonly width: number };

/** Narrower a note is not drawn, in pixels. */
const NARROWEST = 10;

export function laidNotes(
  window: Window,
  pads: readonly Pad[],
  notes: readonly Note[],
  from: number,
  to: number,
): readonly Laid[] {
  const rows = new Map(pads.map(({ note }, row) => [note, row]));
  return notes.flatMap((note) => {
    const row = rows.get(note.note);
    if (row === undefined || note.at >= to || note.at + note.length < from) return [];
    const left = xOf(window, note.at);
    return [{ note, row, left, width: Math.max(NARROWEST, xOf(window, note.at + note.length) - left) }];
  });
}

/** A finger counts so many pixels beside a note. */
const NEAR = 10;
/** The right end of a note makes it longer. */
const END = 12;

/** What lies under a finger in a row: a note, and whether at its end. */
export function underFinger(
  laid: readonly Laid[],
  row: number,
  x: number,
): { readonly note: Note; readonly end: boolean } | undefined {
  let best: Laid | undefined;
  let nearest = NEAR;
  for (const one of laid) {
    if (one.row !== row) continue;
    const off = x < one.left ? one.left - x : x > one.left + one.width ? x - one.left - one.width : 0;
    if (off > nearest || (off === nearest && best)) continue;
    nearest = off;
    best = one;
  }
  if (!best) return undefined;
  const end = best.width >= 2 * END && x > best.left + best.width - END;
  return { note: best.note, end };
}

/** Shortest note that can be made by dragging, in beats. */
const SHORTEST = 1 / 32;

/** Notes moved by beats and by rows, as far as all of them stay in the song and on the pads: none comes to lie on another. */
export function movedNotes(
  song: Song,
  notes: readonly Note[],
  by: number,
  rows: number,
  pads: readonly Pad[],
): readonly Note[] {
  const places = notes.map((note) => pads.findIndex((pad) => pad.note === note.note));
  const ats = notes.map(({ at }) => at);
  const down = clamp(rows, -Math.min(...places), pads.length - 1 - Math.max(...places));
  const on = keptInSong(song, Math.min(...ats), Math.max(...ats), by);
  return notes.map((note, i) => ({
    ...note,
    at: beats(note.at + on),
    note: pads[places[i]! + down]?.note ?? note.note,
  }));
}

export const longerNotes = (notes: readonly Note[], by: number): readonly Note[] =>
  notes.map((note) => ({ ...note, length: beats(Math.max(SHORTEST, note.length + by)) }));

export const harderNotes = (notes: readonly Note[], by: number): readonly Note[] =>
  notes.map((note) => ({ ...note, velocity: clamp(note.velocity + by, 0.02, 1) }));
