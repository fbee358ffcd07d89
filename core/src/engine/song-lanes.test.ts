// What the lanes of a song come to on the wire: hits as notes, curves, faders, filters, mute and solo.

import fc from 'fast-check';
import { Chase, Kit } from '../light';
import { AT_REST, playedAlone, type Action } from '../live';
import { edit, type Command, type Show } from '../show';
import {
  lookLanes,
  type CurveLane,
  type HitLane,
  type Lane,
  type LookLane,
  type Note,
  type Point,
  type Song,
} from '../song';
import { songId, testShow } from '../testing/show';
import { brightB, dimmerA, hold, look, player, press } from '../testing/stage';
import { beats, id, seconds } from '../units';
import { atOnce, compile, compiler, explain, frameFor, render } from '.';

const kit = Kit.parse({
  id: 'k',
  name: 'Drums',
  channels: [],
  hits: [
    {
      id: 'bang',
      name: 'Bang',
      low: 36,
      high: 36,
      level: 1,
      attack: { seconds: 0 },
      hold: { seconds: 0.1 },
      release: { beats: 0.5 },
    },
    {
      id: 'wash',
      name: 'Wash',
      low: 40,
      high: 41,
      level: 0.8,
      spread: 'next',
      choke: 1,
      attack: { seconds: 0.05 },
      hold: { seconds: 0 },
      release: { seconds: 1.5 },
    },
    {
      id: 'held',
      name: 'Held',
      low: 50,
      high: 50,
      level: 0.6,
      held: true,
      choke: 1,
      attack: { seconds: 0 },
      hold: { seconds: 0 },
      release: { seconds: 0.2 },
    },
  ],
});
const note = (at: number, more: Partial<Note> = {}): Note => ({
  id: id<'Note'>(`n${at}`),
  at: beats(at),
  length: beats(0.5),
  note: 36,
  velocity: 1,
  ...more,
});
const hits = (notes: readonly Note[], more: Partial<HitLane> = {}): HitLane => ({
  id: id('hits'),
  name: 'Drums',
  type: 'hits',
  kit: id('k'),
  role: id('wash'),
  notes: [...notes],
  ...more,
});
const points = (...list: readonly (readonly [at: number, value: number, shape?: Point['shape']])[]): Point[] =>
  list.map(([at, value, shape = 'straight'], i) => ({ id: id<'Point'>(`p${i}`), at: beats(at), value, shape }));
const curve = (list: Point[], more: Partial<CurveLane> = {}): CurveLane => ({
  id: id('curve'),
  name: 'Swell',
  type: 'curve',
  target: { on: 'role', role: id('wash'), attribute: 'level' },
  blend: 'scale',
  points: list,
  ...more,
});
/** The test show, whose song has a red wash from beat 0 to 8 without fades, and these lanes over it. */
function song(...lanes: readonly Lane[]): Show {
  const show = edit(testShow(), { type: 'store-kit', kit }).show;
  const [base] = lookLanes(show.songs[0]!);
  const clips = [
    { id: id<'Clip'>('c'), look: id<'Look'>('red'), from: beats(0), to: beats(8), fadeIn: beats(0), fadeOut: beats(0) },
  ];
  return { ...show, songs: [{ ...show.songs[0]!, lanes: [{ ...base!, clips }, ...lanes] }] };
}
const bare = (...lanes: readonly Lane[]): Show => {
  const show = song();
  return { ...show, songs: [{ ...show.songs[0]!, lanes: [...lanes] }] };
};
/** What comes at a beat of the song, which counts 120 a minute. */
const at = (show: Show, beat: number) => player(show)(playedAlone(songId), beat / 2);
const made = (show: Show, command: object) => edit(show, command as Command).show;

