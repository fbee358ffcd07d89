// MIDI files as a song takes them.

import { wordsFor } from '../problem';
import { edit, type Show } from '../show';
import type { Song } from '../song';
import { id } from '../units';
import { commandsOf, readMidi, takenFrom, type MidiChoices, type MidiMusic } from '../files/midi';
import { songId, testShow } from './show';

export function read(bytes: Uint8Array): MidiMusic {
  const music = readMidi(bytes, 'x.mid');
  if (!music.ok) throw new Error(wordsFor(music.problem));
  return music.value;
}
export const song: Song = { ...testShow().songs[0]!, lanes: [...testShow().songs[0]!.lanes] };
export const show: Show = testShow();
let named = 0;
export const newId = () => `m${named++}`;
export const all = (music: MidiMusic, more: Partial<MidiChoices> = {}): MidiChoices => ({
  tempo: true,
  sections: true,
  cues: true,
  parts: music.parts.map(({ key }) => ({ part: key, role: id('wash'), kit: null, byNote: false })),
  ...more,
});
export const brought = (music: MidiMusic, choices = all(music), into = show): Show =>
  edit(into, {
    type: 'together',
    commands: commandsOf(songId, takenFrom(music, into.songs[0]!, into, choices, newId)),
  }).show;
