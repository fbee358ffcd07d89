// Actions to begin with.

import type { Show } from '@hovlix/core/show';
import type { Deed, MidiMessage, Song } from '@hovlix/core/song';

/** An action of a kind, before anything is chosen; undefined where the show has nothing for it. */
export function usualDeed(act: Deed['act'], show: Show, song: Song): Deed | undefined {
  const look = (show.looks[0] ?? show.chases[0])?.id;
  switch (act) {
    case 'start':
      return look && { act, look };
    case 'stop':
      return { act, look: null };
    case 'master':
      return { act, role: null, level: 0.5, fade: 0 };
    case 'blackout':
      return { act, on: true, fade: 0 };
    case 'song': {
      const other = show.songs[show.songs.indexOf(song) + 1] ?? show.songs[0];
      return other && { act, song: other.id };
    }
    case 'midi':
      return { act, message: usualMessage('program', 1) };
  }
}

export function usualMessage(kind: MidiMessage['kind'], channel: number): MidiMessage {
  if (kind === 'program') return { kind, channel, program: 0 };
  if (kind === 'control') return { kind, channel, control: 1, value: 127 };
  return { kind, channel, note: 60, velocity: 100 };
}
