// The one who keeps the order. Runs alike in a worker and in the server.

import type { Seconds } from '../units';
import type { Action, Entry } from './actions';
import { AT_REST, reduced, type LiveState } from './state';

export type Conductor = {
  /** Puts an action in its place in the log. */
  readonly submit: (who: string, action: Action) => Entry;
  /** What a screen that comes late needs. */
  readonly state: () => LiveState;
  /** The entries after `seq`, or undefined when they are no longer kept and a snapshot is needed. */
  readonly since: (seq: number) => readonly Entry[] | undefined;
};

const KEPT = 2000;

/** @param now the conductor's clock: seconds that only rise. */
export function conductor(now: () => Seconds, from: LiveState = AT_REST): Conductor {
  let state = from;
  let tail: Entry[] = [];
  return {
    submit(who, action) {
      const entry: Entry = { seq: state.seq + 1, at: now(), who, action };
      state = reduced(state, entry);
      tail.push(entry);
      if (tail.length > KEPT * 2) tail = tail.slice(-KEPT);
      return entry;
    },
    state: () => state,
    since(seq) {
      if (seq === state.seq) return [];
      const first = tail.findIndex((entry) => entry.seq === seq + 1);
      return first >= 0 ? tail.slice(first) : undefined;
    },
  };
}
