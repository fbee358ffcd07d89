// The thread around `startOutput`.

import { parentPort, workerData } from 'node:worker_threads';
import type { Connections, NetworkFace } from '@hovlix/core/connect';
import { sharedLevels } from '../input/shared-levels';
import { startOutput, type FromOutput, type ToOutput } from './output';
import { goFirst } from './precedence';

const { cid, connections, networks, heard } = workerData as {
  cid: Uint8Array;
  connections: Connections;
  networks: NetworkFace[];
  heard: SharedArrayBuffer;
};
const say = (message: FromOutput, hand: ArrayBuffer[] = []) => parentPort!.postMessage(message, hand);
const output = startOutput({
  cid,
  connections,
  networks,
  heard: sharedLevels(heard),
  realTime: goFirst(),
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
