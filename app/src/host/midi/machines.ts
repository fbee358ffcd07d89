// Other machines, followed and led. Fetched when MIDI is turned on.

import type { StoreApi } from 'zustand/vanilla';
import { clockSender, followMachines, type ClockSource, type MachinesState } from '@hovlix/core/machines';
import { useSession } from '../session';
import type { Playing } from '../controls/act';
import { timers } from '../controls/bare-host';
import { gearHostOf } from '../controls/gear-host';
import type { Midi } from './midi';

/** @param yields while it says so, the computer that conducts does it. */
export function follow(stage: Playing, midi: Midi, store: StoreApi<MachinesState>, yields: () => boolean): void {
  const session = useSession.getState;
  const hears = followMachines({
    host: gearHostOf(stage),
    ports: midi,
    wishes: {
      follows: () => (yields() ? 'nothing' : session().follows),
      sendsClock: () => session().sendsClock && !yields(),
      say: (text, bad) => session().say(text, bad ? { tone: 'bad' } : undefined),
    },
    tell: (state) => store.setState(state),
  });
  midi.onBytes(hears);
}

export const sendClockTo = (midi: Pick<Midi, 'sendTo'>, source: () => ClockSource | undefined) =>
  clockSender(timers, midi, source);
