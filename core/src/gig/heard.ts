// What controls hear, of MIDI and of OSC, and whether one of them means a certain control.

import { clamp } from '../units';
import { MOST_FULL, sameSource, type Source } from './control';

export type MidiFrom = { readonly device: string; readonly channel: number };

/** What came in over MIDI. Values are 0…1; `down` is given for what has two states. */
export type HeardMidi =
  | ({ readonly by: 'note'; readonly number: number; readonly down: boolean; readonly value: number } & MidiFrom)
  | ({ readonly by: 'control'; readonly number: number; readonly value: number; readonly fine: boolean } & MidiFrom)
  | ({ readonly by: 'program'; readonly number: number; readonly bank: number | null } & MidiFrom)
  | ({ readonly by: 'bend' | 'pressure'; readonly value: number } & MidiFrom);

/** A value is as it was sent. A message without a number only says that something happened. */
export type HeardOsc =
  | { readonly by: 'osc'; readonly address: string; readonly value: number }
  | { readonly by: 'osc'; readonly address: string };

export type Heard = HeardMidi | HeardOsc;

/** A source as exact as what was heard, for a control that learns. Controllers are taken as absolute. */
export function sourceOf(heard: Heard): Source {
  if (heard.by === 'osc')
    return {
      by: 'osc',
      address: heard.address,
      full: 'value' in heard ? likelyFull(heard.value) : 1,
      sends: 'absolute',
    };
  const { device, channel } = heard;
  switch (heard.by) {
    case 'note':
      return { by: 'note', device, channel, number: heard.number };
    case 'control':
      return { by: 'control', device, channel, number: heard.number, sends: heard.fine ? 'fine' : 'absolute' };
    case 'program':
      return { by: 'program', device, channel, number: heard.number, bank: heard.bank };
    default:
      return { by: heard.by, device, channel };
  }
}

/** What things that are touched commonly send at their upper end. */
const FULL_VALUES = [1, 100, 127, 255] as const;

const likelyFull = (value: number): number => FULL_VALUES.find((full) => value <= full) ?? Math.min(value, MOST_FULL);

/** Whether a control with this source hears it. */
export function hears(source: Source, heard: Heard): boolean {
  if (heard.by === 'control' && source.by === 'control' && (source.sends === 'fine') !== heard.fine) return false;
  // A bank that is wanted must have been said.
  if (heard.by === 'program' && source.by === 'program' && source.bank !== null && source.bank !== heard.bank)
    return false;
  return sameSource(source, sourceOf(heard));
}

/** From here on a controller that sends two states is down. */
const HALF = 0.5;

/** What it is to a switch: down, up, or both at once; undefined where it is neither. */
export function contactOf(source: Source, heard: Heard): boolean | 'tap' | undefined {
  if (heard.by === 'note') return heard.down;
  if (heard.by === 'program') return 'tap';
  if (heard.by === 'osc') return oscContact(source, heard);
  if (heard.by !== 'control') return undefined;
  return source.by === 'control' && source.sends === 'toggle' ? 'tap' : heard.value >= HALF;
}

function oscContact(source: Source, heard: HeardOsc): boolean | 'tap' | undefined {
  if (!('value' in heard)) return 'tap';
  if (source.by !== 'osc') return undefined;
  const down = placeOf(source, heard.value) >= HALF;
  if (source.sends === 'absolute') return down;
  return down ? 'tap' : undefined;
}

/** Where a value of OSC lies between nothing and full, 0…1. */
const placeOf = ({ full }: Extract<Source, { by: 'osc' }>, value: number): number => clamp(value / full, 0, 1);

/** What a knob reads of it, 0…1; undefined for what has no value. */
export function placeHeard(source: Source, heard: Heard): number | undefined {
  if (!('value' in heard)) return undefined;
  return source.by === 'osc' ? placeOf(source, heard.value) : heard.value;
}
