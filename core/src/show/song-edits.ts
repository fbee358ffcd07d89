// What a user can do to songs: their music, their bars and tempo, their sections. What lies on bars is in `lane-edits`.

import type { Draft } from 'immer';
import { z } from 'zod';
import { moveBefore, remove } from '../change';
import { never } from '../problem';
import { idOf, Name } from '../rig/schema';
import { passageSet } from '../song/passage';
import { temposScaled } from '../song/scale';
import { Ending, Music, Section, Song } from '../song/schema';
import { barsMoved, barsPut, barsShifted, meterSet, tempoSteadied } from '../song/time-edits';
import { forgotten } from './gig-edits';
import type { Show } from './schema';

const inSong = { song: idOf<'Song'>() };
/** When bar lines move, what lies on them goes with them, or stays at its seconds of the music. */
const Keeping = z.enum(['bars', 'sound']);

export const SONG_COMMANDS = [
  /** Before another song; without, at the end. */
  z.strictObject({ type: z.literal('add-song'), added: Song, before: idOf<'Song'>().optional() }),
  z.strictObject({ type: z.literal('remove-song'), ...inSong }),
  z.strictObject({
    type: z.literal('rename-song'),
    ...inSong,
    title: Name,
    /** Who plays or wrote it; without, as it was. */
    by: z.string().trim().max(120).optional(),
    /** The same of its key and of what to know of it; empty takes it away. */
    key: z.string().trim().max(24).optional(),
    notes: z.string().trim().max(2000).optional(),
    /** When it begins in the time of another machine, in seconds; null for no such time. */
    timecode: Song.shape.timecode.nullable(),
  }),
  /** Another recording of it, with what the beats are in that: the light stays on its bars. Null: none. */
  z.strictObject({
    type: z.literal('set-music'),
    ...inSong,
    music: Music.nullable(),
    duration: Song.shape.duration,
    /** Its tempo map; without, the one it has. */
    anchors: Song.shape.tempo.shape.anchors.optional(),
  }),
  /** The recordings that sound beside its music. */
  z.strictObject({ type: z.literal('set-tracks'), ...inSong, tracks: Song.shape.tracks.unwrap() }),
  z.strictObject({ type: z.literal('set-markers'), ...inSong, markers: Song.shape.markers.unwrap() }),
  /** Beats placed anew from the first anchor's time to the last one's: see `passageSet`. */
  z.strictObject({
    type: z.literal('set-passage'),
    ...inSong,
    anchors: Song.shape.tempo.shape.anchors,
    keeps: Keeping.optional(),
  }),
  /** Null: what was on before it comes back. */
  z.strictObject({ type: z.literal('set-ending'), ...inSong, ending: Ending.nullable() }),
  /** To stand before another song; null is the end. */
  z.strictObject({ type: z.literal('move-song'), ...inSong, before: idOf<'Song'>().nullable() }),
  /** Half or double the tempo: the music and what lies on it stay where they sound, only bars are counted anew. */
  z.strictObject({ type: z.literal('scale-tempo'), ...inSong, factor: z.union([z.literal(0.5), z.literal(2)]) }),
  /** Bar 1 begins so many felt beats later, or earlier; light goes with the bars, or stays where it sounds. */
  z.strictObject({
    type: z.literal('shift-bars'),
    ...inSong,
    pulses: z.number().int().min(-64).max(64),
    keeps: Keeping,
  }),
  /** All bar lines sound so many seconds later. */
  z.strictObject({
    type: z.literal('move-bars'),
    ...inSong,
    seconds: z.number().min(-60).max(60),
    keeps: Keeping.optional(),
  }),
  /** Another meter from a bar on, up to a last one or the end. */
  z.strictObject({
    type: z.literal('set-meter'),
    ...inSong,
    first: z.number().int().min(-64).max(100000),
    last: z.number().int().min(-64).max(100000).nullable(),
    numerator: z.number().int().min(1).max(32),
    denominator: z.union([z.literal(1), z.literal(2), z.literal(4), z.literal(8), z.literal(16)]),
  }),
  /** One tempo throughout, in felt beats a minute. */
  z.strictObject({
    type: z.literal('steady-tempo'),
    ...inSong,
    bpm: z.number().min(20).max(400),
    keeps: Keeping.optional(),
  }),
  /** All bars at once: the tempo map and the meter. What lies on bars stays on them. */
  z.strictObject({
    type: z.literal('set-bars'),
    ...inSong,
    anchors: Song.shape.tempo.shape.anchors,
    meter: Song.shape.meter,
  }),
  /** These sections in the place of all that are there. */
  z.strictObject({ type: z.literal('set-sections'), ...inSong, sections: Song.shape.sections }),
  z.strictObject({ type: z.literal('mark-section'), ...inSong, section: Section }),
  z.strictObject({ type: z.literal('unmark-section'), ...inSong, section: idOf<'Section'>() }),
] as const;
type SongCommand = z.infer<(typeof SONG_COMMANDS)[number]>;

