// A song as a Standard MIDI File (RP-001): tempo, meter, sections as markers, markers as cue points, hits as notes;
// to the tick.

import { writeMidi, type MidiEvent } from 'midi-file';
import { barSpan, type HitLane, type Song } from '../../song';
import { beatOfBar, meterAtBar, timeAt } from '../../time';
import { beats, type Beats } from '../../units';
import { BAR_ONE } from './read';

/** Ticks of a quarter note: a hundredth of a beat and all triplets lie on one. */
export const TICKS = 960;
/** Drums are on channel 10 (General MIDI 1). */
const DRUM_CHANNEL = 9;

/** An event by its tick in the file, not by how long after the one before it. */
type Event = Unplaced<MidiEvent> & { readonly tick: number };
type Unplaced<One> = One extends unknown ? Omit<One, 'deltaTime'> : never;

/**
 * Type 1: a first track with tempo, meter and markers, then one for each hit lane. The file begins with the song's first
 * bar, which is a pickup in some: then a cue point tells where bar 1 is. What is on the other lanes has no place in it.
 */
export function writeSongAsMidi(song: Song): Uint8Array<ArrayBuffer> {
  const { first, last } = barSpan(song);
  const start = beatOfBar(song.meter, first);
  const tickOf = (beat: number) => Math.max(0, Math.round((beat - start) * TICKS));
  const end = tickOf(beatOfBar(song.meter, last + 1));
  const lanes = song.lanes.filter((lane): lane is HitLane => lane.type === 'hits');
  const marked = song.sections.map(({ bar, name }): Event => ({
    tick: tickOf(beatOfBar(song.meter, bar)),
    meta: true,
    type: 'marker',
    text: bytesOf(name),
  }));
  // A marker of that name would move bar 1.
  const nameOf = (name: string) => (name === BAR_ONE ? 'Bar 1' : name);
  const cues = (song.markers ?? []).map(({ at, name }): Event => ({
    tick: tickOf(at),
    meta: true,
    type: 'cuePoint',
    text: bytesOf(nameOf(name)),
  }));
  const pickup: Event[] = first < 0 ? [{ tick: tickOf(0), meta: true, type: 'cuePoint', text: BAR_ONE }] : [];
  const title: Event = { tick: 0, meta: true, type: 'trackName', text: bytesOf(song.title) };
  const bars = [...metersOf(song, first, tickOf), ...temposOf(song, start, tickOf, end)];
  const conductor = [title, ...bars, ...pickup, ...marked, ...cues];
  const tracks = [conductor, ...lanes.map((lane) => notesOf(lane, tickOf))].map((events) => deltas(events, end));
  const header = { format: 1 as const, numTracks: tracks.length, ticksPerBeat: TICKS };
  return Uint8Array.from(writeMidi({ header, tracks }));
}

function metersOf(song: Song, first: number, tickOf: (beat: number) => number): Event[] {
  const here = meterAtBar(song.meter, first);
  const changes = [{ ...here, bar: first }, ...song.meter.filter(({ bar }) => bar > first)];
  return changes.map(({ bar, numerator, denominator }): Event => ({
    tick: tickOf(beatOfBar(song.meter, bar)),
    meta: true,
    type: 'timeSignature',
    numerator,
    denominator,
    metronome: 24,
    thirtyseconds: 8,
  }));
}

/**
 * A tempo for each stretch between anchors. Whole microseconds a quarter note leave a little over: what is left of one
 * stretch is made good in the next, so that nothing adds up.
 */
function temposOf(song: Song, start: Beats, tickOf: (beat: number) => number, end: number): Event[] {
  const inner = song.tempo.anchors.map(({ beat }) => beat).filter((beat) => tickOf(beat) > 0 && tickOf(beat) < end);
  const places = [start, ...inner];
  const begun = timeAt(song.tempo, start);
  let told = 0;
  return places.map((beat, i): Event => {
    const until = places[i + 1] ?? beats(Math.max(beat + 1, start + end / TICKS));
    const quarters = (tickOf(until) - tickOf(beat)) / TICKS || 1;
    const wanted = (timeAt(song.tempo, until) - begun) * 1e6 - told;
    const microsecondsPerBeat = Math.min(0xffffff, Math.max(1, Math.round(wanted / quarters)));
    told += microsecondsPerBeat * quarters;
    return { tick: tickOf(beat), meta: true, type: 'setTempo', microsecondsPerBeat };
  });
}

function notesOf(lane: HitLane, tickOf: (beat: number) => number): Event[] {
  const notes = lane.notes.flatMap(({ at, length, note, velocity }): Event[] => {
    const key = { channel: DRUM_CHANNEL, noteNumber: note };
    const struck = Math.min(127, Math.max(1, Math.round(velocity * 127)));
    // A note that ends as it begins is none to many programs.
    const off = Math.max(tickOf(at) + 1, tickOf(at + length));
    return [
      { tick: tickOf(at), type: 'noteOn', ...key, velocity: struck },
      { tick: off, type: 'noteOff', ...key, velocity: 0 },
    ];
  });
  return [{ tick: 0, meta: true, type: 'trackName', text: bytesOf(lane.name) }, ...notes];
}

/** In the order of their ticks; at one tick notes end before others begin. */
function deltas(events: readonly Event[], end: number): MidiEvent[] {
  const rank = ({ type }: Event) => (type === 'noteOff' ? 0 : 1);
  const sorted = events
    .map((event, i) => ({ event, i }))
    .sort((a, b) => a.event.tick - b.event.tick || rank(a.event) - rank(b.event) || a.i - b.i);
  let before = 0;
  const placed = sorted.map(({ event: { tick, ...event } }): MidiEvent => {
    const deltaTime = tick - before;
    before = tick;
    return { ...event, deltaTime } as MidiEvent;
  });
  return [...placed, { deltaTime: Math.max(0, end - before), meta: true, type: 'endOfTrack' }];
}

/** UTF-8, a letter a byte. */
const bytesOf = (text: string): string => String.fromCharCode(...new TextEncoder().encode(text));
