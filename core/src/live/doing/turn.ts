// Values that a knob or a fader moves: where they stand, and the action that moves them. All as 0…1.

import { chromaticityFromHue, hueFromChromaticity } from '../../colour';
import type { Turns } from '../../gig';
import type { LampsDo } from '../../light';
import { clamp } from '../../units';
import { AT_CLOCK } from '../run';
import type { Action } from '../actions';
import { clockAt, type Moment } from '../press';
import { chosenNow, handsWithSaid, inHand } from './chosen';

/** Waves and chases at a quarter of their speed at 0, as they are at a half, four times as fast at 1. */
const rateAt = (place: number): number => 2 ** (place * 4 - 2);
const SLOWEST = 60;
const FASTEST = 180;
/** Fades at 1 take so many times as long as they say. */
const LONGEST_FADES = 2;
/** Degrees of the hue at 1: just before the circle closes, so that its two ends differ. */
const LAST_HUE = 359;
/** Flashes a second at 1: as fast as most shutters go. */
const FASTEST_STROBE = 15;

type Hand = Extract<Turns, { turn: 'hand' }>;
type Held = Pick<LampsDo, Hand['what']>;

/** What the first of those roles has in hand: the knob is where that is. */
function handOf(moment: Moment, turns: Hand) {
  const [role] = rolesOf(moment, turns);
  return role === undefined ? undefined : inHand(moment, role);
}

/** The roles a knob takes by hand. */
const rolesOf = (moment: Moment, { role }: Hand) => (role === null ? chosenNow(moment) : [role]);

/** @returns null where it is not known, as a value that nobody has in hand: then a knob takes hold of it at once. */
export function turnPlace(moment: Moment, turns: Turns): number | null {
  const { live } = moment;
  switch (turns.turn) {
    case 'master':
      return turns.role === null
        ? live.master.to
        : (live.roleMasters.find(({ role }) => role === turns.role)?.ramp.to ?? 1);
    case 'speed': {
      const one = turns.look === undefined ? undefined : live.standing.find(({ look }) => look === turns.look);
      const { rate } = turns.look === undefined ? live.speed : (one?.speed ?? AT_CLOCK);
      return clamp((Math.log2(rate) + 2) / 4, 0, 1);
    }
    case 'tempo':
      return clamp((live.tempo.bpm - SLOWEST) / (FASTEST - SLOWEST), 0, 1);
    case 'fades':
      return clamp(live.fadeTimes / LONGEST_FADES, 0, 1);
    case 'hand':
      return handPlace(handOf(moment, turns)?.[turns.what], turns.what);
  }
}

function handPlace(held: Held[Hand['what']], what: Hand['what']): number | null {
  if (held?.type !== 'hold') return null;
  if (typeof held.value === 'object') return clamp(hueFromChromaticity(held.value).hue / LAST_HUE, 0, 1);
  return what === 'strobe' ? clamp(held.value / FASTEST_STROBE, 0, 1) : held.value;
}

function handHeld(what: Hand['what'], place: number): Held {
  if (what === 'colour') return { colour: { type: 'hold', value: chromaticityFromHue(place * LAST_HUE, 1) } };
  const value = what === 'strobe' ? Math.round(place * FASTEST_STROBE * 10) / 10 : place;
  return { [what]: { type: 'hold', value } };
}

/** @returns none where there is nothing to move now, as a look that is not on. */
export function turnAction(moment: Moment, turns: Turns, to: number): Action | undefined {
  const place = clamp(to, 0, 1);
  switch (turns.turn) {
    case 'master':
      return turns.role === null
        ? { type: 'master', level: place }
        : { type: 'role-master', role: turns.role, level: place };
    case 'speed': {
      const { look } = turns;
      if (look !== undefined && !moment.live.standing.some((one) => one.look === look)) return undefined;
      return { type: 'speed', rate: rateAt(place), ...(look ? { look } : {}), beat: clockAt(moment).beat };
    }
    case 'tempo':
      return { type: 'tempo', bpm: Math.round((SLOWEST + place * (FASTEST - SLOWEST)) * 10) / 10 };
    case 'fades':
      return { type: 'fade-times', factor: Math.round(place * LONGEST_FADES * 100) / 100 };
    case 'hand': {
      const roles = rolesOf(moment, turns);
      // Beside what else is in hand of the same lamps.
      return roles.length === 0
        ? undefined
        : { type: 'hand', values: [...handsWithSaid(moment, roles, handHeld(turns.what, place))] };
    }
  }
}