test('a note on a lane is the same light as the same note struck on a pad', () => {
  const strokes = fc.array(
    fc.tuple(
      fc.integer({ min: 1, max: 8 }),
      fc.constantFrom(36, 40, 41, 50),
      fc.integer({ min: 2, max: 10 }),
      fc.integer({ min: 1, max: 6 }),
    ),
    { minLength: 1, maxLength: 8 },
  );
  fc.assert(
    fc.property(strokes, fc.array(fc.integer({ min: 0, max: 400 }), { minLength: 5 }), (list, moments) => {
      let beat = 0;
      const placed = list.map(([gap, pitch, velocity, length]) =>
        note((beat += gap / 2), { note: pitch, velocity: velocity / 10, length: beats(length / 4) }),
      );
      // A pad is let go of before it is struck again.
      const notes = placed.map((one, i) => {
        const again = placed.slice(i + 1).find((other) => other.note === one.note);
        return again ? { ...one, length: beats(Math.min(one.length, again.at - one.at - 0.05)) } : one;
      });
      const presses = notes.flatMap((one) => {
        const answers = kit.hits.filter(({ low, high }) => low <= one.note && high >= one.note);
        const strike = (velocity: number, when: number): [number, Action] => [
          when / 2,
          {
            type: 'notes',
            pulse: seconds(0.5),
            notes: answers.map((hit) => ({
              kit: kit.id,
              role: id('wash'),
              hit: hit.id,
              note: one.note,
              velocity,
              ...(hit.choke ? { choke: hit.choke } : {}),
            })),
          },
        ];
        return [strike(one.velocity, one.at), strike(0, one.at + one.length)];
      });
      const inOrder = presses.sort(([a], [b]) => a - b);
      const onLane = player(bare(hits(notes)));
      const onPads = player(bare(hits([])));
      for (const moment of moments) {
        const time = moment / 40;
        const state = inOrder
          .filter(([when]) => when <= time)
          .reduce((live, [when, action]) => press(live, action, when), playedAlone(songId));
        expect([time, ...onLane(playedAlone(songId), time)]).toEqual([time, ...onPads(state, time)]);
      }
    }),
    { numRuns: 60 },
  );
});

test('a hit lane goes by its fader, and a soft note is soft; a kit that is gone is silent', () => {
  expect(dimmerA(at(bare(hits([note(1)])), 1.1))).toBe(1);
  expect(dimmerA(at(bare(hits([note(1, { velocity: 0.5 })])), 1.1))).toBeCloseTo(0.5, 2);
  expect(dimmerA(at(bare(hits([note(1)], { level: 0.25 })), 1.1))).toBeCloseTo(0.25, 2);
  expect(dimmerA(at(bare(hits([note(1)], { kit: id('gone') })), 1.1))).toBe(0);
});

test('flash safety lets three flashes a second of a lane through, however it is written', () => {
  const many = hits(Array.from({ length: 16 }, (_, i) => note(i / 4)));
  const safe = { ...bare(many), safety: { on: true, most: 3 } };
  const struck = (show: Show) => {
    const play = player(show);
    let count = 0;
    for (let i = 0; i < 16; i++) count += Number(dimmerA(play(playedAlone(songId), i / 8 + 0.01)) > 0.99);
    return count;
  };
  expect(struck(bare(many))).toBe(16);
  expect(struck(safe)).toBe(6);
});

test('muted does nothing; solo leaves only what is solo; of both, muted counts', () => {
  const drums = hits([note(1)]);
  expect(dimmerA(at(song({ ...drums, muted: true }), 9))).toBe(0);
  const [base] = lookLanes(song().songs[0]!);
  const both = (one: Partial<LookLane>, other: Partial<HitLane>) =>
    dimmerA(at(bare({ ...base!, ...one }, { ...drums, ...other }), 3));
  expect([both({}, {}), both({ muted: true }, {}), both({}, { solo: true }), both({ solo: true }, {})]).toEqual([
    1, 0, 0, 1,
  ]);
  expect(both({ solo: true, muted: true }, {})).toBe(0);
});

