// OSC that comes in: a control takes it, or it is one of our own words. docs/osc.md has the table.

import type { ControlSurface, GearHost, Move } from '../gear';
import type { Act, Turns } from '../gig';
import { pressWords, turnAction, turnName, type Moment } from '../live';
import type { Show } from '../show';
import type { OscMessage, OscValue } from '../wire';
import { heardOsc, oscNumber } from './heard-osc';

/** What became of a message. */
export type OscAnswer =
  /** A control learned it, or took it. */
  | { readonly by: 'control' }
  /** One of our words, and what it did; nothing as a button of it is let go. */
  | { readonly by: 'word'; readonly did: string }
  /** Nobody waits for this address. */
  | { readonly by: 'nobody' }
  | { readonly by: 'bad'; readonly why: string };

export type OscHearer = {
  /** @param at when it came, by the clock of the surface. */
  readonly hear: (message: OscMessage, at?: number) => OscAnswer;
};

type Start = {
  readonly host: GearHost;
  readonly surface: Pick<ControlSurface, 'message' | 'move'>;
};

export function oscHearer({ host, surface }: Start): OscHearer {
  let since = -Infinity;
  let count = 0;
  /** Presses by our words, so that nobody fills the log by them. Knobs are limited where they move. */
  const isTooMuch = () => {
    if (host.now() - since >= 1) [since, count] = [host.now(), 0];
    return ++count > MOST_PRESSES;
  };
  const chatter = chatterBook();
  return {
    hear(message, at = host.now()) {
      const heard = heardOsc(message);
      if (!heard)
        return bad(message, 'is too long or contains a space or one of # * , ? [ ] { }: send to a single address');
      if (surface.message(heard, at, !chatter.isOf(message.address, at))) return { by: 'control' };
      const moment = host.press();
      if (!moment) return bad(message, 'does nothing: no show is open');
      const meant = meantBy(message, moment);
      if (meant === undefined) return { by: 'nobody' };
      if ('why' in meant) return bad(message, meant.why);
      if ('moves' in meant) {
        surface.move(`osc ${meant.moves}`, meant.does, host.act);
        return { by: 'word', did: meant.did };
      }
      if (meant.acts.length > 0 && isTooMuch())
        return bad(message, `was left out: more than ${MOST_PRESSES} presses in a second`);
      const isPress = meant.down && meant.acts.length > 0;
      const did = isPress ? pressWords(moment, meant.acts) || 'Nothing to do right now' : '';
      host.doActs(meant.acts, meant.down, at);
      return { by: 'word', did };
    },
  };
}

const MOST_PRESSES = 60;

/** So many steps from message to message tell what comes by itself, and how unlike each other they may be. */
const STEPS = 4;
const ALIKE = 2;
/** Shorter ones are a matter of how packets are sent. */
const SHORTEST = 0.005;
const MOST_ADDRESSES = 256;

/** Tablets say that they are there, or how they are tilted, evenly and without being touched: nothing learns that. */
function chatterBook() {
  const steps = new Map<string, { last: number; steps: readonly number[] }>();
  return {
    /** One more message of an address. @returns whether the ones before it came as evenly. */
    isOf(address: string, at: number): boolean {
      const before = steps.get(address);
      steps.delete(address);
      const all = before ? [...before.steps, Math.max(SHORTEST, at - before.last)].slice(-STEPS) : [];
      steps.set(address, { last: at, steps: all });
      if (steps.size > MOST_ADDRESSES) steps.delete(steps.keys().next().value!);
      return all.length === STEPS && Math.max(...all) <= ALIKE * Math.min(...all);
    },
  };
}

const bad = ({ address }: OscMessage, why: string): OscAnswer => ({
  by: 'bad',
  why: `“${address.slice(0, 80)}” ${why}`,
});

/** A word of ours, by what it asks for. */
type Meant =
  | { readonly acts: readonly Act[]; readonly down: boolean }
  /** What moves has a name, so that it is known again. */
  | { readonly moves: string; readonly does: Move; readonly did: string }
  | { readonly why: string };

const ROOT = '/hovlix/';

/** What comes after our root: a word, and perhaps a number behind another slash, as buttons have nothing but an address. */
function meantBy({ address, values }: OscMessage, { show }: Pick<Moment, 'show'>): Meant | undefined {
  if (!address.startsWith(ROOT)) return undefined;
  const [word = '', which, ...more] = address.slice(ROOT.length).split('/');
  const say = WORDS.get(word);
  if (word === 'deck') return { why: 'belongs to a DJ player: send it to the port of the DJ player' };
  if (!say || more.length > 0)
    return { why: `is not an address Hovlix knows: /hovlix/ is followed by ${[...WORDS.keys()].join(', ')}` };
  return say({ show, values: which === undefined ? values : [asNumber(which), ...values] });
}

