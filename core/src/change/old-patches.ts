// Journals of before edits travelled as commands: lists of patches by place. Read once, never written.

import { applyPatches, enablePatches, type Patch } from 'immer';

/** A document as JSON with old patches laid on; throws where they do not fit. */
export function withOldPatches(json: object, patches: readonly unknown[]): object {
  enablePatches();
  return applyPatches(json, patches as Patch[]);
}
