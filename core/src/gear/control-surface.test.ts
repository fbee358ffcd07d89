// From what comes in to what is done: keys, MIDI and feet, one path for all.

import { Control, type Heard } from '../gig';
import { testHost } from '../testing/gear-host';
import { testShow } from '../testing/show';
import { controlSurface, lightPads, type Happened } from '.';

let clock = 50;

const PEDAL = {
  press: [{ act: 'look', look: 'red' }],
  double: [{ act: 'look', look: 'kept' }],
  hold: [{ act: 'blackout', to: 'toggle' }],
};

function screen(...made: object[]) {
  const show = { ...testShow(), controls: made.map((one) => Control.parse(one)) };
  const line = testHost(show, () => clock);
  const seen: { happened: Happened | null } = { happened: null };
  const onHappened = (happened: Happened) => void (seen.happened = happened);
  const all = controlSurface({ host: line.host, clock: () => clock, onFelt: () => undefined, onHappened });
  return { ...line, all, show, seen };
}
function pass(length: number): void {
  for (let at = 0; at < length - 1e-9; at += 0.01) {
    clock += 0.01;
    jest.advanceTimersByTime(10);
  }
}
const KEY = { by: 'key', code: 'PageDown' } as const;
const foot = (does: object, extra: object = {}) => ({
  kind: 'switch',
  id: 'f',
  name: 'Foot',
  source: KEY,
  does,
  ...extra,
});

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('press, double press and hold each do theirs, and what was done is said', () => {
  const { all, on, state, seen } = screen(foot(PEDAL));
  const step = (length: number) => {
    all.key(KEY, true);
    pass(length);
    all.key(KEY, false);
  };
  step(0.1);
  expect(on()).toEqual([]);
  pass(0.4);
  expect(on()).toEqual(['red']);
  expect(seen.happened).toMatchObject({ control: 'f', gesture: 'press', words: 'Red' });
  step(0.1);
  pass(0.1);
  step(0.1);
  expect(on()).toEqual(['red', 'kept']);
  pass(1);
  step(1);
  expect(state().blackout.on).toBe(true);
  expect(all.key({ by: 'key', code: 'KeyX' }, true)).toBe(false);
});

describe('a page that was busy hears late of a foot', () => {
  /** Time goes by, and nothing comes of it: no timer, no key. */
  const busy = (length: number) => void (clock += length);
  const afterwards = () => jest.advanceTimersByTime(1000);

  test('a press stays a press, though its end was heard after the time for a hold was over', () => {
    const { all, on, state } = screen(foot({ press: PEDAL.press, hold: PEDAL.hold }));
    const down = clock;
    all.key(KEY, true, down);
    busy(0.9);
    // The timer comes first, then the key.
    jest.advanceTimersToNextTimer();
    all.key(KEY, false, down + 0.1);
    afterwards();
    expect([on(), state().blackout.on]).toEqual([['red'], false]);
  });

  test('two quick presses are a double press, and a hold is a hold', () => {
    const { all, on, state } = screen(foot(PEDAL));
    let down = clock;
    all.key(KEY, true, down);
    busy(2);
    all.key(KEY, false, down + 0.08);
    all.key(KEY, true, down + 0.2);
    all.key(KEY, false, down + 0.28);
    pass(1);
    expect(on()).toEqual(['kept']);
    down = clock;
    all.key(KEY, true, down);
    busy(2);
    all.key(KEY, false, down + 1);
    afterwards();
    expect(state().blackout.on).toBe(true);
  });

  test('a tap counts when the foot went down, also where it had to wait for a second press', () => {
    const { all, state } = screen(foot({ press: [{ act: 'tap' }], double: PEDAL.double }));
    const first = clock;
    for (const n of [0, 1, 2, 3]) {
      pass(Math.max(0, first + n * 0.5 - clock));
      busy(n === 2 ? 0.2 : 0);
      all.key(KEY, true, first + n * 0.5);
      all.key(KEY, false, first + n * 0.5 + 0.05);
    }
    pass(0.5);
    expect(state().tempo).toMatchObject({ bpm: expect.closeTo(120, 5), at: expect.closeTo(first + 1.5, 5) });
  });

  test('a message that only says “pressed” stays a short press, and what was to wait waits from when it is heard', () => {
    const program = { by: 'program', device: null, channel: null, number: 3, bank: null };
    const does = { press: [{ act: 'tap' }, { act: 'tap', after: 1 }], hold: PEDAL.hold };
    const { all, acted, state } = screen({ kind: 'switch', id: 'p', name: 'P', source: program, does });
    const begun = clock;
    busy(0.9);
    all.message({ by: 'program', device: 'x', channel: 1, number: 3, bank: null }, begun);
    pass(1.5);
    expect(state().blackout.on).toBe(false);
    expect(acted).toMatchObject([
      { type: 'tap', late: expect.closeTo(0.9, 2) },
      { type: 'tap', late: 0 },
    ]);
  });

  test('a tap that was made longer than a second ago is none', () => {
    const { all, acted } = screen(foot({ press: [{ act: 'tap' }] }));
    const begun = clock;
    busy(1.5);
    all.key(KEY, true, begun);
    all.key(KEY, false, begun + 0.1);
    all.key(KEY, true, begun + 0.8);
    expect(acted).toMatchObject([{ type: 'tap', late: expect.closeTo(0.7) }]);
  });

  test('what is told of an earlier time than the last changes nothing that was decided', () => {
    const { all, on } = screen(foot({ press: PEDAL.press }));
    all.key(KEY, true);
    expect(on()).toEqual(['red']);
    pass(0.2);
    all.key(KEY, false, clock - 5);
    pass(0.2);
    all.key(KEY, true, clock + 5);
    expect(on()).toEqual([]);
  });
});

