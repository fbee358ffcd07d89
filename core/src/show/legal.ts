// Whether an edited show is still one: only what changed is looked at.

import type { z } from 'zod';
import { failed, ok, type Problem, type Result } from '../problem';
import { tooMuchIn } from '../rig';
import {
  Clip,
  Lane,
  LaneAction,
  MOST_ACTIONS,
  MOST_CLIPS,
  MOST_LANES,
  MOST_NOTES,
  MOST_POINTS,
  Note,
  Point,
} from '../song/lane-schema';
import { Song } from '../song/schema';
import { MOST, Show } from './schema';

/** Records that were found to be as the schema wants them. The same object need not be looked at twice. */
export type Known = WeakSet<object>;

const LISTS = [
  'profiles',
  'rigs',
  'roles',
  'aims',
  'looks',
  'chases',
  'kits',
  'banks',
  'songs',
  'sets',
  'pedals',
  'controls',
  'events',
] as const;

const Head = Show.omit({
  profiles: true,
  rigs: true,
  roles: true,
  aims: true,
  looks: true,
  chases: true,
  kits: true,
  banks: true,
  songs: true,
  sets: true,
  pedals: true,
  controls: true,
  events: true,
}).strip();
const SongHead = Song.omit({ lanes: true }).strip();

/**
 * A show that an edit led to, if Hovlix can keep it. What the edit left alone is known by its identity, so this costs
 * what the change costs.
 * @param known what was checked before; what is found good is added.
 */
export function legal(show: Show, known: Known): Result<Show> {
  const top = wrong(Head, show, 'the show');
  if (top) return failed(top);
  const sameRigs = known.has(show.rigs) && known.has(show.profiles);
  for (const name of LISTS) {
    const list: readonly { readonly id: string }[] = show[name];
    if (known.has(list)) continue;
    if (list.length > MOST[name] || (name === 'rigs' && list.length === 0))
      return failed(problem(name, `there may be ${name === 'rigs' ? '1' : '0'} to ${MOST[name]}`));
    for (const record of list) {
      if (known.has(record)) continue;
      const path = `${name} ${record.id}`;
      const bad =
        name === 'songs' ? songWrong(record as Song, known, path) : wrong(Show.shape[name].element, record, path);
      if (bad) return failed(bad);
      known.add(record);
    }
    known.add(list);
  }
  for (const rig of sameRigs ? [] : show.rigs) {
    const detail = tooMuchIn(rig, show.profiles);
    if (detail) return failed(problem(`rigs ${rig.id}`, detail));
  }
  return ok(show);
}

/** What lies on lanes of each type, and how much of it may. Thousands may: those that an edit left alone are not gone through. */
const LYING = {
  looks: ['clips', Clip, MOST_CLIPS],
  hits: ['notes', Note, MOST_NOTES],
  curve: ['points', Point, MOST_POINTS],
  actions: ['actions', LaneAction, MOST_ACTIONS],
} as const;

function songWrong(song: Song, known: Known, path: string): Problem | undefined {
  const head = wrong(SongHead, song, path);
  if (head) return head;
  if (song.lanes.length === 0 || song.lanes.length > MOST_LANES)
    return problem(path, `there may be 1 to ${MOST_LANES} lanes`);
  for (const lane of song.lanes) {
    if (known.has(lane)) continue;
    const bad = laneWrong(lane, known, `${path}, lane ${lane.id}`);
    if (bad) return bad;
    known.add(lane);
  }
  return undefined;
}

function laneWrong(lane: Lane, known: Known, path: string): Problem | undefined {
  const [name, Element, most] = LYING[lane.type];
  const list = (lane as unknown as Readonly<Record<string, unknown>>)[name];
  if (!Array.isArray(list) || list.length > most) return wrong(Lane, lane, path);
  const head = wrong(Lane, { ...lane, [name]: [] }, path);
  if (head) return head;
  for (const one of list as readonly object[]) {
    if (known.has(one)) continue;
    const bad = wrong(Element, one, `${path}.${name}`);
    if (bad) return bad;
    known.add(one);
  }
  return undefined;
}

function wrong(schema: z.ZodType, value: unknown, path: string): Problem | undefined {
  const parsed = schema.safeParse(value);
  if (parsed.success) return undefined;
  const issue = parsed.error.issues[0]!;
  return problem([path, ...issue.path].join('.'), issue.message);
}

const problem = (path: string, detail: string): Problem => ({ code: 'bad-value', name: 'the edit', path, detail });
