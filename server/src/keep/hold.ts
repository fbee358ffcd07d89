// What one process of this computer has to itself: a lock beside it says which, for as long as that process runs.

import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';

/** Those that go when this process ends. */
const held = new Set<string>();

/**
 * Takes a lock, or keeps it.
 * @returns false where another process holds it that still runs. Where nothing can be written there is no telling: true.
 */
export function holds(lock: string): boolean {
  if (isTaken(lock)) return false;
  if (held.has(lock) && existsSync(lock)) return true;
  try {
    mkdirSync(dirname(lock), { recursive: true });
    // Made anew and never written through: it may lie in a folder where others can put a link in its place.
    rmSync(lock, { force: true });
    writeFileSync(lock, `${process.pid} ${startOf(process.pid)}`, { flag: 'wx' });
    if (!held.has(lock)) process.once('exit', () => isTaken(lock) || rmSync(lock, { force: true }));
    held.add(lock);
  } catch {
    // A folder that cannot be written to, or another process was quicker.
  }
  return !isTaken(lock);
}

/** True where a lock names another process that still runs. */
function isTaken(lock: string): boolean {
  try {
    const [number, start = ''] = readFileSync(lock, 'utf8').split(' ');
    const pid = Number(number);
    if (pid === process.pid || !Number.isInteger(pid) || pid <= 0) return false;
    process.kill(pid, 0);
    // A number lives again under another program: that one began at another time.
    return start === '' || start === startOf(pid);
  } catch (error) {
    // EPERM: it runs, under another user.
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}

/** When a process began, by the system's own count; empty where the system does not tell. */
function startOf(pid: number): string {
  try {
    // The 22nd field, counted behind the name, which may hold anything (proc(5), /proc/pid/stat).
    return readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ').at(-1)!.split(' ')[19] ?? '';
  } catch {
    return '';
  }
}
