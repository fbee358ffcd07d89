import { eachFrame } from './each-frame';

let next: (() => void) | undefined;
let asked = 0;

beforeEach(() => {
  asked = 0;
  window.requestAnimationFrame = (draw) => {
    next = () => draw(0);
    return ++asked;
  };
  window.cancelAnimationFrame = () => void (next = undefined);
});

const picture = () => next?.();

test('all that follow the clock share one loop, which ends with the last of them', () => {
  const drawn: string[] = [];
  const stopOne = eachFrame(() => drawn.push('one'));
  const stopTwo = eachFrame(() => drawn.push('two'));
  expect(drawn).toEqual(['one', 'two']);
  expect(asked).toBe(1);
  picture();
  expect(drawn.slice(2)).toEqual(['one', 'two']);
  stopOne();
  picture();
  expect(drawn.slice(4)).toEqual(['two']);
  stopTwo();
  expect(next).toBeUndefined();
  const stop = eachFrame(() => drawn.push('again'));
  picture();
  expect(drawn.slice(5)).toEqual(['again', 'again']);
  stop();
});

test('one that fails is told of, and the others are drawn', () => {
  const told = jest.fn();
  window.reportError = told;
  const drawn = jest.fn();
  let fails = false;
  const stops = [
    eachFrame(() => {
      if (fails) throw new Error('no canvas');
    }),
    eachFrame(drawn),
  ];
  fails = true;
  picture();
  expect(told).toHaveBeenCalledTimes(1);
  expect(drawn).toHaveBeenCalledTimes(2);
  picture();
  expect(drawn).toHaveBeenCalledTimes(3);
  for (const stop of stops) stop();
});
