// A sheet with the lamps put together that do the same: what flash safety looks at, for many moments of it.

import { floats, flags, whole } from './rows';
import type { Motion, Sheet, Strand } from './parts';

/** So finely are turns and values told apart, of one: five times as finely as moments are looked at. */
export const STEPS = 64;
/** Of random waves each lamp goes its own way: they are told apart this finely. */
const RANDOM_STEPS = 2 ** 16;
/** Room for a value, for three of them, and for a rank, beside the number of a group: whole numbers are exact up to 2^53. */
const ROOM = { value: 2 ** 9, values: 2 ** 27, rank: 2 ** 22 } as const;
/** Waves that come to the same after no more turns than this are known to repeat. */
const MOST_TURNS = 12;

/** Lamps of a sheet in groups, and how they go round. */
export type Alike = {
  /** With a row for each group, which stands for a lamp that is behind by nothing where they turn as one. */
  readonly sheet: Sheet;
  readonly groups: number;
} & (
  | {
      /** All waves of these lamps turn as one, in so many moments. */
      readonly turn: number;
      /** By group, `STEPS` each: the share of its lamps that are so many steps of a turn behind. */
      readonly shares: Float64Array;
    }
  | {
      readonly turn: null;
      /** By group, the share of its lamps. */
      readonly shares: Float64Array;
      /** After so many moments they do the same again; Infinity where they never do. */
      readonly period: number;
    }
);

/**
 * The strands of a sheet that move light, without what follows a sound and without lamps that no wave moves; lamps that
 * do the same in all of them, near enough for a flash, are one.
 * @param shares by head, its share of the rig's light.
 * @param turnOf how many moments a turn of a wave takes.
 */
export function alike(
  sheet: Sheet,
  shares: Float64Array,
  shines: Uint8Array,
  turnOf: (motion: Motion) => number,
): readonly Alike[] {
  const strands = sheet.strands.filter((one) => shines[one.field] === 1);
  const course = courseOf(strands, shares.length, turnOf);
  const groups = groupsOf(strands, course);
  return [...new Set(course.ways)].flatMap((way) => {
    if (way === STILL) return [];
    const places = new Map<number, number>();
    const placeOf = new Int32Array(shares.length).fill(-1);
    for (let head = 0; head < shares.length; head++) {
      if (course.ways[head] !== way) continue;
      const place = places.get(groups[head]!) ?? places.size;
      places.set(groups[head]!, place);
      placeOf[head] = place;
    }
    const count = places.size;
    const asOne = way > 0;
    const own = strands.flatMap((one) => ofGroups(one, placeOf, count, asOne ? course.behind : null) ?? []);
    const sums = new Float64Array(asOne ? count * STEPS : count);
    for (let head = 0; head < shares.length; head++) {
      if (placeOf[head]! < 0) continue;
      const at = asOne ? placeOf[head]! * STEPS + stepsOf(course.behind[head]!) : placeOf[head]!;
      sums[at] = sums[at]! + shares[head]!;
    }
    const found = { sheet: { ...sheet, strands: own }, groups: count, shares: sums };
    return [asOne ? { ...found, turn: way } : { ...found, turn: null, period: -way }];
  });
}

const STILL = 0;

/** How lamps go round. */
type Course = {
  /** By head: moments a turn where its waves turn as one, less than nothing by its period where they do not. */
  readonly ways: Float64Array;
  /** By head: how far its first wave is behind, in turns. */
  readonly behind: Float64Array;
};

function courseOf(strands: readonly Strand[], heads: number, turnOf: (motion: Motion) => number): Course {
  const ways = new Float64Array(heads);
  const behind = new Float64Array(heads);
  const periods = new Float64Array(heads).fill(1);
  for (const strand of strands)
    for (const motion of wavesOf(strand)) {
      const turn = turnOf(motion);
      const period = motion.shape === 'random' ? Infinity : periodOf(turn);
      for (let row = 0; row < strand.count; row++) {
        const head = strand.heads[row]!;
        const before = ways[head]!;
        periods[head] = togetherOf(periods[head]!, period);
        if (before === STILL) behind[head] = motion.behind[row]!;
        const asOne = before >= 0 && motion.shape !== 'random' && (before === STILL || before === turn);
        ways[head] = asOne ? turn : -periods[head]!;
      }
    }
  return { ways, behind };
}