test("a look lane's fader: over nothing it dims; over another lane that it replaces, it gives way", () => {
  const [base] = lookLanes(song().songs[0]!);
  expect(dimmerA(at(bare({ ...base!, level: 0.5 }), 4))).toBeCloseTo(0.5, 2);
  const over = (level: number) => {
    const clips = [{ ...base!.clips[0]!, id: id<'Clip'>('o'), look: id<'Look'>('half-blue') }];
    return at(bare(base!, { ...base!, id: id('over'), blend: 'replace', level, clips }), 4);
  };
  expect([1, 0.5, 0].map((level) => dimmerA(over(level)))).toEqual(
    [0.5, 0.75, 1].map((level) => expect.closeTo(level, 1)),
  );
});

test('a lane that only lets some roles, or some families, through', () => {
  const [base] = lookLanes(song().songs[0]!);
  const clips = [{ ...base!.clips[0]!, look: id<'Look'>('half-blue') }];
  const light = (only: LookLane['only']) => at(bare({ ...base!, clips, ...(only ? { only } : {}) }), 4);
  const spot = (bytes: Uint8Array) => bytes[512 + 4]! / 255;
  expect([dimmerA(light(undefined)), spot(light(undefined))]).toEqual([expect.closeTo(0.5, 2), expect.closeTo(0.8, 2)]);
  const movers = light({ roles: [id('movers')] });
  expect([dimmerA(movers), spot(movers)]).toEqual([0, expect.closeTo(0.8, 2)]);
  const colour = at(bare(base!, { ...base!, id: id('tint'), clips, only: { families: ['colour'] } }), 4);
  // As bright as the red below, in the blue of the lane above.
  expect(dimmerA(colour)).toBe(1);
  expect(colour[3]!).toBeGreaterThan(colour[1]! * 4);
});

test('an edit of a look reaches a lane that narrows it, and a chase on it', () => {
  const [base] = lookLanes(song().songs[0]!);
  const only = { roles: [id<'Role'>('wash')] };
  const before = bare({ ...base!, only });
  const dim = look(
    [
      { role: 'wash', level: hold(0.3) },
      { role: 'movers', level: hold(1) },
    ],
    { id: 'red' },
  );
  const after = made(before, { type: 'store-look', look: dim });
  expect([dimmerA(at(before, 4)), dimmerA(at(after, 4))]).toEqual([1, expect.closeTo(0.3, 2)]);
});

describe('a curve', () => {
  const swell = points([0, 0], [4, 1], [8, 1]);
  test('scales what is below it, and lets it be where it is silent', () => {
    const show = song(curve(swell));
    expect([0, 2, 4].map((beat) => dimmerA(at(show, beat)))).toEqual([0, expect.closeTo(0.5, 2), 1]);
    // On a role: the lamps of no other role.
    expect(brightB(at(show, 2))).toBeGreaterThan(0);
    const silent = song(curve(points([0, 0], [2, 0])));
    expect(dimmerA(at(silent, 3))).toBe(1);
  });
  test('adds to it, up to full, and takes its place', () => {
    const [base] = lookLanes(song().songs[0]!);
    const half = { ...base!, level: 0.5 };
    const light = (more: Partial<CurveLane>, height: number) =>
      dimmerA(at(bare(half, curve(points([0, height], [8, height]), more)), 4));
    expect([light({ blend: 'add' }, 0.25), light({ blend: 'add' }, 0.9)]).toEqual([expect.closeTo(0.75, 2), 1]);
    expect([light({ blend: 'replace' }, 0.2), light({ blend: 'scale' }, 0.2)]).toEqual([
      expect.closeTo(0.2, 2),
      expect.closeTo(0.1, 2),
    ]);
    // It lights lamps that nothing else sets.
    const alone = bare(curve(points([0, 0.4], [8, 0.4]), { blend: 'add' }));
    expect(dimmerA(at(alone, 4))).toBeCloseTo(0.4, 2);
  });
  test('moves all levels, or the fader of a lane and of no other', () => {
    const all = song(curve(points([0, 0.5], [8, 0.5]), { target: { on: 'all' } }));
    expect(dimmerA(at(all, 4))).toBeCloseTo(0.5, 2);
    const fader = curve(points([0, 0.5], [16, 0.5]), { target: { on: 'lane', lane: id('hits') } });
    const show = song(hits([note(12)]), fader);
    expect([dimmerA(at(show, 4)), dimmerA(at(show, 12.1))]).toEqual([1, expect.closeTo(0.5, 2)]);
    // What a lane's fader does belongs to it: it goes on where the lane is solo.
    expect(dimmerA(at(song(hits([note(12)], { solo: true }), fader), 12.1))).toBeCloseTo(0.5, 2);
  });
  test('of an attribute that no lamp has, or of nobody, changes nothing', () => {
    const of = (target: CurveLane['target']) => at(song(curve(swell, { target })), 2);
    for (const attribute of ['Iris9', 'constructor', '__proto__'])
      expect(of({ on: 'role', role: id('wash'), attribute })).toEqual(at(song(), 2));
    expect(of({ on: 'role', role: id('gone'), attribute: 'level' })).toEqual(at(song(), 2));
    expect(of({ on: 'lane', lane: id('gone') })).toEqual(at(song(), 2));
  });
  test('is named where one asks why', () => {
    const show = song(curve(swell));
    const told = explain(compile(show), playedAlone(songId), seconds(1), id('a'))!;
    expect(told.level).toBeCloseTo(0.5, 2);
    expect(told.contributions.map(({ source, wins }) => [source, wins])).toContainEqual([
      'curve Swell, scales it',
      false,
    ]);
  });
});

