// Runs commands beside each other: what each says is told line by line, with its name before it.

import { spawn, spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const behind = fileURLToPath(new URL('behind', import.meta.url));
const running = new Set();

for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => {
    for (const child of running) end(child);
    process.exit(1);
  });

function end(child) {
  try {
    process.kill(-child.pid, 'SIGINT');
  } catch {
    // It has ended by itself.
  }
}

/** What puts a command into a network of its own, with the same ports and no one else in it; undefined where that may not be. */
export function ownNetwork() {
  const apart = [
    'unshare',
    process.getuid?.() === 0 ? '-n' : '-rn',
    'sh',
    '-c',
    'ip link set lo up && exec "$@"',
    'sh',
  ];
  const [command, ...args] = [...apart, 'true'];
  return spawnSync(command, args, { stdio: 'ignore' }).status === 0 ? apart : undefined;
}

/**
 * Runs a command to its end.
 * @param what `name` before its lines; `cwd`, `env`; `quiet` leaves out what it says on stdout; `network` is a prefix from
 * `ownNetwork`; `yields` puts it behind whatever else wants the processors.
 * @returns whether it ended well.
 */
export function ended(words, { name, cwd = root, env, quiet = false, network = [], yields = false }) {
  const [command, ...args] = [...network, ...(yields ? [behind] : []), ...words];
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      cwd,
      detached: true,
      stdio: ['ignore', quiet ? 'ignore' : 'pipe', 'pipe'],
      env: { ...process.env, ...env },
    });
    running.add(child);
    for (const stream of [child.stdout, child.stderr]) if (stream) tellLines(stream, name);
    child.once('error', (error) => {
      console.log(`${name} │ ${error.message}`);
      resolve(false);
    });
    child.once('close', (code) => {
      running.delete(child);
      resolve(code === 0);
    });
  });
}

function tellLines(stream, name) {
  let rest = '';
  stream.setEncoding('utf8');
  stream.on('data', (text) => {
    const lines = (rest + text).split('\n');
    rest = lines.pop();
    for (const line of lines) console.log(`${name} │ ${line}`);
  });
  stream.once('end', () => rest && console.log(`${name} │ ${rest}`));
}
