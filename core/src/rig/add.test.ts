import fc from 'fast-check';
import { testShow } from '../testing/show';
import { address, id, universe } from '../units';
import {
  clashes,
  firstRun,
  fixtureLibrary,
  footprint,
  lampsOf,
  overlaps,
  roleFor,
  patchedFixtures,
  type Rig,
  runLength,
  searchTypes,
} from '.';

const library = fixtureLibrary();
const show = testShow();
const room = show.rigs[0]!;
const profiles = [...show.profiles, ...library];
const type = (model: string) => library.find((one) => one.model === model)!;
const fresh = (n: number) => `new-${n}`;

describe('the library', () => {
  test('has types over everything the trade uses, several with more than one mode, all with their own ids', () => {
    expect(library.length).toBeGreaterThanOrEqual(40);
    expect(new Set(library.map((one) => one.id)).size).toBe(library.length);
    expect(library.filter((one) => one.modes.length > 1).length).toBeGreaterThan(25);
    expect(new Set(library.map((one) => one.kind))).toEqual(
      new Set(['dimmer', 'par', 'wash', 'bar', 'strobe', 'moving spot', 'moving wash', 'hazer']),
    );
  });

  test('every mode has its channels side by side from 1 on, without holes or doubles', () => {
    for (const { model, modes } of library)
      for (const mode of modes) {
        const places = mode.channels.flatMap((channel) => channel.at);
        expect([model, places]).toEqual([model, Array.from({ length: footprint(mode) }, (_, i) => i + 1)]);
        expect(mode.name).toBe(`${footprint(mode)} channels`);
      }
  });

  test('cells, two-byte channels and wheels are as the line says', () => {
    const bar = type('LED bar, 8 cells RGB').modes[2]!;
    expect(bar.channels.filter((channel) => channel.cell === 7).map(({ attribute, at }) => [attribute, at[0]])).toEqual(
      [
        ['ColorAdd_R', 22],
        ['ColorAdd_G', 23],
        ['ColorAdd_B', 24],
      ],
    );
    const spot = type('Kestrel spot 150');
    expect(spot.modes[0]!.channels[0]).toMatchObject({ attribute: 'Pan', at: [1, 2], home: 0.5 });
    const wheel = spot.modes[0]!.channels.find((channel) => channel.attribute === 'Color1')!;
    expect([wheel.ranges.length, spot.colours.length]).toEqual([9, 9]);
  });

  test('search finds by maker, model, kind and channel count, in any order of words', () => {
    const found = (text: string) => searchTypes(library, text).map((one) => `${one.maker} ${one.model}`);
    expect(found('quillon tube')).toEqual(['Quillon Pixel tube 24']);
    expect(found('TUBE quill')).toEqual(['Quillon Pixel tube 24']);
    expect(found('moving wash')).toContain('Northlamp Osprey wash CMY');
    expect(found('72ch')).toEqual(['Quillon Pixel tube 24']);
    expect(found('spot')[0]).toMatch(/spot/i);
    expect(found('nothing of the kind')).toEqual([]);
    expect(searchTypes(library, '')).toHaveLength(library.length);
  });
});

describe('adding lamps', () => {
  const wanted = fc
    .record({
      type: fc.constantFrom(...library),
      mode: fc.nat(5),
      count: fc.integer({ min: 1, max: 12 }),
      universe: fc.integer({ min: 1, max: 3 }).map(universe),
      block: fc.constantFrom(0, 8, 16, 20),
    })
    .map(({ type: profile, mode, ...rest }) => ({
      profile,
      mode: profile.modes[mode % profile.modes.length]!,
      ...rest,
    }));

  test('the run that is offered is free, inside the universe, and no earlier one would do', () => {
    fc.assert(
      fc.property(wanted, (one) => {
        const start = firstRun(room, profiles, one);
        if (start === undefined) {
          for (let at = 1; at + runLength(one) <= 513; at += 7)
            expect(clashes(room, profiles, one, address(at)).length).toBeGreaterThan(0);
          return;
        }
        const lamps = lampsOf(room, one, start, fresh);
        const rig = { ...room, fixtures: [...room.fixtures, ...lamps] };
        const before = overlaps(patchedFixtures(room, profiles)).length;
        expect(overlaps(patchedFixtures(rig, profiles))).toHaveLength(before);
        expect(lamps.at(-1)!.address + footprint(one.mode) - 1).toBeLessThanOrEqual(512);
        for (let at = 1; at < start; at++) expect(clashes(room, profiles, one, address(at)).length).toBeGreaterThan(0);
      }),
    );
  });

  test('numbers and names go on from the last, addresses step by the block, and the row is centred', () => {
    const one = {
      profile: type('LED PAR RGB'),
      mode: type('LED PAR RGB').modes[0]!,
      count: 3,
      universe: universe(1),
      block: 8,
    };
    const first = lampsOf(room, one, address(101), fresh);
    expect(first.map(({ number, name, address: at }) => [number, name, at])).toEqual([
      [6, 'RGB 1', 101],
      [7, 'RGB 2', 109],
      [8, 'RGB 3', 117],
    ]);
    expect(first.map((lamp) => lamp.mount.x)).toEqual([-4, 0, 4]);
    const rig = { ...room, fixtures: [...room.fixtures, ...first] };
    expect(lampsOf(rig, { ...one, count: 1 }, address(200), fresh)[0]).toMatchObject({ name: 'RGB 4', number: 9 });
  });

  test('a run past 512 is not made, and what it would share channels with is named', () => {
    const tube = {
      profile: type('Pixel tube 24'),
      mode: type('Pixel tube 24').modes[1]!,
      count: 8,
      universe: universe(2),
    };
    expect(firstRun(room, profiles, tube)).toBeUndefined();
    expect(() => lampsOf(room, tube, address(1), fresh)).toThrow('past 512');
    const one = { ...tube, count: 1, universe: universe(1) };
    expect(clashes(room, profiles, one, address(1))).toEqual(['A', 'B']);
  });

  test('lamps join the role that their type plays, else one named after their kind', () => {
    const spot = show.profiles.find((one) => one.id === 'spot')!;
    expect(roleFor(room, profiles, show.roles, spot, 'x')).toMatchObject({ id: 'movers' });
    expect(roleFor(room, profiles, show.roles, type('Hazer'), 'x')).toEqual({ id: 'x', name: 'Haze', tint: 3 });
  });
});

test('lamps that are added time after time hang beside one another, never on top', () => {
  const profile = fixtureLibrary().find((one) => one.kind === 'par')!;
  let rig: Rig = { id: id('r'), name: 'R', fixtures: [], casting: [], shapes: [] };
  for (const [i, count] of [4, 1, 4, 1, 7, 2].entries()) {
    const wanted = { profile, mode: profile.modes[0]!, count, universe: universe(i + 1) };
    rig = { ...rig, fixtures: [...rig.fixtures, ...lampsOf(rig, wanted, address(1), (n) => `${i}-${n}`)] };
  }
  const places = rig.fixtures.map(({ mount: { x, y, z } }) => [x, y, z] as const);
  places.forEach((one, i) =>
    places
      .slice(0, i)
      .forEach((other) => expect(Math.hypot(...one.map((metres, k) => metres - other[k]!))).toBeGreaterThan(0.39)),
  );
});
