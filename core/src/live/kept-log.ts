// The last of what was pressed, kept at hand: to be told in words, and saved as a log that can be rendered again.

import type { Entry } from './actions';
import { logHead, logLine, type Log } from './log';
import type { LiveState } from './live-state';
import { reduced } from './state';

/** A night of faders is long: beyond this the older half goes into what it begins with. */
const MOST_ENTRIES = 20_000;

export type KeptLog = {
  /** Begins anew. */
  readonly begin: (state: LiveState) => void;
  readonly add: (entry: Entry) => void;
  readonly log: () => Log;
};

export function keptLog(first: LiveState, most: number = MOST_ENTRIES): KeptLog {
  let begin = first;
  let entries: Entry[] = [];
  return {
    begin(state) {
      begin = state;
      entries = [];
    },
    add(entry) {
      if (entries.length >= most) {
        const half = entries.length >> 1;
        begin = entries.slice(0, half).reduce(reduced, begin);
        entries = entries.slice(half);
      }
      entries.push(entry);
    },
    log: () => ({ begin, entries }),
  };
}

/** A log as the text of a file, see `readLog`. */
export const logText = ({ begin, entries }: Log): string => [logHead(begin), ...entries.map(logLine), ''].join('\n');
