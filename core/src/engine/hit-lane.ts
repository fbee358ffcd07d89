// Hits on a lane: the notes of a song as strokes, and what of them is seen at a moment.

import { CHOKE_SECONDS, heightOfHit, hitsOf, type Kit } from '../light';
import { roomFor, type Sounding } from '../live';
import { pointBefore, type HitLane, type Song } from '../song';
import { timeAt } from '../time';
import { beats, seconds } from '../units';
import type { HitLaneProgram } from './lane-program';
import { layHit, type Witness } from './layers';
import type { Program } from './program';
import type { Struck } from './parts';

type Stroke = {
  readonly struck: Struck;
  readonly note: number;
  readonly at: number;
  /** Seconds from the stroke. */
  lifted: number;
  choked: number;
};

/** So many notes are worked out between two breaths. */
const NOTES_AT_ONCE = 2000;

/**
 * @param kit what answers to the notes; undefined where it is gone. @param most flashes that may be in a second: strokes
 * that are flashes and have no room are left out, as those of pads are.
 */
export function* hitLaneProgram(
  song: Song,
  lane: HitLane,
  kit: Kit | undefined,
  struckBy: Program['struck'],
  most: number,
): Generator<void, HitLaneProgram> {
  const strokes: Stroke[] = [];
  const last = new Map<string, Stroke>();
  const orders = new Map<string, number>();
  const chokes = new Map<number, Stroke[]>();
  const hasRoom = roomForFlashes(most);
  const answers = new Map<number, ReturnType<typeof hitsOf>>();
  let worked = 0;
  for (const { at: beat, length, note, velocity } of kit ? lane.notes : []) {
    if (++worked % NOTES_AT_ONCE === 0) yield;
    const at = timeAt(song.tempo, beat);
    const lifted = timeAt(song.tempo, beats(beat + length)) - at;
    const pulse = timeAt(song.tempo, beats(beat + 1)) - at;
    const hits = answers.get(note) ?? hitsOf(kit!, note);
    answers.set(note, hits);
    for (const hit of hits) {
      const order = orders.get(hit.id) ?? 0;
      orders.set(hit.id, order + 1);
      const sounding: Sounding = {
        kit: lane.kit,
        role: lane.role,
        hit: hit.id,
        note,
        velocity,
        at: seconds(at),
        pulse,
        by: '',
        order,
      };
      const struck = struckBy(sounding);
      if (!struck || (struck.flashes && !hasRoom(at))) continue;
      const key = `${hit.id}/${note}`;
      const before = last.get(key);
      if (before) before.lifted = Math.min(before.lifted, at - before.at);
      const cutOff = hit.choke === undefined ? [] : (chokes.get(hit.choke) ?? []);
      for (const one of cutOff) one.choked = Math.min(one.choked, at - one.at);
      const stroke: Stroke = { struck, note, at, lifted, choked: Infinity };
      if (hit.choke !== undefined) chokes.set(hit.choke, [stroke]);
      last.set(key, stroke);
      strokes.push(stroke);
    }
  }
  return asArrays(lane, strokes);
}

/** Asked stroke after stroke, whether a flash has room: the rule that pads go by. */
function roomForFlashes(most: number): (at: number) => boolean {
  let flashes: readonly number[] = [];
  return (at) => {
    const { recent, chord, room } = roomFor(flashes, at, most);
    flashes = room && !chord ? [...recent, at] : recent;
    return room;
  };
}

function asArrays({ name, level }: HitLane, strokes: readonly Stroke[]): HitLaneProgram {
  const ends = Float64Array.from(strokes, endOf);
  let latest = -Infinity;
  return {
    type: 'hits',
    name,
    level: level ?? 1,
    count: strokes.length,
    at: Float64Array.from(strokes, ({ at }) => at),
    lifted: Float64Array.from(strokes, ({ lifted }) => lifted),
    choked: Float64Array.from(strokes, ({ choked }) => choked),
    ends,
    reach: ends.map((end) => (latest = Math.max(latest, end))),
    struck: strokes.map(({ struck }) => struck),
  };
}

function endOf({ struck: { strike }, at, lifted, choked }: Stroke): number {
  const { attack, hold, release, held } = strike;
  const goes = (held ? Math.max(lifted, hold) : attack + hold) + release;
  return at + Math.min(goes, choked + CHOKE_SECONDS);
}

/** Lays all strokes that are still seen. Allocates nothing. */
export function layHitLane(
  program: Program,
  lane: HitLaneProgram,
  time: number,
  level: number,
  witness?: Witness,
): void {
  const last = pointBefore(lane.at, lane.count, time);
  if (last < 0) return;
  for (let k = pointBefore(lane.reach, lane.count, time) + 1; k <= last; k++) {
    if (lane.ends[k]! <= time) continue;
    const struck = lane.struck[k]!;
    const height = heightOfHit(struck.strike, time - lane.at[k]!, lane.lifted[k]!, lane.choked[k]!);
    if (height <= 0) continue;
    if (witness) witness.source('lane', struck.hit.name, lane.name);
    layHit(program, struck, height * struck.strength * level, witness);
  }
}
