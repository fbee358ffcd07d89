// All that is pressed, written down as it happens: appended to, in pieces of a bounded size.

import { closeSync, existsSync, fstatSync, openSync, readFileSync, renameSync, statSync, writeSync } from 'node:fs';
import { logHead, logLine, readLog, type Entry, type LiveState } from '@hovlix/core/live';
import { AGAIN_MS, reasonOf } from './whole';

export type EveningLog = {
  /** What the log knows of entries after a state: those that were written and not kept anywhere else. */
  readonly after: (state: LiveState) => readonly Entry[];
  /**
   * Begins to write: after what is there where the same night goes on from it, else in a new piece.
   * @param goesOn the state is what the last night led to, by the same clock.
   */
  readonly open: (state: LiveState, goesOn: boolean) => void;
  readonly write: (entry: Entry, state: LiveState) => void;
};

/** A piece is finished at this size; an evening of faders fills about two. */
const MOST_BYTES = 32 * 1024 * 1024;
/** So many finished pieces stay beside the newest, `.1` the youngest of them. */
const PIECES = 9;

/**
 * @param file the newest piece; each begins with what was on, so that it can be rendered by itself.
 * @param trouble is told why nothing can be written; null when it can again. Light and presses go on in any case.
 */
export function eveningLog(
  file: string,
  trouble: (why: string | null) => void,
  mostBytes: number = MOST_BYTES,
): EveningLog {
  let opened: number | undefined;
  let bytes = 0;
  let tryAt = 0;

  const failed = (error: unknown) => {
    trouble(`The log is not written: ${reasonOf(error)}. What is pressed meanwhile is missing in it.`);
    if (opened !== undefined) closeSync(opened);
    opened = undefined;
    tryAt = Date.now() + AGAIN_MS;
  };
  const put = (line: string) => {
    // A line is written at once, so that a computer that loses its power loses no more than that.
    const text = Buffer.from(`${line}\n`);
    if (writeSync(opened!, text) < text.length) throw new Error('the disk is full');
    bytes += text.length;
  };
  const setAside = () => {
    // One that was only just made has nothing in it.
    if (existsSync(file) && statSync(file).size === 0) return;
    for (let n = PIECES - 1; n >= 0; n--) {
      const from = n === 0 ? file : `${file}.${n}`;
      if (existsSync(from)) renameSync(from, `${file}.${n + 1}`);
    }
  };
  const begin = (state: LiveState) => {
    try {
      if (opened !== undefined) closeSync(opened);
      opened = undefined;
      setAside();
      opened = openSync(file, 'w', 0o600);
      bytes = 0;
      put(logHead(state));
      trouble(null);
    } catch (error) {
      failed(error);
    }
  };
  const there = () => {
    if (!existsSync(file)) return undefined;
    const read = readLog(readFileSync(file, 'utf8'), file);
    return read.ok ? read.value : undefined;
  };

  return {
    after({ seq }) {
      const entries = there()?.entries ?? [];
      const first = entries.findIndex((entry) => entry.seq === seq + 1);
      return first < 0 ? [] : entries.slice(first);
    },
    open(state, goesOn) {
      const log = goesOn ? there() : undefined;
      const last = log && (log.entries.at(-1)?.seq ?? log.begin.seq);
      // A line that was cut off would spoil the one after it.
      const whole = log && readFileSync(file, 'utf8').endsWith('\n');
      if (!whole || last !== state.seq) return begin(state);
      try {
        opened = openSync(file, 'a', 0o600);
        bytes = fstatSync(opened).size;
      } catch (error) {
        failed(error);
      }
    },
    write(entry, state) {
      if (opened === undefined) {
        // What was missed cannot be written any more: a new piece begins with what it led to.
        if (Date.now() >= tryAt) begin(state);
        return;
      }
      try {
        put(logLine(entry));
        if (bytes > mostBytes) begin(state);
      } catch (error) {
        failed(error);
      }
    },
  };
}
