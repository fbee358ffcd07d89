// A program made anew after an edit: only what changed is worked out, and the light is the same as if all of it were.

import fc from 'fast-check';
import { AT_REST, type Action, type LiveState } from '../live';
import { LOUDNESS_BANDS, type Envelopes } from '../music';
import { diff, edit, type Command, type Show } from '../show';
import { hold, look, on, player, press, wave, withLooks, type ValueIn } from '../testing/stage';
import { songId, testShow } from '../testing/show';
import { id, seconds } from '../units';
import { atOnce, compile, compiler, frameFor, programKeeper, ready, render, type Program } from '.';

const light = (program: Program, live: LiveState, at: number): Buffer => {
  const frame = frameFor(program);
  render(program, live, seconds(at), frame);
  return Buffer.from(frame);
};

const unit = fc.double({ min: 0, max: 1, noNaN: true });
const level = (value: number): ValueIn => ({ role: 'wash', level: hold(value) });
/** Commands that a show of two looks, a chase and a song is edited by. */
const commands: fc.Arbitrary<Command> = fc.oneof(
  fc
    .record({ which: fc.constantFrom('red', 'half-blue', 'new'), value: unit, fade: unit })
    .map(({ which, value, fade }): Command => ({
      type: 'store-look',
      look: look([level(value), { role: 'movers', level: hold(1), aim: hold({ pan: value * 90, tilt: 20 }) }], {
        id: which,
        fadeIn: fade * 4,
      }),
    })),
  fc.constantFrom('red', 'spread').map((which): Command => ({ type: 'remove-look', look: id(which) })),
  fc.record({ from: fc.integer({ min: 0, max: 20 }), length: fc.integer({ min: 1, max: 8 }) }).map(
    ({ from, length }) =>
      ({
        type: 'lay-clip',
        song: songId,
        lane: id('looks'),
        clip: { id: id(`clip-${from}`), look: id('half-blue'), from, to: from + length },
      }) as unknown as Command,
  ),
  unit.map((x): Command => ({ type: 'set-safety', safety: { on: x > 0.5, most: x > 0.7 ? 2 : 3 } }) as Command),
  fc.constant<Command>({ type: 'rename-show', name: 'Another' }),
  fc.constant<Command>({ type: 'choose-rig', rig: id('hall') } as Command),
  fc.constant<Command>({ type: 'choose-rig', rig: id('room') } as Command),
);
const states = [
  AT_REST,
  on(),
  press(
    press(AT_REST, { type: 'play', song: songId, from: seconds(0) }, 0),
    { type: 'look-on', look: id('half-blue'), fade: seconds(1) },
    0,
  ),
];

test('after any edits a program is the same light as one made from nothing, whole or in slices', () => {
  fc.assert(
    fc.property(fc.array(commands, { minLength: 1, maxLength: 8 }), fc.double({ min: 0, max: 12 }), (edits, at) => {
      const work = compiler();
      const keeper = programKeeper();
      let show = withLooks(look([level(0.4)]));
      keeper.take(show);
      atOnce(work(show));
      for (const command of edits) {
        const next = edit(show, command).show;
        keeper.edit(diff(show, next));
        // An edit that comes in the middle of the work is not forgotten.
        keeper.work(() => true);
        show = next;
        const program = atOnce(work(show));
        const fresh = compile(show);
        for (const state of states) expect(light(program, state, at)).toEqual(light(fresh, state, at));
      }
      while (keeper.work());
      expect(keeper.trouble()).toBeNull();
      for (const state of states) expect(light(keeper.program()!, state, at)).toEqual(light(compile(show), state, at));
    }),
    { seed: 13, numRuns: 25 },
  );
});

test('what did not change is not made again', () => {
  const work = compiler();
  const show = withLooks(look([level(0.4)]));
  const before = atOnce(work(show));
  const renamed = edit(show, { type: 'rename-show', name: 'Other' }).show;
  const after = atOnce(work(renamed));
  expect(after.plans).toBe(before.plans);
  for (const [name, play] of before.plays) expect(after.plays.get(name)).toBe(play);
  expect(after.songs.get('song')).toBe(before.songs.get('song'));
  const changed = atOnce(work(edit(show, { type: 'store-look', look: look([level(0.9)]) }).show));
  expect(changed.plays.get('new')).not.toBe(before.plays.get('new'));
  expect(changed.plays.get('red')).toBe(before.plays.get('red'));
  expect(changed.songs.get('song')).toBe(before.songs.get('song'));
});

