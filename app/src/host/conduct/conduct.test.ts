import { AT_REST, PROTOCOL, type FromScreen } from '@hovlix/core/live';
import { Command, copyOf, ORIGIN, type Copy } from '@hovlix/core/show';
import { seconds } from '@hovlix/core/units';
import { testShow } from '../../../../core/src/testing/show';
import { conducting, type Word } from './conduct';
import { document } from '../document/document';
import type { Light } from '../light/light';
import type { ToLight } from '../light/light-messages';
import { repository } from '../document/repository';
import { memoryStore } from '../document/storage';

/** A browser's WebSocket as far as the line needs it; the test plays the server. */
class FakeSocket {
  static readonly OPEN = 1;
  static last: FakeSocket;
  readonly readyState = 1;
  readonly sent: FromScreen[] = [];
  onopen: () => void = () => undefined;
  onmessage: (event: { data: string }) => void = () => undefined;
  onclose: (event: { code: number }) => void = () => undefined;
  closed = false;
  close() {
    this.closed = true;
  }
  constructor() {
    FakeSocket.last = this;
  }
  send(text: string) {
    this.sent.push(JSON.parse(text));
  }
  hear(message: object) {
    this.onmessage({ data: JSON.stringify(message) });
  }
  said<T extends FromScreen['type']>(type: T) {
    return this.sent.filter((message): message is Extract<FromScreen, { type: T }> => message.type === type);
  }
}

const answered = (type: string) =>
  jest.fn(async () => ({ ok: true, headers: { get: () => type } })) as unknown as typeof fetch;

async function link(contentType: string, mine = copyOf(testShow(), [ORIGIN, 'a'])) {
  Object.assign(globalThis, { fetch: answered(contentType), WebSocket: FakeSocket });
  const told: ToLight[] = [];
  const light = { tell: (message: ToLight) => told.push(message) } as unknown as Light;
  const kept = repository(memoryStore());
  const doc = document(kept);
  const made = conducting(doc, light, 'me');
  const words: Word[] = [];
  made.onWord((word) => words.push(word));
  await kept.save(mine);
  await made.start(Promise.resolve(mine));
  return { made, told, doc, words, kept, socket: () => FakeSocket.last };
}

const welcome = (show: object | null, more: object = {}) => ({
  type: 'welcome',
  protocol: PROTOCOL,
  now: 1000,
  state: { ...AT_REST, seq: 9 },
  show,
  may: 'operator',
  device: null,
  ...more,
});
const theirs = (change: object = {}, chain = [ORIGIN, 'x'], by?: string) => ({
  type: 'show',
  show: { ...testShow(), ...change },
  chain,
  ...(by ? { by } : {}),
});
/** Joined to a server that has the very show this screen has. */
async function joined() {
  const all = await link('application/json');
  all.socket().onopen();
  all.socket().hear(welcome({ id: 'test', head: 'a' }));
  all.socket().hear({ type: 'changes', show: 'test', changes: [] });
  return all;
}
const rename = (title: string) => Command.parse({ type: 'rename-song', song: 'song', title });

// The page's own clock goes on: it is what a screen tells the time by.
beforeEach(() => jest.useFakeTimers({ doNotFake: ['performance', 'queueMicrotask'] }));
afterEach(() => jest.useRealTimers());
const settle = async () => {
  for (let n = 0; n < 300; n++) await Promise.resolve();
};

test('the line opens while what was open here is still being read; the greeting waits for it', async () => {
  Object.assign(globalThis, { fetch: answered('application/json'), WebSocket: FakeSocket });
  const light = { tell: () => undefined } as unknown as Light;
  const made = conducting(document(repository(memoryStore())), light, 'me');
  let read: (copy: Copy) => void = () => undefined;
  await made.start(new Promise((resolve) => (read = resolve)));
  const socket = FakeSocket.last;
  socket.onopen();
  expect(socket.sent).toEqual([]);
  read(copyOf(testShow(), [ORIGIN, 'a']));
  await jest.advanceTimersByTimeAsync(0);
  expect(socket.said('hello')).toMatchObject([{ show: { id: 'test', head: 'a' } }]);
});

test('on a static host this browser conducts: presses and edits get their order here', async () => {
  const { made, doc } = await link('text/html');
  await settle();
  expect(made.store.getState()).toMatchObject({ conductor: 'browser', may: 'operator', live: { programs: 'me' } });
  expect(doc.store.getState().show?.name).toBe('Test show');
  made.act({ type: 'master', level: 0.5 });
  doc.make(rename('Mine'));
  await settle();
  expect(made.store.getState().live.master.to).toBe(0.5);
  expect(doc.store.getState().copy).toMatchObject({ pending: [] });
  expect(doc.store.getState().copy?.base.songs[0]!.title).toBe('Mine');
});

