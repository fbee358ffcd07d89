import fc from 'fast-check';
import { rampAt } from '../light/ramp';
import { lookId, songId, testShow } from '../testing/show';
import { seconds } from '../units';
import {
  AT_REST,
  clockAt,
  clockOf,
  conductor,
  FromScreen,
  readMessage,
  reduced,
  songTimeAt,
  LiveState,
  type Action,
} from '.';

const at =
  (time: number, ...actions: Action[]) =>
  (state: LiveState) =>
    actions.reduce((now, action) => reduced(now, { seq: now.seq + 1, at: seconds(time), who: 't', action }), state);
const after = (...steps: ((state: LiveState) => LiveState)[]) => steps.reduce((state, step) => step(state), AT_REST);
const red = lookId('red');
const play: Action = { type: 'play', song: songId, from: seconds(10) };

describe('transport', () => {
  test('a playing song moves with the clock, a paused one does not', () => {
    const playing = after(at(100, play));
    expect(songTimeAt(playing.song!, seconds(103))).toBe(13);
    const paused = at(104, { type: 'pause' })(playing);
    expect(songTimeAt(paused.song!, seconds(999))).toBe(14);
  });

  test('an anchor corrects where the song is, but never starts one', () => {
    const anchor: Action = { type: 'anchor', songTime: seconds(12.9), at: seconds(103), rate: 1 };
    expect(songTimeAt(after(at(100, play), at(103.1, anchor)).song!, seconds(104))).toBeCloseTo(13.9, 9);
    const still = after(at(100, { type: 'open-song', song: songId, from: seconds(3) }), at(103, anchor));
    expect(still.song).toMatchObject({ playing: false, songTime: 3 });
  });

  test('one screen sounds: named by the play, taken up with an anchor, forgotten by a play without music', () => {
    const heard = after(at(100, { ...play, sound: 'laptop' }));
    expect(heard.song?.sound).toBe('laptop');
    expect(at(101, { type: 'seek', to: seconds(40) })(heard).song?.sound).toBe('laptop');
    const silent = at(102, play)(heard);
    expect(silent.song?.sound).toBeUndefined();
    const anchor: Action = { type: 'anchor', songTime: seconds(11), at: seconds(103), rate: 1, sound: 'laptop' };
    expect(at(103, anchor)(silent).song).toMatchObject({ sound: 'laptop', songTime: 11, since: 102 });
  });

  test('a look chosen while a song is paused takes the light over', () => {
    const state = after(
      at(1, { type: 'open-song', song: songId, from: seconds(3) }),
      at(2, { type: 'look-on', look: red, fade: seconds(1) }),
    );
    // The light, and nothing else: the set stays where it is.
    expect(state.song).toMatchObject({ id: songId, songTime: 3, playing: false, unlit: 2 });
    expect(at(3, { type: 'seek', to: seconds(4) })(state).song?.unlit).toBeUndefined();
    expect(after(at(1, play), at(2, { type: 'look-on', look: red, fade: seconds(1) })).song?.playing).toBe(true);
    // A night kept by an older Hovlix says only that it is so.
    expect(LiveState.parse({ ...state, song: { ...state.song, unlit: true } }).song?.unlit).toBe(0);
    expect(LiveState.parse(state)).toEqual(state);
  });
});

