// The thread around `startOutput`.

import { writeFileSync } from 'node:fs';
import { setPriority } from 'node:os';
import { parentPort, workerData } from 'node:worker_threads';
import type { Connections, NetworkFace } from '@hovlix/core/connect';
import { sharedLevels } from '../input/shared-levels';
import { startOutput, type FromOutput, type ToOutput } from './output';

const { cid, connections, networks, heard } = workerData as {
  cid: Uint8Array;
  connections: Connections;
  networks: NetworkFace[];
  heard: SharedArrayBuffer;
};
try {
  // On Linux this is the calling thread's own: light goes before everything else, where the system allows it.
  setPriority(0, -10);
  // Precedence counts within a session there; this gives the session of the server precedence over others (sched(7)).
  writeFileSync('/proc/self/autogroup', '-10');
} catch {
  // Without the right to, or on another system, it runs as everybody does.
}
const say = (message: FromOutput, hand: ArrayBuffer[] = []) => parentPort!.postMessage(message, hand);
const output = startOutput({
  cid,
  connections,
  networks,
  heard: sharedLevels(heard),
  show: (universe, levels, merged) => say({ type: 'levels', universe, levels, merged }, [levels.buffer as ArrayBuffer]),
});
const reports = setInterval(() => say({ type: 'report', report: output.report() }), 500);
parentPort!.on('message', (message: ToOutput) => {
  void output.tell(message).then(() => {
    if (message.type !== 'stop') return;
    clearInterval(reports);
    parentPort!.close();
  });
});
