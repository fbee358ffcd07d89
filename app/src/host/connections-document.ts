// The connections of the computer that conducts, as this screen sees them: edits go there, and come back as the truth.

import { createStore, type StoreApi } from 'zustand/vanilla';
import {
  editConnections,
  readConnections,
  type Connections,
  type ConnectionsChange,
  type ConnectCommand,
} from '@hovlix/core/connect';
import { patched } from '@hovlix/core/show';
import type { Conducting } from './conduct';
import { localSeconds } from './local-clock';

export type ConnectionsState = {
  /** Null while no server conducts: a browser alone has no way out. */
  readonly connections: Connections | null;
  readonly revision: number;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
};

export type ConnectionsDocument = {
  readonly store: StoreApi<ConnectionsState>;
  readonly make: (command: ConnectCommand) => void;
  readonly undo: () => void;
  readonly redo: () => void;
};

const DEEPEST = 200;
const ANSWERED_WITHIN = 1;

export function connectionsDocument(conducting: Conducting): ConnectionsDocument {
  const store = createStore<ConnectionsState>(() => ({
    connections: null,
    revision: 0,
    canUndo: false,
    canRedo: false,
  }));
  /** What this screen did: only that is taken back here. */
  let past: ConnectionsChange[] = [];
  let future: ConnectionsChange[] = [];

  /** When this screen last edited: an answer to an earlier edit must not undo a later one before its own answer comes. */
  let editedAt = -Infinity;

  conducting.onConnections((json, revision) => {
    if (revision < store.getState().revision && localSeconds() - editedAt < ANSWERED_WITHIN) return;
    const read = readConnections(json, 'the connections');
    if (read.ok) store.setState({ connections: read.value, revision });
  });

  const lay = (patches: ConnectionsChange['patches']): boolean => {
    const { connections, revision } = store.getState();
    if (!connections || patches.length === 0) return false;
    try {
      // Shown at once; the conductor's answer follows and is what counts.
      store.setState({ connections: patched(connections, patches), revision: revision + 1 });
    } catch {
      // Another screen removed what this step was about.
      return false;
    }
    editedAt = localSeconds();
    conducting.say({ type: 'connections-edit', patches: patches as never, revision });
    return true;
  };
  const settle = () => store.setState({ canUndo: past.length > 0, canRedo: future.length > 0 });

  return {
    store,
    make(command) {
      const { connections } = store.getState();
      if (!connections) return;
      const { change } = editConnections(connections, command);
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
