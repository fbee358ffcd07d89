// What screens may say to their conductor, and what of it gets into the state.

import fc from 'fast-check';
import { Action, AT_REST, leftOfLate, PLAYER_SOUNDS, PROTOCOL, type Right } from '../live';
import { testShow } from '../testing/show';
import { seconds } from '../units';
import { conductorHub, session, type Visitor } from '.';

/** A conductor with the test show on, and screens by name. */
function stage(status?: (own: boolean) => { readonly code: number | null }) {
  let clock = 0;
  const nothing = () => undefined;
  const following = { entry: nothing, show: nothing, changed: nothing, keep: nothing };
  const shared = session(() => seconds(clock), following, { show: testShow(), chain: ['first'] });
  const hub = conductorHub({ now: () => seconds(clock), session: shared, ...(status ? { status } : {}) });
  const screen = (name: string, device: Visitor['device'] = null, hello = true) => {
    const heard: { type: string; why?: string; status?: { readonly code: number | null } }[] = [];
    let closed = false;
    const wire = {
      send: (text: string) => void heard.push(JSON.parse(text)),
      close: () => void (closed = true),
      waiting: () => 0,
    };
    const line = hub.meet(wire, { device });
    const say = (message: object) => line.hear(JSON.stringify(message));
    if (hello) say({ type: 'hello', protocol: PROTOCOL, screen: name, show: null });
    return {
      heard,
      say,
      raw: (text: string) => line.hear(text),
      closed: () => closed,
      act: (action: object) => say({ type: 'act', action }),
      refusals: () => heard.filter(({ type }) => type === 'refused').map(({ why }) => why),
    };
  };
  return {
    screen,
    state: () => shared.conductor.state(),
    pass: (time: number) => void (clock += time),
    look: () => hub.look(),
  };
}
/** Lets time pass for a conductor that has nothing else to do: with a look at its lines every half second. */
function quietly({ pass, look }: ReturnType<typeof stage>, time: number): void {
  for (let left = time; left > 0; left -= 0.5) {
    pass(0.5);
    look();
  }
}
const device = (id: string, may: Right = 'operator') => ({ id, name: id, may });

test('nothing is heard of a screen before its hello', () => {
  const { screen, state } = stage();
  const early = screen('early', null, false);
  for (const message of [
    { type: 'act', action: { type: 'tap' } },
    { type: 'ping', sent: 1 },
    { type: 'watch', universe: 1 },
  ])
    early.say(message);
  expect(early.refusals()).toEqual(['Say hello first.', 'Say hello first.', 'Say hello first.']);
  expect(early.heard).toHaveLength(3);
  expect(state().taps).toEqual([]);
});

describe('a screen that says nothing', () => {
  test('counts as gone after three seconds', () => {
    const made = stage();
    const phone = made.screen('phone', device('phone'));
    quietly(made, 3);
    expect(phone.closed()).toBe(false);
    quietly(made, 0.5);
    expect(phone.closed()).toBe(true);
  });

  test('is still there while a large show is on its way to it', () => {
    const made = stage();
    const own = made.screen('own');
    const phone = made.screen('phone', device('phone'));
    const [look] = testShow().looks;
    const looks = Array.from({ length: 2000 }, (_, i) => ({ ...look!, id: `look-${i}`, number: i + 1 }));
    own.say({ type: 'put-on', show: { ...testShow(), id: 'large', looks }, chain: ['begun'] });
    const seconds = JSON.stringify(phone.heard.findLast(({ type }) => type === 'show')).length / 100_000;
    expect(seconds).toBeGreaterThan(3.5);
    quietly(made, 3.5);
    expect(phone.closed()).toBe(false);
    quietly(made, 1);
    expect(phone.closed()).toBe(true);
  });

  test('is still there where the conductor was busy itself, and what it said meanwhile is heard late', () => {
    const made = stage();
    const phone = made.screen('phone', device('phone'));
    const other = made.screen('other', device('other'));
    quietly(made, 1);
    made.pass(5);
    made.look();
    phone.say({ type: 'ping', sent: 3 });
    quietly(made, 0.5);
    expect([phone.closed(), other.closed()]).toEqual([false, true]);
  });
});

test('who puts a show on gets it as it is; the others are told who did', () => {
  const { screen } = stage();
  const [own, guest] = [screen('own'), screen('guest', device('phone'))];
  own.say({ type: 'put-on', show: { ...testShow(), id: 'other' }, chain: ['begun'] });
  const last = ({ heard }: typeof own) => heard.findLast(({ type }) => type === 'show');
  expect(last(own)).not.toHaveProperty('by');
  expect(last(guest)).toMatchObject({ by: 'the computer' });
});

