import { createServer, get } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { NetworkFace } from '@hovlix/core/connect';
import { phones, type Phones } from './phones';

const face = (address: string, internal = false): NetworkFace => ({
  name: `net${address}`,
  address,
  netmask: '255.0.0.0',
  broadcast: '127.255.255.255',
  internal,
});
const toClose: (() => void)[] = [];
afterEach(() => toClose.splice(0).forEach((close) => close()));

/** Any address of 127.0.0.0/8 is this computer on Linux, and stands in for its networks here. */
async function door(only?: readonly string[]): Promise<{ readonly made: Phones; readonly port: number }> {
  const probe = createServer();
  await new Promise<void>((resolve) => probe.listen(0, '127.0.0.1', resolve));
  const { port } = probe.address() as AddressInfo;
  toClose.push(() => probe.close());
  const made = phones({
    port: () => port,
    serve: (_request, response) => void response.end('in'),
    attach: () => undefined,
    ...(only ? { only } : {}),
  });
  toClose.push(() => made.close());
  return { made, port };
}

const knock = (host: string, port: number) =>
  new Promise<string>((resolve) =>
    get({ host, port, agent: false }, (response) => response.on('data', (text) => resolve(String(text)))).on(
      'error',
      (error) => resolve((error as NodeJS.ErrnoException).code ?? 'error'),
    ),
  );

test('closed at first; opened it answers on every network but the inner one; closed again nobody answers', async () => {
  const { made, port } = await door();
  await made.see([face('127.0.0.1', true), face('127.0.0.11'), face('127.0.0.12')]);
  expect([made.isOpen(), made.addresses(), await knock('127.0.0.11', port)]).toEqual([false, [], 'ECONNREFUSED']);
  await made.open(true);
  expect(made.addresses()).toEqual([`http://127.0.0.11:${port}`, `http://127.0.0.12:${port}`]);
  expect(await knock('127.0.0.12', port)).toBe('in');
  expect(made.hosts()).toContain(`127.0.0.11:${port}`);
  await made.open(false);
  expect(await knock('127.0.0.12', port)).toBe('ECONNREFUSED');
});

test('a network that goes takes its address along, and one that comes is opened', async () => {
  const { made, port } = await door();
  await made.open(true);
  expect(made.problem()).toContain('not connected to a network');
  await made.see([face('127.0.0.21')]);
  expect([made.problem(), await knock('127.0.0.21', port)]).toEqual([null, 'in']);
  await made.see([face('127.0.0.22')]);
  expect(made.addresses()).toEqual([`http://127.0.0.22:${port}`]);
  expect(await knock('127.0.0.21', port)).toBe('ECONNREFUSED');
});

test('a port that another program holds on one network is said, and the other network still opens', async () => {
  const { made, port } = await door();
  const other = createServer();
  await new Promise<void>((resolve) => other.listen(port, '127.0.0.31', resolve));
  toClose.push(() => other.close());
  // Pressed and looked at in the same moment, as a switch and a timer do.
  await Promise.all([
    made.open(true),
    made.see([face('127.0.0.31'), face('127.0.0.32')]),
    made.see([face('127.0.0.31'), face('127.0.0.32')]),
  ]);
  expect(made.problem()).toBe(`Phones cannot reach 127.0.0.31: another program holds port ${port} there.`);
  expect(await knock('127.0.0.32', port)).toBe('in');
});

test('opened under one address only, the others stay shut', async () => {
  const { made, port } = await door(['127.0.0.41']);
  await made.see([face('127.0.0.41'), face('127.0.0.42')]);
  await made.open(true);
  expect(made.addresses()).toEqual([`http://127.0.0.41:${port}`]);
  expect(await knock('127.0.0.42', port)).toBe('ECONNREFUSED');
});
