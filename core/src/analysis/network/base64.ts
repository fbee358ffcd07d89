const DIGITS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';

/** Base64 (RFC 4648, clause 4) without line breaks. */
export function bytesOf(text: string): Uint8Array {
  const bytes = new Uint8Array(Math.floor((text.replace(/=+$/, '').length * 3) / 4));
  let bits = 0;
  let held = 0;
  let at = 0;
  for (const letter of text) {
    if (letter === '=') break;
    held = ((held << 6) | DIGITS.indexOf(letter)) & 0xffffff;
    bits += 6;
    if (bits < 8) continue;
    bits -= 8;
    bytes[at++] = (held >> bits) & 0xff;
  }
  return bytes;
}