test('how the computer is comes with each beat, to devices without what only its own screens may know', () => {
  const { screen, look, pass } = stage((own) => ({ code: own ? 123456 : null }));
  const [own, guest] = [screen('own'), screen('guest', device('phone', 'viewer'))];
  const silent = screen('silent', null, false);
  const codes = ({ heard }: typeof own) => heard.flatMap(({ type, status }) => (type === 'beat' ? [status?.code] : []));
  // At once as it joins, and then every second.
  expect([codes(own), codes(guest)]).toEqual([[123456], [null]]);
  pass(1);
  look();
  look();
  expect([codes(own), codes(guest), codes(silent)]).toEqual([[123456, 123456], [null, null], []]);
});

test('a conductor without a computer of its own tells nothing of one', () => {
  const { screen } = stage();
  expect(screen('one').heard.filter(({ type }) => type === 'beat')).toEqual([{ type: 'beat', screens: 1 }]);
});

test.each<[string, object, RegExp]>([
  ['a look', { type: 'look-on', look: 'nowhere', fade: 0 }, /That look is not in the show/],
  ['a pad', { type: 'pad', press: 'toggle', down: true, look: 'nowhere', fade: 0, fadeOut: 0 }, /That look/],
  ['a song', { type: 'play', song: 'nowhere', from: 0 }, /That song/],
  ['a bank', { type: 'bank', bank: 'nowhere' }, /That bank/],
  ['a role', { type: 'role-master', role: 'nowhere', level: 0 }, /That role/],
  ['a role in hand', { type: 'hand', values: [{ role: 'nowhere', level: { type: 'hold', value: 1 } }] }, /That role/],
  [
    'a lamp',
    { type: 'hand', values: [{ lamps: ['nowhere'], level: { type: 'hold', value: 1 } }] },
    /One of those lamps/,
  ],
  ['a hit', { type: 'notes', notes: [{ kit: 'k', role: 'wash', hit: 'h', note: 36, velocity: 1 }] }, /That hit/],
])('%s that the show does not have changes nothing, and who asked is told', (_, action, why) => {
  const { screen, state } = stage();
  const one = screen('one');
  const before = state();
  one.act(action);
  expect(state()).toBe(before);
  expect(one.refusals()).toEqual([expect.stringMatching(why)]);
});

test('a note that sounds is let go though its kit was deleted meanwhile', () => {
  const { screen, state } = stage();
  const one = screen('one');
  const up = { kit: 'deleted', role: 'wash', hit: 'h', note: 36, velocity: 0 };
  const { seq } = state();
  one.act({ type: 'notes', notes: [up] });
  expect(one.refusals()).toEqual([]);
  expect(state().seq).toBe(seq + 1);
});

test('the bank of all looks is one, where nobody made any', () => {
  const { screen, state } = stage();
  const one = screen('one');
  one.act({ type: 'go', bank: 'all', look: 'red', fade: 0 });
  expect(one.refusals()).toEqual([]);
  expect(state().place).toEqual({ bank: 'all', look: 'red' });
});

test('whatever devices send, the state stays small', () => {
  const id = fc.oneof(
    fc.constantFrom('red', 'half-blue', 'spread', 'wash', 'movers', 'bars', 'song', 'a', 'b'),
    fc.string({ minLength: 1, maxLength: 60 }),
  );
  const fade = fc.double({ min: 0, max: 600, noNaN: true });
  const lamps = fc.uniqueArray(fc.constantFrom('a', 'b', 's', 'c', 'idle'), { minLength: 1, maxLength: 5 });
  const hold = fc.double({ min: 0, max: 1, noNaN: true }).map((value) => ({ type: 'hold', value }));
  const places = fc
    .uniqueArray(fc.nat(300), { minLength: 1, maxLength: 40 })
    .map((list) => ({ type: 'places', places: list.sort((a, b) => a - b) }));
  const actions = fc.oneof(
    fc.record({ type: fc.constant('look-on'), look: id, fade }),
    fc.record({ type: fc.constant('look-off'), look: id, fade }),
    fc.record({ type: fc.constant('role-master'), role: id, level: fc.constant(0.5) }),
    fc.record({ type: fc.constant('release'), fade }),
    fc.record({
      type: fc.constant('hand'),
      values: fc.array(
        fc.oneof(
          fc.record({ lamps, level: hold }),
          fc.record({
            role: id,
            pick: places,
            level: hold,
            colour: fc.constant({ type: 'hold', value: { x: 0.3, y: 0.3 } }),
          }),
        ),
        { minLength: 1, maxLength: 200 },
      ),
    }),
    fc.record({
      type: fc.constant('hold-channels'),
      channels: fc.array(
        fc.record({
          universe: fc.integer({ min: 1, max: 60 }),
          address: fc.integer({ min: 1, max: 512 }),
          value: fc.constant(255),
        }),
        { minLength: 1, maxLength: 2048 },
      ),
    }),
    fc.record({
      type: fc.constant('notes'),
      notes: fc.array(fc.record({ kit: id, role: id, hit: id, note: fc.nat(127), velocity: fc.constant(1) }), {
        minLength: 1,
        maxLength: 64,
      }),
    }),
    fc.record({ type: fc.constantFrom('tap', 'pause', 'end-test') }),
  );
  fc.assert(
    fc.property(fc.array(actions, { minLength: 20, maxLength: 60 }), (all) => {
      const { screen, state, pass } = stage();
      const one = screen('one', device('phone'));
      for (const action of [...all, ...all, ...all]) {
        one.act(action);
        pass(0.05);
      }
      const { standing, hands, held, sounding, struck, roleMasters, taps } = state();
      expect(standing.length).toBeLessThanOrEqual(4);
      expect(hands.length).toBeLessThanOrEqual(1000);
      expect(held.length).toBeLessThanOrEqual(2048);
      expect(sounding.length + Object.keys(struck).length + roleMasters.length + taps.length).toBeLessThan(100);
    }),
    { seed: 13, numRuns: 30 },
  );
});

