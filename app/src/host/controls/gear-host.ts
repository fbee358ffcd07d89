// This screen as a host of gear.

import type { GearHost } from '@hovlix/core/gear';
import { doActs, type Playing } from './act';
import { bareHostOf } from './bare-host';

export const gearHostOf = (stage: Playing): GearHost => ({
  ...bareHostOf(stage),
  doActs: (acts, down, at) => doActs(stage, acts, down, at),
});
