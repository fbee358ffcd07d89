// The built command, as tests start it: none outlives its test, whatever becomes of that; it would be heard by others.

import { spawn, spawnSync, type ChildProcessWithoutNullStreams } from 'node:child_process';
import { join } from 'node:path';

const command = join(__dirname, '../../bin/hovlix.mjs');
const running: ChildProcessWithoutNullStreams[] = [];

/** Starts `hovlix ARGS`; what it keeps goes to the folder in its `--home`, by which those are found that it leaves behind. */
export function started(args: readonly string[], env: NodeJS.ProcessEnv = {}): ChildProcessWithoutNullStreams {
  const child = spawn(process.execPath, [command, ...args], { env: { ...process.env, ...env } });
  running.push(child);
  return child;
}

afterEach(async () => {
  for (const child of running.splice(0)) {
    // Asked to end, the guard takes what it guards with it; killed, it would leave it to go on.
    if (child.exitCode === null && child.signalCode === null) {
      const gone = new Promise((resolve) => child.once('exit', resolve));
      child.kill('SIGTERM');
      await gone;
    }
    // A test that killed the guard itself, and failed.
    const home = child.spawnargs[child.spawnargs.indexOf('--home') + 1];
    if (home?.startsWith('/')) spawnSync('pkill', ['-KILL', '-f', `--home ${home}`]);
  }
});
