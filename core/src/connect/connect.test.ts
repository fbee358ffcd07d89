import fc from 'fast-check';
import { inverse, laid } from '../change';
import {
  arbitrated,
  editConnections,
  incidentInWords,
  Connections,
  ConnectCommand,
  mergeInput,
  NO_CONNECTIONS,
  numbersInWords,
  reaching,
  readConnections,
  troubleInWords,
  wayInWords,
  type Source,
  type Way,
} from '.';

const ids = fc.constantFrom('a', 'b', 'c');
const sacnWay = fc.record({
  protocol: fc.constant('sacn' as const),
  to: fc.constantFrom('multicast', '10.0.0.7'),
  network: fc.constantFrom(null, 'eth0'),
  number: fc.integer({ min: 1, max: 63999 }),
  priority: fc.nat(200),
});
const artWay = fc.record({
  protocol: fc.constant('artnet' as const),
  to: fc.constantFrom('broadcast', '2.0.0.1'),
  network: fc.constant(null),
  number: fc.nat(32767),
});
const cable = fc.record({
  protocol: fc.constant('serial' as const),
  kind: fc.constantFrom('plain' as const, 'framed' as const),
  path: fc.constantFrom('/dev/ttyUSB0', 'COM3'),
});
const row = fc.record({
  id: ids,
  universe: fc.integer({ min: 1, max: 63999 }),
  on: fc.boolean(),
  delayMs: fc.integer({ min: -250, max: 1000 }),
  way: fc.oneof(sacnWay, artWay, cable),
});
const inputRow = fc.record({
  id: ids,
  universe: fc.integer({ min: 1, max: 9 }),
  on: fc.boolean(),
  protocol: fc.constantFrom('sacn' as const, 'artnet' as const),
  number: fc.nat(100),
  merge: fc.constantFrom('highest' as const, 'takes-over' as const, 'backup' as const),
});
const commands = fc.array(
  fc
    .oneof(
      fc.record({ type: fc.constant('put-output'), row }),
      fc.record({ type: fc.constant('remove-output'), output: ids }),
      fc.record({ type: fc.constant('put-input'), row: inputRow }),
      fc.record({ type: fc.constant('remove-input'), input: ids }),
      fc.record({ type: fc.constant('name-source'), sourceName: fc.constantFrom('Stage', 'Van') }),
      fc.record({ type: fc.constant('choose-sync'), sync: fc.boolean() }),
    )
    .map((command) => ConnectCommand.parse(command)),
  { maxLength: 12 },
);

test('every edit can be taken back and made again, and what results is valid', () => {
  fc.assert(
    fc.property(commands, (list) => {
      const states = [NO_CONNECTIONS];
      const changes = list.map((command) => {
        const { connections, ops } = editConnections(states.at(-1)!, command);
        states.push(connections);
        return ops;
      });
      expect(Connections.safeParse(states.at(-1)).success).toBe(true);
      let back = states.at(-1)!;
      for (const ops of [...changes].reverse()) back = laid(back, inverse(ops)).after;
      expect(back).toEqual(NO_CONNECTIONS);
      expect(changes.reduce((now, ops) => laid(now, ops).after, NO_CONNECTIONS)).toEqual(states.at(-1));
    }),
  );
});

test('what is written as JSON is read back; what is wrong is said with its place', () => {
  const { connections } = editConnections(NO_CONNECTIONS, { type: 'name-source', sourceName: 'Stage' });
  expect(readConnections(JSON.parse(JSON.stringify(connections)), 'connect.json')).toEqual({
    ok: true,
    value: connections,
  });
  const bad = readConnections({ ...connections, outputs: [{ id: 'a', universe: 0, way: {} }] }, 'connect.json');
  expect(bad).toMatchObject({ ok: false, problem: { code: 'bad-value', path: expect.stringContaining('outputs.0') } });
  expect(readConnections({ ...connections, version: 2 }, 'x')).toMatchObject({
    problem: { code: 'too-new', version: 2 },
  });
  for (const rubbish of [null, 7, 'text', []]) expect(readConnections(rubbish, 'x').ok).toBe(false);
});

