// What of a MIDI file comes into a song, as it was chosen: bars and tempo, sections, hit lanes; all one edit.

import { drumKit, drumOfNote, Kit, noteName } from '../../light';
import type { Role } from '../../rig';
import type { OneCommand, Show } from '../../show';
import {
  bareSong,
  barSpan,
  kindOfSection,
  MOST_MARKERS,
  MOST_LANES,
  MOST_NOTES,
  nearestBar,
  type HitLane,
  type Marker,
  type Note,
  type Section,
  type Song,
} from '../../song';
import { barAt, beatAt, beatOfBar, timeAt, type Meter } from '../../time';
import { beats, id, seconds } from '../../units';
import type { MidiMusic, MidiPart } from './read';

/** What becomes of one part. */
export type PartChoice = {
  /** The part's `key`. */
  readonly part: string;
  readonly role: Role['id'];
  /** What answers to the notes; null makes a kit with a hit for each of them. */
  readonly kit: Kit['id'] | null;
  /** A lane for each note, rather than one for all. */
  readonly byNote: boolean;
};

export type MidiChoices = {
  /** The file's tempo and meter take the place of the song's; bar 1 stays where it sounds. */
  readonly tempo: boolean;
  /** Its markers take the place of the song's sections. */
  readonly sections: boolean;
  /** Its names of places take the place of the song's markers: cue points, and markers that are no form (`isForm`). */
  readonly cues: boolean;
  readonly parts: readonly PartChoice[];
};

/** What it comes to, before anything changes. */
export type Taken = {
  readonly bars: { readonly anchors: Song['tempo']['anchors']; readonly meter: Song['meter'] } | undefined;
  readonly sections: readonly Section[] | undefined;
  readonly markers: readonly Marker[] | undefined;
  readonly kits: readonly Kit[];
  readonly lanes: readonly HitLane[];
  /** What had no room, in words. */
  readonly left: readonly string[];
};

/** Drums by name or by channel 10 are what hits are made of; other parts are offered, but not chosen at first. */
export const isDrums = (part: MidiPart): boolean =>
  part.channel === 10 || /drum|perc|kick|snare|hat|beat/i.test(part.name);

/** Markers this near, in bars, by the median of so many and more of them, are no sections, but chords or words. */
const NEAR = 1.5;
const MANY = 8;
/** Whether its markers can be the sections of a song. */
export function isForm(music: MidiMusic, song: Song): boolean {
  const meter = music.timed ? song.meter : meterOf(music);
  const beatOf = placing(music, song);
  const places = music.markers.map(({ at }) => {
    const beat = beatOf(at);
    const { bar } = barAt(meter, beat);
    const begins = beatOfBar(meter, bar);
    return bar + (beat - begins) / (beatOfBar(meter, bar + 1) - begins);
  });
  const gaps = places.slice(1).map((place, i) => place - places[i]!);
  gaps.sort((a, b) => a - b);
  return places.length < MANY || gaps[gaps.length >> 1]! >= NEAR;
}
/** What can be markers of the song, where its markers are no sections of it. */
export const namesIn = (music: MidiMusic, song: Song, sections: boolean): MidiMusic['cues'] =>
  sections || isForm(music, song) ? music.cues : [...music.cues, ...music.markers].sort((a, b) => a.at - b.at);

/**
 * What one would choose first: bars and tempo where the song has no music of its own, sections where it has none yet,
 * drums for the first role; all parts where none is of drums.
 */
export function usualChoices(music: MidiMusic, song: Song, show: Show): MidiChoices {
  const drums = music.parts.filter(isDrums);
  const role = show.roles[0]?.id;
  const parts = drums.length > 0 ? drums : music.parts;
  const sections = music.markers.length > 0 && song.sections.length === 0 && isForm(music, song);
  return {
    tempo: !music.timed && song.music === null,
    sections,
    cues: namesIn(music, song, sections).length > 0 && (song.markers ?? []).length === 0,
    parts: role === undefined ? [] : parts.map(({ key }) => ({ part: key, role, kit: null, byNote: false })),
  };
}

