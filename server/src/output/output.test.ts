import { createSocket, type Socket } from 'node:dgram';
import type { AddressInfo } from 'node:net';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Packet } from 'sacn';
import { readBundle } from '@hovlix/core/files';
import { Connections, type NetworkFace } from '@hovlix/core/connect';
import { AT_REST, type LiveState } from '@hovlix/core/live';
import { id, seconds } from '@hovlix/core/units';
import {
  decodeArtNet,
  decodeSacn,
  encodeArtPoll,
  SACN_DISCOVERY_UNIVERSE,
  SACN_PORT,
  sacnGroup,
} from '@hovlix/core/wire';
import type { z } from 'zod';
import { now } from '../clock';
import { networksOfThisComputer } from '../connect/networks';
import { sharedLevels, writeShared } from '../input/shared-levels';
import { startNode } from '../stand-ins/node';
import { startSerial } from '../stand-ins/serial';
import { until } from '../testing/wait';
import { startOutput, type Output } from './output';
import { parseTarget } from './target';

const cid = Uint8Array.from({ length: 16 }, (_, i) => i);
const bundle = readBundle(readFileSync(join(__dirname, '../../../demo/boathouse.hovlix')), 'boathouse.hovlix');
if (!bundle.ok) throw new Error('the demo does not open');
const { show } = bundle.value;
const networks = networksOfThisComputer();

/** Everything that a test opened is closed, whether it passed or not. */
const toClose: (() => unknown)[] = [];
afterEach(async () => {
  for (const close of toClose.splice(0).reverse()) await close();
});

function output(connections: Connections, faces: readonly NetworkFace[] = networks): Output {
  const made = startOutput({ cid, connections, networks: faces });
  toClose.push(() => made.tell({ type: 'stop' }));
  return made;
}

type Receiver = { readonly socket: Socket; readonly port: number; readonly heard: Buffer[] };

async function receiver(wanted = 0, address = '127.0.0.1'): Promise<Receiver> {
  const socket = createSocket('udp4');
  const heard: Buffer[] = [];
  socket.on('message', (bytes) => heard.push(bytes));
  await new Promise<void>((resolve) => socket.bind(wanted, address, resolve));
  toClose.push(() => socket.close());
  return { socket, port: (socket.address() as AddressInfo).port, heard };
}

/** A free UDP port on loopback. */
async function freePort(): Promise<number> {
  const socket = createSocket('udp4');
  await new Promise<void>((resolve) => socket.bind(0, '127.0.0.1', resolve));
  const { port } = socket.address() as AddressInfo;
  await new Promise<void>((resolve) => socket.close(() => resolve()));
  return port;
}

type RowInput = NonNullable<z.input<typeof Connections>['outputs']>[number];
const sacnRow = (port: number, more: Partial<RowInput> = {}, way: object = {}): RowInput => ({
  id: `s${port}-${more.universe ?? 1}`,
  universe: 1,
  way: { protocol: 'sacn', to: '127.0.0.1', network: null, number: more.universe ?? 1, priority: 100, port, ...way },
  ...more,
});
const artRow = (port: number, universe = 1, to = '127.0.0.1'): RowInput => ({
  id: `a${port}-${universe}`,
  universe,
  way: { protocol: 'artnet', to, network: null, number: universe - 1, port },
});
const connectionsOf = (...outputs: RowInput[]) =>
  Connections.parse({ format: 'hovlix-connections', version: 1, outputs });
const holding = (...held: LiveState['held']): LiveState => ({ ...AT_REST, held });
const levelsIn = (bytes: Uint8Array) => {
  const read = decodeSacn(bytes);
  return read.kind === 'data' ? read.data.levels : undefined;
};

test('targets as people type them', () => {
  expect(parseTarget('sacn:127.0.0.1')?.(3)).toEqual({
    protocol: 'sacn',
    to: '127.0.0.1',
    network: null,
    number: 3,
    priority: 100,
  });
  expect(parseTarget('artnet:10.0.0.4:7000')?.(3)).toEqual({
    protocol: 'artnet',
    to: '10.0.0.4',
    network: null,
    number: 2,
    port: 7000,
  });
  expect(parseTarget('artnet:broadcast')?.(1)).toMatchObject({ to: 'broadcast', number: 0 });
  expect(parseTarget('plain:/dev/ttyUSB0')?.(1)).toEqual({ protocol: 'serial', kind: 'plain', path: '/dev/ttyUSB0' });
  for (const wrong of ['', 'sacn', 'artnet:multicast', 'sacn:999.1.1.1', 'dmx:1.2.3.4', 'sacn:1.2.3.4:99999', 'plain:'])
    expect(parseTarget(wrong)).toBeUndefined();
});

