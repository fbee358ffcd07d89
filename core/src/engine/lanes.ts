// Songs as arrays: when each clip comes and goes, and what it plays.

import type { Chase, Look } from '../light';
import type { Envelopes } from '../music/envelopes';
import type { Show } from '../show';
import type { Clip, Lane, Song } from '../song';
import { tempoAt, timeAt } from '../time';
import { beats, seconds } from '../units';
import type { LaneProgram, Play, Program, SongProgram } from './program';
import type { TurnBook } from './turns';

/** What can be heard in songs, by the hash of their music. */
export type Sounds = ReadonlyMap<string, Envelopes>;

/** Songs and lanes that were compiled before. */
export type SongBook = {
  readonly songs: WeakMap<Song, SongProgram>;
  readonly lanes: WeakMap<Lane, KeptLane>;
  readonly turns: TurnBook;
};

/** A lane as it was compiled, and what beside itself it was compiled from: the looks and chases on it as they were. */
type KeptLane = {
  readonly program: LaneProgram;
  readonly tempo: Song['tempo'];
  readonly used: readonly string[];
  readonly plays: readonly (Play | undefined)[];
  readonly times: readonly string[];
};

/** Works out anew only lanes that changed, or whose looks did. */
export function* songsOf(
  show: Show,
  base: SongBook,
  plays: ReadonlyMap<string, Play>,
  sounds: Sounds,
): Generator<void, Program['songs']> {
  const fades = new Map<string, Look | Chase>([...show.looks, ...show.chases].map((one) => [one.id, one]));
  const timesOf = new Map([...fades].map(([id, one]) => [id, timesIn(one, plays.get(id))]));
  const laneOf = (song: Song, lane: Lane): KeptLane => {
    const before = base.lanes.get(lane);
    const used = before?.used ?? playsUsed(lane);
    const now = { tempo: song.tempo, used, plays: used.map((id) => plays.get(id)), times: used.map((id) => timesOf.get(id) ?? '') }; // prettier-ignore
    // Where only the light of a look changed, its clips lie where they lay.
    const timed = before?.tempo === song.tempo && before.times.every((times, i) => times === now.times[i]);
    if (timed && before.plays.every((play, i) => play === now.plays[i])) return before;
    const clips = inOrder(lane);
    const times = timed ? before.program : laneTimes(song, lane, clips, plays, fades);
    const kept = { ...now, program: { ...times, plays: playsAlong(clips, plays, base.turns) } };
    base.lanes.set(lane, kept);
    return kept;
  };
  const songs = new Map<string, SongProgram>();
  for (const song of show.songs) {
    const envelopes = (song.music && sounds.get(song.music.hash)) ?? null;
    const lanes: LaneProgram[] = [];
    for (const lane of song.lanes) {
      const known = base.lanes.get(lane);
      const kept = laneOf(song, lane);
      lanes.push(kept.program);
      if (kept !== known) yield;
    }
    const before = base.songs.get(song);
    const same = before?.envelopes === envelopes && before.lanes.every((lane, i) => lane === lanes[i]);
    const program: SongProgram = same
      ? before
      : {
          envelopes,
          lanes,
          duration: song.duration,
          anchorBeats: Float64Array.from(song.tempo.anchors, ({ beat }) => beat),
          anchorTimes: Float64Array.from(song.tempo.anchors, ({ time }) => time),
        };
    base.songs.set(song, program);
    songs.set(song.id, program);
  }
  return songs;
}

const playsUsed = ({ clips }: Lane): readonly string[] => [...new Set(clips.flatMap(({ look }) => look ?? []))];

/** All that a look or a chase says of when its clips come and go. */
const timesIn = (one: Look | Chase, play: Play | undefined): string =>
  [one.fadeIn, one.fadeOut, 'hold' in one ? one.hold : '', slowestOf(play)].join();

const slowestOf = (play: Play | undefined): number =>
  (play?.sheet.strands ?? []).reduce((most, strand) => Math.max(most, strand.fadeIn), 0);

const inOrder = ({ clips }: Lane): readonly Clip[] => clips.toSorted((a, b) => a.from - b.from);

/** Two clips closer than this, in beats, are joined. */
const JOIN = 1e-3;

function laneTimes(
  song: Song,
  lane: Lane,
  clips: readonly Clip[],
  plays: ReadonlyMap<string, Play>,
  fades: ReadonlyMap<string, Look | Chase>,
): Omit<LaneProgram, 'plays'> {
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
  const slowest = (clip: Clip) => Math.max(fadeIn(clip), slowestOf(clip.look ? plays.get(clip.look) : undefined));
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
  };
}

/** The plays of a lane, each turned the nearest way from the clips before it. */
function playsAlong(
  clips: readonly Clip[],
  plays: ReadonlyMap<string, Play>,
  turns: TurnBook,
): readonly (Play | null)[] {
  let place = turns.begin;
  return clips.map((clip) => {
    const play = clip.look ? plays.get(clip.look) : undefined;
    if (!play) return null;
    const step = turns.after(place, play);
    place = step.next;
    return step.play;
  });
}
