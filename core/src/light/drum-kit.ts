// Notes by their names, drums by their notes, and a kit to begin with.

import { chromaticityFromHex } from '../colour';
import type { Role } from '../rig';
import { own } from '../own';
import { Kit } from './hit';
import { QUICK_PICKS } from './who';

const NOTES = ['C', 'C♯', 'D', 'D♯', 'E', 'F', 'F♯', 'G', 'G♯', 'A', 'A♯', 'B'];

/** A MIDI note by its number and name; 60 is middle C, called C4. */
export function noteName(note: number): string {
  return `${note} (${NOTES[note % 12]!}${Math.floor(note / 12) - 1})`;
}

/** General MIDI 1, percussion key map: what drum machines and pads mean by a note on channel 10. */
const DRUMS: Readonly<Record<number, string>> = {
  35: 'Kick',
  36: 'Kick',
  37: 'Side stick',
  38: 'Snare',
  39: 'Clap',
  40: 'Snare',
  41: 'Tom',
  42: 'Hat',
  43: 'Tom',
  44: 'Hat',
  45: 'Tom',
  46: 'Open hat',
  47: 'Tom',
  48: 'Tom',
  49: 'Crash',
  50: 'Tom',
  51: 'Ride',
  52: 'Crash',
  53: 'Ride',
  54: 'Tambourine',
  55: 'Crash',
  56: 'Cowbell',
  57: 'Crash',
  59: 'Ride',
};

/** The drum that a note stands for; undefined where it stands for none that we name. */
export const drumOfNote = (note: number): string | undefined => own(DRUMS, String(note));

const seconds = (time: number) => ({ seconds: time });

/** Drums by the notes that drum machines and drum pads send for them. @param newId names the kit and its hits. */
export function drumKit(name: string, role: Role['id'] | undefined, newId: () => string): Kit {
  const hit = (title: string, note: number, hex: string, more: object) => ({
    id: newId(),
    name: title,
    low: note,
    high: note,
    level: 1,
    colour: chromaticityFromHex(hex),
    attack: seconds(0),
    hold: seconds(0.03),
    release: { beats: 0.5 },
    ...more,
  });
  const odd = QUICK_PICKS[0]!.pick;
  return Kit.parse({
    id: newId(),
    name,
    hits: [
      hit('Kick', 36, '#ffffff', {}),
      hit('Snare', 38, '#ff2030', { pick: odd }),
      hit('Hat', 42, '#a8d8ff', { spread: 'chance', level: 0.7, release: { beats: 0.25 }, choke: 1 }),
      hit('Open hat', 46, '#a8d8ff', { spread: 'chance', release: { beats: 2 }, choke: 1 }),
      hit('Tom', 45, '#ff9a30', { spread: 'next' }),
      hit('Crash', 49, '#ffcf9a', { release: { beats: 4 }, curve: 'sharp' }),
    ],
    channels: role === undefined ? [] : [{ channel: 10, role }],
  });
}
