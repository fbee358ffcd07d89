// What is on, as values of a look: looks and chases that stand, what the song's lanes show, and what is by hand.

import { maker, variantOf } from '../engine/variants';
import { changedValues, courseOf, Look, positionAt, saidTo, type Chase, type LookValue, type Position } from '../light';
import {
  chasePlace,
  freeBeat,
  heardPlace,
  isLit,
  isOn,
  isWaiting,
  makesRoom,
  ownBeat,
  songTimeAt,
  type LiveState,
  type Moment,
} from '../live';
import type { Casting } from '../rig';
import { nextNumber, rigInUse, type Show } from '../show';
import { clipAt, playingLanes, type LookLane, type Song } from '../song';
import { beatAt, timeAt } from '../time';
import { clamp, type Beats, type Id, type Seconds } from '../units';

type Values = readonly LookValue[];
type Standing = LiveState['standing'][number];

/** Ways of one clip to play looks and chases: as they are stored, where it has none of its own. */
const AS_STORED = { look: (look: Look) => look, stepLook: (look: Look) => look, chase: (chase: Chase) => chase };

const dimmed = (values: Values, level: number): Values =>
  level === 1 ? values : changedValues(values, { speed: 1, level, turn: 0 });

/** Of a chase the step that is there, or is coming. */
function stepValues({ looks }: Show, chase: Chase, { step, ended }: Position, way: typeof AS_STORED): Values {
  const one = ended ? undefined : chase.steps[step];
  if (!one) return [];
  const look = looks.find(({ id }) => id === one.look);
  return dimmed(look ? way.stepLook(look).values : one.values, clamp(one.level, 0, 1));
}

const nowhere = (): Position => ({ step: -1, before: -1, share: 1, ended: true });

/** @param beat of what sounds, else of the free clock. */
function standingValues({ show, live, now }: Moment, one: Standing, beat: Beats): Values {
  const look = show.looks.find(({ id }) => id === one.look);
  const chase = show.chases.find(({ id }) => id === one.look);
  if (!chase) return look?.values ?? [];
  const at = nowhere();
  if (chase.pace === 'sound') heardPlace(live, one, courseOf(chase), chase.drum ?? 'kick', show.safety.on, now, at);
  else chasePlace(one, courseOf(chase), chase.pace, ownBeat(live, one, beat, now), now, 1, at);
  return stepValues(show, chase, at, AS_STORED);
}

/** What a lane of a song shows at a moment of its music. */
function laneValues(show: Show, song: Song, lane: LookLane, time: Seconds): Values {
  const beat = beatAt(song.tempo, time);
  const clip = clipAt(lane.clips, beat);
  if (!clip) return [];
  const variant = variantOf(lane, clip);
  const way = variant ? maker(variant) : AS_STORED;
  const level = lane.level ?? 1;
  const look = show.looks.find(({ id }) => id === clip.look);
  if (look) return dimmed(way.look(look).values, level);
  const stored = show.chases.find(({ id }) => id === clip.look);
  if (!stored) return [];
  const chase = way.chase(stored);
  const at = nowhere();
  positionAt(courseOf(chase), chase.pace === 'seconds' ? time - timeAt(song.tempo, clip.from) : beat - clip.from, at);
  return dimmed(stepValues(show, chase, at, way), level);
}

/**
 * What is on, the later over the earlier as far as they set the same lamps. Of a chase it is the step that is there;
 * hits, curves and strokes, which pass, are not among it.
 */
function valuesNow(moment: Moment, casting: readonly Casting[]): Values {
  const { show, live, now } = moment;
  const lit = live.song && isLit(live.song, now) ? live.song : undefined;
  const time = lit && songTimeAt(lit, now);
  const song = show.songs.find(({ id, duration }) => id === lit?.id && time !== undefined && time < duration);
  const sounds = song !== undefined && lit?.playing === true;
  const beat = sounds ? beatAt(song.tempo, time!) : freeBeat(live, now);
  // A song that plays takes the stage: only what is to be kept stays on beside it.
  const keeps = (id: string) => [...show.looks, ...show.chases].find((one) => one.id === id)?.keep === true;
  const isLitNow = (one: Standing) => (isOn(one, now) && !isWaiting(one, now)) || makesRoom(one, now);
  const standing = live.standing.filter((one) => isLitNow(one) && (!sounds || keeps(one.look)));
  const lanes = playingLanes(song?.lanes ?? []).filter((lane): lane is LookLane => lane.type === 'looks');
  const all = [
    ...standing.flatMap((one) => standingValues(moment, one, beat)),
    ...lanes.flatMap((lane) => laneValues(show, song!, lane, time!)),
    ...live.hands.filter(({ on }) => on).map(({ value }) => value),
  ];
  return all.reduce<Values>((values, { role, pick, lamps, more, ...said }) => {
    const who = { ...(role === undefined ? { lamps } : { role }), ...(pick ? { pick } : {}) };
    return saidTo(values, who, { ...said, ...(more ? { more } : {}) }, casting);
  }, []);
}

/** What is on as a look, named by its number; undefined where nothing is. */
export function lookOfNow(moment: Moment, id: Id<'Look'>): Look | undefined {
  const values = valuesNow(moment, rigInUse(moment.show).casting);
  if (values.length === 0) return undefined;
  const number = nextNumber(moment.show);
  return Look.parse({ id, number, name: `Look ${number}`, fadeIn: 1, fadeOut: 1, values });
}
