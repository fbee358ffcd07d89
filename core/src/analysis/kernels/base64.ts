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

/** Numbers of IEEE 754 binary16, little-endian, in base64. */
export function halvesOf(text: string): Float64Array {
  const bytes = bytesOf(text);
  const view = new DataView(bytes.buffer);
  return Float64Array.from({ length: bytes.length / 2 }, (_, i) => {
    const bits = view.getUint16(i * 2, true);
    const sign = bits & 0x8000 ? -1 : 1;
    const exponent = (bits >> 10) & 31;
    const part = bits & 1023;
    return sign * (exponent === 0 ? part * 2 ** -24 : (1 + part / 1024) * 2 ** (exponent - 15));
  });
}