test('what is learned does nothing else; a normally closed switch works the other way round', () => {
  const { all, on } = screen(foot({ press: PEDAL.press }, { closed: true }));
  const learned: unknown[] = [];
  all.learn((source) => learned.push(source));
  all.key(KEY, true);
  expect([learned, on()]).toEqual([[KEY], []]);
  // At rest the contact is closed: the foot opens it.
  all.key(KEY, true);
  pass(1);
  expect(on()).toEqual([]);
  all.key(KEY, false);
  expect(on()).toEqual(['red']);
});

test('an endless knob is learned by three steps up; a pedal at rest that trembles is not', () => {
  const { all } = screen();
  const learned: unknown[] = [];
  const say = (number: number, ...raw: number[]) =>
    raw.forEach((value) =>
      all.message({ by: 'control', device: 'Board', channel: 1, number, value: value / 127, fine: false }),
    );
  all.learn((source) => learned.push(source));
  say(11, 1, 0, 1, 0, 1, 1, 0);
  expect(learned).toEqual([]);
  say(20, 1, 1, 1);
  expect(learned).toEqual([{ by: 'control', device: 'Board', channel: 1, number: 20, sends: 'relative' }]);
  all.learn((source) => learned.push(source));
  say(21, 64);
  expect(learned[1]).toMatchObject({ number: 21, sends: 'absolute' });
  // One that counts from 64: the first step may be the place of any knob, the same twice more may not.
  all.learn((source) => learned.push(source));
  say(22, 65);
  expect(learned[2]).toMatchObject({ number: 22, sends: 'absolute' });
  say(22, 65, 65);
  expect(learned[3]).toMatchObject({ number: 22, sends: 'relative' });
  all.learn((source) => learned.push(source));
  say(23, 65, 66, 67, 66, 65, 64, 63);
  pass(5);
  expect(learned.slice(4)).toMatchObject([{ number: 23, sends: 'absolute' }]);
});

