// The page's side of the light worker: frames to draw, ribbons, pictures of looks, and why a lamp is dark.

import type { Explanation } from '@hovlix/core/engine';
import type { LookValue } from '@hovlix/core/light';
import type { Shape } from '@hovlix/core/rig';
import type { Show } from '@hovlix/core/show';
import { localSeconds } from '../conduct/local-clock';
import type { FromLight, StageHead, ToLight, When } from './light-messages';
import { stageWindow } from './stage-window';

export type Stage = {
  readonly heads: readonly StageHead[];
  readonly shapes: readonly Shape[];
  readonly notes: readonly string[];
};

export type Portrait = Pick<Extract<FromLight, { type: 'portrait' }>, 'heads' | 'shapes' | 'lamps'>;

/** A canvas that the worker paints the stage on. */
export type PaintedStage = {
  /** In pixels of the page; `scale` pixels of the screen for each. */
  readonly size: (width: number, height: number, scale: number) => void;
  /** Puts a ring around some lamps. */
  readonly mark: (fixtures: readonly string[]) => void;
  readonly stop: () => void;
};

export type Light = {
  readonly tell: (message: ToLight) => void;
  /** The heads of the rig in use; changes with each compiled show. */
  readonly stage: () => Stage;
  readonly onStage: (listener: () => void) => () => void;
  /** Takes each frame while subscribed. The array is only lent until the next one. */
  readonly onFrame: (draw: (lamps: Float32Array) => void) => () => void;
  /** Has the stage painted on a canvas, as it is lit. */
  readonly paint: (canvas: HTMLCanvasElement) => PaintedStage;
  readonly ribbon: (
    song: string,
    roles: readonly string[],
    times: readonly number[],
  ) => Promise<Uint8ClampedArray<ArrayBuffer>>;
  /** The rig in a look, or in values that are stored nowhere yet. */
  readonly picture: (look: string | readonly LookValue[]) => Promise<Float32Array>;
  /** The rig of a show that is not open, in one of its looks. */
  readonly portrait: (show: Show) => Promise<Portrait>;
  readonly explain: (fixture: string, when: When) => Promise<Explanation | null>;
};

export function light(worker: Worker): Light {
  let stage: Stage = { heads: [], shapes: [], notes: [] };
  const stageListeners = new Set<() => void>();
  const drawers = new Set<(lamps: Float32Array) => void>();
  const waiting = new Map<number, (value: unknown) => void>();
  let asked = 0;
  let held: Float32Array<ArrayBuffer> | undefined;

  /** Numbers of the canvases that were given to the worker: each can be given away once. */
  const given = new WeakMap<HTMLCanvasElement, number>();
  let canvases = 0;

  const tell = (message: ToLight) => worker.postMessage(message, handed(message));
  const ask = <T>(question: (id: number) => ToLight): Promise<T> =>
    new Promise((resolve) => {
      const id = ++asked;
      waiting.set(id, resolve as (value: unknown) => void);
      tell(question(id));
    });

  worker.onmessage = (event: MessageEvent<FromLight>) => {
    const message = event.data;
    if (message.type === 'frame') {
      if (held) tell({ type: 'spent', lamps: held });
      held = message.lamps;
      for (const draw of drawers) draw(held);
    } else if (message.type === 'heads') {
      stage = { heads: message.heads, shapes: message.shapes, notes: message.notes };
      held = undefined;
      for (const listener of stageListeners) listener();
    } else {
      const value = message.type === 'portrait' ? message : message.value;
      waiting.get(message.id)?.(value);
      waiting.delete(message.id);
    }
  };

  const onStage = (listener: () => void) => {
    stageListeners.add(listener);
    return () => void stageListeners.delete(listener);
  };
  const onFrame = (draw: (lamps: Float32Array) => void) => {
    drawers.add(draw);
    tell({ type: 'frames', on: true });
    return () => {
      drawers.delete(draw);
      if (drawers.size === 0) tell({ type: 'frames', on: false });
    };
  };

  /** A browser that cannot give a canvas away has the page paint it. */
  const paintedHere = (canvas: HTMLCanvasElement): PaintedStage => {
    const here = stageWindow({
      clock: localSeconds,
      nextFrame: (draw) => void requestAnimationFrame(draw),
      afterwards: (done) => void setTimeout(done),
    });
    const take = () => here.take(stage.heads, stage.shapes);
    here.hear({ type: 'stage', surface: 0, canvas });
    take();
    const stops = [onStage(take), onFrame(here.lit)];
    return {
      size: (width, height, scale) => here.hear({ type: 'stage-size', width, height, scale }),
      mark: (fixtures) => here.hear({ type: 'stage-marked', fixtures }),
      stop() {
        here.hear({ type: 'stage-off', surface: 0 });
        for (const stop of stops) stop();
      },
    };
  };

  return {
    tell,
    stage: () => stage,
    onStage,
    onFrame,
    paint(canvas) {
      if (typeof canvas.transferControlToOffscreen !== 'function') return paintedHere(canvas);
      const known = given.get(canvas);
      const surface = known ?? ++canvases;
      given.set(canvas, surface);
      if (known === undefined) tell({ type: 'stage', surface, canvas: canvas.transferControlToOffscreen() });
      else tell({ type: 'stage', surface });
      return {
        size: (width, height, scale) => tell({ type: 'stage-size', width, height, scale }),
        mark: (fixtures) => tell({ type: 'stage-marked', fixtures }),
        stop() {
          tell({ type: 'stage-off', surface });
          // One that is only hidden comes back with the same canvas.
          setTimeout(() => canvas.isConnected || tell({ type: 'stage-gone', surface }));
        },
      };
    },
    ribbon: (song, roles, times) => ask((id) => ({ type: 'ribbon', id, song, roles, times })),
    picture: (look) => ask((id) => ({ type: 'picture', id, look })),
    portrait: (show) => ask((id) => ({ type: 'portrait', id, show })),
    explain: (fixture, when) => ask((id) => ({ type: 'explain', id, fixture, when })),
  };
}

/** What of a message is given away, not copied. */
function handed(message: ToLight): Transferable[] {
  if (message.type === 'spent') return [message.lamps.buffer];
  return message.type === 'stage' && message.canvas ? [message.canvas as OffscreenCanvas] : [];
}
