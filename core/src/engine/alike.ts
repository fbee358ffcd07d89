import type { Motion, Sheet, Strand } from './parts';
// A sheet with the lamps put together that do the same: what flash safety looks at, for many moments of it.

/** So finely are turns and values told apart, of one: five times as finely as moments are looked at. */
const STEPS = 64;

/**
 * The strands of a sheet that move light, without what follows a sound; lamps that do the same in all of them, near
 * enough for a flash, are one.
 * @param shares by head, its share of the rig's light.
 * @returns the sheet by groups of lamps, and the share of each group.
 */
export function alike(
  sheet: Sheet,
  shares: Float64Array,
  shines: Uint8Array,
): { readonly sheet: Sheet; readonly shares: Float64Array } {
  const strands = sheet.strands.filter((one) => shines[one.field] === 1);
  const keys = new Map<number, string>();
  strands.forEach((strand, s) => {
    for (let row = 0; row < strand.count; row++) {
      const head = strand.heads[row]!;
      keys.set(head, `${keys.get(head) ?? ''}${s}${doing(strand, row)}`);
    }
  });
  const groups = new Map<string, number>();
  const sums: number[] = [];
  const groupOf = new Map<number, number>();
  for (const [head, key] of keys) {
    const group = groups.get(key) ?? groups.size;
    groups.set(key, group);
    groupOf.set(head, group);
    sums[group] = (sums[group] ?? 0) + shares[head]!;
  }
  return {
    sheet: { ...sheet, strands: strands.map((one) => ofGroups(one, groupOf)) },
    shares: Float64Array.from(sums),
  };
}

const wavesOf = ({ motions }: Strand): readonly Motion[] => motions.filter(({ input }) => !input);

/** What a row does, in short. */
function doing(strand: Strand, row: number): string {
  const width = strand.values.length / strand.count;
  let key = ':';
  for (let k = 0; k < width; k++) key += `${Math.round(strand.values[row * width + k]! * STEPS)},`;
  for (const { shape, behind, ranks } of wavesOf(strand))
    // Of a random wave each lamp goes its own way, by its rank.
    key += shape === 'random' ? `r${ranks[row]!}.${behind[row]!}` : `b${Math.round(behind[row]! * STEPS) % STEPS}`;
  return `${key};`;
}

/** The strand with one row for each group: that of the first lamp in it. */
function ofGroups(strand: Strand, groupOf: ReadonlyMap<number, number>): Strand {
  const first = new Map<number, number>();
  for (let row = 0; row < strand.count; row++) {
    const group = groupOf.get(strand.heads[row]!)!;
    if (!first.has(group)) first.set(group, row);
  }
  const rows = [...first.values()];
  const width = strand.values.length / strand.count;
  const values = Float64Array.from(rows.flatMap((row) => [...strand.values.subarray(row * width, (row + 1) * width)]));
  return {
    ...strand,
    count: rows.length,
    heads: Int32Array.from(first.keys()),
    values,
    live: Float64Array.from(values),
    motions: wavesOf(strand).map((motion) => ({
      ...motion,
      behind: Float64Array.from(rows, (row) => motion.behind[row]!),
      ranks: Int32Array.from(rows, (row) => motion.ranks[row]!),
      deaf: Uint8Array.from(rows, (row) => motion.deaf[row]!),
    })),
  };
}
