// What comes in from other machines: their clock and their timecode. Fetched when MIDI is turned on.

import { createStore } from 'zustand/vanilla';
import type { Playing } from '../controls/act';
import type { ClockSource } from './clock-out';
import type { Midi } from './midi';
import type { Outside, OutsideState } from './machines';

export type { Outside } from './machines';

/** The bundler makes it a piece of its own as it is asked for here alone. */
const machines = () => import('./machines');

export function outside(stage: Playing, midi: Midi): Outside {
  const store = createStore<OutsideState>(() => ({ clock: null, timecode: null }));
  let begun = false;
  midi.store.subscribe(({ state }) => {
    if (begun || state !== 'on') return;
    begun = true;
    void machines().then(({ followMachines }) => followMachines(stage, midi, store));
  });
  return store;
}

/** Sends a clock to what is plugged in, of whatever `source` tells. @returns what ends it. */
export async function sendClockOf(midi: Midi, source: () => ClockSource | undefined): Promise<() => void> {
  const { clockSender } = await machines();
  return clockSender(midi, source);
}
