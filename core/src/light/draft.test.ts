import { chromaticityFromHex, hexFromChromaticity, hueFromChromaticity } from '../colour';
import { attributeOf, type Casting } from '../rig';
import { id } from '../units';
import {
  heardBy,
  inFamilies,
  LookValue,
  mainColour,
  numbersFromText,
  READY_EFFECTS,
  recoloured,
  saidAgain,
  saidTo,
  whosOf,
  whoWords,
  type Who,
} from '.';

const lamps = (...names: string[]) => names.map((name) => id<'Fixture'>(name));
const casting: Casting[] = [
  { role: id('front'), fixtures: lamps('f1', 'f2', 'f3', 'f4') },
  { role: id('faces'), fixtures: lamps('f2', 'f3') },
  { role: id('movers'), fixtures: lamps('m1', 'm2', 'm3') },
];
const roles = [
  { id: 'front', name: 'Front wash' },
  { id: 'faces', name: 'Faces' },
  { id: 'movers', name: 'Movers' },
];
const words = (chosen: string[], preferred?: string[]) =>
  whosOf(lamps(...chosen), casting, preferred).map((who) => whoWords(who, roles));
const front: Who = { role: id('front') };
const odd: Who = { role: id('front'), pick: { type: 'every', nth: 2, from: 0 } };
const level = (value: number) => ({ type: 'hold' as const, value });

describe('whom a choice of lamps means', () => {
  test('whole roles, then places of roles, then lamps by themselves', () => {
    expect(words(['f1', 'f2', 'f3', 'f4', 'm1', 'm2', 'm3'])).toEqual(['Front wash', 'Movers']);
    expect(words(['f1', 'f3'])).toEqual(['Front wash, odd']);
    expect(words(['f1', 'f4'])).toEqual(['Front wash, outer']);
    expect(words(['m2'])).toEqual(['Movers, no. 2']);
    expect(words(['x', 'm1', 'm2', 'm3'])).toEqual(['Movers', '1 single lamp']);
    expect(words([])).toEqual([]);
  });

  test('lamps of two roles are meant by the role that was chosen', () => {
    expect(words(['f2', 'f3'])).toEqual(['Faces']);
    expect(words(['f2', 'f3'], ['faces'])).toEqual(['Faces']);
    expect(words(['f1', 'f2', 'f3', 'f4'], ['front'])).toEqual(['Front wash']);
  });

  test('numbers typed as ranges', () => {
    expect(numbersFromText('1-4, 9')).toEqual([1, 2, 3, 4, 9]);
    expect(numbersFromText('6–5 6')).toEqual([5, 6]);
    for (const wrong of ['', 'one', '1-', '1--3', '-2']) expect(numbersFromText(wrong)).toBeUndefined();
  });
});

describe('saying something to lamps', () => {
  test('what is said to all takes back what some were told, and leaves the rest of it', () => {
    const some = saidTo([], odd, { level: level(0.2), zoom: level(0.9) }, casting);
    const all = saidTo(some, front, { level: level(1) }, casting);
    expect(all).toEqual([
      { ...odd, zoom: level(0.9) },
      { ...front, level: level(1) },
    ]);
  });

  test('what is said to some overrides what all were told', () => {
    const values = saidTo(saidTo([], front, { level: level(1) }, casting), odd, { level: level(0.2) }, casting);
    expect(heardBy(values, odd, casting).level).toEqual(level(0.2));
    expect(heardBy(values, { role: id('front'), pick: { type: 'places', places: [1] } }, casting).level).toEqual(
      level(1),
    );
  });

  test('leaving alone what was the only thing said leaves nothing', () => {
    const said = saidTo([], front, { level: level(1), more: { Iris: { type: 'hold', value: 0.3 } } }, casting);
    const less = saidTo(said, front, { more: { Iris: undefined } }, casting);
    expect(less).toEqual([{ ...front, level: level(1) }]);
    expect(saidTo(less, front, { level: undefined }, casting)).toEqual([]);
  });

  test('what some do, said to others: all of it, and nothing that those were told before', () => {
    const from = LookValue.parse({ ...odd, level: level(0.4), zoom: level(0.1) });
    const told = saidTo([], front, { level: level(1), haze: level(1), more: { Iris: level(0.2) } }, casting);
    expect(saidTo(told, front, saidAgain(from, told), casting)).toEqual([
      { ...front, level: level(0.4), zoom: level(0.1) },
    ]);
  });

  test('only some families are kept when only some are wanted', () => {
    const value = LookValue.parse({
      role: 'front',
      level: level(1),
      zoom: level(0.5),
      more: { Iris: level(0.2), ColorAdd_UV: level(1) },
      waves: [{ type: 'wave', on: 'level', shape: 'sine', low: 0, high: 1, span: { beats: 1 } }],
    });
    const family = (attribute: string) => attributeOf(attribute).family;
    const [beam] = inFamilies([value], new Set(['beam']), family);
    expect(beam).toEqual({ role: 'front', zoom: level(0.5), more: { Iris: level(0.2) } });
    expect(inFamilies([value], new Set(['rate']), family)).toEqual([]);
  });
});

test('recoloured: hues turn together, white stays white', () => {
  const look = [
    {
      role: id<'Role'>('front'),
      colour: { type: 'spread' as const, values: ['#ff0000', '#ffffff'].map(chromaticityFromHex) },
    },
  ];
  const turned = recoloured(look, 120)[0]!.colour!;
  if (turned.type !== 'spread') throw new Error('a spread stays one');
  expect(hueFromChromaticity(turned.values[0]!).hue).toBeGreaterThan(80);
  expect(hueFromChromaticity(turned.values[0]!).hue).toBeLessThan(170);
  expect(hexFromChromaticity(turned.values[1]!)).toBe('#ffffff');
  expect(hexFromChromaticity(mainColour(look)!)).toBe('#ff0000');
});

test('every ready effect is a value of a look like one’s own', () => {
  for (const { name, saying } of READY_EFFECTS) {
    const read = LookValue.safeParse(JSON.parse(JSON.stringify({ role: 'front', ...saying })));
    expect([name, read.error?.issues]).toEqual([name, undefined]);
    expect(saying.waves?.length).toBeGreaterThan(0);
  }
});
