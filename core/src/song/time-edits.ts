// A song's bars put right by hand: where bar 1 begins, how many beats a bar has, one steady tempo.

import { beatAt, beatOfBar, meterAtBar, pulseLength, steadyTempo, timeAt, type MeterChange } from '../time';
import { beats, seconds } from '../units';
import { nearestBar } from './bars';
import { movedLane } from './lane-moves';
import type { Song } from './schema';

type Writable<T> = { -readonly [K in keyof T]: T[K] };

/** What becomes of the light when bar lines move: it goes with them, or it stays at its second of the music. */
export type Keeps = 'bars' | 'sound';

/** Bar 1 begins so many pulses later in the music; below 0, earlier. The music itself stays where it is. */
export function barsShifted(song: Writable<Song>, pulses: number, keeps: Keeps): void {
  const shift = pulses * pulseLength(meterAtBar(song.meter, 0));
  song.tempo = { anchors: song.tempo.anchors.map(({ beat, time }) => ({ beat: beats(beat - shift), time })) };
  if (keeps === 'bars') return;
  song.lanes = song.lanes.map((lane) => movedLane(lane, (beat) => beat - shift));
  if (song.markers) song.markers = song.markers.map((one) => ({ ...one, at: beats(one.at - shift) }));
  song.sections = onNearestBars(song, (bar) => beatOfBar(song.meter, bar) - shift);
}

/**
 * Puts bar lines elsewhere. What lies on them goes with them, as `change` has it, or all of it stays at its seconds of the
 * music: then sections begin at the bar lines nearest to where they began.
 */
export function barsPut(song: Writable<Song>, keeps: Keeps, change: () => void): void {
  const { lanes, markers, sections } = song;
  const { tempo } = song;
  const began = new Map(sections.map(({ bar }) => [bar, timeAt(tempo, beatOfBar(song.meter, bar))]));
  change();
  if (keeps === 'bars') return;
  const at = (beat: number) => beatAt(song.tempo, timeAt(tempo, beats(beat)));
  song.lanes = lanes.map((lane) => movedLane(lane, at, (length, from) => at(from + length) - at(from)));
  if (markers) song.markers = markers.map((one) => ({ ...one, at: at(one.at) }));
  song.sections = onNearestBars({ ...song, sections }, (bar) => beatAt(song.tempo, began.get(bar)!));
}

/** All bar lines sound so many seconds later; what lies on them goes with them. */
export function barsMoved(song: Writable<Song>, by: number): void {
  song.tempo = { anchors: song.tempo.anchors.map(({ beat, time }) => ({ beat, time: seconds(time + by) })) };
}

/**
 * Bars from `first` on have another meter, up to and with `last`; null is the end. Light stays where it sounds, and
 * sections begin at the bar line nearest to where they began.
 */
export function meterSet(
  song: Writable<Song>,
  first: number,
  last: number | null,
  { numerator, denominator }: Pick<MeterChange, 'numerator' | 'denominator'>,
): void {
  type Change = Song['meter'][number];
  const before = song.meter;
  const began = new Map(song.sections.map(({ bar }) => [bar, beatOfBar(before, bar)]));
  const earlier = before.filter((change) => change.bar < first);
  const after = last === null ? [] : before.filter((change) => change.bar > last + 1);
  const next = last === null ? [] : [{ ...meterAtBar(before, last + 1), bar: last + 1 } as Change];
  song.meter = [...earlier, { bar: first, numerator, denominator } as Change, ...next, ...after].filter(
    (one, i, all) => i === 0 || one.numerator !== all[i - 1]!.numerator || one.denominator !== all[i - 1]!.denominator,
  );
  song.sections = onNearestBars(song, (bar) => began.get(bar)!);
}

/** One tempo from bar 1 to the end, in felt beats a minute; bar 1 stays where it sounds, light stays on its bars. */
export function tempoSteadied(song: Writable<Song>, bpm: number): void {
  const quarters = bpm * pulseLength(meterAtBar(song.meter, 0));
  song.tempo = { anchors: [...steadyTempo(quarters, timeAt(song.tempo, beats(0))).anchors] };
}

/** Sections at the bar lines nearest to a beat for each; where two would begin at one bar, the later one does. */
function onNearestBars({ sections, meter }: Song, beatOf: (bar: number) => number): Song['sections'] {
  const moved = sections.map((section) => ({ ...section, bar: nearestBar(meter, beatOf(section.bar)) }));
  return moved.filter((one, i) => moved[i + 1]?.bar !== one.bar);
}
