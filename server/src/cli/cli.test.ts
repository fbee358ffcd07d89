// The built command, as a user types it. `./test` builds it first.

import { spawnSync } from 'node:child_process';
import { createSocket } from 'node:dgram';
import { copyFileSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Packet } from 'sacn';
import { WebSocket } from 'ws';
import type { Status } from '@hovlix/core/connect';
import { readBundle } from '@hovlix/core/files';
import { PROTOCOL } from '@hovlix/core/live';
import { readMidi } from '@hovlix/core/midi';
import { tempoAt } from '@hovlix/core/time';
import { seconds } from '@hovlix/core/units';
import { cidOfThisMachine } from '../connect/cid';
import { started } from '../testing/children';
import { until } from '../testing/wait';

const root = join(__dirname, '../../..');
const folder = mkdtempSync(join(tmpdir(), 'hovlix-cli-'));
const show = join(root, 'demo/boathouse.hovlix');
const hovlix = (...args: string[]) =>
  spawnSync(process.execPath, [join(root, 'server/bin/hovlix.mjs'), ...args], {
    encoding: 'utf8',
    cwd: folder,
    env: { ...process.env, HOME: folder },
  });
const out = (name: string) => join(folder, name);
/** A MIDI file as text, by a converter of Debian's; undefined where it is not installed. */
const asText = (file: string) => {
  const done = spawnSync('midicsv', [file], { encoding: 'utf8' });
  return done.error ? undefined : done.stdout;
};

/** A click track at 100 bpm as a WAV, mono, 22.05 kHz. */
function clickTrack(): string {
  const rate = 22050;
  const frames = rate * 15;
  const bytes = Buffer.alloc(44 + frames * 2);
  bytes.write('RIFF', 0);
  bytes.writeUInt32LE(bytes.length - 8, 4);
  bytes.write('WAVEfmt ', 8);
  bytes.writeUInt32LE(16, 16);
  [1, 1].forEach((value, i) => bytes.writeUInt16LE(value, 20 + 2 * i));
  bytes.writeUInt32LE(rate, 24);
  bytes.writeUInt32LE(rate * 2, 28);
  bytes.writeUInt16LE(2, 32);
  bytes.writeUInt16LE(16, 34);
  bytes.write('data', 36);
  bytes.writeUInt32LE(frames * 2, 40);
  for (let i = 0; i < frames; i++) {
    const since = (i / rate) % 0.6;
    bytes.writeInt16LE(Math.round(20000 * Math.sin(2 * Math.PI * 400 * since) * Math.exp(-since * 50)), 44 + 2 * i);
  }
  writeFileSync(out('clicks.wav'), bytes);
  return out('clicks.wav');
}

test('analyse writes duration, tempo, meter, beats and downbeats', () => {
  const done = hovlix('analyse', clickTrack(), '--json', out('a.json'));
  expect([done.status, done.stderr]).toEqual([0, '']);
  const found = JSON.parse(readFileSync(out('a.json'), 'utf8'));
  expect(found.durationSec).toBeCloseTo(15, 1);
  expect(found.bpm).toBeCloseTo(100, 0);
  expect(found.meter).toMatch(/^[34]\/4$/);
  expect(found.beats.length).toBeGreaterThan(20);
  expect(found.downbeats.length).toBeGreaterThan(4);
  expect(found.sections).toEqual([]);
});

test('analyse takes several files and folders, and writes MIDI files with the tempo; one that is broken stops no other', () => {
  const clicks = clickTrack();
  writeFileSync(out('letter.wav'), 'Dear friends');
  const done = hovlix('analyse', clicks, out('letter.wav'), '--json', out('found'), '--midi', out('found'));
  expect(done.status).toBe(1);
  expect(done.stderr).toContain('1 of 2: clicks.wav, 100.');
  expect(done.stderr).toContain('letter.wav” is not music Hovlix can read');
  expect(JSON.parse(readFileSync(join(out('found'), 'clicks.json'), 'utf8')).confidence).toBeGreaterThan(0.3);
  const midi = readMidi(readFileSync(join(out('found'), 'clicks.mid')), 'clicks.mid');
  if (!midi.ok) throw new Error('the MIDI file cannot be read');
  const [first] = midi.value.tempo;
  expect(60 / first!.pulse).toBeCloseTo(100, 0);
});

test('two recordings of one name are told apart, and a place that cannot be written to is one line', () => {
  const clicks = clickTrack();
  const folder = out('demos');
  mkdirSync(join(folder, 'a.wav'), { recursive: true });
  copyFileSync(clicks, join(folder, 'clicks.wav'));
  const done = hovlix('analyse', clicks, folder, '--json', out('both'));
  expect(done.status).toBe(1);
  expect(done.stderr).toContain(`${join(folder, 'a.wav')} cannot be read (EISDIR)`);
  expect(readdirSync(out('both')).sort()).toEqual(['clicks (2).json', 'clicks.json']);
  const nowhere = hovlix('analyse', clicks, '--json', out('no/such/folder.json'));
  expect([nowhere.status, nowhere.stderr]).toEqual([
    2,
    `hovlix: ${out('no/such/folder.json')} cannot be written: its folder is not there\n`,
  ]);
});