describe('pads', () => {
  const other = lookId('half-blue');
  const pad = (look: typeof red, more: Partial<Extract<Action, { type: 'pad' }>> = {}): Action => ({
    type: 'pad',
    press: 'toggle',
    down: true,
    look,
    fade: seconds(0),
    fadeOut: seconds(0),
    ...more,
  });
  const on = (state: LiveState) => state.standing.filter((one) => one.on).map((one) => one.look);

  test('two screens that press a group at once leave exactly one on, whoever comes first', () => {
    const [a, b] = [pad(red, { group: [other] }), pad(other, { group: [red] })];
    expect(on(after(at(1, a, b)))).toEqual([other]);
    expect(on(after(at(1, b, a)))).toEqual([red]);
  });

  test('a pad switches, starts, stops; a clean look turns all others off', () => {
    expect(on(after(at(1, pad(red), pad(red))))).toEqual([]);
    expect(on(after(at(1, pad(red, { press: 'start' }), pad(red, { press: 'start' }))))).toEqual([red]);
    expect(on(after(at(1, pad(red), pad(red, { press: 'stop' }))))).toEqual([]);
    expect(on(after(at(1, pad(red), pad(other, { clean: true }))))).toEqual([other]);
  });

  const said = (time: number, who: string, action: Action) => (state: LiveState) =>
    reduced(state, { seq: state.seq + 1, at: seconds(time), who, action });
  const flash = (down: boolean) => pad(red, { press: 'flash', down });

  test('a pad held on two screens goes off when the last lets go; a screen that goes lets go of what it held', () => {
    const both = after(said(1, 'a', flash(true)), said(2, 'b', flash(true)));
    const one = said(3, 'a', flash(false))(both);
    expect(on(one)).toEqual([red]);
    expect(on(said(4, 'b', flash(false))(one))).toEqual([]);
    expect(on(said(4, 'host', { type: 'gone', screen: 'b' })(one))).toEqual([]);
    // Only what it held: what it switched on stays, and another's pad too.
    const latched = after(said(1, 'b', pad(other)), said(1, 'a', flash(true)));
    expect(on(said(2, 'host', { type: 'gone', screen: 'b' })(latched))).toEqual([other, red]);
  });

  test('notes, a check and a test end with their screen; channels set by hand stay', () => {
    const note = { kit: 'k', role: 'wash', hit: 'h', note: 60, velocity: 1 } as never;
    const held = (address: number, check: boolean): Action => ({
      type: 'hold-channels',
      channels: [{ universe: 1, address, value: 255 }],
      check,
    });
    const state = after(
      said(1, 'a', { type: 'notes', notes: [note] }),
      said(1, 'a', held(1, true)),
      said(1, 'a', held(2, false)),
      said(1, 'a', { type: 'walk-channels', universe: 1, from: 1, to: 4, step: seconds(1) }),
      said(1, 'a', { type: 'program', screen: 'a' }),
    );
    expect(said(2, 'host', { type: 'gone', screen: 'b' })(state)).toMatchObject({
      held: state.held,
      test: state.test,
      programs: 'a',
    });
    const gone = said(2, 'host', { type: 'gone', screen: 'a' })(state);
    expect(gone.held.map(({ address }) => address)).toEqual([2]);
    expect(gone).toMatchObject({ test: null, programs: null, sounding: [{ lifted: 2 }] });
  });

  test('another show that is put on begins dark, with masters, blackout and tempo as they were', () => {
    const state = after(
      at(1, play, pad(red)),
      at(2, { type: 'master', level: 0.4 }),
      at(2, { type: 'blackout', on: true, fade: seconds(0) }),
    );
    const next = at(3, { type: 'show-on', show: 'other' })(state);
    expect(next).toMatchObject({ song: null, standing: [], hands: [], blackout: { on: true } });
    expect(next.master).toEqual(state.master);
  });
});

describe('looks, masters, blackout', () => {
  test('a fade that is turned round goes on from where it was', () => {
    const state = after(
      at(0, { type: 'look-on', look: red, fade: seconds(4) }),
      at(1, { type: 'look-off', look: red, fade: seconds(2) }),
    );
    expect(rampAt(state.standing[0]!.ramp, seconds(1))).toBeCloseTo(0.25);
    expect(rampAt(state.standing[0]!.ramp, seconds(2))).toBeCloseTo(0.125);
    expect(rampAt(state.standing[0]!.ramp, seconds(3))).toBe(0);
  });

  test('a look that has faded out is forgotten at the next press', () => {
    const state = after(
      at(0, { type: 'look-on', look: red, fade: seconds(0) }),
      at(1, { type: 'look-off', look: red, fade: seconds(1) }),
      at(5, { type: 'look-on', look: lookId('kept'), fade: seconds(0) }),
    );
    expect(state.standing.map((one) => one.look)).toEqual(['kept']);
  });

  test('blackout is a thing apart from master and sending', () => {
    const state = after(at(1, { type: 'blackout', on: true, fade: seconds(0) }), at(2, { type: 'master', level: 0.5 }));
    expect(state.blackout.on).toBe(true);
    expect(state.sending).toBe(true);
    expect(rampAt(state.master, seconds(9))).toBe(0.5);
  });

  test('four taps half a second apart set the free clock to 120', () => {
    const state = after(...[0, 0.5, 1, 1.5].map((time) => at(time, { type: 'tap' })));
    expect(state.tempo).toMatchObject({ bpm: expect.closeTo(120), at: expect.closeTo(1.5) });
    const late = after(...[0, 0.5, 1, 1.5].map((time, i) => at(time + i / 16, { type: 'tap', late: i / 16 })));
    expect(late.tempo).toEqual(state.tempo);
  });
});

describe('conductor', () => {
  const actions = fc.array(
    fc.constantFrom<Action>(
      play,
      { type: 'pause' },
      { type: 'look-on', look: red, fade: seconds(1) },
      { type: 'look-off', look: red, fade: seconds(1) },
      { type: 'tap' },
      { type: 'master', level: 0.3 },
    ),
    { maxLength: 40 },
  );

  test('whoever replays the log, whole or from a snapshot on, has the same state', () => {
    fc.assert(
      fc.property(actions, fc.nat(40), (list, cut) => {
        let time = 0;
        const boss = conductor(() => seconds((time += 0.37)));
        const log = list.map((action) => boss.submit('a', action));
        expect(log.map((entry) => entry.seq)).toEqual(log.map((_, i) => i + 1));
        expect(log.reduce(reduced, AT_REST)).toEqual(boss.state());
        const snapshot = log.slice(0, cut).reduce(reduced, AT_REST);
        expect(log.slice(cut).reduce(reduced, snapshot)).toEqual(boss.state());
      }),
      { seed: 5 },
    );
  });
});