describe('too much', () => {
  const taps = (one: { act: (action: Action) => void }, count: number) => {
    for (let i = 0; i < count; i++) one.act({ type: 'tap' });
  };
  const entries = ({ heard }: { heard: { type: string }[] }) => heard.filter(({ type }) => type === 'entries').length;

  test('a device counts as one, however many lines it has; a second later it may again', () => {
    const { screen, pass } = stage();
    const host = screen('host');
    const eight = Array.from({ length: 8 }, (_, i) => screen(`s${i}`, device('phone')));
    const before = entries(host);
    for (const one of eight) taps(one, 200);
    expect(entries(host) - before).toBeLessThanOrEqual(300);
    expect(entries(host) - before).toBeGreaterThan(250);
    expect(eight.flatMap((one) => one.refusals())).toHaveLength(1);
    pass(1);
    const then = entries(host);
    taps(eight[3]!, 10);
    expect(entries(host) - then).toBe(10);
  });

  test('many devices at once share what there is; the computer itself goes on as ever', () => {
    const { screen } = stage();
    const host = screen('host');
    const phones = Array.from({ length: 10 }, (_, i) => screen(`p${i}`, device(`phone ${i}`)));
    const before = entries(host);
    for (const one of phones) taps(one, 300);
    expect(entries(host) - before).toBeLessThanOrEqual(1200);
    // The last one to send has its share too.
    const last = entries(phones[9]!);
    expect(last).toBeGreaterThan(0);
    const now = entries(host);
    taps(host, 250);
    expect(entries(host) - now).toBe(250);
  });

  test('a show of many megabytes gets in, but not again and again', () => {
    const { screen } = stage();
    const one = screen('one', device('tablet'));
    const other = screen('other');
    const padded = `${JSON.stringify({ type: 'put-on', show: testShow(), chain: ['mine'] })}${' '.repeat(6_000_000)}`;
    for (let i = 0; i < 5; i++) one.raw(padded);
    // The one it was given as it joined, and the one that got in.
    expect(other.heard.filter(({ type }) => type === 'show')).toHaveLength(2);
    expect(one.refusals()).toEqual([expect.stringContaining('too much')]);
  });

  test('what is long counts for more', () => {
    const { screen } = stage();
    const one = screen('one', device('phone'));
    const ops = [{ op: 'set', path: ['name'], from: 'x'.repeat(400_000), to: 'y' }];
    for (let i = 0; i < 20; i++) one.say({ type: 'preview', show: 'test', ops });
    expect(one.refusals()).toHaveLength(1);
  });
});

describe('a song is over', () => {
  const { songs } = testShow();
  const [song] = songs;
  const { duration } = song!;
  const play = { type: 'play', song: song!.id, from: duration - 1 };

  test('that no screen sounds: it stops at its end, once, though two screens look on', () => {
    const { screen, state, pass, look } = stage();
    const one = screen('one');
    const two = screen('two');
    one.act(play);
    pass(0.9);
    look();
    expect(state().song?.playing).toBe(true);
    pass(0.2);
    look();
    look();
    expect(state().song).toMatchObject({ playing: false, songTime: duration });
    const ends = two.heard.flatMap((message) =>
      'entries' in message ? (message.entries as { action: Action }[]) : [],
    );
    expect(ends.map(({ action }) => action.type).filter((type) => type === 'pause')).toHaveLength(1);
  });

  test('a screen that sounds ends it itself; gone, or asleep for long, it is ended for it', () => {
    const { screen, state, pass, look } = stage();
    const one = screen('one');
    one.act({ ...play, sound: 'one' });
    pass(1.5);
    one.say({ type: 'ping', sent: 0 });
    look();
    expect(state().song?.playing).toBe(true);
    pass(2);
    look();
    expect(state().song?.playing).toBe(false);
    one.act({ ...play, sound: 'somebody-gone' });
    pass(1.1);
    look();
    expect(state().song?.playing).toBe(false);
  });

  test('what a DJ player led only stops', () => {
    const { screen, state, pass, look } = stage();
    screen('one').act({ ...play, sound: PLAYER_SOUNDS });
    pass(1.2);
    look();
    expect(state().song).toMatchObject({ playing: false, songTime: expect.closeTo(duration + 0.2) });
  });
});

