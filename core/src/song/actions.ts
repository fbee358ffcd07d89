// What an action lane means for the light: looks that stand from one moment to another, and masters that move.

import { beats, id, type Id } from '../units';
import { curveAt } from './curve';
import type { ActionLane, Clip, CurveLane, Deed, Lane, LookLane, Point } from './lane-schema';

/** As far behind any song as a place may be: what is never stopped ends with the song. */
const NEVER = beats(1e6);

export type Spread = {
  /** A lane for each look and role that was started, in order of their first starts. */
  readonly looks: readonly LookLane[];
  /** Masters and blackout, which lie over all other lanes. Fades are in beats, see `spreadActions`. */
  readonly curves: readonly CurveLane[];
};

/** @param beatsOf how many beats a fade of so many seconds lasts where it begins. */
export function spreadActions(lane: ActionLane, beatsOf: (seconds: number, at: number) => number): Spread {
  return { looks: standing(lane), curves: masters(lane, beatsOf) };
}

/** So many looks, in so many roles, one lane of actions can have started: each is laid in every frame. */
export const MOST_STARTED = 64;

type Started = {
  readonly look: Id<'Look'>;
  readonly role: Id<'Role'> | undefined;
  readonly clips: Clip[];
  open: number | null;
};

function standing(lane: ActionLane): readonly LookLane[] {
  const started = new Map<string, Started>();
  const close = (one: Started, to: number) => {
    const from = one.open;
    one.open = null;
    if (from === null || to - from < 1e-6) return;
    one.clips.push({ id: id<'Clip'>(`${one.clips.length}`), look: one.look, from: beats(from), to: beats(to) });
  };
  for (const { at, does } of lane.actions) {
    if (does.act === 'start') {
      const key = `${does.look} ${does.role ?? ''}`;
      if (started.size >= MOST_STARTED && !started.has(key)) continue;
      const one = started.get(key) ?? { look: does.look, role: does.role, clips: [], open: null };
      started.set(key, one);
      // What is on stays on.
      one.open ??= at;
    } else if (does.act === 'stop')
      for (const one of started.values()) if (does.look === null || does.look === one.look) close(one, at);
  }
  return [...started].map(([key, one]) => {
    close(one, NEVER);
    const { role, clips } = one;
    return {
      id: id<'Lane'>(`${lane.id}/${key}`),
      name: lane.name,
      type: 'looks',
      blend: 'highest',
      ...(lane.level === undefined ? {} : { level: lane.level }),
      ...(role === undefined ? {} : { only: { roles: [role] } }),
      clips,
    };
  });
}

/** Curves that hold what they were last set to. */
function masters(lane: ActionLane, beatsOf: (seconds: number, at: number) => number): readonly CurveLane[] {
  const set = new Map<string, { readonly target: CurveLane['target']; readonly points: Point[] }>();
  const move = (key: string, target: CurveLane['target'], at: number, value: number, fade: number) => {
    const one = set.get(key) ?? { target, points: [] };
    set.set(key, one);
    const before = curveAt(one.points, at) ?? 1;
    while (one.points.length > 0 && one.points.at(-1)!.at >= at) one.points.pop();
    const length = fade > 0 ? beatsOf(fade, at) : 0;
    const point = (where: number, height: number, shape: Point['shape']): void =>
      void one.points.push({ id: id<'Point'>(`${one.points.length}`), at: beats(where), value: height, shape });
    if (length > 0) point(at, before, 'straight');
    point(at + length, value, 'hold');
  };
  for (const { at, does } of lane.actions) {
    if (does.act === 'blackout') move('blackout', { on: 'all' }, at, does.on ? 0 : 1, does.fade);
    if (does.act === 'master' && does.role === null) move('all', { on: 'all' }, at, does.level, does.fade);
    if (does.act === 'master' && does.role !== null)
      move(does.role, { on: 'role', role: does.role, attribute: 'level' }, at, does.level, does.fade);
  }
  return [...set].map(([key, { target, points }]) => ({
    id: id<'Lane'>(`${lane.id}/master ${key}`),
    name: lane.name,
    type: 'curve',
    blend: 'scale',
    target,
    points,
  }));
}

/** What is done in `(from, to]` of a song's action lanes beside light: songs that begin, messages to other gear. */
export function deedsBetween(lanes: readonly Lane[], from: number, to: number): readonly Deed[] {
  return lanes
    .flatMap((lane) => (lane.type === 'actions' ? lane.actions : []))
    .filter(({ at, does }) => at > from && at <= to && (does.act === 'song' || does.act === 'midi'))
    .sort((a, b) => a.at - b.at)
    .map(({ does }) => does);
}
