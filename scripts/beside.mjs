// Runs commands beside each other: what each says is told line by line, with its name before it.

import { spawn } from 'node:child_process';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const behind = fileURLToPath(new URL('behind', import.meta.url));
/** How long the last words of a command are waited for. */
const AFTERWARDS_MS = 2000;
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

/**
 * Runs a command to its end.
 * @param words the command and its arguments.
 * @param how `name` before its lines; `cwd`, `env`; `quiet` leaves out what it says on stdout; `yields` puts it behind
 * whatever else wants the processors; `said` gathers its lines.
 * @returns whether it ended well.
 */
export function ended(words, { name, cwd = root, env, quiet = false, yields = false, said }) {
  const [command, ...args] = yields ? [behind, ...words] : words;
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      cwd,
      detached: true,
      stdio: ['ignore', quiet ? 'ignore' : 'pipe', 'pipe'],
      env: { ...process.env, ...env },
    });
    running.add(child);
    for (const stream of [child.stdout, child.stderr]) if (stream) tellLines(stream, name, said);
    child.once('error', (error) => {
      console.log(`${name} │ ${error.message}`);
      resolve(false);
    });
    child.once('exit', (code) => {
      running.delete(child);
      const done = () => resolve(code === 0);
      child.once('close', done);
      // What it left behind may hold its outputs open.
      setTimeout(done, AFTERWARDS_MS);
    });
  });
}

function tellLines(stream, name, said) {
  let rest = '';
  const tell = (line) => {
    console.log(`${name} │ ${line}`);
    said?.push(line);
  };
  stream.setEncoding('utf8');
  stream.on('data', (text) => {
    const lines = (rest + text).split('\n');
    rest = lines.pop();
    for (const line of lines) tell(line);
  });
  stream.once('end', () => rest && tell(rest));
}
