// The last of what was pressed, kept at hand: to be told in words, and saved as a log that can be rendered again.

import type { Entry } from './actions';
import { logHead, logLine, type Log } from './log';
import type { LiveState } from './live-state';
import { reduced } from './state';

/** A night of faders is long: beyond this the oldest go into what it begins with. */
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
  /** So many of them have gone into `begin`: one with each that comes, as many at once would hold up a frame. */
  let gone = 0;
  return {
    begin(state) {
      begin = state;
      [entries, gone] = [[], 0];
    },
    add(entry) {
      entries.push(entry);
      if (entries.length - gone <= most) return;
      begin = reduced(begin, entries[gone]!);
      gone++;
      if (gone > most) [entries, gone] = [entries.slice(gone), 0];
    },
    log: () => ({ begin, entries: entries.slice(gone) }),
  };
}

/** A log as the text of a file, see `readLog`. */
export const logText = ({ begin, entries }: Log): string => [logHead(begin), ...entries.map(logLine), ''].join('\n');
