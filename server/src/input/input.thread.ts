// The thread around `startInput`.

import { parentPort, workerData } from 'node:worker_threads';
import type { NetworkFace } from '@hovlix/core/connect';
import { startInput, type InputPorts, type ToInput } from './input';
import { sharedLevels } from './shared-levels';

type Given = {
  readonly cid: Uint8Array;
  readonly networks: NetworkFace[];
  readonly heard: SharedArrayBuffer;
  readonly ports: InputPorts | undefined;
};

const { cid, networks, heard, ports } = workerData as Given;
const input = startInput({ cid, networks, heard: sharedLevels(heard), ...(ports ? { ports } : {}) });
const reports = setInterval(() => parentPort!.postMessage(input.report()), 500);
parentPort!.on('message', (message: ToInput) => {
  input.tell(message);
  if (message.type !== 'stop') return;
  clearInterval(reports);
  parentPort!.close();
});