test('a screen that joins takes the conductor’s show over, and its own stays in its store untouched', async () => {
  const { made, doc, kept, socket } = await link('application/json');
  socket().onopen();
  expect(socket().said('hello')).toMatchObject([{ screen: 'me', show: { id: 'test', head: 'a' } }]);
  socket().hear(welcome({ id: 'other', head: 'x' }));
  socket().hear(theirs({ id: 'other', name: 'On stage' }));
  expect(made.store.getState()).toMatchObject({ conductor: 'server', live: { seq: 9 } });
  expect(doc.store.getState().show?.name).toBe('On stage');
  expect(socket().said('put-on')).toEqual([]);
  const own = await kept.load('test');
  expect(own?.ok && own.value.show).toEqual(testShow());
});

test('it brings its show only where the conductor has none', async () => {
  const { socket } = await link('application/json');
  socket().onopen();
  socket().hear(welcome(null));
  expect(socket().said('put-on')).toMatchObject([{ ifNone: true, chain: [ORIGIN, 'a'], show: { id: 'test' } }]);
  const viewer = await link('application/json');
  viewer.socket().onopen();
  viewer.socket().hear(welcome(null, { may: 'viewer' }));
  expect(viewer.socket().said('put-on')).toEqual([]);
  expect(viewer.made.store.getState().waiting).toBe(true);
});

test('presses and edits go to the server with the moment they were made; what others did is followed', async () => {
  const { made, doc, told, socket } = await joined();
  // Before the clocks are tied together nobody can say how old a press is.
  made.act({ type: 'tap' });
  expect(socket().said('act')).toEqual([{ type: 'act', action: { type: 'tap' } }]);
  socket().hear({ type: 'pong', sent: socket().said('ping').at(-1)!.sent, now: 1000 });
  socket().sent.length = 0;
  made.act({ type: 'master', level: 0.5 });
  doc.make(rename('Mine'));
  const [act] = socket().said('act');
  expect(Math.abs(act!.at! - (made.now() as number))).toBeLessThan(1);
  expect(socket().said('edit')).toMatchObject([
    { show: 'test', change: { command: { type: 'adjust', of: 'rename-song' } } },
  ]);
  expect(told.at(-1)).toMatchObject({ type: 'edit' });
  socket().hear({
    type: 'entries',
    entries: [{ seq: 10, at: 1000, who: 'you', action: { type: 'master', level: 0.5 } }],
  });
  expect(made.store.getState().live.master.to).toBe(0.5);
  socket().hear({
    type: 'changes',
    show: 'test',
    changes: [{ id: 'y', command: { type: 'rename-show', name: 'Theirs' } }],
  });
  expect(doc.store.getState().show).toMatchObject({ name: 'Theirs', songs: [{ title: 'Mine' }] });
});

test('a press is never taken for older than it is, and a tap for as old as it most likely is', async () => {
  const { made, socket } = await joined();
  // There and back in 80 ms: clocks are up to 40 ms apart.
  socket().hear({ type: 'pong', sent: socket().said('ping').at(-1)!.sent - 0.08, now: 1000 });
  made.act({ type: 'tap', late: 0.2 });
  made.act({ type: 'master', level: 0.5 });
  const [tap, press] = socket().said('act');
  expect(press!.at! - tap!.at!).toBeGreaterThan(0.03);
  expect(press!.at! - tap!.at!).toBeLessThan(0.2);
  expect(Math.abs(tap!.at! - made.now())).toBeLessThan(0.03);
});

test('a press is made on top of those before it that were not answered yet; what is refused is forgotten', async () => {
  const { made, socket } = await joined();
  const dark = () => [made.store.getState().live.blackout.on, made.foreseen().blackout.on];
  const blackout = (on: boolean) => made.act({ type: 'blackout', on, fade: seconds(0) });
  blackout(true);
  expect(dark()).toEqual([false, true]);
  blackout(false);
  expect(dark()).toEqual([false, false]);
  const entry = (seq: number, on: boolean, who = 'me') => ({
    type: 'entries',
    entries: [{ seq, at: 1000, who, action: { type: 'blackout', on, fade: 0 } }],
  });
  // Somebody else's is no answer.
  socket().hear(entry(10, true, 'you'));
  expect(dark()).toEqual([true, false]);
  socket().hear(entry(11, true, made.screen));
  socket().hear(entry(12, false, made.screen));
  expect(dark()).toEqual([false, false]);
  blackout(true);
  socket().hear({ type: 'refused', why: 'No.' });
  expect(dark()).toEqual([false, false]);
});

