// This screen as a place where gear is plugged in.

import type { Place } from '@hovlix/core/gear';
import { doActs, type Playing } from './act';
import { barePlaceOf } from './bare-place';

export const placeOf = (stage: Playing): Place => ({
  ...barePlaceOf(stage),
  doActs: (acts, down) => doActs(stage, acts, down),
});