test('one universe over sACN and Art-Net at once, several universes on each: the node reports what was sent', async () => {
  const ports = { sacn: await freePort(), artnet: await freePort() };
  const node = await startNode({ ports });
  toClose.push(() => node.close());
  const connections = connectionsOf(
    sacnRow(ports.sacn),
    sacnRow(ports.sacn, { universe: 5 }),
    artRow(ports.artnet),
    artRow(ports.artnet, 5),
  );
  const made = output(connections);
  await made.tell({ type: 'show', show });
  await made.tell({
    type: 'state',
    state: holding({ universe: 1, address: 512, value: 77 }, { universe: 5, address: 3, value: 200 }),
  });
  await until(
    () =>
      node.report().universes.length === 4 &&
      node
        .report()
        .universes.every(
          (one) => one.packets > 20 && (one.universe === 5 ? one.levels[2] === 200 : one.levels[511] === 77),
        ),
  );
  for (const universe of node.report().universes) expect(universe.lost).toBe(0);
  expect(made.report().rows.map((row) => row.state)).toEqual(['live', 'live', 'live', 'live']);
});

test('rubbish is counted, a poll is answered, and neither stops the node', async () => {
  const ports = { sacn: await freePort(), artnet: await freePort() };
  const node = await startNode({ ports });
  toClose.push(() => node.close());
  const { socket, heard } = await receiver();
  for (let i = 0; i < 50; i++)
    socket.send(
      Uint8Array.from({ length: i * 13 }, (_, k) => (k * i) & 255),
      ports.sacn,
      '127.0.0.1',
    );
  socket.send(encodeArtPoll(), ports.artnet, '127.0.0.1');
  await until(() => node.report().bad >= 50 && heard.length === 1);
  expect(decodeArtNet(heard[0]!)).toMatchObject({
    kind: 'poll-reply',
    reply: { shortName: 'Hovlix node', ip: [127, 0, 0, 1] },
  });
  expect(node.report().lastBad).toContain('sACN');
});

test('a playing song goes out as packets an independent library reads, and they change with the music', async () => {
  const { port, heard } = await receiver();
  const made = output(connectionsOf(sacnRow(port)));
  const at = now();
  // Chorus 1 of Paper Lighthouse: the bars' lights change twice a bar.
  const state: LiveState = {
    ...AT_REST,
    song: { id: id<'Song'>('paper-lighthouse'), playing: true, songTime: seconds(36), at, rate: 1, since: at },
  };
  await made.tell({ type: 'show', show });
  await made.tell({ type: 'state', state });
  await until(() => heard.length > 60);
  const packets = heard.map((bytes) => new Packet(bytes, '127.0.0.1'));
  expect(new Set(packets.map((packet) => JSON.stringify(packet.payload))).size).toBeGreaterThan(10);
  expect(packets[0]).toMatchObject({ universe: 1, sourceName: 'Hovlix', priority: 100 });
  for (let i = 1; i < packets.length; i++)
    expect((packets[i]!.sequence - packets[i - 1]!.sequence + 256) % 256).toBe(1);
  // Master output off: three goodbyes, then silence.
  await made.tell({ type: 'entry', entry: { seq: 1, at: now(), who: 't', action: { type: 'sending', on: false } } });
  const saysGoodbye = (bytes: Uint8Array) => {
    const read = decodeSacn(bytes);
    return read.kind === 'data' && read.data.terminated;
  };
  await until(() => heard.filter(saysGoodbye).length === 3);
  expect(heard.slice(-3).every(saysGoodbye)).toBe(true);
  await until(() => made.report().rows[0]?.silence === 'output-off');
});

