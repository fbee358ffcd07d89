// Standard MIDI Files (RP-001, version 1.0) of every type: notes by track and channel, tempo, meter and markers.

import { parseMidi, type MidiEvent } from 'midi-file';
import { failed, ok, type Result } from '../../problem';
import { textOf } from '../../text-of';

/** A note: where it is struck and how long it is held, in quarter notes, or in seconds where the file is `timed`. */
export type MidiNote = {
  readonly at: number;
  readonly length: number;
  readonly note: number;
  readonly velocity: number;
};

/** The notes of one channel on one track. */
export type MidiPart = {
  readonly key: string;
  /** Counted from 1. */
  readonly track: number;
  readonly channel: number;
  readonly name: string;
  /** Rising in time. */
  readonly notes: readonly MidiNote[];
};

export type MidiMusic = {
  /** Counts in seconds (SMPTE), and so has no tempo of its own. */
  readonly timed: boolean;
  /** Places in quarter notes, rising; the first at 0. Seconds of a quarter note from there on. */
  readonly tempo: readonly { readonly at: number; readonly pulse: number }[];
  readonly meter: readonly { readonly at: number; readonly numerator: number; readonly denominator: number }[];
  readonly markers: readonly { readonly at: number; readonly name: string }[];
  /** Names at any place (RP-001, "Cue Point"). */
  readonly cues: readonly { readonly at: number; readonly name: string }[];
  readonly parts: readonly MidiPart[];
  /** Where the last track ends. */
  readonly end: number;
  /** Where bar 1 begins: later than the start where the file says that it begins with a pickup. */
  readonly origin: number;
  /** What could not be read and was left out, in words. */
  readonly left: readonly string[];
};

/** A cue point of this name says where bar 1 is, in files that begin with a pickup. */
export const BAR_ONE = 'bar 1';

/** 100,000 notes take less than one megabyte. */
const LARGEST = 4 * 1024 * 1024;
/** MIDI files without a tempo go by 120, those without a meter by 4/4 (RP-001, “Set Tempo”, “Time Signature”). */
const USUAL_PULSE = 0.5;
/** Seconds of a quarter note: a little under the 2000 a minute that a song may have, and 10. */
const FASTEST = 0.0301;
const SLOWEST = 6;
/** Quarter notes, or seconds, that a file may last: what comes later is left out. */
const LONGEST = 100_000;

/**
 * @param name what to call the file in a problem's words.
 * @param language of the computer: names in older files are read as its programs write.
 */
export function readMidi(bytes: Uint8Array, name: string, language?: string): Result<MidiMusic> {
  if (bytes.length === 0) return failed({ code: 'empty-file', name });
  if (bytes.length > LARGEST)
    return failed({ code: 'too-big', name, megabytes: bytes.length / 1e6, limit: LARGEST / 1024 / 1024 });
  const chunks = chunksOf(bytes);
  const head = chunks[0];
  if (head?.id !== 'MThd' || head.bytes.length < 6)
    return failed({ code: 'not-midi', name, detail: 'it does not begin with “MThd”' });
  const view = new DataView(head.bytes.buffer, head.bytes.byteOffset, head.bytes.length);
  const [type, division] = [view.getUint16(0), view.getUint16(4)];
  if (type > 2)
    return failed({ code: 'not-midi', name, detail: `there are types 0, 1 and 2, and this is type ${type}` });
  const timed = (division & 0x8000) !== 0;
  const perUnit = timed ? smpteRate(256 - (division >> 8)) * (division & 0xff) : division;
  if (!(perUnit > 0)) return failed({ code: 'not-midi', name, detail: 'it says that a beat has 0 ticks' });
  const left: string[] = [];
  const tracks = chunks
    .filter(({ id }) => id === 'MTrk')
    .map((chunk, i) => eventsOf(head.bytes, chunk, i + 1, left).map((event) => named(event, language)));
  if (tracks.every((events) => events.length === 0))
    return failed({ code: 'not-midi', name, detail: left[0] ?? 'it has no tracks' });
  if (type === 2 && tracks.length > 1)
    left.push('Its tracks are patterns of their own (type 2): each one begins at bar 1.');
  return ok(musicOf(tracks, perUnit, timed, type === 2, left));
}

