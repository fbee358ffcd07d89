// What lies before the music in a file: tags that were put there, and what a stream or a damaged copy begins with.

import { tagAt } from './wav';

/** How long an ID3v2 tag at the start is, in bytes; 0 for none (ID3v2.4.0, clauses 3.1 and 3.4). */
function tagLength(bytes: Uint8Array): number {
  if (!tagAt(bytes, 0).startsWith('ID3') || bytes.length < 10) return 0;
  const size = [6, 7, 8, 9].reduce((sum, i) => sum * 128 + (bytes[i]! & 0x7f), 0);
  const footer = (bytes[5]! & 0x10) !== 0 ? 10 : 0;
  return 10 + size + footer;
}

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
/** So many frames in a row are no accident. */
const FRAMES = 3;

/**
 * MPEG audio of layer III from its first whole frame on, where something else comes first: zeros, or the rest of a frame in
 * which a stream was cut. Undefined where there is none near the start.
 */
export function fromFirstFrame(bytes: Uint8Array): Uint8Array | undefined {
  const end = Math.min(bytes.length - 4, REACH);
  for (let at = bytes.indexOf(0xff); at >= 0 && at < end; at = bytes.indexOf(0xff, at + 1)) {
    let next = at;
    let frames = 0;
    for (; frames < FRAMES; frames++) {
      const length = frameLength(bytes, next);
      if (length === undefined || (frames > 0 && !sameStream(bytes, at, next))) break;
      next += length;
    }
    if (frames === FRAMES) return bytes.subarray(at);
  }
  return undefined;
}

/** Version, layer and sample rate stay the same from frame to frame. */
const sameStream = (bytes: Uint8Array, a: number, b: number): boolean =>
  bytes[a + 1] === bytes[b + 1] && (bytes[a + 2]! & 0x0c) === (bytes[b + 2]! & 0x0c);

const KBITS = [0, 32, 40, 48, 56, 64, 80, 96, 112, 128, 160, 192, 224, 256, 320];
const KBITS_OF_HALF = [0, 8, 16, 24, 32, 40, 48, 56, 64, 80, 96, 112, 128, 144, 160];
const RATES = [44_100, 48_000, 32_000];

/**
 * Bytes of a frame of layer III; undefined where none begins (ISO/IEC 11172-3, clauses 2.4.1.3 and 2.4.3.1; 13818-3, clause
 * 2.4.2.3, for half the rates; a quarter of them is common beside the standard).
 */
function frameLength(bytes: Uint8Array, at: number): number | undefined {
  const [first, second, third] = [bytes[at], bytes[at + 1] ?? 0, bytes[at + 2] ?? 0];
  const version = (second >> 3) & 3;
  const isLayer3 = first === 0xff && (second & 0xe6) === 0xe2 && version !== 1;
  const kbits = (version === 3 ? KBITS : KBITS_OF_HALF)[third >> 4];
  const rate = RATES[(third >> 2) & 3];
  if (!isLayer3 || !kbits || !rate) return undefined;
  const slower = version === 3 ? 1 : version === 2 ? 2 : 4;
  return Math.floor(((version === 3 ? 144 : 72) * kbits * 1000) / (rate / slower)) + ((third >> 1) & 1);
}
