// The moment of a press on this screen.

import type { Moment } from '@hovlix/core/live';
import type { Document } from '../document/document';
import type { Conducting } from './conduct';

/** What a press needs: the show and the line to the conductor. */
export type Stage = { readonly document: Document; readonly conducting: Conducting };

/** The moment of a press; undefined while no show is open. */
export function momentOf({ document, conducting }: Stage): Moment | undefined {
  const { show } = document.store.getState();
  return show ? { show, live: conducting.store.getState().live, now: conducting.now() } : undefined;
}

/** The same for a press: on top of what was pressed here just before, and not answered yet. */
export function momentOfPress({ document, conducting }: Stage): Moment | undefined {
  const { show } = document.store.getState();
  return show ? { show, live: conducting.foreseen(), now: conducting.now() } : undefined;
}
