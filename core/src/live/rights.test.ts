// What each right may say, over every message there is.

import { Action, FromScreen, mayAct, maySay, RIGHTS, rightReaches, type Right } from '.';

const typesOf = (union: { options: readonly { shape: { type: { value: string } } }[] }) =>
  union.options.map(({ shape }) => shape.type.value);
const actions = typesOf(Action as never) as Action['type'][];
const messages = typesOf(FromScreen as never);

/** Written out here once more, by hand: a new action or message has to be thought of in both places. */
const PLAYS = [
  'open-song',
  'play',
  'pause',
  'seek',
  'anchor',
  'look-on',
  'look-off',
  'pad',
  'go',
  'bank',
  'all-off',
  'step',
  'speed',
  'fade-times',
  'role-master',
  'master',
  'blackout',
  'freeze',
  'notes',
  'tap',
  'tempo',
  'nudge',
  'loop',
  'jump',
  'set-place',
  'heard',
];
const OPERATES = [
  'hand',
  'release',
  'sending',
  'hold-channels',
  'arm',
  'choose',
  'free-channels',
  'flash-channels',
  'walk-channels',
  'end-test',
  'program',
];
const CONDUCTS = ['gone', 'show-on'];
const LOOKS = ['hello', 'ping', 'watch'];

test.each(RIGHTS)('%s: every message and every action, and no more', (right) => {
  expect([...PLAYS, ...OPERATES, ...CONDUCTS].sort()).toEqual([...actions].sort());
  for (const type of actions) {
    const may = right === 'operator' ? !CONDUCTS.includes(type) : right === 'player' && PLAYS.includes(type);
    expect([type, mayAct(right, type)]).toEqual([type, may]);
    expect([type, maySay(right, { type: 'act', action: { type } })]).toEqual([type, may]);
  }
  for (const type of messages.filter((one) => one !== 'act'))
    expect([type, maySay(right, { type } as never)]).toEqual([type, right === 'operator' || LOOKS.includes(type)]);
});

test('each right holds all of those below it', () => {
  const order: readonly Right[] = ['viewer', 'player', 'operator'];
  order.forEach((has, i) => order.forEach((wanted, k) => expect(rightReaches(has, wanted)).toBe(i >= k)));
});
