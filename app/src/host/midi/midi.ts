// MIDI of this screen: notes that come in play the hit kits, each channel on the role it is given to; messages go out.

import { createStore, type StoreApi } from 'zustand/vanilla';
import type { MidiMessage } from '@hovlix/core/song';
import type { Stage } from '../conduct/gestures';
import { strike } from './strikes';

export type MidiState = {
  readonly state: 'off' | 'asking' | 'on';
  /** Names of what is plugged in. */
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
  /** The last note, to see that something comes in. */
  readonly last: { readonly channel: number; readonly note: number } | null;
  readonly why: string | null;
};

export type Midi = {
  readonly store: StoreApi<MidiState>;
  readonly start: (stage: Stage) => Promise<void>;
  readonly stop: () => void;
  /** To everything that is plugged in and takes MIDI. */
  readonly send: (message: MidiMessage) => void;
};

/** How long a note that is sent is held. */
const NOTE_MS = 250;
const CONTROL = 0xb0;
const PROGRAM = 0xc0;

/** The bytes of a message (MIDI 1.0, table 1). */
export function bytesOf(message: MidiMessage): readonly number[] {
  const channel = message.channel - 1;
  if (message.kind === 'program') return [PROGRAM | channel, message.program];
  if (message.kind === 'control') return [CONTROL | channel, message.control, message.value];
  return [NOTE_ON | channel, message.note, message.velocity];
}

const NOTE_OFF = 0x80;
const NOTE_ON = 0x90;

export function midi(): Midi {
  const store = createStore<MidiState>(() => ({ state: 'off', inputs: [], outputs: [], last: null, why: null }));
  let access: MIDIAccess | undefined;
  /** Counts what was wished: an answer to a question of before is none any more. */
  let wish = 0;

  const hear = (stage: Stage, data: Uint8Array | null): void => {
    // A note is three bytes with the highest bit of the last two clear (MIDI 1.0, table 1); anything else is not for us.
    if (!data || data.length < 3 || data[1]! > 127 || data[2]! > 127) return;
    const kind = data[0]! & 0xf0;
    if (kind !== NOTE_ON && kind !== NOTE_OFF) return;
    const channel = (data[0]! & 0x0f) + 1;
    const note = data[1]!;
    const velocity = kind === NOTE_ON ? data[2]! / 127 : 0;
    if (velocity > 0) store.setState({ last: { channel, note } });
    for (const kit of stage.document.store.getState().show?.kits ?? [])
      for (const { channel: own, role } of kit.channels)
        if (own === channel) strike(stage, { kit, role, note }, velocity);
  };

  const listen = (stage: Stage): void => {
    const inputs = [...(access?.inputs.values() ?? [])];
    for (const input of inputs) input.onmidimessage = (event) => hear(stage, event.data);
    const outputs = [...(access?.outputs.values() ?? [])];
    store.setState({
      inputs: inputs.map(({ name }) => name ?? 'a MIDI input'),
      outputs: outputs.map(({ name }) => name ?? 'a MIDI output'),
    });
  };

  return {
    store,
    async start(stage) {
      if (store.getState().state !== 'off') return;
      if (!('requestMIDIAccess' in navigator))
        return store.setState({ why: 'This browser has no MIDI, or the page is not on a safe connection.' });
      store.setState({ state: 'asking', why: null });
      const mine = ++wish;
      let granted: MIDIAccess;
      try {
        granted = await navigator.requestMIDIAccess();
      } catch {
        if (mine !== wish) return;
        return store.setState({
          state: 'off',
          why: 'MIDI was refused. Allow it beside the address of this page, then turn it on again.',
        });
      }
      // Switched off while the browser asked.
      if (mine !== wish) return;
      access = granted;
      access.onstatechange = () => listen(stage);
      store.setState({ state: 'on' });
      listen(stage);
    },
    stop() {
      wish++;
      for (const input of access?.inputs.values() ?? []) input.onmidimessage = null;
      if (access) access.onstatechange = null;
      access = undefined;
      store.setState({ state: 'off', inputs: [], outputs: [], last: null });
    },
    send(message) {
      for (const output of access?.outputs.values() ?? []) {
        output.send([...bytesOf(message)]);
        if (message.kind === 'note')
          output.send([NOTE_OFF | (message.channel - 1), message.note, 0], performance.now() + NOTE_MS);
      }
    },
  };
}
