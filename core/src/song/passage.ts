// A stretch of a song whose beats were placed anew: dragged to where they sound, evened out, or tapped along.

import { barAt, beatAt, beatOfBar, meterAtBar, pulseLength, timeAt, type Anchor } from '../time';
import { beats, seconds, type Beats } from '../units';
import { nearestBar } from './bars';
import { movedLane } from './lane-moves';
import type { Song } from './schema';

type Writable<T> = { -readonly [K in keyof T]: T[K] };

/** Two anchors are at least so far apart, in beats and in seconds. */
const APART = 1e-4;

/**
 * These anchors in the place of the tempo map from the first one's time to the last one's. Before it nothing changes.
 * Behind it every beat stays where it sounds, counted so many beats more or fewer as the stretch now has; what lies on
 * the stretch stays on its beats, or is spread evenly over them where their number changed.
 */
export function passageSet(song: Writable<Song>, anchors: readonly Anchor[]): void {
  const [first, last] = [anchors[0]!, anchors.at(-1)!];
  const old = song.tempo;
  const ended = beatAt(old, last.time);
  const pulse = pulseLength(meterAtBar(song.meter, barAt(song.meter, ended).bar));
  const more = Math.round((last.beat - ended) / pulse) * pulse;
  const before = old.anchors.filter(({ beat, time }) => time < first.time - APART && beat < first.beat - APART);
  const after = old.anchors
    .filter(({ time }) => time > last.time + APART)
    .map(({ beat, time }) => ({ beat: beats(beat + more), time }))
    .filter(({ beat }) => beat > last.beat + APART);
  // Where the map only goes on as it did, one more anchor keeps its tempo.
  const on = after.length > 0 ? after : [goesOn(old, last, more)];
  const start = before.length > 0 ? before : [goesBack(old, first)];
  song.tempo = { anchors: [...start, ...anchors, ...on] };
  if (more === 0) return;
  const from = first.beat;
  const to = last.beat - more;
  const place = (beat: number): Beats =>
    beats(beat <= from ? beat : beat >= to ? beat + more : from + ((beat - from) * (to + more - from)) / (to - from));
  song.lanes = song.lanes.map((lane) => movedLane(lane, place));
  if (song.markers) song.markers = song.markers.map((marker) => ({ ...marker, at: place(marker.at) }));
  const moved = song.sections.map((section) => ({
    ...section,
    bar: nearestBar(song.meter, place(beatOfBar(song.meter, section.bar))),
  }));
  song.sections = moved.filter((one, i) => moved[i + 1]?.bar !== one.bar);
}

const LONG = 32;

function goesOn(map: Song['tempo'], { beat, time }: Anchor, more: number): Anchor {
  const there = beats(beat - more + LONG);
  return { beat: beats(beat + LONG), time: seconds(Math.max(time + APART, timeAt(map, there))) };
}

function goesBack(map: Song['tempo'], { beat, time }: Anchor): Anchor {
  const there = beats(beat - LONG);
  return { beat: there, time: seconds(Math.min(time - APART, timeAt(map, there))) };
}

/** Lines are at least so many seconds apart where one is moved between two. */
const LINES_APART = 0.05;

/** One felt beat of a bar, counted from 0, at a moment; the beats beside it stay. Undefined where it would pass one. */
export function beatLineAt(song: Song, bar: number, pulse: number, time: number): readonly Anchor[] | undefined {
  const length = pulseLength(meterAtBar(song.meter, bar));
  return movedBetween(song, beats(beatOfBar(song.meter, bar) + pulse * length), length, length, time);
}

/** The bar line of one bar at a moment; the lines beside it stay. Undefined where it would pass one of them. */
export function barLineAt(song: Song, bar: number, time: number): readonly Anchor[] | undefined {
  const beat = beatOfBar(song.meter, bar);
  return movedBetween(song, beat, beat - beatOfBar(song.meter, bar - 1), beatOfBar(song.meter, bar + 1) - beat, time);
}

function movedBetween(
  song: Song,
  beat: Beats,
  before: number,
  after: number,
  time: number,
): readonly Anchor[] | undefined {
  const line = (at: number): Anchor => ({ beat: beats(at), time: timeAt(song.tempo, beats(at)) });
  const [first, last] = [line(beat - before), line(beat + after)];
  if (time <= first.time + LINES_APART || time >= last.time - LINES_APART) return undefined;
  return [first, { beat, time: seconds(time) }, last];
}

/** One even tempo from the first line of some bars to their last. */
export function evenBars(song: Song, first: number, last: number): readonly Anchor[] {
  return [first, last + 1].map((bar) => {
    const beat = beatOfBar(song.meter, bar);
    return { beat, time: timeAt(song.tempo, beat) };
  });
}

/** Taps this many on each side of one even out what a hand is early or late. */
const NEIGHBOURS = 3;
/** Of the usual distance, from where on a tap is taken for the same one twice. */
const TWICE = 0.4;

/**
 * Taps on each felt beat as anchors: the first is on the beat next to it in the song. Beats that were left out are
 * counted; each tap is moved onto the line through its neighbours. Undefined for fewer than four.
 * @param taps seconds of the music, rising.
 */
export function tappedAnchors(song: Song, taps: readonly number[]): readonly Anchor[] | undefined {
  const clean = taps.filter((tap, i) => i === 0 || tap > taps[i - 1]!);
  const gaps = clean
    .slice(1)
    .map((tap, i) => tap - clean[i]!)
    .sort((a, b) => a - b);
  const usual = gaps[gaps.length >> 1];
  if (usual === undefined || clean.length < 4) return undefined;
  const counted: { readonly n: number; readonly time: number }[] = [{ n: 0, time: clean[0]! }];
  for (const time of clean.slice(1)) {
    const before = counted.at(-1)!;
    const steps = (time - before.time) / usual;
    if (steps >= TWICE) counted.push({ n: before.n + Math.max(1, Math.round(steps)), time });
  }
  if (counted.length < 4) return undefined;
  const beat = beatAt(song.tempo, seconds(clean[0]!));
  const { bar } = barAt(song.meter, beat);
  const start = beatOfBar(song.meter, bar);
  const pulse = pulseLength(meterAtBar(song.meter, bar));
  const first = start + Math.round((beat - start) / pulse) * pulse;
  return counted.map(({ n }, i) => ({
    beat: beats(first + n * pulse),
    time: seconds(onLine(counted.slice(Math.max(0, i - NEIGHBOURS), i + NEIGHBOURS + 1), n)),
  }));
}

/** The time at `n` of the straight line nearest to some taps (least squares). */
function onLine(taps: readonly { readonly n: number; readonly time: number }[], n: number): number {
  const mean = (of: (tap: (typeof taps)[number]) => number) =>
    taps.reduce((sum, tap) => sum + of(tap), 0) / taps.length;
  const [middle, time] = [mean((tap) => tap.n), mean((tap) => tap.time)];
  const spread = mean((tap) => (tap.n - middle) ** 2);
  const rise = spread > 0 ? mean((tap) => (tap.n - middle) * (tap.time - time)) / spread : 0;
  return time + rise * (n - middle);
}
