import fc from 'fast-check';
import {
  Chase,
  Look,
  LookValue,
  Wave,
  chance,
  courseOf,
  figureAt,
  followsSound,
  heightAt,
  numberAt,
  pickedPlaces,
  positionAt,
  pressedTo,
  rankOf,
  scaledTo,
  WAVE_SHAPES,
  WAYS,
  type Position,
} from '.';

const count = fc.integer({ min: 1, max: 40 });
const seeds = { seed: 51, numRuns: 200 };

describe('places of a cast', () => {
  test('odd, even, halves, outer, inner and every third', () => {
    const picked = (pick: Parameters<typeof pickedPlaces>[0], of: number) => pickedPlaces(pick, of).map((at) => at + 1);
    expect(picked({ type: 'every', nth: 2, from: 0 }, 5)).toEqual([1, 3, 5]);
    expect(picked({ type: 'every', nth: 2, from: 1 }, 5)).toEqual([2, 4]);
    expect(picked({ type: 'every', nth: 3, from: 0 }, 7)).toEqual([1, 4, 7]);
    expect(picked({ type: 'half', which: 'first' }, 5)).toEqual([1, 2, 3]);
    expect(picked({ type: 'half', which: 'second' }, 5)).toEqual([4, 5]);
    expect(picked({ type: 'half', which: 'inner' }, 4)).toEqual([2, 3]);
    expect(picked({ type: 'half', which: 'outer' }, 4)).toEqual([1, 4]);
    expect(picked({ type: 'places', places: [0, 9] }, 4)).toEqual([1]);
  });

  test('a pick and its opposite are all of the cast, each lamp once', () => {
    fc.assert(
      fc.property(count, (of) => {
        for (const [one, other] of [
          ['first', 'second'],
          ['outer', 'inner'],
        ] as const) {
          const both = [one, other].flatMap((which) => pickedPlaces({ type: 'half', which }, of));
          expect([...both].sort((a, b) => a - b)).toEqual(pickedPlaces(undefined, of));
        }
      }),
      seeds,
    );
  });

  test('every run gives each place a rank below its number of steps, and across, back and random give each rank once', () => {
    fc.assert(
      fc.property(count, fc.constantFrom(...WAYS), fc.integer({ min: 0, max: 99 }), (of, way, seed) => {
        const ranks = pickedPlaces(undefined, of).map((place) => rankOf({ way, seed }, place, of));
        for (const { rank, of: steps } of ranks) {
          expect(rank).toBeGreaterThanOrEqual(0);
          expect(rank).toBeLessThan(steps);
        }
        if (way !== 'mirror' && way !== 'centre') expect(new Set(ranks.map(({ rank }) => rank)).size).toBe(of);
      }),
      seeds,
    );
  });

  test('a fan of 0 to 90 over four lamps is 0, 30, 60, 90; mirrored it is the same from both sides', () => {
    const fan = (way: (typeof WAYS)[number], groups?: number) =>
      [0, 1, 2, 3].map((place) => numberAt({ type: 'fan', from: 0, to: 90, way, groups }, place, 4));
    expect(fan('across')).toEqual([0, 30, 60, 90]);
    expect(fan('back')).toEqual([90, 60, 30, 0]);
    expect(fan('mirror')).toEqual([0, 90, 90, 0]);
    expect(fan('centre')).toEqual([90, 0, 0, 90]);
    expect(fan('across', 2)).toEqual([0, 90, 0, 90]);
  });
});

