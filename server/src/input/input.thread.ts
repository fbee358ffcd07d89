// The thread around `startInput`.

import { parentPort, workerData } from 'node:worker_threads';
import type { NetworkFace } from '@hovlix/core/connect';
import { startInput, type ToInput } from './input';
import { sharedLevels } from './shared-levels';

const { cid, networks, heard } = workerData as { cid: Uint8Array; networks: NetworkFace[]; heard: SharedArrayBuffer };
const input = startInput({ cid, networks, heard: sharedLevels(heard) });
const reports = setInterval(() => parentPort!.postMessage(input.report()), 500);
parentPort!.on('message', (message: ToInput) => {
  input.tell(message);
  if (message.type !== 'stop') return;
  clearInterval(reports);
  parentPort!.close();
});
