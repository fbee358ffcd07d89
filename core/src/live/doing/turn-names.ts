// What a knob, a fader or an expression pedal moves, in words.

import type { Turns } from '../../gig';
import type { Show } from '../../show';
import { lookName, roleName } from './act-names';

const HAND_WORDS = { level: 'level', colour: 'colour', strobe: 'strobe speed', zoom: 'zoom', haze: 'haze' } as const;

/** What a knob moves. */
export function turnName(show: Show, turns: Turns): string {
  switch (turns.turn) {
    case 'speed':
      return turns.look === undefined ? 'Speed of waves and chases' : `Speed of ${lookName(show, turns.look)}`;
    case 'tempo':
      return 'Tempo, 60 to 180 bpm';
    case 'fades':
      return 'Fade times, to twice as long';
    case 'hand':
      return `${turns.role === null ? 'Chosen roles' : roleName(show, turns.role)}: ${HAND_WORDS[turns.what]} by hand`;
    case 'master':
      return turns.role === null ? 'Grand master' : `Master of ${roleName(show, turns.role)}`;
  }
}
