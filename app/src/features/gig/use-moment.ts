// What depends on the moment: the show, what is on, and the clock.

import { useCallback, useSyncExternalStore } from 'react';
import type { Moment } from '@hovlix/core/live';
import { momentOf } from '../../host/conduct/gestures';
import { useHovlix } from '../../host/hovlix';

/** How often it is looked where the clock has led to. */
const LOOK_MS = 150;

/** All of a page look at once: it wakes once for them. */
const lookers = new Set<() => void>();
let timer: ReturnType<typeof setInterval> | undefined;

function eachLook(look: () => void): () => void {
  lookers.add(look);
  timer ??= setInterval(() => lookers.forEach((one) => one()), LOOK_MS);
  return () => {
    lookers.delete(look);
    if (lookers.size > 0) return;
    clearInterval(timer);
    timer = undefined;
  };
}

/**
 * Something of the moment, looked up with every press and a few times a second. `pick` must give a plain value: a text, a
 * number, true or false.
 */
export function useMoment<T extends string | number | boolean | undefined>(pick: (moment: Moment) => T): T | undefined {
  const { conducting, document } = useHovlix();
  const subscribe = useCallback(
    (changed: () => void) => {
      const stops = [conducting.store.subscribe(changed), document.store.subscribe(changed), eachLook(changed)];
      return () => stops.forEach((stop) => stop());
    },
    [conducting, document],
  );
  return useSyncExternalStore(subscribe, () => {
    const moment = momentOf({ conducting, document });
    return moment && pick(moment);
  });
}
