// For what counts to the moment: it is done as the finger comes down, a tenth of a second before a click.

import type { MouseEvent, PointerEvent } from 'react';

export type Stamped = { readonly timeStamp: number };

/** Handlers of such a button. Keys, and helpers that press for somebody, click without a finger. */
export const atOnce = (act: (event: Stamped) => void) => ({
  onPointerDown: (event: PointerEvent) => event.button === 0 && act(event),
  onClick: (event: MouseEvent) => event.detail === 0 && act(event),
});

const done = new WeakSet<EventTarget>();

/**
 * The same for what lies in a list: a finger that comes down on it may be about to scroll, so that it counts at its lift
 * where there is anything to scroll. A mouse scrolls nothing, and a list that fits is not scrolled.
 */
export const atOnceUnlessScrolling = (act: () => void) => ({
  onPointerDown({ button, pointerType, currentTarget }: PointerEvent) {
    const now = button === 0 && (pointerType === 'mouse' || !scrolls(currentTarget));
    if (!now) return void done.delete(currentTarget);
    done.add(currentTarget);
    act();
  },
  onClick({ detail, currentTarget }: MouseEvent) {
    if (!done.delete(currentTarget) || detail === 0) act();
  },
});

/** Whether a finger on an element can move what it lies in, upwards or downwards. */
function scrolls(element: Element): boolean {
  for (let around = element.parentElement; around; around = around.parentElement) {
    if (around.scrollHeight <= around.clientHeight + 1) continue;
    if (around === document.documentElement || /auto|scroll/.test(getComputedStyle(around).overflowY)) return true;
  }
  return false;
}
