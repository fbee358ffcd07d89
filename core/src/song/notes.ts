// Notes of a hit lane: on a grid, as players play them, as patterns, and from strokes that were heard.

import { beatAt, beatOfBar, meterAtBar, pulseLength } from '../time';
import { beats, clamp, seconds, type Beats } from '../units';
import type { Note } from './lane-schema';
import type { Song } from './schema';

/** Where a grid's line next to a beat lies. With swing, every second line is late by that share of the grid. */
export function gridBeat(beat: number, grid: number, swing = 0): Beats {
  const line = Math.round(beat / grid);
  let best = Infinity;
  let found = beat;
  for (let i = line - 1; i <= line + 1; i++) {
    const at = (i + (Math.abs(i) % 2 === 1 ? swing : 0)) * grid;
    if (Math.abs(at - beat) < best) {
      best = Math.abs(at - beat);
      found = at;
    }
  }
  return beats(found);
}

/**
 * Notes moved towards a grid.
 * @param grid beats from line to line. @param strength 0…1: how much of the way. @param swing 0…0.5.
 */
export function quantised(notes: readonly Note[], grid: number, strength: number, swing: number): readonly Note[] {
  return notes.map((note) => ({ ...note, at: beats(note.at + (gridBeat(note.at, grid, swing) - note.at) * strength) }));
}

/**
 * Notes as a player plays them: up to `amount` beats early or late, and up to that many tenths softer or harder.
 * @param chance numbers in 0…1 for a note, two of them.
 */
export function humanised(
  notes: readonly Note[],
  amount: number,
  chance: (note: Note) => readonly [number, number],
): readonly Note[] {
  return notes.map((note) => {
    const [when, how] = chance(note);
    const velocity = clamp(note.velocity + (how * 2 - 1) * amount * 2, 0.05, 1);
    return { ...note, at: beats(note.at + (when * 2 - 1) * amount), velocity };
  });
}

export const PATTERNS = ['beats', 'off-beats', 'eighths', 'back beats', '3-3-2', 'downbeats'] as const;
export type Pattern = (typeof PATTERNS)[number];

/** The beats of a pattern in the bars `first` to `last`, both included. A beat is the felt one: of 6/8, the dotted quarter. */
export function patternBeats(song: Song, pattern: Pattern, first: number, last: number): readonly Beats[] {
  const found: Beats[] = [];
  for (let bar = first; bar <= last; bar++) {
    const from = beatOfBar(song.meter, bar);
    const length = beatOfBar(song.meter, bar + 1) - from;
    const pulse = pulseLength(meterAtBar(song.meter, bar));
    const every = (start: number, step: number) => {
      for (let at = start; at < length - 1e-6; at += step) found.push(beats(from + at));
    };
    if (pattern === 'downbeats') found.push(from);
    else if (pattern === 'beats') every(0, pulse);
    else if (pattern === 'off-beats') every(pulse / 2, pulse);
    else if (pattern === 'eighths') every(0, 0.5);
    else if (pattern === 'back beats') every(pulse, pulse * 2);
    else for (const eighth of [0, 3, 6]) if (eighth / 2 < length) found.push(beats(from + eighth / 2));
  }
  return found;
}

/** A hit of a drum that was heard in the music: when, in seconds, and how strong, 0…1. */
export type HeardStroke = { readonly time: number; readonly size: number };

/** Strokes that are strong enough, as places in the song. */
export function strokeBeats(
  song: Song,
  strokes: readonly HeardStroke[],
  threshold: number,
): readonly { readonly at: Beats; readonly velocity: number }[] {
  return strokes
    .filter(({ size }) => size >= threshold)
    .map(({ time, size }) => ({ at: beatAt(song.tempo, seconds(time)), velocity: clamp(size, 0.05, 1) }));
}

/** Notes of `[from, to)` laid again at `at`, end to end until `until`; what is there gives way. */
export const copiedNotes = (
  notes: readonly Note[],
  copying: Stretch,
  newId: (n: number) => Note['id'],
): readonly Note[] => sortedNotes(laidAgain(notes, copying, newId));

type Stretch = { readonly from: number; readonly to: number; readonly at: number; readonly until: number };

/** The same of all that lies at a moment; not sorted. */
export function laidAgain<One extends { readonly id: string; readonly at: Beats }>(
  list: readonly One[],
  { from, to, at, until }: Stretch,
  newId: (n: number) => One['id'],
): readonly One[] {
  const stretch = list.filter((one) => one.at >= from && one.at < to);
  const laid: One[] = [];
  for (let start = at; start < until - 1e-6; start += to - from)
    for (const one of stretch) {
      const place = beats(start + one.at - from);
      if (place < until - 1e-6) laid.push({ ...one, id: newId(laid.length), at: place });
    }
  return [...list.filter((one) => one.at < at || one.at >= until), ...laid];
}

export const sortedNotes = (notes: readonly Note[]): readonly Note[] =>
  notes.toSorted((a, b) => a.at - b.at || a.note - b.note);

/** Index of the first at or after a beat, of things sorted by when they are; their number where all are before it. */
export function firstAt(list: readonly { readonly at: number }[], beat: number): number {
  let [low, high] = [0, list.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (list[middle]!.at < beat) low = middle + 1;
    else high = middle;
  }
  return low;
}
