// The one who keeps the order. Runs alike in a worker and in the server.

import type { Seconds } from '../units';
import type { Action, Entry } from './actions';
import { AT_REST, type LiveState } from './live-state';
import { reduced } from './state';

export type Conductor = {
  /** Puts an action in its place in the log; `at` is when it came, by the same clock, where that was looked up already. */
  readonly submit: (who: string, action: Action, at?: Seconds) => Entry;
  /** What a screen that comes late needs. */
  readonly state: () => LiveState;
};

/** @param now the conductor's clock: seconds that only rise. */
export function conductor(now: () => Seconds, from: LiveState = AT_REST): Conductor {
  let state = from;
  return {
    submit(who, action, at = now()) {
      const entry: Entry = { seq: state.seq + 1, at, who, action };
      state = reduced(state, entry);
      return entry;
    },
    state: () => state,
  };
}
