// Letters that the standard fonts of PDF lack, drawn by the browser: it has those of all scripts.

import type { Scribe } from '@hovlix/core/paper';

/** Dots in a point: 576 to an inch. */
const FINE = 8;
/** Room around letters that reach beyond what is measured, in dots. */
const ROOM = FINE;

type Style = Parameters<Scribe['width']>[1];

/** As the standard fonts of PDF look. */
const fontOf = ({ size, bold }: Style): string => `${bold ? 700 : 400} ${size * FINE}px Helvetica, Arial, sans-serif`;

let measuring: CanvasRenderingContext2D | undefined;

function measured(words: string, style: Style): TextMetrics {
  measuring ??= document.createElement('canvas').getContext('2d')!;
  measuring.font = fontOf(style);
  return measuring.measureText(words);
}

export const scribe: Scribe = {
  width: (words, style) => measured(words, style).width / FINE,
  picture(words, style) {
    const box = measured(words, style);
    const side = (reaches: number) => Math.ceil(Math.max(0, reaches)) + ROOM;
    const before = side(box.actualBoundingBoxLeft);
    const above = side(box.actualBoundingBoxAscent);
    const below = side(box.actualBoundingBoxDescent);
    const columns = before + side(Math.max(box.width, box.actualBoundingBoxRight));
    const rows = above + below;
    const canvas = document.createElement('canvas');
    Object.assign(canvas, { width: columns, height: rows });
    const pen = canvas.getContext('2d')!;
    pen.font = fontOf(style);
    pen.fillText(words, before, above);
    const { data } = pen.getImageData(0, 0, columns, rows);
    const ink = Uint8Array.from({ length: columns * rows }, (_, i) => data[i * 4 + 3]!);
    return { ink, columns, rows, dot: 1 / FINE, before: before / FINE, below: below / FINE };
  },
};
