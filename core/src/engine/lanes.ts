// Songs as arrays: when each clip comes and goes, and what it plays.

import type { Chase, Kit, Look } from '../light';
import type { Envelopes } from '../music/envelopes';
import type { Show } from '../show';
import {
  playingLanes,
  spreadActions,
  type ActionLane,
  type Clip,
  type CurveLane,
  type HitLane,
  type Lane,
  type LookLane,
  type Song,
  type Spread,
} from '../song';
import { beatAt, tempoAt, timeAt } from '../time';
import { beats, seconds } from '../units';
import { curveLaneProgram, trackOf } from './curve-lane';
import type { Ground } from './ground';
import { hitLaneProgram } from './hit-lane';
import type { CurveLaneProgram, HitLaneProgram, LaneProgram, LookLaneProgram } from './lane-program';
import { gainsOf, UNPACED } from './pace';
import type { Program, SongProgram } from './program';
import { flags, floats } from './rows';
import type { TurnBook } from './turns';
import { variantOf } from './variants';
import type { Gains, Pacing, Play, Track } from './parts';

/** What can be heard in songs, by the hash of their music. */
export type Sounds = ReadonlyMap<string, Envelopes>;

/** Songs and lanes that were compiled before. */
export type SongBook = {
  readonly songs: WeakMap<Song, SongProgram>;
  readonly lanes: WeakMap<Lane, KeptLane>;
  readonly turns: TurnBook;
  /** What action lanes mean for the light, in a tempo. */
  readonly spreads: WeakMap<ActionLane, { readonly tempo: Song['tempo']; readonly spread: Spread }>;
  /** What curves of speed come to, in a tempo. */
  readonly gains: WeakMap<CurveLane, { readonly tempo: Song['tempo']; readonly made: Gains | null }>;
  /** A clip for each way in which a lane plays each look. */
  readonly used: WeakMap<LookLane, readonly Clip[]>;
};

/** A lane as it was compiled, and what beside itself it was compiled from. */
type KeptLane =
  | {
      readonly program: LookLaneProgram;
      readonly tempo: Song['tempo'];
      /** The looks and chases on it as they were: a clip for each. */
      readonly used: readonly Clip[];
      readonly plays: readonly (Play | undefined)[];
      readonly times: readonly string[];
    }
  | { readonly program: HitLaneProgram; readonly tempo: Song['tempo']; readonly kit: Kit | undefined }
  | { readonly program: CurveLaneProgram };

/** What lanes stand on. */
export type Laying = SongBook & {
  readonly ground: Ground;
  readonly casts: Program['casts'];
  readonly struck: Program['struck'];
  readonly plays: Program['plays'];
  /** What a lane plays where one of its clips lies. */
  readonly playFor: (lane: LookLane, clip: Clip) => Play | undefined;
};

/** A lane that is worked out as it is. */
type PlainLane = LookLane | HitLane | CurveLane;

/** The lanes of looks of a song, and what its action lanes start. */
export const lookLanesOf = (song: Song, book: SongBook): readonly LookLane[] =>
  song.lanes.flatMap((lane) =>
    lane.type === 'looks' ? lane : lane.type === 'actions' ? spreadOf(song, lane, book).looks : [],
  );

function spreadOf(song: Song, lane: ActionLane, { spreads }: SongBook): Spread {
  const before = spreads.get(lane);
  if (before?.tempo === song.tempo) return before.spread;
  const beatsOf = (length: number, at: number) => {
    const from = timeAt(song.tempo, beats(at));
    return beatAt(song.tempo, seconds(from + length)) - at;
  };
  const spread = spreadActions(lane, beatsOf);
  spreads.set(lane, { tempo: song.tempo, spread });
  return spread;
}

/** Lanes as they are laid, lowest first: what was started by actions in the place of their lane, masters on top. */
function laidLanes(song: Song, book: SongBook): readonly PlainLane[] {
  const playing = playingLanes(song.lanes);
  const over = playing.flatMap((lane) => (lane.type === 'actions' ? spreadOf(song, lane, book).curves : []));
  return [...playing.flatMap((lane) => (lane.type === 'actions' ? spreadOf(song, lane, book).looks : lane)), ...over];
}

