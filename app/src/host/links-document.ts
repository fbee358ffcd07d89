// The links of the computer that conducts, as this screen sees them: edits go there, and come back as the truth.

import { createStore, type StoreApi } from 'zustand/vanilla';
import { editLinks, readLinks, type Links, type LinksChange, type LinksCommand } from '@hovlix/core/links';
import { patched } from '@hovlix/core/show';
import type { Conducting } from './conduct';
import { localSeconds } from './local-clock';

export type LinksState = {
  /** Null while no server conducts: a browser alone has no way out. */
  readonly links: Links | null;
  readonly revision: number;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
};

export type LinksDocument = {
  readonly store: StoreApi<LinksState>;
  readonly make: (command: LinksCommand) => void;
  readonly undo: () => void;
  readonly redo: () => void;
};

const DEEPEST = 200;
const ANSWERED_WITHIN = 1;

export function linksDocument(conducting: Conducting): LinksDocument {
  const store = createStore<LinksState>(() => ({ links: null, revision: 0, canUndo: false, canRedo: false }));
  /** What this screen did: only that is taken back here. */
  let past: LinksChange[] = [];
  let future: LinksChange[] = [];

  /** When this screen last edited: an answer to an earlier edit must not undo a later one before its own answer comes. */
  let editedAt = -Infinity;

  conducting.onLinks((json, revision) => {
    if (revision < store.getState().revision && localSeconds() - editedAt < ANSWERED_WITHIN) return;
    const read = readLinks(json, 'the links');
    if (read.ok) store.setState({ links: read.value, revision });
  });

  const lay = (patches: LinksChange['patches']): boolean => {
    const { links, revision } = store.getState();
    if (!links || patches.length === 0) return false;
    try {
      // Shown at once; the conductor's answer follows and is what counts.
      store.setState({ links: patched(links, patches), revision: revision + 1 });
    } catch {
      // Another screen removed what this step was about.
      return false;
    }
    editedAt = localSeconds();
    conducting.say({ type: 'links-edit', patches: patches as never, revision });
    return true;
  };
  const settle = () => store.setState({ canUndo: past.length > 0, canRedo: future.length > 0 });

  return {
    store,
    make(command) {
      const { links } = store.getState();
      if (!links) return;
      const { change } = editLinks(links, command);
      if (!lay(change.patches)) return;
      past = [...past, change].slice(-DEEPEST);
      future = [];
      settle();
    },
    undo() {
      const change = past.at(-1);
      if (!change) return;
      past = past.slice(0, -1);
      if (lay(change.inverse)) future = [...future, change];
      settle();
    },
    redo() {
      const change = future.at(-1);
      if (!change) return;
      future = future.slice(0, -1);
      if (lay(change.patches)) past = [...past, change];
      settle();
    },
  };
}