test('render to CSV: 44 lines a second, 512 levels each, and the light changes', () => {
  expect(
    hovlix('render', show, '--song', 'paper lighthouse', '--from', '36', '--to', '40', '--out', out('x.csv')).status,
  ).toBe(0);
  const [head, ...lines] = readFileSync(out('x.csv'), 'utf8').trim().split('\n');
  expect(head!.split(',').slice(0, 3)).toEqual(['time_s', 'universe', '1']);
  expect(lines).toHaveLength(176);
  expect(lines[0]!.split(',')).toHaveLength(514);
  expect(lines[0]).toMatch(/^36\.0000,1,/);
  expect(new Set(lines.map((line) => line.split(',').slice(2).join())).size).toBeGreaterThan(20);
});

test('render to PCAP: sACN packets with their times, the same bytes every time', () => {
  const args = ['--song', 'Night Ferry', '--from', '80', '--to', '82'];
  expect(hovlix('render', show, ...args, '--out', out('a.pcap')).status).toBe(0);
  expect(hovlix('render', show, ...args, '--out', out('b.pcap')).status).toBe(0);
  const bytes = readFileSync(out('a.pcap'));
  expect(bytes.equals(readFileSync(out('b.pcap')))).toBe(true);
  const length = 16 + 14 + 20 + 8 + 638;
  expect((bytes.length - 24) / length).toBe(88);
  const record = bytes.subarray(24 + length * 44, 24 + length * 45);
  expect(record.readUInt32LE(0) + record.readUInt32LE(4) / 1e6).toBeCloseTo(81, 5);
  expect(new Packet(record.subarray(58), '127.0.0.1')).toMatchObject({
    universe: 1,
    sequence: 44,
    sourceName: 'Hovlix',
  });
});

test('an evening that was written down while it was served is rendered again', async () => {
  const args = ['serve', '--demo', '--port', '0', '--home', out('home'), '--log', out('evening.log')];
  const child = started(args);
  const address = await new Promise<string>((resolve) =>
    child.stdout.on('data', (part) => resolve(/localhost:\d+/.exec(String(part))![0])),
  );
  const socket = new WebSocket(`ws://${address}/conductor`);
  await new Promise((resolve) => socket.once('open', resolve));
  socket.send(JSON.stringify({ type: 'hello', protocol: PROTOCOL, screen: 'evening', show: null }));
  const act = (action: object) => socket.send(JSON.stringify({ type: 'act', action }));
  const pressed = new Promise<void>((resolve) =>
    socket.on('message', (data) => String(data).includes('"all-off"') && resolve()),
  );
  act({ type: 'look-on', look: 'full-sail', fade: 0 });
  await new Promise((resolve) => setTimeout(resolve, 1000));
  act({ type: 'all-off', fade: 1 });
  await pressed;
  socket.close();
  child.kill('SIGTERM');
  await new Promise((resolve) => child.once('exit', resolve));
  expect(hovlix('render', show, '--log', out('evening.log'), '--out', out('evening.csv'))).toMatchObject({
    status: 0,
    stderr: '',
  });
  const [, ...lines] = readFileSync(out('evening.csv'), 'utf8').trim().split('\n');
  // The dimmer of the first front lamp.
  const front = (second: number) => Number(lines[Math.round(second * 44)]!.split(',')[2]);
  expect(front(0.5)).toBeGreaterThan(50);
  expect(front(4)).toBe(0);
  writeFileSync(out('bad.log'), readFileSync(out('evening.log'), 'utf8').replace('"look-on"', '"fly"'));
  const bad = hovlix('render', show, '--log', out('bad.log'), '--out', out('z.csv'));
  expect([bad.status, bad.stderr]).toEqual([1, expect.stringContaining('at line 3')]);
});

test('another rig plays the same song with other lamps', () => {
  expect(
    hovlix(
      'render',
      show,
      '--song',
      'Paper Lighthouse',
      '--rig',
      'Village hall',
      '--from',
      '36',
      '--to',
      '37',
      '--out',
      out('h.csv'),
    ).status,
  ).toBe(0);
  const levels = readFileSync(out('h.csv'), 'utf8').split('\n')[1]!.split(',').slice(2).map(Number);
  expect(Math.max(...levels.slice(0, 24))).toBeGreaterThan(100);
  expect(Math.max(...levels.slice(24))).toBe(0);
});

