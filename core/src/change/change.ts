// One mechanism for every document: an edit is a recipe with a name, and what it changed is told by ops that name
// records by their ids. Undo, the journal, other screens, threads and the server all work on these.

import { produce, type Draft } from 'immer';
import { diff, type Ops } from './diff';

/** The document after a recipe, and what that changed. A recipe that finds nothing to do leaves no ops. */
export function changed<Document extends object>(
  document: Document,
  recipe: (draft: Draft<Document>) => void,
): { readonly after: Document; readonly ops: Ops } {
  const after = produce(document, (draft) => void recipe(draft));
  return { after, ops: diff(document, after) };
}

/** Puts a record into a list, in the place of the one with its id or at the end. */
export function put<T extends { id: string }>(list: T[], record: T): void {
  const at = list.findIndex((candidate) => candidate.id === record.id);
  if (at >= 0) list[at] = record;
  else list.push(record);
}

/** Takes the record of this id out of a list; none, and nothing changes. */
export function remove(list: { id: string }[], gone: string): void {
  const at = list.findIndex((candidate) => candidate.id === gone);
  if (at >= 0) list.splice(at, 1);
}

/** Moves the record of this id to stand before another; to the end where that is null, or gone. */
export function moveBefore<T extends { id: string }>(list: T[], id: string, before: string | null): boolean {
  const from = list.findIndex((one) => one.id === id);
  if (from < 0 || id === before) return from >= 0;
  const [moved] = list.splice(from, 1);
  const at = list.findIndex((one) => one.id === before);
  list.splice(at < 0 ? list.length : at, 0, moved!);
  return true;
}
