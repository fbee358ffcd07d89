// Turns names into numbers, once per edit.

import { courseOf, type Chase, type Look, type LookValue } from '../light';
import { patchedFixtures, snaps, attributeOf, type Role, type Patched, type Rig } from '../rig';
import { rigInUse, type Show } from '../show';
import { tempoAt, timeAt } from '../time';
import { beats, seconds, type Id } from '../units';
import type { Clip, Lane, Song } from '../song';
import type { Envelopes } from '../music/envelopes';
import { curveFor, earBook } from './ears';
import { ABOVE, FIELDS, fieldOf, type Field } from './fields';
import { aimSolver, slotFinder, type Ground } from './ground';
import { headPlan, snapsOf } from './head-plan';
import { kitBook } from './kits';
import { MIX, MOST_OVERLAPPING, sheetsIn, type ChaseProgram, type Head, type HeadPlan, type LaneProgram, type Play, type Program, type Scratch, type Sheet, type SongProgram } from './program'; // prettier-ignore
import { markCovers } from './shows';
import { flashSpanOfChase, lightOf, lightShares } from './safety';
import { sheetOf } from './sheets';
import { writerTable } from './write';
import { nowhere, turnedPlay, turnedSheets } from './turns';

/** What can be heard in songs, by the hash of their music. */
export type Sounds = ReadonlyMap<string, Envelopes>;

/**
 * @param rig which rig to compile for; without, the one in use.
 * @param sounds what followers hear in songs. What they make of it is worked out here, once for each song and follower.
 */
export function compile(show: Show, rig: Id<'Rig'> = rigInUse(show).id, sounds: Sounds = new Map()): Program {
  const room = show.rigs.find((candidate) => candidate.id === rig) ?? rigInUse(show);
  const patched = patchedFixtures(room, show.profiles);
  const universes = [...new Set(patched.map(({ fixture }) => fixture.universe as number))].sort((a, b) => a - b);
  const rolesOf = new Map<string, Role['id'][]>();
  for (const { role, fixtures } of room.casting)
    for (const fixture of fixtures) rolesOf.set(fixture, [...(rolesOf.get(fixture) ?? []), role]);
  const heads = patched.flatMap((one) => headsOf(one, rolesOf.get(one.fixture.id) ?? []));
  const headsByFixture = new Map<string, number[]>();
  heads.forEach(({ fixture }, i) => headsByFixture.set(fixture.id, [...(headsByFixture.get(fixture.id) ?? []), i]));
  const notes = new Set<string>();
  for (const fixture of room.fixtures)
    if (!headsByFixture.has(fixture.id)) notes.add(`${fixture.name}: its type or mode is missing`);
  const fields = fieldsFor(heads);
  const most = show.safety.on ? show.safety.most : Infinity;
  const shares = lightShares(heads);
  const ears = earBook(most);
  const ground: Ground = {
    earFor: ears.earFor,
    most,
    shares,
    heads,
    fields,
    casts: new Map(
      room.casting.map(({ role, fixtures }) => [role, [...new Set(fixtures)].filter((id) => headsByFixture.has(id))]),
    ),
    headsOf: headsByFixture,
    ownFields: new Map(fields.flatMap((field, i) => (i >= FIELDS.length ? [[field.name, i] as const] : []))),
    aimed: aimSolver(show, (note) => notes.add(note)),
    slotOf: slotFinder(),
  };
  const plans = heads.map((head, i) => headPlan(head, i, universes, ground.ownFields, fields));
  const plays = playsOf(show, ground, plans);
  markCovers([...plays.values()].flatMap(sheetsIn), fields.length);
  for (const ear of ears.all) {
    if (ear.source !== 'song' || ear.drum) continue;
    for (const envelopes of sounds.values()) curveFor(envelopes, ear);
  }
  const fades = new Map<string, Look | Chase>([...show.looks, ...show.chases].map((one) => [one.id, one]));
  return {
    heads,
    plans,
    table: writerTable(plans),
    universes,
    plays,
    songs: new Map(show.songs.map((song) => [song.id as string, songProgram(song, plays, fades, sounds, plans)])),
    notes: [...notes],
    overlapping: overlapsIn(patched),
    fields,
    casts: castsOf(room, headsByFixture),
    handSheet: handSheets(ground, show.roles),
    standing: standingPlays(plays, plans),
    ears: ears.all,
    struck: kitBook(show.kits, ground),
    safety: { most, shares, slowest: Float64Array.from(plans, slowestStrobe) },
    scratch: scratchFor(heads.length),
  };
}

function headsOf({ fixture, profile, mode }: Patched, roles: readonly Role['id'][]): Head[] {
  const cells = 1 + mode.channels.reduce((most, channel) => Math.max(most, channel.cell ?? 0), 0);
  return Array.from({ length: cells }, (_, cell) => ({
    fixture,
    profile,
    mode,
    cell,
    cells,
    mount: fixture.mount,
    roles,
  }));
}

