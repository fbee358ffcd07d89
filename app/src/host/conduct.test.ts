import { AT_REST } from '@hovlix/core/live';
import { Command } from '@hovlix/core/show';
import { seconds } from '@hovlix/core/units';
import { testShow } from '../../../core/src/testing/show';
import { conducting } from './conduct';
import { document } from './document';
import type { Light } from './light';
import type { ToLight } from './light-messages';
import { repository } from './repository';
import { memoryStore } from './storage';

type Sent = { type: string; [key: string]: unknown };

/** A browser's WebSocket as far as the link needs it; the test speaks for the server. */
class FakeSocket {
  static readonly OPEN = 1;
  static last: FakeSocket;
  readonly readyState = 1;
  readonly sent: Sent[] = [];
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
}

const answered = (type: string) =>
  jest.fn(async () => ({ ok: true, headers: { get: () => type } })) as unknown as typeof fetch;

async function link(contentType: string) {
  Object.assign(globalThis, { fetch: answered(contentType), WebSocket: FakeSocket });
  const told: ToLight[] = [];
  const light = { tell: (message: ToLight) => told.push(message), onEntry: () => undefined } as unknown as Light;
  const doc = document(repository(memoryStore()));
  const made = conducting(doc, light, 'me');
  await doc.open({ show: testShow(), revision: 4 });
  await made.start();
  return { made, told, doc };
}

const welcome = (show: object | null) => ({
  type: 'welcome',
  protocol: 5,
  now: 1000,
  state: { ...AT_REST, seq: 9 },
  show,
});

// The page's own clock goes on: it is what a screen tells the time by.
beforeEach(() => jest.useFakeTimers({ doNotFake: ['performance'] }));
afterEach(() => jest.useRealTimers());

test('on a static host the browser conducts: acts go to the worker', async () => {
  const { made, told } = await link('text/html');
  expect(made.store.getState().conductor).toBe('browser');
  made.act({ type: 'tap' });
  expect(told.at(-1)).toEqual({ type: 'act', who: 'me', action: { type: 'tap' } });
});

test('with a server: it says hello, takes the state, and brings its show where the server has none or an older one', async () => {
  for (const [theirs, brings] of [
    [null, true],
    [{ id: 'test', revision: 2 }, true],
    [{ id: 'test', revision: 4 }, false],
  ] as const) {
    const { made } = await link('application/json');
    const socket = FakeSocket.last;
    socket.onopen();
    expect(socket.sent[0]).toMatchObject({ type: 'hello', screen: 'me', show: { id: 'test', revision: 4 } });
    socket.hear(welcome(theirs));
    expect(made.store.getState()).toMatchObject({ conductor: 'server', live: { seq: 9 } });
    expect(socket.sent.some((message) => message.type === 'show')).toBe(brings);
  }
});

test('acts and edits go to the server, and what comes from it is not sent back', async () => {
  const { made, doc, told } = await link('application/json');
  const socket = FakeSocket.last;
  socket.onopen();
  socket.hear(welcome({ id: 'test', revision: 4 }));
  socket.sent.length = 0;
  made.act({ type: 'master', level: 0.5 });
  doc.make(Command.parse({ type: 'rename-song', song: 'song', title: 'Mine' }));
  expect(socket.sent).toMatchObject([{ type: 'act' }, { type: 'edit', revision: 4 }]);
  socket.hear({
    type: 'entries',
    entries: [{ seq: 10, at: 1000, who: 'you', action: { type: 'master', level: 0.5 } }],
  });
  expect(made.store.getState().live.master.to).toBe(0.5);
  expect(told.at(-1)).toMatchObject({ type: 'entry' });
  socket.hear({ type: 'show', show: { ...testShow(), name: 'Theirs' }, revision: 12 });
  expect(doc.store.getState()).toMatchObject({ revision: 12, history: { show: { name: 'Theirs' } } });
  expect(socket.sent).toHaveLength(2);
});

test('a server that goes is said, the browser goes on from the same state, and looks for it again', async () => {
  const { made, told } = await link('application/json');
  const first = FakeSocket.last;
  first.onopen();
  first.hear(welcome({ id: 'test', revision: 4 }));
  first.onclose({ code: 1006 });
  expect(made.store.getState()).toMatchObject({ conductor: 'lost', live: { seq: 9 } });
  made.act({ type: 'blackout', on: true, fade: seconds(0) });
  expect(told.at(-1)).toMatchObject({ type: 'act' });
  jest.advanceTimersByTime(2000);
  expect(FakeSocket.last).not.toBe(first);
});

test('a message that makes no sense is said, and nothing breaks', async () => {
  const { made } = await link('application/json');
  FakeSocket.last.hear({ type: 'welcome' });
  expect(made.store.getState().refused).toContain('protocol');
});

test('a screen that woke up asks for the time anew, and takes a new socket when nobody answers', async () => {
  const { made, told } = await link('application/json');
  const socket = FakeSocket.last;
  socket.onopen();
  socket.hear(welcome({ id: 'test', revision: 4 }));
  const wake = () => window.document.dispatchEvent(new Event('visibilitychange'));
  const pings = () => socket.sent.filter((message) => message.type === 'ping').length;
  const before = pings();
  wake();
  expect(pings()).toBe(before + 1);
  socket.hear({ type: 'pong', sent: socket.sent.at(-1)!.sent, now: 5000 });
  expect(told.at(-1)?.type).toBe('clock');
  expect(Math.abs((made.now() as number) - 5000)).toBeLessThan(1);
  jest.advanceTimersByTime(1600);
  expect(socket.closed).toBe(false);
  wake();
  jest.advanceTimersByTime(1600);
  expect(socket.closed).toBe(true);
});

test('watched levels come as numbers; light that no screen can compute goes to the stage picture', async () => {
  const { made, told } = await link('application/json');
  const socket = FakeSocket.last;
  socket.onopen();
  socket.hear(welcome({ id: 'test', revision: 4 }));
  const seen: number[][] = [];
  const stop = made.watch(2, ({ levels }) => seen.push([levels[0]!, levels[511]!]));
  expect(socket.sent.at(-1)).toEqual({ type: 'watch', universe: 2 });
  const levels = '7f' + '00'.repeat(510) + 'ff';
  socket.hear({ type: 'levels', universe: 2, levels, merged: false });
  socket.hear({ type: 'levels', universe: 5, levels, merged: true });
  expect(seen).toEqual([[127, 255]]);
  expect(told.at(-1)).toMatchObject({ type: 'theirs', universe: 5 });
  stop();
  expect(socket.sent.at(-1)).toEqual({ type: 'watch', universe: null });
});