export function applyToSongs(show: Draft<Show>, command: SongCommand): void {
  switch (command.type) {
    case 'add-song':
      if (!show.songs.some((song) => song.id === command.added.id)) show.songs.push(command.added);
      if (command.before !== undefined) moveBefore(show.songs, command.added.id, command.before);
      return;
    case 'remove-song':
      for (const song of show.songs)
        for (const lane of song.lanes)
          if (lane.type === 'actions')
            lane.actions = lane.actions.filter(({ does }) => does.act !== 'song' || does.song !== command.song);
      forgotten(show, 'song', command.song);
      return remove(show.songs, command.song);
    case 'rename-song':
      return inThatSong(show, command.song, (song) => {
        song.title = command.title;
        if (command.by !== undefined) song.by = command.by;
        for (const name of ['key', 'notes'] as const) {
          const value = command[name];
          if (value) song[name] = value;
          else if (value === '') delete song[name];
        }
        if (command.timecode === null) delete song.timecode;
        else if (command.timecode !== undefined) song.timecode = command.timecode;
      });
    case 'set-music':
      return inThatSong(show, command.song, (song) => {
        song.music = command.music;
        song.duration = command.duration;
        if (command.anchors) song.tempo = { anchors: command.anchors };
      });
    case 'set-tracks':
      return inThatSong(show, command.song, (song) => {
        if (command.tracks.length > 0) song.tracks = command.tracks;
        else delete song.tracks;
      });
    case 'set-markers':
      return inThatSong(show, command.song, (song) => {
        song.markers = [...command.markers].sort((a, b) => a.at - b.at);
      });
    case 'set-passage':
      return inThatSong(show, command.song, (song) =>
        barsPut(song, command.keeps ?? 'bars', () => passageSet(song, command.anchors)),
      );
    case 'set-ending':
      return inThatSong(show, command.song, (song) => {
        if (command.ending) song.ending = command.ending;
        else delete song.ending;
      });
    case 'move-song':
      return void moveBefore(show.songs, command.song, command.before);
    case 'scale-tempo':
      return inThatSong(show, command.song, (song) => temposScaled(song, command.factor));
    case 'shift-bars':
      return inThatSong(show, command.song, (song) => barsShifted(song, command.pulses, command.keeps));
    case 'move-bars':
      return inThatSong(show, command.song, (song) =>
        barsPut(song, command.keeps ?? 'bars', () => barsMoved(song, command.seconds)),
      );
    case 'set-meter':
      return inThatSong(show, command.song, (song) => meterSet(song, command.first, command.last, command));
    case 'steady-tempo':
      return inThatSong(show, command.song, (song) =>
        barsPut(song, command.keeps ?? 'bars', () => tempoSteadied(song, command.bpm)),
      );
    case 'set-bars':
      return inThatSong(show, command.song, (song) => {
        song.tempo = { anchors: command.anchors };
        song.meter = command.meter;
      });
    case 'set-sections':
      return inThatSong(show, command.song, (song) => {
        song.sections = [...command.sections].sort((a, b) => a.bar - b.bar);
      });
    case 'mark-section':
      return inThatSong(show, command.song, (song) => {
        const others = song.sections.filter(
          (section) => section.id !== command.section.id && section.bar !== command.section.bar,
        );
        song.sections = [...others, command.section].sort((a, b) => a.bar - b.bar);
      });
    case 'unmark-section':
      return inThatSong(show, command.song, (song) => remove(song.sections, command.section));
    default:
      return never(command);
  }
}

function inThatSong(show: Draft<Show>, song: string, change: (song: Draft<Song>) => void): void {
  const found = show.songs.find((candidate) => candidate.id === song);
  if (found) change(found);
}
