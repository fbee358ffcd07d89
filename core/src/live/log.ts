// An action log as text: what was pressed, a line each, so that the same light can be rendered again.

import { own } from '../own';
import { z } from 'zod';
import { failed, ok, type Result } from '../problem';
import type { Seconds } from '../units';
import { Entry } from './actions';
import { AT_REST, LiveState } from './live-state';
import { reduced } from './state';

const Head = z.object({
  format: z.literal('hovlix-log'),
  version: z.number().int().min(1),
  begin: z.unknown().optional(),
});
export const LOG_VERSION = 5;

/** What was pressed, and what was on before the first of it. */
export type Log = { readonly begin: LiveState; readonly entries: readonly Entry[] };

/** In version 1 roles were called parts, and what is in hand was given back by `hands-off`. */
const NAMES_OF_OLD: Readonly<Record<string, string>> = { 'part-master': 'role-master', 'hands-off': 'release' };

function renamed(key: string, value: unknown): unknown {
  if (key === 'type' && typeof value === 'string') return own(NAMES_OF_OLD, value) ?? value;
  if (typeof value !== 'object' || value === null || !('part' in value)) return value;
  const { part, ...rest } = value;
  return { ...rest, role: part };
}

/** The first line of a log. @param begin what is on already; without, nothing is. */
export const logHead = (begin?: LiveState): string =>
  JSON.stringify({ format: 'hovlix-log', version: LOG_VERSION, ...(begin ? { begin } : {}) });
export const logLine = (entry: Entry): string => JSON.stringify(entry);

/**
 * Reads a log, trusting nothing: entries that count on from what it begins with, without gaps, and never go back in
 * time. A last line that was cut off, as by a computer that lost its power, is left out.
 */
export function readLog(text: string, name: string): Result<Log> {
  const wrong = (line: number, detail: string): Result<never> =>
    failed({ code: 'bad-value', name, path: `line ${line}`, detail });
  const lines = text.split('\n');
  const whole = lines.at(-1) === '' ? lines.slice(0, -1) : lines;
  if (whole.length === 0) return failed({ code: 'empty-file', name });
  const head = Head.safeParse(parsed(whole[0]!));
  if (!head.success) return wrong(1, 'this is no log of Hovlix');
  if (head.data.version > LOG_VERSION)
    return failed({ code: 'too-new', name, version: head.data.version, newest: LOG_VERSION });
  const begin = head.data.begin === undefined ? { success: true, data: AT_REST } : LiveState.safeParse(head.data.begin);
  if (!begin.success || !begin.data) return wrong(1, 'what was on before it cannot be read');
  const entries: Entry[] = [];
  for (let i = 1; i < whole.length; i++) {
    const json = parsed(whole[i]!, head.data.version < 2 ? renamed : undefined);
    if (json === undefined && i === lines.length - 1) break;
    const read = Entry.safeParse(json);
    if (!read.success) return wrong(i + 1, read.error.issues[0]?.message ?? 'it cannot be read');
    const before = entries.at(-1);
    if (read.data.seq !== (before ?? begin.data).seq + 1)
      return wrong(i + 1, `entry ${read.data.seq} is out of its place`);
    if (before && read.data.at < before.at) return wrong(i + 1, 'it lies before the line above it');
    entries.push(read.data);
  }
  return ok({ begin: begin.data, entries });
}

function parsed(line: string, reviver?: (key: string, value: unknown) => unknown): unknown {
  try {
    return JSON.parse(line, reviver);
  } catch {
    // Not JSON at all: told by the caller with its line.
    return undefined;
  }
}

/** The live state at any moment of a log. Remembers the last one asked for, so that going forward is quick. */
export function replay({ begin, entries }: Log): (at: Seconds) => LiveState {
  let [state, taken] = [begin, 0];
  return (at) => {
    if (taken > 0 && entries[taken - 1]!.at > at) [state, taken] = [begin, 0];
    for (; taken < entries.length && entries[taken]!.at <= at; taken++) state = reduced(state, entries[taken]!);
    return state;
  };
}
