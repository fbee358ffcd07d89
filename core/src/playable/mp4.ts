// Packets of sound as an MP4 file (ISO/IEC 14496-12 and 14496-14), in which a browser finds each moment exactly.

import { joined, letters } from '../bytes';

/** Packets of sound in a row. */
export type Packets = {
  /** In hertz. */
  readonly rate: number;
  readonly channels: number;
  /** How they are packed (ISO/IEC 14496-1, table 5). */
  readonly objectType: number;
  /** What a decoder must know first. */
  readonly setup: Uint8Array | null;
  /** By packet: its bytes, and for how many samples it stands. */
  readonly sizes: readonly number[];
  readonly samples: readonly number[];
  /** The bytes of all packets, one behind the other. */
  readonly parts: readonly Uint8Array[];
  /** Samples of the first packets that come before the music. */
  readonly before: number;
};

/** Numbers of 32 or 16 bits, the largest byte first. */
const table = (values: readonly number[]): Uint8Array => {
  const out = new Uint8Array(values.length * 4);
  const view = new DataView(out.buffer);
  values.forEach((value, i) => view.setUint32(i * 4, value));
  return out;
};
const words = (...values: readonly number[]): Uint8Array => table(values);
const halves = (...values: readonly number[]): Uint8Array =>
  Uint8Array.from(values.flatMap((value) => [(value >> 8) & 255, value & 255]));
const zeros = (count: number): Uint8Array => new Uint8Array(count);

const box = (kind: string, ...parts: readonly Uint8Array[]): Uint8Array => {
  const body = joined(parts);
  return joined([words(8 + body.length), letters(kind), body]);
};
/** A box with a version, which is 0, and flags. */
const full = (kind: string, flags: number, ...parts: readonly Uint8Array[]): Uint8Array =>
  box(kind, words(flags), ...parts);

/** A descriptor; its length goes seven bits a byte (ISO/IEC 14496-1, clause 8.3.3). */
const descriptor = (tag: number, ...parts: readonly Uint8Array[]): Uint8Array => {
  const body = joined(parts);
  const length = [21, 14, 7, 0].map((shift) => ((body.length >> shift) & 127) | (shift > 0 ? 128 : 0));
  return joined([Uint8Array.of(tag, ...length), body]);
};

/** No turning, no scaling (ISO/IEC 14496-12, clause 8.3.2). */
const MATRIX = [0x10000, 0, 0, 0, 0x10000, 0, 0, 0, 0x40000000];

/** How long packets stand, those that follow one another alike counted together. */
function runsOf(samples: readonly number[]): number[] {
  const runs: number[] = [];
  for (const length of samples)
    if (runs.at(-1) === length) runs[runs.length - 2]!++;
    else runs.push(1, length);
  return runs;
}

function soundEntry({ rate, channels, objectType, setup }: Packets): Uint8Array {
  const decoder = descriptor(
    4,
    // An audio stream; nothing is said of buffer and bit rate.
    Uint8Array.of(objectType, 0x15, 0, 0, 0),
    words(0, 0),
    ...(setup ? [descriptor(5, setup)] : []),
  );
  const stream = descriptor(3, zeros(3), decoder, descriptor(6, Uint8Array.of(2)));
  const form = joined([
    zeros(6),
    halves(1),
    zeros(8),
    halves(channels, 16, 0, 0),
    words(rate < 65536 ? rate * 65536 : 0),
  ]);
  return box('mp4a', form, full('esds', 0, stream));
}

/** The file's parts, in order; those of the music are the very arrays it came in. */
export function mp4Of(packets: Packets): readonly Uint8Array[] {
  const { rate, sizes, samples, parts } = packets;
  const length = samples.reduce((sum, one) => sum + one, 0);
  const runs = runsOf(samples);
  const kind = box('ftyp', letters('isom'), words(0x200), letters('isommp41'));
  // The music comes first, so that where it begins does not hang on the tables; what is left of a last packet is in it.
  const music = joined([words(8 + parts.reduce((sum, part) => sum + part.length, 0)), letters('mdat')]);
  const tables = box(
    'stbl',
    full('stsd', 0, words(1), soundEntry(packets)),
    full('stts', 0, words(runs.length / 2), table(runs)),
    // All of them in one chunk.
    full('stsc', 0, words(1, 1, sizes.length, 1)),
    full('stsz', 0, words(0, sizes.length), table(sizes)),
    full('stco', 0, words(1, kind.length + music.length)),
  );
  const here = full('dref', 0, words(1), full('url ', 1));
  const media = box(
    'mdia',
    // The language is not said: “und”, five bits a letter.
    full('mdhd', 0, words(0, 0, rate, length), halves(0x55c4, 0)),
    full('hdlr', 0, words(0), letters('soun'), zeros(13)),
    box('minf', full('smhd', 0, zeros(4)), box('dinf', here), tables),
  );
  // On, and played.
  const track = full('tkhd', 3, words(0, 0, 1, 0, length, 0, 0), halves(0, 0, 0x100, 0), words(...MATRIX, 0, 0));
  const times = [words(0, 0, rate, length, 0x10000), halves(0x100, 0), zeros(8)];
  const movie = full('mvhd', 0, ...times, words(...MATRIX), zeros(24), words(2));
  return [kind, music, ...parts, box('moov', movie, box('trak', track, media))];
}
