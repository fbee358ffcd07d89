// Values that a knob or a fader moves: where they stand, and the action that moves them. All as 0…1.

import type { Turns } from '../../gig';
import { clamp } from '../../units';
import type { Action } from '../actions';
import { clockAt, type Moment } from '../press';

/** Waves and chases at a quarter of their speed at 0, as they are at a half, four times as fast at 1. */
const rateAt = (place: number): number => 2 ** (place * 4 - 2);
const SLOWEST = 60;
const FASTEST = 180;

/** Where it stands now, 0…1. */
export function turnPlace({ live }: Moment, turns: Turns): number {
  switch (turns.turn) {
    case 'master':
      return turns.role === null
        ? live.master.to
        : (live.roleMasters.find(({ role }) => role === turns.role)?.ramp.to ?? 1);
    case 'speed':
      return clamp((Math.log2(live.speed.rate) + 2) / 4, 0, 1);
    case 'tempo':
      return clamp((live.tempo.bpm - SLOWEST) / (FASTEST - SLOWEST), 0, 1);
  }
}

export function turnAction(moment: Moment, turns: Turns, to: number): Action {
  const place = clamp(to, 0, 1);
  switch (turns.turn) {
    case 'master':
      return turns.role === null ? { type: 'master', level: place } : { type: 'role-master', role: turns.role, level: place }; // prettier-ignore
    case 'speed':
      return { type: 'speed', rate: rateAt(place), beat: clockAt(moment).beat };
    case 'tempo':
      return { type: 'tempo', bpm: Math.round((SLOWEST + place * (FASTEST - SLOWEST)) * 10) / 10 };
  }
}
