// The show that is open: its history, its revision, and where each change goes (journal, conductor, worker).

import { createStore, type StoreApi } from 'zustand/vanilla';
import type { Problem } from '@hovlix/core/problem';
import {
  edited,
  followed,
  historyOf,
  patched,
  readShow,
  redone,
  undone,
  type Change,
  type Command,
  type History,
  type Show,
} from '@hovlix/core/show';
import type { Kept, Repository } from './repository';

export type DocumentState = {
  /** Null until a show is open. */
  readonly history: History | null;
  readonly revision: number;
  /** The last thing storage said against it; null while all is kept. */
  readonly problem: Problem | null;
};

/** Whoever must know of a change: `patches` where there are some, else the whole show is new. */
export type Follower = (
  kept: Kept,
  change: { readonly patches: Change['patches']; readonly from: number } | null,
) => void;

export type Document = {
  readonly store: StoreApi<DocumentState>;
  readonly open: (kept: Kept, options?: { readonly keep?: boolean }) => Promise<Problem | undefined>;
  readonly make: (command: Command) => void;
  readonly undo: () => void;
  readonly redo: () => void;
  /** From another screen, through the conductor. */
  readonly follow: (json: unknown, revision: number) => void;
  readonly followPatches: (patches: Change['patches'], revision: number) => void;
  readonly onChange: (follower: Follower) => () => void;
};

/** After so many journal lines the whole show is written anew. */
const JOURNAL_LINES = 60;

export function document(repository: Repository): Document {
  const store = createStore<DocumentState>(() => ({ history: null, revision: 0, problem: null }));
  const followers = new Set<Follower>();
  let writing: Promise<unknown> = Promise.resolve();
  let lines = 0;

  /** Writes happen one after the other; a refusal is shown and the work goes on in memory. */
  const keep = (task: () => Promise<Problem | undefined>): Promise<Problem | undefined> => {
    const done = writing.then(task, task);
    writing = done;
    void done.then((problem) => store.setState({ problem: problem ?? null }));
    return done;
  };
  const tell = (show: Show, revision: number, change: Change | null) => {
    for (const follower of followers)
      follower({ show, revision }, change && { patches: change.patches, from: revision - 1 });
  };
  const changed = ({ history, change }: { readonly history: History; readonly change?: Change }) => {
    if (!change || change.patches.length === 0) return;
    const revision = store.getState().revision + 1;
    store.setState({ history, revision });
    tell(history.show, revision, change);
    const { show } = history;
    void keep(() => repository.append(show.id, revision, change));
    if (++lines >= JOURNAL_LINES) {
      lines = 0;
      void keep(() => repository.save({ show, revision }));
    }
  };
  const current = () => store.getState().history;

  return {
    store,
    async open(kept, { keep: write = true } = {}) {
      store.setState({ history: historyOf(kept.show), revision: kept.revision });
      tell(kept.show, kept.revision, null);
      return write ? keep(() => repository.save(kept)) : undefined;
    },
    make: (command) => {
      const history = current();
      if (history) changed(edited(history, command));
    },
    undo: () => {
      const history = current();
      if (history) changed(undone(history));
    },
    redo: () => {
      const history = current();
      if (history) changed(redone(history));
    },
    follow(json, revision) {
      const read = readShow(json, 'the show from the conductor');
      if (!read.ok) return store.setState({ problem: read.problem });
      const history = current();
      const same = history?.show.id === read.value.id;
      store.setState({ history: same ? followed(history, read.value) : historyOf(read.value), revision });
      for (const follower of followers) follower({ show: read.value, revision }, null);
      void keep(() => repository.save({ show: read.value, revision }));
    },
    followPatches(patches, revision) {
      const history = current();
      if (!history || revision !== store.getState().revision) return;
      const read = readShow(patched(history.show, patches), 'an edit from another screen');
      if (!read.ok) return store.setState({ problem: read.problem });
      store.setState({ history: followed(history, read.value), revision: revision + 1 });
      for (const follower of followers) follower({ show: read.value, revision: revision + 1 }, null);
      void keep(() => repository.save({ show: read.value, revision: revision + 1 }));
    },
    onChange(follower) {
      followers.add(follower);
      return () => followers.delete(follower);
    },
  };
}
