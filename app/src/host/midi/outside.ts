// What comes in from other machines: their clock and their timecode. Fetched when MIDI is turned on.

import { createStore, type StoreApi } from 'zustand/vanilla';
import type { ClockSource, MachinesState } from '@hovlix/core/machines';
import type { Playing } from '../controls/act';
import type { Midi } from './midi';

export type Outside = StoreApi<MachinesState>;

/** The bundler makes it a piece of its own as it is asked for here alone. */
const machines = () => import('./machines');

export function outside(stage: Playing, midi: Midi, yields: () => boolean): Outside {
  const store = createStore<MachinesState>(() => ({ clock: null, timecode: null }));
  let begun = false;
  midi.store.subscribe(({ state }) => {
    if (begun || state !== 'on') return;
    begun = true;
    void machines().then(({ follow }) => follow(stage, midi, store, yields));
  });
  return store;
}

/** Sends a clock to what is plugged in, of whatever `source` tells. @returns what ends it. */
export async function sendClockOf(midi: Midi, source: () => ClockSource | undefined): Promise<() => void> {
  const { sendClockTo } = await machines();
  return sendClockTo(midi, source);
}
