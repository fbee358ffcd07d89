import { useMemo } from 'react';
import { createEvent, fireEvent, renderHook } from '@testing-library/react';
import { useLeaving } from './leaving';

const SENTENCE = 'Bars 29 – 36 lit like bars 13 – 20.';

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

function shown(text: string | null = SENTENCE) {
  const leave = jest.fn();
  const over = { current: document.body.appendChild(document.createElement('div')) };
  const { rerender } = renderHook(
    (said: string | null) =>
      useLeaving(
        over,
        useMemo(() => (said ? { text: said.trim() } : null), [said]),
        leave,
      ),
    { initialProps: text },
  );
  const press = (where: Element) => fireEvent(where, createEvent.pointerDown(where));
  return { leave, over: over.current, press, say: rerender };
}

test('left alone, a sentence is there for seven seconds', () => {
  const { leave } = shown();
  jest.advanceTimersByTime(6900);
  expect(leave).not.toHaveBeenCalled();
  jest.advanceTimersByTime(200);
  expect(leave).toHaveBeenCalledTimes(1);
});

test('where one goes on it leaves once it was read, and at once after that', () => {
  const { leave, press } = shown();
  jest.advanceTimersByTime(300);
  press(document.body);
  jest.advanceTimersByTime(1500);
  expect(leave).not.toHaveBeenCalled();
  jest.advanceTimersByTime(1500);
  expect(leave).toHaveBeenCalledTimes(1);

  const later = shown();
  jest.advanceTimersByTime(4000);
  later.press(document.body);
  jest.advanceTimersByTime(1);
  expect(later.leave).toHaveBeenCalledTimes(1);
});

test('a long sentence has more time; a press on it is no going on', () => {
  const long = shown('x'.repeat(100));
  long.press(document.body);
  jest.advanceTimersByTime(5000);
  expect(long.leave).not.toHaveBeenCalled();

  const { leave, over, press } = shown();
  jest.advanceTimersByTime(4000);
  press(over);
  jest.advanceTimersByTime(1000);
  expect(leave).not.toHaveBeenCalled();
});

test('the same said again is as new', () => {
  const { leave, say } = shown();
  jest.advanceTimersByTime(6000);
  say(`${SENTENCE} `);
  jest.advanceTimersByTime(6000);
  expect(leave).not.toHaveBeenCalled();
});

test('what must be read stays until that is said', () => {
  const { leave, press } = shown(null);
  press(document.body);
  jest.advanceTimersByTime(60_000);
  expect(leave).not.toHaveBeenCalled();
});
