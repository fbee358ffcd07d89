// The page's side of the light worker: frames to draw, ribbons, pictures of looks, and why a lamp is dark.

import type { Explanation } from '@hovlix/core/engine';
import type { LookValue } from '@hovlix/core/light';
import type { Shape } from '@hovlix/core/rig';
import type { Show } from '@hovlix/core/show';
import type { FromLight, StageHead, ToLight, When } from './light-messages';

export type Stage = {
  readonly heads: readonly StageHead[];
  readonly shapes: readonly Shape[];
  readonly notes: readonly string[];
};

export type Portrait = Pick<Extract<FromLight, { type: 'portrait' }>, 'heads' | 'shapes' | 'lamps'>;

export type Light = {
  readonly tell: (message: ToLight) => void;
  /** The heads of the rig in use; changes with each compiled show. */
  readonly stage: () => Stage;
  readonly onStage: (listener: () => void) => () => void;
  /** Takes each frame while subscribed. The array is only lent until the next one. */
  readonly onFrame: (draw: (lamps: Float32Array) => void) => () => void;
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
  const waiting = new Map<number, (value: never) => void>();
  let asked = 0;
  let held: Float32Array<ArrayBuffer> | undefined;

  const tell = (message: ToLight) =>
    worker.postMessage(message, message.type === 'spent' ? [message.lamps.buffer] : []);
  const ask = <T>(question: (id: number) => ToLight): Promise<T> =>
    new Promise((resolve) => {
      const id = ++asked;
      waiting.set(id, resolve as (value: never) => void);
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
      waiting.get(message.id)?.(value as never);
      waiting.delete(message.id);
    }
  };

  return {
    tell,
    stage: () => stage,
    onStage(listener) {
      stageListeners.add(listener);
      return () => stageListeners.delete(listener);
    },
    onFrame(draw) {
      drawers.add(draw);
      tell({ type: 'frames', on: true });
      return () => {
        drawers.delete(draw);
        if (drawers.size === 0) tell({ type: 'frames', on: false });
      };
    },
    ribbon: (song, roles, times) => ask((id) => ({ type: 'ribbon', id, song, roles, times })),
    picture: (look) => ask((id) => ({ type: 'picture', id, look })),
    portrait: (show) => ask((id) => ({ type: 'portrait', id, show })),
    explain: (fixture, when) => ask((id) => ({ type: 'explain', id, fixture, when })),
  };
}
