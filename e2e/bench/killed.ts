// How long there is no light when the server is killed: the built command, measured at a receiver.

import { spawnSync } from 'node:child_process';
import { receiver } from './receiver';
import { startServer } from './served';

const PORT = 4789;
const WIRE = 6989;

/** @returns seconds from each death to the first packet after it, the longest last. */
export async function gapsAfterDeath(deaths: number): Promise<readonly number[]> {
  const node = await receiver(WIRE);
  const guard = await startServer(PORT, '--demo', '--to', `sacn:127.0.0.1:${WIRE}`);
  const gaps: number[] = [];
  for (let n = 0; n < deaths; n++) {
    // As at a gig: the process in reserve has been ready for long.
    await new Promise((resolve) => setTimeout(resolve, 7000));
    const serving = Number(spawnSync('pgrep', ['-o', '-P', String(guard.pid)], { encoding: 'utf8' }).stdout);
    process.kill(serving, 'SIGKILL');
    const killed = performance.now();
    // What was on its way still arrives.
    const first = () => node.heard.find((at) => at > killed + 60);
    while (first() === undefined) await new Promise((resolve) => setTimeout(resolve, 20));
    gaps.push((first()! - killed) / 1000);
  }
  guard.kill('SIGTERM');
  await new Promise((resolve) => guard.once('exit', resolve));
  node.close();
  return gaps.sort((a, b) => a - b);
}
