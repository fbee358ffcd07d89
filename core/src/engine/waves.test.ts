// What waves come to on the wire.

import {
  look,
  withLooks,
  hold,
  wave,
  press,
  on,
  player,
  dimmerA,
  brightB,
  panSpot,
  tiltSpot,
  type ValueIn,
} from '../testing/stage';
import { beats, id, seconds } from '../units';

describe('waves', () => {
  test('a level wave has the period, the low and high, and the distance over the cast that it says', () => {
    const play = player(withLooks(look([{ role: 'wash', waves: [wave('level', { low: 0.2, high: 0.8, turn: 1 })] }])));
    const levels = Array.from({ length: 81 }, (_, i) => dimmerA(play(on(), i / 20)));
    expect(Math.min(...levels)).toBeCloseTo(0.2, 2);
    expect(Math.max(...levels)).toBeCloseTo(0.8, 2);
    // Four beats are two seconds.
    levels.slice(0, 40).forEach((level, i) => expect(levels[i + 40]).toBeCloseTo(level, 2));
    // Two lamps at 100 % lie half a turn apart: B is where A was a second ago.
    expect(brightB(play(on(), 1.3))).toBeCloseTo(dimmerA(play(on(), 0.3)), 2);
  });

  test('a wave in seconds runs by the clock on the wall, whatever the tempo', () => {
    const play = player(
      withLooks(look([{ role: 'wash', waves: [wave('level', { span: { seconds: 3 }, shape: 'up' })] }])),
    );
    const fast = { ...on(), tempo: { bpm: 200, at: seconds(0), beat: beats(0) } };
    expect(dimmerA(play(fast, 4.5))).toBeCloseTo(0.5, 2);
  });

  test('adding waves goes up and down from what the look says, and never past full', () => {
    const both = [wave('level', { low: -0.2, high: 0.2, blend: 'add' }), wave('level', { high: 0.9, blend: 'add' })];
    const play = player(withLooks(look([{ role: 'wash', level: hold(0.5), waves: both }])));
    expect(dimmerA(play(on(), 0))).toBeCloseTo(0.3, 2);
    expect(dimmerA(play(on(), 1))).toBe(1);
  });

  test('a circle takes a head so many degrees to each side of its aim', () => {
    const values: ValueIn[] = [
      {
        role: 'movers',
        aim: hold({ pan: 30, tilt: 40 }),
        waves: [{ type: 'move', shape: 'circle', width: 20, height: 10, span: { beats: 2 } }],
      },
    ];
    const play = player(withLooks(look(values)));
    const path = Array.from({ length: 100 }, (_, i) => play(on(), i / 100));
    expect(Math.max(...path.map(panSpot))).toBeCloseTo(40, 1);
    expect(Math.min(...path.map(panSpot))).toBeCloseTo(20, 1);
    expect(Math.max(...path.map(tiltSpot))).toBeCloseTo(45, 1);
    expect(Math.min(...path.map(tiltSpot))).toBeCloseTo(35, 1);
  });

  test('a hue that turns goes through the colours, and a wheel takes the nearest slot on the way', () => {
    const red = { x: 0.64, y: 0.33 };
    const turn = [wave('hue', { shape: 'up', low: 0, high: 360 })];
    const values: ValueIn[] = ['wash', 'movers'].map((role) => ({
      role,
      level: hold(1),
      colour: hold(red),
      waves: turn,
    }));
    const play = player(withLooks(look(values)));
    const seen = Array.from({ length: 40 }, (_, i) => play(on(), i / 20));
    for (const at of [9, 10, 11]) expect(Math.max(...seen.map((bytes) => bytes[at]!))).toBeGreaterThan(200);
    // Red is slot 1, from 16 to 31; blue is slot 2.
    expect(new Set(seen.map((bytes) => bytes[512 + 7]))).toEqual(new Set([24, 40, 8]));
  });

  test('the master of tempo runs standing waves faster without a jump, and one look by itself', () => {
    const play = player(
      withLooks(look([{ role: 'wash', waves: [wave('level', { shape: 'up', span: { beats: 8 } })] }])),
    );
    const before = dimmerA(play(on(), 1.45));
    const faster = press(on(), { type: 'speed', rate: 1.5, beat: beats(2.9) }, 1.45);
    expect(dimmerA(play(faster, 1.45))).toBeCloseTo(before, 2);
    expect(dimmerA(play(faster, 1.45 + 0.5))).toBeCloseTo(before + 1.5 / 8, 2);
    const own = press(on(), { type: 'speed', rate: 3, look: id('new'), beat: beats(2) }, 1);
    expect(dimmerA(play(own, 1.5)) - dimmerA(play(own, 1))).toBeCloseTo(3 / 8, 2);
  });
});
