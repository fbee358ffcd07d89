// The serial stand-in: a pseudo-terminal that a program opens like a USB cable. It decodes what arrives.

import { spawn } from 'node:child_process';
import { rmSync, symlinkSync } from 'node:fs';
import type { NodeReport } from '@hovlix/core/connect';
import { framedReader, plainReader } from '@hovlix/core/wire';
import { now } from '../clock';
import { lineBook } from './line-book';

export type SerialStandIn = {
  /** What to open. */
  readonly path: string;
  readonly report: () => NodeReport;
  /** Pulls the cable. */
  readonly close: () => void;
};

/**
 * @param at a name for the pseudo-terminal that stays the same over restarts.
 * @throws Error where the system has no pseudo-terminals or lacks `script` (util-linux).
 */
export async function startSerial(kind: 'plain' | 'framed', at?: string): Promise<SerialStandIn> {
  // `script` owns the near end of a pseudo-terminal and copies what arrives there to its output.
  const child = spawn('script', ['-qfc', 'stty raw -echo && tty && exec sleep infinity', '/dev/null'], {
    stdio: ['pipe', 'pipe', 'ignore'],
  });
  child.stdin.on('error', () => undefined);
  const lines = lineBook();
  const reader = (kind === 'framed' ? framedReader : plainReader)((levels) =>
    lines.take(
      kind,
      { universe: 1, protocol: 'serial', source: kind === 'framed' ? 'framed cable' : 'plain cable', priority: null },
      null,
      levels,
    ),
  );
  const name = await new Promise<string>((resolve, reject) => {
    child.once('error', () => reject(new Error('the system has no `script` command to make a pseudo-terminal with')));
    child.once('exit', () => reject(new Error('the pseudo-terminal did not open')));
    let said = '';
    const hello = (bytes: Buffer) => {
      said += bytes.toString();
      const tty = /(\/dev\/\S+)\r?\n/.exec(said);
      if (!tty) return;
      child.stdout.off('data', hello);
      child.stdout.on('data', (more: Buffer) => reader.take(more, now()));
      resolve(tty[1]!);
    };
    child.stdout.on('data', hello);
  });
  if (at) {
    rmSync(at, { force: true });
    symlinkSync(name, at);
  }
  return {
    path: at ?? name,
    report: () => ({
      universes: lines.report(),
      bad: reader.bad(),
      lastBad: reader.bad() > 0 ? 'serial: bytes between frames' : null,
    }),
    close() {
      if (at) rmSync(at, { force: true });
      child.kill('SIGKILL');
    },
  };
}
