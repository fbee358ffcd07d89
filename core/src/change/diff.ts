// What differs between two states of a document, as plain data that names records by their ids. Laid on a third state,
// it changes the same things there and nothing else: undo, the journal, screens and threads all work on these.

import { own } from '../own';
import { dequal } from 'dequal/lite';

/** Keys of objects and ids of records, from the top of the document. */
export type Path = readonly string[];

export type Op =
  /** A value; `from` and `to` are left out where there was, or will be, none. */
  | { readonly op: 'set'; readonly path: Path; readonly from?: unknown; readonly to?: unknown }
  /** A record came into, or left, the list at `path`: behind the one with the id `after`, null for the first place. */
  | { readonly op: 'put'; readonly path: Path; readonly record: object; readonly after: string | null }
  | { readonly op: 'drop'; readonly path: Path; readonly record: object; readonly after: string | null }
  /** A record changed its place in a list. */
  | {
      readonly op: 'move';
      readonly path: Path;
      readonly id: string;
      readonly from: string | null;
      readonly after: string | null;
    };
export type Ops = readonly Op[];

type Plain = Readonly<Record<string, unknown>>;
type Recorded = Plain & { readonly id?: unknown };

/** Lists whose records are known by something else than an id: a role is cast once in a rig. */
const KEYS: Readonly<Record<string, string>> = { casting: 'role' };

const isPlain = (value: unknown): value is Plain =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const keyOf = (name: string | undefined, record: unknown): string | undefined => {
  const key = isPlain(record) ? own(record, own(KEYS, name ?? '') ?? 'id') : undefined;
  return typeof key === 'string' ? key : undefined;
};

/** The ids of a list of records in order; undefined where it is a list of something else. */
function idsOf(name: string | undefined, list: readonly unknown[]): readonly string[] | undefined {
  const ids = list.map((record) => keyOf(name, record));
  return ids.every((id) => id !== undefined) && new Set(ids).size === ids.length ? (ids as string[]) : undefined;
}

/**
 * The ops that lead from one state to another. What is the same object (`===`) is not looked into, so this costs what
 * the change costs, not what the document weighs.
 */
export function diff(before: object, after: object): Ops {
  const ops: Op[] = [];
  compare(before, after, [], ops);
  return ops;
}

function compare(before: unknown, after: unknown, path: Path, ops: Op[]): void {
  if (before === after) return;
  if (isPlain(before) && isPlain(after)) {
    for (const key of new Set([...Object.keys(before), ...Object.keys(after)]))
      compare(own(before, key), own(after, key), [...path, key], ops);
    return;
  }
  if (Array.isArray(before) && Array.isArray(after)) {
    const [was, is] = [idsOf(path.at(-1), before), idsOf(path.at(-1), after)];
    if (was && is) return compareLists(before as Plain[], was, after as Plain[], is, path, ops);
  }
  if (dequal(before, after)) return;
  ops.push({
    op: 'set',
    path,
    ...(before === undefined ? {} : { from: before }),
    ...(after === undefined ? {} : { to: after }),
  });
}

function compareLists(
  before: readonly Plain[],
  was: readonly string[],
  after: readonly Plain[],
  is: readonly string[],
  path: Path,
  ops: Op[],
): void {
  const there = new Map(was.map((id, i) => [id, before[i]!]));
  const stays = new Set(is);
  // From the end, so that taken back in turn each finds the record it stood behind.
  for (let i = was.length - 1; i >= 0; i--)
    if (!stays.has(was[i]!)) ops.push({ op: 'drop', path, record: before[i]!, after: was[i - 1] ?? null });
  const working = was.filter((id) => stays.has(id));
  const common = is.filter((id) => there.has(id));
  if (!sameOrder(working, common))
    common.forEach((id, i) => {
      const from = working.indexOf(id);
      if (from === i) return;
      const [behind, goal] = [working[from - 1] ?? null, common[i - 1] ?? null];
      working.splice(from, 1);
      working.splice(i, 0, id);
      ops.push({ op: 'move', path, id, from: behind, after: goal });
    });
  is.forEach((id, i) => {
    const old = there.get(id);
    // Most records of a long list are as they were.
    if (old !== undefined && old === after[i]) return;
    if (old) compare(old, after[i], [...path, id], ops);
    else ops.push({ op: 'put', path, record: after[i]!, after: is[i - 1] ?? null });
  });
}

