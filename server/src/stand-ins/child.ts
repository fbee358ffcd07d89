// Starts the stand-ins beside the server and keeps what they last said.

import { fork, type ChildProcess } from 'node:child_process';
import type { NodeReport, SerialPlace } from '@hovlix/core/links';
import type { FromStandIns } from './process';

export type StandIns = {
  readonly report: () => NodeReport | null;
  readonly cables: () => readonly SerialPlace[];
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
  child.on('message', (message: FromStandIns) => {
    if (message.type === 'report') report = message.report;
    else if (message.type === 'cables') cables = message.places;
    else failed(message.why);
  });
  child.on('error', (error) => failed(`The stand-ins did not start: ${error.message}.`));
  child.on('exit', () => {
    report = null;
    cables = [];
  });
  return { report: () => report, cables: () => cables, stop: () => void child.kill() };
}