/** 29 stands for 29.97 frames a second, with dropped numbers (RP-001, division). */
const smpteRate = (frames: number): number => (frames === 29 ? 30_000 / 1001 : frames);

type Chunk = { readonly id: string; readonly bytes: Uint8Array; readonly cut: boolean };

/** What is said to go on past the end of the file ends there. */
function chunksOf(bytes: Uint8Array): readonly Chunk[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
  const chunks: Chunk[] = [];
  for (let at = 0; at + 8 <= bytes.length && chunks.length < 70_000;) {
    const length = view.getUint32(at + 4);
    const id = String.fromCharCode(...bytes.subarray(at, at + 4));
    const end = Math.min(bytes.length, at + 8 + length);
    chunks.push({ id, bytes: bytes.subarray(at + 8, end), cut: at + 8 + length > bytes.length });
    at = end;
  }
  return chunks;
}

/**
 * Bytes as the parser takes them. A length with too many digits comes out below 0, and whoever reads on from there reads
 * the same for ever: such a slice is refused.
 */
function guarded(bytes: Uint8Array): Uint8Array {
  const slice = (from: number, to: number) => {
    if (to < from) throw new RangeError('a length is below 0');
    return guarded(bytes.subarray(from, to));
  };
  return Object.defineProperty(bytes, 'slice', { value: slice });
}

/** A track that is broken is left out, and said; the others count. */
function eventsOf(head: Uint8Array, { bytes, cut }: Chunk, number: number, left: string[]): readonly MidiEvent[] {
  if (cut) left.push(`Track ${number} is cut short; what there is of it counts.`);
  const file = new Uint8Array(14 + 8 + bytes.length);
  const view = new DataView(file.buffer);
  file.set([0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6], 0);
  file.set(head.subarray(0, 6), 8);
  view.setUint16(10, 1);
  file.set([0x4d, 0x54, 0x72, 0x6b], 14);
  view.setUint32(18, bytes.length);
  file.set(bytes, 22);
  try {
    return parseMidi(guarded(file)).tracks[0] ?? [];
  } catch (error) {
    left.push(
      `Track ${number} is damaged and was left out (${error instanceof Error ? error.message : String(error)}).`,
    );
    return [];
  }
}

/** An event with its place, in quarter notes or seconds. */
type Placed = { readonly at: number; readonly event: MidiEvent };

function musicOf(
  tracks: readonly (readonly MidiEvent[])[],
  perUnit: number,
  timed: boolean,
  apart: boolean,
  left: string[],
): MidiMusic {
  const placed = tracks.map((events, i) => {
    let ticks = 0;
    const all = events.map((event): Placed => {
      ticks += Math.max(0, event.deltaTime || 0);
      return { at: ticks / perUnit, event };
    });
    const within = all.filter(({ at }) => at <= LONGEST);
    if (within.length < all.length)
      left.push(
        `Track ${i + 1} lasts for more than ${LONGEST} ${timed ? 'seconds' : 'beats'}; what comes later was left out.`,
      );
    return within;
  });
  // Of patterns of their own the first one says how fast the song is.
  const common = (apart ? placed.slice(0, 1) : placed).flat().sort((a, b) => a.at - b.at);
  const named = (type: 'marker' | 'cuePoint') =>
    common
      .flatMap(({ at, event }) => (event.type === type ? [{ at, name: event.text }] : []))
      .filter(({ name }) => name !== '');
  const cues = named('cuePoint');
  return {
    timed,
    tempo: timed ? [{ at: 0, pulse: USUAL_PULSE }] : temposIn(common, left),
    meter: metersIn(common, left),
    markers: named('marker'),
    cues: cues.filter(({ name }) => name !== BAR_ONE),
    parts: placed.flatMap((events, i) => partsOf(events, i + 1)),
    end: Math.max(...placed.map((events) => events.at(-1)?.at ?? 0)),
    origin: cues.find(({ name }) => name === BAR_ONE)?.at ?? 0,
    left,
  };
}

