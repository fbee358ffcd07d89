// Files as somebody would make them to do harm.

import { strToU8, zipSync } from 'fflate';
import type { Show } from '../show';
import { testShow } from './show';

/** A bundle of the test show with other, or more, entries. */
export const bundleWith = (entries: Readonly<Record<string, Uint8Array>>): Uint8Array =>
  zipSync({
    'hovlix.json': strToU8(JSON.stringify({ format: 'hovlix', version: 1 })),
    'show.json': strToU8(JSON.stringify(testShow())),
    ...entries,
  });

/** The same zip, but an entry claims to have so many bytes unpacked (PKWARE APPNOTE, clause 4.3.12). */
export function claiming(zip: Uint8Array, name: string, bytes: number): Uint8Array {
  const view = new DataView(zip.buffer, zip.byteOffset, zip.byteLength);
  for (let at = 0; at + 46 <= zip.length; at++) {
    if (view.getUint32(at, true) !== 0x02014b50) continue;
    const own = new TextDecoder().decode(zip.subarray(at + 46, at + 46 + view.getUint16(at + 28, true)));
    if (own === name) view.setUint32(at + 24, bytes, true);
  }
  return zip;
}

/** The test show with another tempo map in its song. */
export function anchored(anchors: readonly { readonly beat: number; readonly time: number }[]): Show {
  const show = JSON.parse(JSON.stringify(testShow()));
  show.songs[0].tempo.anchors = anchors;
  return show as Show;
}

/** The first page of an OGG Vorbis file, by whose head it has so many samples a second. */
export function oggWithRate(rate: number): Uint8Array {
  const bytes = new Uint8Array(2000);
  bytes.set(strToU8('OggS'), 0);
  bytes[5] = 2;
  bytes[26] = 1;
  bytes[27] = 30;
  bytes.set(strToU8('\u0001vorbis'), 28);
  bytes[39] = 2;
  new DataView(bytes.buffer).setUint32(40, rate, true);
  return bytes;
}

/** The head of a FLAC file. @param rate below 2^20. */
export function flacWithRate(rate: number): Uint8Array {
  const bytes = new Uint8Array(2000);
  bytes.set(strToU8('fLaC'), 0);
  bytes[4] = 0x80;
  bytes[7] = 34;
  new DataView(bytes.buffer).setUint32(18, ((rate << 12) | 0x2f0) >>> 0);
  return bytes;
}
