// The name this Hovlix has on sACN for as long as it is installed (E1.31, clause 5.6: a CID is kept).

import { randomBytes } from 'node:crypto';
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** So many copies of Hovlix may run on one computer at once, each under a name of its own. */
const MOST_COPIES = 8;

/**
 * The first kept name that no other running copy uses: two senders under one name would tear each other's light apart.
 * @param folder where names are kept.
 */
export function cidOfThisMachine(folder: string): Uint8Array {
  for (let n = 1; n <= MOST_COPIES; n++) {
    const file = join(folder, n === 1 ? 'cid' : `cid-${n}`);
    if (taken(`${file}.lock`)) continue;
    return kept(folder, file);
  }
  return fresh();
}

function kept(folder: string, file: string): Uint8Array {
  try {
    mkdirSync(folder, { recursive: true });
    writeFileSync(`${file}.lock`, `${process.pid} ${startOf(process.pid)}`);
    process.once('exit', () => rmSync(`${file}.lock`, { force: true }));
    const before = Buffer.from(readFileSync(file, 'utf8').trim(), 'hex');
    if (before.length === 16) return before;
  } catch {
    // The first start on this machine: one is made below.
  }
  const made = fresh();
  try {
    writeFileSync(file, Buffer.from(made).toString('hex') + '\n');
  } catch {
    // A home that cannot be written to: this run still has a name, the next one another.
  }
  return made;
}

/** True where a lock names another process that still runs. */
function taken(lock: string): boolean {
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

/** RFC 9562, version 4. */
function fresh(): Uint8Array {
  const made = randomBytes(16);
  made[6] = (made[6]! & 0x0f) | 0x40;
  made[8] = (made[8]! & 0x3f) | 0x80;
  return made;
}