/** A later one at the same place counts. */
function withFirst<One extends { readonly at: number }>(list: readonly One[], usual: One): readonly One[] {
  const found = list.filter((one, i) => list[i + 1]?.at !== one.at);
  return found[0]?.at === 0 ? found : [usual, ...found];
}

function temposIn(events: readonly Placed[], left: string[]): MidiMusic['tempo'] {
  const found = events.flatMap(({ at, event }) => {
    if (event.type !== 'setTempo') return [];
    const pulse = event.microsecondsPerBeat / 1e6;
    if (pulse >= FASTEST && pulse <= SLOWEST) return [{ at, pulse }];
    left.push(
      `A tempo of ${pulse > 0 ? `${Math.round(60 / pulse)} beats a minute` : '0'} at beat ${at + 1} was left out.`,
    );
    return [];
  });
  return withFirst(found, { at: 0, pulse: USUAL_PULSE });
}

function metersIn(events: readonly Placed[], left: string[]): MidiMusic['meter'] {
  const found = events.flatMap(({ at, event }) => {
    if (event.type !== 'timeSignature') return [];
    const { numerator, denominator } = event;
    if (numerator >= 1 && numerator <= 32 && [1, 2, 4, 8, 16].includes(denominator))
      return [{ at, numerator, denominator }];
    left.push(`A meter of ${numerator}/${denominator} at beat ${at + 1} was left out.`);
    return [];
  });
  return withFirst(found, { at: 0, numerator: 4, denominator: 4 });
}

function partsOf(events: readonly Placed[], track: number): readonly MidiPart[] {
  const named = events.flatMap(({ event }) => (event.type === 'trackName' ? [event.text] : []));
  const title = named.find(Boolean) ?? `Track ${track}`;
  const end = events.at(-1)?.at ?? 0;
  const channels = new Map<
    number,
    { notes: { at: number; length: number; note: number; velocity: number }[]; down: Map<number, number[]> }
  >();
  for (const { at, event } of events) {
    if (event.type !== 'noteOn' && event.type !== 'noteOff') continue;
    const { channel, noteNumber: note, velocity } = event;
    // Where a track is cut short, what is missing is not a number.
    if (!(note <= 127 && velocity <= 127)) continue;
    const own = channels.get(channel) ?? { notes: [], down: new Map<number, number[]>() };
    channels.set(channel, own);
    const sounding = own.down.get(note) ?? [];
    own.down.set(note, sounding);
    if (event.type === 'noteOn') {
      sounding.push(own.notes.length);
      // What nobody ends goes on to the end of its track.
      own.notes.push({ at, length: end - at, note, velocity: velocity / 127 });
    } else {
      const first = sounding.shift();
      if (first !== undefined) own.notes[first]!.length = at - own.notes[first]!.at;
    }
  }
  return [...channels]
    .sort(([a], [b]) => a - b)
    .map(([channel, { notes }]) => ({
      key: `${track}/${channel + 1}`,
      track,
      channel: channel + 1,
      name: channels.size > 1 ? `${title}, channel ${channel + 1}` : title,
      notes,
    }));
}

/** Texts are bytes, of which a MIDI file does not say how they are written. */
function named(event: MidiEvent, language?: string): MidiEvent {
  if (event.type !== 'trackName' && event.type !== 'marker' && event.type !== 'cuePoint') return event;
  const bytes = Uint8Array.from(event.text, (letter) => letter.charCodeAt(0));
  const text = textOf(bytes, language).replace(/[\p{Cc}\p{Cf}]+/gu, ' ');
  return { ...event, text: text.trim().slice(0, 120) };
}
