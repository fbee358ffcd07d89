// What an act means at a moment: the actions that go into the log, in order.

import type { Act } from '../../gig';
import type { Bank } from '../../light';
import { beats, clamp, seconds } from '../../units';
import { never } from '../../problem';
import type { Action } from '../actions';
import { bankBeside, banksAt, clockAt, FREE_BAR, goAction, padAction, type Moment } from '../press';
import { isFrozen } from '../frozen';
import { freeBeat } from '../run';
import { songTimeAt } from '../song-clock';
import { chosenAfter, chosenNow, handsWithSaid } from './chosen';
import { lampActions } from './lamp-acts';
import { loopsNow, loopTurned, sectionMeant, toSection } from './song';
import { back, entryBeside, hasNoStops, stopBeside, toStop } from './stop';
import { placeAt } from './place';

/**
 * @param down false as the foot or the finger comes up again: only what is held ends then.
 * @returns none where there is nothing to do now, as at the end of a bank or of the set.
 */
export function actionsOf(moment: Moment, act: Act, down = true): readonly Action[] {
  if (!down && !heldAs(moment, act)) return [];
  return some(meant(moment, act, down));
}

/**
 * What ends as the foot comes up, of an act that begins now; undefined where nothing does. A pad is told by its look, as
 * another bank may be chosen until then.
 */
export function heldAs(moment: Moment, act: Act): Act | undefined {
  if (act.act === 'hit' || (act.act === 'look' && act.press === 'flash')) return act;
  const pad = act.act === 'pad' ? banksAt(moment).bank?.pads[act.place - 1] : undefined;
  return pad?.press === 'flash' ? { act: 'look', look: pad.look, press: 'flash' } : undefined;
}

const some = (actions: readonly (Action | undefined)[]): readonly Action[] =>
  actions.filter((action) => action !== undefined);

function meant(moment: Moment, act: Act, down: boolean): readonly (Action | undefined)[] {
  const { live, show } = moment;
  switch (act.act) {
    case 'look':
      return [padAction(moment, { look: act.look, press: act.press }, [], down)];
    case 'pad': {
      const { banks, bank } = banksAt(moment);
      const pad = bank?.pads[act.place - 1];
      if (!pad) return [];
      const also = down ? (pad.also ?? []).flatMap((one) => actionsOf(moment, one)) : [];
      return [padAction(moment, pad, banks, down), ...also];
    }
    case 'go':
      return [goAction(moment, act.way === 'next' ? 1 : -1)];
    case 'bank':
      return [{ type: 'bank', bank: act.bank }];
    case 'turn-bank':
      return [bankTurnedTo(bankBeside(moment, act.way))];
    case 'stop': {
      if (hasNoStops(moment)) return meant(moment, { ...act, act: 'go' }, down);
      if (act.way === 'previous') return back(moment);
      const stop = stopBeside(moment, 'next');
      return stop ? toStop(moment, stop) : [];
    }
    case 'entry': {
      const stop = entryBeside(moment, act.way);
      return stop ? toStop(moment, stop) : [];
    }
    case 'song':
      return songDone(moment, act.does);
    case 'play':
      return [{ type: 'play', song: act.song, from: seconds(0) }];
    case 'section': {
      const section = sectionMeant(moment, act.to);
      return section ? toSection(moment, section, placeAt(moment).set, loopsNow(moment)) : [];
    }
    case 'loop':
      return loopTurned(moment);
    case 'tap':
      return [{ type: 'tap' }];
    case 'tempo':
      return [tempoTo(moment, act.to)];
    case 'nudge':
      return [{ type: 'nudge', by: act.by }];
    case 'master':
      return act.role === null
        ? [{ type: 'master', level: act.level }]
        : [{ type: 'role-master', role: act.role, level: act.level }];
    case 'blackout':
      return [{ type: 'blackout', on: turned(live.blackout.on, act.to), fade: seconds(0) }];
    case 'freeze':
      return [freezing(moment, act.to)];
    case 'sending':
      return [{ type: 'sending', on: turned(live.sending, act.to) }];
    case 'release':
      return [{ type: 'release', fade: clockAt(moment).pulse }];
    case 'all-off':
      return [{ type: 'all-off', fade: clockAt(moment).pulse }];
    case 'hit':
      return [struck(moment, act, down)];
    case 'speed':
      return [speedTo(moment, act.to)];
    case 'hand':
      return show.roles.length > 0 ? [taken(act)] : [];
    case 'choose':
      return [{ type: 'choose', roles: [...chosenAfter(moment, act)] }];
    case 'chosen':
      return chosenNow(moment).length > 0
        ? [{ type: 'hand', values: [...handsWithSaid(moment, chosenNow(moment), act.does)] }]
        : [];
    case 'lamps':
      return lampActions(show, live, act, moment.now);
    case 'lock':
    case 'store':
      // These are of the screen, and not of the light: see `lookOfNow`.
      return [];
    default:
      return never(act);
  }
}

