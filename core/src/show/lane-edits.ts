// What a user can do to the lanes of a song, and to what lies on them.

import { original, type Draft } from 'immer';
import { z } from 'zod';
import { moveBefore, remove } from '../change';
import { never } from '../problem';
import { idOf, Name } from '../rig/schema';
import { clearedLane, copiedLane, shiftedLane, swappedLane } from '../song/copy';
import { drawnOver } from '../song/curve';
import {
  BLENDS,
  Clip,
  CURVE_BLENDS,
  CurveTarget,
  Lane,
  LaneAction,
  LookLane,
  MOST_ACTIONS,
  MOST_LANES,
  MOST_CLIPS,
  MOST_NOTES,
  MOST_POINTS,
  Note,
  Point,
} from '../song/lane-schema';
import { laidClips, movedClips, turnedBy } from '../song/lay';
import { sortedNotes } from '../song/notes';
import type { Song } from '../song/schema';
import { id, type Beats } from '../units';
import type { Show } from './schema';

const inSong = { song: idOf<'Song'>() };
const onLane = { ...inSong, lane: idOf<'Lane'>() };
const ClipShape = Clip.shape;
const FadeBeats = z.number().min(0).max(256);
/** Names what an edit makes: the same on every screen. */
const Naming = z.string().min(1).max(40);

const SomeClips = z.array(idOf<'Clip'>()).min(1).max(MOST_CLIPS);

export const LANE_COMMANDS = [
  /** Below another lane; without, on top of all. */
  z.strictObject({ type: z.literal('add-lane'), ...inSong, added: Lane, before: idOf<'Lane'>().optional() }),
  z.strictObject({ type: z.literal('remove-lane'), ...onLane }),
  /** To stand below another lane; null is the top. */
  z.strictObject({ type: z.literal('move-lane'), ...onLane, before: idOf<'Lane'>().nullable() }),
  /** What a lane is set to; null takes a filter away. What its type has not is left alone. */
  z.strictObject({
    type: z.literal('set-lane'),
    ...onLane,
    name: Name.optional(),
    muted: z.boolean().optional(),
    solo: z.boolean().optional(),
    level: z.number().min(0).max(1).optional(),
    blend: z.enum([...BLENDS, ...CURVE_BLENDS]).optional(),
    only: LookLane.shape.only.unwrap().nullable().optional(),
    kit: idOf<'Kit'>().optional(),
    role: idOf<'Role'>().optional(),
    target: CurveTarget.optional(),
  }),
  z.strictObject({ type: z.literal('lay-clip'), ...onLane, clip: Clip }),
  z.strictObject({ type: z.literal('clear-bars'), ...onLane, from: z.number(), to: z.number() }),
  /** Lays what lies on `[from, to)` of every lane again at `at`, end to end until `until`; `id` names what is laid. */
  z.strictObject({
    type: z.literal('copy-bars'),
    ...inSong,
    from: z.number(),
    to: z.number(),
    at: z.number(),
    until: z.number(),
    /** Degrees by which the colours of what is laid are turned. */
    turn: z.number().min(-180).max(180).optional(),
    id: Naming,
  }),
  /** What lies on `[from, to)` moves by so many beats, on one lane or on all. */
  z.strictObject({
    type: z.literal('shift-light'),
    ...inSong,
    lane: idOf<'Lane'>().optional(),
    from: z.number(),
    to: z.number(),
    by: z.number(),
    id: Naming,
  }),
  /** What lies on `[from, to)` of all lanes, and on as much from `at` on, change places. */
  z.strictObject({
    type: z.literal('swap-bars'),
    ...inSong,
    from: z.number(),
    to: z.number(),
    at: z.number(),
    id: Naming,
  }),
  /** How a clip plays its look; what is left out stays, null is as the look has it. */
  z.strictObject({
    type: z.literal('change-clip'),
    ...onLane,
    clip: idOf<'Clip'>(),
    speed: ClipShape.speed.unwrap().nullable().optional(),
    level: ClipShape.level.unwrap().nullable().optional(),
    turn: ClipShape.turn.unwrap().nullable().optional(),
  }),
  z.strictObject({
    type: z.literal('put-actions'),
    ...onLane,
    actions: z.array(LaneAction).min(1).max(MOST_ACTIONS),
  }),
  z.strictObject({
    type: z.literal('remove-actions'),
    ...onLane,
    actions: z.array(idOf<'LaneAction'>()).min(1).max(MOST_ACTIONS),
  }),
  z.strictObject({
    type: z.literal('fade-clip'),
    ...onLane,
    clip: idOf<'Clip'>(),
    fadeIn: FadeBeats.optional(),
    fadeOut: FadeBeats.optional(),
  }),
  /** A clip somewhere else, longer or shorter; what lies there makes room. */
  z.strictObject({ type: z.literal('move-clip'), ...onLane, clip: idOf<'Clip'>(), from: z.number(), to: z.number() }),
  /** Several clips of a lane earlier or later by so many beats; what lies there makes room. */
  z.strictObject({ type: z.literal('move-clips'), ...onLane, clips: SomeClips, by: z.number() }),
  z.strictObject({ type: z.literal('remove-clips'), ...onLane, clips: SomeClips }),
  /** How several clips come and go and play their looks; what is left out stays as it is in each. */
  z.strictObject({
    type: z.literal('change-clips'),
    ...onLane,
    clips: SomeClips,
    fadeIn: FadeBeats.optional(),
    fadeOut: FadeBeats.optional(),
    speed: ClipShape.speed.unwrap().optional(),
    level: ClipShape.level.unwrap().optional(),
    /** Degrees that the colours of each are turned on by. */
    turnBy: z.number().min(-360).max(360).optional(),
  }),
  /** Notes that are new, or in the place of those with their ids. */
  z.strictObject({ type: z.literal('put-notes'), ...onLane, notes: z.array(Note).min(1).max(MOST_NOTES) }),
  z.strictObject({ type: z.literal('remove-notes'), ...onLane, notes: z.array(idOf<'Note'>()).min(1).max(MOST_NOTES) }),
  z.strictObject({ type: z.literal('put-points'), ...onLane, points: z.array(Point).min(1).max(MOST_POINTS) }),
  z.strictObject({
    type: z.literal('remove-points'),
    ...onLane,
    points: z.array(idOf<'Point'>()).min(1).max(MOST_POINTS),
  }),
  /** A curve drawn anew over `[from, to)`. */
  z.strictObject({
    type: z.literal('draw-curve'),
    ...onLane,
    from: z.number(),
    to: z.number(),
    points: z.array(Point).max(MOST_POINTS),
    id: Naming,
  }),
] as const;
export type LaneCommand = z.infer<(typeof LANE_COMMANDS)[number]>;