/** By head, the number of those that do the same. */
function groupsOf(strands: readonly Strand[], { ways, behind }: Course): Int32Array {
  const groups = new Int32Array(ways.length);
  let count = 0;
  const told = (known: Map<number, number>, key: number): number => {
    let group = known.get(key);
    if (group === undefined) known.set(key, (group = ++count));
    return group;
  };
  for (const strand of strands) {
    const waves = wavesOf(strand);
    const byValues = new Map<number, number>();
    const byWave = waves.map(() => [new Map<number, number>(), new Map<number, number>()] as const);
    for (let row = 0; row < strand.count; row++) {
      const head = strand.heads[row]!;
      if (ways[head] === STILL) continue;
      let group = told(byValues, groups[head]! * ROOM.values + valuesOf(strand, row));
      for (let w = 0; w < waves.length; w++) {
        const motion = waves[w]!;
        const [one, other] = byWave[w]!;
        const late = motion.behind[row]! - (ways[head]! > 0 ? behind[head]! : 0);
        if (motion.shape !== 'random') group = told(one, group * STEPS + stepsOf(late));
        else {
          group = told(one, group * ROOM.rank + motion.ranks[row]!);
          group = told(other, group * ROOM.rank + Math.round(late * RANDOM_STEPS));
        }
      }
      groups[head] = group;
    }
  }
  return groups;
}

const stepsOf = (turns: number): number => Math.round(turns * STEPS) & (STEPS - 1);

/** What a row says, in one number. */
function valuesOf({ values, count }: Strand, row: number): number {
  const width = values.length / count;
  let key = 0;
  for (let k = 0; k < width; k++)
    key = key * ROOM.value + (Math.round(values[row * width + k]! * STEPS) & (ROOM.value - 1));
  return key;
}

const wavesOf = ({ motions }: Strand): readonly Motion[] => motions.filter(({ input }) => !input);

/** After how many moments a wave comes to the same. */
function periodOf(turn: number): number {
  for (let turns = 1; turns <= MOST_TURNS; turns++) {
    const moments = Math.round(turn * turns);
    if (Math.abs(turn * turns - moments) < 1e-9 * moments) return moments;
  }
  return Infinity;
}

/** After how many moments both come to the same: their least common multiple. */
function togetherOf(one: number, other: number): number {
  if (one === Infinity || other === Infinity) return Infinity;
  let [a, b] = [one, other];
  while (b > 0) [a, b] = [b, a % b];
  return (one / a) * other;
}

/**
 * The strand with one row for each group: that of the first lamp in it. Undefined where it has none of them.
 * @param behind by head, how far behind its first wave is: waves are taken as behind that.
 */
function ofGroups(
  strand: Strand,
  placeOf: Int32Array,
  places: number,
  behind: Float64Array | null,
): Strand | undefined {
  const rows: number[] = [];
  const taken = new Uint8Array(places);
  for (let row = 0; row < strand.count; row++) {
    const place = placeOf[strand.heads[row]!]!;
    if (place < 0 || taken[place] === 1) continue;
    taken[place] = 1;
    rows.push(row);
  }
  const count = rows.length;
  if (count === 0) return undefined;
  const width = strand.values.length / strand.count;
  const values = floats(count * width, (i) => strand.values[rows[Math.floor(i / width)]! * width + (i % width)]!);
  return {
    ...strand,
    count,
    heads: whole(count, (i) => placeOf[strand.heads[rows[i]!]!]!),
    values,
    live: values.slice(),
    motions: wavesOf(strand).map((motion) => ({
      ...motion,
      behind: floats(count, (i) => motion.behind[rows[i]!]! - (behind?.[strand.heads[rows[i]!]!] ?? 0)),
      ranks: whole(count, (i) => motion.ranks[rows[i]!]!),
      deaf: flags(count, (i) => motion.deaf[rows[i]!] === 1),
    })),
  };
}
