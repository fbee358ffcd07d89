// One mechanism for every document: an edit is a recipe with a name, and leaves behind how to make it again and how to
// take it back. Undo, the journal, other screens and the server all work on these.

import { applyPatches, enablePatches, produceWithPatches, type Draft, type Patch } from 'immer';

enablePatches();

/** One change that was made, as plain data. */
export type ChangeOf<Name extends string> = {
  readonly name: Name;
  readonly patches: readonly Patch[];
  readonly inverse: readonly Patch[];
};

/** The document after a recipe, and the change. A recipe that finds nothing to do leaves no patches. */
export function changed<Document extends object, Name extends string>(
  document: Document,
  name: Name,
  recipe: (draft: Draft<Document>) => void,
): { readonly after: Document; readonly change: ChangeOf<Name> } {
  const [after, patches, inverse] = produceWithPatches(document, (draft) => {
    recipe(draft);
  });
  return { after, change: { name, patches, inverse } };
}

/** The document with patches laid on: to do again, to take back, to replay a journal, to follow another screen. */
export function patched<Document extends object>(document: Document, patches: readonly Patch[]): Document {
  return applyPatches(document, patches as Patch[]);
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