/** What has ways of its own to be spoken to. */
const SPOKEN_FOR = new Set(['Dimmer', 'Pan', 'Tilt', 'Reserved']);

/** The fields of every program, then one for each attribute that a lamp here has. */
function fieldsFor(heads: readonly Head[]): readonly Field[] {
  const bySnaps = heads.map(snapsOf);
  const known = FIELDS.map((kind, f) => fieldOf(kind, heads.length, (head) => bySnaps[head]![f]!));
  const attributes = new Set(heads.flatMap(({ mode }) => mode.channels.map((channel) => channel.attribute)));
  const own = [...attributes]
    .filter((attribute) => !SPOKEN_FOR.has(attribute))
    .map((name) => {
      const snap = attributeOf(name).snap ?? false;
      const jumps = (head: number) => {
        const channel = heads[head]!.mode.channels.find((one) => one.attribute === name);
        return channel ? snaps(channel) : snap;
      };
      return fieldOf({ name, home: [0], snap }, heads.length, jumps);
    });
  return [...known, ...own];
}

function castsOf(room: Rig, headsByFixture: ReadonlyMap<string, readonly number[]>): Program['casts'] {
  return new Map(
    room.casting.map(({ role, fixtures }) => [
      role,
      Int32Array.from(fixtures.flatMap((fixture) => headsByFixture.get(fixture) ?? [])),
    ]),
  );
}

function overlapsIn(patched: readonly Patched[]): ReadonlySet<string> {
  const owner = new Map<number, string>();
  const found = new Set<string>();
  for (const { fixture, mode } of patched) {
    for (const place of mode.channels.flatMap((channel) => channel.at)) {
      const at = fixture.universe * 1024 + fixture.address + place - 1;
      const other = owner.get(at);
      if (other !== undefined && other !== fixture.id) found.add(other).add(fixture.id);
      owner.set(at, fixture.id);
    }
  }
  return found;
}

/** In Hz; a lamp that strobes by its level, or not at all, has no slowest. */
function slowestStrobe({ writers }: HeadPlan): number {
  return writers.find(({ kind }) => kind === 'shutter')?.shutter[3] ?? 0;
}

const SILENT: Sheet = {
  name: '',
  strands: [],
  timed: false,
  covers: new Uint8Array(0),
  timing: 'beats',
  span: Infinity,
};

function playsOf(show: Show, ground: Ground, plans: readonly HeadPlan[]): ReadonlyMap<string, Play> {
  const looks = show.looks.map((look): Play => ({
    id: look.id,
    name: look.name,
    keep: look.keep,
    sheet: sheetOf(look.name, look.values, look, ground),
    chase: null,
  }));
  const known = new Map(looks.map((play) => [play.id, play]));
  for (const chase of show.chases)
    known.set(chase.id, {
      id: chase.id,
      name: chase.name,
      keep: chase.keep,
      sheet: SILENT,
      chase: chaseProgram(chase, show.looks, ground, plans),
    });
  return known;
}

function chaseProgram(chase: Chase, looks: readonly Look[], ground: Ground, plans: readonly HeadPlan[]): ChaseProgram {
  const usual = chase.steps.map((step, i) => {
    const look = looks.find((one) => one.id === step.look);
    // What the step says itself is heard over the look it stands on.
    const values = [...(look?.values ?? []), ...step.values];
    return sheetOf(`${chase.name}, step ${i + 1}`, values, { ...(chase.snaps ? { snaps: chase.snaps } : {}) }, ground);
  });
  const sheets = turnedSheets(usual, nowhere(plans.length), plans);
  const course = courseOf(chase);
  const lights = sheets.map((sheet, i) => lightOf(sheet, ground.shares) * chase.steps[i]!.level);
  return {
    course,
    span: flashSpanOfChase(course, lights, ground.most),
    pace: chase.pace,
    drum: chase.drum ?? 'kick',
    sheets,
    levels: Float64Array.from(chase.steps, (step) => step.level),
  };
}

/** What came on after something else is turned the nearest way from there; worked out once for each press. */
function standingPlays(plays: ReadonlyMap<string, Play>, plans: readonly HeadPlan[]): Program['standing'] {
  const known = new WeakMap<readonly string[], Play>();
  return ({ look, after }) => {
    const usual = plays.get(look);
    if (!usual || !after || after.length === 0) return usual;
    const before = known.get(after);
    if (before) return before;
    const turned = nowhere(plans.length);
    for (const one of after) {
      const play = plays.get(one);
      if (play) turnedPlay(play, turned, plans);
    }
    const play = turnedPlay(usual, turned, plans);
    known.set(after, play);
    return play;
  };
}