/** A clip for each way in which a lane plays each look. */
export function usesOf(lane: LookLane, { used }: SongBook): readonly Clip[] {
  const known = used.get(lane);
  if (known) return known;
  const found = new Map<string, Clip>();
  for (const clip of lane.clips) {
    const key = `${clip.look} ${variantOf(lane, clip)?.key ?? ''}`;
    if (clip.look !== null && !found.has(key)) found.set(key, clip);
  }
  const uses = [...found.values()];
  used.set(lane, uses);
  return uses;
}

/** Works out anew only lanes that changed, or whose looks or kits did. */
export function* songsOf(show: Show, base: Laying, sounds: Sounds): Generator<void, Program['songs']> {
  const fades = new Map<string, Look | Chase>([...show.looks, ...show.chases].map((one) => [one.id, one]));
  const kits = new Map<string, Kit>(show.kits.map((kit) => [kit.id, kit]));
  const looksOn = (song: Song, lane: LookLane): KeptLane => {
    const known = base.lanes.get(lane);
    const before = known && 'used' in known ? known : undefined;
    const used = usesOf(lane, base);
    const plays = used.map((clip) => base.playFor(lane, clip));
    const times = used.map(({ look }, i) => timesIn(fades.get(look!), plays[i]));
    const now = { tempo: song.tempo, used, plays, times };
    // Where only the light of a look changed, its clips lie where they lay.
    const timed = before?.tempo === song.tempo && before.times.every((one, i) => one === now.times[i]);
    if (timed && before.plays.every((play, i) => play === now.plays[i])) return before;
    const clips = inOrder(lane);
    const played = clips.map((clip) => base.playFor(lane, clip));
    const laid = timed ? before.program : laneTimes(song, lane, clips, played, fades);
    return { ...now, program: { ...laid, plays: playsAlong(played, base.turns) } };
  };
  function* compiled(song: Song, lane: PlainLane): Generator<void, KeptLane> {
    const before = base.lanes.get(lane);
    if (lane.type === 'looks') return looksOn(song, lane);
    if (lane.type === 'curve') return before ?? { program: curveLaneProgram(lane, base.ground, base.casts) };
    const kit = kits.get(lane.kit);
    if (before && 'kit' in before && before.kit === kit && before.tempo === song.tempo) return before;
    const program = yield* hitLaneProgram(song, lane, kit, base.struck, base.ground.most);
    return { program, tempo: song.tempo, kit };
  }
  const songs = new Map<string, SongProgram>();
  for (const song of show.songs) {
    const envelopes = (song.music && sounds.get(song.music.hash)) ?? null;
    const lanes: LaneProgram[] = [];
    const playing = laidLanes(song, base);
    for (const lane of playing) {
      const known = base.lanes.get(lane);
      const kept = yield* compiled(song, lane);
      base.lanes.set(lane, kept);
      lanes.push(kept.program);
      if (kept !== known) yield;
    }
    const before = base.songs.get(song);
    const ending = endingOf(song, base.plays);
    const same =
      before?.envelopes === envelopes &&
      before.ending?.play === ending?.play &&
      before.lanes.every((lane, i) => lane === lanes[i]);
    const program: SongProgram = same
      ? before
      : {
          envelopes,
          lanes,
          faders: playing.map(fadersOf(song, base)),
          pacings: playing.map(yield* pacingsOf(song, base)),
          duration: song.duration,
          ending,
          anchorBeats: Float64Array.from(song.tempo.anchors, ({ beat }) => beat),
          anchorTimes: Float64Array.from(song.tempo.anchors, ({ time }) => time),
        };
    base.songs.set(song, program);
    songs.set(song.id, program);
  }
  return songs;
}

/** By lane, the curves that move its fader. They belong to the lane, so they go on where it is solo. */
function fadersOf(song: Song, book: SongBook): (lane: Lane) => readonly Track[] {
  const found = new Map<string, Track[]>();
  const owners = ownersIn(song, book);
  for (const one of song.lanes) {
    if (one.type !== 'curve' || one.muted || one.target.on !== 'lane') continue;
    found.set(one.target.lane, [...(found.get(one.target.lane) ?? []), trackOf(one.points)]);
  }
  return ({ id }) => found.get(owners.get(id) ?? id) ?? [];
}