const bankTurnedTo = (bank: Bank | undefined): Action | undefined => bank && { type: 'bank', bank: bank.id };

/** For a while it goes as fast as it came: at once. */
const taken = ({ values, hold }: Extract<Act, { act: 'hand' }>): Action =>
  hold === undefined ? { type: 'hand', values } : { type: 'hand', values, hold: seconds(hold) };

/** Frozen at once; what is on by then comes back within a beat. */
function freezing(moment: Moment, to: 'toggle' | 'on' | 'off'): Action | undefined {
  const is = isFrozen(moment.live);
  const on = turned(is, to);
  return on === is ? undefined : { type: 'freeze', on, fade: clockAt(moment).pulse };
}

const turned = (is: boolean, to: 'toggle' | 'on' | 'off'): boolean => (to === 'toggle' ? !is : to === 'on');

/** The song that is chosen; without one, the next of the set. */
function songDone(moment: Moment, does: 'toggle' | 'play' | 'pause' | 'restart'): readonly (Action | undefined)[] {
  const { live, show, now } = moment;
  const chosen = show.songs.find(({ id }) => id === live.song?.id);
  const plays = live.song?.playing === true;
  if (does === 'pause' || (does === 'toggle' && plays)) return plays ? [{ type: 'pause' }] : [];
  if (does === 'play' && plays) return [];
  const { stops, at } = placeAt(moment);
  const ahead = stops.find((stop, i) => i >= Math.max(0, at) && 'song' in stop);
  const song = chosen ?? (ahead && 'song' in ahead ? ahead.song : show.songs[0]);
  if (!song) return [];
  const position = chosen && live.song && does !== 'restart' ? songTimeAt(live.song, now) : 0;
  const from = seconds(position >= song.duration - 0.05 ? 0 : Math.max(0, position));
  return [{ type: 'play', song: song.id, from }];
}

function tempoTo({ live, now }: Moment, to: 'faster' | 'slower' | 'half' | 'double' | 'one'): Action {
  const { bpm } = live.tempo;
  const set = (wanted: number): Action => ({ type: 'tempo', bpm: clamp(wanted, 30, 400) });
  if (to === 'one') {
    const beat = beats(Math.round(freeBeat(live, now) / FREE_BAR) * FREE_BAR);
    return { type: 'tempo', bpm, beat: { at: now, beat } };
  }
  if (to === 'half' || to === 'double') return set(to === 'half' ? bpm / 2 : bpm * 2);
  return set(Math.round(bpm) + (to === 'faster' ? 1 : -1));
}

function speedTo(moment: Moment, to: 'half' | 'double' | 'normal'): Action {
  const { rate } = moment.live.speed;
  const wanted = to === 'normal' ? 1 : clamp(to === 'half' ? rate / 2 : rate * 2, 1 / 16, 16);
  return { type: 'speed', rate: wanted, beat: clockAt(moment).beat };
}

function struck(moment: Moment, { kit, role, note }: Extract<Act, { act: 'hit' }>, down: boolean): Action | undefined {
  const { show } = moment;
  const hits =
    show.kits
      .find(({ id }) => id === kit)
      ?.hits.filter(({ low, high }) => note >= Math.min(low, high) && note <= Math.max(low, high)) ?? [];
  if (hits.length === 0) return undefined;
  const notes = hits.map(({ id, choke }) => ({
    kit,
    role,
    hit: id,
    note,
    velocity: down ? 1 : 0,
    ...(choke ? { choke } : {}),
  }));
  return {
    type: 'notes',
    notes,
    pulse: clockAt(moment).pulse,
    ...(show.safety.on ? { most: show.safety.most } : {}),
  };
}
