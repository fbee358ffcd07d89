// What all printed pages share: ink, and words the standard fonts can print.

import { PDFDocument, rgb, StandardFonts, type PDFFont, type PDFPage } from 'pdf-lib';

export const INK = rgb(0.13, 0.11, 0.17);
export const QUIET = rgb(0.42, 0.38, 0.46);
export const RULE = rgb(0.85, 0.82, 0.78);

/** Points of A4, upright. */
export const A4 = { width: 595.28, height: 841.89 };
const MARGIN = 42;

/** Lines from top to bottom, on as many pages as it takes. Sizes and gaps are in points. */
export type Paper = {
  readonly text: (
    words: string,
    options: {
      readonly size: number;
      readonly bold?: boolean;
      readonly quiet?: boolean;
      readonly indent?: number;
      readonly gap?: number;
    },
  ) => void;
  /** Cells of one line, each in a share of its width. */
  readonly cells: (cells: readonly (readonly [words: string, share: number])[], size: number, bold?: boolean) => void;
  readonly rule: () => void;
  /** Starts a new page unless there is room for so much. */
  readonly room: (height: number) => void;
  readonly bytes: () => Promise<Uint8Array>;
};

/** @param made when, as it should be printed; core has no clock. */
export async function paper(title: string, made: string): Promise<Paper> {
  const document = await PDFDocument.create();
  const plain = await document.embedFont(StandardFonts.Helvetica);
  const heavy = await document.embedFont(StandardFonts.HelveticaBold);
  document.setTitle(printable(plain, title));
  const width = A4.width - 2 * MARGIN;
  let page: PDFPage;
  let y = 0;
  const turn = () => {
    page = document.addPage([A4.width, A4.height]);
    y = A4.height - MARGIN;
    const foot = printable(plain, `${title}   ${made}   page ${document.getPageCount()}`);
    page.drawText(foot, { x: MARGIN, y: MARGIN - 20, size: 8, font: plain, color: QUIET });
  };
  const room = (height: number) => {
    if (y - height < MARGIN) turn();
  };
  turn();
  return {
    text(words, { size, bold = false, quiet = false, indent = 0, gap = size * 0.4 }) {
      const font = bold ? heavy : plain;
      for (const line of broken(font, words, size, width - indent)) {
        room(size + gap);
        page.drawText(line, { x: MARGIN + indent, y: y - size, size, font, color: quiet ? QUIET : INK });
        y -= size + gap;
      }
    },
    cells(cells, size, bold = false) {
      room(size * 1.6);
      let x = MARGIN;
      for (const [words, share] of cells) {
        const font = bold ? heavy : plain;
        page.drawText(shortened(font, words, size, width * share - 6), { x, y: y - size, size, font, color: INK });
        x += width * share;
      }
      y -= size * 1.6;
    },
    rule() {
      page.drawLine({
        start: { x: MARGIN, y: y - 2 },
        end: { x: A4.width - MARGIN, y: y - 2 },
        thickness: 0.5,
        color: RULE,
      });
      y -= 8;
    },
    room,
    bytes: () => document.save(),
  };
}

/** Words in as many lines as they need; a word that is longer than a line is shortened. */
export function broken(font: PDFFont, words: string, size: number, width: number): readonly string[] {
  const lines: string[] = [];
  for (const word of printable(font, words).split(/\s+/).filter(Boolean)) {
    const together = lines.length > 0 ? `${lines.at(-1)} ${word}` : word;
    if (lines.length > 0 && font.widthOfTextAtSize(together, size) <= width) lines[lines.length - 1] = together;
    else lines.push(shortened(font, word, size, width));
  }
  return lines;
}

/** What the standard fonts have no letter for, and what says the same. */
const INSTEAD: Readonly<Record<string, string>> = {
  '♯': '#',
  '♭': 'b',
  '−': '-',
  '→': '>',
  ł: 'l',
  Ł: 'L',
  đ: 'd',
  Đ: 'D',
  ı: 'i',
  ħ: 'h',
};

/**
 * Words as the standard fonts can print them, in one line: letters they lack lose their accents, and what is left of another
 * script becomes question marks, so that a name in any script never breaks the sheet.
 */
export function printable(font: PDFFont, words: string): string {
  const prints = (letter: string) => {
    try {
      font.encodeText(letter);
      return true;
    } catch {
      return false;
    }
  };
  return [...words.normalize('NFC').replace(/\s+/gu, ' ')]
    .map((letter) => {
      if (prints(letter)) return letter;
      const other = INSTEAD[letter] ?? letter.normalize('NFKD').replace(/\p{M}/gu, '');
      return other !== '' && prints(other) ? other : '?';
    })
    .join('');
}

export function shortened(font: PDFFont, words: string, size: number, width: number): string {
  let text = printable(font, words);
  if (font.widthOfTextAtSize(text, size) <= width) return text;
  while (text.length > 1 && font.widthOfTextAtSize(`${text}...`, size) > width) text = text.slice(0, -1);
  return `${text}...`;
}
