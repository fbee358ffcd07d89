// This screen as a host of gear, but for what a switch means.

import type { BareHost, Timers } from '@hovlix/core/gear';
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

export function bareHostOf(stage: Stage): BareHost {
  const { conducting } = stage;
  return {
    moment: () => momentOf(stage),
    press: () => momentOfPress(stage),
    now: conducting.now,
    act: conducting.act,
    time: timers,
  };
}
