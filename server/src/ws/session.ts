// What all screens share: the conductor and the show it plays.

import { conductor, type Action, type Conductor, type Entry } from '@hovlix/core/live';
import { wordsFor } from '@hovlix/core/problem';
import { patched, readShow, type Show } from '@hovlix/core/show';
import { now } from '../clock';

export type Document = { readonly show: Show; readonly revision: number };

export type Session = {
  readonly conductor: Conductor;
  readonly document: () => Document | undefined;
  readonly act: (who: string, action: Action) => Entry;
  /** Takes a whole show, or says what is wrong with it and keeps the one before. */
  readonly open: (json: unknown, revision: number) => string | undefined;
  /** Lays patches on the show. `stale` when they were made on another revision. */
  readonly edit: (patches: unknown, revision: number) => 'done' | 'stale' | { readonly why: string };
};

/** @param follow is told of each new show and each entry: the output. */
export function session(follow: { show: (show: Show) => void; entry: (entry: Entry) => void }): Session {
  const orders = conductor(now);
  let document: Document | undefined;
  const take = (show: Show, revision: number) => {
    document = { show, revision };
    follow.show(show);
  };
  return {
    conductor: orders,
    document: () => document,
    act(who, action) {
      const entry = orders.submit(who, action);
      follow.entry(entry);
      return entry;
    },
    open(json, revision) {
      const read = readShow(json, 'the show from the screen');
      if (!read.ok) return wordsFor(read.problem);
      take(read.value, revision);
      return undefined;
    },
    edit(patches, revision) {
      if (!document || document.revision !== revision) return 'stale';
      try {
        const read = readShow(patched(document.show, patches as Parameters<typeof patched>[1]), 'the edited show');
        if (!read.ok) return { why: wordsFor(read.problem) };
        take(read.value, revision + 1);
        return 'done';
      } catch (error) {
        return { why: `The edit does not fit the show: ${error instanceof Error ? error.message : String(error)}.` };
      }
    },
  };
}