test('of two inputs of one universe the one that is heard is in control, and what is held by hand shows again after it', async () => {
  const { port, heard: packets } = await receiver();
  const input = (id: string, merge: 'takes-over' | 'highest') => ({
    id,
    universe: 1,
    protocol: 'sacn',
    number: 7,
    merge,
  });
  const connections = Connections.parse({
    ...connectionsOf(sacnRow(port)),
    inputs: [input('first', 'takes-over'), input('second', 'highest')],
  });
  const heard = sharedLevels();
  const made = startOutput({ cid, connections, networks, heard });
  toClose.push(() => made.tell({ type: 'stop' }));
  await made.tell({ type: 'show', show });
  await made.tell({ type: 'state', state: holding({ universe: 1, address: 1, value: 200 }) });
  const shown = (value: number) => () => packets.length > 0 && levelsIn(packets.at(-1)!)?.[0] === value;
  const winner = () => made.report().winners[0]?.winner;
  await until(shown(200));
  expect(winner()).toBe('ours');
  writeShared(heard, 0, connections.inputs[0]!.id, new Uint8Array(512).fill(9));
  await until(shown(9));
  expect(winner()).toBe('theirs');
  writeShared(heard, 1, connections.inputs[1]!.id, new Uint8Array(512).fill(30));
  await until(shown(30));
  expect(winner()).toBe('theirs');
  writeShared(heard, 0, connections.inputs[0]!.id, null);
  await until(shown(200));
  expect(winner()).toBe('both');
});

test('a delayed row sends what the others sent that much earlier', async () => {
  const [prompt, late] = [await receiver(), await receiver()];
  const made = output(connectionsOf(sacnRow(prompt.port), sacnRow(late.port, { delayMs: 500 })));
  await made.tell({ type: 'show', show });
  // A master that takes 4 s from nothing to full, over a held look: what it is at shows when a packet was meant for.
  const at = now();
  const look = show.looks[0]!.id;
  const state: LiveState = {
    ...AT_REST,
    standing: [{ look, on: true, ramp: { from: 1, to: 1, at: seconds(0), duration: seconds(0) } }],
    master: { from: 0, to: 1, at, duration: seconds(4) },
  };
  await made.tell({ type: 'state', state });
  const sum = (bytes: Uint8Array | undefined) => (bytes ? [...(levelsIn(bytes) ?? [])].reduce((a, b) => a + b, 0) : 0);
  const compare = async (afterSeconds: number) => {
    await until(() => now() - at > afterSeconds);
    return [sum(prompt.heard.at(-1)), sum(late.heard.at(-1))] as const;
  };
  const [first] = await compare(1);
  const [, second] = await compare(1.5);
  // Half a second later the late row is where the prompt one was, within two frames of the ramp.
  const [prompter] = await compare(1.5);
  const perFrame = (prompter - first) / (0.5 * 44);
  expect(Math.abs(second - first)).toBeLessThan(4 * perFrame + 20);
  expect(prompter).toBeGreaterThan(second);
});

test('a network that goes takes only its own rows, says so, and brings them back', async () => {
  const { port, heard } = await receiver();
  const lo = networks.find((face) => face.internal)!;
  const stage: NetworkFace = { ...lo, name: 'stage0' };
  const row = sacnRow(port, { id: 'stage' }, { network: 'stage0', number: 9 });
  const made = output(connectionsOf(sacnRow(port), row), [lo]);
  await made.tell({ type: 'show', show });
  const stateOf = (which: string) => made.report().rows.find((one) => one.id === which)!;
  await until(() => stateOf(`s${port}-1`).state === 'live');
  expect(stateOf('stage')).toMatchObject({ state: 'failed', trouble: { code: 'network-gone', network: 'stage0' } });
  const numbers = () =>
    new Set(
      heard.splice(0).flatMap((bytes) => {
        const read = decodeSacn(bytes);
        return read.kind === 'data' ? [read.data.universe as number] : [];
      }),
    );
  // What is sent is heard a moment later.
  await until(() => heard.length > 3);
  expect(numbers()).toEqual(new Set([1]));
  await made.tell({ type: 'networks', networks: [lo, stage] });
  await until(() => stateOf('stage').state === 'live' && stateOf(`s${port}-1`).state === 'live');
  await until(() => numbers().has(9));
});

