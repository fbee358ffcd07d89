// Flash safety: what counts as a flash, what is held back, and what is left alone.

import fc from 'fast-check';
import { Chase, Kit } from '../light';
import { AT_REST, type LiveState } from '../live';
import { NEWEST, edit, Show } from '../show';
import { dimmerA, hold, look, on, player, press, wave, withLooks, type ValueIn } from '../testing/stage';
import { id, seconds } from '../units';
import { compile, countFlashes, flashReport, isFaint, readLamps, lampsFor, LAMP_STRIDE, frameFor, render } from '.';

const safe = (show: Show, most = 3): Show => edit(show, { type: 'set-safety', safety: { on: true, most } }).show;
const sampled = (light: (at: number) => number, length: number) =>
  Array.from({ length: length * 100 }, (_, i) => light(i / 100));
const everyone = ['wash', 'movers', 'bars'] as const;
const all = (value: Omit<ValueIn, 'role' | 'lamps'>): ValueIn[] => everyone.map((role) => ({ role, ...value }));

/** Flashes in the worst second of the whole rig's light, as the bytes have it. */
function worstSecond(show: Show, state: LiveState, length = 12): number {
  const program = compile(show);
  const frame = frameFor(program);
  const lamps = lampsFor(program);
  const light = Array.from({ length: length * 88 }, (_, i) => {
    render(program, state, seconds(1 + i / 88), frame);
    readLamps(program, frame, lamps);
    return program.heads.reduce(
      (sum, _head, h) =>
        sum +
        program.safety.shares[h]! *
          Math.max(lamps[h * LAMP_STRIDE]!, lamps[h * LAMP_STRIDE + 1]!, lamps[h * LAMP_STRIDE + 2]!),
      0,
    );
  });
  const moments: number[] = [];
  countFlashes(light, (at) => moments.push(at / 88));
  return moments.reduce(
    (most, from) => Math.max(most, moments.filter((at) => at >= from && at < from + 0.97).length),
    0,
  );
}

describe('a flash', () => {
  test('is a pair of opposing changes of a tenth or more', () => {
    expect(countFlashes([0, 1, 0])).toBe(1);
    expect(countFlashes([0, 1])).toBe(0);
    expect(countFlashes([0.5, 0.59, 0.5, 0.59, 0.5])).toBe(0);
    expect(countFlashes([0.5, 0.6, 0.5])).toBe(1);
    expect(countFlashes(sampled((at) => 0.5 + 0.5 * Math.sin(2 * Math.PI * 4 * at), 10))).toBeGreaterThanOrEqual(39);
    // Wherever it begins: between the two as well.
    expect(countFlashes([0.06, 0, 0.12, 0, 0.12, 0])).toBe(2);
    // A slow rise in small steps is one change, however many steps it has.
    expect(countFlashes([...sampled((at) => at, 1), 0])).toBe(1);
  });

  test('trembling of less than a tenth on top of a fade is none', () => {
    expect(countFlashes(sampled((at) => at / 4 + 0.04 * Math.sin(at * 60), 4))).toBe(0);
  });
});

