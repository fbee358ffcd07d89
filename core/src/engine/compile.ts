// Turns names into numbers, once per edit.

import { nearestSlot, okLabFromChromaticity, type Chromaticity } from '../colour';
import { valueAt, type Look, type LookValue } from '../light';
import { panTiltTo, patchedFixtures, type Part, type Patched } from '../rig';
import { rigInUse, type Show } from '../show';
import { timeAt } from '../time';
import { beats, type Id } from '../units';
import type { Clip, Lane, Song } from '../song';
import { COLOUR, COLUMNS, GOBO, GROUPS, HAS_LEVEL, HAZE, HOME, LEVEL, PAN, SLOT, STROBE, TILT, ZOOM } from './columns';
import { headPlan, snapsOf } from './head-plan';
import type { Head, LaneProgram, Program, Scratch, Sheet, SongProgram } from './program';

/** @param rig which rig to compile for; without, the one in use. */
export function compile(show: Show, rig: Id<'Rig'> = rigInUse(show).id): Program {
  const room = show.rigs.find((candidate) => candidate.id === rig) ?? rigInUse(show);
  const patched = patchedFixtures(room, show.profiles);
  const universes = [...new Set(patched.map(({ fixture }) => fixture.universe as number))].sort((a, b) => a - b);
  const partsOf = new Map<string, Part['id'][]>();
  for (const { part, fixtures } of room.casting)
    for (const fixture of fixtures) partsOf.set(fixture, [...(partsOf.get(fixture) ?? []), part]);
  const heads = patched.flatMap((one) => headsOf(one, partsOf.get(one.fixture.id) ?? []));
  const headsByFixture = new Map<string, number[]>();
  heads.forEach(({ fixture }, i) => headsByFixture.set(fixture.id, [...(headsByFixture.get(fixture.id) ?? []), i]));
  const notes = new Set<string>();
  for (const fixture of room.fixtures)
    if (!headsByFixture.has(fixture.id)) notes.add(`${fixture.name}: its type or mode is missing`);
  const casts = new Map(
    room.casting.map(({ part, fixtures }) => [part, fixtures.flatMap((fixture) => headsByFixture.get(fixture) ?? [])]),
  );
  const aimed = aimSolver(show, (note) => notes.add(note));
  const looks = new Map(show.looks.map((look) => [look.id as string, sheetOf(look, heads, casts, aimed)]));
  const lookFades = new Map(show.looks.map((look) => [look.id, look]));
  const songs = new Map(show.songs.map((song) => [song.id as string, songProgram(song, looks, lookFades)]));
  return {
    heads,
    plans: heads.map((head, i) => headPlan(head, i, universes)),
    universes,
    looks,
    songs,
    notes: [...notes],
    snaps: Uint8Array.from(heads.flatMap((head) => snapsOf(head).map(Number))),
    scratch: scratchFor(heads.length, show),
  };
}

function headsOf({ fixture, profile, mode }: Patched, parts: readonly Part['id'][]): Head[] {
  const cells = 1 + mode.channels.reduce((most, channel) => Math.max(most, channel.cell ?? 0), 0);
  return Array.from({ length: cells }, (_, cell) => ({
    fixture,
    profile,
    mode,
    cell,
    cells,
    mount: fixture.mount,
    parts,
  }));
}

function sheetOf(
  look: Look,
  heads: readonly Head[],
  casts: ReadonlyMap<Part['id'], readonly number[]>,
  aimed: AimSolver,
): Sheet {
  // A later value of the same look wins over an earlier one for a head that plays both parts.
  const rows = new Map<number, { has: number; values: Float32Array }>();
  for (const value of look.values) {
    const cast = casts.get(value.part) ?? [];
    cast.forEach((head, place) => {
      const row = rows.get(head) ?? { has: 0, values: new Float32Array(COLUMNS) };
      rows.set(head, row);
      row.has |= fillRow(row.values, value, place, heads[head]!, aimed);
    });
  }
  const sorted = [...rows].sort(([a], [b]) => a - b);
  const sheet = {
    id: look.id,
    name: look.name,
    keep: look.keep,
    count: sorted.length,
    heads: Int32Array.from(sorted, ([head]) => head),
    has: Uint16Array.from(sorted, ([, row]) => row.has),
    values: new Float32Array(sorted.length * COLUMNS),
  };
  sorted.forEach(([, row], i) => sheet.values.set(row.values, i * COLUMNS));
  return sheet;
}

const BITS = new Map(GROUPS.map((group, i) => [group.first as number, 2 << i]));
const bit = (column: number) => BITS.get(column)!;

