import fc from 'fast-check';
import { steady } from '../light/ramp';
import { AT_REST, reduced, type Action, type LiveState } from '../live';
import { edit } from '../show';
import { lookId, songId, testShow } from '../testing/show';
import { hold, look } from '../testing/stage';
import { beats, id, seconds } from '../units';
import { compile, explain, frameFor, LAMP_STRIDE, lampsFor, levelsOf, readLamps, render, ribbon } from '.';

const show = testShow();
const program = compile(show);
const frame = frameFor(program);
const fixture = (name: string) => id<'Fixture'>(name);

const standing = (...looks: string[]): LiveState => ({
  ...AT_REST,
  standing: looks.map((look) => ({ look: lookId(look), on: true, ramp: steady(1) })),
});
/** The song standing at a moment of its music. */
const songAt = (songTime: number): LiveState => ({
  ...AT_REST,
  song: { id: songId, playing: false, songTime: seconds(songTime), at: seconds(0), rate: 1, since: seconds(0) },
});
const lit = (live: LiveState, at = 0) => {
  render(program, live, seconds(at), frame);
  return frame;
};
/** Comparing text is a thousand times faster than comparing arrays byte by byte. */
const hex = (bytes: Uint8Array) => Buffer.from(bytes).toString('hex');
/** Levels as the test show is patched: A dims at 1, B's red is at 10, the spot dims at universe 2, 5 and 6. */
const dimmerA = (bytes: Uint8Array) => bytes[0]!;
const redB = (bytes: Uint8Array) => bytes[9]!;
const blueB = (bytes: Uint8Array) => bytes[11]!;
const spot = (bytes: Uint8Array) => bytes[512 + 4]! * 256 + bytes[512 + 5]!;

describe('bytes', () => {
  test('at rest all is dark, heads stand in the middle with open shutters', () => {
    const bytes = lit(AT_REST);
    expect([dimmerA(bytes), redB(bytes), spot(bytes)]).toEqual([0, 0, 0]);
    expect([bytes[512], bytes[513], bytes[514], bytes[515]]).toEqual([128, 0, 128, 0]);
    expect(bytes[512 + 6]).toBe(228);
  });

  test('a red look: the dimmer opens, and RGB without a dimmer mixes level into its emitters', () => {
    const bytes = lit(standing('red'));
    expect(dimmerA(bytes)).toBe(255);
    expect(redB(bytes)).toBeGreaterThan(180);
    expect(blueB(bytes)).toBeLessThan(20);
  });

  test('a spread deals its levels over the cells of a bar', () => {
    const bytes = lit(standing('spread'));
    expect(bytes[512 + 99]).toBe(255);
    expect(bytes[512 + 102]).toBe(64);
  });

  test('the wheel goes to the nearest slot and the head to the aim', () => {
    const bytes = lit(standing('half-blue'));
    expect(bytes[512 + 7]).toBe(40);
    expect(spot(bytes)).toBe(Math.round(0.8 * 65535));
    const lamps = lampsFor(program);
    readLamps(program, bytes, lamps);
    const head = program.heads.findIndex((one) => one.fixture.id === 's');
    // From 4 m up at y 3 down to 1.6 m at y 1: atan(2 / 2.4) towards the audience.
    expect(Math.abs(lamps[head * LAMP_STRIDE + 4]!)).toBeCloseTo(39.8, 1);
  });

  test('the other room plays the same look with its own lamps', () => {
    const hall = compile(show, id<'Rig'>('hall'));
    const bytes = frameFor(hall);
    render(hall, standing('red'), seconds(0), bytes);
    expect(bytes).toHaveLength(512);
    expect(bytes[0]).toBeGreaterThan(180);
    expect(levelsOf(hall, bytes, 2)).toBeUndefined();
  });

  test('masters and blackout scale levels and leave pan, tilt and colour alone', () => {
    const full = Uint8Array.from(lit(standing('half-blue')));
    const half = Uint8Array.from(lit({ ...standing('half-blue'), master: steady(0.5) }));
    expect(half[0]).toBe(Math.round(0.25 * 255));
    const black = Uint8Array.from(lit({ ...standing('half-blue'), blackout: { on: true, ramp: steady(1) } }));
    expect([dimmerA(black), redB(black), spot(black)]).toEqual([0, 0, 0]);
    for (const bytes of [half, black]) {
      expect(bytes.slice(512, 516)).toEqual(full.slice(512, 516));
      expect(bytes[512 + 7]).toBe(full[512 + 7]);
    }
  });
});

