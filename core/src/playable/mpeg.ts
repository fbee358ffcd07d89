// Frames of MPEG audio, layer III, and the tag before them.

import { tagAt } from '../bytes';

/** How long an ID3v2 tag at the start is, in bytes; 0 for none (ID3v2.4.0, clauses 3.1 and 3.4). */
export function tagLength(bytes: Uint8Array): number {
  if (bytes.length < 10 || !tagAt(bytes, 0).startsWith('ID3')) return 0;
  const size = [6, 7, 8, 9].reduce((sum, i) => sum * 128 + (bytes[i]! & 0x7f), 0);
  const footer = (bytes[5]! & 0x10) !== 0 ? 10 : 0;
  return 10 + size + footer;
}

const KBITS = [0, 32, 40, 48, 56, 64, 80, 96, 112, 128, 160, 192, 224, 256, 320];
const KBITS_OF_HALF = [0, 8, 16, 24, 32, 40, 48, 56, 64, 80, 96, 112, 128, 144, 160];
const RATES = [44_100, 48_000, 32_000];

/** A frame's length in bytes, the samples it holds of each channel, and its form. */
export type Frame = {
  readonly bytes: number;
  readonly samples: number;
  readonly rate: number;
  readonly channels: 1 | 2;
  /** Whole rates, as in the first edition of the standard. */
  readonly isFirst: boolean;
};

/**
 * The frame of layer III that begins at a place; undefined where none does (ISO/IEC 11172-3, clauses 2.4.1.3 and 2.4.3.1;
 * 13818-3, clause 2.4.2.3, for half the rates; a quarter of them is common beside the standard).
 */
export function frameAt(bytes: Uint8Array, at: number): Frame | undefined {
  const [first, second, third, fourth] = [bytes[at], bytes[at + 1] ?? 0, bytes[at + 2] ?? 0, bytes[at + 3] ?? 0];
  const version = (second >> 3) & 3;
  const isLayer3 = first === 0xff && (second & 0xe6) === 0xe2 && version !== 1;
  const isFirst = version === 3;
  const kbits = (isFirst ? KBITS : KBITS_OF_HALF)[third >> 4];
  const whole = RATES[(third >> 2) & 3];
  if (!isLayer3 || !kbits || !whole) return undefined;
  const rate = whole / (isFirst ? 1 : version === 2 ? 2 : 4);
  return {
    bytes: Math.floor(((isFirst ? 144 : 72) * kbits * 1000) / rate) + ((third >> 1) & 1),
    samples: isFirst ? 1152 : 576,
    rate,
    channels: fourth >> 6 === 3 ? 1 : 2,
    isFirst,
  };
}

/** Version, layer and sample rate stay the same from frame to frame. */
const isSameStream = (bytes: Uint8Array, a: number, b: number): boolean =>
  bytes[a + 1] === bytes[b + 1] && (bytes[a + 2]! & 0x0c) === (bytes[b + 2]! & 0x0c);

/** So many frames in a row are no accident. */
const FRAMES = 3;

/**
 * Where the first frame begins that others follow.
 * @param like where a frame of the same stream begins, if one is known.
 * @returns -1 where there is none from `from` to `to`.
 */
export function firstFrame(bytes: Uint8Array, from: number, to: number, like?: number): number {
  const end = Math.min(bytes.length - 4, to);
  for (let at = bytes.indexOf(0xff, from); at >= 0 && at < end; at = bytes.indexOf(0xff, at + 1)) {
    let next = at;
    let frames = 0;
    for (; frames < FRAMES; frames++) {
      const frame = frameAt(bytes, next);
      if (!frame || !isSameStream(bytes, like ?? at, next)) break;
      next += frame.bytes;
    }
    if (frames === FRAMES) return at;
  }
  return -1;
}

/** Where a frame of the same stream begins at `at`, that frame. */
export const nextFrame = (bytes: Uint8Array, at: number, like: number): Frame | undefined =>
  isSameStream(bytes, like, at) ? frameAt(bytes, at) : undefined;
