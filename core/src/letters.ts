// Letters of all scripts: how words are compared, searched and cut.

import { own } from './own';

/** Letters that are no letter with an accent to Unicode, and what people type for them. */
const TYPED_AS: Readonly<Record<string, string>> = {
  ł: 'l',
  đ: 'd',
  ð: 'd',
  ø: 'o',
  ı: 'i',
  ħ: 'h',
  ß: 'ss',
  æ: 'ae',
  œ: 'oe',
  þ: 'th',
};

/** Words without accents, however those are written (Unicode, NFKD). */
export const withoutAccents = (words: string): string =>
  words
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .replace(/[łđðøıħßẞæœþ]/gi, (letter) => {
      const typed = own(TYPED_AS, letter.toLowerCase()) ?? letter;
      return letter === letter.toLowerCase() ? typed : typed.toUpperCase();
    });

/** Words as they are searched: in small letters without accents. */
export const folded = (words: string): string => withoutAccents(words).toLowerCase();

/** Whether a text has each of the words that were typed, whatever their case and accents. Where none were, each text has. */
export function finder(typed: string): (text: string) => boolean {
  const words = folded(typed).split(/\s+/).filter(Boolean);
  return (text) => {
    const all = folded(text);
    return words.every((word) => all.includes(word));
  };
}

/**
 * As much of a text as so many bytes of UTF-8 hold, in whole letters: what is cut inside one is no UTF-8 (RFC 3629,
 * clause 3).
 */
export function utf8(text: string, most: number): Uint8Array {
  const bytes = new TextEncoder().encode(text);
  let end = Math.min(most, bytes.length);
  while (end > 0 && end < bytes.length && (bytes[end]! & 0xc0) === 0x80) end--;
  return bytes.subarray(0, end);
}