describe('a press that was long on its way', () => {
  const pad = (down: boolean) => ({
    type: 'act',
    at: 0,
    action: { type: 'pad', press: 'flash', down, look: 'red', fade: 0, fadeOut: 0 },
  });

  test('is not played where it was to come on in time, and its screen is told', () => {
    const { screen, state, pass } = stage();
    const one = screen('one');
    pass(0.5);
    one.say(pad(true));
    one.say({ type: 'act', at: 0, action: { type: 'step', look: 'run', by: 1 } });
    expect(one.heard.filter(({ type }) => type === 'late')).toMatchObject([{ action: 'pad' }, { action: 'step' }]);
    expect(state()).toMatchObject({ standing: [] });
  });

  test('counts when it was made where it is a tap: a slow line does not change the tempo', () => {
    const { screen, state, pass } = stage();
    const one = screen('one');
    let gone = 0;
    for (const [at, came] of [
      [0, 0.02],
      [0.5, 0.9],
      [1, 1.01],
      [1.5, 1.74],
    ] as const) {
      pass(came - gone);
      gone = came;
      one.say({ type: 'act', at, action: { type: 'tap' } });
    }
    expect(state().tempo).toMatchObject({ bpm: expect.closeTo(120), at: expect.closeTo(1.5) });
    // Nor does what a screen says itself of how late it is, beyond a second.
    one.say({ type: 'act', at: 1.2, action: { type: 'tap', late: 0.9 } });
    expect(one.heard.filter(({ type }) => type === 'late')).toMatchObject([{ action: 'tap' }]);
    expect(state().taps).toHaveLength(4);
  });

  test('lets go of a held pad and stops a song all the same', () => {
    const { screen, state, pass } = stage();
    const one = screen('one');
    const { songs } = testShow();
    one.say(pad(true));
    one.act({ type: 'play', song: songs[0]!.id, from: 0 });
    expect(state().standing).toHaveLength(1);
    pass(0.5);
    one.say(pad(false));
    one.say({ type: 'act', at: 0, action: { type: 'pause' } });
    one.say({ type: 'act', at: 0, action: { type: 'master', level: 0.25 } });
    expect(state()).toMatchObject({ standing: [{ on: false }], master: { to: 0.25 }, song: { playing: false } });
    expect(one.heard.some(({ type }) => type === 'late')).toBe(false);
  });

  test('a look that is switched on may come a second late, one that is switched off at any time', () => {
    const { screen, state, pass } = stage();
    const one = screen('one');
    const toggle = { type: 'pad', press: 'toggle', down: true, look: 'red', fade: 0, fadeOut: 0 };
    const isOn = () => state().standing.some(({ on }) => on);
    pass(1.2);
    one.say({ type: 'act', at: 0, action: toggle });
    expect(isOn()).toBe(false);
    one.say({ type: 'act', at: 0.4, action: toggle });
    expect(isOn()).toBe(true);
    pass(2);
    one.say({ type: 'act', at: 0.4, action: toggle });
    expect(isOn()).toBe(false);
    // One that has gone out by itself meanwhile would come on, so it is too late.
    one.act({ ...toggle, hold: 0.5 });
    pass(2);
    const { seq } = state();
    one.say({ type: 'act', at: 3.5, action: toggle });
    expect(state().seq).toBe(seq);
    expect(one.heard.filter(({ type }) => type === 'late')).toHaveLength(2);
  });

  test('lets go of notes, and strikes none', () => {
    const stroke = (note: number, velocity: number) => ({ kit: 'kit', role: 'wash', hit: 'hit', note, velocity });
    const notes = (...strokes: object[]) => Action.parse({ type: 'notes', notes: strokes });
    const late = (action: Action) => leftOfLate(AT_REST, action, 0.5, seconds(9));
    expect(late(notes(stroke(36, 0), stroke(38, 1)))).toEqual(notes(stroke(36, 0)));
    expect(late(notes(stroke(38, 1)))).toBeUndefined();
  });
});
