// Bytes of files that do not say how their letters are written.

type Encodings = readonly (readonly [encoding: string, languages: string])[];

/**
 * In which older programs write, by the language of the computer; in all others Windows-1252 (HTML Standard, “Determining
 * the character encoding”, step 9, with what Windows writes in Hungarian, Polish, Slovene and Greek).
 */
const OF_LATIN_LETTERS: Encodings = [
  ['windows-1250', 'cs hr hu pl ro sk sl'],
  ['windows-1254', 'az ku tr'],
  ['windows-1257', 'et lt lv'],
  ['windows-1258', 'vi'],
];
const OF_OTHERS: Encodings = [
  ['windows-1251', 'ba be bg kk ky mk ru sah sr tg tt uk'],
  ['windows-1253', 'el'],
  ['windows-1255', 'he'],
  ['windows-1256', 'ar fa'],
  ['windows-874', 'th'],
  ['shift_jis', 'ja'],
  ['euc-kr', 'ko'],
  ['big5', 'zh-tw zh-hk zh-mo zh-hant'],
  ['gb18030', 'zh'],
];

/**
 * UTF-16 where a byte order mark says so, UTF-8 where the bytes are that (its mark is left out), else as older programs
 * write. No bytes are refused.
 * @param language of the computer, as a browser names it: “pl”, “zh-TW”.
 */
export function textOf(bytes: Uint8Array, language = ''): string {
  const [first, second] = bytes;
  if (first === 0xff && second === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (first === 0xfe && second === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  const latin = encodingOf(language, OF_LATIN_LETTERS);
  const older = () => (latin ? new TextDecoder(latin).decode(bytes) : respelled(fromWindows1252(bytes), language));
  return decoded(bytes, 'utf-8') ?? older();
}

/**
 * Text that was taken for Windows-1252 and may be something else: a line is read as UTF-8 where its bytes are that, else in
 * the letters of a language where those that English lacks are no exception in it, as they are in “Motörhead”. Text with
 * letters that Windows-1252 lacks stays as it is, and so does what may be of another language with Latin letters.
 */
export function respelled(text: string, language: string): string {
  if (/^[\0-\x7f]*$/.test(text)) return text;
  const encoding = encodingOf(language, OF_OTHERS);
  return text.replace(/[^\r\n]+/g, (line) => {
    const bytes = bytesOf(line);
    if (!bytes) return line;
    const other = encoding && !mostlyEnglish(bytes) ? decoded(bytes, encoding) : undefined;
    return decoded(bytes, 'utf-8') ?? other ?? line;
  });
}

function encodingOf(language: string, encodings: Encodings): string | undefined {
  const speaks = (one: string) => `${language.toLowerCase()}-`.startsWith(`${one}-`);
  return encodings.find(([, languages]) => languages.split(' ').some(speaks))?.[0];
}

function mostlyEnglish(bytes: Uint8Array): boolean {
  const others = bytes.filter((byte) => byte >= 0x80).length;
  return others < bytes.filter((byte) => /[A-Za-z]/.test(String.fromCharCode(byte))).length;
}

/** None where the bytes are not written so. */
function decoded(bytes: Uint8Array, encoding: string): string | undefined {
  try {
    return new TextDecoder(encoding, { fatal: true }).decode(bytes);
  } catch {
    return undefined;
  }
}

/** What Windows-1252 has from 0x80 to 0x9f, where Latin-1 has controls (Encoding Standard, index windows-1252). */
const EXTRAS = '€\x81‚ƒ„…†‡ˆ‰Š‹Œ\x8dŽ\x8f\x90‘’“”•–—˜™š›œ\x9džŸ';

/** Not by a decoder of the machine: that of some Node.js takes Windows-1252 for Latin-1. */
function fromWindows1252(bytes: Uint8Array): string {
  let text = '';
  for (const byte of bytes) text += EXTRAS[byte - 0x80] ?? String.fromCharCode(byte);
  return text;
}

/** The bytes of what was read as Windows-1252 or Latin-1; none of other letters. */
function bytesOf(line: string): Uint8Array | undefined {
  const codes = Array.from(line, (letter) => {
    const extra = EXTRAS.indexOf(letter);
    return extra < 0 ? letter.codePointAt(0)! : 0x80 + extra;
  });
  return codes.some((code) => code > 0xff) ? undefined : Uint8Array.from(codes);
}