describe('a switch that does not say when it is let go', () => {
  const PRESSED = { by: 'control', device: 'Board', channel: 1, number: 64 };
  const { all } = screen();
  let learned: unknown[] = [];
  const send = (value: number, number = 64) =>
    all.message({ by: 'control', device: 'Board', channel: 1, number, value: value / 127, fine: false });
  const learn = () => {
    learned = [];
    all.learn((source) => learned.push(source));
  };
  const position = { ...PRESSED, sends: 'absolute' };

  test('is told once more, as one whose messages are each a press; what others send changes nothing', () => {
    learn();
    send(127);
    expect(learned).toEqual([position]);
    pass(1);
    send(0, 65);
    pass(1.1);
    expect(learned).toEqual([position, { ...PRESSED, sends: 'toggle' }]);
  });

  test('is none that is let go, nor one that is closed at rest, whose contact goes down first', () => {
    learn();
    send(127);
    pass(0.3);
    send(0);
    pass(5);
    expect(learned).toEqual([position]);
    learn();
    send(0);
    pass(0.3);
    send(127);
    pass(5);
    expect(learned).toEqual([position]);
  });

  test('nor is one told while the next is learned', () => {
    learn();
    send(127);
    learn();
    pass(5);
    expect(learned).toEqual([]);
  });
});

test('a note flashes for as long as it is held, and a thousand messages a second are all heard', () => {
  const note = { by: 'note', device: null, channel: null, number: 36 };
  const knob = { by: 'control', device: null, channel: null, number: 7 };
  const { all, on, acted, state } = screen(
    {
      kind: 'switch',
      id: 'n',
      name: 'Note',
      source: note,
      does: { press: [{ act: 'look', look: 'red', press: 'flash' }] },
    },
    { kind: 'fader', id: 'k', name: 'Knob', source: knob, turns: { turn: 'master', role: null }, soft: false },
  );
  const struck = (down: boolean): Heard => ({
    by: 'note',
    device: 'x',
    channel: 1,
    number: 36,
    down,
    value: down ? 1 : 0,
  });
  all.message(struck(true));
  pass(0.2);
  expect(on()).toEqual(['red']);
  all.message(struck(false));
  expect(on()).toEqual([]);
  acted.length = 0;
  for (let i = 0; i < 1000; i++) {
    all.message(struck(i % 2 === 0));
    all.message({ by: 'control', device: 'x', channel: 1, number: 7, value: (i % 128) / 127, fine: false });
    clock += 0.001;
    jest.advanceTimersByTime(1);
  }
  all.message(struck(false));
  pass(0.2);
  expect(on()).toEqual([]);
  expect(state().master.to).toBeCloseTo((999 % 128) / 127, 6);
  // Not more often than light leaves: a conductor takes only so many.
  expect(acted.filter(({ type }) => type === 'master').length).toBeLessThan(60);
  expect(all.message({ by: 'bend', device: 'x', channel: 1, value: 0.5 })).toBe(false);
});

test('several acts of one press keep their order, and those that wait come when their beats have passed', () => {
  const { all, acted } = screen(
    foot({
      press: [
        { act: 'look', look: 'red' },
        { act: 'look', look: 'kept', after: 2 },
        { act: 'blackout', to: 'off' },
      ],
    }),
  );
  all.key(KEY, true);
  expect(acted.map(({ type }) => type)).toEqual(['pad', 'blackout']);
  pass(0.9);
  expect(acted).toHaveLength(2);
  // Two beats at 120 a minute are a second.
  pass(0.2);
  expect(acted[2]).toMatchObject({ type: 'pad', look: 'kept' });
});

