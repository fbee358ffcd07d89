// Light while a device that has joined sends all it can: the built command, measured at a receiver.

import { createSocket } from 'node:dgram';
import { readFileSync } from 'node:fs';
import { WebSocket } from 'ws';
import type { Status } from '@hovlix/core/connect';
import { readBundle } from '@hovlix/core/files';
import { PROTOCOL } from '@hovlix/core/live';
import type { Show } from '@hovlix/core/show';
import { encodeOsc } from '@hovlix/core/wire';
import { listenToOsc } from './osc';
import { receiver, spacingOf, watchedHost } from './receiver';
import { startServer } from './served';

const PORT = 4791;
const WIRE = 6991;
const OSC_PORT = 9091;
const LINES = 6;
/** OSC packets at once, every few milliseconds: some thousands a second. */
const OSC_PACKETS = 20;
/** How long each flood lasts, in seconds. */
const LENGTH = 8;

/** What is sent in a flood, the n-th message of it. */
type Flood = { readonly name: string; readonly message: (n: number) => object | string };

function floodsOf(show: Show): readonly Flood[] {
  const act = (action: object) => ({ type: 'act', action });
  const role = (n: number) => show.roles[n % show.roles.length]!.id;
  const look = (n: number) => show.looks[n % show.looks.length]!.id;
  const waves = [{ type: 'wave', on: 'level', shape: 'square', low: 0, high: 1, span: { beats: 0.25 } }];
  const held = Array.from({ length: 2048 }, (_, i) => ({
    universe: 1 + (i >> 9),
    address: 1 + (i & 511),
    value: i & 255,
  }));
  const hands = (n: number) =>
    Array.from({ length: 400 }, (_, i) => ({
      role: role(i + n),
      pick: { type: 'places', places: [i % 8] },
      level: { type: 'hold', value: (n % 10) / 10 },
      waves,
    }));
  const bad = { type: 'act', action: { type: 'hand', values: [{ role: 'x'.repeat(50), level: 3 }] } };
  return [
    {
      name: 'looks on and off',
      message: (n) => act({ type: n % 2 ? 'look-off' : 'look-on', look: look(n), fade: 0.2 }),
    },
    { name: '400 values in hand', message: (n) => act({ type: 'hand', values: hands(n) }) },
    { name: '2,048 channels held', message: () => act({ type: 'hold-channels', channels: held }) },
    { name: 'looks nobody knows', message: (n) => act({ type: 'look-on', look: `nobody-${n}`, fade: 0 }) },
    {
      name: 'edits',
      message: (n) => ({
        type: 'edit',
        show: show.id,
        change: { id: `flood-${n}`, command: { type: 'rename-show', name: `Show ${n}` } },
      }),
    },
    { name: 'whole shows', message: (n) => ({ type: 'put-on', show, chain: [`flood-${n}`] }) },
    { name: 'refused messages', message: () => bad },
    { name: 'what is no message', message: () => '{'.repeat(60_000) },
  ];
}

/** The same over OSC, from a program in the network: packets of it. */
const packetsOf = (show: Show): readonly { readonly name: string; readonly packet: (n: number) => Uint8Array }[] => [
  {
    name: 'looks on and off over OSC',
    packet: (n) => encodeOsc('/hovlix/look', 'si', [show.looks[n % show.looks.length]!.name, n % 2]),
  },
  { name: 'a master over OSC', packet: (n) => encodeOsc('/hovlix/master', 'f', [0.5 + (n % 50) / 100]) },
  { name: 'what is no OSC', packet: (n) => new Uint8Array(1400).fill(n) },
];

/** Frames a second at the receiver, and the longest gap in ms, in seconds in which the host took no time away. */
export type Flooded = { readonly name: string; readonly perSecond: number; readonly longest: number };

export async function floods(stolen: () => number): Promise<readonly Flooded[]> {
  const node = await receiver(WIRE);
  const server = await startServer(PORT, '--demo', '--lan-at', '127.0.0.2', '--lan', '--to', `sacn:127.0.0.1:${WIRE}`);
  const demo = readBundle(readFileSync(new URL('../../demo/boathouse.hovlix', import.meta.url)), 'demo');
  if (!demo.ok) throw new Error('the demo does not open');
  const cookie = await joined();
  const wait = (seconds: number) => new Promise((resolve) => setTimeout(resolve, seconds * 1000));
  await wait(6);
  const found: Flooded[] = [];
  /** Says something again and again, and measures meanwhile. */
  const flood = async (name: string, say: (n: number) => void, many: number) => {
    node.heard.length = 0;
    const host = watchedHost(stolen);
    let n = 0;
    const begun = performance.now();
    while (performance.now() - begun < LENGTH * 1000) {
      for (let i = 0; i < many; i++) say(n++);
      await wait(0.002);
    }
    const { perSecond, quiet } = spacingOf(node.heard, host());
    found.push({ name, perSecond, longest: quiet.reduce((most, gap) => Math.max(most, gap), 0) });
  };
  for (const { name, message } of floodsOf(demo.value.show)) {
    const lines = await Promise.all(Array.from({ length: LINES }, (_, i) => lineOf(cookie, `flood-${i}`)));
    const say = (n: number) => {
      const line = lines[n % LINES]!;
      const said = message(n);
      // What the other side does not take is not piled up here.
      if (line.bufferedAmount < 4e6) line.send(typeof said === 'string' ? said : JSON.stringify(said));
    };
    await flood(name, say, LINES);
    for (const line of lines) line.close();
    await wait(2);
  }
  await listenToOsc(PORT, OSC_PORT);
  const tablet = createSocket('udp4');
  for (const { name, packet } of packetsOf(demo.value.show)) {
    await flood(name, (n) => tablet.send(packet(n), OSC_PORT, '127.0.0.1', () => undefined), OSC_PACKETS);
    await wait(2);
  }
  tablet.close();
  server.kill('SIGTERM');
  await new Promise((resolve) => server.once('exit', resolve));
  node.close();
  return found;
}

async function joined(): Promise<string> {
  const status = (await (await fetch(`http://127.0.0.1:${PORT}/api/status`)).json()) as Status;
  const code = status.phones.code;
  const answer = await fetch(`http://127.0.0.2:${PORT}/join`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ code, name: 'Flood' }),
  });
  const cookie = answer.headers.get('set-cookie')?.split(';')[0];
  if (!cookie) throw new Error(`nobody is let in: ${answer.status} ${await answer.text()}`);
  return cookie;
}

function lineOf(cookie: string, name: string): Promise<WebSocket> {
  return new Promise((resolve, reject) => {
    const socket = new WebSocket(`ws://127.0.0.2:${PORT}/conductor`, { headers: { cookie } });
    socket.once('error', reject).once('open', () => {
      socket.on('error', () => undefined);
      socket.send(JSON.stringify({ type: 'hello', protocol: PROTOCOL, screen: name, show: null }));
      resolve(socket);
    });
  });
}
