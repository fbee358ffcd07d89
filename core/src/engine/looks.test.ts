// What looks, waves, chases, hands and masters come to on the wire.

import fc from 'fast-check';
import type { z } from 'zod';
import type { LookValue } from '../light';
import { Chase, Look } from '../light';
import { AT_REST, reduced, type Action, type LiveState } from '../live';
import { edit, type Show } from '../show';
import { testShow } from '../testing/show';
import { beats, id, seconds } from '../units';
import { compile, explain, frameFor, render } from '.';

type ValueIn = z.input<typeof LookValue>;

const look = (values: ValueIn[], more: object = {}): Look =>
  Look.parse({ id: 'new', number: 9, name: 'New', fadeIn: 0, fadeOut: 0, values, ...more });
const withLooks = (...looks: Look[]): Show =>
  looks.reduce((show, one) => edit(show, { type: 'store-look', look: one }).show, testShow());
const hold = <T>(value: T) => ({ type: 'hold' as const, value });
const wave = (on: string, more: object): NonNullable<ValueIn['waves']>[number] => ({
  type: 'wave', on, shape: 'triangle', low: 0, high: 1, span: { beats: 4 }, ...more,
}); // prettier-ignore

/** The free clock counts 120 a minute: a beat is half a second. */
const on = (at = 0): LiveState => press(AT_REST, { type: 'look-on', look: id('new'), fade: seconds(0) }, at);
const press = (state: LiveState, action: Action, at: number): LiveState =>
  reduced(state, { seq: state.seq + 1, at: seconds(at), who: 't', action });

function player(show: Show) {
  const program = compile(show);
  const frame = frameFor(program);
  return (live: LiveState, at: number): Uint8Array => {
    render(program, live, seconds(at), frame);
    return Uint8Array.from(frame);
  };
}
/** As the test show is patched: A dims at 1; B is RGB at 10; the spot is in universe 2; the bar's cells are at 100. */
const dimmerA = (bytes: Uint8Array) => bytes[0]! / 255;
const brightB = (bytes: Uint8Array) => Math.max(bytes[9]!, bytes[10]!, bytes[11]!) / 255;
const panSpot = (bytes: Uint8Array) => ((bytes[512]! * 256 + bytes[513]!) / 65535 - 0.5) * 540;
const tiltSpot = (bytes: Uint8Array) => ((bytes[514]! * 256 + bytes[515]!) / 65535 - 0.5) * 250;