test('lanes are compiled anew only where they changed, or their kit did', () => {
  const show = song(hits([note(1)]), curve(points([0, 0], [4, 1])));
  const compiling = compiler();
  const lanesOf = (one: Show) => atOnce(compiling(one)).songs.get(songId)!.lanes;
  const [looks, drums, swell] = lanesOf(show);
  const faster = lanesOf(made(show, { type: 'put-points', song: songId, lane: id('curve'), points: points([2, 1]) }));
  expect(faster.map((lane, i) => lane === [looks, drums, swell][i])).toEqual([true, true, false]);
  const louder = { ...kit, hits: kit.hits.map((hit) => ({ ...hit, level: 0.1 })) };
  const [, soft] = lanesOf(made(show, { type: 'store-kit', kit: louder }));
  expect(soft).not.toBe(drums);
});

describe('the end of a song', () => {
  const lit = (ending: Song['ending']): Show => {
    const show = song();
    const [whole] = show.songs;
    const clips = [{ ...lookLanes(whole!)[0]!.clips[0]!, to: beats(120) }];
    return {
      ...show,
      songs: [{ ...whole!, ...(ending ? { ending } : {}), lanes: [{ ...lookLanes(whole!)[0]!, clips }] }],
    };
  };
  /** A look is on before the song plays; it lasts 60 s. */
  const after = (show: Show, over: number, paused?: number) => {
    const before = press(AT_REST, { type: 'look-on', look: id('half-blue'), fade: seconds(0) }, -5);
    const playing = press(before, { type: 'play', song: songId, from: seconds(0) }, 0);
    const state = paused === undefined ? playing : press(playing, { type: 'pause' }, 60 + paused);
    return player(show)(state, 60 + over);
  };

  test('without a word what stood before comes back', () => {
    expect(dimmerA(after(lit(undefined), -1))).toBe(1);
    expect(dimmerA(after(lit(undefined), 2))).toBeCloseTo(0.5, 2);
  });
  test('its last moment stays, whether it runs on or was stopped at its end, until a look is pressed', () => {
    const show = lit({ then: 'hold' });
    expect([after(show, 5), after(show, 5, 0.2)].map(dimmerA)).toEqual([1, 1]);
    expect(dimmerA(after(lit({ then: 'next' }), 1))).toBe(1);
    const held = press(press(AT_REST, { type: 'play', song: songId, from: seconds(0) }, 0), { type: 'pause' }, 60.1);
    const pressed = press(held, { type: 'look-on', look: id('half-blue'), fade: seconds(0) }, 62);
    expect(dimmerA(player(show)(pressed, 63))).toBeCloseTo(0.5, 2);
  });
  test('it goes dark in a fade, or fades to a look', () => {
    const dark = lit({ then: 'dark', fade: 4 });
    expect([1, 2, 4, 9].map((over) => dimmerA(after(dark, over)))).toEqual([
      expect.closeTo(0.75, 2),
      expect.closeTo(0.5, 2),
      0,
      0,
    ]);
    // Stopped a second after its end, it fades on.
    expect(dimmerA(after(dark, 2, 1))).toBeCloseTo(0.5, 2);
    const blue = lit({ then: 'look', look: id('half-blue'), fade: 4 });
    expect([2, 4].map((over) => dimmerA(after(blue, over)))).toEqual([expect.closeTo(0.75, 2), expect.closeTo(0.5, 2)]);
    // The movers, which the song leaves alone, come with the look.
    const spot = (bytes: Uint8Array) => bytes[512 + 4]! / 255;
    expect([2, 4].map((over) => spot(after(blue, over)))).toEqual([expect.closeTo(0.4, 2), expect.closeTo(0.8, 2)]);
  });
  test('a chase begins with its first step, on the beat, and ends where it does; flash safety slows it', () => {
    const steps = [
      { id: '1', look: 'red', fade: 0, hold: 2 },
      { id: '2', values: [{ role: 'wash', level: hold(0.25) }], fade: 0, hold: 2 },
    ];
    const ends = (change: object, safety = false): Show => {
      const chase = Chase.parse({
        id: 'run',
        number: 1,
        name: 'Run',
        fadeIn: 0,
        fadeOut: 0,
        pace: 'beats',
        steps,
        ...change,
      });
      const show = made(lit({ then: 'look', look: id('red'), fade: 0 }), { type: 'store-chase', chase });
      const safe = { ...show, safety: { on: safety, most: 3 } };
      return made(safe, {
        type: 'set-ending',
        song: songId,
        ending: { then: 'look', look: chase.id as never, fade: 0 },
      });
    };
    const levels = (show: Show, ...over: number[]) =>
      over.map((at) => Math.round(dimmerA(after(show, at)) * 100) / 100);
    expect(levels(ends({ loops: 1 }), 0.1, 0.9, 1.1, 1.9, 2.1)).toEqual([1, 1, 0.25, 0.25, 0]);
    expect(levels(ends({ loops: 1, pace: 'seconds' }), 0.1, 1.9, 2.1, 3.9, 4.1)).toEqual([1, 1, 0.25, 0.25, 0]);
    // Four flashes a second become two, in time.
    const all = (level: number) => ['wash', 'movers', 'bars'].map((role) => ({ role, level: hold(level) }));
    const quick = { steps: [1, 0].map((level) => ({ id: `${level}`, values: all(level), fade: 0, hold: 0.25 })) };
    expect(levels(ends(quick), 0.05, 0.2, 0.3, 0.45)).toEqual([1, 0, 1, 0]);
    expect(levels(ends(quick, true), 0.05, 0.2, 0.3, 0.45)).toEqual([1, 1, 0, 0]);
  });
  test('rendered at a moment is the same as played up to it; why? names what comes after', () => {
    const show = lit({ then: 'look', look: id('half-blue'), fade: 4 });
    const state = playedAlone(songId);
    const program = compile(show);
    const frame = frameFor(program);
    for (let at = 55; at < 63; at += 0.5) render(program, state, seconds(at), frame);
    expect(Buffer.from(frame).equals(player(show)(state, 62.5))).toBe(true);
    expect(explain(program, state, seconds(65), id('a'))!.contributions.map(({ source }) => source)).toContain(
      'lane after the song: Half blue',
    );
  });
  test('a look that is deleted is no ending any more', () => {
    const show = lit({ then: 'look', look: id('half-blue'), fade: 4 });
    expect(made(show, { type: 'remove-look', look: 'half-blue' }).songs[0]!.ending).toBeUndefined();
  });
});
