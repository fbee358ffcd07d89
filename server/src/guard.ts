// The guard: starts the server anew whenever it dies, so that the light is back at once. A server whose guard dies gives
// itself another.

import { fork, type ChildProcess } from 'node:child_process';

/** What the guarded process finds in its environment. */
export const GUARDED = 'HOVLIX_GUARDED';

/** Told by the guarded process when it serves: from then on it is started again. */
export const SERVING = 'serving';

/** A second process is ready and waits, with everything loaded: told this, it takes over from one that has died. */
const TAKE_OVER = 'take over';
/** It is made ready when the one that serves has had the processor for a while, in ms. */
const SPARE_AFTER_MS = 3000;

/** Told by a server that ends because it was asked to: it is not started again. */
const ENDING = 'ending';
/** A guard that dies at once is not replaced faster than this. */
const NEXT_GUARD_MS = 250;

/**
 * Sees to it that the process that serves, started by a guard, has one: where it dies, another is started below it.
 * @returns what to call before the process ends by itself.
 */
export function underGuard(): () => void {
  let guard: ChildProcess | undefined;
  let ending = false;
  const another = () => {
    if (ending) return;
    const [program, ...args] = process.argv.slice(1);
    // Not in the same group: what ends one of them shall not end both.
    guard = fork(program!, args, { env: { ...process.env, [GUARDED]: 'guard' }, detached: true });
    guard.once('exit', () => setTimeout(another, NEXT_GUARD_MS));
    guard.once('error', () => undefined);
  };
  process.once('disconnect', another);
  return () => {
    ending = true;
    if (guard?.connected) guard.send(ENDING);
  };
}

/** What this process is: nothing where a person started it. */
export const roleOfThis = (): string | undefined => process.env['HOVLIX_GUARDED'];

/** Waits, as the one in reserve, until it is wanted. */
export function inReserve(): Promise<void> {
  return new Promise((resolve) => {
    process.once('disconnect', () => process.exit());
    process.on('message', (message) => {
      if (message !== TAKE_OVER) return;
      process.removeAllListeners('disconnect');
      process.env[GUARDED] = 'again';
      resolve();
    });
  });
}

/**
 * Memory is tidied by the thread that needs it. With helpers it waits for them where a busy computer leaves them no
 * processor: up to 0.6 s without a frame were measured.
 */
const TIDY_ALONE = '--single-threaded-gc';

/** One that dies again before this long waits longer and longer before it is started again, up to `SLOWEST_MS`. */
const SETTLED_MS = 1500;
const SLOWEST_MS = 2000;

/**
 * Runs a program in a process of its own until it ends by itself or is told to.
 * @param parent it runs already, and started this guard when its own had died.
 * @returns its exit code.
 */
export function guarded(program: string, args: readonly string[], parent = false): Promise<number> {
  return new Promise((resolve) => {
    let child: ChildProcess | undefined;
    let spare: ChildProcess | undefined;
    let served = parent;
    let stopping = false;
    let wait = 0;
    const execArgv = [...process.execArgv.filter((flag) => flag !== TIDY_ALONE), TIDY_ALONE];
    const made = (as: 'first' | 'again' | 'spare') =>
      fork(program, args, { env: { ...process.env, [GUARDED]: as }, execArgv });
    const reserve = () => {
      if (stopping || spare) return;
      const one = made('spare');
      spare = one;
      one.once('exit', () => {
        if (spare === one) spare = undefined;
      });
    };
    const start = () => {
      // Told to end while there was nobody to tell.
      if (stopping) return resolve(0);
      const begun = Date.now();
      // A server that was started again goes on with the night, and does not say again where it is.
      const one = spare ?? made(served ? 'again' : 'first');
      if (spare) one.send(TAKE_OVER);
      spare = undefined;
      child = one;
      one.on('message', (message) => {
        if (message !== SERVING) return;
        served = true;
        setTimeout(reserve, SPARE_AFTER_MS).unref();
      });
      one.once('exit', (code, signal) => {
        if (stopping || code === 0 || !served) {
          stopping = true;
          spare?.kill('SIGKILL');
          return resolve(code ?? 1);
        }
        process.stderr.write(`hovlix: it ended (${signal ?? `exit ${code}`}) and is started again.\n`);
        wait = Date.now() - begun > SETTLED_MS ? 0 : Math.min(SLOWEST_MS, wait * 2 + 100);
        setTimeout(start, wait);
      });
    };
    const stop = () => {
      stopping = true;
      spare?.kill('SIGKILL');
    };
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const)
      process.on(signal, () => {
        stop();
        if (child) child.kill(signal);
        else process.kill(process.ppid, signal);
      });
    if (!parent) return start();
    process.on('message', (message) => {
      if (message === ENDING) stop();
    });
    // It may have died while this program was loaded.
    if (!process.connected) return start();
    process.once('disconnect', start);
    setTimeout(reserve, SPARE_AFTER_MS).unref();
  });
}
