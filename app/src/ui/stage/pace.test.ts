import { pace } from './pace';

/** Pictures one after the other for so many seconds, on a machine that takes `cost` ms for a sharp one. */
function painted(made: ReturnType<typeof pace>, cost: number, seconds: number, from = 0): number {
  let pictures = 0;
  for (let at = from; at < from + seconds * 1000; at += 1000 / 60) {
    if (!made.due(at)) continue;
    pictures++;
    made.took(at, at + cost * made.sharpness() ** 2);
  }
  return pictures / seconds;
}

test('a quick machine paints every frame as sharp as the screen is', () => {
  const made = pace();
  expect(painted(made, 2, 5)).toBeCloseTo(60, 0);
  expect(made.sharpness()).toBe(1);
});

test('a slow one paints less sharp, and then more often than it would have', () => {
  const made = pace();
  painted(made, 40, 10);
  expect(made.sharpness()).toBe(0.5);
  expect(painted(made, 40, 5, 20_000)).toBeGreaterThan(25);
});

test('it never takes more than a third of the time', () => {
  const made = pace();
  const each = painted(made, 400, 20);
  expect(each * 400 * 0.25).toBeLessThan(1000 / 3 + 20);
});

test('what was slow for a while is as sharp as before again, but is not tried all the time', () => {
  const made = pace();
  painted(made, 40, 5);
  painted(made, 1, 60, 5000);
  expect(made.sharpness()).toBe(1);
  let changes = 0;
  let before = made.sharpness();
  // Quick enough when coarse, too slow when sharp: at most two changes each time it is tried.
  for (let at = 70_000; at < 130_000; at += 500) {
    painted(made, 13, 0.5, at);
    if (made.sharpness() !== before) changes++;
    before = made.sharpness();
  }
  expect(changes).toBeLessThan(8);
});
