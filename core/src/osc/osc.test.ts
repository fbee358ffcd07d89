// OSC that presses and moves: by controls that learned it, and by our own words.

import fc from 'fast-check';
import { controlSurface } from '../gear';
import { Control, type Source } from '../gig';
import { testHost } from '../testing/gear-host';
import { testShow } from '../testing/show';
import { id } from '../units';
import { decodeOsc, encodeOsc, type OscMessage, type OscValue } from '../wire';
import { answerOsc, oscHearer } from '.';

let clock = 50;
beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

function pass(length: number): void {
  clock += length;
  jest.advanceTimersByTime(length * 1000);
}

/** Where OSC is heard; each message goes through a packet, as on the wire. */
function computer(...made: object[]) {
  const show = { ...testShow(), controls: made.map((one) => Control.parse(one)) };
  const line = testHost(show, () => clock);
  const nothing = () => undefined;
  const surface = controlSurface({ host: line.host, clock: () => clock, onFelt: nothing, onHappened: nothing });
  const { hear } = oscHearer({ host: line.host, surface });
  const say = (address: string, ...values: OscValue[]) => {
    const types = values.map((value) => (typeof value === 'number' ? 'f' : typeof value === 'string' ? 's' : 'T'));
    const packet = decodeOsc(encodeOsc(address, types.join(''), values));
    if (packet.kind === 'bad') throw new Error(packet.why);
    return hear(packet.messages[0]!, clock);
  };
  return { ...line, show, surface, say, hear };
}

const onOsc = (address: string, extra: object = {}) => ({ by: 'osc', address, ...extra });
const foot = (source: object, does: object) => ({ kind: 'switch', id: 'f', name: 'Foot', source, does });
const RED = { press: [{ act: 'look', look: 'red' }] };

describe('a control', () => {
  test('goes down with 1 and comes up with 0; a message without a number is a short press', () => {
    const { say, on } = computer(foot(onOsc('/tablet/1'), { press: [{ act: 'look', look: 'red', press: 'flash' }] }));
    expect(say('/tablet/1', 1)).toEqual({ by: 'control' });
    pass(1);
    expect(on()).toEqual(['red']);
    say('/tablet/1', 0);
    pass(0.1);
    expect(on()).toEqual([]);
    say('/tablet/1');
    expect(on()).toEqual(['red']);
    pass(0.3);
    expect(on()).toEqual([]);
  });

  test('of which each message is a press does not wait for one that lets it go', () => {
    const { say, on } = computer(foot(onOsc('/cue', { sends: 'toggle' }), RED));
    say('/cue', 1);
    pass(0.5);
    expect(on()).toEqual(['red']);
    say('/cue', 1);
    pass(0.5);
    expect(on()).toEqual([]);
    say('/cue', 0);
    pass(0.5);
    expect(on()).toEqual([]);
  });

  test('that is a knob moves from nothing to full, whatever its full value is', () => {
    const fader = (full: number) => ({
      kind: 'fader',
      id: 'k',
      name: 'Master',
      source: onOsc('/fader', { full }),
      turns: { turn: 'master', role: null },
      soft: false,
    });
    for (const full of [1, 100, 127, 255]) {
      const { say, state } = computer(fader(full));
      say('/fader', full / 2);
      expect(state().master.to).toBeCloseTo(0.5);
      pass(0.1);
      say('/fader', full);
      expect(state().master.to).toBe(1);
      pass(0.1);
      say('/fader', -full);
      expect(state().master.to).toBe(0);
    }
  });

  test('learns the address, and what full is there; one that nothing lets go is told once more', () => {
    const { say, surface, on } = computer();
    const learned: Source[] = [];
    const learn = () => surface.learn((source) => void learned.push(source));
    learn();
    say('/button', 0);
    expect(learned).toEqual([]);
    say('/button', 1);
    say('/button', 0);
    learn();
    say('/percent', 64);
    say('/percent', 0);
    learn();
    say('/hovlix/look', 'Red');
    expect(learned).toEqual([
      { by: 'osc', address: '/button', full: 1, sends: 'absolute' },
      { by: 'osc', address: '/percent', full: 100, sends: 'absolute' },
      { by: 'osc', address: '/hovlix/look', full: 1, sends: 'absolute' },
    ]);
    expect(on()).toEqual([]);
    learn();
    say('/huge', 1e30);
    expect(Control.safeParse({ kind: 'switch', id: 's', name: 'S', source: learned.pop(), does: {} }).success).toBe(
      true,
    );
    say('/huge', 0);
    learn();
    say('/cue/7', 1);
    pass(2.1);
    expect(learned.slice(3)).toEqual([
      { by: 'osc', address: '/cue/7', full: 1, sends: 'absolute' },
      { by: 'osc', address: '/cue/7', full: 1, sends: 'toggle' },
    ]);
  });

  test('does not learn what a tablet says by itself, but what is touched beside it, also just after it was tried', () => {
    const { say, surface } = computer();
    const learned: Source[] = [];
    const tilted = (times: number) => {
      for (let i = 0; i < times; i++) {
        say('/tilt', 0.4 + i / 100);
        pass(0.03 + (i % 3) / 100);
      }
    };
    const tried = () => {
      for (const wait of [0.11, 0.4, 0.13, 0.7, 0.1, 0.5]) {
        say('/button', wait < 0.2 ? 1 : 0);
        tilted(Math.round(wait / 0.04));
      }
    };
    tilted(40);
    tried();
    surface.learn((source) => void learned.push(source));
    tilted(40);
    expect(learned).toEqual([]);
    say('/button', 1);
    expect(learned).toMatchObject([{ address: '/button' }]);
    // A fader that was moved before, and is again.
    for (let i = 0; i < 20; i++) {
      say('/fader', i / 20);
      pass(0.02);
    }
    pass(1);
    surface.learn((source) => void learned.push(source));
    say('/fader', 0.3);
    expect(learned).toMatchObject([{ address: '/button' }, { address: '/fader' }]);
  });

  test('that is bound to one of our words has it for itself', () => {
    const { say, state, on } = computer(foot(onOsc('/hovlix/blackout'), RED));
    expect(say('/hovlix/blackout', 1)).toEqual({ by: 'control' });
    expect(state().blackout.on).toBe(false);
    expect(on()).toEqual(['red']);
  });
});

