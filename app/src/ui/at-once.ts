// For what counts to the moment: it is done as the finger comes down, a tenth of a second before a click.

import type { MouseEvent, PointerEvent } from 'react';

export type Stamped = { readonly timeStamp: number };

/** Handlers of such a button. Keys, and helpers that press for somebody, click without a finger. */
export const atOnce = (act: (event: Stamped) => void) => ({
  onPointerDown: (event: PointerEvent) => event.button === 0 && act(event),
  onClick: (event: MouseEvent) => event.detail === 0 && act(event),
});
