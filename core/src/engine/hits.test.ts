// What notes come to on the wire: who answers, how high, how long.

import fc from 'fast-check';
import type { z } from 'zod';
import { heightOfHit, Kit, strikeOf, Hit } from '../light';
import { AT_REST, MOST_SOUNDING, type LiveState, type NoteStroke } from '../live';
import { edit, type Show } from '../show';
import { testShow } from '../testing/show';
import { brightB, dimmerA, hold, player, press } from '../testing/stage';
import { id, seconds } from '../units';
import { compile, explain, frameFor, render } from '.';

type HitIn = z.input<typeof Hit>;

const hit = (more: Partial<HitIn> = {}): HitIn => ({
  id: 'h',
  name: 'Bang',
  low: 36,
  high: 36,
  level: 1,
  attack: { seconds: 0 },
  hold: { seconds: 0.1 },
  release: { seconds: 0.4 },
  ...more,
});
const withKit = (...hits: HitIn[]): Show =>
  edit(testShow(), { type: 'store-kit', kit: Kit.parse({ id: 'k', name: 'Drums', hits, channels: [] }) }).show;
const stroke = (more: object = {}): NoteStroke =>
  ({ kit: 'k', role: 'wash', hit: 'h', note: 36, velocity: 1, ...more }) as NoteStroke;
const strike = (state: LiveState, at: number, more: object = {}) =>
  press(state, { type: 'notes', notes: [stroke(more)] }, at);

