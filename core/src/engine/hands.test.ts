// Hands over everything, and masters.

import { AT_REST } from '../live';
import { testShow } from '../testing/show';
import { hold, press, player, dimmerA, brightB } from '../testing/stage';
import { id, seconds } from '../units';
import { compile, explain } from '.';

describe('hands and masters', () => {
  const play = player(testShow());
  const red = press(AT_REST, { type: 'look-on', look: id('red'), fade: seconds(0) }, 0);
  const taken = press(red, { type: 'hand', values: [{ role: id('wash'), level: hold(0.1) }] }, 1);

  test('a hand replaces, downwards too, and gives back with a fade', () => {
    expect(dimmerA(play(taken, 2))).toBeCloseTo(0.1, 2);
    const off = press(taken, { type: 'release', fade: seconds(2) }, 4);
    expect(dimmerA(play(off, 5))).toBeCloseTo(0.55, 2);
    expect(dimmerA(play(off, 6))).toBe(1);
  });

  test('only one role is given back when only one is asked for', () => {
    const two = press(taken, { type: 'hand', values: [{ role: id('movers'), level: hold(1) }] }, 2);
    const off = press(two, { type: 'release', role: id('wash'), fade: seconds(0) }, 3);
    expect(off.hands.filter((one) => one.on).map((one) => one.value.role)).toEqual(['movers']);
    expect(dimmerA(play(off, 4))).toBe(1);
  });

  test('a later hand on the same lamps is one movement, not two hands', () => {
    const more = press(taken, { type: 'hand', values: [{ role: id('wash'), level: hold(0.9) }] }, 2);
    expect(more.hands).toHaveLength(1);
    expect(dimmerA(play(more, 2.1))).toBeCloseTo(0.9, 2);
  });

  test('Why? names the hand as the one that wins', () => {
    const told = explain(compile(testShow()), taken, seconds(2), id('a'))!;
    expect(
      told.contributions.filter((one) => one.attribute === 'level').map(({ source, wins }) => [source, wins]),
    ).toEqual([
      ['look Red', false],
      ['by hand: Wash', true],
    ]);
  });

  test('a role master scales its role alone, and levels alone', () => {
    const half = press(red, { type: 'role-master', role: id('wash'), level: 0.5 }, 1);
    expect(dimmerA(play(half, 2))).toBeCloseTo(0.5, 2);
    const down = press(red, { type: 'role-master', role: id('wash'), level: 0 }, 1);
    expect(explain(compile(testShow()), down, seconds(2), id('a'))!.dark).toEqual(['role-master-down']);
  });

  test('a lamp exempt from blackout stays, all others go', () => {
    const show = testShow();
    const room = show.rigs[0]!;
    const fixtures = room.fixtures.map((lamp) => (lamp.id === 'a' ? { ...lamp, freeOfBlackout: true } : lamp));
    const exempt = player({ ...show, rigs: [{ ...room, fixtures }, ...show.rigs.slice(1)] });
    const black = press(red, { type: 'blackout', on: true, fade: seconds(0) }, 1);
    expect(dimmerA(exempt(black, 2))).toBe(1);
    expect(brightB(exempt(black, 2))).toBe(0);
  });
});
