// What looks come to on the wire: any attribute, whom they mean, and their times.

import { AT_REST } from '../live';
import { edit, Show } from '../show';
import { testShow } from '../testing/show';
import {
  look,
  withLooks,
  hold,
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
import { compile, explain, frameFor, LAMP_STRIDE, lampsFor, readLamps, render } from '.';

describe('any attribute', () => {
  const closed = look([{ role: 'movers', level: hold(1), more: { Shutter1: hold({ does: 'closed' as const }) } }]);

  test('a shutter held shut is shut, and Why? says that this is why the lamp is dark', () => {
    const show = withLooks(closed);
    expect(player(show)(on(), 1)[512 + 6]).toBe(5);
    const told = explain(compile(show), on(), seconds(1), id('s'))!;
    expect(told.level).toBe(1);
    expect(told.dark).toEqual(['shutter-closed']);
  });

  test('a shutter that closes by degrees is open at its wide end, whichever that is', () => {
    const spot = (range: { from: number; to: number; low?: number; high?: number }, home = 0) => {
      const show = withLooks(look([{ role: 'movers', level: hold(1) }]));
      const profiles = show.profiles.map((profile) => ({
        ...profile,
        modes: profile.modes.map((mode) => ({
          ...mode,
          channels: mode.channels.map((channel) =>
            channel.attribute === 'Shutter1'
              ? { ...channel, home, ranges: [{ ...range, does: 'level' as const }] }
              : channel,
          ),
        })),
      }));
      return player({ ...show, profiles })(on(), 1)[512 + 6];
    };
    expect(spot({ from: 0, to: 255 })).toBe(255);
    expect(spot({ from: 20, to: 200, low: 1, high: 0 })).toBe(20);
    // Where it rests elsewhere, somebody said that it is open there.
    expect(spot({ from: 0, to: 15 }, 0.5)).toBe(128);
  });

  test('single emitters stand over the mix, and dim with the level where there is no dimmer', () => {
    const play = player(
      withLooks(
        look([{ role: 'wash', level: hold(0.5), colour: hold({ x: 0.64, y: 0.33 }), more: { ColorAdd_B: hold(1) } }]),
      ),
    );
    const bytes = play(on(), 1);
    expect(bytes[3]).toBe(255);
    expect(bytes[11]).toBe(128);
    expect(bytes[9]).toBeGreaterThan(90);
  });

  test('a slot of the wheel by its number, and what a lamp has no channel for is left alone', () => {
    const bytes = player(
      withLooks(
        look([{ role: 'movers', more: { Color1: hold({ does: 'slot' as const, slot: 1 }), Iris: hold(0.3) } }]),
      ),
    )(on(), 1);
    expect(bytes[512 + 7]).toBe(24);
  });

  test('where a lamp mixes colour its wheel stays open, unless it is named', () => {
    const lit = (more: Partial<ValueIn>) => {
      const show = withLooks(look([{ role: 'movers', level: hold(1), ...more }]));
      const filters = ['ColorSub_C', 'ColorSub_M', 'ColorSub_Y'].map((attribute, i) => ({ attribute, at: [9 + i] }));
      const profiles = show.profiles.map((one) =>
        one.id === 'spot'
          ? { ...one, modes: one.modes.map((mode) => ({ ...mode, channels: [...mode.channels, ...filters] })) }
          : one,
      );
      const program = compile(Show.parse({ ...show, profiles }));
      const [frame, lamps] = [frameFor(program), lampsFor(program)];
      render(program, on(), seconds(1), frame);
      readLamps(program, frame, lamps);
      const head = program.heads.findIndex(({ fixture }) => fixture.id === 's');
      return {
        bytes: [...frame.subarray(512 + 7, 512 + 11)],
        light: [...lamps.subarray(head * LAMP_STRIDE, head * LAMP_STRIDE + 3)],
      };
    };
    const blue = lit({ colour: hold({ x: 0.15, y: 0.06 }) });
    expect([blue.bytes[0], blue.bytes[3]]).toEqual([8, 0]);
    expect(Math.min(blue.bytes[1]!, blue.bytes[2]!)).toBeGreaterThan(240);
    expect(blue.light[2]).toBeGreaterThan(0.9);
    // A pale one is no more than that, though the nearest slot would be blue.
    expect(lit({ colour: hold({ x: 0.22, y: 0.19 }) }).bytes[0]).toBe(8);
    const red = lit({ more: { Color1: hold({ does: 'slot' as const, slot: 1 }) } });
    expect(red.bytes).toEqual([24, 0, 0, 0]);
    expect(red.light[0]! - red.light[2]!).toBeGreaterThan(0.9);
  });

  test('what a look says about single emitters fades out with it', () => {
    const play = player(
      withLooks(
        look([{ role: 'wash', level: hold(1), colour: hold({ x: 0.64, y: 0.33 }), more: { ColorAdd_B: hold(1) } }]),
      ),
    );
    const off = press(on(), { type: 'look-off', look: id('new'), fade: seconds(2) }, 4);
    expect(play(off, 5)[3]! / 255).toBeCloseTo(0.5, 1);
  });
});

describe('who is meant', () => {
  test('odd lamps one colour and even ones another, in one look', () => {
    const bytes = player(
      withLooks(
        look([
          { role: 'wash', pick: { type: 'every', nth: 2, from: 0 }, level: hold(1) },
          { role: 'wash', pick: { type: 'every', nth: 2, from: 1 }, level: hold(0.25) },
        ]),
      ),
    )(on(), 1);
    expect(dimmerA(bytes)).toBe(1);
    expect(brightB(bytes)).toBeCloseTo(0.25, 2);
  });

  test('a lamp that plays no role can be meant by itself; a role without lamps here lights nothing', () => {
    const show = withLooks(
      look([
        { lamps: [id('idle')], level: hold(1) },
        { role: 'nobody', level: hold(1) },
      ]),
    );
    const bytes = player(show)(on(), 1);
    expect(Math.max(...bytes.subarray(512 + 199, 512 + 202))).toBe(255);
    expect(dimmerA(bytes)).toBe(0);
  });

  test('a lamp that is gone is left out, and the others go on', () => {
    const { show } = edit(withLooks(look([{ role: 'wash', level: hold(1) }])), {
      type: 'remove-lamps',
      rig: id('room'),
      fixtures: [id('a')],
    });
    expect(brightB(player(show)(on(), 1).slice(0))).toBe(1);
  });
});

describe('times', () => {
  test('a family with its own time fades by that, the others with the look', () => {
    const play = player(
      withLooks(
        look([{ role: 'wash', level: hold(1), colour: hold({ x: 0.15, y: 0.06 }) }], { times: { level: { in: 8 } } }),
      ),
    );
    // Eight beats of level are four seconds.
    const state = press(AT_REST, { type: 'look-on', look: id('new'), fade: seconds(1), pulse: seconds(0.5) }, 0);
    expect([1, 2, 4].map((at) => dimmerA(play(state, at)))).toEqual(
      [0.25, 0.5, 1].map((level) => expect.closeTo(level, 2)),
    );
  });

  test('an attribute with its own time comes before its family', () => {
    const value = { role: 'wash', level: hold(1), colour: hold({ x: 0.64, y: 0.33 }), more: { ColorAdd_B: hold(1) } };
    const times = { colour: { in: 0 }, ColorAdd_B: { in: 8 } };
    const play = player(withLooks(look([value], { times })));
    const state = press(AT_REST, { type: 'look-on', look: id('new'), fade: seconds(1), pulse: seconds(0.5) }, 0);
    expect([1, 2, 4].map((at) => play(state, at)[3]! / 255)).toEqual(
      [0.25, 0.5, 1].map((share) => expect.closeTo(share, 2)),
    );
    expect(play(state, 1)[1]).toBe(255);
  });

  test('a look with a hold goes out by itself', () => {
    const play = player(withLooks(look([{ role: 'wash', level: hold(1) }])));
    const state = press(
      AT_REST,
      { type: 'look-on', look: id('new'), fade: seconds(1), hold: seconds(2), out: seconds(2) },
      0,
    );
    expect([0.5, 2, 4, 5.1].map((at) => dimmerA(play(state, at)))).toEqual(
      [0.5, 1, 0.5, 0].map((level) => expect.closeTo(level, 2)),
    );
  });

  test('in a song, strands with their own times still crossfade without a dip', () => {
    const show = edit(testShow(), {
      type: 'store-look',
      look: { ...testShow().looks[1]!, times: { level: { in: beats(4) } } },
    }).show;
    const song = { id: id<'Song'>('song'), playing: false, at: seconds(0), rate: 1, since: seconds(0) };
    const levels = [4, 4.5, 5, 5.5, 6].map((songTime) =>
      dimmerA(player(show)({ ...AT_REST, song: { ...song, songTime: seconds(songTime) } }, 0)),
    );
    expect(levels).toEqual([1, 0.875, 0.75, 0.625, 0.5].map((level) => expect.closeTo(level, 2)));
  });

  test('the master of fade times scales what is begun from then on', () => {
    const play = player(withLooks(look([{ role: 'wash', level: hold(1) }])));
    const slow = press(AT_REST, { type: 'fade-times', factor: 4 }, 0);
    const state = press(slow, { type: 'look-on', look: id('new'), fade: seconds(1) }, 0);
    expect(dimmerA(play(state, 1))).toBeCloseTo(0.25, 2);
  });
});

test('between two aims a head points at the places between them', () => {
  const aims = [
    ['left', -3],
    ['right', 3],
  ] as const;
  const shown = aims.reduce(
    (show, [name, x]) => edit(show, { type: 'add-aim', aim: { id: id(name), name, x, y: 0, z: 1 } }).show,
    testShow(),
  );
  const show = aims.reduce(
    (one, [name], i) =>
      edit(one, {
        type: 'store-look',
        look: { ...look([{ role: 'movers', aim: hold({ aim: id<'Aim'>(name) }) }]), id: id(name), number: 20 + i },
      }).show,
    shown,
  );
  const left = press(AT_REST, { type: 'look-on', look: id('left'), fade: seconds(0) }, 0);
  const fading = press(left, { type: 'look-on', look: id('right'), fade: seconds(2) }, 0);
  // Half way the head (x 0, y 3) looks straight down the middle: pan as if the aim were at x 0.
  const bytes = player(show)(fading, 1);
  expect(Math.abs(panSpot(bytes)) % 180).toBeCloseTo(0, 0);
  // From 4 m up at y 3 down to 1 m at y 0 are 45 degrees.
  expect(Math.abs(tiltSpot(bytes))).toBeCloseTo(45, 0);
});
