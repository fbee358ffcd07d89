// Every change to a show has a name and is plain data. What it changed is told by ops, which can be taken back.

import type { Draft } from 'immer';
import { z } from 'zod';
import { changed, laid, moveBefore, OpsShape, put, remove, type Ops } from '../change';
import { Casting, Fixture, Name, Role, Profile, Rig, idOf } from '../rig/schema';
import { applyToRig, RIG_COMMANDS } from './rig-edits';
import { applyToLooks, LOOK_COMMANDS } from './look-edits';
import { applyToGig, forgotten, GIG_COMMANDS } from './gig-edits';
import { applyToLanes, LANE_COMMANDS } from './lane-edits';
import { Ending, Music, Section, Song } from '../song/schema';
import { passageSet } from '../song/passage';
import { temposScaled } from '../song/scale';
import { barsMoved, barsPut, barsShifted, meterSet, tempoSteadied } from '../song/time-edits';
import { Safety, type Show } from './schema';

const inSong = { song: idOf<'Song'>() };
/** When bar lines move, what lies on them goes with them, or stays at its seconds of the music. */
const Keeping = z.enum(['bars', 'sound']);

const SIMPLE = [
  z.strictObject({ type: z.literal('rename-show'), name: Name }),
  z.strictObject({ type: z.literal('set-safety'), safety: Safety }),
  z.strictObject({ type: z.literal('add-profile'), profile: Profile }),
  z.strictObject({ type: z.literal('add-rig'), rig: Rig }),
  z.strictObject({ type: z.literal('choose-rig'), rig: idOf<'Rig'>() }),
  z.strictObject({ type: z.literal('patch-fixtures'), rig: idOf<'Rig'>(), fixtures: z.array(Fixture).min(1) }),
  /** Lamps of one type, the type itself where the show has it not, and the role they are cast in. */
  z.strictObject({
    type: z.literal('add-lamps'),
    rig: idOf<'Rig'>(),
    profile: Profile,
    fixtures: z.array(Fixture).min(1).max(512),
    role: Role,
  }),
  z.strictObject({ type: z.literal('remove-lamps'), rig: idOf<'Rig'>(), fixtures: z.array(idOf<'Fixture'>()).min(1) }),
  z.strictObject({ type: z.literal('add-role'), role: Role }),
  z.strictObject({ type: z.literal('cast-role'), rig: idOf<'Rig'>(), casting: Casting }),
  ...RIG_COMMANDS,
  ...LOOK_COMMANDS,
  ...GIG_COMMANDS,
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
  ...LANE_COMMANDS,
] as const;

type Simple = z.infer<(typeof SIMPLE)[number]>;

/**
 * Values as somebody saw and changed them, and what takes a change back: laid on only where they still stand as they
 * were seen. `of` is what was done, for its words.
 */
const Adjust = z.strictObject({ type: z.literal('adjust'), of: z.string().min(1).max(40), ops: OpsShape });

/** What a user can do to a show. Each member is named by what was done. */
export const Command = z.discriminatedUnion('type', [
  ...SIMPLE,
  Adjust,
  /** Several that are one act; it is called by the name of the first. */
  z.strictObject({
    type: z.literal('together'),
    commands: z
      .array(z.discriminatedUnion('type', [...SIMPLE, Adjust]))
      .min(1)
      .max(500),
  }),
]);
export type Command = z.infer<typeof Command>;
/** One that can be a part of several. */
export type OneCommand = Exclude<Command, { type: 'together' }>;

/** What was done, in one word of the list above; "one-" before it where several could have been meant and one was. */
export function nameOf(command: Command): string {
  switch (command.type) {
    case 'adjust':
      return command.of;
    case 'together':
      return nameOf(command.commands[0]!);
    case 'move-clips':
    case 'change-clips':
    case 'remove-clips':
      return one(command.type, command.clips);
    case 'put-notes':
    case 'remove-notes':
      return one(command.type, command.notes);
    case 'remove-points':
      return one(command.type, command.points);
    case 'put-actions':
    case 'remove-actions':
      return one(command.type, command.actions);
    case 'patch-fixtures':
    case 'remove-lamps':
    case 'add-lamps':
      return one(command.type, command.fixtures);
    default:
      return command.type;
  }
}

const one = (type: string, of: readonly unknown[]): string => (of.length === 1 ? `one-${type}` : type);

export type Edited = {
  readonly show: Show;
  /** What it changed; none where it found nothing to do. */
  readonly ops: Ops;
  /** What of an adjustment did not fit any more. */
  readonly missed: Ops;
};

/** The show after a command. A command that names something that is gone changes nothing. Pure: the same everywhere. */
export function edit(show: Show, command: Command): Edited {
  if (command.type === 'adjust') {
    const { after, missed } = laid(show, command.ops);
    const gone = new Set(missed);
    return { show: after, ops: command.ops.filter((op) => !gone.has(op)), missed };
  }
  if (command.type === 'together') {
    let all: Edited = { show, ops: [], missed: [] };
    for (const one of command.commands) {
      const next = edit(all.show, one);
      all = { show: next.show, ops: [...all.ops, ...next.ops], missed: [...all.missed, ...next.missed] };
    }
    return all;
  }
  const { after, ops } = changed(show, (draft) => apply(draft, command));
  return { show: after, ops, missed: [] };
}