test('what was done while the line was cut is sent when it is back, on top of what others did', async () => {
  const { made, doc, words, socket } = await joined();
  socket().onclose({ code: 1006 });
  expect(made.store.getState()).toMatchObject({ conductor: 'lost', live: { seq: 9 } });
  doc.make(rename('Offline'));
  // A press is not kept for later: it is given back.
  made.act({ type: 'blackout', on: true, fade: seconds(0) });
  expect(words).toEqual([{ type: 'not-sent', action: 'blackout' }]);
  const before = socket();
  jest.advanceTimersByTime(1000);
  expect(socket()).not.toBe(before);
  socket().onopen();
  expect(socket().said('hello')).toMatchObject([{ show: { id: 'test', head: 'a' } }]);
  socket().hear(welcome({ id: 'test', head: 'b' }));
  socket().hear({
    type: 'changes',
    show: 'test',
    changes: [{ id: 'b', command: { type: 'rename-show', name: 'Meanwhile' } }],
  });
  expect(socket().said('edit')).toMatchObject([{ change: { command: { of: 'rename-song' } } }]);
  expect(socket().said('act')).toEqual([]);
  expect(doc.store.getState().show).toMatchObject({ name: 'Meanwhile', songs: [{ title: 'Offline' }] });
});

test('a copy that has truly parted is given to be kept beside; what is on stage is followed', async () => {
  const { doc, words, socket } = await link(
    'application/json',
    copyOf({ ...testShow(), name: 'Here' }, ['elsewhere', 'z']),
  );
  socket().onopen();
  socket().hear(welcome({ id: 'test', head: 'x' }));
  socket().hear(theirs({ name: 'On stage' }));
  expect(doc.store.getState().show?.name).toBe('On stage');
  expect(words).toMatchObject([{ type: 'parted', copy: { show: { name: 'Here' } } }]);
});

test('a show that somebody puts on is said, and followed', async () => {
  const { doc, words, socket } = await joined();
  socket().hear(theirs({ id: 'next', name: 'Next' }, ['n'], 'Ana’s phone'));
  expect(doc.store.getState().show?.name).toBe('Next');
  expect(words).toEqual([{ type: 'put-on', by: 'Ana’s phone', show: 'Next' }]);
});

test('a show that is looked into has its light here alone; the server hears nothing of it, and going back takes the stage over again', async () => {
  const { made, doc, socket } = await joined();
  const server = socket();
  await made.lookInto(copyOf({ ...testShow(), id: 'own' as never, name: 'Own' }, ['o']));
  await settle();
  expect(made.store.getState()).toMatchObject({ here: true, live: { standing: [] } });
  const before = server.sent.length;
  made.act({ type: 'blackout', on: true, fade: seconds(0) });
  doc.make(rename('Only here'));
  await settle();
  expect(made.store.getState().live.blackout.on).toBe(true);
  expect(doc.store.getState().copy).toMatchObject({ pending: [], base: { songs: [{ title: 'Only here' }] } });
  expect([server.sent.length, server.closed]).toEqual([before, true]);
  await made.lookInto(undefined);
  socket().onopen();
  socket().hear(welcome({ id: 'test', head: 'a' }));
  socket().hear(theirs({}, [ORIGIN, 'a']));
  expect(made.store.getState()).toMatchObject({ here: false, conductor: 'server' });
  expect(doc.store.getState().show?.id).toBe('test');
});

test('a page whose first questions nobody answered looks again, though it never had a server', async () => {
  window.localStorage.clear();
  let asked = 0;
  const fetch = async () => {
    if (++asked <= 2) throw new TypeError('Failed to fetch');
    return { ok: true, status: 200, headers: { get: () => 'application/json' } };
  };
  Object.assign(globalThis, { fetch, WebSocket: FakeSocket });
  const made = conducting(document(repository(memoryStore())), { tell: () => undefined } as unknown as Light, 'me');
  const before = FakeSocket.last;
  await made.start(Promise.resolve(undefined));
  await settle();
  expect([made.store.getState().conductor, FakeSocket.last === before]).toEqual(['browser', true]);
  jest.advanceTimersByTime(3000);
  await settle();
  expect(FakeSocket.last).not.toBe(before);
  FakeSocket.last.onopen();
  FakeSocket.last.hear(welcome(null));
  expect(made.store.getState().conductor).toBe('server');
});

