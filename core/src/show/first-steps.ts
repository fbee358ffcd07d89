// What a new show needs, in the order in which people work: what is done, and what comes next.

import { isLit } from '../song/lane-schema';
import { rigInUse, type Show } from './schema';

export const PATH = ['connect', 'lamps', 'looks', 'song', 'gig'] as const;
export type PathStep = (typeof PATH)[number];

/** The first number that no look and no chase has. */
export function nextNumber(show: Show): number {
  const taken = new Set([...show.looks, ...show.chases].map(({ number }) => number));
  let number = 1;
  while (taken.has(number)) number++;
  return number;
}

/**
 * The step that comes next; undefined when the show is ready for the night.
 * @param connected somebody has seen to the way out, or said to go on.
 */
export function nextStep(show: Show, connected: boolean): PathStep | undefined {
  const lamps = rigInUse(show).fixtures.length > 0;
  if (!connected && !lamps) return 'connect';
  if (!lamps) return 'lamps';
  if (show.looks.length === 0 && show.chases.length === 0) return 'looks';
  const lit = show.songs.some(isLit);
  return lit ? undefined : 'song';
}