test('while the next program is made the last one goes on, and one that cannot be made leaves it on and says why', () => {
  const keeper = programKeeper();
  keeper.take(withLooks(look([level(1)])));
  expect(keeper.program()).toBeUndefined();
  while (keeper.work());
  const good = keeper.program()!;
  keeper.take(withLooks(look([level(0)])));
  expect(keeper.work(() => true)).toBe(false);
  expect(keeper.program()).toBe(good);
  // Not a show at all, as no door would let it in.
  keeper.take({ ...testShow(), looks: [{ id: 'new', values: 5 }] } as unknown as Show);
  while (keeper.work());
  expect(keeper.program()).not.toBeUndefined();
  expect(keeper.trouble()).toMatch(/./);
  const last = keeper.program()!;
  expect(light(last, on(), 1).some((byte) => byte > 0)).toBe(light(good, on(), 1).some((byte) => byte > 0));
  keeper.take(withLooks(look([level(0.5)])));
  while (keeper.work());
  expect(keeper.trouble()).toBeNull();
  expect(light(keeper.program()!, on(), 1)[0]).toBe(128);
});

const INHERITED = ['constructor', 'toString', '__proto__', 'hasOwnProperty', 'valueOf'];

test('a name that every object inherits is a name like any other that no lamp has', () => {
  const follower = (name: string) => ({
    type: 'follow' as const,
    on: name,
    low: 0,
    high: 1,
    hears: { band: 'all' as const },
    attack: 0,
    release: 0,
  });
  for (const name of INHERITED) {
    const said: ValueIn[] = [
      { role: 'wash', level: hold(0.5), waves: [wave(name, {})] },
      { role: 'bars', level: hold(0.5), followers: [follower(name)] },
      { role: 'movers', level: hold(0.5), more: Object.fromEntries([[name, hold(0.5)]]) },
    ];
    const plain = said.map(({ role, level }) => ({ role, level })) as ValueIn[];
    expect(player(withLooks(look(said)))(on(), 1)).toEqual(player(withLooks(look(plain)))(on(), 1));
    const hands = (values: ValueIn[]) => press(AT_REST, { type: 'hand', values: look(values).values } as Action, 0);
    expect(player(testShow())(hands(said), 1)).toEqual(player(testShow())(hands(plain), 1));
  }
});

test('a lamp whose attributes go by such names takes nothing from looks that do not set them', () => {
  const show = JSON.parse(JSON.stringify(withLooks(look([level(0.5)])))) as Show;
  const channels = show.profiles[0]!.modes[0]!.channels as { attribute: string }[];
  INHERITED.slice(0, 4).forEach((name, i) => (channels[i + 1]!.attribute = name));
  const bytes = player(show)(on(), 1);
  expect([...bytes.subarray(0, 5)]).toEqual([128, 0, 0, 0, 0]);
});

/** Ten seconds of a song that grows louder. */
const growing: Envelopes = (() => {
  const frames = 1000;
  const none = { times: new Float64Array(), strengths: new Float64Array() };
  const levels = Uint8Array.from({ length: frames * LOUDNESS_BANDS }, (_, i) => (i / LOUDNESS_BANDS / frames) * 255);
  return { frames, levels, strokes: { kick: none, snare: none, hat: none } };
})();

test('a follower in hand is heard in its first frame as in all others, made ready beforehand or not', () => {
  const hash = 'cd'.repeat(32);
  const show = JSON.parse(JSON.stringify(testShow()));
  show.songs[0].music = { hash, name: 'a.ogg', type: 'ogg', bytes: 5 };
  const followers = [
    {
      type: 'follow' as const,
      on: 'level',
      low: 0,
      high: 1,
      hears: { band: 'all' as const },
      attack: 0.3,
      release: 0.2,
    },
  ];
  const playing = press(AT_REST, { type: 'play', song: songId, from: seconds(0) }, 0);
  const values = look([{ role: 'wash', followers }]).values;
  const state = press(playing, { type: 'hand', values } as Action, 0);
  const sounds = new Map([[hash, growing]]);
  const program = compile(show, undefined, sounds);
  const first = light(program, state, 6);
  expect(light(program, state, 6)).toEqual(first);
  const prepared = compile(show, undefined, sounds);
  ready(prepared, state);
  expect(light(prepared, state, 6)).toEqual(first);
  expect(first[0]).toBeGreaterThan(0);
});
