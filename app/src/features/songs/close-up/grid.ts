// Where things lie in Close-up: beats as pixels and back, and the grid that they snap to.

import { beatOfBar, barAt, meterAtBar, pulseLength } from '@hovlix/core/time';
import { barSpan, beatsOfBars, type Song } from '@hovlix/core/song';
import { beats, clamp } from '@hovlix/core/units';
import { barsOfBeat, beatOfBars } from '../model';
import { WORDS } from './words';

export const GRIDS = ['bar', 'beat', '1/2', '1/4', '1/8', 'triplet', 'off'] as const;
export type Grid = (typeof GRIDS)[number];

/** The finest that anything is placed where the grid is off, in quarter notes. */
const FINEST = 1 / 96;

/** Beats (quarter notes) from line to line in a bar. A beat is the felt one: of 6/8, the dotted quarter. */
export function gridLength(song: Song, grid: Grid, bar: number): number {
  const pulse = pulseLength(meterAtBar(song.meter, bar));
  switch (grid) {
    case 'bar':
      return beatOfBar(song.meter, bar + 1) - beatOfBar(song.meter, bar);
    case 'beat':
      return pulse;
    case '1/2':
      return pulse / 2;
    case '1/4':
      return pulse / 4;
    case '1/8':
      return pulse / 8;
    case 'triplet':
      return pulse / 3;
    case 'off':
      return FINEST;
  }
}

/** The line of the grid next to a beat; with `down`, the last one at or before it. Lines count from the start of the bar. */
export function snapped(song: Song, grid: Grid, beat: number, down = false): number {
  const { bar } = barAt(song.meter, beats(beat));
  const start = beatOfBar(song.meter, bar);
  const length = gridLength(song, grid, bar);
  const lines = (beat - start) / length;
  const line = down ? Math.floor(lines + 1e-9) : Math.round(lines);
  return Math.min(start + line * length, beatOfBar(song.meter, bar + 1));
}

/** So many beats of `by` that what begins from `first` to `last` still does so in the song; what lies outside is not pulled in. */
export function keptInSong(song: Song, first: number, last: number, by: number): number {
  const span = barSpan(song);
  const { from, to } = beatsOfBars(song, span.first, span.last);
  return clamp(by, Math.min(0, from - first), Math.max(0, to - FINEST - last));
}

/** Some bars of a song, side by side on so many pixels. */
export type Window = { readonly song: Song; readonly first: number; readonly count: number; readonly width: number };

export const xOf = ({ song, first, count, width }: Window, beat: number): number =>
  ((barsOfBeat(song, beat) - first) / count) * width;

export const beatAtX = ({ song, first, count, width }: Window, x: number): number =>
  beatOfBars(song, first + (Math.min(Math.max(x, 0), width) / width) * count);

/** The bars to show so many at a time, that begin at a bar; held within the song. */
export function windowAt(song: Song, bar: number, count: number): { readonly first: number; readonly count: number } {
  const { first, last } = barSpan(song);
  const fits = Math.min(count, last - first + 1);
  return { first: Math.max(first, Math.min(bar, last + 1 - fits)), count: fits };
}

/** “9:1.50”: bar and felt beat, both counted from 1. */
export function placeText(song: Song, beat: number): string {
  const { bar } = barAt(song.meter, beats(beat));
  const within = (beat - beatOfBar(song.meter, bar)) / pulseLength(meterAtBar(song.meter, bar));
  return `${bar + 1}:${(Math.round((within + 1) * 1000) / 1000).toFixed(3).replace(/\.?0+$/, '')}`;
}

/** Reads “9”, “9:1” or “9:2.5”. */
export function readPlace(song: Song): (text: string) => { readonly value: string } | { readonly wrong: string } {
  return (text) => (beatOfPlace(song, text) === undefined ? { wrong: WORDS.wrongPlace } : { value: text.trim() });
}

export function beatOfPlace(song: Song, text: string): number | undefined {
  const found = /^(-?\d{1,5})(?::(\d{1,2}(?:[.,]\d{1,4})?))?$/.exec(text.trim().replace('−', '-'));
  if (!found) return undefined;
  const bar = Number(found[1]) - 1;
  const within = Number((found[2] ?? '1').replace(',', '.')) - 1;
  const beat = beatOfBar(song.meter, bar) + within * pulseLength(meterAtBar(song.meter, bar));
  return within < 0 || beat >= beatOfBar(song.meter, bar + 1) ? undefined : beat;
}

/** Reads “1:02.345” or “62.345”, in seconds of the music. */
export function secondsOfText(text: string): number | undefined {
  const found = /^(?:(\d{1,3}):)?(\d{1,5}(?:[.,]\d{1,3})?)$/.exec(text.trim());
  return found ? Number(found[1] ?? 0) * 60 + Number(found[2]!.replace(',', '.')) : undefined;
}

/** Reads the same for a form, as it was typed. */
export const readSeconds = (text: string): { readonly value: string } | { readonly wrong: string } =>
  secondsOfText(text) === undefined ? { wrong: WORDS.wrongTime } : { value: text.trim() };
