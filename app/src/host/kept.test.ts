import { z } from 'zod';
import { kept, keptInWindow } from './kept';

const Habits = z.object({ theme: z.enum(['night', 'day']).default('night'), pin: z.string().nullable().default(null) });
const none = Habits.parse({});
const twoWindows = () => [kept('habits', Habits, none), kept('habits', Habits, none)] as const;

beforeEach(() => window.localStorage.clear());
afterEach(() => jest.restoreAllMocks());

test('what two windows keep one after the other is kept of both', () => {
  const [one, two] = twoWindows();
  one.keep((now) => ({ ...now, pin: '2580' }));
  two.keep((now) => ({ ...now, theme: 'day' }));
  expect(one.read()).toEqual({ theme: 'day', pin: '2580' });
});

test('what another window keeps is told, and nothing of other names', () => {
  const [one, two] = twoWindows();
  const told: unknown[] = [];
  one.heard((habits) => told.push(habits));
  two.keep((now) => ({ ...now, theme: 'day' }));
  window.dispatchEvent(new StorageEvent('storage', { key: 'something else' }));
  expect(told).toEqual([]);
  window.dispatchEvent(new StorageEvent('storage', { key: 'habits' }));
  expect(told).toEqual([{ theme: 'day', pin: null }]);
});

test.each(['', '{', '[]', '{"theme":"dusk"}', 'null'])('kept as %j it is as if nothing were kept', (text) => {
  window.localStorage.setItem('habits', text);
  const [one] = twoWindows();
  expect(one.read()).toEqual(none);
  one.keep((now) => ({ ...now, pin: '1111' }));
  expect(one.read().pin).toBe('1111');
});

test('a browser that has no room, or keeps nothing, loses a habit and no more', () => {
  const refuse = () => {
    throw new DOMException('full', 'QuotaExceededError');
  };
  jest.spyOn(Storage.prototype, 'setItem').mockImplementation(refuse);
  jest.spyOn(Storage.prototype, 'getItem').mockImplementation(refuse);
  const [one] = twoWindows();
  one.keep((now) => ({ ...now, theme: 'day' }));
  expect(one.read()).toEqual(none);
});

test('a word of a window is there when its page is loaded anew, and where nothing is kept there is none', () => {
  const word = keptInWindow('locked');
  word.keep('yes');
  expect(keptInWindow('locked').read()).toBe('yes');
  word.keep(undefined);
  expect(word.read()).toBeUndefined();
  jest.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
    throw new DOMException('no room');
  });
  word.keep('yes');
  expect(word.read()).toBeUndefined();
});