describe('a word of ours', () => {
  test('starts and stops a look by its name, however it is written, or by its number', () => {
    const { say, on, show } = computer();
    const red = show.looks.find(({ id }) => id === 'red')!;
    expect(say('/hovlix/look', 'red ')).toEqual({ by: 'word', did: expect.stringContaining('Red') });
    expect(on()).toEqual(['red']);
    say('/hovlix/look', 'Red');
    expect(on()).toEqual(['red']);
    say('/hovlix/look', 'Red', 0);
    expect(on()).toEqual([]);
    say(`/hovlix/look/${red.number}`, 1);
    expect(on()).toEqual(['red']);
    say(`/hovlix/look/${red.number}`, 0);
    expect(on()).toEqual([]);
  });

  test('of a button acts as it goes down and not as it is let go', () => {
    const { say, acted, show } = computer();
    say('/hovlix/tap', 1);
    say('/hovlix/tap', 0);
    say('/hovlix/tap');
    expect(acted.filter(({ type }) => type === 'tap')).toHaveLength(2);
    const { title } = show.songs[0]!;
    for (const [address, ...first] of [['/hovlix/section/next'], ['/hovlix/song', title], ['/hovlix/go']] as const) {
      say(address, ...first, 1);
      const after = acted.length;
      expect(say(address, ...first, 0)).toEqual({ by: 'word', did: '' });
      expect(acted).toHaveLength(after);
    }
  });

  test('switches over where nothing is said, else as it is said', () => {
    const { say, state } = computer();
    say('/hovlix/blackout');
    expect(state().blackout.on).toBe(true);
    say('/hovlix/blackout', 1);
    expect(state().blackout.on).toBe(true);
    say('/hovlix/blackout', 0);
    expect(state().blackout.on).toBe(false);
  });

  test('moves the master, a role’s own and the tempo; what follows within a frame comes as its last', () => {
    const { say, state, acted, show } = computer();
    say('/hovlix/master', 0.25);
    for (let i = 0; i < 100; i++) say('/hovlix/master', 0.3 + i / 200);
    pass(0.1);
    expect(state().master.to).toBeCloseTo(0.795);
    expect(acted).toHaveLength(2);
    say('/hovlix/master', show.roles[0]!.name, 0.5);
    expect(state().roleMasters).toMatchObject([{ role: show.roles[0]!.id, ramp: { to: 0.5 } }]);
    expect(say('/hovlix/tempo', 97.5)).toEqual({ by: 'word', did: '97.5 bpm' });
    expect(state().tempo.bpm).toBe(97.5);
    const before = acted.length;
    for (let i = 0; i < 200; i++) say('/hovlix/tempo', 100 + i / 2);
    // One master, however its role is written.
    for (let i = 0; i < 200; i++)
      say('/hovlix/master', i % 2 ? show.roles[0]!.name.toUpperCase() : show.roles[0]!.name, i / 200);
    pass(0.1);
    expect(state().tempo.bpm).toBe(199.5);
    expect(state().roleMasters[0]!.ramp.to).toBeCloseTo(0.995);
    expect(acted.length - before).toBe(2);
  });

  test('with nothing to do says so: a pad that is not there, a section while no song is on', () => {
    const { say, acted } = computer();
    for (const address of ['/hovlix/pad/99', '/hovlix/section/next', '/hovlix/back'])
      expect(say(address)).toEqual({ by: 'word', did: 'Nothing to do right now' });
    expect(acted).toEqual([]);
  });

  test('plays a song by its title', () => {
    const { say, state, show } = computer();
    const { id, title } = show.songs[0]!;
    say('/hovlix/song', title);
    expect(state().song).toMatchObject({ id, playing: true });
    say('/hovlix/pause');
    expect(state().song).toMatchObject({ id, playing: false });
  });

  test.each([
    ['/hovlix/look', ['No such look'], 'no look or chase named “No such look”'],
    ['/hovlix/look', [], 'without a name: send its name or number'],
    ['/hovlix/song', ['Nothing'], 'no song named “Nothing”'],
    ['/hovlix/master', [1.5], 'a level from 0 to 1'],
    ['/hovlix/master', ['Nobody', 1], 'no role named “Nobody”'],
    ['/hovlix/tempo', [5], 'from 30 to 400'],
    ['/hovlix/pad', [0], 'from 1'],
    ['/hovlix/blackout', ['on'], '1, 0 or nothing'],
    ['/hovlix/section', ['Chorus'], 'next, previous'],
    ['/hovlix/goo', [], 'not an address Hovlix knows: /hovlix/ is followed by go, back, look'],
    ['/hovlix/deck/1/at', [1, 1], 'the port of the DJ player'],
    ['/hovlix/go/now/then', [], 'not an address Hovlix knows'],
    ['/tablet/*', [1], 'one of # * , ?'],
  ])('that cannot be done is refused with its reason: %s %j', (address, values, why) => {
    const { say, acted } = computer();
    expect(say(address, ...values)).toEqual({ by: 'bad', why: expect.stringContaining(why) });
    expect(acted).toEqual([]);
  });

  test('presses sixty times a second at most, and again in the next', () => {
    const { say, acted } = computer();
    const all = Array.from({ length: 500 }, () => say('/hovlix/tap'));
    expect(all.filter(({ by }) => by === 'bad')).toHaveLength(440);
    expect(acted).toHaveLength(60);
    pass(1);
    expect(say('/hovlix/tap').by).toBe('word');
  });
});

