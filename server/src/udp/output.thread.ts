// The thread around `startOutput`.

import { parentPort, workerData } from 'node:worker_threads';
import { startOutput, type ToOutput } from './output';
import type { Target } from './target';

const { targets, cid } = workerData as { targets: readonly Target[]; cid: Uint8Array };
const output = startOutput(targets, cid);
const reports = setInterval(() => parentPort!.postMessage(output.report()), 1000);
parentPort!.on('message', (message: ToOutput) => {
  void output.tell(message).then(() => {
    if (message.type !== 'stop') return;
    clearInterval(reports);
    parentPort!.close();
  });
});
