// What lies before the music in a file: tags that were put there, and what a stream or a damaged copy begins with.

import { tagAt } from '../bytes';
import { firstFrame, tagLength } from '../playable';

/** The music behind an ID3v2 tag, where it is of a kind that has such a tag against its own rules; else all of it. */
export function behindTag(bytes: Uint8Array): Uint8Array {
  const rest = bytes.subarray(tagLength(bytes));
  const isOther = ['fLaC', 'OggS'].includes(tagAt(rest, 0)) || isAdts(rest);
  return isOther ? rest : bytes;
}

/** The head of an AAC frame, which has no layer (ISO/IEC 13818-7, clause 6.2). */
export const isAdts = (bytes: Uint8Array): boolean => bytes[0] === 0xff && (bytes[1]! & 0xf6) === 0xf0;

/** How far frames are looked for, in bytes. */
const REACH = 1 << 17;

/**
 * MPEG audio of layer III from its first whole frame on, where something else comes first: zeros, or the rest of a frame in
 * which a stream was cut. Undefined where there is none near the start.
 */
export function fromFirstFrame(bytes: Uint8Array): Uint8Array | undefined {
  const at = firstFrame(bytes, 0, REACH);
  return at < 0 ? undefined : bytes.subarray(at);
}