describe('a hit', () => {
  test('rises with its attack, holds, and falls with its release, in seconds or in beats of the moment', () => {
    const slow = hit({ attack: { seconds: 0.2 }, hold: { seconds: 0.3 }, release: { beats: 2 } });
    const play = player(withKit(slow));
    const struck = strike(AT_REST, 1);
    // A beat is half a second: it is out at 1 + 0.2 + 0.3 + 1.
    for (const [at, wanted] of [
      [0.9, 0],
      [1.1, 0.5],
      [1.3, 1],
      [2, 0.5],
      [2.6, 0],
    ] as const)
      expect(dimmerA(play(struck, at))).toBeCloseTo(wanted, 1);
    const quick = press(AT_REST, { type: 'notes', notes: [stroke()], pulse: seconds(0.25) }, 1);
    expect(dimmerA(play(quick, 1.75))).toBeCloseTo(0.5, 1);
  });

  test('is as high as the stroke is hard, as far as it is told to be', () => {
    const at = (velocity: number, share: number) =>
      dimmerA(player(withKit(hit({ velocity: share })))(strike(AT_REST, 1, { velocity }), 1.05));
    expect(at(0.5, 1)).toBeCloseTo(0.5, 2);
    expect(at(0.5, 0)).toBeCloseTo(1, 2);
    expect(at(0.2, 0.5)).toBeCloseTo(0.6, 2);
  });

  test('is never shorter than two frames, and a halogen lamp gets the time it needs to glow', () => {
    const none = { attack: { seconds: 0 }, hold: { seconds: 0 }, release: { seconds: 0 } };
    const play = player(withKit(hit(none)));
    expect(dimmerA(play(strike(AT_REST, 1), 1.04))).toBe(1);
    expect(dimmerA(play(strike(AT_REST, 1), 1.05))).toBe(0);
    const show = withKit(hit(none));
    const dimmers = show.profiles.map((one) => (one.id === 'rgbw' ? { ...one, kind: 'dimmer' as const } : one));
    expect(dimmerA(player({ ...show, profiles: dimmers })(strike(AT_REST, 1), 1.2))).toBe(1);
  });

  test('held, it stays for as long as the note; a burst does not ask', () => {
    const lift = (state: LiveState) => strike(state, 5, { velocity: 0 });
    const held = player(withKit(hit({ held: true })));
    expect(dimmerA(held(strike(AT_REST, 1), 4.9))).toBe(1);
    expect(dimmerA(held(lift(strike(AT_REST, 1)), 5.2))).toBeCloseTo(0.5, 1);
    expect(dimmerA(held(lift(strike(AT_REST, 1)), 5.5))).toBe(0);
    expect(dimmerA(player(withKit(hit()))(strike(AT_REST, 1), 1.6))).toBe(0);
  });

  test.each([
    [
      'the whole role',
      'all',
      [
        [1, 1],
        [1, 1],
        [1, 1],
      ],
    ],
    [
      'the next lamp each time',
      'next',
      [
        [1, 0],
        [0, 1],
        [1, 0],
      ],
    ],
    [
      'one lamp for each note',
      'note',
      [
        [1, 0],
        [1, 0],
        [1, 0],
      ],
    ],
  ] as const)('answers with %s', (_, spread, wanted) => {
    const play = player(withKit(hit({ spread, high: 40 })));
    let state = AT_REST;
    wanted.forEach(([a, b], i) => {
      state = strike(state, i + 1);
      expect([dimmerA(play(state, i + 1.05)), brightB(play(state, i + 1.05))]).toEqual([a, b]);
    });
    if (spread === 'note') expect(brightB(play(strike(AT_REST, 1, { note: 37 }), 1.05))).toBe(1);
  });

  test('by chance one lamp answers, the same one on every screen', () => {
    const play = player(withKit(hit({ spread: 'chance' })));
    const again = player(withKit(hit({ spread: 'chance' })));
    let state = AT_REST;
    const lit = Array.from({ length: 24 }, (_, i) => {
      state = strike(state, i + 1);
      expect(again(state, i + 1.05)).toEqual(play(state, i + 1.05));
      return dimmerA(play(state, i + 1.05));
    });
    expect(lit.filter((one) => one === 1).length).toBeGreaterThan(4);
    expect(lit.filter((one) => one === 0).length).toBeGreaterThan(4);
  });

  test('of one choke group a new hit cuts off the old one at once', () => {
    const long = { hold: { seconds: 5 }, choke: 1 };
    const show = withKit(hit(long), hit({ id: 'other', low: 38, high: 38, level: 0, ...long }));
    const both = strike(strike(AT_REST, 1, { choke: 1 }), 2, { hit: 'other', note: 38, choke: 1 });
    expect(dimmerA(player(show)(both, 1.9))).toBe(1);
    expect(dimmerA(player(show)(both, 2.05))).toBe(0);
  });

  test('lies over looks and under hands; “in place” takes them down as well', () => {
    const look = press(AT_REST, { type: 'look-on', look: id('half-blue'), fade: seconds(0) }, 0);
    const low = { level: 0.2, hold: { seconds: 5 } };
    expect(dimmerA(player(withKit(hit(low)))(strike(look, 1), 2))).toBeCloseTo(0.5, 1);
    expect(dimmerA(player(withKit(hit({ ...low, blend: 'replace' })))(strike(look, 1), 2))).toBeCloseTo(0.2, 1);
    const inHand = press(strike(look, 1), { type: 'hand', values: [{ role: id('wash'), level: hold(0.1) }] }, 1.5);
    expect(dimmerA(player(withKit(hit({ hold: { seconds: 5 } })))(inHand, 2))).toBeCloseTo(0.1, 1);
  });

  test('colour and any attribute come with it and go with it; Why? names it', () => {
    const show = withKit(hit({ colour: { x: 0.64, y: 0.33 }, more: { ColorAdd_W: 0.5 }, hold: { seconds: 2 } }));
    const bytes = player(show)(strike(AT_REST, 1), 2);
    const [red, green, blue, white] = bytes.subarray(1, 5);
    expect([red, blue, white]).toEqual([255, 0, 128]);
    expect(green).toBeLessThan(20);
    expect([...player(show)(strike(AT_REST, 1), 9).subarray(0, 1)]).toEqual([0]);
    const told = explain(compile(show), strike(AT_REST, 1), seconds(2), id('a'))!;
    expect(told.contributions.map(({ source }) => source)).toContain('hit Bang of Drums');
  });

  test('a kit, hit or role that is gone, or that nobody plays here, is silent', () => {
    const play = player(withKit(hit()));
    for (const gone of [{ kit: 'x' }, { hit: 'x' }, { role: 'x' }])
      expect(dimmerA(play(strike(AT_REST, 1, gone), 1.05))).toBe(0);
  });
});

