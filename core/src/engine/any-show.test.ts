// What holds for any show at all.

import fc from 'fast-check';
import { Chase, Kit, LookValue } from '../light';
import { AT_REST, type Action, type LiveState } from '../live';
import { envelopesOf, LOUDNESS_BANDS } from '../music';
import { edit } from '../show';
import { CURVE_BLENDS, type Deed, type Lane } from '../song';
import { look, withLooks, hold, press, player, type ValueIn } from '../testing/stage';
import { beats, id, seconds } from '../units';
import { compile, explain, frameFor, render } from '.';

const MUSIC = 'a'.repeat(64);
/** Twenty seconds with a stroke of everything now and then. */
const SOUNDS = new Map([
  [MUSIC, envelopesOf(Uint8Array.from({ length: LOUDNESS_BANDS * 2000 }, (_, i) => ((i >> 4) % 47 < 4 ? 230 : 40)))],
]);

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
  const followers = fc.record({
    type: fc.constant('follow' as const),
    on: fc.constantFrom('level', 'hue', 'tilt', 'ColorAdd_R'),
    low: unit,
    high: fc.double({ min: -20, max: 20, noNaN: true }),
    hears: fc.oneof(
      fc.record({ drum: fc.constantFrom('kick' as const, 'snare' as const) }),
      fc.record({ measure: fc.constantFrom('loudness' as const, 'brightness' as const) }),
      fc.record({ band: fc.constantFrom('low' as const, 'all' as const) }),
    ),
    source: fc.constantFrom('song' as const, 'microphone' as const),
    attack: unit,
    release: unit,
  });
  const values = fc.record(
    {
      role: fc.constantFrom('wash', 'movers', 'bars', 'gone'),
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
      followers: fc.array(followers, { maxLength: 2 }),
    },
    { requiredKeys: ['role'] },
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
    const hits = list.map((value, i) => ({
      id: `h${i}`,
      name: `${i}`,
      low: 30 + i,
      high: 30 + i,
      level: 1,
      attack: { seconds: 0.1 },
      hold: { seconds: 0.2 },
      release: { seconds: 1 },
      spread: i % 2 ? 'next' : 'all',
    }));
    const kit = Kit.parse({ id: 'k', name: 'K', channels: [], hits });
    const show = edit(edit(withLooks(look(list as ValueIn[])), { type: 'store-chase', chase }).show, {
      type: 'store-kit',
      kit,
    }).show;
    const music = { hash: MUSIC, name: 'x.wav', type: 'wav' as const, bytes: 1 };
    const lanes: Lane[] = [
      {
        id: id('hits'),
        name: 'H',
        type: 'hits',
        kit: id('k'),
        role: id('wash'),
        level: 0.8,
        notes: list.flatMap((_, i) =>
          [2, 7, 7.1].map((at, k) => ({
            id: id<'Note'>(`${i}${k}`),
            at: beats(at * (i + 1)),
            length: beats(0.4),
            note: 30 + i,
            velocity: 0.9,
          })),
        ),
      },
      {
        id: id('tint'),
        name: 'T',
        type: 'looks',
        blend: 'add',
        level: 0.6,
        only: { roles: [id('bars'), id('wash')], families: ['level', 'colour'] },
        clips: [
          { id: id('t'), look: id('run'), from: beats(3), to: beats(30), speed: 1.5, turn: 40 },
          { id: id('t2'), look: id('new'), from: beats(30), to: beats(40), level: 0.7 },
        ],
      },
      {
        id: id('do'),
        name: 'D',
        type: 'actions',
        actions: (
          [
            [1, { act: 'start', look: id('new'), role: id('bars') }],
            [5, { act: 'master', role: id('wash'), level: 0.4, fade: 2 }],
            [9, { act: 'stop', look: null }],
            [12, { act: 'blackout', on: true, fade: 1 }],
            [14, { act: 'blackout', on: false, fade: 0 }],
          ] as [number, Deed][]
        ).map(([at, does], i) => ({ id: id<'LaneAction'>(`${i}`), at: beats(at), does })),
      },
      {
        id: id('pace'),
        name: 'P',
        type: 'curve',
        target: { on: 'speed', lane: null },
        blend: 'scale',
        points: [
          { id: id('a'), at: beats(2), value: 0.2, shape: 'smooth' },
          { id: id('b'), at: beats(18), value: 0.9, shape: 'hold' },
        ],
      },
      {
        id: id('size'),
        name: 'Z',
        type: 'curve',
        target: { on: 'size', lane: id('tint') },
        blend: 'scale',
        points: [
          { id: id('a'), at: beats(2), value: 0.9, shape: 'straight' },
          { id: id('b'), at: beats(20), value: 0.1, shape: 'off' },
        ],
      },
      {
        id: id('fader'),
        name: 'F',
        type: 'curve',
        target: { on: 'lane', lane: id('tint') },
        blend: 'scale',
        points: [
          { id: id('a'), at: beats(4), value: 0, shape: 'bent', bend: 0.7 },
          { id: id('b'), at: beats(24), value: 1, shape: 'hold' },
        ],
      },
      ...(['level', 'zoom', 'Iris'] as const).map((attribute, i): Lane => ({
        id: id(attribute),
        name: attribute,
        type: 'curve',
        target: { on: 'role', role: id('movers'), attribute },
        blend: CURVE_BLENDS[i]!,
        points: [
          { id: id('a'), at: beats(2), value: 0.9, shape: 'smooth' },
          { id: id('b'), at: beats(20 + i), value: 0.1, shape: 'straight' },
        ],
      })),
    ];
    return {
      ...show,
      songs: show.songs.map((song) => ({
        ...song,
        music,
        duration: seconds(12),
        ending:
          list.length % 2 ? { then: 'look' as const, look: id<'Look'>('new'), fade: 3 } : { then: 'hold' as const },
        lanes: [...song.lanes, ...lanes],
      })),
    };
  });
  const heard = fc.record({
    levels: fc.array(fc.nat(255), { minLength: 16, maxLength: 16 }),
    strokes: fc.record({ kick: unit, snare: unit, hat: unit }),
  });
  /** What is done with a show: looks, hands that move and listen, notes, a microphone, a song. */
  const pressed = (fade: number, inHand: readonly ValueIn[], sound: object) =>
    [
      { type: 'heard', ...sound },
      { type: 'notes', notes: [{ kit: id('k'), role: id('wash'), hit: id('h0'), note: 30, velocity: 0.8 }] },
      { type: 'hand', values: inHand.filter(({ role }) => role !== 'gone').map((value) => LookValue.parse(value)) },
      { type: 'play', song: id('song'), from: seconds(2), rate: 1 },
      { type: 'heard', ...sound },
      { type: 'jump', jump: { when: seconds(4.5), to: seconds(1), fade: seconds(fade * 3) } },
      { type: 'look-on', look: id('new'), fade: seconds(fade) },
      { type: 'look-on', look: id('run'), fade: seconds(fade) },
      { type: 'look-on', look: id('half-blue'), fade: seconds(fade * 2) },
      { type: 'hand', values: [{ role: id('movers'), aim: hold({ pan: 10, tilt: 5 }) }] },
      { type: 'speed', rate: 1.3 },
      { type: 'look-off', look: id('new'), fade: seconds(fade) },
      { type: 'freeze', on: true, fade: seconds(0) },
      { type: 'seek', to: seconds(7), fade: seconds(fade) },
      { type: 'freeze', on: false, fade: seconds(fade) },
    ] as Action[];

  test('rendered at a moment is the same as played up to it; explain agrees; every number is one', () => {
    fc.assert(
      fc.property(
        shows,
        fc.double({ min: 0, max: 3, noNaN: true }),
        fc.double({ min: 0, max: 20, noNaN: true }),
        fc.array(values, { maxLength: 3 }),
        heard,
        (show, fade, at, inHand, sound) => {
          const state = pressed(fade, inHand as ValueIn[], sound).reduce(
            (live, action, i) => press(live, action, i),
            AT_REST,
          );
          const program = compile(show, undefined, SOUNDS);
          const played = frameFor(program);
          for (let t = 0; t < at; t += 0.7) render(program, state, seconds(t), played);
          render(program, state, seconds(at), played);
          for (const field of program.fields)
            for (const value of field.values) if (!Number.isFinite(value)) throw new Error(`${field.name} is ${value}`);
          const direct = player(show, SOUNDS)(state, at);
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

  test('frozen at a moment, the bytes of that moment stay, whatever is done; let go, they are those of now', () => {
    fc.assert(
      fc.property(shows, unit, heard, fc.integer({ min: 1, max: 11 }), unit, (show, fade, sound, until, later) => {
        const all = pressed(fade, [], sound).filter(({ type }) => type !== 'freeze');
        const after = (live: LiveState, from: number) =>
          all.slice(from).reduce((now, action, i) => press(now, action, from + i + 0.5), live);
        const before = all.slice(0, until).reduce((now, action, i) => press(now, action, i + 0.5), AT_REST);
        const play = player(show, SOUNDS);
        const at = until + later / 2;
        const frozen = press(before, { type: 'freeze', on: true, fade: seconds(0) }, at);
        const moved = after(frozen, until);
        for (const then of [at, at + 0.3, 14, 90]) expect(play(moved, then)).toEqual(play(before, at));
        const free = press(moved, { type: 'freeze', on: false, fade: seconds(2) }, 20);
        expect(play(free, 22)).toEqual(play(after(before, until), 22));
      }),
      { seed: 62, numRuns: 40 },
    );
  });
});
