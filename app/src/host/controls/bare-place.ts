// This screen as a place where gear is plugged in, but for what a switch means.

import type { BarePlace, Timers } from '@hovlix/core/gear';
import { momentOf, momentOfPress, type Stage } from '../conduct/moment';

export const timers: Timers = {
  after(ms, what) {
    const timer = setTimeout(what, ms);
    return () => clearTimeout(timer);
  },
  every(ms, what) {
    const timer = setInterval(what, ms);
    return () => clearInterval(timer);
  },
};

export function barePlaceOf(stage: Stage): BarePlace {
  const { conducting } = stage;
  return {
    moment: () => momentOf(stage),
    press: () => momentOfPress(stage),
    now: conducting.now,
    act: conducting.act,
    time: timers,
  };
}