describe('a storm', () => {
  test('of ten thousand notes in a second leaves a bounded state, the newest notes, and light that adds up', () => {
    const hits = Array.from({ length: 100 }, (_, i) => hit({ id: `h${i}`, low: i, high: i, spread: 'next' }));
    const show = withKit(...hits);
    let state = AT_REST;
    for (let i = 0; i < 10000; i += 200) {
      const notes = Array.from({ length: 200 }, (_, k) =>
        stroke({ hit: `h${(i + k) % 100}`, note: (i + k) % 100, velocity: ((i + k) % 10) / 10 }),
      );
      state = press(state, { type: 'notes', notes }, i / 10000);
    }
    expect(state.sounding.length).toBeLessThanOrEqual(MOST_SOUNDING);
    expect(state.sounding.at(-1)!.note).toBe(99);
    expect(Object.keys(state.struck)).toHaveLength(90);
    expect(dimmerA(player(show)(state, 1.01))).toBeCloseTo(0.9, 1);
    expect(JSON.stringify(state).length).toBeLessThan(40000);
  });

  test('any strokes at all: every moment is the same as played up to it, and explained as it is rendered', () => {
    const unit = fc.double({ min: 0, max: 1, noNaN: true });
    const time = fc.oneof(
      fc.record({ beats: fc.double({ min: 0, max: 4, noNaN: true }) }),
      fc.record({ seconds: fc.double({ min: 0, max: 2, noNaN: true }) }),
    );
    const hits = fc.record({
      level: unit,
      velocity: unit,
      attack: time,
      hold: time,
      release: time,
      spread: fc.constantFrom('all' as const, 'next' as const, 'note' as const, 'chance' as const),
      curve: fc.constantFrom('straight' as const, 'smooth' as const, 'sharp' as const),
      held: fc.boolean(),
      blend: fc.constantFrom('highest' as const, 'replace' as const),
      high: fc.integer({ min: 36, max: 60 }),
    });
    const strokes = fc.array(
      fc.record({ note: fc.integer({ min: 36, max: 60 }), velocity: unit, role: fc.constantFrom('wash', 'bars') }),
      { maxLength: 20 },
    );
    fc.assert(
      fc.property(hits, strokes, fc.double({ min: 0, max: 6, noNaN: true }), (of, played, at) => {
        const show = withKit(hit(of));
        const program = compile(show);
        const frame = frameFor(program);
        let state = AT_REST;
        played.forEach((one, i) => {
          state = strike(state, i / 5, one);
          render(program, state, seconds(i / 5), frame);
        });
        render(program, state, seconds(at), frame);
        expect(player(show)(state, at)).toEqual(Uint8Array.from(frame));
        for (const { values } of program.fields) for (const value of values) expect(Number.isFinite(value)).toBe(true);
        const told = explain(program, state, seconds(at), id('a'))!;
        expect(told.bytes).toEqual([...frame.subarray(0, told.bytes.length)]);
      }),
      { seed: 7, numRuns: 80 },
    );
  });

  test('a height is always between nothing and all', () => {
    const time = fc.double({ min: 0, max: 60, noNaN: true });
    fc.assert(
      fc.property(
        time,
        time,
        time,
        fc.boolean(),
        time,
        time,
        time,
        (attack, hold_, release, held, since, lifted, choked) => {
          const told = strikeOf(
            Hit.parse(
              hit({ attack: { seconds: attack }, hold: { seconds: hold_ }, release: { seconds: release }, held }),
            ),
            0.5,
            0.045,
          );
          const height = heightOfHit(told, since, lifted, choked);
          expect(height >= 0 && height <= 1).toBe(true);
        },
      ),
      { seed: 8 },
    );
  });
});