describe('waves', () => {
  const at = (shape: (typeof WAVE_SHAPES)[number], turns: number, width = 0.5) =>
    heightAt(shape, turns, width, [0, 1, 0.5, 0.5], 7, 2);

  test('shapes where one would look for them', () => {
    expect([0, 0.25, 0.5, 0.75].map((turns) => at('sine', turns))).toEqual(
      [0, 0.5, 1, 0.5].map((h) => expect.closeTo(h)),
    );
    expect([0, 0.25, 0.5, 0.75].map((turns) => at('triangle', turns))).toEqual([0, 0.5, 1, 0.5]);
    expect([0, 0.25, 0.99].map((turns) => at('up', turns))).toEqual([0, 0.25, 0.99]);
    expect([0.1, 0.29, 0.31].map((turns) => at('square', turns, 0.3))).toEqual([1, 1, 0]);
    expect([0, 0.125, 0.25, 0.5, 0.875].map((turns) => at('drawn', turns))).toEqual([0, 0.5, 1, 0.5, 0.25]);
    expect(at('random', 3.1)).toBe(at('random', 3.9));
    expect(at('random', 3.1)).not.toBe(at('random', 4.1));
  });

  test('every shape stays within 0 and 1, before the start too, and all but random come again each turn', () => {
    fc.assert(
      fc.property(fc.constantFrom(...WAVE_SHAPES), fc.double({ min: -500, max: 500, noNaN: true }), (shape, turns) => {
        const height = at(shape, turns);
        expect(height).toBeGreaterThanOrEqual(0);
        expect(height).toBeLessThanOrEqual(1);
        // Away from the edge of a square, where a rounding decides.
        if (shape !== 'random' && Math.abs((turns * 2) % 1) > 1e-6) expect(at(shape, turns + 1)).toBeCloseTo(height, 6);
      }),
      seeds,
    );
  });

  test('figures stay within their size, and a circle is round', () => {
    const out = new Float64Array(2);
    for (const shape of ['circle', 'eight', 'sweep', 'bounce', 'wander'] as const)
      for (let turns = -2; turns < 2; turns += 0.03) {
        figureAt(shape, turns, 3, 1, out, 0);
        expect(Math.max(Math.abs(out[0]!), Math.abs(out[1]!))).toBeLessThanOrEqual(0.5 + 1e-9);
        if (shape === 'circle') expect(Math.hypot(out[0]!, out[1]!)).toBeCloseTo(0.5, 9);
      }
  });

  test('chance is even enough, and the same every time', () => {
    const all = Array.from({ length: 4000 }, (_, i) => chance(5, i));
    expect(all.reduce((sum, one) => sum + one, 0) / 4000).toBeCloseTo(0.5, 1);
    expect(all.filter((one) => one < 0.1).length).toBeGreaterThan(330);
    expect(chance(5, 17)).toBe(all[17]);
  });

  test.each([
    ['a span of 0', { span: { beats: 0 } }, 'span'],
    ['a span of a billion', { span: { beats: 1e9 } }, 'span'],
    ['no attribute', { on: '' }, 'on'],
  ])('%s is refused, and it says where', (_, wrong, where) => {
    const wave = { type: 'wave', on: 'level', shape: 'sine', low: 0, high: 1, span: { beats: 4 } };
    expect(Wave.safeParse(wave).success).toBe(true);
    const read = Wave.safeParse({ ...wave, ...wrong });
    expect(read.error?.issues[0]?.path[0]).toBe(where);
  });
});

test('a value is for a role or for lamps, not for both and not for none', () => {
  expect(LookValue.safeParse({ role: 'front' }).success).toBe(true);
  expect(LookValue.safeParse({ lamps: ['a'] }).success).toBe(true);
  expect(LookValue.safeParse({}).success).toBe(false);
  expect(LookValue.safeParse({ role: 'front', lamps: ['a'] }).success).toBe(false);
  expect(Look.safeParse({ id: 'l', number: 1, name: 'L', fadeIn: -1, fadeOut: 0, values: [] }).success).toBe(false);
});

