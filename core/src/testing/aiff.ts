// AIFF files, made for tests.

export const letters = (text: string): Uint8Array => Uint8Array.from(text, (letter) => letter.charCodeAt(0));

/** A chunk of an IFF file, to an even length. */
export function aiffChunk(kind: string, content: Uint8Array): Uint8Array {
  const out = new Uint8Array(8 + content.length + (content.length & 1));
  out.set(letters(kind));
  new DataView(out.buffer).setUint32(4, content.length);
  out.set(content, 8);
  return out;
}

/** IEEE 754 extended: whole rates below 2^31. */
function extended(rate: number): Uint8Array {
  const out = new Uint8Array(10);
  const exponent = Math.floor(Math.log2(rate));
  const view = new DataView(out.buffer);
  view.setUint16(0, 16383 + exponent);
  view.setUint32(2, rate * 2 ** (31 - exponent));
  return out;
}

export type AiffMade = {
  readonly coding?: string;
  readonly bits: number;
  readonly channels: number;
  readonly rate: number;
  readonly frames?: number;
  readonly more?: readonly Uint8Array[];
  readonly offset?: number;
  readonly soundFirst?: boolean;
};

/** An AIFF file, or with a coding an AIFF-C file, around samples as they are written (Apple, AIFF 1.3). */
export function aiff(
  sound: Uint8Array,
  { coding, bits, channels, rate, frames, more = [], offset = 0, soundFirst = false }: AiffMade,
): Uint8Array {
  const width = Math.ceil(bits / 8);
  const common = new Uint8Array(coding === undefined ? 18 : 24);
  const view = new DataView(common.buffer);
  view.setInt16(0, channels);
  view.setUint32(2, frames ?? sound.length / (width * channels));
  view.setInt16(6, bits);
  common.set(extended(rate), 8);
  if (coding !== undefined) common.set(letters(coding), 18);
  const head = new Uint8Array(8 + offset);
  new DataView(head.buffer).setUint32(0, offset);
  const parts = [aiffChunk('COMM', common), aiffChunk('SSND', Uint8Array.from([...head, ...sound])), ...more];
  if (soundFirst) parts.reverse();
  const body = parts.flatMap((part) => [...part]);
  return aiffChunk('FORM', Uint8Array.from([...letters(coding === undefined ? 'AIFF' : 'AIFC'), ...body]));
}
