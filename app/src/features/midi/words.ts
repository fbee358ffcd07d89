// What is said of MIDI: of this page, and of the computer that conducts.

import type { MachinesState } from '@hovlix/core/machines';
import { noteName } from '@hovlix/core/light';

type Last = { readonly channel: number; readonly note: number } | null;

export const MIDI = {
  page: 'MIDI of this screen',
  computer: 'MIDI of the computer',
  computerOff: 'Pedals plugged into the computer then work with no page open, and with its lid closed.',
  computerOn: 'Pedals plugged into the computer work with no page open, and with its lid closed.',
  yields: 'The computer listens itself. This screen only sends.',
  leads: 'MIDI clock from outside leads',
  sends: 'Send our clock to other gear',
  noClock: 'No clock comes in.',
  byPlan:
    'Start plays the song that is next, stop stops it. Timecode plays the song that begins at that time: press a song’s title to set it. The music is not played here.',
  standIn: 'Foot controller stand-in',
  standInHint: 'Its switches send notes 60 to 64. One that is lit does something that is on.',
  switch: (number: number, lit: boolean) => `Switch ${number}${lit ? ', lit' : ''}`,
} as const;

export function pluggedIn(inputs: readonly string[], outputs: readonly string[], last: Last): string {
  const hears = inputs.length === 0 ? 'Nothing is plugged in that sends MIDI.' : `Listens to ${inputs.join(', ')}.`;
  const sends = outputs.length > 0 ? ` Sends to ${outputs.join(', ')}.` : '';
  return hears + sends + (last ? ` Last note: ${noteName(last.note)} on channel ${last.channel}.` : '');
}

const STATES = { none: 'nothing yet', running: 'running', stopped: 'stopped', lost: 'no signal' } as const;

export const clockWords = (clock: MachinesState['clock']): string =>
  clock
    ? `${clock.device}: ${STATES[clock.state]}${clock.bpm === null ? '' : `, ${clock.bpm.toFixed(1)} bpm`}`
    : MIDI.noClock;

export const timecodeWords = ({ device, text, state, frames }: NonNullable<MachinesState['timecode']>): string =>
  `${device}: timecode ${text} ${STATES[state]}${frames ? `, ${frames} frames a second` : ''}`;

export const WORDS = {
  nothing: 'Nothing',
  theTempo: 'The tempo',
  tempoAndSongs: 'Tempo and songs',
};
