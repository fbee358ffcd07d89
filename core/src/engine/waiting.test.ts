// Pads that wait for the next beat or bar: until it comes, nothing changes on stage.

import fc from 'fast-check';
import { AT_REST, isOn, LiveState, type Action } from '../live';
import { hold, look, player, press, withLooks } from '../testing/stage';
import { id, seconds } from '../units';

const [front, back, spot, bar] = (['front', 'back', 'spot', 'bar'] as const).map((name) => id<'Look'>(name));
const show = withLooks(
  look([{ role: 'wash', level: hold(1), colour: hold({ x: 0.64, y: 0.33 }) }], { id: 'front', number: 9 }),
  look([{ role: 'wash', level: hold(0.5), colour: hold({ x: 0.15, y: 0.06 }) }], { id: 'back', number: 10 }),
  look([{ role: 'movers', level: hold(1) }], { id: 'spot', number: 11 }),
  look([{ lamps: ['idle'], level: hold(1) }], { id: 'bar', number: 12 }),
);
const bytes = player(show);
/** As text: compared byte by byte, arrays take the tests a hundred times as long. */
const play = (live: LiveState, at: number) => String(bytes(live, at));

const pad = (which: typeof front, more: Partial<Extract<Action, { type: 'pad' }>> = {}): Action => ({
  type: 'pad',
  press: 'toggle',
  down: true,
  look: which!,
  fade: seconds(0),
  fadeOut: seconds(0),
  ...more,
});
const lengths = fc.integer({ min: 0, max: 12 }).map((n) => seconds(n / 4));
const some = fc.constantFrom(front!, back!, spot!);
const pressed = fc.record({
  after: fc.integer({ min: 0, max: 8 }).map((n) => n / 8),
  action: fc.oneof(
    fc
      .record({
        look: some,
        press: fc.constantFrom('toggle' as const, 'start' as const, 'stop' as const),
        fade: lengths,
        fadeOut: lengths,
        group: fc.subarray([front!, back!, spot!, bar!]),
        clean: fc.boolean(),
        hold: fc.option(lengths, { nil: undefined }),
        out: lengths,
      })
      .map(({ look: which, group, ...more }) => pad(which, { ...more, group: group.filter((one) => one !== which) })),
    fc.record({ type: fc.constant('all-off' as const), fade: lengths }),
    fc.record({ type: fc.constant('open-song' as const), song: fc.constant(id<'Song'>('song')), from: lengths }),
  ),
});
const before = fc
  .array(pressed, { maxLength: 6 })
  .map((presses) =>
    presses.reduce<{ live: LiveState; at: number }>(
      ({ live, at }, { after, action }) => ({ live: press(live, action, at + after), at: at + after }),
      { live: AT_REST, at: 100 },
    ),
  );
const arms = (wait: number, more: object = {}): Action => pad(bar, { wait: seconds(wait), clean: true, ...more });

const on = (live: LiveState, at: number) =>
  live.standing
    .filter((one) => isOn(one, seconds(at)))
    .map((one) => one.look)
    .sort();

test('what is armed changes nothing before its moment, whatever fades meanwhile', () => {
  fc.assert(
    fc.property(before, lengths, fc.integer({ min: 1, max: 16 }), fc.boolean(), ({ live, at }, fade, n, again) => {
      const wait = n / 4;
      const armed = press(live, arms(wait, { fade }), at);
      // Another one of the group is chosen instead before the first comes.
      const other = again
        ? press(armed, pad(bar, { wait: seconds(wait / 2), clean: true, press: 'start' }), at)
        : armed;
      for (let i = 1; i < 8; i++) {
        const moment = at + (wait * i) / 8;
        expect(play(armed, moment)).toBe(play(live, moment));
        if (i < 4) expect(play(other, moment)).toBe(play(live, moment));
      }
      // A clean look is alone once it is in.
      const late = at + wait + 20;
      expect(play(armed, late)).toBe(play(press(AT_REST, pad(bar), at), late));
    }),
    { numRuns: 300 },
  );
});

test('called off, it leaves all that was on as it was', () => {
  fc.assert(
    fc.property(before, fc.integer({ min: 1, max: 16 }), ({ live, at }, n) => {
      const off = press(press(live, arms(n / 4), at), pad(bar), at + n / 8);
      expect(on(off, at + n / 8)).toEqual(on(live, at + n / 8));
      for (const moment of [at + n / 8, at + n / 4, at + 9]) expect(play(off, moment)).toBe(play(live, moment));
    }),
    { numRuns: 300 },
  );
});

test('one of a group that is armed gives way to another; all off means all', () => {
  const group = (which: typeof front, wait?: number) =>
    pad(which, {
      group: [front!, back!, spot!].filter((one) => one !== which),
      ...(wait === undefined ? {} : { wait: seconds(wait) }),
    });
  const armed = press(press(AT_REST, group(front), 1), group(back, 2), 2);
  // What waits is kept over a restart.
  expect(LiveState.parse(JSON.parse(JSON.stringify(armed)))).toEqual(armed);
  expect(on(press(armed, group(spot), 2.5), 2.5)).toEqual(['spot']);
  // At once, not at the bar that the armed one waited for.
  const only = press(AT_REST, group(spot), 2.5);
  expect(play(press(armed, group(spot), 2.5), 3)).toBe(play(only, 3));
  const later = press(armed, group(spot, 2), 2.5);
  expect(play(later, 4.2)).toBe(play(armed, 3.9));
  expect(play(later, 4.6)).toBe(play(only, 4.6));
  const dark = press(armed, { type: 'all-off', fade: seconds(0) }, 2.5);
  expect(on(dark, 2.5)).toEqual([]);
  for (const moment of [2.6, 4, 9]) expect(play(dark, moment)).toBe(play(AT_REST, moment));
});
