import { createSocket } from 'node:dgram';
import type { AddressInfo } from 'node:net';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Packet } from 'sacn';
import { readBundle } from '@hovlix/core/files';
import { AT_REST, type LiveState } from '@hovlix/core/live';
import { id, seconds } from '@hovlix/core/units';
import { decodeArtNet, decodeSacn, encodeArtPoll } from '@hovlix/core/wire';
import { now } from '../clock';
import { until } from '../testing/wait';
import { startNode } from './node';
import { startOutput } from './output';
import { startPacer } from './pacer';
import { startSender } from './sender';
import { parseTarget, targetText } from './target';

const cid = Uint8Array.from({ length: 16 }, (_, i) => i);
const bundle = readBundle(readFileSync(join(__dirname, '../../../demo/boathouse.hovlix')), 'boathouse.hovlix');
if (!bundle.ok) throw new Error('the demo does not open');
const { show } = bundle.value;

/** A free UDP port on loopback. */
async function freePort(): Promise<number> {
  const socket = createSocket('udp4');
  await new Promise<void>((resolve) => socket.bind(0, '127.0.0.1', resolve));
  const { port } = socket.address() as AddressInfo;
  await new Promise<void>((resolve) => socket.close(() => resolve()));
  return port;
}

test('targets as people type them', () => {
  expect(parseTarget('sacn:127.0.0.1')).toEqual({ protocol: 'sacn', host: '127.0.0.1', port: 5568 });
  expect(targetText(parseTarget('artnet:10.0.0.4:7000')!)).toBe('artnet:10.0.0.4:7000');
  expect(targetText(parseTarget('sacn:multicast')!)).toBe('sacn:multicast');
  for (const wrong of ['', 'sacn', 'artnet:multicast', 'sacn:999.1.1.1', 'dmx:1.2.3.4', 'sacn:1.2.3.4:99999'])
    expect(parseTarget(wrong)).toBeUndefined();
});

test('the pacer keeps to its start: frame n is due at n / rate, and what was slept through is left out and counted', async () => {
  let time = 0;
  const due: number[] = [];
  const pacer = startPacer(
    () => time,
    10,
    (at) => due.push(at),
  );
  await until(() => due.length === 1);
  time = 0.1;
  await until(() => due.length === 2);
  time = 0.95;
  await until(() => due.length === 3);
  pacer.stop();
  expect(due).toEqual([0, 0.1, 0.9]);
  expect(pacer.report()).toEqual({ frames: 3, skipped: 7 });
});

test('the node hears sACN and Art-Net, and what it reports is what was sent', async () => {
  const ports = { sacn: await freePort(), artnet: await freePort() };
  const node = await startNode('127.0.0.1', ports);
  const senders = (['sacn', 'artnet'] as const).map((protocol) =>
    startSender({ protocol, host: '127.0.0.1', port: ports[protocol] }, cid),
  );
  const frame = Uint8Array.from({ length: 1024 }, (_, i) => i & 255);
  await until(() => {
    for (const sender of senders) sender.send([1, 5], frame);
    return node.report().universes.length === 4 && node.report().universes.every((one) => one.packets > 5);
  });
  for (const universe of node.report().universes) {
    expect(universe.lost).toBe(0);
    expect(universe.levels).toEqual([
      ...frame.subarray(universe.universe === 1 ? 0 : 512, universe.universe === 1 ? 512 : 1024),
    ]);
  }
  expect(
    node
      .report()
      .universes.map((one) => one.protocol)
      .sort(),
  ).toEqual(['artnet', 'artnet', 'sacn', 'sacn']);
  for (const sender of senders) sender.fallSilent();
  // sACN says goodbye; Art-Net has no word for it.
  await until(() => node.report().universes.every((one) => one.protocol === 'artnet'));
  await Promise.all(senders.map((sender) => sender.close()));
  node.close();
});

test('rubbish is counted, a poll is answered, and neither stops the node', async () => {
  const ports = { sacn: await freePort(), artnet: await freePort() };
  const node = await startNode('127.0.0.1', ports);
  const socket = createSocket('udp4');
  const answers: Uint8Array[] = [];
  socket.on('message', (bytes) => answers.push(bytes));
  await new Promise<void>((resolve) => socket.bind(0, '127.0.0.1', resolve));
  for (let i = 0; i < 50; i++)
    socket.send(
      Uint8Array.from({ length: i * 13 }, (_, k) => (k * i) & 255),
      ports.sacn,
      '127.0.0.1',
    );
  socket.send(encodeArtPoll(), ports.artnet, '127.0.0.1');
  await until(() => node.report().bad >= 50 && answers.length === 1);
  expect(decodeArtNet(answers[0]!)).toMatchObject({
    kind: 'poll-reply',
    reply: { shortName: 'Hovlix node', ip: [127, 0, 0, 1] },
  });
  expect(node.report().lastBad).toContain('sACN');
  socket.close();
  node.close();
});

test('a playing song goes out as packets an independent library reads, and they change with the music', async () => {
  const socket = createSocket('udp4');
  const packets: Packet[] = [];
  const raw: Uint8Array[] = [];
  socket.on('message', (bytes) => {
    raw.push(bytes);
    packets.push(new Packet(bytes, '127.0.0.1'));
  });
  await new Promise<void>((resolve) => socket.bind(0, '127.0.0.1', resolve));
  const output = startOutput([{ protocol: 'sacn', host: '127.0.0.1', port: socket.address().port }], cid);
  const at = now();
  // Chorus 1 of Paper Lighthouse: the bars' lights change twice a bar.
  const state: LiveState = {
    ...AT_REST,
    song: { id: id<'Song'>('paper-lighthouse'), playing: true, songTime: seconds(36), at, rate: 1, since: at },
  };
  await output.tell({ type: 'show', show });
  await output.tell({ type: 'state', state });
  await until(() => packets.length > 60);
  expect(new Set(packets.map((packet) => JSON.stringify(packet.payload))).size).toBeGreaterThan(10);
  expect(packets[0]).toMatchObject({ universe: 1, sourceName: 'Hovlix', priority: 100 });
  for (let i = 1; i < packets.length; i++)
    expect((packets[i]!.sequence - packets[i - 1]!.sequence + 256) % 256).toBe(1);
  // Master output off: three goodbyes, then silence.
  await output.tell({ type: 'entry', entry: { seq: 1, at: now(), who: 't', action: { type: 'sending', on: false } } });
  const saysGoodbye = (bytes: Uint8Array) => {
    const read = decodeSacn(bytes);
    return read.kind === 'data' && read.data.terminated;
  };
  await until(() => raw.filter(saysGoodbye).length === 3);
  expect(raw.slice(-3).every(saysGoodbye)).toBe(true);
  await output.tell({ type: 'stop' });
  socket.close();
});
