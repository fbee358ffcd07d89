import { createServer, get, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { mkdtempSync, mkdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { WebSocket } from 'ws';
import type { FromScreen, ToScreen } from '@hovlix/core/live';
import { edit } from '@hovlix/core/show';
import { id } from '@hovlix/core/units';
import { testShow } from '../../../core/src/testing/show';
import { isLocal } from '../http/origin';
import { site } from '../http/site';
import { until } from '../testing/wait';
import { startHub, type Hub } from './hub';
import { session, type Session } from './session';

let server: Server;
let hub: Hub;
let shared: Session;
let port: number;
const followed: string[] = [];
const screens: WebSocket[] = [];

beforeEach(async () => {
  const folder = mkdtempSync(join(tmpdir(), 'hovlix-site-'));
  mkdirSync(join(folder, '_expo'));
  writeFileSync(join(folder, 'index.html'), '<h1>Hovlix</h1>');
  writeFileSync(join(folder, '_expo/entry-abc.js'), '1');
  followed.length = 0;
  shared = session({
    show: (show) => followed.push(`show ${show.name}`),
    entry: (entry) => followed.push(entry.action.type),
  });
  server = createServer(site(folder, () => ({ version: 'test', screens: hub.screens(), output: null, node: null })));
  hub = startHub(server, shared);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  port = (server.address() as AddressInfo).port;
});
afterEach(() => {
  for (const screen of screens.splice(0)) screen.terminate();
  hub.close();
  server.close();
});

type Screen = {
  readonly heard: ToScreen[];
  readonly say: (message: FromScreen | string) => void;
  readonly hears: <T extends ToScreen['type']>(type: T) => Promise<Extract<ToScreen, { type: T }>>;
};

async function screen(origin = `http://localhost:${port}`): Promise<Screen> {
  const socket = new WebSocket(`ws://localhost:${port}/conductor`, { origin });
  screens.push(socket);
  const heard: ToScreen[] = [];
  socket.on('message', (data) => heard.push(JSON.parse(String(data))));
  await new Promise((resolve, reject) => socket.once('open', resolve).once('error', reject));
  return {
    heard,
    say: (message) => socket.send(typeof message === 'string' ? message : JSON.stringify(message)),
    hears: (type) => until(() => heard.find((message) => message.type === type)) as never,
  };
}

const hello = (show: { id: string; revision: number } | null = null): FromScreen => ({
  type: 'hello',
  protocol: 1,
  screen: 'test',
  show,
});
const json = () => JSON.parse(JSON.stringify(testShow()));
const page = (path: string, headers: Record<string, string> = {}) =>
  new Promise<{ status: number; headers: Record<string, unknown>; body: string }>((resolve) =>
    get({ port, path, host: '127.0.0.1', headers: { host: `localhost:${port}`, ...headers } }, (response) => {
      let body = '';
      response
        .on('data', (part) => (body += part))
        .on('end', () => resolve({ status: response.statusCode!, headers: response.headers, body }));
    }),
  );

test('an action gets its place in the log and goes to every screen and to the output', async () => {
  const [one, two] = [await screen(), await screen()];
  one.say(hello());
  two.say(hello());
  await Promise.all([one.hears('welcome'), two.hears('welcome')]);
  one.say({ type: 'act', action: { type: 'master', level: 0.5 } });
  for (const each of [one, two]) {
    const { entries } = await each.hears('entries');
    expect(entries).toMatchObject([{ seq: 1, who: 'test', action: { type: 'master', level: 0.5 } }]);
  }
  expect(followed).toEqual(['master']);
});

test('who comes late gets the state as it is, and the show if it has none', async () => {
  const first = await screen();
  first.say(hello());
  first.say({ type: 'show', show: json(), revision: 4 });
  first.say({ type: 'act', action: { type: 'blackout', on: true, fade: 0 } });
  await first.hears('entries');
  const late = await screen();
  late.say(hello());
  expect(await late.hears('welcome')).toMatchObject({
    state: { seq: 1, blackout: { on: true } },
    show: { id: 'test', revision: 4 },
  });
  expect((await late.hears('show')).show['name']).toBe('Test show');
});

test('an edit reaches the output and the other screens; one made on an old copy gets the newer show back', async () => {
  const [one, two] = [await screen(), await screen()];
  one.say(hello());
  one.say({ type: 'show', show: json(), revision: 0 });
  two.say(hello());
  await two.hears('welcome');
  const { change } = edit(testShow(), { type: 'rename-song', song: id('song'), title: 'Renamed' });
  one.say({ type: 'edit', patches: change.patches as never, revision: 0 });
  expect((await two.hears('edit')).patches).toEqual(change.patches);
  await until(() => shared.document()?.show.songs[0]!.title === 'Renamed');
  expect(followed).toHaveLength(2);
  one.heard.length = 0;
  one.say({ type: 'edit', patches: change.patches as never, revision: 0 });
  expect(await one.hears('show')).toMatchObject({ revision: 1 });
});

test.each([
  ['no JSON', 'hello?', 'not JSON'],
  ['an unknown action', '{"type":"act","action":{"type":"explode"}}', 'action.type'],
  ['a show that is none', '{"type":"show","revision":0,"show":{"format":"other"}}', 'not a Hovlix show'],
  [
    'an edit that does not fit',
    '{"type":"edit","revision":0,"patches":[{"op":"replace","path":["songs",7,"x"],"value":1}]}',
    'does not fit',
  ],
])('%s is refused in words, and the connection goes on', async (_, text, words) => {
  const one = await screen();
  one.say(hello());
  one.say({ type: 'show', show: json(), revision: 0 });
  one.say(text);
  expect((await one.hears('refused')).why).toContain(words);
  one.say({ type: 'act', action: { type: 'tap' } });
  expect((await one.hears('entries')).entries).toHaveLength(1);
  expect(shared.document()?.show.name).toBe('Test show');
});

test('a flood is answered once and then ignored', async () => {
  const one = await screen();
  for (let i = 0; i < 400; i++) one.say({ type: 'ping', sent: i });
  expect((await one.hears('refused')).why).toContain('Too many');
  expect(one.heard.filter((message) => message.type === 'refused')).toHaveLength(1);
});

test('pages from elsewhere and names that only point here are turned away', async () => {
  await expect(screen('http://evil.example')).rejects.toThrow('403');
  expect((await page('/', { host: 'evil.example' })).status).toBe(403);
  expect((await page('/api/status', { origin: 'http://evil.example' })).status).toBe(403);
  expect(isLocal('127.0.0.1:4747', 'http://127.0.0.1:4747')).toBe(true);
  expect(isLocal('localhost:4747', 'http://localhost:9999')).toBe(false);
  expect(isLocal(undefined, undefined)).toBe(false);
});

test('deep links get the page, hashed files are kept for a year, the rest is asked for anew', async () => {
  const deep = await page('/songs/paper-lighthouse');
  expect([deep.status, deep.body, deep.headers['cache-control']]).toEqual([200, '<h1>Hovlix</h1>', 'no-cache']);
  expect((await page('/_expo/entry-abc.js')).headers['cache-control']).toContain('immutable');
  expect((await page('/missing.png')).status).toBe(404);
  expect((await page('/api/nothing')).status).toBe(404);
  const policy = String(deep.headers['content-security-policy']);
  expect(policy).toContain("script-src 'self' 'wasm-unsafe-eval'");
  expect(policy).toContain("frame-ancestors 'none'");
  expect(deep.headers['x-content-type-options']).toBe('nosniff');
});
