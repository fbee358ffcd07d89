// MIDI that comes in: a control takes it, or it plays the hit kits that listen on its channel.

import { heardMidi, midiMemory, type Heard, type MidiMemory } from '../gig';
import type { Stroke } from '../live';
import type { BareHost } from './host';

type Start = {
  readonly host: Pick<BareHost, 'moment'>;
  /** Is asked first; what it takes plays no hits. */
  readonly takes: (heard: Heard, at?: number) => boolean;
  readonly strike: (stroke: Stroke, velocity: number, at?: number) => void;
};

export type MidiHearer = {
  /** One whole message of a device. @param at when it came, by the clock of what takes it. @returns what it was. */
  readonly hear: (device: string, data: ArrayLike<number>, at?: number) => Heard | undefined;
  /** A device was pulled out: what is held on it comes up, as it will not say so any more. */
  readonly pulled: (device: string) => void;
};

const NOTE_OFF = 0x80;

export function midiHearer({ host, takes, strike }: Start): MidiHearer {
  /** By the name of each input: what it said before, and the notes that are down, by channel and number. */
  const inputs = new Map<string, { readonly memory: MidiMemory; readonly down: Set<number> }>();
  const hear: MidiHearer['hear'] = (device, data, at) => {
    const input = inputs.get(device) ?? { memory: midiMemory(), down: new Set<number>() };
    inputs.set(device, input);
    const heard = heardMidi(input.memory, device, data);
    if (heard?.by === 'note') {
      const key = (heard.channel - 1) * 128 + heard.number;
      if (heard.down) input.down.add(key);
      else input.down.delete(key);
    }
    if (!heard || takes(heard, at) || heard.by !== 'note') return heard;
    const { number: note, channel, value } = heard;
    for (const kit of host.moment()?.show.kits ?? [])
      for (const { channel: own, role } of kit.channels) if (own === channel) strike({ kit, role, note }, value, at);
    return heard;
  };
  return {
    hear,
    pulled(device) {
      for (const key of inputs.get(device)?.down ?? []) hear(device, [NOTE_OFF | (key >> 7), key & 127, 0]);
      inputs.delete(device);
    },
  };
}
