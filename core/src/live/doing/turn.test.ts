// What a knob moves: it is where the value is, and moves only that.

import fc from 'fast-check';
import { unfit } from '../../conduct/fits';
import { Turns } from '../../gig';
import { testHost } from '../../testing/gear-host';
import { seconds } from '../../units';
import { turnsOffered } from './offered';
import { turnAction, turnName, turnPlace } from '.';

test('whatever is moved, it then is there, fits the show, and has a name of its own', () => {
  const { host } = testHost();
  const offered = turnsOffered(host.moment()!.show);
  expect(new Set(offered.map((turns) => turnName(host.moment()!.show, turns))).size).toBe(offered.length);
  host.act({ type: 'look-on', look: 'red' as never, fade: seconds(0) });
  host.act({ type: 'choose', roles: ['wash' as never, 'movers' as never] });
  fc.assert(
    fc.property(fc.constantFrom(...offered), fc.double({ min: 0, max: 1, noNaN: true }), (turns, to) => {
      const moment = host.moment()!;
      const action = turnAction(moment, turns, to);
      // A look that is not on has no speed.
      if (!action) return expect(turns).toMatchObject({ turn: 'speed', look: expect.not.stringMatching(/^red$/) });
      expect(unfit(moment.show, moment.live, action, moment.now)).toBeUndefined();
      host.act(action);
      expect(Math.abs(turnPlace(host.moment()!, turns)! - to)).toBeLessThan(0.01);
    }),
  );
});

test('a knob of the chosen roles moves all of them, and none where none is chosen', () => {
  const { host, state } = testHost();
  const turns = Turns.parse({ turn: 'hand', role: null, what: 'level' });
  expect(turnAction(host.moment()!, turns, 0.5)).toBeUndefined();
  expect(turnPlace(host.moment()!, turns)).toBeNull();
  host.act({ type: 'choose', roles: ['wash' as never, 'movers' as never] });
  host.act(turnAction(host.moment()!, turns, 0.5)!);
  expect(state().hands.map(({ value }) => [value.role, value.level])).toEqual([
    ['wash', { type: 'hold', value: 0.5 }],
    ['movers', { type: 'hold', value: 0.5 }],
  ]);
});

test('two knobs on one role keep what the other has in hand; nothing in hand is nowhere', () => {
  const { host, state } = testHost();
  const turns = (what: string) => Turns.parse({ turn: 'hand', role: 'wash', what });
  expect(turnPlace(host.moment()!, turns('level'))).toBeNull();
  for (const [what, to] of [
    ['level', 0.25],
    ['colour', 240 / 359],
    ['strobe', 0.2],
  ] as const)
    host.act(turnAction(host.moment()!, turns(what), to)!);
  expect(state().hands).toHaveLength(1);
  const { level, colour, strobe } = state().hands[0]!.value;
  expect([level, strobe]).toEqual([
    { type: 'hold', value: 0.25 },
    { type: 'hold', value: 3 },
  ]);
  // Blue, as sRGB has it.
  expect(colour).toMatchObject({ value: { x: expect.closeTo(0.15, 2), y: expect.closeTo(0.06, 2) } });
});
