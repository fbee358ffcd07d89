// The output and input threads as the server sees them, and the memory they share. A thread that dies is started anew:
// light is a function of show, state and time, so the new one goes on where the old one stopped.

import { Worker } from 'node:worker_threads';
import type { InputReport, Connections, NetworkFace, OutputReport } from '@hovlix/core/connect';
import type { LiveState } from '@hovlix/core/live';
import type { Show } from '@hovlix/core/show';
import { sharedLevels } from '../input/shared-levels';
import type { InputPorts, ToInput } from '../input/input';
import type { SoundBytes } from '../sounds';
import type { FromOutput, ToOutput } from './output';

export type Threads = {
  readonly tellOutput: (message: ToOutput) => void;
  readonly follow: (connections: Connections) => void;
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
  readonly connections: Connections;
  readonly networks: readonly NetworkFace[];
  /** Where other sources are heard; on the usual ports where none are given. */
  readonly inputPorts?: InputPorts | undefined;
  /** What a thread that starts anew has to know. */
  readonly resume: () => { readonly show: Show | undefined; readonly sounds: SoundBytes; readonly state: LiveState };
  readonly levels: (universe: number, levels: Uint8Array, merged: boolean) => void;
  readonly failed: (thread: string, error: Error) => void;
};

/** The input thread waits for the output's first word for so long at most. */
const INPUT_AFTER_MS = 1500;
/** A thread that dies at once, again and again, must not take the processor with it. */
const AGAIN_MS = 250;

export function startThreads({
  program,
  cid,
  connections: first,
  networks: seen,
  inputPorts,
  resume,
  levels,
  failed,
}: Start): Threads {
  const heard = sharedLevels().buffer;
  let connections = first;
  let networks = seen;
  let watched: readonly number[] = [];
  let stopping = false;
  let outputReport: OutputReport | null = null;
  let inputReport: InputReport | null = null;
  let output = startOutput();
  // Light first: the input thread is started when the output runs, as starting takes the processor for half a second.
  let input: Worker | undefined;
  const openInput = setTimeout(() => (input ??= startInput()), INPUT_AFTER_MS);

  function startOutput(): Worker {
    const worker = new Worker(program('output'), { workerData: { cid, connections, networks, heard } });
    worker.on('message', (message: FromOutput) => {
      if (message.type === 'report') {
        outputReport = message.report;
        if (!stopping) input ??= startInput();
      } else levels(message.universe, message.levels, message.merged);
    });
    worker.on('error', (error) => failed('output', error));
    worker.on('exit', () => {
      outputReport = null;
      if (stopping) return;
      setTimeout(() => {
        output = startOutput();
        const { show, sounds, state } = resume();
        const tell = (message: ToOutput) => output.postMessage(message);
        tell({ type: 'sounds', sounds });
        if (show) tell({ type: 'show', show });
        tell({ type: 'state', state });
        tell({ type: 'watch', universes: watched });
      }, AGAIN_MS);
    });
    return worker;
  }

  function startInput(): Worker {
    const worker = new Worker(program('input'), { workerData: { cid, networks, heard, ports: inputPorts } });
    worker.postMessage({ type: 'connections', connections } satisfies ToInput);
    worker.on('message', (report: InputReport) => (inputReport = report));
    worker.on('error', (error) => failed('input', error));
    worker.on('exit', () => {
      inputReport = null;
      if (!stopping) setTimeout(() => (input = startInput()), AGAIN_MS);
    });
    return worker;
  }

  return {
    tellOutput(message) {
      if (message.type === 'watch') watched = message.universes;
      output.postMessage(message);
    },
    follow(next) {
      connections = next;
      output.postMessage({ type: 'connections', connections } satisfies ToOutput);
      input?.postMessage({ type: 'connections', connections } satisfies ToInput);
    },
    see(next) {
      networks = next;
      output.postMessage({ type: 'networks', networks } satisfies ToOutput);
      input?.postMessage({ type: 'networks', networks } satisfies ToInput);
    },
    output: () => outputReport,
    input: () => inputReport,
    async stop() {
      stopping = true;
      const ended = new Promise((resolve) => output.once('exit', resolve));
      output.postMessage({ type: 'stop' } satisfies ToOutput);
      clearTimeout(openInput);
      input?.postMessage({ type: 'stop' } satisfies ToInput);
      await Promise.race([ended, new Promise((resolve) => setTimeout(resolve, 1000))]);
    },
  };
}
