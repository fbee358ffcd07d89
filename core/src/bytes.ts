// Bytes of files that name their parts by letters.

/** All of them, one behind the other. */
export function joined(parts: readonly Uint8Array[]): Uint8Array {
  const out = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}

export const letters = (text: string): Uint8Array => Uint8Array.from(text, (letter) => letter.charCodeAt(0));

/** Four letters of a file; none where it ends before. */
export function tagAt(bytes: Uint8Array, at: number): string {
  return bytes.length >= at + 4 ? String.fromCharCode(...bytes.subarray(at, at + 4)) : '';
}
