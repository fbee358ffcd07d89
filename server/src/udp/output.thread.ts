// The thread around `startOutput`.

import { setPriority } from 'node:os';
import { parentPort, workerData } from 'node:worker_threads';
import { startOutput, type ToOutput } from './output';
import type { Target } from './target';

const { targets, cid } = workerData as { targets: readonly Target[]; cid: Uint8Array };
try {
  // On Linux this is the calling thread's own: light goes before everything else, where the system allows it.
  setPriority(0, -10);
} catch {
  // Without the right to, it runs as everybody does.
}
const output = startOutput(targets, cid);
const reports = setInterval(() => parentPort!.postMessage(output.report()), 1000);
parentPort!.on('message', (message: ToOutput) => {
  void output.tell(message).then(() => {
    if (message.type !== 'stop') return;
    clearInterval(reports);
    parentPort!.close();
  });
});
