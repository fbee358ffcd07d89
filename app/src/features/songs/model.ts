// What a lead sheet shows, worked out without React.

import { hexFromChromaticity, type Chromaticity } from '@hovlix/core/colour';
import { finder } from '@hovlix/core/letters';
import { namedIn, type Chase, type Look } from '@hovlix/core/light';
import { barAt, beatOfBar, meterAtBar, tempoAt, pulseLength, timeAt } from '@hovlix/core/time';
import { barsAt, type Clip, type LookLane, type Song } from '@hovlix/core/song';
import { beats, seconds } from '@hovlix/core/units';
import { inOrder } from '../../ui/in-order';
import { SORTED } from './list-words';

export const METERS = ['2/4', '3/4', '4/4', '5/4', '6/4', '7/4', '3/8', '5/8', '6/8', '7/8', '9/8', '12/8'] as const;
export type MeterName = (typeof METERS)[number];

/** A run of bars, both included. */
export type BarRange = { readonly first: number; readonly last: number };

/** 0:00.123 and on, to the millisecond; with a minus before the music begins. */
export function preciseText(time: number): string {
  const ms = Math.round(Math.abs(time) * 1000);
  const [minutes, rest] = [Math.floor(ms / 60_000), ms % 60_000];
  const padded = (n: number, digits: number) => String(n).padStart(digits, '0');
  return `${time < 0 && ms > 0 ? '−' : ''}${minutes}:${padded(Math.floor(rest / 1000), 2)}.${padded(rest % 1000, 3)}`;
}

/** Beats a minute as felt at the start of the first whole bar. */
export function songBpm(song: Song): number {
  const meter = song.meter[0]!;
  const middle = timeAt(song.tempo, beatOfBar(song.meter, 2));
  return tempoAt(song.tempo, middle) / pulseLength(meter);
}

export function meterText(song: Song, bar = 0): string {
  const meter = meterAtBar(song.meter, bar);
  return `${meter.numerator}/${meter.denominator}`;
}

/** The bar whose line is nearest to a moment of the music. */
export const barOfTime = (song: Song, time: number): number => Math.round(barsAt(song, seconds(time)));

/** Bars count from 1 for people; a pickup's are 0 and below. */
export const barLabel = (bar: number): string => String(bar + 1);

export function rangeText({ first, last }: BarRange): string {
  return first === last ? `Bar ${barLabel(first)}` : `Bars ${barLabel(first)} – ${barLabel(last)}`;
}

/** The range after a tap: the first tap chooses a bar, the next one stretches to it, a tap on a lone bar lets go. */
export function tapped(range: BarRange | null, bar: number): BarRange | null {
  if (!range) return { first: bar, last: bar };
  if (range.first === range.last && range.first === bar) return null;
  if (bar >= range.first && bar <= range.last) return { first: bar, last: bar };
  return { first: Math.min(range.first, bar), last: Math.max(range.last, bar) };
}

/** Where a beat lies in bars, with a fraction. */
export function barsOfBeat(song: Song, beat: number): number {
  const place = barAt(song.meter, beats(beat));
  const start = beatOfBar(song.meter, place.bar);
  return place.bar + (beat - start) / (beatOfBar(song.meter, place.bar + 1) - start);
}

/** The inverse of `barsOfBeat`. */
export function beatOfBars(song: Song, bars: number): number {
  const bar = Math.floor(bars);
  const start = beatOfBar(song.meter, bar);
  return start + (beatOfBar(song.meter, bar + 1) - start) * (bars - bar);
}

export type ClipBox = { readonly clip: Clip; readonly left: number; readonly width: number; readonly begins: boolean };

/** The clips of a lane that show on a line of bars, as shares of its width. `begins` is false where it goes on from above. */
export function clipBoxes(
  song: Song,
  lane: LookLane,
  first: number,
  count: number,
  perLine: number,
): readonly ClipBox[] {
  const bar = (beat: number) => barsOfBeat(song, beat);
  const from = beatOfBar(song.meter, first);
  const to = beatOfBar(song.meter, first + count);
  return lane.clips
    .filter((clip) => clip.to > from + 1e-6 && clip.from < to - 1e-6)
    .map((clip) => {
      const left = Math.max(0, bar(Math.max(clip.from, from)) - first);
      const right = clip.to >= to ? count : bar(clip.to) - first;
      return { clip, left: left / perLine, width: (right - left) / perLine, begins: clip.from >= from - 1e-6 };
    });
}

/** The middles of so many columns for each bar of a line, in beats. */
export const ribbonBeats = (song: Song, first: number, count: number, columns: number): readonly number[] =>
  Array.from({ length: count * columns }, (_, i) => beatOfBars(song, first + (i + 0.5) / columns));

/** The moments at which a line's ribbon is computed, in seconds of the music. */
export const ribbonTimes = (song: Song, first: number, count: number, columns: number): readonly number[] =>
  ribbonBeats(song, first, count, columns).map((beat) => timeAt(song.tempo, beats(beat)));

/** The colour that a look is known by: the brightest role that has one. */
export function tickColour(look: Look | Chase | undefined): string {
  let best: { level: number; hex: string } | undefined;
  const values = !look ? [] : 'steps' in look ? look.steps.flatMap((step) => step.values) : look.values;
  for (const value of values) {
    if (!value.colour) continue;
    const level = value.level ? Math.max(...namedIn(value.level)) : 0;
    const colour = namedIn<Chromaticity>(value.colour)[0]!;
    if (!best || level > best.level) best = { level, hex: hexFromChromaticity(colour) };
  }
  return best?.hex ?? '#8a8296';
}

export type SongSort = 'set' | 'title' | 'tempo';
export const SORTS = [
  { value: 'set', name: SORTED.set },
  { value: 'title', name: SORTED.title },
  { value: 'tempo', name: SORTED.tempo },
] as const;

/** Songs whose title or author has all the words that were typed, in an order. */
export function shownSongs(songs: readonly Song[], text: string, sort: SongSort): readonly Song[] {
  const fits = finder(text);
  const found = songs.filter(({ title, by }) => fits(`${title} ${by}`));
  if (sort === 'title') return [...found].sort((a, b) => inOrder(a.title, b.title));
  return sort === 'tempo' ? [...found].sort((a, b) => songBpm(a) - songBpm(b)) : found;
}