test('what is held ends with the foot: pads of a bank, also when another bank was chosen meanwhile, and late presses', () => {
  const flash = { act: 'look', look: 'kept', press: 'flash' };
  const { all, on, put, show, host } = screen(
    foot({ press: [{ act: 'pad', place: 1 }] }),
    {
      kind: 'switch',
      id: 'd',
      name: 'D',
      source: { by: 'key', code: 'F7' },
      does: { press: [flash], double: [{ act: 'tap' }] },
    },
    {
      kind: 'switch',
      id: 'l',
      name: 'L',
      source: { by: 'key', code: 'F8' },
      does: { press: [{ ...flash, after: 1 }] },
    },
  );
  const bank = (id: string, look: string) => ({ id, name: id, end: 'stop', pads: [{ look, press: 'flash' }] });
  put({ ...show, banks: [bank('a', 'red'), bank('b', 'spread')] as never });
  all.key(KEY, true);
  expect(on()).toEqual(['red']);
  host.act({ type: 'bank', bank: 'b' as never });
  pass(0.1);
  all.key(KEY, false);
  expect(on()).toEqual([]);
  // Told when the time for a second press is over, with the foot up again: it is seen, and over.
  all.key({ by: 'key', code: 'F7' }, true);
  pass(0.05);
  all.key({ by: 'key', code: 'F7' }, false);
  pass(0.32);
  expect(on()).toEqual(['kept']);
  pass(0.2);
  expect(on()).toEqual([]);
  // What comes a beat later goes a beat later.
  all.key({ by: 'key', code: 'F8' }, true);
  pass(0.2);
  all.key({ by: 'key', code: 'F8' }, false);
  pass(0.4);
  expect(on()).toEqual(['kept']);
  pass(0.2);
  expect(on()).toEqual([]);
});

test('a control that is removed while its switch is down holds nothing up', () => {
  const { all, put } = screen(foot(PEDAL));
  all.key(KEY, true);
  put(testShow());
  expect(() => pass(2)).not.toThrow();
  expect(all.key(KEY, false)).toBe(false);
});

test('a knob takes a value by hand at once where nobody has it, and then waits until it reaches what was changed elsewhere', () => {
  const knob = { by: 'control', device: null, channel: null, number: 7 };
  const { all, state, host } = screen({
    kind: 'fader',
    id: 'k',
    name: 'Knob',
    source: knob,
    turns: { turn: 'hand', role: 'wash', what: 'level' },
  });
  const turn = (value: number) => {
    all.message({ by: 'control', device: 'x', channel: 1, number: 7, value, fine: false });
    pass(1);
  };
  const level = () =>
    state()
      .hands.filter(({ on }) => on)
      .map(({ value }) => value.level);
  turn(0.8);
  expect(level()).toEqual([{ type: 'hold', value: 0.8 }]);
  host.act({ type: 'hand', values: [{ role: 'wash' as never, level: { type: 'hold', value: 0.2 } }] });
  turn(0.7);
  expect(level()).toEqual([{ type: 'hold', value: 0.2 }]);
  turn(0.1);
  expect(level()).toEqual([{ type: 'hold', value: 0.1 }]);
});

test('pads and buttons of gear are lit while their look is on, and told anew when they are plugged in again', () => {
  const does = { press: [{ act: 'look', look: 'red' }] };
  const note = { by: 'note', device: 'Board', channel: 3, number: 40 };
  const button = { by: 'control', device: 'Board', channel: null, number: 20, sends: 'toggle' };
  const { all, host } = screen(
    { kind: 'switch', id: 'p', name: 'Pad', source: note, does },
    { kind: 'switch', id: 'b', name: 'Button', source: button, does },
    { kind: 'switch', id: 'k', name: 'Key', source: KEY, does },
    { kind: 'switch', id: 'n', name: 'Tap', source: { ...note, number: 41 }, does: { press: [{ act: 'tap' }] } },
  );
  const sent: unknown[] = [];
  let [outputs, wanted] = [['Board'], true];
  lightPads(host, { outputs: () => outputs, sendTo: (device, bytes) => sent.push([device, ...bytes]) }, () => wanted);
  const strike = (down: boolean) =>
    all.message({ by: 'note', device: 'Board', channel: 3, number: 40, down, value: down ? 1 : 0 });
  const tap = () => (strike(true), strike(false), pass(0.1));
  const told = (level: number) => [
    ['Board', 0x92, 40, level],
    ['Board', 0xb0, 20, level],
  ];
  pass(0.3);
  expect(sent.splice(0)).toEqual(told(0));
  tap();
  expect(sent.splice(0)).toEqual(told(127));
  outputs = [];
  pass(0.1);
  outputs = ['Board'];
  pass(0.1);
  expect(sent.splice(0).slice(-2)).toEqual(told(127));
  tap();
  expect(sent.splice(0)).toEqual(told(0));
  wanted = false;
  tap();
  expect(sent).toEqual([]);
});
