import { createSocket } from 'node:dgram';
import type { AddressInfo } from 'node:net';
import { Sender } from 'sacn';
import { Connections } from '@hovlix/core/connect';
import { universe } from '@hovlix/core/units';
import { encodeArtDmx, encodeSacn, encodeSacnDiscovery } from '@hovlix/core/wire';
import type { z } from 'zod';
import { networksOfThisComputer } from '../connect/networks';
import { startNode } from '../stand-ins/node';
import { until } from '../testing/wait';
import { startInput, type Input } from './input';
import { neighbours } from './neighbours';
import { readShared, sharedLevels, writeShared, type SharedLevels } from './shared-levels';
import { sourceBook } from './source-book';

const cid = new Uint8Array(16).fill(1);
const networks = networksOfThisComputer();
const toClose: (() => unknown)[] = [];
afterEach(async () => {
  for (const close of toClose.splice(0).reverse()) await close();
});

async function freePort(): Promise<number> {
  const socket = createSocket('udp4');
  await new Promise<void>((resolve) => socket.bind(0, '127.0.0.1', resolve));
  const { port } = socket.address() as AddressInfo;
  await new Promise<void>((resolve) => socket.close(() => resolve()));
  return port;
}

type InputRowJson = NonNullable<z.input<typeof Connections>['inputs']>[number];

async function listening(rows: Partial<InputRowJson>[], outputs: z.input<typeof Connections>['outputs'] = []) {
  const ports = { sacn: await freePort(), artnet: await freePort() };
  const heard = sharedLevels();
  const input: Input = startInput({ cid, networks, heard, ports });
  toClose.push(() => input.tell({ type: 'stop' }));
  const connections = Connections.parse({
    format: 'hovlix-connections',
    version: 1,
    outputs,
    inputs: rows.map((row, i) => ({ id: `in${i}`, universe: 1, protocol: 'sacn', number: 1, ...row })),
  });
  input.tell({ type: 'connections', connections });
  const out = new Uint8Array(512);
  const levels = (row = 0) => (readShared(heard, connections.inputs[row]!.id, out) ? out : null);
  const socket = createSocket('udp4');
  toClose.push(() => socket.close());
  const send = (bytes: Uint8Array, to: 'sacn' | 'artnet' = 'sacn') => socket.send(bytes, ports[to], '127.0.0.1');
  return { input, levels, send, ports };
}

let sequence = 0;
const packet = (
  from: number,
  priority: number,
  levels: number[],
  more: { terminated?: boolean; preview?: boolean } = {},
) =>
  encodeSacn({
    cid: new Uint8Array(16).fill(from),
    sourceName: `Desk ${from}`,
    priority,
    sync: 0,
    sequence: sequence++ & 255,
    preview: false,
    terminated: false,
    universe: universe(1),
    levels: Uint8Array.from(levels),
    ...more,
  });

test('the highest priority wins, equals are merged, and a goodbye gives way at once', async () => {
  const { input, levels, send } = await listening([{}]);
  send(packet(2, 100, [10, 200]));
  await until(() => levels()?.[1] === 200);
  send(packet(3, 100, [90, 20]));
  await until(() => levels()?.[0] === 90 && levels()?.[1] === 200);
  send(packet(4, 150, [1, 2]));
  await until(() => levels()?.[0] === 1 && levels()?.[1] === 2);
  expect(input.report().rows[0]!.sources.map(({ name, wins }) => [name, wins])).toEqual([
    ['Desk 2', false],
    ['Desk 3', false],
    ['Desk 4', true],
  ]);
  send(packet(4, 150, [0, 0], { terminated: true }));
  await until(() => levels()?.[0] === 90);
});

test('a source that falls silent is lost after 2.5 s, not before', async () => {
  const { levels, send } = await listening([{}]);
  send(packet(2, 100, [10]));
  await until(() => levels()?.[0] === 10);
  const began = performance.now();
  await until(() => levels() === null);
  expect(performance.now() - began).toBeGreaterThan(2300);
  expect(performance.now() - began).toBeLessThan(3600);
});

