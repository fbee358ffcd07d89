// Writing RIFF/WAVE files. Source: Microsoft, “Multiple channel audio data and WAVE files” (2001).

import { joined, letters } from '../bytes';

/** A RIFF chunk, to an even length. */
export function chunkOf(kind: string, ...parts: readonly Uint8Array[]): Uint8Array {
  const body = joined(parts);
  const size = new Uint8Array(4);
  new DataView(size.buffer).setUint32(0, body.length, true);
  return joined([letters(kind), size, body, new Uint8Array(body.length & 1)]);
}

/** `width`: bytes of a sample. */
type Form = { readonly channels: number; readonly rate: number; readonly width: number; readonly float: boolean };

const HEAD = 44;

/** A WAV file with room for so many bytes of sound, which is `sound` within it, and chunks behind it. */
export function wavFor(
  size: number,
  { channels, rate, width, float }: Form,
  chunks: readonly Uint8Array[],
): { readonly wav: Uint8Array<ArrayBuffer>; readonly sound: Uint8Array } {
  const padded = size + (size & 1);
  const wav = new Uint8Array(HEAD + padded + chunks.reduce((sum, { length }) => sum + length, 0));
  const view = new DataView(wav.buffer);
  wav.set(letters('RIFF'));
  view.setUint32(4, wav.length - 8, true);
  wav.set(letters('WAVEfmt '), 8);
  view.setUint32(16, 16, true);
  view.setUint16(20, float ? 3 : 1, true);
  view.setUint16(22, channels, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, rate * channels * width, true);
  view.setUint16(32, channels * width, true);
  view.setUint16(34, width * 8, true);
  wav.set(letters('data'), 36);
  view.setUint32(40, size, true);
  let at = HEAD + padded;
  for (const chunk of chunks) {
    wav.set(chunk, at);
    at += chunk.length;
  }
  return { wav, sound: wav.subarray(HEAD, HEAD + size) };
}
