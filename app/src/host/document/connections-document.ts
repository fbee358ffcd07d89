// The connections of the computer that conducts, as this screen sees them: edits go there, and come back as the truth.

import { createStore, type StoreApi } from 'zustand/vanilla';
import { editConnections, readConnections, type Connections, type ConnectCommand } from '@hovlix/core/connect';
import { inverse, type Ops } from '@hovlix/core/show';
import type { Conducting } from '../conduct/conduct';

export type ConnectionsState = {
  /** Null while no server conducts: a browser alone has no way out. */
  readonly connections: Connections | null;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
};

export type ConnectionsDocument = {
  readonly store: StoreApi<ConnectionsState>;
  readonly make: (command: ConnectCommand) => void;
  /** Takes back the newest edit of this screen. */
  readonly undo: () => void;
  readonly redo: () => void;
  /** What takes back the newest edit of this moment, and no later one. */
  readonly takingBack: () => () => void;
};

const DEEPEST = 200;

export function connectionsDocument(conducting: Conducting): ConnectionsDocument {
  const store = createStore<ConnectionsState>(() => ({ connections: null, canUndo: false, canRedo: false }));
  /** What this screen did: only that is taken back here. */
  let past: Ops[] = [];
  let future: Ops[] = [];
  /** Edits that the conductor has not answered yet, shown on top of what it says. */
  let pending: ConnectCommand[] = [];

  conducting.onConnections((json) => {
    const read = readConnections(json, 'the connections');
    if (!read.ok) return;
    // The conductor answers each edit in its order: the first that waits is in what came.
    pending = pending.slice(1);
    const shown = pending.reduce((now, command) => editConnections(now, command).connections, read.value);
    store.setState({ connections: shown });
  });

  /** Shown at once; the conductor's answer follows and is what counts. */
  const send = (command: ConnectCommand): Ops => {
    const { connections } = store.getState();
    if (!connections) return [];
    const edited = editConnections(connections, command);
    if (edited.ops.length === 0) return [];
    pending = [...pending, command].slice(-20);
    store.setState({ connections: edited.connections });
    conducting.say({ type: 'connections-edit', command });
    return edited.ops;
  };
  const settle = () => store.setState({ canUndo: past.length > 0, canRedo: future.length > 0 });

  const undo = (wanted?: Ops): void => {
    const ops = wanted ?? past.at(-1);
    if (!ops || !past.includes(ops)) return;
    past = past.filter((one) => one !== ops);
    const back = send({ type: 'adjust', ops: [...inverse(ops)] });
    if (back.length > 0) future = [...future, back];
    settle();
  };

  return {
    store,
    make(command) {
      const ops = send(command);
      if (ops.length === 0) return;
      past = [...past, ops].slice(-DEEPEST);
      future = [];
      settle();
    },
    undo: () => undo(),
    takingBack() {
      const ops = past.at(-1);
      return () => ops && undo(ops);
    },
    redo() {
      const ops = future.at(-1);
      if (!ops) return;
      future = future.slice(0, -1);
      const again = send({ type: 'adjust', ops: [...inverse(ops)] });
      if (again.length > 0) past = [...past, again];
      settle();
    },
  };
}
