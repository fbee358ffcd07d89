// Other machines, followed and led: timecode first, then a clock; ours goes out.

import type { Playing } from '../controls/act';
import type { StoreApi } from 'zustand/vanilla';
import { clockIn, type ClockInState } from './clock-in';
import { sendClock } from './clock-out';
import type { Midi } from './midi';
import { timecodeIn, type TimecodeInState } from './timecode-in';

export { clockSender } from './clock-out';

export type OutsideState = { readonly clock: ClockInState | null; readonly timecode: TimecodeInState | null };
export type Outside = StoreApi<OutsideState>;

export function followMachines(stage: Playing, midi: Midi, store: Outside): void {
  const timecode = timecodeIn(stage, midi);
  const clock = clockIn(stage, midi, timecode.leads);
  sendClock(stage, midi);
  timecode.store.subscribe((state) => store.setState(state));
  clock.store.subscribe((state) => store.setState(state));
}
