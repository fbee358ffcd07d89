// What all printed pages share: ink, and lines from top to bottom.

import { PDFDocument, rgb, type PDFPage } from 'pdf-lib';
import { broken, pensOf, shortened, type Scribe } from './pen';

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

/** What a page cannot know: when it is made, as it should be printed, and who draws letters that the standard fonts lack. */
export type Made = { readonly made: string; readonly scribe?: Scribe };

export async function paper(title: string, { made, scribe }: Made): Promise<Paper> {
  const document = await PDFDocument.create();
  const pens = await pensOf(document, scribe);
  document.setTitle(title);
  const width = A4.width - 2 * MARGIN;
  let page: PDFPage;
  let y = 0;
  const turn = () => {
    page = document.addPage([A4.width, A4.height]);
    y = A4.height - MARGIN;
    const foot = `${title}   ${made}   page ${document.getPageCount()}`;
    pens.plain.write(page, foot, { x: MARGIN, y: MARGIN - 20, size: 8, color: QUIET });
  };
  const room = (height: number) => {
    if (y - height < MARGIN) turn();
  };
  turn();
  return {
    text(words, { size, bold = false, quiet = false, indent = 0, gap = size * 0.4 }) {
      const pen = bold ? pens.bold : pens.plain;
      for (const line of broken(pen, words, size, width - indent)) {
        room(size + gap);
        pen.write(page, line, { x: MARGIN + indent, y: y - size, size, color: quiet ? QUIET : INK });
        y -= size + gap;
      }
    },
    cells(cells, size, bold = false) {
      room(size * 1.6);
      let x = MARGIN;
      for (const [words, share] of cells) {
        const pen = bold ? pens.bold : pens.plain;
        pen.write(page, shortened(pen, words, size, width * share - 6), { x, y: y - size, size, color: INK });
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