test('over Art-Net a source that tells every four seconds what does not change is there all the time', () => {
  const shared = sharedLevels();
  const book = sourceBook(shared);
  const [row] = inputRows('a');
  const out = new Uint8Array(512);
  book.take([row!], 0);
  const heard = (at: number) => {
    book.check(at);
    return readShared(shared, row!.id, out);
  };
  const says = (at: number) =>
    book.artnet({ port: row!.number, sequence: 0, physical: 0, levels: new Uint8Array(512).fill(7) }, '10.0.0.1', at);
  for (let at = 0; at <= 40; at += 4) {
    says(at);
    for (let later = 0; later < 4; later += 0.25) expect(heard(at + later)).toBe(true);
  }
  expect(heard(49.5)).toBe(true);
  expect(heard(50.5)).toBe(false);
});

test('our own packets and previews are not light from elsewhere', async () => {
  const { input, levels, send } = await listening([{}]);
  send(packet(1, 200, [99]));
  send(packet(5, 200, [98], { preview: true }));
  send(packet(2, 0, [7]));
  await until(() => levels()?.[0] === 7);
  expect(input.report().rows[0]!.sources).toHaveLength(1);
});

test('an independent sender is heard, and so is Art-Net on its own number', async () => {
  const { levels, send, ports } = await listening([{}, { protocol: 'artnet', number: 5, universe: 2 }]);
  const sender = new Sender({
    universe: 1,
    port: ports.sacn,
    useUnicastDestination: '127.0.0.1',
    defaultPacketOptions: { sourceName: 'Independent', useRawDmxValues: true },
  });
  toClose.push(() => sender.close());
  await sender.send({ payload: { 3: 128 } });
  await until(() => levels(0)?.[2] === 128);
  send(encodeArtDmx({ sequence: 0, physical: 0, port: 4, levels: Uint8Array.of(1, 1) }), 'artnet');
  send(encodeArtDmx({ sequence: 0, physical: 0, port: 5, levels: Uint8Array.of(55, 66) }), 'artnet');
  await until(() => levels(1)?.[1] === 66);
});

test('nodes that answer a poll are listed with their names and sockets', async () => {
  const ports = { sacn: await freePort(), artnet: await freePort() };
  const node = await startNode({ ports });
  toClose.push(() => node.close());
  // The stand-in holds the port on 127.0.0.1, as a node on another computer would on its own address.
  const input = startInput({
    cid,
    networks,
    heard: sharedLevels(),
    ports: { sacn: await freePort(), artnet: ports.artnet },
  });
  toClose.push(() => input.tell({ type: 'stop' }));
  const found = await until(() => input.report().nodes[0]);
  expect(found).toMatchObject({ address: '127.0.0.1', shortName: 'Hovlix node', outputs: [0, 1, 2, 3] });
});

test('another sender that lists our universes is named; one that lists others is not', async () => {
  const row = (number: number) => ({
    id: `o${number}`,
    universe: number,
    way: { protocol: 'sacn' as const, to: 'multicast' as const, network: null, number },
  });
  const { input, send } = await listening([], [row(3), row(4)]);
  send(encodeSacnDiscovery(new Uint8Array(16).fill(8), 'Other desk', [1, 2, 3])[0]!);
  send(encodeSacnDiscovery(new Uint8Array(16).fill(9), 'Far desk', [700])[0]!);
  await until(() => input.report().clashes.length > 0);
  expect(input.report().clashes).toEqual([{ name: 'Other desk', address: '127.0.0.1', universes: [3], twin: false }]);
});

test('a list of nodes that is full still knows those in it, for as long as they answer', () => {
  const book = neighbours(cid);
  const all = Array.from({ length: 210 }, (_, n) => `10.0.0.${n}`);
  const reply = { ip: [0, 0, 0, 0] as const, shortName: 'n', longName: 'node', outputs: [0], role: 'node' as const };
  for (const at of [0, 3, 6, 9, 12]) for (const from of all) book.answered({ ...reply }, from, at);
  expect(book.report(13).nodes.map(({ address }) => address)).toEqual(all.slice(0, 200));
});

test('a flood of made-up sources does not grow without end', async () => {
  const { input, levels, send } = await listening([{}]);
  send(packet(2, 100, [42]));
  await until(() => levels()?.[0] === 42);
  for (let from = 10; from < 250; from++) send(packet(from, 100, [1]));
  await until(() => input.report().rows[0]!.sources.length === 16);
  expect(levels()?.[0]).toBe(42);
});

