// What writes on printed pages: the standard fonts of PDF, and a scribe for letters that they lack.

import { StandardFonts, type PDFDocument, type PDFFont, type PDFPage, type RGB } from 'pdf-lib';

/** Draws words in the letters of any script. Lengths are in points, those of a picture too. */
export type Scribe = {
  readonly width: (words: string, style: Style) => number;
  readonly picture: (words: string, style: Style, ink: RGB) => Promise<Drawn>;
};

type Style = { readonly size: number; readonly bold: boolean };

export type Drawn = {
  /** On clear ground. */
  readonly png: Uint8Array;
  readonly width: number;
  readonly height: number;
  /** How far it reaches to the left of where the words begin, and below the line that they stand on. */
  readonly before: number;
  readonly below: number;
};

export type Pen = {
  readonly width: (words: string, size: number) => number;
  readonly write: (page: PDFPage, words: string, at: At) => void;
};

/** The place is where the words begin, on the line that they stand on. */
type At = { readonly x: number; readonly y: number; readonly size: number; readonly color: RGB };

/** The two pens of a document; it is saved through them, as pictures come in their own time. */
export type Pens = { readonly plain: Pen; readonly bold: Pen; readonly saved: () => Promise<Uint8Array> };

export async function pensOf(document: PDFDocument, scribe?: Scribe): Promise<Pens> {
  const drawing: Promise<void>[] = [];
  const pen = (font: PDFFont, bold: boolean): Pen => {
    const drawn = (words: string) => scribe !== undefined && !prints(font, words);
    return {
      width: (words, size) =>
        drawn(words) ? scribe!.width(words, { size, bold }) : font.widthOfTextAtSize(printable(font, words), size),
      write(page, words, { x, y, size, color }) {
        if (!drawn(words)) return page.drawText(printable(font, words), { x, y, size, font, color });
        const place = async () => {
          const { png, width, height, before, below } = await scribe!.picture(words, { size, bold }, color);
          page.drawImage(await document.embedPng(png), { x: x - before, y: y - below, width, height });
        };
        drawing.push(place());
      },
    };
  };
  return {
    plain: pen(await document.embedFont(StandardFonts.Helvetica), false),
    bold: pen(await document.embedFont(StandardFonts.HelveticaBold), true),
    async saved() {
      await Promise.all(drawing);
      return document.save();
    },
  };
}

/** Words in as many lines as they need; one that is longer than a line goes on in the next. */
export function broken(pen: Pen, words: string, size: number, width: number): readonly string[] {
  const lines: string[] = [];
  const fits = (line: string) => pen.width(line, size) <= width;
  for (const word of words.split(/\s+/).filter(Boolean)) {
    const together = lines.length > 0 ? `${lines.at(-1)} ${word}` : word;
    if (fits(together)) lines.splice(-1, 1, together);
    else lines.push(...(fits(word) ? [word] : inPieces(word, fits)));
  }
  return lines;
}

function inPieces(word: string, fits: (piece: string) => boolean): readonly string[] {
  const pieces: string[] = [];
  let piece = '';
  for (const letter of word) {
    if (piece && !fits(piece + letter)) {
      pieces.push(piece);
      piece = '';
    }
    piece += letter;
  }
  return [...pieces, piece];
}

/** One line of words; what there is no room for is left out. */
export function shortened(pen: Pen, words: string, size: number, width: number): string {
  if (pen.width(words, size) <= width) return words;
  const letters = [...words];
  while (letters.length > 1 && pen.width(`${letters.join('')}...`, size) > width) letters.pop();
  return `${letters.join('')}...`;
}

/** Signs that the standard fonts lack, and what says the same. */
const SIGNS: Readonly<Record<string, string>> = { '♯': '#', '♭': 'b', '−': '-', '→': '>' };
/** Letters that are none with an accent to Unicode, and the next best. */
const LETTERS: Readonly<Record<string, string>> = { ł: 'l', Ł: 'L', đ: 'd', Đ: 'D', ı: 'i', ħ: 'h' };

/** Words in one line, with accents on their letters. */
const inLine = (words: string): readonly string[] => [...words.normalize('NFC').replace(/\s+/gu, ' ')];

/** Whether the standard fonts have all letters of a text, or signs that say the same. */
const prints = (font: PDFFont, words: string): boolean =>
  inLine(words).every((letter) => letter in SIGNS || hasLetter(font, letter));

/**
 * Words as the standard fonts can print them, in one line: letters they lack lose their accents, and what is left of another
 * script becomes question marks, so that a name in any script never breaks the sheet.
 */
export const printable = (font: PDFFont, words: string): string =>
  inLine(words)
    .map((letter) => {
      if (hasLetter(font, letter)) return letter;
      const other = SIGNS[letter] ?? LETTERS[letter] ?? letter.normalize('NFKD').replace(/\p{M}/gu, '');
      return other !== '' && hasLetter(font, other) ? other : '?';
    })
    .join('');

function hasLetter(font: PDFFont, letter: string): boolean {
  try {
    font.encodeText(letter);
    return true;
  } catch {
    return false;
  }
}