describe('silence', () => {
  /** Lets time pass as it does for a page that has nothing else to do: with a look at the line every 400 ms. */
  function pass(clock: jest.SpyInstance<number>, from: number, ms: number): void {
    for (let at = 400; at <= ms; at += 400) {
      clock.mockImplementation(() => from + at);
      jest.advanceTimersByTime(400);
    }
  }
  const clocked = () => {
    const start = performance.now();
    const clock = jest.spyOn(performance, 'now');
    clock.mockImplementation(() => start);
    return { start, clock };
  };
  afterEach(() => jest.restoreAllMocks());

  test('of less than three seconds shows that a line is dead', async () => {
    const { start, clock } = clocked();
    const { made, socket } = await joined();
    const first = socket();
    pass(clock, start, 2400);
    expect(made.store.getState().conductor).toBe('server');
    pass(clock, start + 2400, 400);
    expect(first.closed).toBe(true);
    expect(made.store.getState().conductor).toBe('lost');
  });

  test('is none while a line that was lost is opened again, however slow it is, until the show has come', async () => {
    const { start, clock } = clocked();
    const { made, socket } = await joined();
    const first = socket();
    pass(clock, start, 4000);
    const second = socket();
    expect(second).not.toBe(first);
    // Two seconds to open, four to be greeted, and four for a large show.
    pass(clock, start + 4000, 2000);
    expect(second.closed).toBe(false);
    second.onopen();
    expect(second.said('hello')).toHaveLength(1);
    pass(clock, start + 6000, 4000);
    expect([second.closed, made.store.getState().conductor]).toEqual([false, 'lost']);
    second.hear(welcome({ id: 'test', head: 'x' }));
    pass(clock, start + 10_000, 4000);
    expect([second.closed, made.store.getState().conductor]).toEqual([false, 'server']);
    second.hear(theirs());
    // From then on silence is what it was.
    pass(clock, start + 14_000, 2800);
    expect([second.closed, made.store.getState().conductor]).toEqual([true, 'lost']);
    // A line that never opens is given up in the end.
    pass(clock, start + 16_800, 1200);
    const third = socket();
    expect(third).not.toBe(second);
    pass(clock, start + 18_000, 15_600);
    expect(third.closed).toBe(true);
  });

  test('that only seems so to a page that was busy itself shows nothing: what came meanwhile is heard first', async () => {
    const { start, clock } = clocked();
    const { made, socket } = await joined();
    pass(clock, start, 800);
    // The page does something else for five seconds; then its timer comes before the messages that wait.
    clock.mockImplementation(() => start + 5800);
    jest.advanceTimersByTime(400);
    socket().hear({ type: 'beat', screens: 1 });
    pass(clock, start + 5800, 800);
    expect(socket().closed).toBe(false);
    expect(made.store.getState().conductor).toBe('server');
  });

  test('after which nothing waits is silence all the same', async () => {
    const { start, clock } = clocked();
    const { made } = await joined();
    pass(clock, start, 800);
    clock.mockImplementation(() => start + 5800);
    jest.advanceTimersByTime(400);
    pass(clock, start + 5800, 400);
    expect(made.store.getState().conductor).toBe('lost');
  });

  test('of its clock is not yet sure: it is asked again at each look, and a press is not called older than it is', async () => {
    const { start, clock } = clocked();
    const { made, socket } = await joined();
    const pings = () => socket().said('ping');
    const age = () => {
      made.act({ type: 'tap' });
      return (made.now() as number) - socket().said('act').at(-1)!.at!;
    };
    pass(clock, start, 800);
    socket().hear({ type: 'pong', sent: pings()[0]!.sent, now: 1000 });
    expect(age()).toBeCloseTo(-0.4, 6);
    const before = pings().length;
    pass(clock, start + 800, 400);
    expect(pings().length).toBe(before + 1);
    // Answered at once the clock is known, and is asked no more than it always is.
    for (let answers = 0; answers < 6; answers++)
      socket().hear({ type: 'pong', sent: pings().at(-1)!.sent, now: 1001 });
    expect(age()).toBeCloseTo(0, 6);
    const settled = pings().length;
    pass(clock, start + 1200, 800);
    expect(pings().length).toBe(settled);
  });
});

test('a right that is changed counts at once', async () => {
  const { made, socket } = await joined();
  socket().hear({ type: 'may', may: 'viewer' });
  expect(made.store.getState().may).toBe('viewer');
});

test('a message that makes no sense is said, and nothing breaks', async () => {
  const { made, socket } = await link('application/json');
  socket().hear({ type: 'welcome' });
  expect(made.store.getState().refused).toContain('protocol');
});

test('watched levels come as numbers; light that no screen can compute goes to the stage picture', async () => {
  const { made, told, socket } = await joined();
  const seen: number[][] = [];
  const stop = made.watch(2, ({ levels }) => seen.push([levels[0]!, levels[511]!]));
  expect(socket().sent.at(-1)).toEqual({ type: 'watch', universe: 2 });
  const levels = '7f' + '00'.repeat(510) + 'ff';
  socket().hear({ type: 'levels', universe: 2, levels, merged: false });
  socket().hear({ type: 'levels', universe: 5, levels, merged: true });
  expect(seen).toEqual([[127, 255]]);
  expect(told.at(-1)).toMatchObject({ type: 'theirs', universe: 5 });
  stop();
  expect(socket().sent.at(-1)).toEqual({ type: 'watch', universe: null });
});
