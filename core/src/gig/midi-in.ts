// MIDI that comes in, as what controls hear: notes, controllers, programs with their banks, bends, pressure.

import type { HeardMidi, MidiFrom } from './heard';

/** What a device said before that belongs to what it says next: banks and the upper halves of fine values, by channel. */
export type MidiMemory = {
  readonly bank: (readonly [upper: number | null, lower: number | null])[];
  readonly upper: Map<number, number>;
};

export const midiMemory = (): MidiMemory => ({
  bank: Array.from({ length: 16 }, () => [null, null] as const),
  upper: new Map(),
});

const BANK_UPPER = 0;
const BANK_LOWER = 32;

/**
 * One whole message as Web MIDI gives it (MIDI 1.0, tables 1 to 3). Anything that is no channel message, is too short or
 * has data bytes above 127 is left out.
 * @param memory is changed.
 */
export function heardMidi(memory: MidiMemory, device: string, data: ArrayLike<number>): HeardMidi | undefined {
  const status = data[0] ?? 0;
  const kind = status & 0xf0;
  const length = kind === 0xc0 || kind === 0xd0 ? 2 : 3;
  if (status < 0x80 || status >= 0xf0 || data.length < length) return undefined;
  const [first, second] = [data[1]!, length === 3 ? data[2]! : 0];
  if (first > 127 || second > 127) return undefined;
  const from = { device, channel: (status & 0x0f) + 1 };
  switch (kind) {
    case 0x80:
      return { by: 'note', number: first, down: false, value: 0, ...from };
    case 0x90:
      // A note on without velocity is a note off.
      return { by: 'note', number: first, down: second > 0, value: second / 127, ...from };
    case 0xb0:
      return controller(memory, from, first, second);
    case 0xc0:
      return { by: 'program', number: first, bank: bankOf(memory, from.channel), ...from };
    case 0xd0:
      return { by: 'pressure', value: first / 127, ...from };
    case 0xe0:
      return { by: 'bend', value: (first + second * 128) / 16383, ...from };
    default:
      return undefined;
  }
}

function controller(memory: MidiMemory, from: MidiFrom, number: number, value: number): HeardMidi {
  const at = from.channel - 1;
  const [upper, lower] = memory.bank[at]!;
  if (number === BANK_UPPER) memory.bank[at] = [value, lower];
  if (number === BANK_LOWER) memory.bank[at] = [upper, value];
  const key = at * 128 + number;
  if (number < 32) memory.upper.set(key, value);
  const coarse = number >= 32 && number < 64 ? memory.upper.get(key - 32) : undefined;
  // The lower half of a value whose upper half came before (MIDI 1.0, controllers 32 to 63).
  if (coarse !== undefined)
    return { by: 'control', number: number - 32, value: (coarse * 128 + value) / 16383, fine: true, ...from };
  return { by: 'control', number, value: value / 127, fine: false, ...from };
}

/** Either byte of a bank may have come alone; the other counts as 0. Null where none came. */
function bankOf({ bank }: MidiMemory, channel: number): number | null {
  const [upper, lower] = bank[channel - 1]!;
  return upper === null && lower === null ? null : (upper ?? 0) * 128 + (lower ?? 0);
}