describe('a tablet', () => {
  const asked = (...made: object[]) => {
    const line = computer(...made);
    const sent: (readonly [to: string, address: string, value: OscValue])[] = [];
    let listeners: readonly string[] = ['a'];
    const sendTo = (to: string, bytes: Uint8Array) => {
      const packet = decodeOsc(bytes);
      if (packet.kind === 'messages')
        sent.push(...packet.messages.map(({ address, values }) => [to, address, values[0]!] as const));
    };
    const stop = answerOsc(line.host, { listeners: () => listeners, sendTo });
    const take = () => {
      pass(0.06);
      return sent.splice(0);
    };
    return { ...line, take, stop, come: (...all: string[]) => void (listeners = all) };
  };

  test('is told that a button is on when that changes, whoever pressed; who comes is told all of it', () => {
    const { host, take, come, stop } = asked(foot(onOsc('/tablet/1'), RED));
    expect(take()).toEqual([['a', '/tablet/1', 0]]);
    expect(take()).toEqual([]);
    host.doActs([{ act: 'look', look: id<'Look'>('red'), press: 'start' }], true, clock);
    expect(take()).toEqual([['a', '/tablet/1', 1]]);
    come('a', 'b');
    expect(take()).toEqual([
      ['a', '/tablet/1', 1],
      ['b', '/tablet/1', 1],
    ]);
    come();
    host.doActs([{ act: 'all-off' }], true, clock);
    expect(take()).toEqual([]);
    come('b');
    expect(take()).toEqual([['b', '/tablet/1', 0]]);
    stop();
    host.doActs([{ act: 'look', look: id<'Look'>('red'), press: 'start' }], true, clock);
    expect(take()).toEqual([]);
  });

  test('is told where a fader stands, as it sends it itself, once nobody moves it any more', () => {
    const turns = { turn: 'master', role: null };
    const source = onOsc('/fader', { full: 127 });
    const { take, say } = asked({ kind: 'fader', id: 'k', name: 'K', source, turns, soft: false, curve: 'gentle' });
    expect(take()).toEqual([['a', '/fader', 127]]);
    for (let i = 0; i < 20; i++) {
      say('/fader', 100 - i);
      expect(take()).toEqual([]);
    }
    const told = Array.from({ length: 10 }, take).flat();
    expect(told).toHaveLength(1);
    expect(told[0]![2]).toBeCloseTo(81, 0);
  });
});

