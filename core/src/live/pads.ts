// Looks that are chosen by hand: pads, next and previous, and what a screen that goes lets go of.

import type { Seconds } from '../units';
import { seconds } from '../units';
import type { Action } from './actions';
import type { LiveState } from './live-state';
import { isLit } from './song-clock';
import { isWaiting, isOn, lookTurned, makesRoom, roomTakenBack } from './standing';

/** When a look comes: now, or when it has waited. */
export const comesAt = (action: { readonly wait?: Seconds | undefined } | object, at: Seconds): Seconds =>
  'wait' in action && action.wait !== undefined ? seconds(at + action.wait) : at;

/** Next and previous crossfade from the look they replace. */
export function goneTo(
  state: LiveState,
  { type: _, bank, ...coming }: Extract<Action, { type: 'go' }>,
  now: Seconds,
): LiveState {
  const at = comesAt(coming, now);
  const before = state.place.look;
  const leaves =
    before !== null && before !== coming.look && state.standing.some((one) => one.look === before && one.on);
  const off = {
    type: 'look-off' as const,
    look: before!,
    fade: coming.fade,
    ...(coming.pulse ? { pulse: coming.pulse } : {}),
  };
  const left = leaves ? lookTurned(state, off, at, now) : state;
  const on = lookTurned(left, { type: 'look-on', ...coming }, at, now);
  const mixed = (one: LiveState['standing'][number]) => one.look === coming.look || (leaves && one.look === before);
  return {
    ...on,
    standing: on.standing.map((one) => (mixed(one) ? { ...one, crossed: true } : one)),
    place: { bank, look: coming.look },
  };
}

/**
 * A look chosen by hand while a song is paused is what one wants to see; the song's light comes back with play or
 * seek. Which song is chosen, and its place, stay as it is.
 * @param at when the look comes.
 */
export function letGoOfStillSong(state: LiveState, at: Seconds): LiveState {
  const { song } = state;
  return song && isLit(song, at) && !song.playing ? { ...state, song: { ...song, unlit: at } } : state;
}

/** A look goes off. One that was armed is called off: what would have made room for it stays. */
export function turnedOff(state: LiveState, action: Extract<Action, { type: 'look-off' }>, at: Seconds): LiveState {
  const one = state.standing.find(({ look }) => look === action.look);
  const off = lookTurned(state, action, at);
  return one && isWaiting(one, at) ? roomTakenBack(off, one, at) : off;
}

/** What a pad does, by what it is for and what is on. */
export function padded(
  before: LiveState,
  action: Extract<Action, { type: 'pad' }>,
  who: string,
  at: Seconds,
): LiveState {
  const { press, down, look, fade, fadeOut, pulse, group = [], clean = false } = action;
  const { beat, hold, out } = action;
  const already = before.standing.find((one) => one.look === look && isOn(one, at));
  const off = (which: typeof look, length: Seconds) => ({
    type: 'look-off' as const,
    look: which,
    fade: length,
    ...(pulse ? { pulse } : {}),
  });
  if (press === 'flash' && !down) return flashLifted(before, look, who, at);
  if (!down) return before;
  if (press === 'stop' || (press === 'toggle' && already)) return turnedOff(before, off(look, fadeOut), at);
  if (press === 'flash') {
    const state = letGoOfStillSong(before, at);
    const lit = lookTurned(state, { type: 'look-on', look, fade: seconds(0), beat, pulse }, at);
    const holders = [...new Set([...(already?.holders ?? []), who])];
    return { ...lit, standing: lit.standing.map((one) => (one.look === look ? { ...one, holders } : one)) };
  }
  if (already) return before;
  const when = comesAt(action, at);
  const state = letGoOfStillSong(before, when);
  const leave = state.standing.filter(
    (one) => (one.on || makesRoom(one, at)) && one.look !== look && (clean || group.includes(one.look)),
  );
  const lit = lookTurned(state, { type: 'look-on', look, fade, beat, pulse, hold, out }, when, at);
  return leave.reduce((now, one) => lookTurned(now, off(one.look, fade), when, at), lit);
}

/** A held pad comes up: its look goes off at once, unless somebody else holds it still. */
export function flashLifted(state: LiveState, look: string, who: string, at: Seconds): LiveState {
  const one = state.standing.find((standing) => standing.look === look);
  if (!one?.holders?.includes(who)) return state;
  const holders = one.holders.filter((holder) => holder !== who);
  const { holders: _, ...rest } = one;
  const next = holders.length > 0 ? { ...one, holders } : rest;
  const left = { ...state, standing: state.standing.map((standing) => (standing === one ? next : standing)) };
  return holders.length > 0 ? left : lookTurned(left, { type: 'look-off', look: one.look, fade: seconds(0) }, at);
}

/** What a screen held ends with it: pads held down, notes, lamps of a check, a test. What was switched on stays. */
export function withoutScreen(state: LiveState, screen: string, at: Seconds): LiveState {
  const held = state.standing.filter(({ holders }) => holders?.includes(screen));
  const lifted = held.reduce((now, { look }) => flashLifted(now, look, screen, at), state);
  return {
    ...lifted,
    sounding: lifted.sounding.map((one) =>
      one.by === screen && one.lifted === undefined ? { ...one, lifted: at } : one,
    ),
    held: lifted.held.filter(({ by }) => by !== screen),
    test: lifted.test?.by === screen ? null : lifted.test,
    programs: lifted.programs === screen ? null : lifted.programs,
  };
}