/** Values in hand are few and come again each frame; each is turned into numbers once. */
function handSheets(ground: Ground, roles: readonly Role[]): Program['handSheet'] {
  const known = new WeakMap<LookValue, Sheet>();
  return (value) => {
    const before = known.get(value);
    if (before) return before;
    const role = roles.find((one) => one.id === value.role);
    const sheet = sheetOf(role?.name ?? 'single lamps', [value], {}, ground);
    known.set(value, sheet);
    return sheet;
  };
}

function songProgram(
  song: Song,
  plays: ReadonlyMap<string, Play>,
  fades: ReadonlyMap<string, Look | Chase>,
  sounds: Sounds,
  plans: readonly HeadPlan[],
): SongProgram {
  return {
    envelopes: (song.music && sounds.get(song.music.hash)) ?? null,
    lanes: song.lanes.map((lane) => laneProgram(song, lane, plays, fades, plans)),
    duration: song.duration,
    anchorBeats: Float64Array.from(song.tempo.anchors, ({ beat }) => beat),
    anchorTimes: Float64Array.from(song.tempo.anchors, ({ time }) => time),
  };
}

/** Two clips closer than this, in beats, are joined. */
const JOIN = 1e-3;

function laneProgram(
  song: Song,
  lane: Lane,
  plays: ReadonlyMap<string, Play>,
  fades: ReadonlyMap<string, Look | Chase>,
  plans: readonly HeadPlan[],
): LaneProgram {
  const clips = [...lane.clips].sort((a, b) => a.from - b.from);
  const at = (beat: number) => timeAt(song.tempo, beats(beat));
  const lookOf = (clip: Clip) => (clip.look ? fades.get(clip.look) : undefined);
  const fadeIn = (clip: Clip) => clip.fadeIn ?? lookOf(clip)?.fadeIn ?? 0;
  const fadeOut = (clip: Clip) => Math.min(clip.fadeOut ?? lookOf(clip)?.fadeOut ?? 0, clip.to - clip.from);
  /** A look with a hold of its own goes out before its clip does. */
  const ends = (clip: Clip) => {
    const look = lookOf(clip);
    const hold = look && 'hold' in look ? look.hold : undefined;
    return hold === undefined ? clip.to : Math.min(clip.to, clip.from + fadeIn(clip) + hold + fadeOut(clip));
  };
  const joined = clips.map(
    (clip, i) => i + 1 < clips.length && clips[i + 1]!.from - clip.to < JOIN && ends(clip) === clip.to,
  );
  const slowest = (clip: Clip) =>
    (clip.look ? (plays.get(clip.look)?.sheet.strands ?? []) : []).reduce(
      (most, strand) => Math.max(most, strand.fadeIn),
      fadeIn(clip),
    );
  return {
    name: lane.name,
    blend: lane.blend,
    count: clips.length,
    from: Float64Array.from(clips, (clip) => at(clip.from)),
    to: Float64Array.from(clips, (clip) => at(ends(clip))),
    inUntil: Float64Array.from(clips, (clip) => at(clip.from + fadeIn(clip))),
    allIn: Float64Array.from(clips, (clip) => at(clip.from + slowest(clip))),
    outFrom: Float64Array.from(clips, (clip, i) => at(joined[i] ? clip.to : ends(clip) - fadeOut(clip))),
    pulse: Float64Array.from(clips, (clip) => 60 / tempoAt(song.tempo, seconds(at(clip.from)))),
    joined: Uint8Array.from(joined, Number),
    beats: Float64Array.from(clips, (clip) => clip.from),
    plays: playsAlong(clips, plays, plans),
  };
}

/** The plays of a lane, each turned the nearest way from the clips before it. */
function playsAlong(
  clips: readonly Clip[],
  plays: ReadonlyMap<string, Play>,
  plans: readonly HeadPlan[],
): readonly (Play | null)[] {
  const turned = nowhere(plans.length);
  return clips.map((clip) => {
    const play = clip.look ? plays.get(clip.look) : undefined;
    return play ? turnedPlay(play, turned, plans) : null;
  });
}

function scratchFor(heads: number): Scratch {
  return {
    masters: new Float64Array(heads),
    mixedAims: new Uint8Array(heads),
    laneMixedAims: new Uint8Array(heads),
    timing: { rise: 1, fall: 1, at: 0, begin: 0, from: 0, to: 1, end: Infinity, pulse: 0.5, leaving: false, scale: 1 },
    linear: new Float64Array(3),
    heights: new Float64Array(heads),
    mixes: new Float64Array(heads * MIX),
    mixed: new Float64Array(heads * 3).fill(-1),
    solve: new Float64Array(16),
    turned: new Float64Array(2),
    now: new Float64Array(4),
    lefts: new Float64Array(MOST_OVERLAPPING),
    position: { step: -1, before: -1, share: 1, ended: true },
    pace: 2,
    layer: ABOVE,
  };
}