test('changing one row leaves no hole in the count of another, nor in that of what has them change together', async () => {
  const [one, two] = [await receiver(), await receiver()];
  const stay = [sacnRow(one.port), sacnRow(one.port, { universe: 3 })];
  const made = output(connectionsOf(...stay, sacnRow(two.port, { universe: 2 })));
  await made.tell({ type: 'show', show });
  await until(() => one.heard.length > 10 && two.heard.length > 10);
  await made.tell({
    type: 'connections',
    connections: connectionsOf(...stay, sacnRow(two.port, { universe: 2, on: false })),
  });
  const before = one.heard.length;
  await until(() => one.heard.length > before + 90);
  const counts = { data: [] as number[], sync: [] as number[] };
  for (const bytes of one.heard) {
    const read = decodeSacn(bytes);
    if (read.kind === 'data' && read.data.universe === 1) counts.data.push(read.data.sequence);
    if (read.kind === 'sync') counts.sync.push(read.sync.sequence);
  }
  for (const count of [counts.data, counts.sync]) {
    expect(count.length).toBeGreaterThan(30);
    for (let i = 1; i < count.length; i++) expect((count[i]! - count[i - 1]! + 256) % 256).toBe(1);
  }
  // The row that went said goodbye.
  const last = decodeSacn(two.heard.at(-1)!);
  expect(last.kind === 'data' && last.data.terminated).toBe(true);
});

test('Art-Net nodes of a network are told all at once that their levels are there, one on this computer by itself', async () => {
  const lo = networks.find((face) => face.internal)!;
  const kinds = ({ heard }: Receiver) => heard.map((bytes) => decodeArtNet(bytes).kind);
  const addresses = ['127.0.0.1', '127.0.0.2'] as const;
  const one = await receiver(0, addresses[0]);
  const two = await receiver(one.port, addresses[1]);
  const everyone = await receiver(one.port, lo.broadcast);
  const connections = connectionsOf(...addresses.map((to, i) => artRow(one.port, i + 1, to)));
  // This network stands for one that leads to others.
  const made = output(connections, [{ ...lo, internal: false }]);
  await made.tell({ type: 'show', show });
  await until(() => everyone.heard.length > 20);
  await made.tell({ type: 'stop' });
  // One for each frame, however many nodes there are.
  await until(() => [one, two].every(({ heard }) => heard.length === everyone.heard.length));
  expect(new Set(kinds(everyone))).toEqual(new Set(['sync']));
  for (const node of [one, two]) expect(new Set(kinds(node))).toEqual(new Set(['dmx']));

  const here = output(connectionsOf(artRow(one.port, 1), artRow(one.port, 2)), [lo]);
  await here.tell({ type: 'show', show });
  await until(() => kinds(one).filter((kind) => kind === 'sync').length > 5);
});

test('what is sent is listed on the discovery universe', async () => {
  const socket = createSocket({ type: 'udp4', reuseAddr: true });
  toClose.push(() => socket.close());
  const lists: readonly number[][] = [];
  socket.on('message', (bytes) => {
    const read = decodeSacn(bytes);
    if (read.kind === 'discovery' && Buffer.from(read.discovery.cid).equals(Buffer.from(cid)))
      (lists as number[][]).push([...read.discovery.universes]);
  });
  await new Promise<void>((resolve) => socket.bind(SACN_PORT, resolve));
  socket.addMembership(sacnGroup(SACN_DISCOVERY_UNIVERSE), '127.0.0.1');
  const { port } = await receiver();
  const made = output(connectionsOf(sacnRow(port, { universe: 7 }), sacnRow(port, { universe: 2 })));
  await made.tell({ type: 'show', show });
  expect(await until(() => lists[0])).toEqual([2, 7]);
});

describe.each(['framed', 'plain'] as const)('a %s USB cable', (kind) => {
  test('carries the universe; pulled out it is said, the others go on, and plugged in it comes back', async () => {
    const path = join('/tmp', `hovlix-test-cable-${kind}-${process.pid}`);
    const { port, heard } = await receiver();
    let cable = await startSerial(kind, path);
    toClose.push(() => cable.close());
    const row: RowInput = { id: 'usb', universe: 1, way: { protocol: 'serial', kind, path } };
    const made = output(connectionsOf(row, sacnRow(port)));
    await made.tell({ type: 'show', show });
    await made.tell({ type: 'state', state: holding({ universe: 1, address: 511, value: 123 }) });
    const arrived = () => cable.report().universes[0];
    const usb = () => made.report().rows[0]!;
    await until(() => arrived()?.levels[510] === 123 && (arrived()?.packets ?? 0) > 20);
    expect(arrived()).toMatchObject({ protocol: 'serial', levels: expect.objectContaining({ length: 512 }) });
    await until(() => usb().state === 'live');
    cable.close();
    await until(() => usb().trouble?.code === 'port-gone');
    const before = heard.length;
    await until(() => heard.length > before + 20);
    cable = await startSerial(kind, path);
    await until(() => usb().state === 'live' && (arrived()?.packets ?? 0) > 5);
  });
});
