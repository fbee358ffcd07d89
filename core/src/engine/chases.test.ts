// What chases come to on the wire.

import { Chase } from '../light';
import { AT_REST, type LiveState } from '../live';
import { edit } from '../show';
import { testShow } from '../testing/show';
import { hold, press, player, dimmerA } from '../testing/stage';
import { beats, id, seconds } from '../units';

describe('chases', () => {
  const chase = Chase.parse({
    id: 'run',
    number: 1,
    name: 'Run',
    fadeIn: 0,
    fadeOut: 2,
    pace: 'beats',
    steps: [
      { id: '1', look: 'red', fade: 0, hold: 2 },
      { id: '2', values: [{ role: 'wash', level: hold(0.5) }], fade: 1, hold: 1, level: 0.5 },
    ],
  });
  const show = edit(testShow(), { type: 'store-chase', chase }).show;
  const play = player(show);
  const running = (at: number) => press(AT_REST, { type: 'look-on', look: chase.id, fade: seconds(0) }, at);

  test('steps follow the beat from the press on, and crossfade', () => {
    const levels = [0.2, 0.9, 1.25, 1.6, 2.1].map((at) => dimmerA(play(running(0), at)));
    expect(levels).toEqual([1, 1, 0.625, 0.25, 1].map((level) => expect.closeTo(level, 2)));
    // Pressed a little late, it still steps on the beat.
    expect(dimmerA(play(running(10.1), 11.6))).toBeCloseTo(0.25, 2);
  });

  test('an attribute snaps or fades as the chase says, or as its step does for itself', () => {
    const at = (change: object, step: object, time: number) => {
      const steps = chase.steps.map((one, i) => (i === 1 ? { ...one, ...step } : one));
      const changed = Chase.parse({ ...chase, ...change, steps });
      return dimmerA(player(edit(testShow(), { type: 'store-chase', chase: changed }).show)(running(0), time));
    };
    const jump = { snaps: { level: true } };
    const fade = { snaps: { level: false } };
    // In the middle of the fade from 1 to a quarter, at 120 a minute.
    expect(at({}, {}, 1.25)).toBeCloseTo(0.625, 2);
    expect(at(jump, {}, 1.25)).toBeCloseTo(0.25, 2);
    expect(at({}, jump, 1.25)).toBeCloseTo(0.25, 2);
    expect(at(jump, fade, 1.25)).toBeCloseTo(0.625, 2);
    // The other step is as the chase says: it comes round at once, its fade is none.
    expect(at({}, jump, 2.1)).toBeCloseTo(1, 2);
  });

  test('it lies on a lane as a look does, and counts from where its clip begins', () => {
    const clip = { id: id<'Clip'>('x'), look: chase.id, from: beats(32), to: beats(40) };
    const laid = edit(show, { type: 'lay-clip', song: id('song'), lane: id('looks'), clip }).show;
    const at = (songTime: number): LiveState => ({
      ...AT_REST,
      song: {
        id: id<'Song'>('song'),
        playing: false,
        songTime: seconds(songTime),
        at: seconds(0),
        rate: 1,
        since: seconds(0),
      },
    });
    expect(dimmerA(player(laid)(at(16.5), 0))).toBe(1);
    expect(dimmerA(player(laid)(at(17.75), 0))).toBeCloseTo(0.25, 2);
  });

  test('by hand it waits for the press', () => {
    const byHand = player(edit(testShow(), { type: 'store-chase', chase: { ...chase, pace: 'hand' } }).show);
    expect(dimmerA(byHand(running(0), 60))).toBe(1);
    const pressed = press(running(0), { type: 'step', look: chase.id, by: 1 }, 60);
    expect(dimmerA(byHand(pressed, 62))).toBeCloseTo(0.25, 2);
  });

  test('a chase without steps is dark, and a look that goes leaves its step what it said', () => {
    const empty = player(edit(testShow(), { type: 'store-chase', chase: { ...chase, steps: [] } }).show);
    expect(dimmerA(empty(running(0), 1))).toBe(0);
    const without = edit(show, { type: 'remove-look', look: id('red') }).show;
    expect(without.chases[0]!.steps[0]!.look).toBeUndefined();
    expect(dimmerA(player(without)(running(0), 0.2))).toBe(1);
  });
});