test('a universe gets its output once: removed, it stays removed', () => {
  const way = (number: number): Way => ({ protocol: 'sacn', to: 'multicast', network: null, number, priority: 100 });
  const first = reaching(NO_CONNECTIONS, [1, 2], way);
  expect(first.outputs.map((one) => [one.universe, one.way.protocol === 'sacn' && one.way.number])).toEqual([
    [1, 1],
    [2, 2],
  ]);
  const { connections } = editConnections(first, { type: 'remove-output', output: first.outputs[1]!.id });
  expect(reaching(connections, [1, 2], way)).toBe(connections);
  expect(reaching(connections, [1, 2, 3], way).outputs.map((one) => one.universe as number)).toEqual([1, 3]);
});

const source = (key: string, priority: number, at: number, ...levels: number[]): Source => ({
  key,
  name: key,
  priority,
  at,
  levels: Uint8Array.from(levels),
});

test('arbitration: only the highest priority counts, equals merge to the highest level, the silent are out', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.record({
          priority: fc.nat(200),
          age: fc.integer({ min: 0, max: 50 }),
          levels: fc.uint8Array({ maxLength: 512 }),
        }),
        { maxLength: 6 },
      ),
      (list) => {
        const sources = list.map((one, i) => source(`s${i}`, one.priority, 10 - one.age / 10, ...one.levels));
        const out = new Uint8Array(512).fill(9);
        const winners = arbitrated(sources, 10, 2.5, out);
        const alive = sources.filter((one) => 10 - one.at <= 2.5);
        const top = Math.max(...alive.map((one) => one.priority));
        expect(winners).toEqual(alive.filter((one) => one.priority === top).map((one) => one.name));
        if (alive.length === 0) return expect(out.every((level) => level === 9)).toBe(true);
        for (const at of [0, 1, 17, 511])
          expect(out[at]).toBe(
            Math.max(0, ...alive.filter((one) => one.priority === top).map((one) => one.levels[at] ?? 0)),
          );
      },
    ),
  );
});

test('merging: highest takes each channel’s higher level, takes-over takes all, backup waits until we stop', () => {
  const theirs = Uint8Array.from({ length: 512 }, (_, i) => (i === 0 ? 200 : 10));
  const merged = (merge: 'highest' | 'takes-over' | 'backup', weSend: boolean) => {
    const ours = new Uint8Array(512).fill(weSend ? 50 : 0);
    return [mergeInput(ours, theirs, merge, weSend), ours[0], ours[1]];
  };
  expect(merged('highest', true)).toEqual(['both', 200, 50]);
  expect(merged('takes-over', true)).toEqual(['theirs', 200, 10]);
  expect(merged('backup', true)).toEqual(['ours', 50, 50]);
  expect(merged('backup', false)).toEqual(['theirs', 200, 10]);
});

test('words: both ways of counting are shown, and a trouble says what to do', () => {
  const art: Way = { protocol: 'artnet', to: 'broadcast', network: null, number: 0x123 };
  expect(wayInWords(art)).toBe('Art-Net to everyone (broadcast)');
  expect(numbersInWords(art)).toBe('number 291 = net 1, sub-net 2, universe 3 (devices that count from 1 call it 292)');
  const sacn: Way = { protocol: 'sacn', to: 'multicast', network: null, number: 1, priority: 100 };
  expect(numbersInWords(sacn)).toContain('count from 0 call it 0');
  expect(troubleInWords({ code: 'cannot-send', detail: 'ENETUNREACH' })).toContain('no way leads there');
  expect(troubleInWords({ code: 'port-gone', path: '/dev/ttyUSB0' })).toMatch(/not plugged in.*cable is back/);
  expect(incidentInWords({ at: 0, code: 'slept', seconds: 7200 })).toContain('120 minutes');
});
