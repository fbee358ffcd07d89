// MIDI of this screen: notes that come in play the hit kits, each channel on the role it is given to; messages go out.

import { createStore, type StoreApi } from 'zustand/vanilla';
import { heardMidi, midiMemory, type Heard, type MidiMemory } from '@hovlix/core/gig';
import type { MidiMessage } from '@hovlix/core/song';
import type { Stage } from '../conduct/gestures';
import { useSession } from '../session';
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
  /** Is asked first; what it takes plays no hits. */
  readonly onHeard: (take: (heard: Heard) => boolean) => void;
  /** Hears all that comes in as it is, with the moment it came, in ms of the page's own clock: clocks and timecode. */
  readonly onBytes: (take: (device: string, data: ArrayLike<number>, at: number) => void) => void;
  /** Bytes to everything that takes MIDI, at once or at a moment of the page's own clock, in ms. */
  readonly sendBytes: (bytes: readonly number[], at?: number) => void;
  /** Bytes to one device by its name; null is all of them. */
  readonly sendTo: (device: string | null, bytes: readonly number[]) => void;
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

/** Only a place that timecode is told to stand at needs system-exclusive messages; everything else goes without that right. */
async function ask(): Promise<MIDIAccess> {
  if (useSession.getState().follows !== 'songs') return navigator.requestMIDIAccess();
  return navigator.requestMIDIAccess({ sysex: true }).catch(() => navigator.requestMIDIAccess());
}

export function midi(): Midi {
  const store = createStore<MidiState>(() => ({ state: 'off', inputs: [], outputs: [], last: null, why: null }));
  let access: MIDIAccess | undefined;
  /** Counts what was wished: an answer to a question of before is none any more. */
  let wish = 0;

  /** By the name of each input: what it said before. */
  const memories = new Map<string, MidiMemory>();
  let takes: (heard: Heard) => boolean = () => false;
  const takesBytes: ((device: string, data: ArrayLike<number>, at: number) => void)[] = [];

  const hear = (stage: Stage, device: string, data: Uint8Array | null, at: number): void => {
    if (data) for (const take of takesBytes) take(device, data, at);
    const memory = memories.get(device) ?? midiMemory();
    memories.set(device, memory);
    const heard = data && heardMidi(memory, device, data);
    if (!heard) return;
    if (heard.by === 'note' && heard.down) store.setState({ last: { channel: heard.channel, note: heard.number } });
    if (takes(heard) || heard.by !== 'note') return;
    const { number: note, channel, value: velocity } = heard;
    for (const kit of stage.document.store.getState().show?.kits ?? [])
      for (const { channel: own, role } of kit.channels)
        if (own === channel) strike(stage, { kit, role, note }, velocity);
  };

  const listen = (stage: Stage): void => {
    const inputs = [...(access?.inputs.values() ?? [])];
    for (const input of inputs)
      input.onmidimessage = (event) =>
        hear(stage, input.name ?? 'MIDI', event.data, event.timeStamp ?? performance.now());
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
        granted = await ask();
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
    onHeard: (take) => void (takes = take),
    onBytes: (take) => void takesBytes.push(take),
    sendBytes(bytes, at) {
      for (const output of access?.outputs.values() ?? []) output.send([...bytes], at);
    },
    sendTo(device, bytes) {
      for (const output of access?.outputs.values() ?? [])
        if (device === null || output.name === device) output.send([...bytes]);
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
