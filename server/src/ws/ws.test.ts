import type { FromScreen } from '@hovlix/core/live';
import { envelopesOf, writeEnvelopes } from '@hovlix/core/music';
import { ORIGIN } from '@hovlix/core/show';
import { now } from '../clock';
import { isLocal } from '../http/origin';
import {
  hub,
  shared,
  connections,
  watched,
  port,
  followed,
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

test('an action gets its place in the log and goes to every screen and to the output', async () => {
  const [one, two] = [await screen(), await screen()];
  one.say(hello('one'));
  two.say(hello('two'));
  await Promise.all([one.hears('welcome'), two.hears('welcome')]);
  one.say({ type: 'act', action: { type: 'master', level: 0.5 } });
  for (const each of [one, two])
    await until(() =>
      each.heard.some(
        (message) =>
          message.type === 'entries' &&
          message.entries.some(({ who, action }) => who === 'one' && action.type === 'master'),
      ),
    );
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
  await until(() =>
    first.heard.some(
      (message) => message.type === 'show' && message.show['name'] === 'Next' && message.by === 'the computer',
    ),
  );
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
  const pad = (look: string, press: 'flash' | 'toggle'): FromScreen => ({
    type: 'act',
    action: { type: 'pad', press, down: true, look, fade: 0, fadeOut: 0 },
  });
  one.say(pad('red', 'flash'));
  one.say(pad('spread', 'toggle'));
  await until(() => shared.conductor.state().standing.length === 2);
  one.leave();
  expect(await two.hears('left')).toMatchObject({ name: 'the computer' });
  const on = shared.conductor.state().standing.filter((each) => each.on);
  expect(on.map(({ look }) => look)).toEqual(['spread']);
});

test('a press that was too long on its way is given back to its author, not played; what darkens is done', async () => {
  const one = await screen();
  one.say(hello('one'));
  one.say({ type: 'act', action: { type: 'tap' }, at: now() - 1.5 });
  expect(await one.hears('late')).toMatchObject({ action: 'tap' });
  expect(shared.conductor.state().taps).toEqual([]);
  const made = now() - 0.5;
  one.say({ type: 'act', action: { type: 'tap' }, at: made });
  await until(() => shared.conductor.state().taps.length === 1);
  expect(shared.conductor.state().taps[0]).toBeCloseTo(made, 6);
  one.say({ type: 'act', action: { type: 'blackout', on: true }, at: now() - 0.5 });
  await until(() => shared.conductor.state().blackout.on);
});

test.each([
  ['no JSON', 'hello?', 'not JSON'],
  ['an unknown action', '{"type":"act","action":{"type":"explode"}}', 'action.type'],
  ['what only the conductor says', '{"type":"act","action":{"type":"gone","screen":"test"}}', 'This device'],
  ['a show that is none', '{"type":"put-on","chain":["x"],"show":{"format":"other"}}', 'not a Hovlix show'],
  [
    'an edit that makes no sense',
    '{"type":"edit","show":"test","change":{"id":"x","command":{"type":"adjust","of":"x","ops":[{"op":"set","path":["name"],"from":"Test show","to":7}]}}}',
    'name',
  ],
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
  one.say(hello('one'));
  for (let i = 0; i < 400; i++) one.say({ type: 'ping', sent: i });
  expect((await one.hears('refused')).why).toContain('too much in a second');
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
  expect((await fetch(at(hash))).status).toBe(204);
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
