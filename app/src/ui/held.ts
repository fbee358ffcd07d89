// What does something for as long as it is held: by a finger, a mouse, or Enter and Space. It goes by pointers alone: after
// a finger a browser plays the same press again as a mouse, and a finger that begins to scroll is never lifted.

import { useEffect, useRef, useState, type KeyboardEvent, type MouseEvent, type PointerEvent } from 'react';
import type { Stamped } from './at-once';

type Held = {
  readonly down: (event: Stamped) => void;
  readonly up: (event: Stamped) => void;
};

const isKey = ({ key }: KeyboardEvent): boolean => key === 'Enter' || key === ' ';

/**
 * Handlers of such a button. What was pressed is let go of, whatever the button does by then; also when the button goes.
 * A second finger on it neither presses again nor lets go.
 * @param on whether it is held at all; where that ends, it is let go of.
 */
export function useHeld(does: Held, on = true) {
  const now = useRef(does);
  const held = useRef<(Held & { readonly finger?: number | undefined }) | undefined>(undefined);
  useEffect(() => {
    now.current = does;
  });
  const [handlers] = useState(() => {
    const begin = (event: Stamped, finger?: number) => {
      if (held.current) return;
      held.current = { ...now.current, finger };
      held.current.down(event);
    };
    const end = (event: Stamped) => {
      const pressed = held.current;
      held.current = undefined;
      pressed?.up(event);
    };
    const lift = (event: PointerEvent) => {
      if (held.current?.finger === event.pointerId) end(event);
    };
    return {
      end,
      onPointerDown(event: PointerEvent) {
        if (event.button !== 0) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        begin(event, event.pointerId);
      },
      onPointerUp: lift,
      onPointerCancel: lift,
      onLostPointerCapture: lift,
      onKeyDown: (event: KeyboardEvent) => isKey(event) && !event.repeat && begin(event),
      onKeyUp: (event: KeyboardEvent) => isKey(event) && end(event),
      onBlur: end,
      // A finger that stays opens no menu.
      onContextMenu: (event: MouseEvent) => event.preventDefault(),
    };
  });
  const { end, ...given } = handlers;
  useEffect(() => () => end({ timeStamp: performance.now() }), [on, end]);
  return given;
}
