// What writes on printed pages: the standard fonts of PDF, and a scribe for letters that they lack.

import {
  concatTransformationMatrix,
  drawObject,
  popGraphicsState,
  pushGraphicsState,
  setFillingColor,
  StandardFonts,
  type PDFDocument,
  type PDFFont,
  type PDFPage,
  type RGB,
} from 'pdf-lib';
import { withoutAccents } from '../../letters';
import { own } from '../../own';

/** Draws words in the letters of any script. Lengths are in points, those of a picture too. */
export type Scribe = {
  readonly width: (words: string, style: Style) => number;
  readonly picture: (words: string, style: Style) => Drawn;
};

type Style = { readonly size: number; readonly bold: boolean };

export type Drawn = {
  /** How much ink each dot has, 0…255, row by row from the top. */
  readonly ink: Uint8Array;
  readonly columns: number;
  readonly rows: number;
  /** Of a dot. */
  readonly dot: number;
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

export type Pens = { readonly plain: Pen; readonly bold: Pen };

export async function pensOf(document: PDFDocument, scribe?: Scribe): Promise<Pens> {
  const pen = (font: PDFFont, bold: boolean): Pen => {
    const drawn = (words: string) => scribe !== undefined && !prints(font, words);
    return {
      width: (words, size) =>
        drawn(words) ? scribe!.width(words, { size, bold }) : font.widthOfTextAtSize(printable(font, words), size),
      write(page, words, { x, y, size, color }) {
        if (!drawn(words)) return page.drawText(printable(font, words), { x, y, size, font, color });
        stamp(page, scribe!.picture(words, { size, bold }), { x, y, color });
      },
    };
  };
  return {
    plain: pen(await document.embedFont(StandardFonts.Helvetica), false),
    bold: pen(await document.embedFont(StandardFonts.HelveticaBold), true),
  };
}

/** A stencil through which the colour is painted (ISO 32000-1, clause 8.9.6.2): sharp, small, and known to every printer. */
function stamp(page: PDFPage, drawn: Drawn, { x, y, color }: Omit<At, 'size'>): void {
  const { columns, rows, dot, before, below } = drawn;
  const { context } = page.doc;
  const stencil = context.flateStream(stencilOf(drawn), {
    Type: 'XObject',
    Subtype: 'Image',
    ImageMask: true,
    BitsPerComponent: 1,
    Width: columns,
    Height: rows,
  });
  page.pushOperators(
    pushGraphicsState(),
    setFillingColor(color),
    concatTransformationMatrix(columns * dot, 0, 0, rows * dot, x - before, y - below),
    drawObject(page.node.newXObject('Letters', context.register(stencil))),
    popGraphicsState(),
  );
}

/** A bit a dot, 0 where ink is; each row begins with a byte of its own. */
function stencilOf({ ink, columns, rows }: Drawn): Uint8Array {
  const wide = Math.ceil(columns / 8);
  const bits = new Uint8Array(wide * rows).fill(0xff);
  for (let i = 0; i < ink.length; i++) {
    if (ink[i]! < 0x80) continue;
    const column = i % columns;
    bits[Math.floor(i / columns) * wide + (column >> 3)]! &= ~(0x80 >> (column & 7));
  }
  return bits;
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

/** Words in one line, with accents on their letters. */
const inLine = (words: string): readonly string[] => [...words.normalize('NFC').replace(/\s+/gu, ' ')];

/** Whether the standard fonts have all letters of a text, or signs that say the same. */
const prints = (font: PDFFont, words: string): boolean =>
  inLine(words).every((letter) => own(SIGNS, letter) !== undefined || hasLetter(font, letter));

/**
 * Words as the standard fonts can print them, in one line: letters they lack lose their accents, and what is left of another
 * script becomes question marks, so that a name in any script never breaks the sheet.
 */
export const printable = (font: PDFFont, words: string): string =>
  inLine(words)
    .map((letter) => {
      if (hasLetter(font, letter)) return letter;
      const other = own(SIGNS, letter) ?? withoutAccents(letter);
      return other !== '' && [...other].every((one) => hasLetter(font, one)) ? other : '?';
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
