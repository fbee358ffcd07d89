// Incoming DMX: which of several sources controls a universe, and what becomes of ours beside it.

import type { InputRow } from './schema';

/** One source of one universe, as it was last heard. */
export type Source = {
  /** What tells it from others: the CID on sACN, the address on Art-Net. */
  readonly key: string;
  readonly name: string;
  readonly priority: number;
  /** Seconds of the hearing machine's steady clock. */
  readonly at: number;
  readonly levels: Uint8Array;
};

/**
 * What a receiver makes of all sources of a universe: the highest priority wins, and among equals each channel takes
 * its highest level (E1.31, clauses 6.2.3.3 and 6.2.3.4). Sources silent for `lostAfter` seconds no longer count.
 * @param out 512 levels, filled where a source sends.
 * @returns the names of those who win, in the order given; empty where none sends.
 */
export function arbitrated(
  sources: Iterable<Source>,
  at: number,
  lostAfter: number,
  out: Uint8Array,
): readonly string[] {
  let priority = -1;
  const winners: Source[] = [];
  for (const source of sources) {
    if (at - source.at > lostAfter || source.priority < priority) continue;
    if (source.priority > priority) winners.length = 0;
    priority = source.priority;
    winners.push(source);
  }
  if (winners.length === 0) return [];
  out.fill(0);
  for (const { levels } of winners)
    for (let i = 0; i < levels.length && i < 512; i++) if (levels[i]! > out[i]!) out[i] = levels[i]!;
  return winners.map(({ name }) => name);
}

/** Who controls a universe after merging. */
export type Winner = 'ours' | 'theirs' | 'both';

/**
 * Lays an input's levels on ours, in place.
 * @param ours 512 levels; darkness where we do not send. @param weSend false while our output is off.
 */
export function mergeInput(ours: Uint8Array, theirs: Uint8Array, merge: InputRow['merge'], weSend: boolean): Winner {
  if (merge === 'backup' && weSend) return 'ours';
  if (merge === 'takes-over' || !weSend) {
    ours.set(theirs.subarray(0, 512));
    return 'theirs';
  }
  for (let i = 0; i < 512; i++) if (theirs[i]! > ours[i]!) ours[i] = theirs[i]!;
  return 'both';
}