describe('messages', () => {
  test.each([
    ['not json', 'not JSON'],
    ['{}', 'type'],
    ['{"type":"act","action":{"type":"master","level":7}}', 'action.level'],
    ['{"type":"act","action":{"type":"self-destruct"}}', 'action.type'],
    ['{"type":"hello","protocol":8,"screen":"x","show":null}', 'protocol'],
    [
      '{"type":"edit","show":"s","change":{"id":"c","command":{"type":"adjust","of":"x","ops":[{"op":"set","path":[{}]}]}}}',
      'change.command.ops.0.path.0',
    ],
  ])('%s is refused with the place', (text, place) => {
    const read = readMessage(FromScreen, text);
    expect(!read.ok && read.why).toContain(place);
  });

  test('the quickest exchange decides the clock', () => {
    const slow = { sent: 10, now: 110.4, received: 11 };
    const quick = { sent: 20, now: 120.005, received: 20.01 };
    const { offset, doubt } = clockOf([slow, quick, slow]);
    expect(offset).toBeCloseTo(100, 9);
    expect(doubt).toBeCloseTo(0.005, 9);
    expect(clockOf([])).toEqual({ offset: 0, doubt: Infinity });
  });

  test('wherever on its way an exchange was slow, the clock is not further off than the doubt', () => {
    const trip = fc.tuple(fc.double({ min: 0, max: 5, noNaN: true }), fc.double({ min: 0, max: 5, noNaN: true }));
    fc.assert(
      fc.property(fc.array(trip, { minLength: 1 }), fc.double({ min: -1e4, max: 1e4, noNaN: true }), (trips, ahead) => {
        const exchanges = trips.map(([there, back], i) => ({
          sent: i,
          now: i + there + ahead,
          received: i + there + back,
        }));
        const { offset, doubt } = clockOf(exchanges);
        expect(Math.abs(offset - ahead)).toBeLessThanOrEqual(doubt + 1e-9);
      }),
    );
  });
});

describe('channels by hand', () => {
  const hold = (...channels: { universe: number; address: number; value: number }[]): Action => ({
    type: 'hold-channels',
    channels,
  });

  test('what is held lies in order, once a channel, and is let go of by universe or all at once', () => {
    const channel = fc.record({
      universe: fc.integer({ min: 1, max: 3 }),
      address: fc.integer({ min: 1, max: 512 }),
      value: fc.nat(255),
    });
    fc.assert(
      fc.property(
        fc.array(fc.array(channel, { minLength: 1, maxLength: 6 }), { minLength: 1, maxLength: 6 }),
        (holds) => {
          const state = after(...holds.map((channels, i) => at(i, hold(...channels))));
          const places = state.held.map((one) => one.universe * 512 + one.address);
          expect(places).toEqual([...new Set(places)].sort((a, b) => a - b));
          for (const last of holds.at(-1)!) {
            const wanted = holds
              .at(-1)!
              .findLast((one) => one.universe === last.universe && one.address === last.address)!;
            expect(state.held).toContainEqual(wanted);
          }
          const freed = at(9, { type: 'free-channels', universe: 2 })(state);
          expect(freed.held).toEqual(state.held.filter((one) => one.universe !== 2));
          expect(at(9, { type: 'free-channels', universe: null })(state).held).toEqual([]);
        },
      ),
    );
  });

  test('one test at a time: a walk ends a flash, and ending leaves what is held', () => {
    const state = after(
      at(1, hold({ universe: 1, address: 1, value: 9 })),
      at(2, { type: 'flash-channels', universe: 1, from: 1, count: 8, length: seconds(5) }),
      at(3, { type: 'walk-channels', universe: 2, from: 5, to: 2, step: seconds(1) }),
    );
    expect(state.test).toEqual({ kind: 'walk', by: 't', universe: 2, from: 5, to: 5, step: 1, at: 3 });
    expect(at(4, { type: 'end-test' })(state)).toMatchObject({ test: null, held: [{ value: 9 }] });
  });

  test('channels and universes that do not exist are refused with their place', () => {
    const asked = (action: object) => readMessage(FromScreen, JSON.stringify({ type: 'act', action }));
    expect(asked(hold({ universe: 1, address: 513, value: 1 }))).toMatchObject({
      ok: false,
      why: expect.stringContaining('action.channels.0.address'),
    });
    expect(asked(hold({ universe: 0, address: 1, value: 1 }))).toMatchObject({ ok: false });
    expect(asked(hold({ universe: 1, address: 1, value: 256 }))).toMatchObject({ ok: false });
    expect(asked({ type: 'flash-channels', universe: 1, from: 1, count: 0, length: 5 })).toMatchObject({ ok: false });
  });
});

test('a beat is as long as it is heard: of a song that is slowed, longer', () => {
  const show = testShow();
  const played = after(at(100, play), at(100, { type: 'anchor', songTime: seconds(0), at: seconds(100), rate: 0.5 }));
  expect(clockAt({ show, live: played, now: seconds(102) })).toEqual({ beat: expect.closeTo(2), pulse: 1 });
});
