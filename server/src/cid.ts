// The name this Hovlix has on sACN for as long as it is installed (E1.31, clause 5.6: a CID is kept).

import { randomBytes } from 'node:crypto';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { homedir } from 'node:os';
import { join } from 'node:path';

export function cidOfThisMachine(folder = join(homedir(), '.hovlix')): Uint8Array {
  const file = join(folder, 'cid');
  try {
    const kept = Buffer.from(readFileSync(file, 'utf8').trim(), 'hex');
    if (kept.length === 16) return kept;
  } catch {
    // The first start on this machine: one is made below.
  }
  const fresh = randomBytes(16);
  // RFC 4122, version 4
  fresh[6] = (fresh[6]! & 0x0f) | 0x40;
  fresh[8] = (fresh[8]! & 0x3f) | 0x80;
  try {
    mkdirSync(folder, { recursive: true });
    writeFileSync(file, fresh.toString('hex') + '\n');
  } catch {
    // A home that cannot be written to: this run still has a name, the next one another.
  }
  return fresh;
}
