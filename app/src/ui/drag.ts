// What is dragged follows one finger, or the mouse's first button: a second finger or a palm that comes down on it
// meanwhile moves nothing.

import { useRef, type PointerEvent } from 'react';

type Drag<E extends Element> = {
  /** False where there is nothing to take hold of. */
  readonly down: (event: PointerEvent<E>) => boolean | void;
  readonly move: (event: PointerEvent<E>) => void;
  readonly up: (event: PointerEvent<E>) => void;
  /** The finger was taken away by the system, or what it held went: as if nothing had been dragged. */
  readonly cancel: () => void;
};

/** Handlers of something that is dragged. It has the finger until that is lifted, wherever it goes. */
export function useDrag<E extends Element>({ down, move, up, cancel }: Drag<E>) {
  const finger = useRef<number | null>(null);
  const gone = (event: PointerEvent<E>) => {
    if (event.pointerId !== finger.current) return;
    finger.current = null;
    cancel();
  };
  return {
    onPointerDown(event: PointerEvent<E>) {
      if (finger.current !== null || event.button !== 0 || down(event) === false) return;
      finger.current = event.pointerId;
      event.currentTarget.setPointerCapture(event.pointerId);
    },
    onPointerMove(event: PointerEvent<E>) {
      if (event.pointerId === finger.current) move(event);
    },
    onPointerUp(event: PointerEvent<E>) {
      if (event.pointerId !== finger.current) return;
      finger.current = null;
      up(event);
    },
    onPointerCancel: gone,
    onLostPointerCapture: gone,
  };
}
