// Paints the stage on a canvas: one that the page gave away, in the worker that knows its light, so that the page has no
// part in it; or the page's own, where a browser cannot give one away.

import type { Shape } from '@hovlix/core/rig';
import type { Canvas2D } from '../../ui/stage/canvas';
import { pace } from '../../ui/stage/pace';
import { painter, type Painter } from '../../ui/stage/paint';
import type { StageCanvas, StageHead, ToStage } from './light-messages';

export type StageWindow = {
  readonly hear: (message: ToStage) => void;
  /** @returns whether anybody looks at it. */
  readonly open: () => boolean;
  /** The lamps of the rig from now on; dark until their light is known. */
  readonly take: (heads: readonly StageHead[], shapes: readonly Shape[]) => void;
  /** Light that has not been painted yet; the array is read until the next one. */
  readonly lit: (lamps: Float32Array) => void;
};

type Host = {
  /** Seconds of a steady clock. */
  readonly clock: () => number;
  /** Calls back when the screen takes its next picture. */
  readonly nextFrame: (draw: () => void) => void;
  /** Calls back as soon as what was painted is on its way to the screen. */
  readonly afterwards: (done: () => void) => void;
};

const NO_LAMPS = new Float32Array(0);

export function stageWindow({ clock, nextFrame, afterwards }: Host): StageWindow {
  /** By number: a page that hides a picture may show the same one again, and can give a canvas away only once. */
  const canvases = new Map<number, StageCanvas>();
  const rate = pace();
  let shown: StageCanvas | undefined;
  let context: Canvas2D | null = null;
  let size = { width: 0, height: 0, scale: 1 };
  let heads: readonly StageHead[] = [];
  let artist: Painter = painter([], []);
  let marked: readonly string[] = [];
  let lamps: Float32Array = NO_LAMPS;
  let fresh = false;
  let waiting = false;

  const now = () => clock() * 1000;

  const ask = () => {
    fresh = true;
    if (waiting || !shown) return;
    waiting = true;
    nextFrame(draw);
  };

  const draw = () => {
    waiting = false;
    if (!shown || !context || !fresh) return;
    const begun = now();
    // A rig without lamps is an empty stage; one whose light is not known yet is left as it was.
    if (size.width === 0 || (heads.length > 0 && lamps.length === 0)) return;
    if (!rate.due(begun)) return ask();
    fresh = false;
    const scale = size.scale * rate.sharpness();
    const [width, height] = [Math.round(size.width * scale), Math.round(size.height * scale)];
    if (shown.width !== width || shown.height !== height) {
      shown.width = width;
      shown.height = height;
    }
    context.setTransform(scale, 0, 0, scale, 0, 0);
    artist.paint(context, size.width, size.height, lamps, begun / 1000);
    afterwards(() => rate.took(begun, now()));
  };

  return {
    hear(message) {
      switch (message.type) {
        case 'stage':
          if (message.canvas) canvases.set(message.surface, message.canvas);
          shown = canvases.get(message.surface);
          context = (shown?.getContext('2d', { alpha: false }) ?? null) as Canvas2D | null;
          return ask();
        case 'stage-size':
          size = message;
          return ask();
        case 'stage-marked':
          marked = message.fixtures;
          artist.mark(marked);
          return ask();
        case 'stage-off':
          if (canvases.get(message.surface) === shown) shown = undefined;
          return;
        case 'stage-gone':
          canvases.delete(message.surface);
          return;
      }
    },
    open: () => shown !== undefined,
    take(next, shapes) {
      heads = next;
      artist = painter(heads, shapes);
      artist.mark(marked);
      lamps = NO_LAMPS;
      ask();
    },
    lit(next) {
      lamps = next;
      ask();
    },
  };
}
