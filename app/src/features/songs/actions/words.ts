// What actions are called.

import type { Show } from '@hovlix/core/show';
import type { Deed, MidiMessage } from '@hovlix/core/song';

type Act = Deed['act'];

export const ACT_NAMES: Readonly<Record<Act, string>> = {
  start: 'Start a look',
  stop: 'Stop a look',
  master: 'Set a master',
  blackout: 'Blackout',
  song: 'Go to a song',
  midi: 'Send MIDI',
};

export const MESSAGE_NAMES: Readonly<Record<MidiMessage['kind'], string>> = {
  program: 'Program change',
  control: 'Control change',
  note: 'Note',
};

/** What an action does, in one line. */
export function deedWords(show: Show, does: Deed): string {
  const look = (id: string) =>
    [...show.looks, ...show.chases].find((one) => one.id === id)?.name ?? 'a look that is gone';
  const role = (id: string) => show.roles.find((one) => one.id === id)?.name ?? 'a role that is gone';
  const fade = (seconds: number) => (seconds > 0 ? ` in ${seconds} s` : '');
  switch (does.act) {
    case 'start':
      return `Start ${look(does.look)}${does.role ? ` on ${role(does.role)}` : ''}`;
    case 'stop':
      return does.look === null ? 'Stop all looks started here' : `Stop ${look(does.look)}`;
    case 'master':
      return `${does.role === null ? 'All light' : role(does.role)} to ${Math.round(does.level * 100)} %${fade(does.fade)}`;
    case 'blackout':
      return `Blackout ${does.on ? 'on' : 'off'}${fade(does.fade)}`;
    case 'song':
      return `Go to ${show.songs.find(({ id }) => id === does.song)?.title ?? 'a song that is gone'}`;
    case 'midi':
      return messageWords(does.message);
  }
}

/** Programs are counted from 1 by people and from 0 on the wire. */
function messageWords(message: MidiMessage): string {
  const channel = `channel ${message.channel}`;
  if (message.kind === 'program') return `Program ${message.program + 1}, ${channel}`;
  if (message.kind === 'control') return `Control ${message.control} to ${message.value}, ${channel}`;
  return `Note ${message.note}, velocity ${message.velocity}, ${channel}`;
}

export const WORDS = {
  actions: 'Actions',
  noActionsThese: 'No actions in these bars yet.',
  delete: (deedWords: string | number) => `Delete ${deedWords}`,
  barBeat: 'At bar and beat',
  addAnAction: 'Add an action',
  does: 'Does',
  look: 'Look',
  on: 'On',
  allRoles: 'All roles',
  allWereStarted: 'All that were started here',
  masterOf: 'Master of',
  allLight: 'All light',
  level: 'Level',
  staysThereUntil: 'It stays there until another action of this lane, or the end of the song.',
  blackout: 'Blackout',
  off: 'Off',
  song: 'Song',
  fadeSeconds: 'Fade, seconds',
  message: 'Message',
  channel: 'Channel',
  value: 'Value',
  note: 'Note',
  velocity: 'Velocity',
  sentByScreen: 'It is sent by the screen that plays the music, to all MIDI devices there.',
};
