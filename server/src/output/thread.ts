// The output and input threads as the server sees them, and the memory they share.

import { Worker } from 'node:worker_threads';
import type { InputReport, Links, NetworkFace, OutputReport } from '@hovlix/core/links';
import { sharedLevels } from '../input/shared-levels';
import type { ToInput } from '../input/input';
import type { FromOutput, ToOutput } from './output';

export type Threads = {
  readonly tellOutput: (message: ToOutput) => void;
  readonly follow: (links: Links) => void;
  readonly see: (networks: readonly NetworkFace[]) => void;
  readonly output: () => OutputReport | null;
  readonly input: () => InputReport | null;
  /** Says goodbye on all wires, then ends. */
  readonly stop: () => Promise<void>;
};

type Start = {
  /** URL of a built thread: `output` or `input`. */
  readonly program: (name: 'output' | 'input') => URL;
  readonly cid: Uint8Array;
  readonly links: Links;
  readonly networks: readonly NetworkFace[];
  readonly levels: (universe: number, levels: Uint8Array, merged: boolean) => void;
  readonly failed: (thread: string, error: Error) => void;
};

export function startThreads({ program, cid, links, networks, levels, failed }: Start): Threads {
  const heard = sharedLevels().buffer;
  const output = new Worker(program('output'), { workerData: { cid, links, networks, heard } });
  const input = new Worker(program('input'), { workerData: { cid, networks, heard } });
  let outputReport: OutputReport | null = null;
  let inputReport: InputReport | null = null;
  output.on('message', (message: FromOutput) => {
    if (message.type === 'report') outputReport = message.report;
    else levels(message.universe, message.levels, message.merged);
  });
  input.on('message', (report: InputReport) => (inputReport = report));
  output.on('error', (error) => failed('output', error));
  input.on('error', (error) => failed('input', error));
  const tellInput = (message: ToInput) => input.postMessage(message);
  tellInput({ type: 'links', links });
  return {
    tellOutput: (message) => output.postMessage(message),
    follow(next) {
      output.postMessage({ type: 'links', links: next } satisfies ToOutput);
      tellInput({ type: 'links', links: next });
    },
    see(next) {
      output.postMessage({ type: 'networks', networks: next } satisfies ToOutput);
      tellInput({ type: 'networks', networks: next });
    },
    output: () => outputReport,
    input: () => inputReport,
    async stop() {
      const ended = new Promise((resolve) => output.once('exit', resolve));
      output.postMessage({ type: 'stop' } satisfies ToOutput);
      tellInput({ type: 'stop' });
      await Promise.race([ended, new Promise((resolve) => setTimeout(resolve, 1000))]);
    },
  };
}