test('an input whose port another program holds says so, and opens when it is free', async () => {
  const port = await freePort();
  const other = createSocket({ type: 'udp4', reuseAddr: false });
  await new Promise<void>((resolve) => other.bind(port, resolve));
  const input = startInput({ cid, networks, heard: sharedLevels(), ports: { sacn: port, artnet: await freePort() } });
  toClose.push(() => input.tell({ type: 'stop' }));
  const [deaf] = await until(() => input.report().deaf.length > 0 && input.report().deaf);
  expect(deaf).toBe(`sACN input does not work: another program holds port ${port}. Output is not affected.`);
  other.close();
  await until(() => input.report().deaf.length === 0);
});

test('shared levels: what is written is read, a row that is not there is not', () => {
  const shared = sharedLevels();
  const again = sharedLevels(shared.buffer);
  const rows = Connections.parse({
    format: 'hovlix-connections',
    version: 1,
    inputs: ['a', 'b'].map((id) => ({ id, universe: 1, protocol: 'sacn', number: 1 })),
  }).inputs;
  const out = new Uint8Array(512);
  expect(readShared(again, rows[0]!.id, out)).toBe(false);
  writeShared(shared, 0, rows[0]!.id, new Uint8Array(512).fill(9));
  writeShared(shared, 1, rows[1]!.id, null);
  expect(readShared(again, rows[0]!.id, out)).toBe(true);
  expect(out.every((level) => level === 9)).toBe(true);
  expect(readShared(again, rows[1]!.id, out)).toBe(false);
});

/** Has a look whenever levels are half written, and when they are written. */
function lookedInto(shared: SharedLevels, look: () => void): void {
  const { levels } = shared;
  const write = levels.set.bind(levels);
  levels.set = (from, at) => {
    write(Uint8Array.from(from).subarray(0, 256), at);
    look();
    write(from, at);
    look();
  };
}
const inputRows = (...ids: string[]) =>
  Connections.parse({
    format: 'hovlix-connections',
    version: 1,
    inputs: ids.map((id) => ({ id, universe: 1, protocol: 'artnet', number: id.charCodeAt(0) })),
  }).inputs;

test('shared levels: what is heard is there in the middle of being written anew, and whole', () => {
  const shared = sharedLevels();
  const [row] = inputRows('a');
  const out = new Uint8Array(512);
  writeShared(shared, 0, row!.id, new Uint8Array(512).fill(1));
  const seen: string[] = [];
  lookedInto(shared, () => seen.push(readShared(shared, row!.id, out) ? [...new Set(out)].join() : 'nobody'));
  writeShared(shared, 0, row!.id, new Uint8Array(512).fill(2));
  writeShared(shared, 0, row!.id, new Uint8Array(512).fill(3));
  writeShared(shared, 0, row!.id, null);
  expect(readShared(shared, row!.id, out)).toBe(false);
  writeShared(shared, 0, row!.id, new Uint8Array(512).fill(4));
  expect(seen).toEqual(['1', '1', '2', '2', 'nobody', 'nobody']);
  expect(readShared(shared, row!.id, out)).toBe(true);
  expect(out.every((level) => level === 4)).toBe(true);
});

test('an input that stays is heard at every moment while others come and go before and behind it', () => {
  const shared = sharedLevels();
  const book = sourceBook(shared);
  const [a, b, c, d] = ['a', 'b', 'c', 'd'].map((id) => inputRows(id)[0]!);
  const out = new Uint8Array(512);
  book.take([a!, b!, c!], 0);
  for (const row of [a!, b!, c!])
    book.artnet(
      { port: row.number, sequence: 0, physical: 0, levels: new Uint8Array(512).fill(row.number) },
      '10.0.0.1',
      1,
    );
  const missing: string[] = [];
  let looks = 0;
  lookedInto(shared, () => {
    looks++;
    for (const row of [b!, c!])
      if (!readShared(shared, row.id, out) || out.some((level) => level !== row.number)) missing.push(row.id);
  });
  for (const rows of [
    [b!, c!],
    [d!, b!, c!],
    [c!, d!, b!],
    [a!, b!, c!, d!],
    [b!, c!],
  ])
    book.take(rows, 1);
  expect(looks).toBe(20);
  expect(missing).toEqual([]);
  // One that is gone is heard no more.
  expect(readShared(shared, a!.id, out)).toBe(false);
});