describe('waves', () => {
  test('a level wave has the period, the low and high, and the distance over the cast that it says', () => {
    const play = player(withLooks(look([{ part: 'wash', waves: [wave('level', { low: 0.2, high: 0.8, turn: 1 })] }])));
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
      withLooks(look([{ part: 'wash', waves: [wave('level', { span: { seconds: 3 }, shape: 'up' })] }])),
    );
    const fast = { ...on(), tempo: { bpm: 200, at: seconds(0), beat: beats(0) } };
    expect(dimmerA(play(fast, 4.5))).toBeCloseTo(0.5, 2);
  });

  test('adding waves goes up and down from what the look says, and never past full', () => {
    const both = [wave('level', { low: -0.2, high: 0.2, blend: 'add' }), wave('level', { high: 0.9, blend: 'add' })];
    const play = player(withLooks(look([{ part: 'wash', level: hold(0.5), waves: both }])));
    expect(dimmerA(play(on(), 0))).toBeCloseTo(0.3, 2);
    expect(dimmerA(play(on(), 1))).toBe(1);
  });

  test('a circle takes a head so many degrees to each side of its aim', () => {
    const values: ValueIn[] = [
      {
        part: 'movers',
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
    const values: ValueIn[] = ['wash', 'movers'].map((part) => ({
      part,
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
      withLooks(look([{ part: 'wash', waves: [wave('level', { shape: 'up', span: { beats: 8 } })] }])),
    );
    const before = dimmerA(play(on(), 1.45));
    const faster = press(on(), { type: 'speed', rate: 1.5, beat: beats(2.9) }, 1.45);
    expect(dimmerA(play(faster, 1.45))).toBeCloseTo(before, 2);
    expect(dimmerA(play(faster, 1.45 + 0.5))).toBeCloseTo(before + 1.5 / 8, 2);
    const own = press(on(), { type: 'speed', rate: 3, look: id('new'), beat: beats(2) }, 1);
    expect(dimmerA(play(own, 1.5)) - dimmerA(play(own, 1))).toBeCloseTo(3 / 8, 2);
  });
});

describe('any attribute', () => {
  const closed = look([{ part: 'movers', level: hold(1), more: { Shutter1: hold({ does: 'closed' as const }) } }]);

  test('a shutter held shut is shut, and Why? says that this is why the lamp is dark', () => {
    const show = withLooks(closed);
    expect(player(show)(on(), 1)[512 + 6]).toBe(5);
    const told = explain(compile(show), on(), seconds(1), id('s'))!;
    expect(told.level).toBe(1);
    expect(told.dark).toEqual(['shutter-closed']);
  });

  test('single emitters stand over the mix, and dim with the level where there is no dimmer', () => {
    const play = player(
      withLooks(
        look([{ part: 'wash', level: hold(0.5), colour: hold({ x: 0.64, y: 0.33 }), more: { ColorAdd_B: hold(1) } }]),
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
        look([{ part: 'movers', more: { Color1: hold({ does: 'slot' as const, slot: 1 }), Iris: hold(0.3) } }]),
      ),
    )(on(), 1);
    expect(bytes[512 + 7]).toBe(24);
  });

  test('what a look says about single emitters fades out with it', () => {
    const play = player(
      withLooks(
        look([{ part: 'wash', level: hold(1), colour: hold({ x: 0.64, y: 0.33 }), more: { ColorAdd_B: hold(1) } }]),
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
          { part: 'wash', pick: { type: 'every', nth: 2, from: 0 }, level: hold(1) },
          { part: 'wash', pick: { type: 'every', nth: 2, from: 1 }, level: hold(0.25) },
        ]),
      ),
    )(on(), 1);
    expect(dimmerA(bytes)).toBe(1);
    expect(brightB(bytes)).toBeCloseTo(0.25, 2);
  });

  test('a lamp that plays no part can be meant by itself; a part nobody plays here speaks to nobody', () => {
    const show = withLooks(
      look([
        { lamps: [id('idle')], level: hold(1) },
        { part: 'nobody', level: hold(1) },
      ]),
    );
    const bytes = player(show)(on(), 1);
    expect(Math.max(...bytes.subarray(512 + 199, 512 + 202))).toBe(255);
    expect(dimmerA(bytes)).toBe(0);
  });

  test('a lamp that is gone is left out, and the others go on', () => {
    const { show } = edit(withLooks(look([{ part: 'wash', level: hold(1) }])), {
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
        look([{ part: 'wash', level: hold(1), colour: hold({ x: 0.15, y: 0.06 }) }], { times: { level: { in: 8 } } }),
      ),
    );
    // Eight beats of level are four seconds.
    const state = press(AT_REST, { type: 'look-on', look: id('new'), fade: seconds(1), pulse: seconds(0.5) }, 0);
    expect([1, 2, 4].map((at) => dimmerA(play(state, at)))).toEqual(
      [0.25, 0.5, 1].map((level) => expect.closeTo(level, 2)),
    );
  });

  test('a look with a hold goes out by itself', () => {
    const play = player(withLooks(look([{ part: 'wash', level: hold(1) }])));
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
    const play = player(withLooks(look([{ part: 'wash', level: hold(1) }])));
    const slow = press(AT_REST, { type: 'fade-times', factor: 4 }, 0);
    const state = press(slow, { type: 'look-on', look: id('new'), fade: seconds(1) }, 0);
    expect(dimmerA(play(state, 1))).toBeCloseTo(0.25, 2);
  });
});

describe('chases', () => {
  const chase = Chase.parse({
    id: 'run', number: 1, name: 'Run', fadeIn: 0, fadeOut: 2, pace: 'beats',
    steps: [
      { id: '1', look: 'red', fade: 0, hold: 2 },
      { id: '2', values: [{ part: 'wash', level: hold(0.5) }], fade: 1, hold: 1, level: 0.5 },
    ],
  }); // prettier-ignore
  const show = edit(testShow(), { type: 'store-chase', chase }).show;
  const play = player(show);
  const running = (at: number) => press(AT_REST, { type: 'look-on', look: chase.id, fade: seconds(0) }, at);

  test('steps follow the beat from the press on, and crossfade', () => {
    const levels = [0.2, 0.9, 1.25, 1.6, 2.1].map((at) => dimmerA(play(running(0), at)));
    expect(levels).toEqual([1, 1, 0.625, 0.25, 1].map((level) => expect.closeTo(level, 2)));
    // Pressed a little late, it still steps on the beat.
    expect(dimmerA(play(running(10.1), 11.6))).toBeCloseTo(0.25, 2);
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

describe('hands and masters', () => {
  const play = player(testShow());
  const red = press(AT_REST, { type: 'look-on', look: id('red'), fade: seconds(0) }, 0);
  const taken = press(red, { type: 'hand', values: [{ part: id('wash'), level: hold(0.1) }] }, 1);

  test('a hand replaces, downwards too, and gives back with a fade', () => {
    expect(dimmerA(play(taken, 2))).toBeCloseTo(0.1, 2);
    const off = press(taken, { type: 'hands-off', fade: seconds(2) }, 4);
    expect(dimmerA(play(off, 5))).toBeCloseTo(0.55, 2);
    expect(dimmerA(play(off, 6))).toBe(1);
  });

  test('only one part is given back when only one is asked for', () => {
    const two = press(taken, { type: 'hand', values: [{ part: id('movers'), level: hold(1) }] }, 2);
    const off = press(two, { type: 'hands-off', part: id('wash'), fade: seconds(0) }, 3);
    expect(off.hands.filter((one) => one.on).map((one) => one.value.part)).toEqual(['movers']);
    expect(dimmerA(play(off, 4))).toBe(1);
  });

  test('a later hand on the same lamps is one movement, not two hands', () => {
    const more = press(taken, { type: 'hand', values: [{ part: id('wash'), level: hold(0.9) }] }, 2);
    expect(more.hands).toHaveLength(1);
    expect(dimmerA(play(more, 2.1))).toBeCloseTo(0.9, 2);
  });

  test('Why? names the hand as the one that wins', () => {
    const told = explain(compile(testShow()), taken, seconds(2), id('a'))!;
    expect(
      told.contributions.filter((one) => one.attribute === 'level').map(({ source, wins }) => [source, wins]),
    ).toEqual([
      ['look Red', false],
      ['in hand: Wash', true],
    ]);
  });

  test('a part master scales its part alone, and levels alone', () => {
    const half = press(red, { type: 'part-master', part: id('wash'), level: 0.5 }, 1);
    expect(dimmerA(play(half, 2))).toBeCloseTo(0.5, 2);
    const down = press(red, { type: 'part-master', part: id('wash'), level: 0 }, 1);
    expect(explain(compile(testShow()), down, seconds(2), id('a'))!.dark).toEqual(['part-master-down']);
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
        look: { ...look([{ part: 'movers', aim: hold({ aim: id<'Aim'>(name) }) }]), id: id(name), number: 20 + i },
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

describe('any show', () => {
  const unit = fc.double({ min: 0, max: 1, noNaN: true });
  const drives = fc.oneof(
    unit.map(hold),
    fc.record({ type: fc.constant('spread' as const), values: fc.array(unit, { minLength: 1, maxLength: 4 }) }),
    fc.record({
      type: fc.constant('fan' as const),
      from: unit,
      to: unit,
      way: fc.constantFrom('across' as const, 'mirror' as const, 'random' as const),
    }),
  );
  const waves = fc.record({
    type: fc.constant('wave' as const),
    on: fc.constantFrom('level', 'hue', 'pan', 'tilt', 'strobe', 'zoom', 'ColorAdd_R', 'Shutter1', 'nothing'),
    shape: fc.constantFrom('sine' as const, 'up' as const, 'square' as const, 'random' as const, 'drawn' as const),
    low: fc.double({ min: -400, max: 400, noNaN: true }),
    high: fc.double({ min: -400, max: 400, noNaN: true }),
    span: fc.oneof(
      fc.record({ beats: fc.double({ min: 1 / 16, max: 512, noNaN: true }) }),
      fc.record({ seconds: fc.double({ min: 0.02, max: 60, noNaN: true }) }),
    ),
    turn: fc.double({ min: 0, max: 8, noNaN: true }),
    blend: fc.constantFrom('replace' as const, 'add' as const),
  });
  const values = fc.record(
    {
      part: fc.constantFrom('wash', 'movers', 'bars', 'gone'),
      level: drives,
      colour: fc.record({ x: unit, y: fc.double({ min: 0.001, max: 1, noNaN: true }) }).map(hold),
      aim: fc
        .record({
          pan: fc.double({ min: -540, max: 540, noNaN: true }),
          tilt: fc.double({ min: -180, max: 180, noNaN: true }),
        })
        .map(hold),
      zoom: drives,
      more: fc.dictionary(fc.constantFrom('Shutter1', 'ColorAdd_G', 'Color1', 'Iris'), drives),
      waves: fc.array(waves, { maxLength: 3 }),
    },
    { requiredKeys: ['part'] },
  );
  const shows = fc.array(values, { minLength: 1, maxLength: 4 }).map((list) => {
    const chase = Chase.parse({
      id: 'run',
      number: 1,
      name: 'Run',
      fadeIn: 0,
      fadeOut: 0,
      pace: 'seconds',
      direction: 'random',
      steps: list.map((value, i) => ({ id: `${i}`, values: [value], fade: i / 3, hold: 0 })),
    });
    return edit(withLooks(look(list as ValueIn[])), { type: 'store-chase', chase }).show;
  });
  const pressed = (fade: number) =>
    [
      { type: 'look-on', look: id('new'), fade: seconds(fade) },
      { type: 'look-on', look: id('run'), fade: seconds(fade) },
      { type: 'look-on', look: id('half-blue'), fade: seconds(fade * 2) },
      { type: 'hand', values: [{ part: id('movers'), aim: hold({ pan: 10, tilt: 5 }) }] },
      { type: 'speed', rate: 1.3 },
      { type: 'look-off', look: id('new'), fade: seconds(fade) },
    ] as Action[];

  test('rendered at a moment is the same as played up to it; explain agrees; every number is one', () => {
    fc.assert(
      fc.property(
        shows,
        fc.double({ min: 0, max: 3, noNaN: true }),
        fc.double({ min: 0, max: 20, noNaN: true }),
        (show, fade, at) => {
          const state = pressed(fade).reduce((live, action, i) => press(live, action, i), AT_REST);
          const program = compile(show);
          const played = frameFor(program);
          for (let t = 0; t < at; t += 0.7) render(program, state, seconds(t), played);
          render(program, state, seconds(at), played);
          for (const field of program.fields)
            for (const value of field.values) if (!Number.isFinite(value)) throw new Error(`${field.name} is ${value}`);
          const direct = player(show)(state, at);
          expect(Buffer.from(played).equals(direct)).toBe(true);
          for (const { fixture } of program.heads) {
            const told = explain(program, state, seconds(at), fixture.id)!;
            const start = program.universes.indexOf(fixture.universe) * 512 + fixture.address - 1;
            expect(told.bytes).toEqual([...direct.subarray(start, start + told.bytes.length)]);
          }
        },
      ),
      { seed: 61, numRuns: 60 },
    );
  });
});