const asNumber = (text: string): OscValue => (/^\d{1,6}$/.test(text) ? Number(text) : text);

type Said = {
  readonly show: Show;
  /** Before them what stood behind the word in the address. */
  readonly values: readonly OscValue[];
};

/** Buttons send 1, then 0 as they are let go; software for cues sends nothing but the address. */
const NOTHING: Meant = { acts: [], down: true };
const isLetGo = (value: OscValue | undefined): boolean => oscNumber(value) === 0;

const pressed =
  (act: Act) =>
  ({ values: [value] }: Said): Meant =>
    isLetGo(value) ? NOTHING : { acts: [act], down: true };

/** On, off, or where nothing is said the other of both. */
const switched =
  (act: (to: 'toggle' | 'on' | 'off') => Act) =>
  ({ values: [value] }: Said): Meant => {
    const number = oscNumber(value);
    if (value !== undefined && number === undefined) return { why: 'takes 1, 0 or nothing' };
    return { acts: [act(number === undefined ? 'toggle' : number > 0 ? 'on' : 'off')], down: true };
  };

type Called = { readonly number?: number; readonly name: string };

/** By its number, or by its name however that is written. */
function found<T extends Called>(all: readonly T[], value: OscValue | undefined): T | undefined {
  if (typeof value === 'number') return all.find(({ number }) => number === value);
  if (typeof value !== 'string') return undefined;
  const plain = (name: string) => name.trim().toLowerCase();
  return all.find(({ name }) => name === value) ?? all.find(({ name }) => plain(name) === plain(value));
}

const called = (value: OscValue | undefined): string =>
  typeof value === 'string'
    ? `named “${value.slice(0, 60)}”`
    : typeof value === 'number'
      ? `with number ${value}`
      : 'without a name';

const WORDS: ReadonlyMap<string, (said: Said) => Meant> = new Map<string, (said: Said) => Meant>([
  ['go', pressed({ act: 'stop', way: 'next' })],
  ['back', pressed({ act: 'stop', way: 'previous' })],
  [
    'look',
    ({ show, values: [value, on] }) => {
      const look = found([...show.looks, ...show.chases], value);
      if (!look) return { why: `finds no look or chase ${called(value)}: send its name or number` };
      return { acts: [{ act: 'look', look: look.id, press: isLetGo(on) ? 'stop' : 'start' }], down: true };
    },
  ],
  [
    'pad',
    ({ values: [place, value] }) => {
      if (typeof place !== 'number' || !Number.isInteger(place) || place < 1 || place > 200)
        return { why: 'needs the place of a pad in its bank, from 1' };
      return { acts: [{ act: 'pad', place }], down: !isLetGo(value) };
    },
  ],
  [
    'song',
    ({ show, values: [value, on] }) => {
      const titles = show.songs.map(({ id, title }) => ({ id, name: title }));
      const song = found(titles, value);
      if (!song) return { why: `finds no song ${called(value)}: send its title` };
      return isLetGo(on) ? NOTHING : { acts: [{ act: 'play', song: song.id }], down: true };
    },
  ],
  ['play', pressed({ act: 'song', does: 'play' })],
  ['pause', pressed({ act: 'song', does: 'pause' })],
  [
    'section',
    ({ values: [to, value] }) => {
      if (to !== 'next' && to !== 'previous' && to !== 'again' && to !== 'last')
        return { why: 'takes next, previous, again or last' };
      return isLetGo(value) ? NOTHING : { acts: [{ act: 'section', to }], down: true };
    },
  ],
  ['tap', pressed({ act: 'tap' })],
  [
    'tempo',
    ({ values: [value] }) => {
      const bpm = oscNumber(value);
      if (bpm === undefined || bpm < 30 || bpm > 400) return { why: 'takes beats a minute from 30 to 400' };
      return { moves: 'tempo', does: () => ({ type: 'tempo', bpm }), did: `${Math.round(bpm * 10) / 10} bpm` };
    },
  ],
  [
    'master',
    ({ show, values }) => {
      const [first, second] = values;
      const level = oscNumber(typeof first === 'string' ? second : first);
      const role = typeof first === 'string' ? found(show.roles, first) : null;
      if (role === undefined) return { why: `finds no role ${called(first)}: send its name before the level` };
      if (level === undefined || level < 0 || level > 1) return { why: 'takes a level from 0 to 1' };
      const turns: Turns = { turn: 'master', role: role?.id ?? null };
      return {
        moves: `master ${turns.role ?? ''}`,
        does: (moment) => turnAction(moment, turns, level),
        did: `${turnName(show, turns)}: ${Math.round(level * 100)} %`,
      };
    },
  ],
  ['blackout', switched((to) => ({ act: 'blackout', to }))],
  ['freeze', switched((to) => ({ act: 'freeze', to }))],
  ['release', pressed({ act: 'release' })],
  ['all-off', pressed({ act: 'all-off' })],
]);
