// Light goes before everything else on this computer, as far as its system allows.

import { execFile } from 'node:child_process';
import { readlinkSync, writeFileSync } from 'node:fs';
import { setPriority } from 'node:os';

/** Of 1 to 99: before all that is not in real time, and behind what moves sound, which asks for more. */
const REAL_TIME = '5';

/**
 * Gives the calling thread precedence: among others where that is allowed, and on Linux before all others (SCHED_RR,
 * sched(7)) where the user may (RLIMIT_RTPRIO, getrlimit(2)). What it starts goes as everything does.
 * @returns asks whether it goes in real time; null on a system that has none to give.
 */
export function goFirst(): () => boolean | null {
  try {
    // On Linux this is the calling thread's own.
    setPriority(0, -10);
    // Precedence counts within a session there; this gives the session of the server precedence over others (sched(7)).
    writeFileSync('/proc/self/autogroup', '-10');
  } catch {
    // Without the right to, or on another system, it runs as everybody does.
  }
  if (process.platform !== 'linux') return () => null;
  let granted = false;
  try {
    const thread = readlinkSync('/proc/thread-self').split('/').at(-1)!;
    execFile('chrt', ['--rr', '--reset-on-fork', '--pid', REAL_TIME, thread], (refused) => {
      granted = refused === null;
    });
  } catch {
    // Without /proc there is no telling which thread this is.
  }
  return () => granted;
}
