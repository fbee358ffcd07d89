// The connections of this computer: one document in a file, changed by screens, followed by everything that sends or listens.

import { existsSync, readFileSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import {
  editConnections,
  NO_CONNECTIONS,
  reaching,
  readConnections,
  type Connections,
  type ConnectCommand,
  type Way,
} from '@hovlix/core/connect';
import { wordsFor } from '@hovlix/core/problem';
import { asideOf, keptWhole, reasonOf, setAside } from '../keep/whole';

export type ConnectionsStore = {
  readonly connections: () => Connections;
  readonly onChange: (follower: (connections: Connections) => void) => void;
  /** Makes an edit, or says why it cannot be made. One that finds nothing to do changes nothing. */
  readonly edit: (command: ConnectCommand) => string | undefined;
  /** Gives each universe that never had an output one. */
  readonly reach: (universes: readonly number[], ways: readonly ((universe: number) => Way)[]) => void;
};

/**
 * @param file where they are kept; without, only in memory. A file that cannot be read is set aside, not overwritten.
 * @param trouble is told in words why they cannot be kept; null when they can again.
 * @param lost is told in words what could not be read.
 */
export function connectionsStore(
  file: string | undefined,
  trouble: (why: string | null) => void,
  lost: (why: string) => void = trouble,
): ConnectionsStore {
  let connections = file ? read(file, lost) : NO_CONNECTIONS;
  const followers: ((connections: Connections) => void)[] = [];
  const keep =
    file === undefined
      ? () => undefined
      : keptWhole(
          file,
          () => JSON.stringify(connections, null, 2),
          (why) => trouble(why && `The outputs are not kept: ${why}. They are lost when Hovlix stops.`),
        );
  const take = (next: Connections) => {
    if (next === connections) return;
    connections = next;
    keep();
    for (const follower of followers) follower(connections);
  };
  return {
    connections: () => connections,
    onChange: (follower) => void followers.push(follower),
    edit(command) {
      const { connections: edited, ops } = editConnections(connections, command);
      if (ops.length === 0) return undefined;
      const next = readConnections(edited, 'the connections');
      if (!next.ok) return wordsFor(next.problem);
      take(next.value);
      return undefined;
    },
    reach(universes, ways) {
      // Each way in turn: the first marks a universe as reached, so all are laid on the same start.
      const from = connections;
      const rows = ways.map((way) => reaching(from, universes, way).outputs.slice(from.outputs.length));
      const first = ways[0] ? reaching(from, universes, ways[0]) : from;
      const more = rows
        .slice(1)
        .flatMap((list, n) => list.map((row) => ({ ...row, id: `${row.id}-${n}` as typeof row.id })));
      take(first === from ? from : { ...first, outputs: [...first.outputs, ...more] });
    },
  };
}

/** Connect was called Links: what was kept under that name is taken over once. */
const nameOfOld = (file: string) => join(dirname(file), basename(file).replace(/^connect/, 'links'));

function read(path: string, lost: (why: string) => void): Connections {
  const file = [path, nameOfOld(path)].find((one) => existsSync(one));
  if (file === undefined) return NO_CONNECTIONS;
  const aside = `It was set aside as ${asideOf(file)}; outputs start anew.`;
  try {
    const connections = readConnections(JSON.parse(readFileSync(file, 'utf8')), file);
    if (connections.ok) return connections.value;
    lost(`${wordsFor(connections.problem)} ${aside}`);
  } catch (error) {
    lost(error instanceof SyntaxError ? `“${file}” is not JSON. ${aside}` : `“${file}”: ${reasonOf(error)}. ${aside}`);
  }
  setAside(file);
  return NO_CONNECTIONS;
}
