import { until } from '../testing/wait';
import { incidentWatch } from './incidents';
import { startPacer } from './pacer';

afterEach(() => jest.restoreAllMocks());

test('the pacer keeps to its start: frame n is due at n / rate, and what was slept through is left out and counted', async () => {
  let time = 0;
  const due: number[] = [];
  const pacer = startPacer(
    () => time,
    10,
    (at) => due.push(at),
  );
  await until(() => due.length === 1);
  time = 0.1;
  await until(() => due.length === 2);
  time = 0.95;
  await until(() => due.length === 3);
  pacer.stop();
  expect(due).toEqual([0, 0.1, 0.9]);
  expect(pacer.report()).toEqual({ frames: 3, skipped: 7 });
});

test('it sleeps until just before a frame; where it wakes too late each time it stays awake for a while', async () => {
  let time = 0;
  let late = 0;
  let slept = 0;
  jest.spyOn(Atomics, 'wait').mockImplementation((_memory, _index, _value, milliseconds = 0) => {
    time += milliseconds / 1000 + late;
    slept++;
    return 'timed-out';
  });
  // A thousand frames a second are too near to each other for a timer.
  const sleptAt: number[] = [];
  const pacer = startPacer(
    () => (time += 0.000_02),
    1000,
    () => {
      sleptAt.push(slept);
      if (sleptAt.length === 100) late = 0.003;
      if (sleptAt.length === 400) pacer.stop();
    },
  );
  await until(() => sleptAt.length >= 400);
  pacer.stop();
  expect(sleptAt[98]! - sleptAt[8]!).toBe(90);
  expect(sleptAt[399]! - sleptAt[99]!).toBe(3);
});

describe('a press brings the next frame forward', () => {
  beforeEach(() => void jest.useFakeTimers({ now: 0 }));
  afterEach(() => void jest.useRealTimers());
  const paced = () => {
    const due: number[] = [];
    const pacer = startPacer(
      () => Date.now() / 1000,
      44,
      (at) => due.push(at),
    );
    return { pacer, due };
  };
  const frame = 1 / 44;

  test.each([0.002, 0.008, 0.013, 0.018])('%f s after a frame; then all drift back to where they were', (late) => {
    const { pacer, due } = paced();
    jest.advanceTimersByTime(1000);
    for (const frames = due.length; due.length === frames;) jest.advanceTimersByTime(1);
    const before = due.length;
    const last = due.at(-1)!;
    jest.advanceTimersByTime(late * 1000);
    const pressed = Date.now() / 1000;
    pacer.hurry();
    jest.advanceTimersByTime(1500);
    pacer.stop();
    const soonest = Math.max(pressed, last + frame / 2);
    expect(due[before]!).toBeGreaterThanOrEqual(soonest - 0.003);
    expect(due[before]!).toBeLessThan(soonest + 0.003);
    expect((due.at(-1)! * 44) % 1).toBeCloseTo(0, 6);
    due.slice(before + 1).forEach((at, i) => expect(at - due[before + i]!).toBeLessThan(frame * 1.05));
  });

  test('presses without end: never two frames nearer than half a frame, never more than three above the rate in a second', () => {
    const { pacer, due } = paced();
    for (let ms = 0; ms < 5000; ms += 3) {
      pacer.hurry();
      jest.advanceTimersByTime(3);
    }
    pacer.stop();
    for (let i = 1; i < due.length; i++) expect(due[i]! - due[i - 1]!).toBeGreaterThan(frame / 2 - 0.003);
    for (const from of due) expect(due.filter((at) => at >= from && at < from + 1).length).toBeLessThanOrEqual(47);
    expect(pacer.report().skipped).toBe(0);
  });
});

test('a computer that was held up, slept, or had its clock set: each is told apart', () => {
  let [steady, wall] = [100, 1_000_000];
  const watch = incidentWatch(
    () => steady,
    () => wall,
  );
  const pass = (steadily: number, byTheClock: number) => {
    steady += steadily;
    wall += byTheClock * 1000;
    watch.frame();
  };
  pass(0.0227, 0.0227);
  pass(0.9, 0.9);
  pass(0.1, 3600);
  pass(0.0227, -7200);
  pass(0.0227, 0.0227);
  expect(watch.list().map(({ code, seconds: length }) => [code, Math.round(length)])).toEqual([
    ['held-up', 1],
    ['slept', 3600],
    ['clock-set', 7200],
  ]);
});