/** Commands that put values in the place of others: two people who do that at once must not overwrite one another. */
const OVERWRITES: ReadonlySet<Simple['type']> = new Set<Simple['type']>([
  'rename-show',
  'set-safety',
  'add-profile',
  'patch-fixtures',
  'add-role',
  'cast-role',
  'rename-rig',
  'put-shape',
  'set-picture',
  'rename-role',
  'add-aim',
  'store-look',
  'store-chase',
  'store-kit',
  'store-bank',
  'rename-song',
  'mark-section',
  'fade-clip',
  'change-clip',
  'set-lane',
  'set-bars',
  'set-sections',
  'set-ending',
  'choose-rig',
  'set-music',
  'set-tracks',
  'set-markers',
  'store-set',
  'choose-set',
  'store-pedal',
  'store-control',
  'know-track',
  'choose-unknown',
]);

/**
 * A command as it travels: where it overwrites values it becomes the very values that differ from those its author saw.
 * All others (laying a clip, removing a look) are worked out anew on whatever the show has become.
 */
export function travelling(show: Show, command: Command): Command {
  if (command.type !== 'together') return travellingAlone(show, command);
  let seen = show;
  const commands = command.commands.map((one) => {
    const travels = travellingAlone(seen, one);
    seen = edit(seen, one).show;
    return travels;
  });
  return { type: 'together', commands };
}

function travellingAlone(show: Show, command: OneCommand): OneCommand {
  if (command.type === 'adjust' || !OVERWRITES.has(command.type)) return command;
  return { type: 'adjust', of: command.type, ops: [...edit(show, command).ops] };
}

function apply(show: Draft<Show>, command: Simple): void {
  switch (command.type) {
    case 'rename-show':
      show.name = command.name;
      return;
    case 'set-safety':
      show.safety = command.safety;
      return;
    case 'add-profile':
      return put(show.profiles, command.profile);
    case 'add-rig':
      return put(show.rigs, command.rig);
    case 'choose-rig':
      if (show.rigs.some((rig) => rig.id === command.rig)) show.rig = command.rig;
      return;
    case 'patch-fixtures': {
      const rig = show.rigs.find((candidate) => candidate.id === command.rig);
      if (rig) for (const fixture of command.fixtures) put(rig.fixtures, fixture);
      return;
    }
    case 'add-lamps': {
      const rig = show.rigs.find((candidate) => candidate.id === command.rig);
      if (!rig) return;
      if (!show.profiles.some((profile) => profile.id === command.profile.id)) show.profiles.push(command.profile);
      if (!show.roles.some((role) => role.id === command.role.id)) show.roles.push(command.role);
      for (const fixture of command.fixtures) put(rig.fixtures, fixture);
      const cast = rig.casting.find((casting) => casting.role === command.role.id);
      const ids = command.fixtures.map((fixture) => fixture.id);
      if (cast) cast.fixtures.push(...ids.filter((id) => !cast.fixtures.includes(id)));
      else rig.casting.push({ role: command.role.id, fixtures: ids });
      return;
    }
    case 'remove-lamps': {
      const rig = show.rigs.find((candidate) => candidate.id === command.rig);
      if (!rig) return;
      for (const gone of command.fixtures) {
        remove(rig.fixtures, gone);
        for (const casting of rig.casting) {
          const at = casting.fixtures.indexOf(gone);
          if (at >= 0) casting.fixtures.splice(at, 1);
        }
      }
      return;
    }
    case 'add-role':
      return put(show.roles, command.role);
    case 'cast-role': {
      const rig = show.rigs.find((candidate) => candidate.id === command.rig);
      const at = rig?.casting.findIndex((casting) => casting.role === command.casting.role) ?? -1;
      if (at >= 0) rig!.casting[at] = command.casting;
      else rig?.casting.push(command.casting);
      return;
    }
    case 'store-look':
    case 'store-bank':
    case 'remove-bank':
    case 'store-kit':
    case 'remove-kit':
    case 'store-chase':
    case 'remove-look':
    case 'move-look':
      return applyToLooks(show, command);
    case 'store-set':
    case 'remove-set':
    case 'choose-set':
    case 'store-pedal':
    case 'remove-pedal':
    case 'store-control':
    case 'remove-control':
    case 'move-control':
    case 'know-track':
    case 'forget-track':
    case 'choose-unknown':
      return applyToGig(show, command);
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
    case 'add-lane':
    case 'remove-lane':
    case 'move-lane':
    case 'set-lane':
    case 'lay-clip':
    case 'clear-bars':
    case 'copy-bars':
    case 'shift-light':
    case 'swap-bars':
    case 'fade-clip':
    case 'change-clip':
    case 'move-clip':
    case 'move-clips':
    case 'remove-clips':
    case 'change-clips':
    case 'put-actions':
    case 'remove-actions':
    case 'put-notes':
    case 'remove-notes':
    case 'put-points':
    case 'remove-points':
    case 'draw-curve':
      return applyToLanes(show, command);
    default:
      return applyToRig(show, command);
  }
}

function inThatSong(show: Draft<Show>, song: string, change: (song: Draft<Song>) => void): void {
  const found = show.songs.find((candidate) => candidate.id === song);
  if (found) change(found);
}
