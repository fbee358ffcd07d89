// What depends on the moment: the show, what is on, and the clock.

import { useCallback, useSyncExternalStore } from 'react';
import type { Moment } from '@hovlix/core/live';
import { momentOf } from '../../host/conduct/gestures';
import { useHovlix } from '../../host/hovlix';

/** How often it is looked where the clock has led to. */
const LOOK_MS = 150;

/**
 * Something of the moment, looked up with every press and a few times a second. `pick` must give a plain value: a text, a
 * number, true or false.
 */
export function useMoment<T extends string | number | boolean | undefined>(pick: (moment: Moment) => T): T | undefined {
  const { conducting, document } = useHovlix();
  const subscribe = useCallback(
    (changed: () => void) => {
      const stops = [conducting.store.subscribe(changed), document.store.subscribe(changed)];
      const timer = setInterval(changed, LOOK_MS);
      return () => {
        clearInterval(timer);
        for (const stop of stops) stop();
      };
    },
    [conducting, document],
  );
  return useSyncExternalStore(subscribe, () => {
    const moment = momentOf({ conducting, document });
    return moment && pick(moment);
  });
}
