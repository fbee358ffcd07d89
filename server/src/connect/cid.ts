// The name this Hovlix has on sACN for as long as it is installed (E1.31, clause 5.6: a CID is kept).

import { randomBytes } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { holds } from '../keep/hold';

/** So many copies of Hovlix may run on one computer at once, each under a name of its own. */
const MOST_COPIES = 8;

/**
 * The first kept name that no other running copy uses: two senders under one name would tear each other's light apart.
 * @param folder where names are kept.
 */
export function cidOfThisMachine(folder: string): Uint8Array {
  for (let n = 1; n <= MOST_COPIES; n++) {
    const file = join(folder, n === 1 ? 'cid' : `cid-${n}`);
    if (holds(`${file}.lock`)) return kept(file);
  }
  return fresh();
}

function kept(file: string): Uint8Array {
  try {
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

/** RFC 9562, version 4. */
function fresh(): Uint8Array {
  const made = randomBytes(16);
  made[6] = (made[6]! & 0x0f) | 0x40;
  made[8] = (made[8]! & 0x3f) | 0x80;
  return made;
}