export function applyToLanes(show: Draft<Show>, command: LaneCommand): void {
  const song = show.songs.find((one) => one.id === command.song);
  if (!song) return;
  switch (command.type) {
    case 'add-lane':
      if (song.lanes.length >= MOST_LANES || song.lanes.some((lane) => lane.id === command.added.id)) return;
      song.lanes.push(command.added);
      if (command.before !== undefined) moveBefore(song.lanes, command.added.id, command.before);
      return;
    case 'remove-lane':
      // A song keeps one lane, so that there is always something to lay on.
      if (song.lanes.length > 1) remove(song.lanes, command.lane);
      return;
    case 'move-lane':
      return void moveBefore(song.lanes, command.lane, command.before);
    case 'copy-bars':
      song.lanes = song.lanes.map((lane, l) =>
        copiedLane(untouched(lane), command, (n) => `${command.id}-${l}-${n}`, halfId),
      );
      return;
    case 'shift-light':
      song.lanes = song.lanes.map((lane, l) =>
        command.lane === undefined || command.lane === lane.id
          ? shiftedLane(untouched(lane), command, (n) => `${command.id}-${l}-${n}`, halfId)
          : lane,
      );
      return;
    case 'swap-bars':
      song.lanes = song.lanes.map((lane, l) =>
        swappedLane(untouched(lane), command, (n) => `${command.id}-${l}-${n}`, halfId),
      );
      return;
    default:
      return onThatLane(song, command);
  }
}

type OnLane = Exclude<
  LaneCommand,
  { readonly type: 'add-lane' | 'remove-lane' | 'move-lane' | 'copy-bars' | 'shift-light' | 'swap-bars' }
>;

