// Going through banks, and what that does to the light.

import fc from 'fast-check';
import { AT_REST, type LiveState } from '../live';
import { edit } from '../show';
import { testShow } from '../testing/show';
import { dimmerA, hold, look, player, press, withLooks } from '../testing/stage';
import { id, seconds } from '../units';
import { Bank, banksOf, Pad, padAfter } from '.';

const bank = (name: string, looks: readonly string[], more: object = {}) =>
  Bank.parse({
    id: name,
    name,
    pads: looks.map((one) => ({ look: one.replace('-', ''), skip: one.startsWith('-') || undefined })),
    ...more,
  });
const after = (banks: readonly Bank[], at: string | null, way: 1 | -1, of = 0) => {
  const place = padAfter(banks, banks[of]!, at, way);
  return place && `${place.bank.name}.${place.pad.look}`;
};

describe('a bank', () => {
  test('goes on and back, and skips what is left out', () => {
    const banks = [bank('A', ['a', '-b', 'c'])];
    expect(after(banks, null, 1)).toBe('A.a');
    expect(after(banks, 'a', 1)).toBe('A.c');
    expect(after(banks, 'c', -1)).toBe('A.a');
    // One that is left out can still be pressed; from there it goes on to its neighbours.
    expect(after(banks, 'b', 1)).toBe('A.c');
    expect(after(banks, 'elsewhere', -1)).toBe('A.c');
  });

  test('ends, begins again, or goes on to the next bank, as it is set', () => {
    const two = (end: string) => [bank('A', ['a', 'b'], { end }), bank('B', ['-x', 'y', 'z'], { end })];
    expect(after(two('stop'), 'b', 1)).toBeUndefined();
    expect(after(two('wrap'), 'b', 1)).toBe('A.a');
    expect(after(two('wrap'), 'a', -1)).toBe('A.b');
    expect(after(two('next'), 'b', 1)).toBe('B.y');
    expect(after(two('next'), 'y', -1, 1)).toBe('A.b');
    expect(after(two('next'), 'z', 1, 1)).toBeUndefined();
  });

  test('never names a pad that is left out, whatever it is asked', () => {
    const pads = fc.array(fc.record({ look: fc.constantFrom('a', 'b', 'c'), skip: fc.boolean() }), { maxLength: 6 });
    const some = fc.array(fc.record({ pads, end: fc.constantFrom('stop', 'wrap', 'next') }), {
      minLength: 1,
      maxLength: 3,
    });
    fc.assert(
      fc.property(some, fc.constantFrom('a', 'b', null), fc.constantFrom(1 as const, -1 as const), (list, at, way) => {
        const banks = list.map((one, i) => Bank.parse({ id: `${i}`, name: 'B', ...one }));
        const place = padAfter(banks, banks[0]!, at, way);
        expect(place?.pad.skip ?? false).toBe(false);
      }),
      { seed: 5 },
    );
  });

  test('where nobody made one, all looks and chases stand in their numbers’ order', () => {
    const [all, ...more] = banksOf(testShow());
    expect(more).toEqual([]);
    expect(all!.pads.map((pad) => pad.look)).toEqual(['red', 'half-blue', 'spread', 'kept']);
    const own = Bank.parse({ id: 'x', name: 'Mine', pads: [Pad.parse({ look: 'red' })] });
    const show = edit(testShow(), { type: 'store-bank', bank: own }).show;
    expect(banksOf(show)).toEqual([own]);
    expect(edit(show, { type: 'remove-look', look: id('red') }).show.banks[0]!.pads).toEqual([]);
  });
});

describe('going to a look', () => {
  const show = withLooks(
    look([{ role: 'wash', level: hold(1) }]),
    look([{ role: 'wash', level: hold(1) }], { id: 'other', number: 10 }),
    look([{ role: 'wash', level: hold(0.4) }], { id: 'low', number: 11 }),
  );
  const play = player(show);
  const go = (state: LiveState, name: string, at: number, fade = 2) =>
    press(state, { type: 'go', bank: id('b'), look: id(name), fade: seconds(fade) }, at);

  test('takes the place of the one before without a dip between equals, and in a straight line between others', () => {
    const first = go(AT_REST, 'new', 0, 0);
    const second = go(first, 'other', 1);
    for (const at of [1, 1.5, 2, 2.5, 3, 4]) expect(dimmerA(play(second, at))).toBeCloseTo(1, 2);
    const down = go(first, 'low', 1);
    for (const [at, wanted] of [
      [1.5, 0.85],
      [2, 0.7],
      [2.5, 0.55],
      [3.5, 0.4],
    ] as const)
      expect(dimmerA(play(down, at))).toBeCloseTo(wanted, 2);
    expect(second.standing.filter((one) => one.on).map((one) => one.look)).toEqual(['other']);
  });

  test('pressed three times in a fade it never jumps, and ends at the last', () => {
    let state = go(AT_REST, 'new', 0, 0);
    state = go(state, 'low', 1);
    state = go(state, 'other', 1.6);
    state = go(state, 'low', 2.1);
    let before = dimmerA(play(state, 2.1));
    for (let at = 2.1; at < 5; at += 0.02) {
      const now = dimmerA(play(state, at));
      expect(Math.abs(now - before)).toBeLessThan(0.03);
      before = now;
    }
    expect(before).toBeCloseTo(0.4, 2);
  });

  test('leaves alone what was turned on by itself; going to a bank changes no light', () => {
    const beside = press(AT_REST, { type: 'look-on', look: id('kept'), fade: seconds(0) }, 0);
    const state = go(go(beside, 'new', 1, 0), 'low', 2, 0);
    expect(state.standing.filter((one) => one.on).map((one) => one.look)).toEqual(['kept', 'low']);
    const turned = press(state, { type: 'bank', bank: id('elsewhere') }, 3);
    expect(play(turned, 4)).toEqual(play(state, 4));
    expect(turned.place).toEqual({ bank: 'elsewhere', look: 'low' });
  });
});