/** @param newId names what is made. */
export function takenFrom(music: MidiMusic, song: Song, show: Show, choices: MidiChoices, newId: () => string): Taken {
  const meter = meterOf(music);
  const bars = choices.tempo && !music.timed ? { anchors: anchorsOf(music, song), meter } : undefined;
  const beatOf = placing(music, song);
  const counted = bars ? { ...song, tempo: { anchors: bars.anchors }, meter: bars.meter } : song;
  const all = choices.sections ? sectionsOf(music, counted.meter, beatOf, newId) : undefined;
  // Programs mark the end as well as what begins.
  const { last } = barSpan(counted);
  const sections = all?.filter(({ bar }) => bar <= last);
  const names = namesIn(music, song, choices.sections);
  const markers = choices.cues && names.length > 0 ? markersOf(names, beatOf, newId) : undefined;
  const kits: Kit[] = [];
  const lanes: HitLane[] = [];
  const left: string[] = [];
  const late = all?.filter(({ bar }) => bar > last).map(({ name }) => `“${name}”`) ?? [];
  if (late.length > 0) left.push(`The song is over before ${late.join(', ')}, which would be a section.`);
  for (const { part, role, kit, byNote } of choices.parts) {
    const found = music.parts.find(({ key }) => key === part);
    if (!found) continue;
    const made = kit === null ? kitOf(found, newId) : undefined;
    if (made) kits.push(made);
    const answers = made?.id ?? kit!;
    for (const { name, notes } of byNote ? apart(found) : [found]) {
      const placed = notes.map(({ at, length, note, velocity }): Note => {
        const from = beatOf(at);
        return {
          id: id<'Note'>(newId()),
          at: from,
          length: beats(Math.min(4096, Math.max(0, beatOf(at + length) - from))),
          note,
          velocity,
        };
      });
      // A lane holds so many; what is more goes on in a second one.
      for (let at = 0; at < placed.length; at += MOST_NOTES)
        lanes.push({
          id: id<'Lane'>(newId()),
          name: name.slice(0, 120),
          type: 'hits',
          kit: answers,
          role,
          notes: placed.slice(at, at + MOST_NOTES),
        });
    }
  }
  const room = MOST_LANES - song.lanes.length;
  if (lanes.length > room)
    left.push(`A song has ${MOST_LANES} lanes at most: ${lanes.length - room} of the new ones had no room.`);
  const taken = lanes.slice(0, Math.max(0, room));
  const used = new Set(taken.map(({ kit }) => kit));
  return { bars, sections, markers, kits: kits.filter((kit) => used.has(kit.id)), lanes: taken, left };
}

/**
 * A MIDI file as a song of its own, without a recording: its bars, its sections, its drums; with what could not be read or
 * had no room, in words.
 */
export function songOfMidi(
  music: MidiMusic,
  title: string,
  show: Show,
  newId: () => string,
): { readonly commands: readonly OneCommand[]; readonly left: readonly string[] } {
  const bare = bareSong({ id: newId(), title, bpm: 120, meter: { numerator: 4, denominator: 4 }, bars: 1 });
  const tempo = music.timed ? bare.tempo : { anchors: fromItsStart(anchorsOf(music, bare), music.origin) };
  const length = music.timed ? music.end : timeAt(tempo, endOf(music));
  const added: Song = { ...bare, tempo, duration: seconds(Math.min(36_000, Math.max(1, length))) };
  const taken = takenFrom(music, added, show, usualChoices(music, added, show), newId);
  return {
    commands: [{ type: 'add-song', added }, ...commandsOf(added.id, taken)],
    left: [...music.left, ...taken.left],
  };
}

/** The bar line at which its music is over: a track ends with its last note, in the middle of a bar. */
function endOf(music: MidiMusic): Note['at'] {
  const meter = meterOf(music);
  const last = beats(music.end - music.origin);
  const { bar } = barAt(meter, last);
  const into = last - beatOfBar(meter, bar);
  return beats(beatOfBar(meter, into < TAIL ? bar : bar + 1));
}
/** Beats that a note may sound past a bar line, and end there. */
const TAIL = 0.02;

/** The same tempo where the file begins with the song, its pickup too: bar 1 comes as late as that takes. */
function fromItsStart(anchors: Song['tempo']['anchors'], origin: number): Song['tempo']['anchors'] {
  const begins = timeAt({ anchors }, beats(-origin));
  return anchors.map(({ beat, time }) => ({ beat, time: seconds(time - begins) }));
}

/** The edit that brings it in; empty where nothing was chosen. */
export function commandsOf(song: Song['id'], { bars, sections, markers, kits, lanes }: Taken): OneCommand[] {
  return [
    ...(bars ? [{ type: 'set-bars' as const, song, ...bars }] : []),
    ...(sections ? [{ type: 'set-sections' as const, song, sections: [...sections] }] : []),
    ...(markers ? [{ type: 'set-markers' as const, song, markers: [...markers] }] : []),
    ...kits.map((kit) => ({ type: 'store-kit' as const, kit })),
    ...lanes.map((added) => ({ type: 'add-lane' as const, song, added })),
  ];
}

