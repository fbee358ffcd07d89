// Music that is packed in a way Hovlix does not unpack itself, as M4A: a browser may, and then it is kept as WAV.

import { tagAt } from '../bytes';
import { behindTag, isAdts } from './lead';
import { wavFor } from './riff';
import { isWav, wavFormat } from './wav';

/** By the first packet of an Ogg stream. */
const IN_OGG: readonly (readonly [string, string])[] = [
  ['OpusHead', 'Opus'],
  ['Speex   ', 'Speex'],
  ['\x7fFLAC', 'FLAC in an Ogg file'],
];

/** By the format of a WAV file (RFC 2361, appendix A). */
const IN_WAV: Readonly<Record<number, string>> = {
  6: 'A-law in a WAV file',
  7: 'mu-law in a WAV file',
  85: 'MP3 in a WAV file',
};

/** How it is packed, in words; undefined for what Hovlix unpacks, and for what is no music. */
export function packedAs(all: Uint8Array): string | undefined {
  const bytes = behindTag(all);
  if (isWav(bytes)) return IN_WAV[wavFormat(bytes)?.code ?? 0];
  // ISO base media, as MP4 and M4A are: its first box is “ftyp” (ISO/IEC 14496-12, clause 4.3).
  if (tagAt(bytes, 4) === 'ftyp') return 'MP4 or M4A';
  if (isAdts(bytes)) return 'AAC';
  if (tagAt(bytes, 0) === '\x1aE\xdf\xa3') return 'WebM';
  if (tagAt(bytes, 0) === '0&\xb2u') return 'WMA';
  if (tagAt(bytes, 0) !== 'OggS') return undefined;
  // The table of segments goes before the packet (RFC 3533, clause 6).
  const at = 27 + (bytes[26] ?? 0);
  const packet = String.fromCharCode(...bytes.subarray(at, at + 8));
  return IN_OGG.find(([mark]) => packet.startsWith(mark))?.[1];
}

/** In hertz: so much Opus always has (RFC 7845, clause 5.1), and MP4 where it does not say. */
const USUAL_RATE = { opus: 48_000, mp4: 44_100 } as const;

/** The sample rate it was packed at, so that a browser need not turn it into another one. */
export function rateOfPacked(bytes: Uint8Array): number {
  if (isWav(bytes)) return wavFormat(bytes)?.rate ?? USUAL_RATE.mp4;
  if (tagAt(bytes, 4) !== 'ftyp') return tagAt(bytes, 0) === 'OggS' ? USUAL_RATE.opus : USUAL_RATE.mp4;
  // The sample entry of AAC has its rate, with 16 bits behind the point, 24 bytes behind its name (ISO/IEC 14496-12, clause 12.2.3).
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  for (let at = bytes.indexOf(0x6d); at >= 0 && at + 32 <= bytes.length; at = bytes.indexOf(0x6d, at + 1)) {
    if (tagAt(bytes, at) !== 'mp4a') continue;
    const rate = view.getUint32(at + 28) >>> 16;
    // HE-AAC may say half of what it unpacks to (ISO/IEC 14496-3, clause 1.6.5).
    if (rate > 0) return Math.max(rate, USUAL_RATE.mp4);
  }
  return USUAL_RATE.mp4;
}

/** Sound as 16 bits a sample. @param channels -1…1, all as long as the first. @param chunks what goes behind it. */
export function wavOfSound(
  channels: readonly Float32Array[],
  rate: number,
  chunks: readonly Uint8Array[],
): Uint8Array<ArrayBuffer> {
  const count = channels.length;
  const frames = channels[0]?.length ?? 0;
  const form = { channels: count, rate, width: 2, float: false };
  const { wav, sound } = wavFor(frames * count * 2, form, chunks);
  const samples = new Int16Array(sound.buffer, sound.byteOffset, frames * count);
  for (let channel = 0; channel < count; channel++) {
    const from = channels[channel]!;
    for (let i = 0; i < frames; i++) {
      const value = Math.round(from[i]! * 32768);
      samples[i * count + channel] = value > 32767 ? 32767 : value < -32768 ? -32768 : value;
    }
  }
  return wav;
}