describe('a song at 120 bpm', () => {
  test('clips crossfade: as many beats in as the next look says, with no dip and no jump', () => {
    // Red (1) until beat 8, half blue (0.5) from there, over 2 beats = 1 s.
    const levels = [4, 4.25, 4.5, 4.75, 5].map((time) => dimmerA(lit(songAt(time))) / 255);
    expect(levels).toEqual([1, 0.875, 0.75, 0.625, 0.5].map((level) => expect.closeTo(level, 2)));
  });

  test('the first clip fades in as its own colour, not by way of white', () => {
    const bytes = lit(songAt(0.25));
    expect(dimmerA(bytes)).toBeGreaterThan(20);
    expect(dimmerA(bytes)).toBeLessThan(100);
    expect(blueB(bytes)).toBeLessThan(6);
  });

  test('the last clip fades out before its end, and an empty bar contributes nothing', () => {
    expect(dimmerA(lit(songAt(7)))).toBe(64);
    expect(dimmerA(lit(songAt(8.5)))).toBe(0);
    const over = lit({ ...songAt(9), standing: standing('kept').standing });
    expect(dimmerA(over)).toBe(51);
  });

  test('a dark clip forces what lies below to zero', () => {
    expect(dimmerA(lit({ ...songAt(13), standing: standing('kept').standing }))).toBe(0);
  });

  test('a higher lane adds what it has', () => {
    expect(lit(songAt(2.1))[512 + 99]).toBe(255);
    expect(lit(songAt(1.9))[512 + 99]).toBe(0);
  });

  test('a playing song pushes standing looks aside, but for those that are kept', () => {
    const song = { id: songId, playing: true, songTime: seconds(9), at: seconds(0), rate: 1, since: seconds(-5) };
    expect(dimmerA(lit({ ...standing('red'), song }))).toBe(0);
    expect(dimmerA(lit({ ...standing('kept'), song }))).toBe(51);
    // Past its end the looks are there again.
    expect(dimmerA(lit({ ...standing('red'), song: { ...song, songTime: seconds(61) } }))).toBe(255);
  });
});

describe('light is a pure function of program, log and time', () => {
  const times = fc.array(fc.double({ min: 0, max: 62, noNaN: true }), { minLength: 1, maxLength: 12 });
  const actions = fc.array(
    fc.record({
      gap: fc.double({ min: 0, max: 2, noNaN: true }),
      action: fc.constantFrom<Action>(
        { type: 'play', song: songId, from: seconds(3) },
        { type: 'pause' },
        { type: 'seek', to: seconds(5) },
        { type: 'look-on', look: lookId('red'), fade: seconds(1.5) },
        { type: 'look-off', look: lookId('red'), fade: seconds(1) },
        { type: 'look-on', look: lookId('half-blue'), fade: seconds(0.5) },
        { type: 'master', level: 0.4 },
        { type: 'blackout', on: true, fade: seconds(1) },
        { type: 'blackout', on: false, fade: seconds(0) },
      ),
    }),
    { maxLength: 12 },
  );
  const stateOf = (list: readonly { gap: number; action: Action }[]) => {
    let at = 0;
    return list.reduce(
      (state, { gap, action }, i) => reduced(state, { seq: i + 1, at: seconds((at += gap)), who: 't', action }),
      AT_REST,
    );
  };

  test('the same log gives the same bytes, in any order of asking and from another compile', () => {
    fc.assert(
      fc.property(actions, times, (list, moments) => {
        const state = stateOf(list);
        const forward = moments.map((at) => hex(lit(state, at)));
        const backward = [...moments]
          .reverse()
          .map((at) => hex(lit(state, at)))
          .reverse();
        expect(backward).toEqual(forward);
        const again = compile(testShow());
        const other = frameFor(again);
        render(again, stateOf(list), seconds(moments[0]!), other);
        expect(hex(other)).toBe(forward[0]);
      }),
      { seed: 31, numRuns: 80 },
    );
  });

  test('explain says the very bytes that render writes, for every lamp', () => {
    fc.assert(
      fc.property(actions, fc.double({ min: 0, max: 40, noNaN: true }), (list, at) => {
        const state = stateOf(list);
        for (const { fixture: lamp } of program.heads) {
          const told = explain(program, state, seconds(at), lamp.id)!;
          const start = program.universes.indexOf(lamp.universe) * 512 + lamp.address - 1;
          expect(told.bytes).toEqual([...lit(state, at).subarray(start, start + told.bytes.length)]);
        }
      }),
      { seed: 32, numRuns: 60 },
    );
  });
});

