import { Chase, Look } from '@hovlix/core/light';
import { patchedFixtures } from '@hovlix/core/rig';
import { id, type Id } from '@hovlix/core/units';
import { chromaticityFromHex } from '@hovlix/core/colour';
import { testShow } from '../../../../core/src/testing/show';
import { changesBetween, stepName, withStepAfter } from './chase/model';
import { nearest, walked } from './edit/choose';
import { chosenLamps, draftLines, matchGroups, matchWords, ownAttributes } from './edit/model';
import { pictureOf } from './edit/RoomFromAbove';
import { waveWords } from './edit/WavesPanel';
import { nextNumber } from '@hovlix/core/show';
import { foldersOf, plainWords, shownPlays } from './model';

const show = testShow();
const room = patchedFixtures(show.rigs[0]!, show.profiles);
const lamp = (name: string) => room.find(({ fixture }) => fixture.id === name)!;
const chase = Chase.parse({
  id: 'c',
  number: 9,
  name: 'Run',
  fadeIn: 0,
  fadeOut: 0,
  pace: 'beats',
  folder: 'Slow',
  steps: [
    { id: '1', look: 'red', fade: 0, hold: 1 },
    { id: '2', look: 'half-blue', fade: 0, hold: 1 },
    { id: '3', values: [{ role: 'wash', level: { type: 'hold', value: 1 } }], fade: 2, hold: 0 },
  ],
});
const chased = { ...show, chases: [chase] };

