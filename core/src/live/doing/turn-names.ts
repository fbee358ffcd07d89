// What a knob, a fader or an expression pedal moves, in words.

import type { Turns } from '../../gig';
import type { Show } from '../../show';
import { roleName } from './act-names';

/** What a knob moves. */
export function turnName(show: Show, turns: Turns): string {
  if (turns.turn === 'speed') return 'Speed of waves and chases';
  if (turns.turn === 'tempo') return 'Tempo, 60 to 180 bpm';
  if (turns.role === null) return 'Grand master';
  return `Master of ${roleName(show, turns.role)}`;
}

/** All that a knob can move. */
export function turnsOffered(show: Show): readonly Turns[] {
  return [
    { turn: 'master', role: null },
    ...show.roles.map(({ id }) => ({ turn: 'master' as const, role: id })),
    { turn: 'speed' },
    { turn: 'tempo' },
  ];
}