/** By lane, the curves of its waves' speed and size. Of several speeds the topmost counts, as two cannot both be kept. */
function* pacingsOf(song: Song, book: SongBook): Generator<void, (lane: Lane) => Pacing> {
  const curves = playingLanes(song.lanes).flatMap((one) => (one.type === 'curve' && !one.muted ? one : []));
  const speeds = curves.filter(({ target }) => target.on === 'speed');
  const sizes = curves.filter(({ target }) => target.on === 'size');
  if (speeds.length === 0 && sizes.length === 0) return () => UNPACED;
  const owners = ownersIn(song, book);
  const gains = new Map<CurveLane, Gains | null>();
  for (const one of speeds) gains.set(one, yield* keptGains(one, song.tempo, book));
  return ({ id }) => {
    const lane = owners.get(id) ?? id;
    const mine = ({ target }: CurveLane) => 'lane' in target && (target.lane === null || target.lane === lane);
    const speed = speeds.findLast(mine);
    return {
      speed: (speed && gains.get(speed)) ?? null,
      sizes: sizes.filter(mine).map(({ points }) => trackOf(points)),
    };
  };
}

function* keptGains(lane: CurveLane, tempo: Song['tempo'], { gains }: SongBook): Generator<void, Gains | null> {
  const before = gains.get(lane);
  if (before?.tempo === tempo) return before.made;
  const made = yield* gainsOf(lane, tempo);
  gains.set(lane, { tempo, made });
  return made;
}

/** What an action lane starts has that lane's fader and pace. */
function ownersIn(song: Song, book: SongBook): ReadonlyMap<string, string> {
  const owners = new Map<string, string>();
  for (const one of song.lanes)
    if (one.type === 'actions') for (const { id } of spreadOf(song, one, book).looks) owners.set(id, one.id);
  return owners;
}

/** The next song begins with light of its own: until then the last moment stays. */
function endingOf({ ending }: Song, plays: Program['plays']): SongProgram['ending'] {
  if (!ending) return null;
  if (ending.then === 'hold' || ending.then === 'next') return { then: 'hold', fade: 0, play: null };
  const play = ending.then === 'look' ? (plays.get(ending.look) ?? null) : null;
  return { then: ending.then, fade: ending.fade, play };
}

/** All that a look or a chase says of when its clips come and go. */
const timesIn = (one: Look | Chase | undefined, play: Play | undefined): string =>
  one === undefined ? '' : [one.fadeIn, one.fadeOut, 'hold' in one ? one.hold : '', slowestOf(play)].join();

const slowestOf = (play: Play | undefined): number =>
  (play?.sheet.strands ?? []).reduce((most, strand) => Math.max(most, strand.fadeIn), 0);

const inOrder = ({ clips }: LookLane): readonly Clip[] => clips.toSorted((a, b) => a.from - b.from);

/** Two clips closer than this, in beats, are joined. */
const JOIN = 1e-3;

function laneTimes(
  song: Song,
  lane: LookLane,
  clips: readonly Clip[],
  played: readonly (Play | undefined)[],
  fades: ReadonlyMap<string, Look | Chase>,
): Omit<LookLaneProgram, 'plays'> {
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
  const along = (of: (clip: Clip, i: number) => number) => floats(clips.length, (i) => of(clips[i]!, i));
  const slowest = (clip: Clip, i: number) => Math.max(fadeIn(clip), slowestOf(played[i]));
  return {
    type: 'looks',
    name: lane.name,
    level: lane.level ?? 1,
    blend: lane.blend,
    count: clips.length,
    from: along((clip) => at(clip.from)),
    to: along((clip) => at(ends(clip))),
    inUntil: along((clip) => at(clip.from + fadeIn(clip))),
    allIn: along((clip, i) => at(clip.from + slowest(clip, i))),
    outFrom: along((clip, i) => at(joined[i] ? clip.to : ends(clip) - fadeOut(clip))),
    pulse: along((clip) => 60 / tempoAt(song.tempo, seconds(at(clip.from)))),
    joined: flags(clips.length, (i) => joined[i]!),
    beats: along((clip) => clip.from),
  };
}

/** The plays of a lane, each turned the nearest way from the clips before it; null is dark. */
function playsAlong(played: readonly (Play | undefined)[], turns: TurnBook): readonly (Play | null)[] {
  let place = turns.begin;
  return played.map((play) => {
    if (!play) return null;
    const step = turns.after(place, play);
    place = step.next;
    return step.play;
  });
}
