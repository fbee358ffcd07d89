import { createServer, request, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { mkdtempSync, mkdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { WebSocket } from 'ws';
import { session, type Session } from '@hovlix/core/conduct';
import { PROTOCOL, type FromScreen, type Right, type ToScreen } from '@hovlix/core/live';
import { envelopesOf, writeEnvelopes } from '@hovlix/core/music';
import { ORIGIN } from '@hovlix/core/show';
import { testShow } from '../../../core/src/testing/show';
import { now } from '../clock';
import { ownDoor, phonesDoor } from '../http/doors';
import { isLocal } from '../http/origin';
import { pairing, type Pairing } from '../http/pairing';
import { site, type Desk } from '../http/site';
import { soundStore } from '../sounds';
import { connectionsStore, type ConnectionsStore } from '../connect/store';
import { until } from '../testing/wait';
import { startHub, type Hub } from './hub';

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
  shared = session(now, {
    show: (show) => followed.push(`show ${show.name}`),
    changed: (ops) => followed.push(`changed ${ops.length}`),
    entry: (entry) => followed.push(entry.action.type),
    keep: () => undefined,
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
    grantTo: (may: Right) => known.grantTo(may),
    setRight(device: string, may: Right) {
      const there = known.setRight(device, may);
      if (there) hub.tellRight(device, may);
      return there;
    },
    answer: (one: string, letIn: boolean) => known.answer(one, letIn),
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
  readonly leave: () => void;
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
    leave: () => socket.terminate(),
    say: (message) => socket.send(typeof message === 'string' ? message : JSON.stringify(message)),
    hears: (type) => until(() => heard.find((message) => message.type === type)) as never,
  };
}

const hello = (name = 'test', show: { id: string; head: string } | null = null): FromScreen => ({
  type: 'hello',
  protocol: PROTOCOL,
  screen: name,
  show,
});
const putOn = (chain: string[] = [ORIGIN], ifNone = false): FromScreen => ({
  type: 'put-on',
  show: json(),
  chain,
  ...(ifNone ? { ifNone } : {}),
});
const rename = (change: string, title: string): FromScreen => ({
  type: 'edit',
  show: 'test',
  change: { id: change, command: { type: 'rename-song', song: 'song', title } },
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
  one.say(hello('one'));
  two.say(hello('two'));
  await Promise.all([one.hears('welcome'), two.hears('welcome')]);
  one.say({ type: 'act', action: { type: 'master', level: 0.5 } });
  for (const each of [one, two])
    await until(() => each.heard.some((message) => message.type === 'entries' && message.entries.some(({ who, action }) => who === 'one' && action.type === 'master'))); // prettier-ignore
  expect(followed.filter((type) => type === 'master')).toHaveLength(1);
});

test('who comes late gets the state as it is, and the show if it has none', async () => {
  const first = await screen();
  first.say(hello('first'));
  first.say(putOn());
  first.say({ type: 'act', action: { type: 'blackout', on: true, fade: 0 } });
  await until(() => followed.includes('blackout'));
  const late = await screen();
  late.say(hello('late'));
  expect(await late.hears('welcome')).toMatchObject({
    state: { blackout: { on: true } },
    show: { id: 'test', head: ORIGIN },
    may: 'operator',
  });
  expect((await late.hears('show')).show['name']).toBe('Test show');
});

test('a screen that joins with another show, or an older copy, changes nothing: only putting one on does', async () => {
  const first = await screen();
  first.say(hello('first'));
  first.say(putOn());
  await first.hears('show');
  for (const show of [{ id: 'another', head: 'x' }, { id: 'test', head: 'long-gone' }, null]) {
    const late = await screen();
    late.say(hello(`late ${show?.id}`, show));
    late.say({ ...putOn(), show: { ...json(), name: 'Theirs' }, ifNone: true } as FromScreen);
    expect((await late.hears('show')).show['name']).toBe('Test show');
  }
  expect(shared.order()?.show.name).toBe('Test show');
  const last = await screen();
  last.say(hello('last'));
  last.say({ ...putOn(), show: { ...json(), id: 'next', name: 'Next' } } as FromScreen);
  // Every screen is told, by whom, and what was on is off.
  await until(() => first.heard.some((message) => message.type === 'show' && message.show['name'] === 'Next' && message.by === 'the computer')); // prettier-ignore
  expect(followed).toContain('show-on');
});

test('an edit reaches the output and every screen; a screen that missed some gets just those', async () => {
  const [one, two] = [await screen(), await screen()];
  one.say(hello('one'));
  one.say(putOn());
  two.say(hello('two'));
  await two.hears('welcome');
  one.say(rename('a', 'Renamed'));
  for (const each of [one, two]) expect((await each.hears('changes')).changes).toMatchObject([{ id: 'a' }]);
  expect(followed.at(-1)).toBe('changed 1');
  one.say(rename('b', 'Again'));
  const back = await screen();
  back.say(hello('back', { id: 'test', head: 'a' }));
  expect((await back.hears('changes')).changes).toMatchObject([{ id: 'b' }]);
  expect(back.heard.some(({ type }) => type === 'show')).toBe(false);
  // Said twice, as after a line that broke: it is there once.
  one.say(rename('b', 'Again'));
  expect(await one.hears('again')).toMatchObject({ id: 'b' });
  expect(shared.order()?.chain).toEqual([ORIGIN, 'a', 'b']);
});

test('a gesture is seen on stage and by others while it goes on, and leaves nothing behind when its screen goes', async () => {
  const [one, two] = [await screen(), await screen()];
  one.say(hello('one'));
  one.say(putOn());
  two.say(hello('two'));
  await two.hears('show');
  const ops = [{ op: 'set' as const, path: ['name'], from: 'Test show', to: 'Dragged' }];
  one.say({ type: 'preview', show: 'test', ops });
  expect(await two.hears('preview')).toMatchObject({ screen: 'one', ops });
  expect([shared.order()?.show.name, shared.shown()?.name]).toEqual(['Test show', 'Dragged']);
  one.leave();
  await until(() => shared.shown()?.name === 'Test show');
});

test('what a screen held is let go a moment after it went, and that is said; what it switched on stays', async () => {
  const [one, two] = [await screen(), await screen()];
  one.say(hello('one'));
  one.say(putOn());
  two.say(hello('two'));
  const pad = (look: string, press: 'flash' | 'toggle'): FromScreen => ({ type: 'act', action: { type: 'pad', press, down: true, look, fade: 0, fadeOut: 0 } }); // prettier-ignore
  one.say(pad('red', 'flash'));
  one.say(pad('spread', 'toggle'));
  await until(() => shared.conductor.state().standing.length === 2);
  one.leave();
  expect(await two.hears('left')).toMatchObject({ name: 'the computer' });
  const on = shared.conductor.state().standing.filter((each) => each.on);
  expect(on.map(({ look }) => look)).toEqual(['spread']);
});

test('a press that was too long on its way is given back to its author, not played', async () => {
  const one = await screen();
  one.say(hello('one'));
  one.say({ type: 'act', action: { type: 'blackout', on: true }, at: now() - 0.5 });
  expect(await one.hears('late')).toMatchObject({ action: 'blackout' });
  expect(shared.conductor.state().blackout.on).toBe(false);
  one.say({ type: 'act', action: { type: 'blackout', on: true }, at: now() });
  await until(() => shared.conductor.state().blackout.on);
});

test.each([
  ['no JSON', 'hello?', 'not JSON'],
  ['an unknown action', '{"type":"act","action":{"type":"explode"}}', 'action.type'],
  ['what only the conductor says', '{"type":"act","action":{"type":"gone","screen":"test"}}', 'This device'],
  ['a show that is none', '{"type":"put-on","chain":["x"],"show":{"format":"other"}}', 'not a Hovlix show'],
  ['an edit that makes no sense', '{"type":"edit","show":"test","change":{"id":"x","command":{"type":"adjust","of":"x","ops":[{"op":"set","path":["name"],"from":"Test show","to":7}]}}}', 'name'], // prettier-ignore
])('%s is refused in words, and the connection goes on', async (_, text, words) => {
  const one = await screen();
  one.say(hello());
  one.say(putOn());
  await one.hears('show');
  one.say(text);
  const refusal = () => one.heard.find((message) => message.type === 'refused' || message.type === 'refused-edit');
  expect(await until(refusal)).toMatchObject({ why: expect.stringContaining(words) });
  one.say({ type: 'act', action: { type: 'tap' } });
  await until(() => followed.includes('tap'));
  expect(shared.order()?.show.name).toBe('Test show');
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

test('connections: edits are done in their order and reach every screen, and levels go to who watches', async () => {
  const [one, two] = [await screen(), await screen()];
  one.say(hello('one'));
  two.say(hello('two'));
  await Promise.all([one.hears('connections'), two.hears('connections')]);
  two.heard.length = 0;
  one.say({ type: 'connections-edit', command: { type: 'name-source', sourceName: 'Boathouse' } });
  expect(await two.hears('connections')).toMatchObject({ connections: { sourceName: 'Boathouse' } });
  two.heard.length = 0;
  const sync = !connections.connections().sync;
  two.say({ type: 'connections-edit', command: { type: 'choose-sync', sync } });
  expect(await two.hears('connections')).toMatchObject({ connections: { sourceName: 'Boathouse', sync } });
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
    expect(entries).toMatchObject({ entries: [{ who: 'test' }] });
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

  /** A device that joined with a right, on a line of its own. */
  async function device(may: Right, name: string) {
    known.grantTo(may);
    const { headers } = await joins(known.code().code);
    const socket = await phone(String(headers['set-cookie']).split(';')[0]!);
    const heard: ToScreen[] = [];
    socket.on('message', (data) => heard.push(JSON.parse(String(data))));
    const say = (message: FromScreen) => socket.send(JSON.stringify(message));
    say(hello(name));
    await until(() => heard.some(({ type }) => type === 'welcome'));
    const hears = (type: ToScreen['type']) => until(() => heard.find((message) => message.type === type));
    return { socket, say, heard, hears, id: known.devices().at(-1)!.id };
  }

  test('a viewer may only look and a player only play, over every kind of message; what the host gives counts at once', async () => {
    const host = await screen();
    host.say(hello('host'));
    host.say(putOn());
    await host.hears('show');
    const forbidden: readonly FromScreen[] = [
      rename('x', 'Theirs'),
      { type: 'preview', show: 'test', ops: [] },
      { ...putOn(), show: { ...json(), id: 'other' } } as FromScreen,
      { type: 'connections-edit', command: { type: 'name-source', sourceName: 'Theirs' } },
      { type: 'act', action: { type: 'sending', on: false } },
      { type: 'act', action: { type: 'hold-channels', channels: [{ universe: 1, address: 1, value: 9 }] } },
    ];
    const blackout: FromScreen = { type: 'act', action: { type: 'blackout', on: true } };
    const viewer = await device('viewer', 'viewer');
    for (const message of [...forbidden, blackout]) {
      viewer.heard.length = 0;
      viewer.say(message);
      expect(await viewer.hears('refused')).toMatchObject({ why: expect.stringContaining('may look only') });
    }
    const player = await device('player', 'player');
    for (const message of forbidden) {
      player.heard.length = 0;
      player.say(message);
      expect(await player.hears('refused')).toMatchObject({ why: expect.stringContaining('may play') });
    }
    expect([shared.order()?.show.id, shared.order()?.show.songs[0]!.title]).toEqual(['test', 'Song']);
    expect([connections.connections().sourceName, shared.conductor.state().sending]).not.toContain('Theirs');
    expect(shared.conductor.state()).toMatchObject({ sending: true, held: [], blackout: { on: false } });
    player.say(blackout);
    await until(() => shared.conductor.state().blackout.on);
    known.setRight(player.id, 'operator');
    hub.tellRight(player.id, 'operator');
    expect(await player.hears('may')).toMatchObject({ may: 'operator' });
    player.say(rename('y', 'Theirs now'));
    await until(() => shared.order()?.show.songs[0]!.title === 'Theirs now');
  });

  test('a device without a code is let in by the host who sees the same figures, however many codes were guessed', async () => {
    for (let n = 0; n < 12; n++) known.attempt('nonsense', 'guest', '127.0.0.1');
    expect((await joins(known.code().code)).status).toBe(429);
    const { body } = await knock('/join/knock', { method: 'POST', body: { name: 'Drummer’s tablet' } });
    const asked = JSON.parse(body) as { id: string; tag: string };
    expect((await knock(`/join/knock/${asked.id}`)).status).toBe(202);
    expect(known.knocks()).toMatchObject([{ name: 'Drummer’s tablet', tag: asked.tag }]);
    // Somebody else who asks later gets figures of its own, and nobody in.
    known.knock('A guest', '10.0.0.66');
    expect(known.knocks()).toHaveLength(2);
    expect(known.answer(asked.id, true)).toBe(true);
    const answer = await knock(`/join/knock/${asked.id}`);
    expect(answer.status).toBe(200);
    const cookie = String(answer.headers['set-cookie']).split(';')[0]!;
    expect((await knock('/api/status', { headers: { cookie } })).status).toBe(200);
    expect((await knock(`/join/knock/${asked.id}`)).status).toBe(410);
    expect(known.answer(known.knocks()[0]!.id, false)).toBe(true);
    expect(known.knocks()).toEqual([]);
  });

  test('eight devices that open all they may leave room for the host', async () => {
    const cookies: string[] = [];
    for (let n = 0; n < 8; n++)
      cookies.push(String((await joins(known.code().code)).headers['set-cookie']).split(';')[0]!);
    for (const cookie of cookies) for (let n = 0; n < 7; n++) await phone(cookie);
    await expect(phone(cookies[0])).rejects.toThrow('503');
    const host = await screen();
    host.say(hello('host'));
    expect(await host.hears('welcome')).toMatchObject({ may: 'operator' });
  });
});