describe('why', () => {
  test('each contribution is named with its weight', () => {
    const told = explain(program, songAt(4.5), seconds(0), fixture('a'))!;
    const levels = told.contributions.filter((one) => one.attribute === 'level');
    expect(levels.map(({ source, weight }) => [source, weight])).toEqual([
      ['lane Looks: Red', 0.5],
      ['lane Looks: Half blue', 0.5],
    ]);
    expect(told.level).toBeCloseTo(0.75);
    expect(told.dark).toEqual([]);
  });

  test.each([
    ['idle', AT_REST, ['not-cast']],
    ['a', AT_REST, ['no-level-set']],
    ['a', { ...standing('red'), blackout: { on: true, ramp: steady(1) } }, ['blackout']],
    ['a', { ...standing('red'), master: steady(0) }, ['master-down']],
    ['a', { ...standing('red'), sending: false }, ['not-sending']],
    ['s', { ...AT_REST, blackout: { on: true, ramp: steady(1) } }, ['no-level-set', 'blackout']],
  ] as const)('%s is dark because', (lamp, live, reasons) => {
    expect(explain(program, live, seconds(0), fixture(lamp))!.dark).toEqual(reasons);
  });

  test('a lamp that is not in the rig has no answer', () => {
    expect(explain(program, AT_REST, seconds(0), fixture('nobody'))).toBeUndefined();
  });
});

test('lamps read back from bytes shine in the colour that was asked for', () => {
  const lamps = lampsFor(program);
  readLamps(program, lit(standing('red')), lamps);
  for (const head of [0, 1]) {
    expect(lamps[head * LAMP_STRIDE]).toBeGreaterThan(0.7);
    expect(lamps[head * LAMP_STRIDE + 2]).toBeLessThan(0.1);
  }
});

test('the ribbon shows a role as its lamps will be', () => {
  const pixels = ribbon(program, 'song', ['wash', 'movers'], [3, 6, 20].map(seconds));
  const pixel = (row: number, column: number) => [
    ...pixels.subarray((row * 3 + column) * 4, (row * 3 + column) * 4 + 3),
  ];
  // Three strips a role.
  for (const strip of [0, 1, 2]) {
    expect(pixel(strip, 0)[0]).toBeGreaterThan(200);
    expect(pixel(strip, 1)[2]).toBeGreaterThan(120);
    expect(pixel(3 + strip, 0)).toEqual([0, 0, 0]);
    expect(pixel(strip, 2)).toEqual([0, 0, 0]);
  }
});

test('the ribbon shows a colour that is spread over a role as that, not as its mean', () => {
  const colours = {
    type: 'spread' as const,
    values: [
      { x: 0.64, y: 0.33 },
      { x: 0.15, y: 0.06 },
    ],
  };
  const both = {
    ...edit(show, { type: 'store-look', look: look([{ role: 'wash', level: hold(1), colour: colours }]) }).show,
  };
  const lit = edit(both, {
    type: 'lay-clip',
    song: songId,
    lane: id('looks'),
    clip: { id: id('n'), look: id('new'), from: beats(0), to: beats(8) },
  }).show;
  const pixels = ribbon(compile(lit), 'song', ['wash'], [seconds(1)]);
  expect(pixels[0]).toBeGreaterThan(pixels[2]! + 60);
  expect(pixels[4 * 2 + 2]).toBeGreaterThan(pixels[4 * 2]! + 60);
});

test('a show with names that lead nowhere still compiles, and says so', () => {
  const { show: without } = edit(show, { type: 'remove-look', look: lookId('red') });
  const broken = { ...without, profiles: without.profiles.filter((profile) => profile.id !== 'rgbw') };
  const compiled = compile(broken);
  expect(compiled.notes).toEqual(['A: its type or mode is missing']);
  render(compiled, songAt(1), seconds(0), frameFor(compiled));
});