test.each([
  [['fly'], 2, 'no command “fly”'],
  [['analyse'], 2, 'takes one FILE'],
  [['analyse', 'nowhere.wav', '--json', 'x'], 2, 'no file nowhere.wav'],
  [['render', show, '--song', 'Nothing', '--out', 'x.csv'], 2, 'It has: Paper Lighthouse'],
  [['render', show, '--song', 'Night Ferry', '--out', 'x.mp3'], 2, '.pcap or .csv'],
  [['render', show, '--song', 'Night Ferry', '--from', 'soon', '--out', 'x.csv'], 2, '--from takes a number'],
  [['render', show, '--song', 'x', '--log', 'y', '--out', 'x.csv'], 2, 'not both'],
  [['serve', '--log', '/nowhere/x.log'], 2, 'cannot be written'],
  [['play', show, '--song', 'Night Ferry', '--to', 'dmx:here'], 2, 'sacn:ADDRESS'],
  [['serve', '--port', '99999'], 2, '--port takes a number'],
  [['serve', '--colour'], 2, '--colour'],
  [['serve', '--input-port', '65535'], 2, '--input-port takes a number from 1024 to 65534'],
])('bad use is one line and status 2: %j', (args, status, words) => {
  const done = hovlix(...args);
  expect(done.status).toBe(status);
  expect(done.stderr).toContain(words);
  expect(done.stderr.trim().split('\n')).toHaveLength(1);
});

test('a bad file is one line and status 1', () => {
  writeFileSync(out('letter.hovlix'), 'Dear friends');
  const done = hovlix('render', out('letter.hovlix'), '--song', 'x', '--out', out('y.csv'));
  expect([done.status, done.stderr]).toEqual([1, expect.stringContaining('not a zip file')]);
});

test.each(['serve', 'analyse', 'render', 'play', 'node'])('%s --help says how', (command) => {
  const done = hovlix(command, '--help');
  expect([done.status, done.stdout.startsWith(`Usage: hovlix ${command}`)]).toEqual([0, true]);
});

test('play sends to the network in real time until it is stopped', async () => {
  const socket = createSocket('udp4');
  await new Promise<void>((resolve) => socket.bind(0, '127.0.0.1', resolve));
  const child = started(['play', show, '--song', 'Night Ferry', '--to', `sacn:127.0.0.1:${socket.address().port}`]);
  let heard = 0;
  await new Promise<void>((resolve) => socket.on('message', () => ++heard === 40 && resolve()));
  child.kill('SIGTERM');
  expect(await new Promise((resolve) => child.once('exit', resolve))).toBe(0);
  socket.close();
});

test('a taken port is one line', async () => {
  const holder = createServer();
  await new Promise<void>((resolve) => holder.listen(0, '127.0.0.1', resolve));
  const done = started(['serve', '--port', String((holder.address() as AddressInfo).port)]);
  let said = '';
  done.stderr.on('data', (part) => (said += part));
  expect(await new Promise((resolve) => done.once('exit', resolve))).toBe(1);
  expect(said.trim().split('\n')).toEqual([expect.stringContaining('is taken')]);
  holder.close();
});

test('two on one computer each hear what is sent to their own input ports', async () => {
  const first = 20_000 + (process.pid % 5000) * 4;
  const ports = [first, first + 2];
  const bases = await Promise.all(
    ports.map((port) => {
      const more = ['--to', `sacn:127.0.0.1:${port + 20_000}`, '--input-port', String(port)];
      const child = started(['serve', '--port', '0', '--home', out(`home-${port}`), ...more]);
      return new Promise<string>((resolve) =>
        child.stdout.on('data', (part) => resolve(`http://${/localhost:\d+/.exec(String(part))![0]}`)),
      );
    }),
  );
  /** How many packets each heard that are none. */
  const heard = () =>
    Promise.all(
      bases.map(async (base) => ((await (await fetch(`${base}/api/status`)).json()) as Status).input?.bad ?? -1),
    );
  await until(async () => (await heard()).every((count) => count === 0));
  const socket = createSocket('udp4');
  const send = (port: number) => socket.send('no packet at all', port, '127.0.0.1');
  // sACN of the second, three times; Art-Net of the first, once.
  for (const port of [ports[1]!, ports[1]!, ports[1]!, ports[0]! + 1]) send(port);
  await until(async () => String(await heard()) === '1,3');
  socket.close();
});

