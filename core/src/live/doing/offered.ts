// All acts that a show offers to a pedal, a key, a pad. Asked for where one chooses, and not with the rest.

import { SWATCHES } from '../../colour';
import { Act, HAND_TURNS, type Turns } from '../../gig';
import { finder } from '../../letters';
import { banksOf } from '../../light';
import { abilityOf, patchedFixtures } from '../../rig';
import { rigInUse, type Show } from '../../show';
import { actName } from './act-names';
import { gobosOf } from './by-hand';
import { lampActsOf } from './lamp-acts';

/** A burst of haze, in seconds: long enough to see, short enough for a small room. */
const BURST_SECONDS = 5;

const hold = <T>(value: T) => ({ type: 'hold' as const, value });

/** The lamps of each role. */
function cast(show: Show) {
  const rig = rigInUse(show);
  const lamps = new Map(patchedFixtures(rig, show.profiles).map((one) => [one.fixture.id as string, one]));
  return show.roles.map(({ id }) => {
    const fixtures = rig.casting.find(({ role }) => role === id)?.fixtures ?? [];
    return { id, mine: fixtures.flatMap((lamp) => lamps.get(lamp) ?? []) };
  });
}

/** For each role what its lamps can do: aims, colours, gobos, haze. */
function handsOffered(show: Show): readonly object[] {
  return cast(show).flatMap(({ id, mine }) => {
    const can = (what: 'aim' | 'gobo' | 'haze') => mine.some((one) => abilityOf(one)[what]);
    const coloured = mine.some((one) => abilityOf(one).colour !== 'none');
    return [
      ...(can('haze') ? [{ values: [{ role: id, haze: hold(1) }], hold: BURST_SECONDS }] : []),
      ...(can('aim') ? show.aims.map((aim) => ({ values: [{ role: id, aim: hold({ aim: aim.id }) }] })) : []),
      ...(coloured ? SWATCHES.map(({ colour }) => ({ values: [{ role: id, colour: hold(colour) }] })) : []),
      ...(can('gobo') ? gobosOf(mine).map((_, slot) => ({ values: [{ role: id, gobo: hold(slot) }] })) : []),
    ].map((one) => ({ act: 'hand', ...one }));
  });
}

/** What the chosen roles may take: as far as any lamp of the show can. */
function chosenOffered(show: Show): readonly object[] {
  const gobos = Math.max(0, ...cast(show).map(({ mine }) => gobosOf(mine).length));
  return [
    ...[1, 0.5, 0].map((level) => ({ level: hold(level) })),
    ...SWATCHES.map(({ colour }) => ({ colour: hold(colour) })),
    ...show.aims.map(({ id }) => ({ aim: hold({ aim: id }) })),
    ...Array.from({ length: gobos }, (_, slot) => ({ gobo: hold(slot) })),
  ].map((does) => ({ act: 'chosen', does }));
}

/** All that a knob can move. */
export function turnsOffered(show: Show): readonly Turns[] {
  const hands = cast(show).flatMap(({ id: role, mine }) => {
    const can = (what: (typeof HAND_TURNS)[number]) =>
      mine.some((lamp) => {
        const { light, colour, ...able } = abilityOf(lamp);
        return what === 'level' ? light : what === 'colour' ? colour !== 'none' : able[what];
      });
    return HAND_TURNS.filter(can).map((what) => ({ turn: 'hand' as const, role, what }));
  });
  return [
    { turn: 'master', role: null },
    ...show.roles.map(({ id }) => ({ turn: 'master' as const, role: id })),
    { turn: 'speed' },
    { turn: 'tempo' },
    { turn: 'fades' },
    ...HAND_TURNS.map((what) => ({ turn: 'hand' as const, role: null, what })),
    ...hands,
    ...[...show.chases, ...show.looks].map(({ id }) => ({ turn: 'speed' as const, look: id })),
  ];
}

/** Every act one may choose, the most used first; what can be set further is as it is meant most often. */
export function actsOffered(show: Show): readonly Act[] {
  const acts: object[] = [
    { act: 'stop', way: 'next' },
    { act: 'stop', way: 'previous' },
    { act: 'entry', way: 'next' },
    { act: 'entry', way: 'previous' },
    { act: 'blackout', to: 'toggle' },
    { act: 'blackout', to: 'on' },
    { act: 'blackout', to: 'off' },
    { act: 'go', way: 'next' },
    { act: 'go', way: 'previous' },
    { act: 'turn-bank', way: 'next' },
    { act: 'turn-bank', way: 'previous' },
    ...Array.from({ length: 12 }, (_, i) => ({ act: 'pad', place: i + 1 })),
    ...['toggle', 'play', 'pause', 'restart'].map((does) => ({ act: 'song', does })),
    ...['next', 'previous', 'again', 'last'].map((to) => ({ act: 'section', to })),
    { act: 'loop' },
    { act: 'tap' },
    ...['one', 'faster', 'slower', 'half', 'double'].map((to) => ({ act: 'tempo', to })),
    { act: 'nudge', by: -0.02 },
    { act: 'nudge', by: 0.02 },
    { act: 'all-off' },
    { act: 'release' },
    ...['toggle', 'on', 'off'].map((to) => ({ act: 'freeze', to })),
    { act: 'sending', to: 'toggle' },
    ...['half', 'double', 'normal'].map((to) => ({ act: 'speed', to })),
    ...[1, 0.5, 0].map((level) => ({ act: 'master', role: null, level })),
    ...[...show.looks, ...show.chases].flatMap(({ id }) =>
      ['toggle', 'start', 'stop', 'flash'].map((press) => ({ act: 'look', look: id, press })),
    ),
    ...banksOf(show).map(({ id }) => ({ act: 'bank', bank: id })),
    ...show.songs.map(({ id }) => ({ act: 'play', song: id })),
    ...show.kits.flatMap((kit) =>
      kit.channels.flatMap(({ role }) =>
        kit.hits.map(({ low, high }) => ({ act: 'hit', kit: kit.id, role, note: Math.min(low, high) })),
      ),
    ),
    ...show.roles.flatMap(({ id }) => [1, 0.5, 0].map((level) => ({ act: 'master', role: id, level }))),
    { act: 'store' },
    ...['toggle', 'on', 'off'].map((to) => ({ act: 'lock', to })),
    ...show.roles.flatMap(({ id }) => [false, true].map((beside) => ({ act: 'choose', role: id, beside }))),
    { act: 'choose', role: null, beside: false },
    ...chosenOffered(show),
    ...handsOffered(show),
    ...show.roles.flatMap(({ id }) => lampActsOf(show, id).map((does) => ({ act: 'lamps', role: id, does }))),
  ];
  return acts.map((one) => Act.parse(one));
}

/** Those whose name has every word that was typed. */
export function actsFound(show: Show, acts: readonly Act[], typed: string): readonly Act[] {
  if (typed.trim() === '') return acts;
  const fits = finder(typed);
  return acts.filter((act) => fits(actName(show, act)));
}