test('what nobody waits for is told apart, and does nothing', () => {
  const { say, acted } = computer(foot(onOsc('/tablet/1'), RED));
  expect(say('/tablet/2', 1)).toEqual({ by: 'nobody' });
  expect(acted).toEqual([]);
});

test('whatever message comes, it is answered, and what it did keeps to the show', () => {
  const words = ['go', 'back', 'look', 'pad', 'song', 'play', 'pause', 'section', 'tap', 'tempo', 'master', 'blackout'];
  const value = fc.oneof(
    fc.double(),
    fc.integer({ min: -2, max: 300 }),
    fc.string(),
    fc.constantFrom('Red', 'next', '__proto__', 'constructor'),
    fc.boolean(),
    fc.constant(null),
    fc.uint8Array({ maxLength: 8 }),
  );
  const address = fc.oneof(
    fc.constantFrom(...words, 'freeze', 'release', 'all-off', '__proto__', 'toString').map((word) => `/hovlix/${word}`),
    fc.tuple(fc.constantFrom(...words), fc.string({ maxLength: 8 })).map((all) => `/hovlix/${all.join('/')}`),
    fc.string({ maxLength: 300 }).map((text) => `/${text}`),
  );
  const message: fc.Arbitrary<OscMessage> = fc.record({
    address,
    types: fc.constant(''),
    values: fc.array(value, { maxLength: 4 }),
  });
  fc.assert(
    fc.property(fc.array(message, { maxLength: 30 }), (all) => {
      const { hear, state, show } = computer();
      for (const one of all) {
        const answer = hear(one);
        if (answer.by === 'bad') expect(answer.why.length).toBeLessThan(300);
        pass(0.01);
      }
      const { master, standing, song } = state();
      expect(master.to >= 0 && master.to <= 1).toBe(true);
      const plays: readonly string[] = [...show.looks, ...show.chases].map(({ id }) => id);
      for (const { look } of standing) expect(plays).toContain(look);
      if (song) expect(show.songs.map(({ id }) => id)).toContain(song.id);
    }),
    { numRuns: 60 },
  );
});