/** Where a place of the file lies in the song: its bar 1 on the song's; of a file in seconds, its start at bar 1. */
function placing(music: MidiMusic, song: Song): (at: number) => Note['at'] {
  if (!music.timed) return (at) => beats(at - music.origin);
  const begins = timeAt(song.tempo, beats(0));
  return (at) => beatAt(song.tempo, seconds(begins + at));
}

function anchorsOf({ tempo, origin, end }: MidiMusic, song: Song): Song['tempo']['anchors'] {
  const times: { beat: number; time: number }[] = [];
  let time = 0;
  tempo.forEach(({ at, pulse }, i) => {
    times.push({ beat: at, time });
    const next = tempo[i + 1]?.at ?? Math.max(end, at + 1);
    time += (next - at) * pulse;
    if (i === tempo.length - 1) times.push({ beat: next, time });
  });
  const map = { anchors: times.map(({ beat, time: at }) => ({ beat: beats(beat - origin), time: seconds(at) })) };
  const shift = timeAt(song.tempo, beats(0)) - timeAt(map, beats(0));
  return map.anchors.map((anchor) => ({ beat: anchor.beat, time: seconds(anchor.time + shift) }));
}

/** Meters begin at bar lines: one that the file has elsewhere begins at the next. */
function meterOf({ meter, origin, timed }: MidiMusic): Song['meter'] {
  type Change = Song['meter'][number];
  if (timed) return [{ bar: 0, numerator: 4, denominator: 4 }];
  const found: Change[] = [];
  for (const { at, numerator, denominator } of meter) {
    const change = { numerator, denominator } as Pick<Change, 'numerator' | 'denominator'>;
    const beat = at - origin;
    if (beat <= 0 || found.length === 0) {
      found.splice(0, found.length, { bar: 0, ...change });
      continue;
    }
    const { bar } = barAt(found, beats(beat));
    const inside = beat - beatOfBar(found, bar);
    const next = inside < 1e-3 ? bar : bar + 1;
    if (next === found.at(-1)!.bar) found[found.length - 1] = { bar: next, ...change };
    else found.push({ bar: next, ...change });
  }
  return found.slice(0, 1000);
}

/** Sections begin at the bar line that is nearest; of two at one bar the later one counts. */
function sectionsOf(
  { markers }: MidiMusic,
  meter: Meter,
  beatOf: (at: number) => Note['at'],
  newId: () => string,
): readonly Section[] {
  const byBar = new Map<number, string>();
  for (const { at, name } of markers) byBar.set(nearestBar(meter, beatOf(at)), name);
  // “Chorus 2” and “Chorus 1” have one colour.
  const kinds = [...new Set([...byBar.values()].map(kindOfSection))];
  return [...byBar]
    .filter(([bar]) => bar >= -64 && bar <= 100_000)
    .sort(([a], [b]) => a - b)
    .slice(0, 1000)
    .map(([bar, name]) => ({
      id: id<'Section'>(newId()),
      bar,
      name,
      note: '',
      tint: kinds.indexOf(kindOfSection(name)) % 8,
    }));
}

function markersOf(
  names: MidiMusic['cues'],
  beatOf: (at: number) => Note['at'],
  newId: () => string,
): readonly Marker[] {
  return names
    .slice(0, MOST_MARKERS)
    .map(({ at, name }) => ({ id: id<'Marker'>(newId()), at: beatOf(at), name: name.trim().slice(0, 120) }));
}

const pitchesOf = ({ notes }: MidiPart): readonly number[] =>
  [...new Set(notes.map(({ note }) => note))].sort((a, b) => a - b);

/** A part note by note, each called by its drum where it is one. */
const apart = (part: MidiPart): readonly Pick<MidiPart, 'name' | 'notes'>[] =>
  pitchesOf(part).map((pitch) => ({
    name: (part.channel === 10 && drumOfNote(pitch)) || `${part.name} ${noteName(pitch)}`,
    notes: part.notes.filter(({ note }) => note === pitch),
  }));

/** A hit for each note of a part: drums as our drum kit has them, all others white. */
function kitOf(part: MidiPart, newId: () => string): Kit {
  const drums = drumKit(part.name, undefined, newId);
  const hits = pitchesOf(part).map((pitch) => {
    const drum = part.channel === 10 || isDrums(part) ? drumOfNote(pitch) : undefined;
    const like = drums.hits.find(({ name }) => name === drum) ?? drums.hits[0]!;
    return { ...like, id: newId(), name: drum ?? noteName(pitch), low: pitch, high: pitch };
  });
  return Kit.parse({ id: newId(), name: part.name.slice(0, 120) || 'From MIDI', hits, channels: [] });
}
