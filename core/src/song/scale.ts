// A song counted twice as fast or half as fast: what lies on it stays where it sounds.

import { beats } from '../units';
import { movedLane } from './lane-moves';
import type { Song } from './schema';

type Writable<T> = { -readonly [K in keyof T]: T[K] };

/** Counts a song's beats by `factor`: every place in beats is moved with them, so that each stays at its second. */
export function temposScaled(song: Writable<Song>, factor: number): void {
  const scaled = (beat: number) => beats(beat * factor);
  song.tempo = { anchors: song.tempo.anchors.map(({ beat, time }) => ({ beat: scaled(beat), time })) };
  const bar = (old: number) => Math.round(old * factor);
  song.meter = uniqueBars(song.meter.map((change) => ({ ...change, bar: bar(change.bar) })));
  song.sections = uniqueBars(song.sections.map((section) => ({ ...section, bar: bar(section.bar) })));
  song.lanes = song.lanes.map((lane) => movedLane(lane, scaled, scaled));
  if (song.markers) song.markers = song.markers.map((marker) => ({ ...marker, at: scaled(marker.at) }));
}

/** Where two fall on one bar, the later one counts from there. */
function uniqueBars<T extends { readonly bar: number }>(list: readonly T[]): T[] {
  return list.filter((one, i) => list[i + 1]?.bar !== one.bar);
}
