// Where a chase is after so many beats, seconds or presses.

import { shuffled } from './places';
import type { Chase, Look, LookValue } from './schema';

/** A step is at least this long, in beats or seconds, so that one of no length does not stop the others. */
export const SHORTEST_STEP = 1 / 64;

/** How many different orders a random chase deals before the first comes again. */
const DEALS = 32;

/** A chase as flat arrays. One pass visits `length` steps; `order` holds `passes` passes of them, one after the other. */
export type Course = {
  readonly length: number;
  readonly passes: number;
  readonly order: Int32Array;
  /** By place in `order`: when the step begins and is fully in, counted from the start of its pass. */
  readonly starts: Float64Array;
  readonly fades: Float64Array;
  /** The length of a pass. */
  readonly total: number;
  /** How many passes there are to be; Infinity for ever. */
  readonly loops: number;
};

/** Where a course is: the step that is coming or there, the one before it (-1: none), and how far the fade is, 0…1. */
export type Position = { step: number; before: number; share: number; ended: boolean };

export function courseOf({ steps, direction, loops, seed }: Chase): Course {
  const pass = passOf(steps.length, direction);
  const passes = direction === 'random' && steps.length > 1 ? DEALS : 1;
  const order: number[] = [];
  const starts: number[] = [];
  const fades: number[] = [];
  let total = 0;
  for (let n = 0; n < passes; n++) {
    const deal = direction === 'random' ? dealt(steps.length, seed + n, order.at(-1)) : pass;
    let at = 0;
    for (const step of deal) {
      const { fade, hold } = steps[step]!;
      order.push(step);
      starts.push(at);
      fades.push(fade);
      at += Math.max(SHORTEST_STEP, fade + hold);
    }
    total = at;
  }
  return {
    length: order.length / passes,
    passes,
    order: Int32Array.from(order),
    starts: Float64Array.from(starts),
    fades: Float64Array.from(fades),
    total,
    loops: loops === 0 ? Infinity : loops,
  };
}

function passOf(count: number, direction: Chase['direction']): readonly number[] {
  const forward = Array.from({ length: count }, (_, i) => i);
  if (direction === 'back') return forward.reverse();
  // The ends are not played twice in a row.
  return direction === 'bounce' && count > 2 ? [...forward, ...forward.slice(1, -1).reverse()] : forward;
}

/** One order by chance that does not begin with the step the one before ended on. */
function dealt(count: number, seed: number, last: number | undefined): readonly number[] {
  const deal = [...shuffled(count, seed)];
  if (count > 1 && deal[0] === last) deal.push(deal.shift()!);
  return deal;
}

/**
 * Where a course is after `gone` beats or seconds (below 0: at its start), written to `out`. Allocates nothing.
 * A course without steps has ended before it began.
 */
export function positionAt(course: Course, gone: number, out: Position): void {
  if (course.length === 0) return put(out, -1, -1, 1, true);
  const passed = gone <= 0 ? 0 : Math.floor(gone / course.total);
  if (passed >= course.loops) {
    const last = (Math.min(course.loops, 1e9) - 1) % course.passes;
    return put(out, course.order[last * course.length + course.length - 1]!, -1, 1, true);
  }
  const base = (passed % course.passes) * course.length;
  const within = gone <= 0 ? 0 : gone - passed * course.total;
  let low = 0;
  let high = course.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (course.starts[base + middle]! <= within + 1e-9) low = middle;
    else high = middle - 1;
  }
  fadeAt(course, passed * course.length + low, within - course.starts[base + low]!, out);
}

/** Where a course is after so many presses (0: its first step), the last of them `since` beats or seconds ago. */
export function pressedTo(course: Course, presses: number, since: number, out: Position): void {
  if (course.length === 0) return put(out, -1, -1, 1, true);
  const all = course.length * course.passes;
  const held = course.loops === Infinity ? presses : Math.min(presses, course.loops * course.length - 1);
  fadeAt(course, held < 0 ? (held % all) + all : held, since, out);
}

function fadeAt(course: Course, visited: number, since: number, out: Position): void {
  const all = course.order.length;
  const at = visited % all;
  const fade = course.fades[at]!;
  const share = fade > 0 && since < fade ? Math.max(0, since / fade) : 1;
  const before = visited > 0 ? course.order[(visited - 1) % all]! : -1;
  put(out, course.order[at]!, share < 1 ? before : -1, before < 0 ? 1 : share, false);
}

function put(out: Position, step: number, before: number, share: number, ended: boolean): void {
  out.step = step;
  out.before = before;
  out.share = share;
  out.ended = ended;
}

/** How long a chase goes on, in its beats or seconds; Infinity where it repeats for ever or waits for presses or strokes. */
export function lengthOf(chase: Chase): number {
  if (chase.pace === 'hand' || chase.pace === 'sound' || chase.loops === 0) return Infinity;
  return courseOf(chase).total * chase.loops;
}

/** The chase with all its fades and holds scaled so that a pass takes `total` beats or seconds. */
export function scaledTo(chase: Chase, total: number): Chase {
  const now = courseOf(chase).total;
  if (!(now > 0) || !(total > 0)) return chase;
  const held = (time: number) => Math.min(4096, Math.round(((time * total) / now) * 1e6) / 1e6);
  return { ...chase, steps: chase.steps.map((step) => ({ ...step, fade: held(step.fade), hold: held(step.hold) })) };
}

/** Whether a look or a chase goes by what can be heard. */
export const followsSound = (play: Look | Chase): boolean =>
  'pace' in play
    ? play.pace === 'sound' || play.steps.some(({ values }) => values.some(follows))
    : play.values.some(follows);

const follows = ({ followers }: LookValue): boolean => (followers?.length ?? 0) > 0;