describe('flash safety', () => {
  const square = (beats: number, more: object = {}) =>
    withLooks(look(all({ level: hold(0), waves: [wave('level', { shape: 'square', span: { beats }, ...more })] })));

  test('slows waves that flash too often, by halves, so that they stay in time; others run as they are', () => {
    // Half a beat is a quarter of a second at 120: four flashes a second become two.
    expect(worstSecond(square(0.5), on())).toBe(4);
    expect(worstSecond(safe(square(0.5)), on())).toBe(2);
    expect(worstSecond(safe(square(0.125)), on())).toBe(2);
    expect(worstSecond(safe(square(0.5), 5), on())).toBe(4);
    expect(player(safe(square(1)))(on(), 1.3)).toEqual(player(square(1))(on(), 1.3));
  });

  test('knows that a faster clock, or a faster look, makes more flashes of the same wave', () => {
    const doubled = press(on(), { type: 'speed', rate: 2 }, 0.5);
    expect(worstSecond(square(1), doubled)).toBe(4);
    expect(worstSecond(safe(square(1)), doubled)).toBeLessThanOrEqual(3);
    const own = press(on(), { type: 'speed', rate: 4, look: id('new') }, 0.5);
    expect(worstSecond(safe(square(1)), own)).toBeLessThanOrEqual(3);
  });

  test('leaves alone what only few lamps do, and what leaves the rig as bright as it was', () => {
    const few = withLooks(
      look([
        {
          role: 'wash',
          pick: { type: 'places', places: [0] },
          level: hold(0),
          waves: [wave('level', { shape: 'square', high: 0.2, span: { beats: 0.25 } })],
        },
      ]),
    );
    expect(player(safe(few))(on(), 1.07)).toEqual(player(few)(on(), 1.07));
    // Two lamps of the same output in turn.
    const turns = { ...square(0.5, { turn: 1, groups: 2 }) };
    const bars = withLooks(
      look([
        { role: 'bars', level: hold(0), waves: [wave('level', { shape: 'square', span: { beats: 0.25 }, turn: 1 })] },
      ]),
    );
    expect(player(safe(bars))(on(), 1.07)).toEqual(player(bars)(on(), 1.07));
    expect(worstSecond(safe(turns), on())).toBeLessThanOrEqual(3);
  });

  test('holds strobes to the rate, or lets a lamp that cannot go so slowly shine', () => {
    const strobe = withLooks(look(all({ level: hold(1), strobe: hold(12) })));
    const hz = (show: Show) => {
      const program = compile(show);
      const [frame, lamps] = [frameFor(program), lampsFor(program)];
      render(program, on(), seconds(1), frame);
      readLamps(program, frame, lamps);
      return lamps[program.heads.findIndex(({ fixture }) => fixture.id === 's') * LAMP_STRIDE + 6]!;
    };
    expect(hz(strobe)).toBeCloseTo(12, 0);
    expect(hz(safe(strobe))).toBeCloseTo(3, 0);
    const quick = {
      ...strobe,
      profiles: strobe.profiles.map(
        (one) => JSON.parse(JSON.stringify(one).replace('"low":1,"high":20', '"low":5,"high":20')) as typeof one,
      ),
    };
    expect(hz(safe(quick))).toBe(0);
  });

  test('has no back door: single emitters, shutters by their ranges, chases of colours at one level', () => {
    // The green emitters by themselves, over a colour that has no green.
    const green = withLooks(
      look(
        all({
          level: hold(1),
          colour: hold({ x: 0.15, y: 0.06 }),
          waves: [wave('ColorAdd_G', { shape: 'square', span: { beats: 0.5 } })],
        }),
      ),
    );
    const emitterAt = (show: Show) => countFlashes(sampled((at) => player(show)(on(), at + 1)[2]! / 255, 2));
    expect(emitterAt(green)).toBeGreaterThanOrEqual(7);
    expect(emitterAt(safe(green))).toBeLessThanOrEqual(4);
    // A shutter told by the name of its range, or by its bare channel: 1 to 20 Hz lie between 10 and 199.
    const shutter = (setting: ReturnType<typeof hold>) =>
      withLooks(look([{ role: 'movers', level: hold(1), more: { Shutter1: setting as never } }]));
    const dmx = (show: Show) => player(show)(on(), 1)[512 + 6]!;
    expect(dmx(shutter(hold({ range: 'strobe' })))).toBe(105);
    for (const setting of [hold({ range: 'strobe' }), hold({ does: 'strobe', at: 15 }), hold(0.7)]) {
      const held = dmx(safe(shutter(setting)));
      expect(1 + ((held - 10) / 189) * 19).toBeLessThanOrEqual(3.1);
      expect(held).toBeGreaterThanOrEqual(10);
    }
    // So is a white that strobes at its upper end.
    const white = withLooks(
      look([{ role: 'bars', level: hold(1), more: { ColorAdd_W: hold({ range: 'strobe' }) as never } }]),
    );
    const ranges = [
      { from: 0, to: 189, does: 'level' },
      { from: 190, to: 250, does: 'strobe', low: 1, high: 21 },
    ];
    const profiles = white.profiles.map((one) =>
      one.id === 'bar'
        ? { ...one, modes: [{ ...one.modes[0]!, channels: [{ attribute: 'ColorAdd_W', at: [1], ranges }] }] }
        : one,
    );
    const strobing = Show.parse(JSON.parse(JSON.stringify({ ...white, profiles })));
    const at = (show: Show) => player(show)(on(), 1)[512 + 99]!;
    expect([at(strobing), at(safe(strobing))]).toEqual([220, 196]);
    // Dark blue and white in turn at one level are dark and bright.
    const steps = [
      { x: 0.15, y: 0.06 },
      { x: 0.3127, y: 0.329 },
    ].map((colour, i) => ({ id: `${i}`, values: all({ level: hold(1), colour: hold(colour) }), fade: 0, hold: 0.1 }));
    const chase = Chase.parse({ id: 'new', number: 9, name: 'New', fadeIn: 0, fadeOut: 0, pace: 'seconds', steps });
    const colours = edit(withLooks(look([], { id: 'other' })), { type: 'store-chase', chase }).show;
    const changes = (show: Show) => {
      const light = sampled((at) => Number(player(show)(on(), at + 1)[9]! > 100), 2);
      return light.slice(1).filter((one, i) => one !== light[i]).length;
    };
    expect(changes(colours)).toBeGreaterThanOrEqual(18);
    expect(changes(safe(colours))).toBeLessThanOrEqual(12);
  });

  test('slows chases by halves, in beats and in seconds, and leaves those whose steps are as bright as each other', () => {
    const chase = (pace: 'beats' | 'seconds', lows: readonly number[], hold_: number) => {
      const steps = lows.map((level, i) => ({ id: `${i}`, values: all({ level: hold(level) }), fade: 0, hold: hold_ }));
      const bare = withLooks();
      return edit(bare, {
        type: 'store-chase',
        chase: Chase.parse({ id: 'new', number: 9, name: 'New', fadeIn: 0, fadeOut: 0, pace, steps }),
      }).show;
    };
    expect(worstSecond(chase('seconds', [1, 0], 0.1), on())).toBe(5);
    expect(worstSecond(safe(chase('seconds', [1, 0], 0.1)), on())).toBeLessThanOrEqual(3);
    expect(worstSecond(safe(chase('beats', [1, 0.2, 1, 0.5], 0.2)), on())).toBeLessThanOrEqual(3);
    const even = chase('seconds', [1, 1], 0.05);
    expect(player(safe(even))(on(), 1.33)).toEqual(player(even)(on(), 1.33));
  });

  test('of notes struck in quick succession those without room between them do not flash; a chord is one flash', () => {
    const kit = {
      id: 'k',
      name: 'K',
      channels: [],
      hits: [
        {
          id: 'h',
          name: 'H',
          low: 36,
          high: 60,
          level: 1,
          attack: { seconds: 0 },
          hold: { seconds: 0.02 },
          release: { seconds: 0.02 },
        },
      ],
    };
    const show = edit(withLooks(), { type: 'store-kit', kit: Kit.parse(kit) }).show;
    const strike = (state: LiveState, at: number, note = 36) =>
      press(
        state,
        { type: 'notes', notes: everyone.map((role) => ({ kit: 'k', role, hit: 'h', note, velocity: 1 })) as never },
        at,
      );
    let state = AT_REST;
    for (let i = 0; i < 40; i++) state = strike(state, 1 + i / 10, 36 + (i % 24));
    expect(worstSecond(show, state, 5)).toBeGreaterThan(8);
    expect(worstSecond(safe(show), state, 5)).toBeLessThanOrEqual(3);
    const chord = strike(strike(AT_REST, 1, 36), 1.01, 40);
    expect(dimmerA(player(safe(show))(chord, 1.02))).toBe(1);
    // Three within a second may come as quickly as one likes; the fourth waits until the first is a second ago.
    const three = [1, 1.2, 1.4].reduce((now, at, i) => strike(now, at, 36 + i), AT_REST);
    expect(dimmerA(player(safe(show))(three, 1.41))).toBe(1);
    expect(dimmerA(player(safe(show))(strike(three, 1.6, 50), 1.61))).toBe(0);
    expect(dimmerA(player(safe(show))(strike(three, 2.01, 50), 2.02))).toBe(1);
  });

  test('hits that change too little of the light to be a flash do not take the room of others', () => {
    const show = withLooks();
    const hit = (more: object) => ({ spread: 'all' as const, ...more });
    expect(isFaint(show, id('wash'), hit({}))).toBe(false);
    const many = {
      ...show,
      rigs: show.rigs.map((rig) => ({
        ...rig,
        fixtures: [
          ...rig.fixtures,
          ...Array.from({ length: 9 }, (_, i) => ({ ...rig.fixtures[0]!, id: id<'Fixture'>(`x${i}`) })),
        ],
      })),
    };
    expect(isFaint(many, id('wash'), hit({ spread: 'next' }))).toBe(true);
    expect(isFaint(many, id('wash'), hit({}))).toBe(false);
    expect(isFaint(many, id('gone'), hit({}))).toBe(true);
    const note = { kit: id<'Kit'>('k'), role: id<'Role'>('wash'), hit: id<'Hit'>('h'), note: 36, velocity: 1 };
    let state = AT_REST;
    for (let i = 0; i < 8; i++)
      state = press(state, { type: 'notes', notes: [{ ...note, note: 40 + i, faint: true }] }, 1 + i / 20);
    state = press(state, { type: 'notes', notes: [note], most: 1 }, 1.5);
    state = press(state, { type: 'notes', notes: [{ ...note, note: 37 }], most: 1 }, 1.8);
    expect(state.sounding.map(({ crowded }) => crowded ?? false)).toEqual([...new Array<boolean>(9).fill(false), true]);
  });

  test('any wave over the rig, at any tempo, stays within three flashes a second', () => {
    const shape = fc.constantFrom('sine', 'triangle', 'up', 'down', 'square');
    fc.assert(
      fc.property(
        shape,
        fc.double({ min: 0.0625, max: 4, noNaN: true }),
        fc.double({ min: 0, max: 2, noNaN: true }),
        fc.integer({ min: 40, max: 240 }),
        (kind, beats, turn, bpm) => {
          const show = safe(
            withLooks(look(all({ level: hold(0), waves: [wave('level', { shape: kind, span: { beats }, turn })] }))),
          );
          const state = { ...on(), tempo: { ...on().tempo, bpm } };
          expect(worstSecond(show, state, 4)).toBeLessThanOrEqual(3);
        },
      ),
      { seed: 11, numRuns: 40 },
    );
  });

  test('is on in new shows, off in those that came before it', () => {
    const { safety: _, ...rest } = JSON.parse(JSON.stringify(withLooks())) as Record<string, unknown>;
    expect(rest['version']).toBe(NEWEST);
    expect(compile(safe(withLooks())).safety.most).toBe(3);
    expect(compile(withLooks()).safety.most).toBe(Infinity);
  });
});

describe('the report', () => {
  test('tells where a song and a look flash too often, as they were made and as they leave', async () => {
    const flashing = look(all({ level: hold(0), waves: [wave('level', { shape: 'square', span: { beats: 0.25 } })] }));
    const show = withLooks(flashing);
    const json = JSON.parse(JSON.stringify(safe(show)));
    json.songs[0].lanes.forEach((lane: { clips: unknown[] }) => (lane.clips = []));
    // Beats 20 to 40 are seconds 10 to 20.
    json.songs[0].lanes[0].clips = [{ id: 'c', look: 'new', from: 20, to: 40 }];
    const told = await flashReport(json as Show, new Map(), async () => 'go-on');
    const [song, alone] = told!;
    expect(song).toMatchObject({ kind: 'song', name: 'Song', made: 8, leaves: 2 });
    expect(song!.from).toBeGreaterThan(9);
    expect(song!.to).toBeLessThan(21.1);
    expect(alone).toMatchObject({ kind: 'look', id: 'new', made: 8, leaves: 2 });
    expect(told).toHaveLength(2);
  });

  test('can be stopped', async () => {
    expect(await flashReport(withLooks(), new Map(), async () => 'stop')).toBeUndefined();
  });
});