test('a second one that would write over the first, or take what it hears, says so until the first is gone', async () => {
  const home = out('home-of-two');
  mkdirSync(home);
  const input = { id: 'i', universe: 1, on: true, protocol: 'sacn', number: 1, merge: 'highest' };
  const connections = { format: 'hovlix-connections', version: 1, sourceName: 'T', sync: false, outputs: [] };
  writeFileSync(join(home, 'connect.json'), JSON.stringify({ ...connections, inputs: [input], seen: [] }));
  const port = 40_001 + (process.pid % 5000) * 4;
  const serve = async () => {
    const child = started(['serve', '--port', '0', '--home', home, '--input-port', String(port)], {
      HOVLIX_LOG: 'silent',
    });
    const base = await new Promise<string>((resolve) =>
      child.stdout.on('data', (part) => resolve(`http://${/localhost:\d+/.exec(String(part))![0]}`)),
    );
    const troubles = async () => ((await (await fetch(`${base}/api/status`)).json()) as Status).troubles;
    return { child, troubles };
  };
  const first = await serve();
  expect(await first.troubles()).toEqual([]);
  const second = await serve();
  expect(await second.troubles()).toEqual([
    expect.stringContaining(`keeps its show in ${home}, too`),
    expect.stringContaining(`at the same ports, ${port} and ${port + 1}`),
  ]);
  expect(await first.troubles()).toEqual([]);
  first.child.kill('SIGTERM');
  await until(async () => (await second.troubles()).length === 0);
});

test('the name on the network is kept', () => {
  const home = mkdtempSync(join(tmpdir(), 'hovlix-home-'));
  const first = Buffer.from(cidOfThisMachine(home)).toString('hex');
  expect(first).toHaveLength(32);
  expect(Buffer.from(cidOfThisMachine(home)).toString('hex')).toBe(first);
});

test('midi writes a song as a file that other programs read, and brings it into another song of the show', () => {
  const written = hovlix('midi', show, '--song', 'Paper Lighthouse', '--out', out('a.mid'));
  expect([written.status, written.stderr]).toEqual([0, '']);
  const text = asText(out('a.mid'));
  if (text === undefined) process.stderr.write('midicsv is not installed: what it reads was not looked at\n');
  else {
    expect(text).toMatch(/^0, 0, Header, 1, \d+, 960$/m);
    expect(text).toMatch(/^1, 0, Title_t, "Paper Lighthouse"$/m);
    // 112 beats a minute; the first verse begins with bar 5 of 4/4.
    expect(text).toMatch(/^1, 0, Tempo, 53571\d$/m);
    expect(text).toMatch(/^1, 15360, Marker_t, "Verse 1"$/m);
  }
  const listed = hovlix('midi', show, '--song', 'Paper Lighthouse', '--in', out('a.mid'), '--list');
  expect(listed.stdout).toMatch(/^meter {4}4\/4$/m);

  // Two drums by hand: a kick on 1 and 3, a snare on 2 (type 0, 96 ticks a beat, 100 beats a minute).
  const event = (...bytes: number[]) => bytes;
  const track = [
    ...event(0, 0xff, 0x51, 3, 9, 39, 0xc0),
    ...event(0, 0x99, 36, 100),
    ...event(96, 0x99, 38, 64),
    ...event(96, 0x99, 36, 100),
    ...event(0, 0xff, 0x2f, 0),
  ];
  writeFileSync(
    out('drums.mid'),
    Buffer.from([
      ...Buffer.from('MThd'),
      0,
      0,
      0,
      6,
      0,
      0,
      0,
      1,
      0,
      96,
      ...Buffer.from('MTrk'),
      0,
      0,
      0,
      track.length,
      ...track,
    ]),
  );
  const into = ['midi', show, '--song', 'Low Tide Engine', '--in', out('drums.mid')];
  const taken = hovlix(...into, '--part', '1/10=Movers', '--tempo', 'yes', '--by-note', '--out', out('b.hovlix'));
  expect([taken.status, taken.stderr]).toEqual([0, '']);
  const bundle = readBundle(readFileSync(out('b.hovlix')), 'b');
  if (!bundle.ok) throw new Error('the show cannot be read');
  const song = bundle.value.show.songs.find(({ title }) => title === 'Low Tide Engine')!;
  const lanes = song.lanes.flatMap((lane) => (lane.type === 'hits' ? [lane] : []));
  expect(lanes.map(({ name, role, notes }) => [name, role, notes.map(({ at }) => at)])).toEqual([
    ['Kick', 'movers', [0, 2]],
    ['Snare', 'movers', [1]],
  ]);
  expect(tempoAt(song.tempo, seconds(1))).toBeCloseTo(100, 3);

  const fails = (...args: string[]) => hovlix(...into, ...args).stderr;
  expect(fails('--part', '7/1', '--out', out('c.hovlix'))).toBe(
    'hovlix: There is no part 7/1 in the file. It has: 1/10\n',
  );
  expect(fails('--tempo', 'maybe', '--out', out('c.hovlix'))).toBe('hovlix: --tempo takes yes or no, got: maybe\n');
  expect(hovlix('midi', show, '--song', 'Low Tide Engine', '--in', show, '--list').stderr).toMatch(
    /is not a MIDI file Hovlix can read/,
  );
});
