import { request } from 'node:http';
import { WebSocket } from 'ws';
import type { FromScreen, Right, ToScreen } from '@hovlix/core/live';
import {
  hub,
  shared,
  connections,
  known,
  phonesPort,
  screens,
  screen,
  hello,
  putOn,
  rename,
  json,
  page,
  serveEachTest,
} from '../testing/served';
import { until } from '../testing/wait';

serveEachTest();

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
