// What looks stand on when they are turned into numbers: the heads of a rig, its casts, and where its heads can point.

import {
  linearFromOkLab,
  nearestSlot,
  okLabFromChromaticity,
  chromaticityFromLinear,
  type Chromaticity,
} from '../colour';
import type { AimValue, Follower, Setting } from '../light';
import {
  beamDirection,
  dmxOfPhysical,
  mountRotation,
  panTiltTo,
  type Channel,
  type Point,
  type Profile,
  type Range,
} from '../rig';
import type { Show } from '../show';
import type { FollowerInput } from './follower-inputs';
import type { Field } from './fields';
import type { Head } from './parts';

export type Ground = {
  readonly heads: readonly Head[];
  readonly fields: readonly Field[];
  /** Fixtures of each part in cast order, and heads of each fixture. */
  readonly casts: ReadonlyMap<string, readonly string[]>;
  readonly headsOf: ReadonlyMap<string, readonly number[]>;
  /** Field of each attribute that looks may name. */
  readonly ownFields: ReadonlyMap<string, number>;
  readonly aimed: (value: AimValue, head: Head) => Aimed | undefined;
  readonly slotOf: (profile: Profile, lab: readonly number[]) => number;
  /** Flashes a second that may be (Infinity: any number), and each head's share of the rig's light. */
  readonly most: number;
  readonly shares: Float64Array;
  /** By field, 1 where its change is a change of light: see `shinesIn`. */
  readonly shines: Uint8Array;
  /** What a follower listens with: the same input for the same way of listening. */
  readonly inputFor: (follower: Follower) => FollowerInput;
};

/**
 * Pan and tilt in degrees, and the stage point they reach; `free` is 1 where that place is what is meant and is reached,
 * so that any way of turning there will do.
 */
export type Aimed = readonly [pan: number, tilt: number, x: number, y: number, z: number, free: 0 | 1];

/** How far away a head that is given in degrees is taken to look, in metres: about the depth of a small stage. */
const LOOKS_AT = 5;

/** Solves each named aim once a head, however many looks point there. */
export function aimSolver(show: Show, note: (text: string) => void): Ground['aimed'] {
  const points = new Map(show.aims.map((point) => [point.id as string, point]));
  const solved = new Map<string, Map<Head, Aimed>>();
  return (value, head) => {
    if (head.profile.panRange === 0) return undefined;
    if (!('aim' in value)) return pointOf(head, value.pan, value.tilt);
    const point = points.get(value.aim);
    if (!point) return undefined;
    const known = solved.get(value.aim) ?? new Map<Head, Aimed>();
    solved.set(value.aim, known);
    const before = known.get(head);
    if (before) return before;
    const turned = aimedAt(head, point);
    if (!turned.reached) note(`${head.fixture.name} cannot reach ${point.name}`);
    known.set(head, turned.aimed);
    return turned.aimed;
  };
}

function aimedAt(head: Head, point: Point): { readonly aimed: Aimed; readonly reached: boolean } {
  const { pan, tilt, reached } = panTiltTo(head.mount, { ...head.profile, limits: head.fixture.limits }, point);
  return { aimed: [pan, tilt, point.x, point.y, point.z, reached ? 1 : 0], reached };
}

function pointOf(head: Head, pan: number, tilt: number): Aimed {
  const along = new Float64Array(3);
  beamDirection(mountRotation(head.mount), pan, tilt, along);
  const { x, y, z } = head.mount;
  return [pan, tilt, x + along[0]! * LOOKS_AT, y + along[1]! * LOOKS_AT, z + along[2]! * LOOKS_AT, 0];
}

/** Between two aims: by way of the stage points. */
export function aimBetween(head: Head, from: Aimed, to: Aimed, share: number): Aimed {
  if (share <= 0) return from;
  if (share >= 1) return to;
  const mix = (i: 2 | 3 | 4) => from[i] + (to[i] - from[i]) * share;
  const [pan, tilt, x, y, z, reached] = aimedAt(head, { x: mix(2), y: mix(3), z: mix(4) }).aimed;
  return [pan, tilt, x, y, z, from[5] && to[5] && reached];
}

const labs = new WeakMap<Chromaticity, readonly number[]>();

/** OKLab of a colour, worked out once for each colour of a show. */
export function labOf(colour: Chromaticity): readonly number[] {
  let lab = labs.get(colour);
  if (!lab) {
    const { L, a, b } = okLabFromChromaticity(colour);
    labs.set(colour, (lab = [L, a, b]));
  }
  return lab;
}

/** Looks the nearest slot of a wheel up once a colour. */
export function slotFinder(): Ground['slotOf'] {
  const known = new Map<string, number>();
  const linear = new Float64Array(3);
  return (profile, lab) => {
    const key = `${profile.id} ${lab.map((part) => part.toFixed(4)).join(' ')}`;
    const before = known.get(key);
    if (before !== undefined) return before;
    linearFromOkLab(lab[0]!, lab[1]!, lab[2]!, linear);
    const [r, g, b] = Array.from(linear, (part) => Math.max(0, part));
    const slots = profile.colours.map((slot) => slot.colour);
    const { slot } = nearestSlot(slots, chromaticityFromLinear({ r: r!, g: g!, b: b! }));
    known.set(key, slot);
    return slot;
  };
}

/** The channel of a head that an attribute sets. */
export function channelOf({ mode, cell }: Head, attribute: string): Channel | undefined {
  const named = mode.channels.filter((channel) => channel.attribute === attribute);
  return (
    named.find((channel) => channel.cell === cell) ?? named.find((channel) => channel.cell === undefined && cell === 0)
  );
}

/** A setting as 0…1 of a channel; undefined where the channel has no range that does it. */
export function settingValue(channel: Channel, setting: Setting): number | undefined {
  if (typeof setting === 'number') return setting;
  if ('range' in setting) {
    const wanted = setting.range.toLowerCase();
    const range = channel.ranges.find(({ name, does }) => (name ?? does).toLowerCase() === wanted);
    return range && middle(range);
  }
  const fitting = channel.ranges.filter(
    ({ does, slot }) => does === setting.does && (setting.slot === undefined || slot === setting.slot),
  );
  const { at } = setting;
  if (at === undefined) return fitting[0] && middle(fitting[0]);
  // Of two ranges that turn either way, the one that can turn so.
  const within = ({ low = 0, high = 1 }: Range) => at >= Math.min(low, high) && at <= Math.max(low, high);
  const range = fitting.find(within) ?? fitting[0];
  return range && dmxOfPhysical(range, at) / 255;
}

function middle({ from, to }: Range): number {
  return Math.round((from + to) / 2) / 255;
}
