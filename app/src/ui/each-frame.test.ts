import { eachFrame, REST_MS } from './each-frame';

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
  const stopOne = eachFrame(() => void drawn.push('one'));
  const stopTwo = eachFrame(() => void drawn.push('two'));
  expect(drawn).toEqual(['one', 'two']);
  expect(asked).toBe(1);
  picture();
  expect(drawn.slice(2)).toEqual(['one', 'two']);
  stopOne();
  picture();
  expect(drawn.slice(4)).toEqual(['two']);
  stopTwo();
  expect(next).toBeUndefined();
  const stop = eachFrame(() => void drawn.push('again'));
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

describe('rest', () => {
  beforeEach(() => jest.useFakeTimers({ doNotFake: ['requestAnimationFrame', 'cancelAnimationFrame'] }));
  afterEach(() => jest.useRealTimers());
  const pass = (ms: number) => jest.advanceTimersByTime(ms);

  test('what looks the same for a while is left alone until just before it does not', () => {
    const drawn = jest.fn(() => 500);
    const stop = eachFrame(drawn);
    picture();
    expect([drawn.mock.calls.length, asked]).toEqual([1, 1]);
    pass(450);
    expect(asked).toBe(1);
    pass(40);
    expect(asked).toBe(2);
    pass(10);
    picture();
    expect(drawn).toHaveBeenCalledTimes(2);
    stop();
    pass(2000);
    expect(asked).toBe(2);
  });

  test('it draws at once when it is woken, and after a second whatever it said', () => {
    const drawn = jest.fn(() => Infinity);
    let wake = () => undefined as void;
    const stop = eachFrame(drawn, (woken) => {
      wake = woken;
      return () => (wake = () => undefined);
    });
    picture();
    wake();
    picture();
    expect(drawn).toHaveBeenCalledTimes(2);
    pass(REST_MS);
    picture();
    expect(drawn).toHaveBeenCalledTimes(3);
    stop();
    const before = asked;
    wake();
    expect(asked).toBe(before);
  });

  test('one that moves keeps none of the others from their rest', () => {
    const [moves, rests] = [jest.fn(), jest.fn(() => 300)];
    const stops = [eachFrame(moves), eachFrame(rests)];
    for (let n = 0; n < 10; n++) {
      pass(17);
      picture();
    }
    expect([moves.mock.calls.length, rests.mock.calls.length]).toEqual([11, 1]);
    for (let n = 0; n < 10; n++) {
      pass(17);
      picture();
    }
    expect(rests).toHaveBeenCalledTimes(2);
    for (const stop of stops) stop();
  });
});
