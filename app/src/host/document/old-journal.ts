// Shows kept by versions before edits travelled as commands: a revision that counts, and patches by place.

import { z } from 'zod';
import { withOldPatches } from '@hovlix/core/show';
import type { Store } from './storage';

export const OLD_SNAPSHOT = z.object({ show: z.looseObject({}), revision: z.number().int().min(0) });

const OldLine = z.object({ patches: z.array(z.unknown()) });

/** The show as JSON with the lines of its journal laid on, as far as they follow one another and fit. */
export async function oldJournal(
  store: Store,
  id: string,
  { show, revision }: z.infer<typeof OLD_SNAPSHOT>,
): Promise<object> {
  let json: object = show;
  for (let at = revision + 1; ; at++) {
    const text = await store.getItem(`journal:${id}:${String(at).padStart(9, '0')}`);
    if (text === null) return json;
    try {
      json = withOldPatches(json, OldLine.parse(JSON.parse(text)).patches);
    } catch {
      // Half written when the browser was killed: what came before it counts.
      return json;
    }
  }
}
