// This screen as a host of gear, but for what a switch means.

import { timersOf, type BareHost } from '@hovlix/core/gear';
import { momentOf, momentOfPress, type Stage } from '../conduct/moment';

export const timers = timersOf<ReturnType<typeof setTimeout>>(window);

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
