// Other machines, followed and led: timecode first, then a clock; ours goes out. A page that does not listen to MIDI has no
// need of it.

import type { BytesTaker, BareHost, Ports } from '../gear/host';
import { clockIn, type ClockIn } from './clock-in';
import { sendClock } from './clock-out';
import type { Wishes } from './following';
import { timecodeIn, type TimecodeIn } from './timecode-in';

export { clockIn, type ClockIn } from './clock-in';
export { timecodeIn, type TimecodeIn } from './timecode-in';
export { clockSender, sendClock, type ClockSource } from './clock-out';
export type { Wishes } from './following';

export type MachinesState = { readonly clock: ClockIn | null; readonly timecode: TimecodeIn | null };

type Start = {
  readonly host: BareHost;
  readonly ports: Pick<Ports, 'sendTo'>;
  readonly wishes: Wishes & { readonly sendsClock: () => boolean };
  readonly tell: (state: Partial<MachinesState>) => void;
};

/** @returns what hears all that comes in. */
export function followMachines({ host, ports, wishes, tell }: Start): BytesTaker {
  const timecode = timecodeIn(host, wishes, (one) => tell({ timecode: one }));
  const clock = clockIn(host, wishes, (one) => tell({ clock: one }), timecode.leads);
  sendClock(host, ports, wishes.sendsClock);
  return (device, data, at) => {
    timecode.take(device, data, at);
    clock(device, data, at);
  };
}
