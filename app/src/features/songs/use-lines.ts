// How many bars stand in a line: as the screen is wide, fewer or more by pinching or with the keys + and −.

import { useEffect, useState } from 'react';
import { keyOf } from '../../ui/key-of';

const PHONE = [1, 2, 4, 8] as const;
const WIDE = [2, 4, 8, 16] as const;
/** So far fingers go apart, or together, for one step. */
const PINCH = 1.4;

/** What was chosen in this window, for each kind of screen. */
const chosen = { phone: 4, wide: 8 };

export function usePerLine(wide: boolean, sheet: HTMLElement | null, keys: boolean): number {
  const kind = wide ? 'wide' : 'phone';
  const [, draw] = useState(0);
  useEffect(() => {
    const steps: readonly number[] = wide ? WIDE : PHONE;
    const step = (by: 1 | -1) => {
      const next = steps[steps.indexOf(chosen[kind]) + by];
      if (next === undefined) return;
      chosen[kind] = next;
      draw((n) => n + 1);
    };
    const press = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if ((event.target as HTMLElement | null)?.closest('input, textarea, select, [role=dialog]')) return;
      const key = keyOf(event);
      if (key === '+') step(-1);
      if (key === '-') step(1);
    };
    let from = 0;
    const apart = ({ touches: [one, other] }: TouchEvent) =>
      one && other ? Math.hypot(one.clientX - other.clientX, one.clientY - other.clientY) : 0;
    const begin = (event: TouchEvent) => (from = event.touches.length === 2 ? apart(event) : 0);
    const pinch = (event: TouchEvent) => {
      if (event.touches.length !== 2 || from === 0) return;
      event.preventDefault();
      const now = apart(event);
      if (now > from * PINCH || now < from / PINCH) {
        step(now > from ? -1 : 1);
        from = now;
      }
    };
    if (keys) window.addEventListener('keydown', press);
    sheet?.addEventListener('touchstart', begin, { passive: true });
    sheet?.addEventListener('touchmove', pinch, { passive: false });
    return () => {
      window.removeEventListener('keydown', press);
      sheet?.removeEventListener('touchstart', begin);
      sheet?.removeEventListener('touchmove', pinch);
    };
  }, [wide, kind, sheet, keys]);
  return chosen[kind];
}