function onThatLane(song: Draft<Song>, command: OnLane): void {
  const at = song.lanes.findIndex((one) => one.id === command.lane);
  const lane = song.lanes[at];
  if (!lane) return;
  switch (command.type) {
    case 'set-lane':
      return setLane(lane, command);
    case 'clear-bars':
      song.lanes[at] = clearedLane(
        untouched(lane),
        command.from,
        command.to,
        (n) => `${lane.id}/${command.from}-${n}`,
        halfId,
      );
      return;
    case 'lay-clip':
      if (lane.type === 'looks') lane.clips = [...laidClips(untouched(lane).clips, command.clip, halfId)];
      return;
    case 'move-clip': {
      const clip = lane.type === 'looks' ? lane.clips.find((one) => one.id === command.clip) : undefined;
      if (lane.type !== 'looks' || !clip || !(command.to > command.from)) return;
      const others = lane.clips.filter((one) => one.id !== command.clip);
      const moved = { ...clip, from: command.from as Beats, to: command.to as Beats };
      lane.clips = [...laidClips(others, moved, halfId)];
      return;
    }
    case 'fade-clip': {
      const clip = lane.type === 'looks' ? lane.clips.find((one) => one.id === command.clip) : undefined;
      if (clip && command.fadeIn !== undefined) clip.fadeIn = command.fadeIn as Beats;
      if (clip && command.fadeOut !== undefined) clip.fadeOut = command.fadeOut as Beats;
      return;
    }
    case 'change-clip': {
      const clip = lane.type === 'looks' ? lane.clips.find((one) => one.id === command.clip) : undefined;
      if (clip) setClip(clip, command);
      return;
    }
    case 'move-clips':
      if (lane.type === 'looks') lane.clips = [...movedClips(untouched(lane).clips, command.clips, command.by, halfId)];
      return;
    case 'remove-clips':
      if (lane.type === 'looks') lane.clips = without(untouched(lane).clips, command.clips);
      return;
    case 'change-clips': {
      if (lane.type !== 'looks') return;
      const wanted = new Set<string>(command.clips);
      const { fadeIn, fadeOut, turnBy } = command;
      for (const clip of lane.clips) {
        if (!wanted.has(clip.id)) continue;
        if (fadeIn !== undefined) clip.fadeIn = fadeIn as Beats;
        if (fadeOut !== undefined) clip.fadeOut = fadeOut as Beats;
        setClip(clip, { ...command, ...(turnBy !== undefined ? { turn: turnedBy(clip.turn ?? 0, turnBy) } : {}) });
      }
      return;
    }
    case 'put-actions':
      if (lane.type === 'actions')
        lane.actions = joined(untouched(lane).actions, command.actions).sort((a, b) => a.at - b.at);
      return;
    case 'remove-actions':
      if (lane.type === 'actions') lane.actions = without(untouched(lane).actions, command.actions);
      return;
    case 'put-notes':
      if (lane.type === 'hits') lane.notes = [...sortedNotes(joined(untouched(lane).notes, command.notes))];
      return;
    case 'remove-notes':
      if (lane.type === 'hits') lane.notes = without(untouched(lane).notes, command.notes);
      return;
    case 'put-points':
      if (lane.type === 'curve')
        lane.points = joined(untouched(lane).points, command.points).sort((a, b) => a.at - b.at);
      return;
    case 'remove-points':
      if (lane.type === 'curve') lane.points = without(untouched(lane).points, command.points);
      return;
    case 'draw-curve': {
      if (lane.type !== 'curve' || !(command.to > command.from)) return;
      const name = (n: number) => id<'Point'>(`${command.id}-${n}`);
      lane.points = [...drawnOver(lane.points, command.from, command.to, command.points, name)];
      return;
    }
    default:
      return never(command);
  }
}

type ClipSetting = { readonly [Name in 'speed' | 'level' | 'turn']?: number | null | undefined };

/** Null is as the look has it. */
function setClip(clip: Draft<Clip>, set: ClipSetting): void {
  for (const name of ['speed', 'level', 'turn'] as const) {
    const value = set[name];
    if (value === null || value === (name === 'turn' ? 0 : 1)) delete clip[name];
    else if (value !== undefined) clip[name] = value;
  }
}

function setLane(lane: Draft<Lane>, set: Extract<OnLane, { readonly type: 'set-lane' }>): void {
  if (set.name !== undefined) lane.name = set.name;
  if (set.muted !== undefined) lane.muted = set.muted;
  if (set.solo !== undefined) lane.solo = set.solo;
  if (lane.type !== 'curve' && set.level !== undefined) lane.level = set.level;
  if (lane.type === 'looks') {
    const blend = BLENDS.find((one) => one === set.blend);
    if (blend) lane.blend = blend;
    if (set.only === null) delete lane.only;
    else if (set.only !== undefined) lane.only = set.only;
  }
  if (lane.type === 'hits') {
    if (set.kit !== undefined) lane.kit = set.kit;
    if (set.role !== undefined) lane.role = set.role;
  }
  if (lane.type === 'curve') {
    const blend = CURVE_BLENDS.find((one) => one === set.blend);
    if (blend) lane.blend = blend;
    if (set.target !== undefined) lane.target = set.target;
  }
}

/** A lane as it was before this edit: thousands of its records are gone through much faster than through a draft. */
function untouched<One extends Lane>(lane: Draft<One>): One {
  return (original(lane) ?? lane) as One;
}

/** A list with more records; those with the same id are in the place of the old ones. */
function joined<One extends { readonly id: string }>(list: readonly One[], more: readonly One[]): One[] {
  const fresh = new Map(more.map((one) => [one.id, one]));
  return [...list.filter((one) => !fresh.has(one.id)), ...fresh.values()];
}

function without<One extends { readonly id: string }>(list: readonly One[], gone: readonly string[]): One[] {
  const ids = new Set(gone);
  return list.filter((one) => !ids.has(one.id));
}

/** A clip cut in two keeps its id in front; the rear half's id follows from it and from where it was cut. */
function halfId(clip: Clip): Clip['id'] {
  return id<'Clip'>(`${clip.id.slice(0, 60)}/${Math.round(clip.to * 1000)}`);
}
