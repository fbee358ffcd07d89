import { fixtureLibrary, patchedFixtures, Rig } from '@hovlix/core/rig';
import type { OutputRow } from '@hovlix/core/connect';
import { contributionWords, heldLamps, namesOf, tintsByFixture, unheardWords } from './model';

const library = fixtureLibrary();
const rgb = library.find(({ model }) => model === 'LED PAR RGB')!;
const rig = Rig.parse({
  id: 'rig',
  name: 'Rig',
  fixtures: [1, 5, 9].map((address, i) => ({
    id: `l${i}`,
    number: i + 1,
    name: `Lamp ${i + 1}`,
    profile: rgb.id,
    mode: rgb.modes[0]!.id,
    universe: 1,
    address,
    mount: { x: i, y: 0, z: 3 },
  })),
  casting: [
    { role: 'a', fixtures: ['l1'] },
    { role: 'b', fixtures: ['l1', 'l2'] },
  ],
});

test('many lamps are named as one would say them', () => {
  const names = (count: number) => namesOf(Array.from({ length: count }, (_, i) => ({ name: `L${i + 1}` })));
  expect([0, 1, 2, 3, 9].map(names)).toEqual(['No lamp', 'L1', 'L1 and L2', 'L1, L2 and L3', 'L1, L2 and 7 more']);
});

test('a lamp is in hand when any of its channels is held, and only then', () => {
  const patched = patchedFixtures(rig, library);
  expect([...heldLamps(patched, [])]).toEqual([]);
  expect([...heldLamps(patched, [{ universe: 1, address: 7 }])]).toEqual(['l1']);
  expect([...heldLamps(patched, [{ universe: 1, address: 4 }])]).toEqual([]);
  expect([...heldLamps(patched, [{ universe: 2, address: 1 }])]).toEqual([]);
});

test('a lamp has the tint of the first role it plays', () => {
  const tintOf = tintsByFixture(rig, [
    { id: 'a', tint: 3 },
    { id: 'b', tint: 5 },
  ]);
  expect(['l0', 'l1', 'l2'].map(tintOf)).toEqual([undefined, 3, 5]);
});

test('what sets a lamp is said once a source, with how much of it counts', () => {
  const source = 'look Harbour blue';
  const still = { moving: false, wins: true };
  expect(
    contributionWords([
      { source, attribute: 'level', values: [0.5], weight: 0.4, ...still },
      { source, attribute: 'colour', values: [1, 0, 0], weight: 0.4, ...still },
      { source: 'lane Looks: dark', attribute: 'level', values: [0], weight: 1, ...still },
    ]),
  ).toEqual(['look Harbour blue: level 50 %, colour (40 % in)', 'lane Looks: dark: level 0 %']);
});

test('a universe without an output that works says so', () => {
  const row = (name: string, on: boolean) => ({
    id: name as OutputRow['id'],
    universe: 2 as OutputRow['universe'],
    on,
  });
  const [one, off] = [row('a', true), row('b', false)];
  const failed = [{ id: 'a', state: 'failed' as const }];
  expect(unheardWords(1, [one], [])).toMatch(/^Universe 1 has no output/);
  expect(unheardWords(2, [off], [])).toMatch(/switched off/);
  expect(unheardWords(2, [one, off], failed)).toMatch(/has failed/);
  expect(unheardWords(2, [one, off], [])).toBeUndefined();
  expect(unheardWords(2, [one, row('c', true)], failed)).toBeUndefined();
});
