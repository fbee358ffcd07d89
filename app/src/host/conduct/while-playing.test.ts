import { createStore } from 'zustand/vanilla';
import type { Conducting } from './conduct';
import { whilePlaying } from './while-playing';

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('it is looked again and again while a song plays, once more when it stops, and not at all at rest', () => {
  const store = createStore<object>(() => ({ live: { song: null } }));
  const plays = (playing: boolean) => store.setState({ live: { song: { id: 'song', playing } } });
  const looked = jest.fn();
  whilePlaying({ store } as unknown as Pick<Conducting, 'store'>, looked, 10);
  jest.advanceTimersByTime(1000);
  expect(looked).not.toHaveBeenCalled();
  plays(true);
  jest.advanceTimersByTime(50);
  plays(true);
  jest.advanceTimersByTime(50);
  expect(looked).toHaveBeenCalledTimes(10);
  plays(false);
  expect(looked).toHaveBeenCalledTimes(11);
  jest.advanceTimersByTime(1000);
  expect(looked).toHaveBeenCalledTimes(11);
});

test('a song that plays already is followed', () => {
  const store = createStore<object>(() => ({ live: { song: { id: 'song', playing: true } } }));
  const looked = jest.fn();
  whilePlaying({ store } as unknown as Pick<Conducting, 'store'>, looked, 10);
  jest.advanceTimersByTime(100);
  expect(looked).toHaveBeenCalledTimes(10);
});
