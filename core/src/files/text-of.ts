// Bytes of files that do not say how their letters are written.

/**
 * UTF-16 where a byte order mark says so, UTF-8 where the bytes are that (its mark is left out), else Windows-1252, in
 * which older programs write. No bytes are refused.
 */
export function textOf(bytes: Uint8Array): string {
  const [first, second] = bytes;
  if (first === 0xff && second === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (first === 0xfe && second === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}
