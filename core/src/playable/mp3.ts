// An MP3 as packets: where each frame lies.

import { tagAt } from '../bytes';
import type { Packets } from './mp4';
import { firstFrame, frameAt, nextFrame, tagLength, type Frame } from './mpeg';

/** What stands between frames is looked through so far, in bytes. */
const REACH = 1 << 20;
/** What every decoder of layer III is behind, in samples, and what is counted on top of the encoder's delay. */
const DECODER_DELAY = 529;
/** The object types of MPEG-1 and MPEG-2 audio (ISO/IEC 14496-1, table 5). */
const OBJECT_TYPE = { first: 0x6b, second: 0x69 } as const;

/**
 * A first frame that holds no music, but says how the rest was made (a head that most encoders write, beside the standard).
 * @returns samples that come before the music, as decoders are agreed to count them; undefined for a frame of music.
 */
function saidBefore(bytes: Uint8Array, at: number, { isFirst, channels }: Frame): number | undefined {
  // Behind the side information (ISO/IEC 11172-3, clause 2.4.1.7).
  const side = isFirst ? (channels === 2 ? 32 : 17) : channels === 2 ? 17 : 9;
  const tag = at + 4 + side;
  if (!['Xing', 'Info'].includes(tagAt(bytes, tag))) return undefined;
  const flags = bytes[tag + 7] ?? 0;
  const [counted, sized, listed, rated] = [1, 2, 4, 8].map((bit) => (flags & bit) !== 0);
  const encoder = tag + 8 + (counted ? 4 : 0) + (sized ? 4 : 0) + (listed ? 100 : 0) + (rated ? 4 : 0);
  const frames = counted ? new DataView(bytes.buffer, bytes.byteOffset).getUint32(tag + 8) : 0;
  if (frames === 0 || !bytes[encoder]) return 0;
  const delay = ((bytes[encoder + 21] ?? 0) << 4) | ((bytes[encoder + 22] ?? 0) >> 4);
  return delay + DECODER_DELAY;
}

/** @returns undefined where it is no MP3, or changes its form in the middle. */
export function mp3Packets(bytes: Uint8Array): Packets | undefined {
  const begin = firstFrame(bytes, tagLength(bytes), bytes.length);
  const head = begin < 0 ? undefined : frameAt(bytes, begin);
  if (!head) return undefined;
  const before = saidBefore(bytes, begin, head);
  let at = before === undefined ? begin : begin + head.bytes;
  const sizes: number[] = [];
  const parts: Uint8Array[] = [];
  let from = at;
  for (;;) {
    const frame = nextFrame(bytes, at, begin);
    if (frame && frame.channels !== head.channels) return undefined;
    if (frame && at + frame.bytes <= bytes.length) {
      sizes.push(frame.bytes);
      at += frame.bytes;
      continue;
    }
    if (at > from) parts.push(bytes.subarray(from, at));
    from = firstFrame(bytes, at + 1, at + REACH, begin);
    if (from < 0) break;
    at = from;
  }
  if (sizes.length === 0) return undefined;
  return {
    rate: head.rate,
    channels: head.channels,
    objectType: head.isFirst ? OBJECT_TYPE.first : OBJECT_TYPE.second,
    setup: null,
    sizes,
    samples: sizes.map(() => head.samples),
    parts,
    before: before ?? 0,
  };
}