describe('chases', () => {
  const chase = (steps: readonly [fade: number, hold: number][], more: object = {}) =>
    Chase.parse({
      id: 'c',
      number: 1,
      name: 'C',
      fadeIn: 0,
      fadeOut: 0,
      pace: 'beats',
      steps: steps.map(([fade, hold], i) => ({ id: `s${i}`, fade, hold })),
      ...more,
    });
  const out: Position = { step: 0, before: 0, share: 0, ended: false };
  const where = (one: Chase, gone: number) => {
    positionAt(courseOf(one), gone, out);
    return { ...out };
  };
  const visited = (one: Chase, until: number) => Array.from({ length: until }, (_, i) => where(one, i + 0.5).step);

  test('first a step fades, then it holds; the first one of all has nothing to fade from', () => {
    const one = chase([
      [1, 1],
      [0, 2],
    ]);
    expect(where(one, 0.25)).toEqual({ step: 0, before: -1, share: 1, ended: false });
    expect(where(one, 3)).toMatchObject({ step: 1, before: -1, share: 1 });
    expect(where(one, 4.25)).toEqual({ step: 0, before: 1, share: 0.25, ended: false });
    expect(where(one, 5.5)).toMatchObject({ step: 0, share: 1 });
  });

  test('back, bounce and by chance', () => {
    const four = [
      [0, 1],
      [0, 1],
      [0, 1],
      [0, 1],
    ] as [number, number][];
    expect(visited(chase(four), 6)).toEqual([0, 1, 2, 3, 0, 1]);
    expect(visited(chase(four, { direction: 'back' }), 5)).toEqual([3, 2, 1, 0, 3]);
    expect(visited(chase(four, { direction: 'bounce' }), 8)).toEqual([0, 1, 2, 3, 2, 1, 0, 1]);
    const dealt = visited(chase(four, { direction: 'random', seed: 4 }), 400);
    for (let i = 0; i < 400; i += 4) expect([...dealt.slice(i, i + 4)].sort()).toEqual([0, 1, 2, 3]);
    expect(dealt.slice(1).filter((step, i) => step === dealt[i]).length).toBeLessThan(2);
    expect(
      new Set(dealt.map((_, i) => dealt.slice(i, i + 4).join()).filter((__, i) => i % 4 === 0)).size,
    ).toBeGreaterThan(10);
  });

  test('after its loops it has ended; without steps it never began; steps of no length do not stop it', () => {
    expect(
      where(
        chase(
          [
            [0, 1],
            [0, 1],
          ],
          { loops: 3 },
        ),
        5.9,
      ),
    ).toMatchObject({ step: 1, ended: false });
    expect(
      where(
        chase(
          [
            [0, 1],
            [0, 1],
          ],
          { loops: 3 },
        ),
        6.1,
      ),
    ).toMatchObject({ ended: true });
    expect(where(chase([]), 3)).toMatchObject({ step: -1, ended: true });
    expect(
      visited(
        chase([
          [0, 0],
          [0, 0],
        ]),
        3,
      ).every((step) => step === 0 || step === 1),
    ).toBe(true);
  });

  test('a position needs no memory: any moment asked at random is the one that playing comes to', () => {
    const times = fc.array(fc.tuple(fc.integer({ min: 0, max: 8 }), fc.integer({ min: 0, max: 8 })), {
      minLength: 1,
      maxLength: 9,
    });
    fc.assert(
      fc.property(times, fc.integer({ min: 0, max: 4000 }), (list, tick) => {
        const one = chase(list.map(([fade, hold]): [number, number] => [fade / 4, hold / 4 + 0.25]));
        // By hand: walk through the steps, adding up.
        let left = tick / 16 + 1 / 64;
        let step = 0;
        const length = (i: number) => one.steps[i % one.steps.length]!.fade + one.steps[i % one.steps.length]!.hold;
        while (left >= length(step)) left -= length(step++);
        expect(where(one, tick / 16 + 1 / 64).step).toBe(step % one.steps.length);
      }),
      seeds,
    );
  });

  test('by hand it is where presses have brought it, back as well', () => {
    const course = courseOf(
      chase(
        [
          [1, 0],
          [1, 0],
          [1, 0],
        ],
        { pace: 'hand' },
      ),
    );
    const pressed = (presses: number, since: number) => (pressedTo(course, presses, since, out), { ...out });
    expect(pressed(0, 0)).toMatchObject({ step: 0, share: 1 });
    expect(pressed(4, 0.5)).toEqual({ step: 1, before: 0, share: 0.5, ended: false });
    expect(pressed(-1, 9)).toMatchObject({ step: 2, share: 1 });
  });

  test('a total length scales all steps', () => {
    const scaled = scaledTo(
      chase([
        [1, 1],
        [0, 2],
      ]),
      8,
    );
    expect(scaled.steps.map(({ fade, hold }) => [fade, hold])).toEqual([
      [2, 2],
      [0, 4],
    ]);
    expect(courseOf(scaled).total).toBe(8);
  });
});

test('what goes by what can be heard: followers, in steps too, and chases that strokes of a drum move on', () => {
  const follow = { type: 'follow', on: 'level', low: 0, high: 1, hears: { band: 'all' }, attack: 0, release: 0 };
  const following = { role: 'wash', followers: [follow] };
  const lookOf = (value: object) =>
    Look.parse({ id: 'a', number: 1, name: 'A', fadeIn: 0, fadeOut: 0, values: [value] });
  const chaseOf = (pace: string, value: object) =>
    Chase.parse({
      id: 'c',
      number: 2,
      name: 'C',
      fadeIn: 0,
      fadeOut: 0,
      pace,
      steps: [{ id: 's', fade: 0, hold: 1, values: [value] }],
    });
  const plain = { role: 'wash', level: { type: 'hold', value: 1 } };
  expect([lookOf(following), chaseOf('beats', following), chaseOf('sound', plain)].map(followsSound)).toEqual([
    true,
    true,
    true,
  ]);
  expect([lookOf(plain), chaseOf('beats', plain)].map(followsSound)).toEqual([false, false]);
});
