import { createServer, request, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { mkdtempSync, mkdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { WebSocket } from 'ws';
import type { FromScreen, ToScreen } from '@hovlix/core/live';
import { editConnections } from '@hovlix/core/connect';
import { envelopesOf, writeEnvelopes } from '@hovlix/core/music';
import { edit } from '@hovlix/core/show';
import { id } from '@hovlix/core/units';
import { testShow } from '../../../core/src/testing/show';
import { ownDoor, phonesDoor } from '../http/doors';
import { isLocal } from '../http/origin';
import { pairing, type Pairing } from '../http/pairing';
import { site, type Desk } from '../http/site';
import { soundStore } from '../sounds';
import { connectionsStore, type ConnectionsStore } from '../connect/store';
import { until } from '../testing/wait';
import { startHub, type Hub } from './hub';
import { session, type Session } from './session';

let server: Server;
let hub: Hub;
let shared: Session;
let connections: ConnectionsStore;
let known: Pairing;
let phonesServer: Server;
let phonesPort: number;
let watched: readonly number[] = [];
const joinFolder = join(__dirname, '../../join');
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
  connections = connectionsStore(undefined, (why) => followed.push(why));
  known = pairing(undefined, Date.now);
  hub = startHub(shared, connections, (universes) => (watched = universes));
  const desk = {
    status: (host: boolean) => ({ host, screens: hub.screens() }) as never,
    sounds: soundStore(join(folder, 'sounds'), (sounds) => followed.push(`sounds ${sounds.length}`)),
    openToPhones: async () => undefined,
    frames: async () => [],
    renewCode: () => known.renew(),
    sendAway(device: string) {
      hub.sendAway(device);
      return known.revoke(device);
    },
  } satisfies Desk;
  server = createServer(site(folder, desk, ownDoor));
  hub.attach(server, ({ headers }) => (isLocal(headers.host, headers.origin) ? { device: null } : undefined));
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  port = (server.address() as AddressInfo).port;
  phonesServer = createServer(
    site(
      folder,
      desk,
      phonesDoor(known, () => [`hall.test:${phonesPort}`], joinFolder),
    ),
  );
  hub.attach(phonesServer, ({ headers }) => {
    const device = known.deviceOf(headers.cookie);
    return device ? { device } : undefined;
  });
  await new Promise<void>((resolve) => phonesServer.listen(0, '127.0.0.1', resolve));
  phonesPort = (phonesServer.address() as AddressInfo).port;
});
afterEach(() => {
  for (const screen of screens.splice(0)) screen.terminate();
  hub.close();
  server.close();
  phonesServer.close();
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
  protocol: 5,
  screen: 'test',
  show,
});
const json = () => JSON.parse(JSON.stringify(testShow()));
const page = (path: string, headers: Record<string, string> = {}, method = 'GET') =>
  new Promise<{ status: number; headers: Record<string, unknown>; body: string }>((resolve) =>
    request(
      { port, path, method, host: '127.0.0.1', headers: { host: `localhost:${port}`, ...headers } },
      (response) => {
        let body = '';
        response
          .on('data', (part) => (body += part))
          .on('end', () => resolve({ status: response.statusCode!, headers: response.headers, body }));
      },
    ).end(),
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

test('deep connections get the page, hashed files are kept for a year, the rest is asked for anew', async () => {
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

test('what followers hear in a song is kept, told to the output, and given to any screen; anything else is refused', async () => {
  const hash = 'ab'.repeat(32);
  const at = (name: string) => `http://localhost:${port}/api/sounds/${name}`;
  const bring = (name: string, body: Uint8Array<ArrayBuffer>) =>
    fetch(at(name), { method: 'PUT', headers: { 'content-type': 'application/octet-stream' }, body });
  const sound = writeEnvelopes(envelopesOf(new Uint8Array(16 * 300).map((_, i) => i % 251)));
  expect((await fetch(at(hash))).status).toBe(404);
  expect((await bring(hash, sound)).status).toBe(204);
  expect(followed).toEqual(['sounds 1']);
  expect(new Uint8Array(await (await fetch(at(hash))).arrayBuffer())).toEqual(sound);
  const cut = await bring('cd'.repeat(32), sound.slice(0, 100));
  expect(cut.status).toBe(400);
  expect(await cut.json()).toMatchObject({ error: expect.stringContaining('cut short') });
  expect((await bring('..%2fetc', sound)).status).toBe(400);
  expect(followed).toHaveLength(1);
});

test('connections: an edit reaches every screen, one on an old copy gets the truth back, and levels go to who watches', async () => {
  const [one, two] = [await screen(), await screen()];
  for (const each of [one, two]) each.say(hello());
  expect((await two.hears('connections')).revision).toBe(0);
  const { change } = editConnections(connections.connections(), { type: 'name-source', sourceName: 'Boathouse' });
  two.heard.length = 0;
  one.say({ type: 'connections-edit', patches: change.patches as never, revision: 0 });
  expect(await two.hears('connections')).toMatchObject({ revision: 1, connections: { sourceName: 'Boathouse' } });
  two.heard.length = 0;
  two.say({ type: 'connections-edit', patches: change.patches as never, revision: 0 });
  expect(await two.hears('connections')).toMatchObject({ revision: 1 });
  two.say({ type: 'watch', universe: 3 });
  await until(() => watched.includes(3));
  hub.showLevels(
    3,
    Uint8Array.from({ length: 512 }, (_, i) => i & 255),
    false,
  );
  const { levels } = await two.hears('levels');
  expect(levels.slice(0, 8)).toBe('00010203');
  expect(one.heard.some((message) => message.type === 'levels')).toBe(false);
  // Light that no screen can compute goes to all.
  hub.showLevels(9, new Uint8Array(512), true);
  expect(await one.hears('levels')).toMatchObject({ universe: 9, merged: true });
});

describe('the phones’ door', () => {
  const knock = (
    path: string,
    options: { method?: string; body?: object; text?: string; headers?: Record<string, string> } = {},
  ) =>
    new Promise<{ status: number; headers: Record<string, string | string[] | undefined>; body: string }>((resolve) => {
      const asked = request(
        {
          port: phonesPort,
          path,
          host: '127.0.0.1',
          method: options.method ?? 'GET',
          headers: {
            host: `hall.test:${phonesPort}`,
            ...(options.body || options.text ? { 'content-type': 'application/json' } : {}),
            ...options.headers,
          },
        },
        (response) => {
          let body = '';
          response
            .on('data', (part) => (body += part))
            .on('end', () => resolve({ status: response.statusCode!, headers: response.headers, body }));
        },
      );
      asked.end(options.body ? JSON.stringify(options.body) : options.text);
    });
  const phone = (cookie?: string) =>
    new Promise<WebSocket>((resolve, reject) => {
      const socket = new WebSocket(`ws://127.0.0.1:${phonesPort}/conductor`, {
        headers: { host: `hall.test:${phonesPort}`, ...(cookie ? { cookie } : {}) },
      });
      screens.push(socket);
      socket.once('open', () => resolve(socket)).once('error', reject);
    });
  const joins = async (code: string) => knock('/join', { method: 'POST', body: { code, name: 'Ana’s phone' } });

  test('who has not joined gets the page that says how to, whatever was asked for, and nothing else', async () => {
    for (const path of ['/', '/connect', '/songs/x', '/_expo/entry-abc.js', '/index.html']) {
      const answer = await knock(path);
      expect([path, answer.status]).toEqual([path, 401]);
      expect(answer.body).toContain('Join the light');
    }
    expect((await knock('/api/status')).status).toBe(401);
    expect((await knock('/api/phones', { method: 'POST', body: { open: false } })).status).toBe(401);
    expect((await knock('/join/join.js')).status).toBe(200);
    await expect(phone()).rejects.toThrow('403');
  });

  test('a wrong code is refused in words, many are slowed down, and the right one still works from elsewhere', async () => {
    const { code } = known.code();
    const wrong = code === '000000' ? '111111' : '000000';
    const first = await joins(wrong);
    expect([first.status, JSON.parse(first.body).error]).toEqual([403, 'That is not the code. Try again.']);
    await joins(wrong);
    await joins(wrong);
    const waiting = await joins(code);
    expect([waiting.status, waiting.headers['set-cookie']]).toEqual([429, undefined]);
    expect((await knock('/join', { method: 'POST', body: { code: 7 } })).status).toBe(400);
    const rubbish = await knock('/join', { method: 'POST', text: '{ not json' });
    expect([rubbish.status, rubbish.body]).toEqual([400, '{"error":"The request could not be read."}']);
    expect((await knock('/join', { method: 'POST', text: `{"code":"${'1'.repeat(5000)}"}` })).status).toBe(413);
    expect(known.attempt(code, 'x', 'another address').ok).toBe(true);
  });

  test('who typed the code is let in, follows the light, may not open doors, and is gone when sent away', async () => {
    const { status, headers } = await joins(known.code().code);
    expect(status).toBe(200);
    const cookie = String(headers['set-cookie']).split(';')[0]!;
    expect((await knock('/connect', { headers: { cookie } })).body).toContain('Hovlix');
    expect(JSON.parse((await knock('/api/status', { headers: { cookie } })).body).host).toBe(false);
    expect((await knock('/api/phones/code', { method: 'POST', headers: { cookie } })).status).toBe(404);
    expect((await knock('/join', { headers: { cookie } })).status).toBe(302);
    const socket = await phone(cookie);
    const heard: ToScreen[] = [];
    socket.on('message', (data) => heard.push(JSON.parse(String(data))));
    socket.send(JSON.stringify(hello()));
    await until(() => heard.some((message) => message.type === 'welcome'));
    socket.send(JSON.stringify({ type: 'act', action: { type: 'tap' } }));
    const entries = await until(() => heard.find((message) => message.type === 'entries'));
    expect(entries).toMatchObject({ entries: [{ who: 'Ana’s phone' }] });
    const device = known.devices()[0]!.id;
    expect(hub.screens(device)).toBe(1);
    const closed = new Promise<number>((resolve) => socket.once('close', resolve));
    const away = await page(`/api/phones/devices/${device}`, {}, 'DELETE');
    expect([away.status, await closed]).toEqual([200, 4001]);
    expect((await knock('/', { headers: { cookie } })).status).toBe(401);
    await expect(phone(cookie)).rejects.toThrow('403');
  });

  test('other names, other origins and a flood are turned away', async () => {
    expect((await knock('/', { headers: { host: 'evil.example' } })).status).toBe(403);
    expect((await knock('/join', { headers: { origin: 'http://evil.example' } })).status).toBe(403);
    const many = await Promise.all(Array.from({ length: 1250 }, () => knock('/join/join.css')));
    expect(many.filter(({ status }) => status === 429).length).toBeGreaterThan(20);
  });
});
