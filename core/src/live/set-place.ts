// Where in a set one is, and what was left for it: a slip is repaired by going back.

import type { Id, Seconds } from '../units';

type Place<Song> = {
  readonly set: Id<'Set'>;
  readonly entry: Id<'Entry'>;
  readonly stop: string;
  readonly since: Seconds;
  /** When the set was begun. */
  readonly began: Seconds;
  /** What was left last, with the song that played there. */
  readonly left?: { readonly stop: string; readonly song: Song | null; readonly at: Seconds } | undefined;
};

type Going = Pick<Place<never>, 'set' | 'entry' | 'stop'> & { readonly repair?: boolean | undefined };

/** The same stop told again this soon was told by two screens, in seconds. */
const TWICE_SECONDS = 0.3;

/** The place after going to a stop. */
export function placeInSet<Song extends { readonly playing: boolean }>(
  { set, song }: { readonly set: Place<Song> | null; readonly song: Song | null },
  going: Going,
  at: Seconds,
): Place<Song> {
  const { entry, stop, repair } = going;
  if (set?.stop === stop && !repair && set.since > at - TWICE_SECONDS) return set;
  const same = set?.set === going.set;
  const left = same && !repair ? { stop: set.stop, song: song?.playing ? song : null, at } : undefined;
  return { set: going.set, entry, stop, since: at, began: same ? set.began : at, ...(left ? { left } : {}) };
}
