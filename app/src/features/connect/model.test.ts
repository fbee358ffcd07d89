import { OutputRow, type RowReport, type Status } from '@hovlix/core/connect';
import { Show } from '@hovlix/core/show';
import { testShow } from '../../../../core/src/testing/show';
import { healthOf } from '../stage/model';
import { channelName, firstChoices, sameChannels, stateOf, twins, unsent } from './model';
import { forHowLong } from './words';

const row = (over: object = {}) =>
  OutputRow.parse({
    id: 'a',
    universe: 1,
    way: { protocol: 'sacn', to: 'multicast', network: null, number: 1 },
    ...over,
  });
const report = (over: Partial<RowReport> = {}): RowReport => ({
  id: 'a',
  state: 'live',
  silence: null,
  trouble: null,
  since: 0,
  packetsPerSecond: 44,
  packets: 100,
  ...over,
});

test('a row’s state is a word, a colour and a reason', () => {
  expect(stateOf(row(), report())).toEqual({ word: 'Live', tone: '$live', why: null });
  expect(stateOf(row(), report({ state: 'silent', silence: 'output-off' }))).toMatchObject({
    word: 'Silent',
    why: 'The master output is off.',
  });
  const gone = stateOf(row(), report({ state: 'failed', trouble: { code: 'port-gone', path: '/dev/ttyUSB0' } }));
  expect(gone).toMatchObject({ word: 'Failed', tone: '$fault', why: expect.stringContaining('not plugged in') });
  expect(stateOf(row({ on: false }), undefined)).toMatchObject({ word: 'Off' });
  expect(stateOf(row(), undefined)).toMatchObject({ word: 'Starting' });
});

test('how long it has been so, in a unit that suits', () => {
  expect([12, 89, 130, 7300].map((seconds) => forHowLong(1000, 1000 + seconds * 1000))).toEqual([
    'for 12 s',
    'for 89 s',
    'for 2 minutes',
    'for 2 hours',
  ]);
  expect(forHowLong(5000, 1000)).toBe('for 0 s');
});

test('two rows to the same receivers are found, the same universe by two ways is not', () => {
  const same = [row(), row({ id: 'b', universe: 2 })];
  expect(twins(same)).toEqual(['a', 'b']);
  expect(twins([row(), row({ id: 'b', on: false })])).toEqual([]);
  expect(
    twins([row(), row({ id: 'b', way: { protocol: 'artnet', to: '10.0.0.1', network: null, number: 0 } })]),
  ).toEqual([]);
});

test('universes that no output carries', () => {
  expect(unsent(testShow(), [])).toEqual([1, 2]);
  expect(unsent(testShow(), [row()])).toEqual([2]);
  expect(unsent(testShow(), [row({ on: false })])).toEqual([1, 2]);
});

test('the first minute offers what is there: real things first, what ships with the app last', () => {
  const status = {
    serialPorts: [
      { path: '/srv/stand-in', name: 'Plain cable stand-in', standIn: true },
      { path: '/dev/ttyUSB0', name: 'Quillon', standIn: false },
    ],
    networks: [
      { name: 'lo', address: '127.0.0.1', netmask: '255.0.0.0', broadcast: '127.255.255.255', internal: true },
      { name: 'eth0', address: '10.0.0.5', netmask: '255.0.0.0', broadcast: '10.255.255.255', internal: false },
    ],
    input: { nodes: [{ address: '10.0.0.9', shortName: 'Truss', longName: '', outputs: [4], secondsAgo: 1 }] },
  } as unknown as Status;
  const choices = firstChoices(status, 1);
  expect(choices.map((choice) => choice.title)).toEqual([
    'USB cable: Quillon',
    'Node: Truss',
    'Network eth0',
    'Plain cable stand-in',
  ]);
  expect(choices.map((choice) => choice.way)).toMatchObject([
    { protocol: 'serial', kind: 'framed', path: '/dev/ttyUSB0' },
    { protocol: 'artnet', to: '10.0.0.9', number: 4 },
    { protocol: 'sacn', to: 'multicast', network: 'eth0', number: 1 },
    { protocol: 'serial', kind: 'plain' },
  ]);
});

test('channels have the names of what is patched, and the same channel of all lamps alike is found across universes', () => {
  const show = testShow();
  expect(channelName(show, 1, 2)).toBe('A: red');
  expect(channelName(show, 2, 2)).toBe('S: pan fine');
  expect(channelName(show, 2, 103)).toBe('C: red 2');
  expect(channelName(show, 1, 400)).toBeNull();
  const turned = Show.parse(JSON.parse(JSON.stringify(show).replaceAll('"ColorAdd_R"', '"Prism1Pos"')));
  expect(channelName(turned, 1, 2)).toBe('A: prism turning');
  const green = sameChannels(show, 1, 11)!;
  expect(green.label).toBe('green of all 2 Test RGB');
  expect(green.channels).toEqual([
    { universe: 1, address: 11 },
    { universe: 2, address: 201 },
  ]);
  expect(sameChannels(show, 1, 400)).toBeNull();
});

test('health: off is not failed, failed is counted, silence is not health', () => {
  const output = (...rows: RowReport[]) => ({ sending: true, framesPerSecond: 44, rows }) as never;
  expect(healthOf('server', true, output(report())).text).toBe('sending 44/s');
  expect(healthOf('server', true, output(report(), report())).text).toBe('sending 44/s · 2 outputs');
  expect(healthOf('server', false, output(report()))).toEqual({ state: 'off', colour: '$warn', text: 'output is off' });
  const failed = report({ state: 'failed' });
  const one = { state: 'failing', colour: '$fault', text: '1 of 2 outputs fail' };
  expect(healthOf('server', true, output(report(), failed))).toEqual(one);
  expect(healthOf('server', true, output(failed)).text).toBe('output fails');
  expect(healthOf('server', true, output()).text).toBe('no output yet');
  expect(healthOf('lost', true, null).colour).toBe('$fault');
});
