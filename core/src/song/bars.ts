// A song seen as bars: where they start, how many there are, and which section each belongs to.

import { barAt, barLength, beatAt, beatOfBar, meterAtBar, pulseLength, timeAt, type Meter } from '../time';
import { beats, seconds, type Beats, type Seconds } from '../units';
import type { Section, Song } from './schema';

/** First and last bar with music in them; a pickup gives a negative first bar. */
export function barSpan(song: Song): { readonly first: number; readonly last: number } {
  const first = barAt(song.meter, beatAt(song.tempo, seconds(0))).bar;
  const end = barAt(song.meter, beatAt(song.tempo, seconds(Math.max(0, song.duration - 0.05)))).bar;
  // Less than a pulse of lead-in is breath, not a pickup: it gets no bar of its own.
  const lead = timeAt(song.tempo, beatOfBar(song.meter, 0));
  const pulse = timeAt(song.tempo, pulseLength(meterAtBar(song.meter, 0))) - lead;
  const start = first < 0 && lead < pulse * 0.9 ? 0 : Math.max(first, -8);
  return { first: start, last: Math.max(start, end) };
}

/** `[from, to)` in beats of a run of bars, both bars included. */
export function beatsOfBars(song: Song, first: number, last: number): { readonly from: Beats; readonly to: Beats } {
  return { from: beatOfBar(song.meter, first), to: beatOfBar(song.meter, last + 1) };
}

/** When a bar starts, in seconds of the music. */
export function timeOfBar(song: Song, bar: number): Seconds {
  return timeAt(song.tempo, beatOfBar(song.meter, bar));
}

/** Where a moment of the music lies in bars, with a fraction: 0 is the start of the first, 16.5 the middle of the 17th. */
export function barsAt(song: Song, time: Seconds): number {
  const beat = beatAt(song.tempo, time);
  const { bar } = barAt(song.meter, beat);
  const { from, to } = beatsOfBars(song, bar, bar);
  return bar + (beat - from) / (to - from);
}

/** The inverse of `barsAt`. */
export function timeOfBars(song: Song, place: number): Seconds {
  const bar = Math.floor(place);
  const { from, to } = beatsOfBars(song, bar, bar);
  return timeAt(song.tempo, beats(from + (to - from) * (place - bar)));
}

/** The bar whose line lies nearest to a beat. */
export function nearestBar(meter: Meter, beat: number): number {
  const { bar } = barAt(meter, beats(beat));
  const past = beat - beatOfBar(meter, bar);
  return past * 2 > barLength(meterAtBar(meter, bar)) ? bar + 1 : bar;
}

/** The section in force in a bar, or undefined before the first one. */
export function sectionAt(song: Song, bar: number): Section | undefined {
  return song.sections.findLast((section) => section.bar <= bar);
}

/** The bars of the section in force in a bar, both included; of the whole song where there is none. */
export function barsOfSection(song: Song, bar: number): { readonly first: number; readonly last: number } {
  const span = barSpan(song);
  const next = song.sections.find((section) => section.bar > bar);
  return {
    first: Math.max(span.first, sectionAt(song, bar)?.bar ?? span.first),
    last: Math.min(span.last, next ? next.bar - 1 : span.last),
  };
}

/** The first section of the same name before the one in force in a bar, as verse is to verse; undefined where none is. */
export function firstLike(song: Song, bar: number): Section | undefined {
  const here = sectionAt(song, bar);
  const name = (section: Section) => kindOfSection(section.name);
  const first = here && song.sections.find((section) => name(section) === name(here));
  return first === here ? undefined : first;
}

/** What a section is: its name without the number that tells it from others. “Chorus 2” and “chorus” are the same. */
export const kindOfSection = (name: string): string => name.replace(/[\s\d.#]+$/, '').toLowerCase();

/** The letter in a rehearsal mark's box: A … Z, then AA … */
export function rehearsalMark(index: number): string {
  return index < 26
    ? String.fromCharCode(65 + index)
    : rehearsalMark(Math.floor(index / 26) - 1) + rehearsalMark(index % 26);
}

/** Lines of a lead sheet: runs of at most `perLine` bars; a section always begins a new line. */
export function leadSheetLines(
  song: Song,
  perLine: number,
): readonly { readonly first: number; readonly count: number; readonly section: number }[] {
  const { first, last } = barSpan(song);
  const lines: { first: number; count: number; section: number }[] = [];
  const starts = new Map(song.sections.map((section, i) => [section.bar, i]));
  let current = song.sections.findLastIndex((section) => section.bar <= first);
  for (let bar = first; bar <= last; bar++) {
    const line = lines.at(-1);
    const begins = starts.get(bar);
    if (begins !== undefined) current = begins;
    // A pickup has a line of its own, so that downbeats line up below each other.
    if (!line || line.count === perLine || begins !== undefined || bar === 0)
      lines.push({ first: bar, count: 1, section: current });
    else line.count++;
  }
  return lines;
}
