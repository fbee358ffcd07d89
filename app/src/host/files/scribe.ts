// Letters that the standard fonts of PDF lack, drawn by the browser: it has those of all scripts.

import type { Drawn, Scribe } from '@hovlix/core/paper';

/** Points of a canvas in one of a page: 288 to an inch. */
const FINE = 4;
/** Room around letters that reach beyond what is measured, in points. */
const ROOM = 1;

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
  async picture(words, style, { red, green, blue }): Promise<Drawn> {
    const { width, ...box } = measured(words, style);
    const side = (reaches: number) => Math.ceil(Math.max(0, reaches) + ROOM * FINE);
    const [before, after] = [side(box.actualBoundingBoxLeft), side(Math.max(width, box.actualBoundingBoxRight))];
    const [above, below] = [side(box.actualBoundingBoxAscent), side(box.actualBoundingBoxDescent)];
    const canvas = document.createElement('canvas');
    canvas.width = before + after;
    canvas.height = above + below;
    const pen = canvas.getContext('2d')!;
    pen.font = fontOf(style);
    pen.fillStyle = `rgb(${[red, green, blue].map((part) => Math.round(part * 255)).join(' ')})`;
    pen.fillText(words, before, above);
    const png = await new Promise<Blob>((resolve, reject) =>
      canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('The canvas gave no picture.')))),
    );
    return {
      png: new Uint8Array(await png.arrayBuffer()),
      width: canvas.width / FINE,
      height: canvas.height / FINE,
      before: before / FINE,
      below: below / FINE,
    };
  },
};
