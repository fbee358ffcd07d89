import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { editConnections, NO_CONNECTIONS } from '@hovlix/core/connect';
import { id } from '@hovlix/core/units';
import { parseTarget } from '../output/target';
import { cidOfThisMachine } from './cid';
import { broadcastOf, isInNetwork } from './networks';
import { connectionsStore } from './store';

const sacn = parseTarget('sacn:multicast')!;
const artnet = parseTarget('artnet:10.0.0.4')!;
const file = () => join(mkdtempSync(join(tmpdir(), 'hovlix-connect-')), 'connect.json');

test('edits are kept at once and are there after a restart', () => {
  const path = file();
  const store = connectionsStore(path, fail);
  store.reach([1], [sacn]);
  expect(store.edit({ type: 'name-source', sourceName: 'Tin Lantern' })).toBeUndefined();
  const again = connectionsStore(path, fail);
  expect(again.connections()).toEqual(store.connections());
  expect(again.connections().sourceName).toBe('Tin Lantern');
});

test('what was kept while Connect was called Links is taken over', () => {
  const path = file();
  writeFileSync(
    join(dirname(path), 'links.json'),
    JSON.stringify(editConnections(NO_CONNECTIONS, { type: 'name-source', sourceName: 'Tin Lantern' }).connections),
  );
  expect(connectionsStore(path, fail).connections().sourceName).toBe('Tin Lantern');
});

test('what cannot be read under the old name is set aside under that name', () => {
  const path = file();
  const old = join(dirname(path), 'links.json');
  writeFileSync(old, '{ not json');
  const said: string[] = [];
  connectionsStore(path, fail, (why) => said.push(why));
  expect(said.join()).toContain(`${old}.bad`);
  expect(readFileSync(`${old}.bad`, 'utf8')).toBe('{ not json');
});

test('an edit that makes no sense says so, and changes nothing; one that finds nothing to do tells nobody', () => {
  const store = connectionsStore(undefined, fail);
  store.reach([1], [sacn]);
  const before = store.connections();
  const told = jest.fn();
  store.onChange(told);
  const [row] = before.outputs;
  const set = (path: string[], from: unknown, to: unknown) =>
    store.edit({ type: 'adjust', ops: [{ op: 'set', path, from, to }] });
  expect(set(['outputs', row!.id, 'way', 'number'], 1, 'seven')).toContain('outputs.0.way');
  expect(store.edit({ type: 'remove-output', output: id('gone') })).toBeUndefined();
  expect(set(['outputs', row!.id, 'universe'], 9, 2)).toBeUndefined();
  expect(store.connections()).toBe(before);
  expect(told).not.toHaveBeenCalled();
});

test.each([
  ['is no JSON', '{ not json', 'not JSON'],
  ['holds a wrong value', '{"format":"hovlix-connections","version":1,"outputs":[{"id":"x"}]}', 'outputs.0'],
  ['comes from a newer Hovlix', '{"format":"hovlix-connections","version":7}', 'newer Hovlix'],
])('a file that %s is set aside and said, not lost', (_, text, words) => {
  const path = file();
  writeFileSync(path, text);
  const said: string[] = [];
  const store = connectionsStore(path, (why) => void (why && said.push(why)));
  store.reach([1], [sacn]);
  expect(said.join()).toContain(words);
  expect(readFileSync(`${path}.bad`, 'utf8')).toBe(text);
  expect(existsSync(path)).toBe(true);
});

test('each new universe gets an output to every target once, and one that was removed stays removed', () => {
  const store = connectionsStore(undefined, fail);
  store.reach([1, 2], [sacn, artnet]);
  expect(
    store
      .connections()
      .outputs.map(({ universe, way }) => `${universe} ${way.protocol}`)
      .sort(),
  ).toEqual(['1 artnet', '1 sacn', '2 artnet', '2 sacn']);
  expect(new Set(store.connections().outputs.map((row) => row.id)).size).toBe(4);
  for (const row of store.connections().outputs.filter((one) => one.universe === 2))
    store.edit({ type: 'remove-output', output: id<'Output'>(row.id) });
  store.reach([1, 2], [sacn]);
  expect(store.connections().outputs).toHaveLength(2);
});

test('a second copy on this computer takes a name of its own on the wire; the kept one is there again afterwards', () => {
  const home = mkdtempSync(join(tmpdir(), 'hovlix-cid-'));
  const hex = () => Buffer.from(cidOfThisMachine(home)).toString('hex');
  const first = hex();
  // Another process that runs holds the first name: the one that started this test.
  writeFileSync(join(home, 'cid.lock'), String(process.ppid));
  const second = hex();
  expect(second).not.toBe(first);
  expect(hex()).toBe(second);
  // Nor does another program that goes by its number since.
  writeFileSync(join(home, 'cid.lock'), `${process.ppid} 1`);
  expect(hex()).toBe(first);
  // One that no longer runs holds nothing.
  writeFileSync(join(home, 'cid.lock'), '999999999');
  expect(hex()).toBe(first);
});

test('broadcast addresses and networks by their masks', () => {
  expect(broadcastOf('192.168.1.5', '255.255.255.0')).toBe('192.168.1.255');
  expect(broadcastOf('2.3.4.5', '255.0.0.0')).toBe('2.255.255.255');
  expect(broadcastOf('10.1.130.9', '255.255.192.0')).toBe('10.1.191.255');
  const face = {
    name: 'e',
    address: '10.1.130.9',
    netmask: '255.255.192.0',
    broadcast: '10.1.191.255',
    internal: false,
  };
  expect([isInNetwork('10.1.190.1', face), isInNetwork('10.1.192.1', face)]).toEqual([true, false]);
});

function fail(why: string | null): void {
  if (why) throw new Error(why);
}
