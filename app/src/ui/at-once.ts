// For what counts to the moment: it is done as the finger comes down, a tenth of a second before a click.

import type { MouseEvent, PointerEvent } from 'react';

export type Stamped = { readonly timeStamp: number };

/** Handlers of such a button. Keys, and helpers that press for somebody, click without a finger. */
export const atOnce = (act: (event: Stamped) => void) => ({
  onPointerDown: (event: PointerEvent) => event.button === 0 && act(event),
  onClick: (event: MouseEvent) => event.detail === 0 && act(event),
});

/**
 * The same for what lies in a list: a finger that comes down on it may be about to scroll, so that it counts at its lift
 * where there is anything to scroll. A mouse scrolls nothing, and a list that fits is not scrolled.
 * @param may whether it may be done before the finger lifts.
 */
export const atOnceUnlessScrolling = (act: () => void, may = () => true) => ({
  onPointerDown({ button, pointerType, currentTarget }: PointerEvent) {
    const now = button === 0 && may() && (pointerType === 'mouse' || !scrolls(currentTarget));
    if (!now) return void done.delete(currentTarget);
    done.add(currentTarget);
    act();
  },
  onClick({ detail, currentTarget }: MouseEvent) {
    if (!done.delete(currentTarget) || detail === 0) act();
  },
});

const done = new WeakSet<EventTarget>();

/** Browsers let a page sound once it was pressed, which a finger does as it lifts; then for as long as it is open. */
export const maySound = (): boolean =>
  'userActivation' in window.navigator && window.navigator.userActivation.hasBeenActive;

/** Whether a finger on an element can move what it lies in, upwards or downwards. */
function scrolls(element: Element): boolean {
  for (let around = element.parentElement; around; around = around.parentElement) {
    if (around.scrollHeight <= around.clientHeight + 1) continue;
    if (around === document.documentElement || /auto|scroll/.test(getComputedStyle(around).overflowY)) return true;
  }
  return false;
}
