import type { Action } from '@hovlix/core/live';
import type { LookValue } from '@hovlix/core/light';
import { id } from '@hovlix/core/units';
import { testShow } from '../../../../core/src/testing/show';
import { draft } from './draft';

const lamps = (...names: string[]) => names.map((name) => id<'Fixture'>(name));
const level = (value: number) => ({ level: { type: 'hold' as const, value } });

function making(hands: readonly LookValue[] = [], show = testShow()) {
  const acts: Action[] = [];
  const live = { hands: hands.map((value) => ({ value, on: true })) };
  const conducting = { act: (action: Action) => void acts.push(action), store: { getState: () => ({ live }) } };
  const document = { store: { getState: () => ({ show }) } };
  return { acts, one: draft(document as never, conducting as never) };
}
const said = (acts: readonly Action[]) => acts.map((act) => (act.type === 'hand' ? act.values.length : act.type));

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('a drag is one step to undo and goes out a few times, not at each movement', () => {
  const { acts, one } = making();
  one.choose(lamps('a', 'b'));
  for (let i = 1; i <= 20; i++) one.say(level(i / 20), 'level');
  jest.advanceTimersByTime(100);
  expect(said(acts)).toEqual([1]);
  expect(one.store.getState().values).toEqual([{ role: 'wash', ...level(1) }]);
  expect(one.store.getState().past).toHaveLength(1);
  expect(one.undo()).toBe(true);
  expect(one.store.getState().values).toEqual([]);
  jest.advanceTimersByTime(100);
  expect(said(acts)).toEqual([1, 'release']);
  expect(one.redo()).toBe(true);
  expect(one.redo()).toBe(false);
});

test('after a pause the next touch is a step of its own', () => {
  const { one } = making();
  one.choose(lamps('s'));
  one.say(level(0.2), 'level');
  jest.advanceTimersByTime(2000);
  one.say(level(0.4), 'level');
  expect(one.store.getState().past).toHaveLength(2);
});

test('a look that is opened is in hand; opened again it goes on from where it was', () => {
  const { acts, one } = making();
  const look = testShow().looks[0]!;
  one.open(look);
  jest.advanceTimersByTime(100);
  expect(said(acts)).toEqual([1]);
  one.choose(lamps('a', 'b'));
  one.say(level(0.3));
  one.open(look);
  expect(one.store.getState().values[0]!.level).toEqual(level(0.3).level);
});

test('lamps chosen, and what was said, before the conductor answered are kept and said again', () => {
  const { acts, one } = making();
  one.choose(lamps('s'), ['movers']);
  one.open(null);
  expect(one.store.getState().chosen).toEqual(['s']);
  one.say(level(0.5));
  jest.advanceTimersByTime(100);
  one.open(null);
  jest.advanceTimersByTime(100);
  expect(said(acts)).toEqual([1, 1]);
  expect(one.store.getState().values).toHaveLength(1);
});

test('a new look begins with what is in hand already; closing lets go of all', () => {
  const { acts, one } = making([{ role: id('movers'), ...level(1) }]);
  one.open(null);
  expect(one.store.getState().values).toHaveLength(1);
  one.close(2);
  expect(one.store.getState().values).toEqual([]);
  expect(acts).toEqual([{ type: 'release', fade: 2 }]);
});

test('where one role alone has lamps it is chosen as a look opens; with two nobody is', () => {
  const show = testShow();
  const rigs = show.rigs.map((rig) => ({ ...rig, casting: rig.casting.filter(({ role }) => role === 'wash') }));
  const { one } = making([], { ...show, rigs });
  one.open(null);
  expect(one.store.getState()).toMatchObject({ chosen: ['a', 'b'], preferred: ['wash'] });
  one.choose(lamps('b'));
  one.open(null);
  expect(one.store.getState().chosen).toEqual(['b']);
  const { one: other } = making();
  other.open(null);
  expect(other.store.getState().chosen).toEqual([]);
});