const sameOrder = (a: readonly string[], b: readonly string[]) => a.every((id, i) => id === b[i]);

/** Takes back what `ops` did, the last first. */
export function inverse(ops: Ops): Ops {
  return ops.map(back).reverse();
}

function back(op: Op): Op {
  switch (op.op) {
    case 'set': {
      const { from, to, ...rest } = op;
      return { ...rest, ...('to' in op ? { from: to } : {}), ...('from' in op ? { to: from } : {}) };
    }
    case 'put':
      return { ...op, op: 'drop' };
    case 'drop':
      return { ...op, op: 'put' };
    case 'move':
      return { ...op, from: op.after, after: op.from };
  }
}

/**
 * A document with ops laid on it. An op that does not fit is missed and changes nothing: its record is gone, it is
 * there already, or somebody changed the same value since.
 * @param force lays values and drops records whatever is there: to follow a document that is known to be the same.
 */
export function laid<Document extends object>(
  document: Document,
  ops: Ops,
  { force = false }: { readonly force?: boolean } = {},
): { readonly after: Document; readonly missed: Ops } {
  const missed: Op[] = [];
  let after: unknown = document;
  for (const op of ops) {
    const next = within(after, op.path, undefined, (value, name) => layOne(value, name, op, force));
    if (next === MISSED) missed.push(op);
    else after = next;
  }
  return { after: after as Document, missed };
}

const MISSED = Symbol('missed');
type Laid = unknown;

/** Changes one value deep in a document, and copies only what leads there. */
function within(
  value: unknown,
  path: Path,
  name: string | undefined,
  change: (value: unknown, name: string | undefined) => Laid,
): Laid {
  const [key, ...rest] = path;
  if (key === undefined) return change(value, name);
  if (Array.isArray(value)) {
    const at = value.findIndex((record) => keyOf(name, record) === key);
    if (at < 0) return MISSED;
    const next = within(value[at], rest, key, change);
    return next === MISSED ? MISSED : (value as unknown[]).with(at, next);
  }
  if (!isPlain(value) || key === '__proto__') return MISSED;
  if (rest.length > 0 && !Object.hasOwn(value, key)) return MISSED;
  const next = within(own(value, key), rest, key, change);
  if (next === MISSED) return MISSED;
  if (next !== undefined) return { ...value, [key]: next };
  const { [key]: _, ...left } = value;
  return left;
}

function layOne(value: unknown, name: string | undefined, op: Op, force: boolean): Laid {
  if (op.op === 'set') return force || dequal(value, op.from) ? op.to : MISSED;
  if (!Array.isArray(value)) return MISSED;
  const list = value as readonly Recorded[];
  const place = (id: string | null | undefined) =>
    id === null ? -1 : list.findIndex((record) => keyOf(name, record) === id);
  if (op.op === 'move') {
    const from = place(op.id);
    if (from < 0) return MISSED;
    const rest = list.toSpliced(from, 1);
    return rest.toSpliced(placeBehind(rest, name, op.after), 0, list[from]!);
  }
  const id = keyOf(name, op.record);
  if (id === undefined) return MISSED;
  const at = place(id);
  if (op.op === 'put') {
    if (at >= 0) return MISSED;
    return list.toSpliced(placeBehind(list, name, op.after), 0, op.record as Recorded);
  }
  if (at < 0 || (!force && !dequal(list[at], op.record))) return MISSED;
  return list.toSpliced(at, 1);
}

/** Where a record goes that stood behind another; at the end where that one is gone. */
function placeBehind(list: readonly unknown[], name: string | undefined, after: string | null): number {
  if (after === null) return 0;
  const at = list.findIndex((record) => keyOf(name, record) === after);
  return at < 0 ? list.length : at + 1;
}
