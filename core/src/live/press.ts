// What a press means, as the action that goes into the log: how the look comes on, in beats of what is heard, and the
// rules of its bank. Whether it goes on or off is decided there, by what is on.

import { banksOf, padAfter, type Bank, type Chase, type Look, type Pad } from '../light';
import type { Show } from '../show';
import { barAt, beatAt, beatOfBar, meterAtBar, pulseLength, tempoAt, timeAt } from '../time';
import { beats, seconds, type Beats, type Seconds } from '../units';
import type { Action } from './actions';
import { freeBeat } from './run';
import { songTimeAt } from './song-clock';
import type { LiveState } from './live-state';

/** The moment of a press: the show as it is, what is on, and the conductor's clock. */
export type Moment = { readonly show: Show; readonly live: LiveState; readonly now: Seconds };

/** Where the clock is, in beats, and how long a beat is, as fast as it goes: of the song that sounds, else of the free clock. */
export function clockAt({ show, live, now }: Moment): { readonly beat: Beats; readonly pulse: Seconds } {
  const song = show.songs.find((one) => one.id === live.song?.id);
  if (!song || !live.song?.playing) return { beat: freeBeat(live, now), pulse: seconds(60 / live.tempo.bpm) };
  const at = songTimeAt(live.song, now);
  return { beat: beatAt(song.tempo, at), pulse: seconds(60 / (tempoAt(song.tempo, at) * live.song.rate)) };
}

const playOf = ({ show }: Moment, id: string): Look | Chase | undefined =>
  show.looks.find((one) => one.id === id) ?? show.chases.find((one) => one.id === id);

/** How a look comes on now, as it says itself, in beats of what is heard. */
function coming(moment: Moment, look: Look | Chase) {
  const { beat, pulse } = clockAt(moment);
  const hold = 'hold' in look ? look.hold : undefined;
  return {
    look: look.id,
    fade: seconds(look.fadeIn * pulse),
    beat,
    pulse,
    ...(hold === undefined ? {} : { hold: seconds(hold * pulse), out: seconds(look.fadeOut * pulse) }),
  };
}

export function lookOnAction(moment: Moment, id: string): Action | undefined {
  const look = playOf(moment, id);
  return look && { type: 'look-on', ...coming(moment, look) };
}

export function lookOffAction(moment: Moment, id: Look['id']): Action {
  const { pulse } = clockAt(moment);
  return { type: 'look-off', look: id, fade: seconds((playOf(moment, id)?.fadeOut ?? 0) * pulse), pulse };
}

/** A press so little after a beat or a bar line was meant for it, in beats. */
const LATE_BEATS = 0.2;

/** How long from now the next beat or bar line is, in seconds; 0 where one has just been. */
export function waitFor(moment: Moment, line: 'beat' | 'bar'): Seconds {
  const { show, live, now } = moment;
  const { beat, pulse } = clockAt(moment);
  const song = live.song?.playing ? show.songs.find(({ id }) => id === live.song?.id) : undefined;
  if (!song || !live.song) {
    const length = line === 'bar' ? FREE_BAR : 1;
    const past = ((beat % length) + length) % length;
    return seconds(past <= LATE_BEATS ? 0 : (length - past) * pulse);
  }
  const { bar, pulse: count, fraction } = barAt(song.meter, beat);
  const felt = pulseLength(meterAtBar(song.meter, bar));
  const start = beatOfBar(song.meter, bar);
  const from = line === 'bar' ? start : start + count * felt;
  if ((line === 'bar' ? count + fraction : fraction) * felt <= LATE_BEATS) return seconds(0);
  const next = line === 'bar' ? beatOfBar(song.meter, bar + 1) : from + felt;
  return seconds((timeAt(song.tempo, beats(next)) - songTimeAt(live.song, now)) / live.song.rate);
}

/** Beats of a bar of the free clock. */
export const FREE_BAR = 4;

/** A pad of a bank that goes down, or comes up; undefined where its look is gone. */
export function padAction(moment: Moment, pad: Pad, banks: readonly Bank[], down = true): Action | undefined {
  const look = playOf(moment, pad.look);
  if (!look) return undefined;
  const { pulse } = clockAt(moment);
  const alike = banks.flatMap(({ pads }) => pads).filter((one) => pad.group !== undefined && one.group === pad.group);
  const group = [...new Set(alike.map((one) => one.look))].filter((one) => one !== pad.look).slice(0, 200);
  return {
    type: 'pad',
    press: pad.press,
    down,
    ...coming(moment, look),
    ...waiting(moment, pad, down),
    fadeOut: seconds(look.fadeOut * pulse),
    ...(group.length > 0 ? { group } : {}),
    ...(look.clean ? { clean: true } : {}),
  };
}

/** Counted by beats, what waits begins where it comes. */
function waiting(moment: Moment, { waits, press }: Pad, down: boolean) {
  if (!waits || !down || press === 'flash') return {};
  const wait = seconds(Math.min(60, Math.max(0, waitFor(moment, waits))));
  const { beat, pulse } = clockAt(moment);
  return wait > 0 ? { wait, beat: beats(beat + wait / pulse) } : {};
}

/** A card of a look: on and off in turn, as it says itself. With `only`, all others that stand go off with it. */
export function cardAction(moment: Moment, look: Look['id'], only = false): Action | undefined {
  const action = padAction(moment, { look, press: only ? 'start' : 'toggle' }, []);
  return action?.type === 'pad' && only ? { ...action, clean: true } : action;
}

/** The banks of a show, and the one that one is in. */
export function banksAt({ show, live }: Pick<Moment, 'show' | 'live'>): {
  readonly banks: readonly Bank[];
  readonly bank: Bank | undefined;
} {
  const banks = banksOf(show);
  return { banks, bank: banks.find(({ id }) => id === live.place.bank) ?? banks[0] };
}

/** The bank that comes next, or before. */
export function bankBeside(moment: Pick<Moment, 'show' | 'live'>, way: 'next' | 'previous'): Bank | undefined {
  const { banks, bank } = banksAt(moment);
  return banks[banks.findIndex(({ id }) => id === bank?.id) + (way === 'next' ? 1 : -1)];
}

/** On to the next pad of the bank, or back to the one before; undefined at its end. */
export function goAction(moment: Moment, way: 1 | -1): Action | undefined {
  const { banks, bank } = banksAt(moment);
  const to = bank && padAfter(banks, bank, moment.live.place.look, way);
  const look = to && playOf(moment, to.pad.look);
  return look && { type: 'go', bank: to.bank.id, ...coming(moment, look) };
}