test('lamps say how near they come to a colour, type by type, each in its own way', () => {
  const blue = chromaticityFromHex('#2040ff');
  const met = matchGroups([lamp('a'), lamp('b')], blue);
  expect(met.map(({ name, words, exact }) => [name, words, exact])).toEqual([
    ['A', 'matches', true],
    ['B', 'matches', true],
  ]);
  expect(matchWords(met)).toBe('All lamps match this colour.');
  // What a mixing lamp makes is what was wanted, to the eye.
  expect(met[0]!.hex).toMatch(/^#[12][0-9a-f][34][0-9a-f]f[0-9a-f]$/);
  const twins = matchGroups([lamp('b'), lamp('idle')], blue);
  expect(twins).toMatchObject([{ name: 'RGB', count: 2 }]);
  const mixed = matchGroups([lamp('a'), lamp('s')], chromaticityFromHex('#00ff40'));
  expect(matchWords(mixed)).toBe('1 of 2 lamps match it.');
  expect(mixed[1]!.words).toMatch(/^(Open|Red|Blue) from its wheel, \d+ off$/);
  const plain = {
    ...lamp('idle'),
    mode: { ...lamp('idle').mode, channels: [{ attribute: 'Dimmer', at: [1], home: 0, ranges: [] }] },
  };
  const one = matchGroups([plain], blue);
  expect(one).toMatchObject([{ name: 'Idle', words: 'one colour only', hex: null }]);
  expect(matchWords(one)).toBe('No lamp matches it. This is how close they come.');
  const gelled = { ...plain, fixture: { ...plain.fixture, gel: chromaticityFromHex('#ff0000') } };
  expect(matchGroups([gelled], blue)[0]).toMatchObject({
    hex: '#ff0000',
    words: expect.stringMatching(/^its gel, \d+ off/),
  });
});

test('what further attributes the chosen lamps have, with ranges by name and slots by colour', () => {
  const [wheel] = ownAttributes([lamp('s')], 'colour');
  expect(wheel).toMatchObject({ attribute: 'Color1', lamps: 1 });
  expect(wheel!.ranges.map(({ name, hex }) => [name, hex])).toEqual([
    ['Open', '#ffffff'],
    ['Red', '#ff0000'],
    ['Blue', '#0000ff'],
  ]);
  expect(ownAttributes([lamp('s'), lamp('a')], 'rate').map(({ attribute }) => attribute)).toEqual(['Shutter1']);
  expect(chosenLamps(show, ['s', 'gone'])).toHaveLength(1);
});

test('what is in hand is said by role and family', () => {
  const look = Look.parse({
    id: 'l',
    number: 1,
    name: 'L',
    fadeIn: 0,
    fadeOut: 0,
    values: [
      {
        role: 'wash',
        pick: { type: 'every', nth: 2, from: 1 },
        level: { type: 'hold', value: 1 },
        waves: [{ type: 'move', shape: 'circle', width: 9, height: 9, span: { beats: 1 } }],
      },
    ],
  });
  expect(draftLines(look.values, show.roles)).toEqual(['Wash, even: level, aim, 1 wave']);
  expect(waveWords(look.values[0]!.waves![0]!)).toBe('Circle, 1 beat');
});

test('cards are found by name, folder, role and what they do', () => {
  const names = (text: string, filter = {}) => shownPlays(chased, text, filter).map(({ name }) => name);
  expect(names('blue')).toEqual(['Half blue']);
  expect(names('slow')).toEqual(['Run']);
  expect(names('aim')).toEqual(['Half blue', 'Run']);
  expect(names('', { kind: 'chases' })).toEqual(['Run']);
  // A chase is found by the roles of its steps' looks.
  expect(names('', { role: id<'Role'>('movers') })).toEqual(['Half blue', 'Run']);
  expect(foldersOf(chased)).toEqual(['Slow']);
  expect(nextNumber(chased)).toBe(5);
  expect(plainWords(chase, show.roles)).toBe('chase, 3 steps · at once · Wash');
});

test('steps are named by their look, and say what is another than in the step before', () => {
  expect(chase.steps.map((step, i) => stepName(chased, step, i))).toEqual(['Red', 'Half blue', 'Step 3']);
  expect(changesBetween(chased, chase.steps[0]!, chase.steps[1]!)).toEqual([
    'Wash: level, colour',
    'Movers: level, colour, aim',
  ]);
  expect(changesBetween(chased, chase.steps[1]!, chase.steps[1]!)).toEqual([]);
});

test('a step put in begins as a copy of the one it follows', () => {
  const more = withStepAfter(chase, 2, { id: id('4') });
  expect(more.steps[3]).toEqual({ ...chase.steps[2], id: '4' });
  expect(withStepAfter({ ...chase, steps: [] }, -1, { id: id('1') }).steps).toEqual([
    { id: '1', values: [], fade: 0, hold: 1, level: 1 },
  ]);
});

test('a tap means the nearest lamp in reach; arrows walk on from those that are chosen, round the ends', () => {
  const lamps = ['a', 'b', 'c'].map((name) => name as Id<'Fixture'>);
  const placed = lamps.map((lampId, x) => ({ id: lampId, x, y: 0 }));
  expect(nearest(placed, [0.9, 0.1], 0.5)?.id).toBe('b');
  expect(nearest(placed, [0.9, 3], 0.5)).toBeUndefined();
  expect(walked(lamps, [], 1, false)).toEqual(['a']);
  expect(walked(lamps, [], -1, false)).toEqual(['c']);
  expect(walked(lamps, ['c' as never], 1, false)).toEqual(['a']);
  expect(walked(lamps, ['a' as never, 'b' as never], 1, true)).toEqual(['a', 'b', 'c']);
  expect(walked([], [], 1, false)).toEqual([]);
});

test('the small plan has every lamp and aim of the room in sight, however far out', () => {
  const rig = show.rigs[0]!;
  const inSight = (viewBox: string, x: number, y: number) => {
    const [left, top, width, height] = viewBox.split(' ').map(Number) as [number, number, number, number];
    return x > left && x < left + width && -y > top && -y < top + height;
  };
  const near = pictureOf(rig);
  expect(rig.fixtures.every(({ mount }) => inSight(near.viewBox, mount.x, mount.y))).toBe(true);
  expect(inSight(near.viewBox, 40, -25)).toBe(false);
  const far = pictureOf(rig, [{ x: 40, y: -25, z: 0 }]);
  expect(inSight(far.viewBox, 40, -25)).toBe(true);
  // What is drawn in pixels stays as large as it is on the screen.
  expect(far.pixel).toBeGreaterThan(near.pixel);
});
