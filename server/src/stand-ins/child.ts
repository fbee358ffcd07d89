// Starts the stand-ins beside the server and keeps what they last said.

import { fork, type ChildProcess } from 'node:child_process';
import type { Connections, NodeReport, SerialPlace } from '@hovlix/core/connect';
import { ARTNET_PORT, SACN_PORT } from '@hovlix/core/wire';
import type { FromStandIns, PastFrame, ToStandIns } from './process';

export type StandIns = {
  readonly report: () => NodeReport | null;
  readonly cables: () => readonly SerialPlace[];
  /** What the node heard of a universe in the last seconds, the oldest first; nothing where it does not answer. */
  readonly frames: (universe: number, protocol: ToStandIns['protocol']) => Promise<readonly PastFrame[]>;
  readonly stop: () => void;
};

/** @param program the built stand-ins. @param failed is told in words what does not work. */
export function startStandIns(
  program: string,
  home: string,
  ports: { readonly sacn: number; readonly artnet: number },
  failed: (why: string) => void,
): StandIns {
  const args = [home, String(ports.sacn), String(ports.artnet)];
  const child: ChildProcess = fork(program, args, { stdio: 'ignore' });
  let report: NodeReport | null = null;
  let cables: readonly SerialPlace[] = [];
  const waiting = new Map<number, (frames: readonly PastFrame[]) => void>();
  let asked = 0;
  child.on('message', (message: FromStandIns) => {
    if (message.type === 'frames') {
      waiting.get(message.id)?.(message.frames);
      waiting.delete(message.id);
    } else if (message.type === 'report') report = message.report;
    else if (message.type === 'cables') cables = message.places;
    else failed(message.why);
  });
  child.on('error', (error) => failed(`The stand-ins did not start: ${error.message}.`));
  child.on('exit', () => {
    report = null;
    cables = [];
    for (const answer of waiting.values()) answer([]);
    waiting.clear();
  });
  const frames: StandIns['frames'] = (universe, protocol) =>
    new Promise((resolve) => {
      if (!child.connected) return resolve([]);
      const id = ++asked;
      waiting.set(id, resolve);
      child.send({ type: 'frames', id, universe, protocol } satisfies ToStandIns);
    });
  return { report: () => report, cables: () => cables, frames, stop: () => void child.kill() };
}

/** The stand-in listens where the first output to this computer sends. */
export function standInPorts(connections: Connections): { sacn: number; artnet: number } {
  const portOf = (protocol: 'sacn' | 'artnet', usual: number) =>
    connections.outputs.flatMap(({ way }) =>
      way.protocol === protocol && way.to === '127.0.0.1' && way.port !== undefined ? [way.port] : [],
    )[0] ?? usual;
  return { sacn: portOf('sacn', SACN_PORT), artnet: portOf('artnet', ARTNET_PORT) };
}