/** Writes what a look says to one head and returns which groups it spoke about. */
function fillRow(row: Float32Array, value: LookValue, place: number, head: Head, aimed: AimSolver): number {
  let has = 0;
  const single = (source: LookValue['level'], column: number, mark: number) => {
    if (!source) return;
    row[column] = valueAt(source, place);
    has |= mark;
  };
  single(value.level, LEVEL, HAS_LEVEL);
  single(value.strobe, STROBE, bit(STROBE));
  single(value.gobo, GOBO, bit(GOBO));
  single(value.zoom, ZOOM, bit(ZOOM));
  single(value.haze, HAZE, bit(HAZE));
  if (value.colour) {
    const colour = valueAt<Chromaticity>(value.colour, place);
    const { L, a, b } = okLabFromChromaticity(colour);
    row.set([L, a, b], COLOUR);
    has |= bit(COLOUR);
    if (head.profile.colours.length > 0) {
      row[SLOT] = nearestSlot(
        head.profile.colours.map((slot) => slot.colour),
        colour,
      ).slot;
      has |= bit(SLOT);
    }
  }
  const aim = value.aim && valueAt(value.aim, place);
  const turned = aim && 'aim' in aim ? aimed(aim.aim, head) : aim;
  if (turned && head.profile.panRange > 0) {
    row[PAN] = turned.pan;
    row[TILT] = turned.tilt;
    has |= bit(PAN);
  }
  return has;
}

type AimSolver = (aim: string, head: Head) => { readonly pan: number; readonly tilt: number } | undefined;

/** Solves each aim once a head, however many looks point there. */
function aimSolver(show: Show, note: (text: string) => void): AimSolver {
  const points = new Map(show.aims.map((point) => [point.id as string, point]));
  const solved = new Map<string, Map<Head, ReturnType<typeof panTiltTo>>>();
  return (aim, head) => {
    const point = points.get(aim);
    if (!point || head.profile.panRange === 0) return undefined;
    const known = solved.get(aim) ?? new Map<Head, ReturnType<typeof panTiltTo>>();
    solved.set(aim, known);
    const turned = known.get(head) ?? panTiltTo(head.mount, { ...head.profile, limits: head.fixture.limits }, point);
    if (!known.has(head) && !turned.reached) note(`${head.fixture.name} cannot reach ${point.name}`);
    known.set(head, turned);
    return turned;
  };
}

function songProgram(song: Song, looks: ReadonlyMap<string, Sheet>, fades: ReadonlyMap<Look['id'], Look>): SongProgram {
  return { lanes: song.lanes.map((lane) => laneProgram(song, lane, looks, fades)), duration: song.duration };
}

/** Two clips closer than this, in beats, are joined. */
const JOIN = 1e-3;

function laneProgram(
  song: Song,
  lane: Lane,
  looks: ReadonlyMap<string, Sheet>,
  fades: ReadonlyMap<Look['id'], Look>,
): LaneProgram {
  const clips = [...lane.clips].sort((a, b) => a.from - b.from);
  const at = (beat: number) => timeAt(song.tempo, beats(beat));
  const lookOf = (clip: Clip) => (clip.look ? fades.get(clip.look) : undefined);
  const fadeIn = (clip: Clip) => clip.fadeIn ?? lookOf(clip)?.fadeIn ?? 0;
  const fadeOut = (clip: Clip) => Math.min(clip.fadeOut ?? lookOf(clip)?.fadeOut ?? 0, clip.to - clip.from);
  const joined = clips.map((clip, i) => i + 1 < clips.length && clips[i + 1]!.from - clip.to < JOIN);
  return {
    name: lane.name,
    blend: lane.blend,
    count: clips.length,
    from: Float64Array.from(clips, (clip) => at(clip.from)),
    to: Float64Array.from(clips, (clip) => at(clip.to)),
    inUntil: Float64Array.from(clips, (clip) => at(clip.from + fadeIn(clip))),
    outFrom: Float64Array.from(clips, (clip, i) => at(joined[i] ? clip.to : clip.to - fadeOut(clip))),
    joined: Uint8Array.from(joined, Number),
    sheets: clips.map((clip) => (clip.look ? (looks.get(clip.look) ?? null) : null)),
  };
}

function scratchFor(heads: number, show: Show): Scratch {
  const most = show.songs.reduce(
    (longest, song) => song.lanes.reduce((n, lane) => Math.max(n, lane.clips.length), longest),
    1,
  );
  return {
    values: new Float64Array(heads * COLUMNS),
    weights: new Float64Array(heads * GROUPS.length),
    laneValues: new Float64Array(heads * COLUMNS),
    laneWeights: new Float64Array(heads * GROUPS.length),
    lanePresence: new Float64Array(heads),
    clipWeights: new Float64Array(most),
    linear: new Float64Array(3),
    mix: new Float64Array(16),
    solve: new Float64Array(HOME.length),
  };
}
