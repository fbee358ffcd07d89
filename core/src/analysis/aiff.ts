// AIFF and AIFF-C files as WAV: what few browsers play becomes what all do, with every sample as it was.
// Sources: Apple, “Audio Interchange File Format, version 1.3” (1989), and “AIFF-C” (draft, 1991).

import { failed, ok, type Result } from '../problem';
import { letters, tagAt } from '../bytes';
import { chunkOf, wavFor } from './riff';

export const isAiff = (bytes: Uint8Array): boolean =>
  tagAt(bytes, 0) === 'FORM' && (tagAt(bytes, 8) === 'AIFF' || tagAt(bytes, 8) === 'AIFC');

/** How samples are written: their order of bytes, and where it is fixed, how many bits they have. */
type Coding = {
  readonly order: 'big' | 'little';
  readonly kind: 'signed' | 'unsigned' | 'float';
  readonly bits?: number;
};

const CODINGS: ReadonlyMap<string, Coding> = new Map<string, Coding>([
  ['NONE', { order: 'big', kind: 'signed' }],
  ['twos', { order: 'big', kind: 'signed' }],
  ['sowt', { order: 'little', kind: 'signed' }],
  ['raw ', { order: 'big', kind: 'unsigned', bits: 8 }],
  ['in24', { order: 'big', kind: 'signed', bits: 24 }],
  ['in32', { order: 'big', kind: 'signed', bits: 32 }],
  ['fl32', { order: 'big', kind: 'float', bits: 32 }],
  ['FL32', { order: 'big', kind: 'float', bits: 32 }],
  ['fl64', { order: 'big', kind: 'float', bits: 64 }],
  ['FL64', { order: 'big', kind: 'float', bits: 64 }],
]);

type Chunk = { readonly start: number; readonly size: number };

/** What says who and what: its chunk, and what RIFF calls it (“Multimedia Programming Interface”, 1991, chapter 2). */
const NAMES = [
  ['NAME', 'INAM'],
  ['AUTH', 'IART'],
] as const;

/** The same sound and tags as a WAV file; one whose sound ends early as far as it goes. */
export function wavOfAiff(bytes: Uint8Array, name: string): Result<Uint8Array<ArrayBuffer>> {
  const broken = (detail: string) => failed({ code: 'audio-broken', name, detail } as const);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const chunks = chunksOf(view, bytes);
  const [common, sound] = [chunks.get('COMM'), chunks.get('SSND')];
  if (!sound || sound.size < 8) return failed({ code: 'cut-short', name, detail: 'it has no sound in it' });
  if (!common || common.size < 18) return broken('it does not say how its sound is written');
  const said = tagAt(bytes, 8) === 'AIFC' && common.size >= 22 ? tagAt(bytes, common.start + 18) : 'NONE';
  const coding = CODINGS.get(said);
  if (!coding) return broken(`its sound is packed as “${said}”, which Hovlix does not unpack`);
  const channels = view.getInt16(common.start);
  const bits = coding.bits ?? view.getInt16(common.start + 6);
  const rate = Math.round(extended(view, common.start + 8));
  if (
    channels < 1 ||
    channels > 64 ||
    bits < 1 ||
    bits > 64 ||
    (bits > 32 && coding.kind !== 'float') ||
    !(rate > 0 && rate < 2 ** 32)
  )
    return broken(`${bits} bits, ${channels} channels, ${rate} Hz`);
  const width = Math.ceil(bits / 8);
  const start = sound.start + 8 + Math.min(view.getUint32(sound.start), sound.size - 8);
  const room = Math.floor((sound.start + sound.size - start) / (width * channels));
  const frames = Math.min(view.getUint32(common.start + 2) || room, room);
  if (frames === 0) return failed({ code: 'cut-short', name, detail: 'it has no sound in it' });
  const samples = bytes.subarray(start, start + frames * width * channels);
  const form = { channels, rate, width, float: coding.kind === 'float' };
  const { wav, sound: out } = wavFor(samples.length, form, tagsOf(bytes, chunks));
  if (width > 1 && coding.order === 'big')
    for (let at = 0; at < samples.length; at += width)
      for (let k = 0; k < width; k++) out[at + k] = samples[at + width - 1 - k]!;
  else out.set(samples);
  // Bytes alone are counted from nothing in WAV, and about the middle in AIFF.
  if (width === 1 && coding.kind === 'signed') for (let i = 0; i < samples.length; i++) out[i]! ^= 128;
  return ok(wav);
}

/** The first chunk of each kind, as far as the file goes. */
function chunksOf(view: DataView, bytes: Uint8Array): ReadonlyMap<string, Chunk> {
  const found = new Map<string, Chunk>();
  for (let at = 12; at + 8 <= bytes.length;) {
    const size = view.getUint32(at + 4);
    const kind = tagAt(bytes, at);
    if (!found.has(kind)) found.set(kind, { start: at + 8, size: Math.min(size, bytes.length - at - 8) });
    at += 8 + size + (size & 1);
  }
  return found;
}

/** A number of 80 bits: a sign, an exponent of 15 bits, and 64 bits from the first one on (IEEE 754, extended). */
function extended(view: DataView, at: number): number {
  const exponent = (view.getUint16(at) & 0x7fff) - 16383;
  return view.getUint32(at + 2) * 2 ** (exponent - 31) + view.getUint32(at + 6) * 2 ** (exponent - 63);
}

/** Chunks of a WAV file with the tags of an AIFF file. */
function tagsOf(bytes: Uint8Array, chunks: ReadonlyMap<string, Chunk>): readonly Uint8Array[] {
  const content = (kind: string) => {
    const chunk = chunks.get(kind);
    return chunk && bytes.subarray(chunk.start, chunk.start + chunk.size);
  };
  const named = NAMES.flatMap(([theirs, ours]) => {
    const text = content(theirs);
    return text && text.length > 0 ? [chunkOf(ours, text, Uint8Array.of(0))] : [];
  });
  const id3 = content('ID3 ');
  return [
    ...(named.length > 0 ? [chunkOf('LIST', letters('INFO'), ...named)] : []),
    ...(id3 ? [chunkOf('id3 ', id3)] : []),
  ];
}
