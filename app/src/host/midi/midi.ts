// MIDI of this screen: notes that come in play the hit kits, each channel on the role it is given to; messages go out.

import { createStore, type StoreApi } from 'zustand/vanilla';
import { midiHearer, type BytesTaker, type Ports } from '@hovlix/core/gear';
import type { Heard } from '@hovlix/core/gig';
import type { MidiMessage } from '@hovlix/core/song';
import { seconds } from '@hovlix/core/units';
import { whenOf } from '../conduct/local-clock';
import { momentOf } from '../conduct/moment';
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

export type Midi = Ports & {
  readonly store: StoreApi<MidiState>;
  readonly start: (stage: Stage) => Promise<void>;
  readonly stop: () => void;
  /** Is asked first; what it takes plays no hits. */
  readonly onHeard: (take: (heard: Heard, at?: number) => boolean) => void;
  /** Hears all that comes in as it is. */
  readonly onBytes: (take: BytesTaker) => void;
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

/** @param yields while it says so, the computer that conducts hears what is plugged in, and this page does not. */
export function midi(yields: () => boolean = () => false): Midi {
  const store = createStore<MidiState>(() => ({ state: 'off', inputs: [], outputs: [], last: null, why: null }));
  let access: MIDIAccess | undefined;
  /** Counts what was wished: an answer to a question of before is none any more. */
  let wish = 0;

  let takes: (heard: Heard, at?: number) => boolean = () => false;
  const takesBytes: BytesTaker[] = [];

  const hearer = (stage: Stage) => {
    const hears = midiHearer({
      host: { moment: () => momentOf(stage) },
      takes: (heard, when) => takes(heard, when),
      strike: (stroke, velocity, at) => strike(stage, stroke, velocity, at),
    });
    const hear = (device: string, data: Uint8Array, ms: number): void => {
      if (yields()) return;
      const at = seconds(stage.conducting.now() - (performance.now() - ms) / 1000);
      for (const take of takesBytes) take(device, data, at);
      const heard = hears.hear(device, data, whenOf({ timeStamp: ms }));
      if (heard?.by === 'note' && heard.down) store.setState({ last: { channel: heard.channel, note: heard.number } });
    };
    return { hear, pulled: hears.pulled };
  };
  let hear: ReturnType<typeof hearer> | undefined;

  const listen = (stage: Stage): void => {
    const inputs = [...(access?.inputs.values() ?? [])];
    const hears = (hear ??= hearer(stage));
    for (const name of store.getState().inputs) if (!inputs.some((input) => input.name === name)) hears.pulled(name);
    for (const input of inputs)
      input.onmidimessage = ({ data, timeStamp }) =>
        data && hears.hear(input.name ?? 'MIDI', data, timeStamp ?? performance.now());
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
    outputs: () => store.getState().outputs,
    sendTo(device, bytes, inSeconds) {
      const at = inSeconds === undefined ? undefined : performance.now() + inSeconds * 1000;
      for (const output of access?.outputs.values() ?? [])
        if (device === null || output.name === device) output.send([...bytes], at);
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
