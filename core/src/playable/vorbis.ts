// An Ogg file with one stream of Vorbis as packets (RFC 3533; Vorbis I specification, Xiph.Org).

import { joined, letters } from '../bytes';
import type { Packets } from './mp4';

/** Vorbis in MP4, as common decoders read it. */
const OBJECT_TYPE = 0xdd;
/** How a page begins, and bytes of it before its table of segments (RFC 3533, clause 6). */
const CAPTURE = 0x4f676753;
const PAGE_HEAD = 27;
const FLAGS = { goesOn: 1, begins: 2, ends: 4 } as const;
/** Identification, comments, and setup come first (Vorbis I, clause 4.2.1). */
const HEADS = 3;

type Page = {
  readonly flags: number;
  /** Samples up to the end of its last whole packet; -1 where none ends in it. */
  readonly ends: number;
  readonly laces: Uint8Array;
  readonly body: Uint8Array;
};

/** The pages of a file with one stream, as far as they are whole. Throws a RangeError where it is another kind of file. */
function* pagesOf(bytes: Uint8Array): Generator<Page> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  for (let at = 0, count = 0; at + PAGE_HEAD <= bytes.length; count++) {
    const flags = bytes[at + 5]!;
    const begins = (flags & FLAGS.begins) !== 0;
    if (view.getUint32(at) !== CAPTURE) throw new RangeError(`no page begins at byte ${at}`);
    if (view.getUint32(at + 14, true) !== view.getUint32(14, true) || begins !== (count === 0))
      throw new RangeError('it has several streams');
    if (view.getUint32(at + 18, true) !== count) throw new RangeError(`page ${count} is missing`);
    const laces = bytes.subarray(at + PAGE_HEAD, at + PAGE_HEAD + bytes[at + 26]!);
    const from = at + PAGE_HEAD + laces.length;
    const to = from + laces.reduce((sum, lace) => sum + lace, 0);
    if (to > bytes.length) return;
    yield { flags, ends: Number(view.getBigInt64(at + 6, true)), laces, body: bytes.subarray(from, to) };
    at = to;
  }
}

/** How many samples the blocks of each mode have, and how many bits of a packet say which mode it is. */
type Blocks = { readonly lengths: readonly number[]; readonly bits: number };

/** Six bits say one less. */
const MOST_MODES = 64;

/**
 * The modes are the last of the setup head (Vorbis I, clause 4.2.4): it is read from its end, so that nothing of what comes
 * before them need be known. Each has 41 bits, and six bits before them say how many there are.
 */
function blocksOf(id: Uint8Array, setup: Uint8Array): Blocks {
  const sizes = [1 << (id[28]! & 15), 1 << (id[28]! >> 4)];
  let left = setup.length * 8;
  const bit = () => (setup[--left >> 3]! >> (left & 7)) & 1;
  const number = (bits: number) => {
    let value = 0;
    for (let i = 0; i < bits; i++) value = value * 2 + bit();
    return value;
  };
  // The framing bit is the last that is set.
  while (left > 0 && bit() === 0);
  const flags: number[] = [];
  let modes: readonly number[] = [];
  while (left > 41 + 6 && flags.length <= MOST_MODES) {
    // Its mapping, and two numbers that are 0.
    if (number(8) > 63 || number(16) > 0 || number(16) > 0) break;
    flags.unshift(bit());
    const here = left;
    if (number(6) + 1 === flags.length) modes = [...flags];
    left = here;
  }
  if (modes.length === 0) throw new RangeError('its setup names no modes');
  return { lengths: modes.map((long) => sizes[long]!), bits: Math.ceil(Math.log2(modes.length)) };
}

/** The samples of the block that a packet with this first byte holds (Vorbis I, clause 4.3.1). */
function blockLength({ lengths, bits }: Blocks, opening: number): number {
  const length = lengths[(opening >> 1) & ((1 << bits) - 1)];
  if ((opening & 1) !== 0 || !length) throw new RangeError('a packet is no sound');
  return length;
}

/** Of nobody, and none (Vorbis I, clause 5.2): pictures would be kept with them. */
const NO_COMMENTS = letters('\x03vorbis\0\0\0\0\0\0\0\0\x01');

/** A length as bytes of 255 and a rest. */
const laced = (length: number): number[] => [...Array<number>(Math.floor(length / 255)).fill(255), length % 255];

/** @returns undefined for any other file, and where pages are missing or there are several streams. */
export function vorbisPackets(bytes: Uint8Array): Packets | undefined {
  try {
    return packetsOf(bytes);
  } catch (error) {
    if (error instanceof RangeError) return undefined;
    throw error;
  }
}

function packetsOf(bytes: Uint8Array): Packets | undefined {
  const heads: Uint8Array[] = [];
  const parts: Uint8Array[] = [];
  const sizes: number[] = [];
  /** What comes out when a packet is decoded: the first only begins (Vorbis I, clause 4.3.8). */
  const comes: number[] = [];
  let blocks: Blocks | undefined;
  let before: number | undefined;
  let block = 0;
  let size = 0;
  let opening = 0;
  let head: Uint8Array[] = [];
  for (const { flags, ends, laces, body } of pagesOf(bytes)) {
    if (((flags & FLAGS.goesOn) !== 0) !== size > 0) throw new RangeError('a packet is cut');
    let at = 0;
    for (const lace of laces) {
      if (size === 0) opening = body[at] ?? 0;
      if (!blocks) head.push(body.subarray(at, at + lace));
      size += lace;
      at += lace;
      if (lace === 255) continue;
      if (size === 0) throw new RangeError('a packet is empty');
      if (blocks) {
        const next = blockLength(blocks, opening);
        comes.push(block > 0 ? (block + next) / 4 : 0);
        block = next;
        sizes.push(size);
      } else {
        heads.push(joined(head));
        head = [];
        // Sound begins a page of its own.
        if (heads.length === HEADS && at < body.length) throw new RangeError('its heads do not end with a page');
      }
      size = 0;
    }
    if (blocks) {
      parts.push(body);
      // What a page counts less than its packets have is cut from the start (Vorbis I, appendix A.2).
      if (before === undefined && ends >= 0)
        before = (flags & FLAGS.ends) !== 0 ? 0 : Math.max(0, comes.reduce((sum, one) => sum + one, 0) - ends);
    } else if (heads.length === HEADS) blocks = blocksOf(heads[0]!, heads[2]!);
  }
  const [id, , setup] = heads;
  if (!id || !setup || sizes.length < 2 || String.fromCharCode(...id.subarray(1, 7)) !== 'vorbis') return undefined;
  const rate = new DataView(id.buffer).getUint32(12, true);
  if (rate === 0) return undefined;
  return {
    rate,
    channels: id[11]!,
    objectType: OBJECT_TYPE,
    setup: joined([Uint8Array.of(2, ...laced(id.length), NO_COMMENTS.length), id, NO_COMMENTS, setup]),
    sizes,
    // A browser gives what comes out first, after a jump, the time of the packet that brought nothing.
    samples: comes.map((one, i) => comes[i + 1] ?? one),
    parts,
    before: before ?? 0,
  };
}
