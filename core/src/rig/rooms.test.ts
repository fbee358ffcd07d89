import fc from 'fast-check';
import { testShow } from '../testing/show';
import { address, universe } from '../units';
import { edit } from '../show';
import {
  aligned,
  amountAtPlace,
  amountsOf,
  bytesOfValue,
  castingReport,
  Channel,
  dmxOfPhysical,
  extentOf,
  fixtureLibrary,
  heldFor,
  inMode,
  isInside,
  lampsOf,
  lossWords,
  loads,
  mirrored,
  movedBy,
  noteFromText,
  noteName,
  noteOf,
  ordered,
  overlaps,
  packed,
  packedStart,
  patchedFixtures,
  physicalOfDmx,
  placeOfAmount,
  renumbered,
  spacedOut,
  suggestedCasting,
  valueOfBytes,
  type Range,
  type Rig,
} from '.';

const show = testShow();
const room = show.rigs[0]!;
const profiles = [...show.profiles, ...fixtureLibrary()];
const type = (model: string) => profiles.find((one) => one.model === model)!;

/** The room with 30 more lamps of three types. */
function fuller(): Rig {
  let rig: Rig = room;
  for (const [model, start] of [
    ['LED PAR RGBW', 1],
    ['Moving head, spot', 120],
    ['LED bar, 8 cells RGB', 300],
  ] as const) {
    const profile = type(model);
    const wanted = { profile, mode: profile.modes[0]!, count: 10, universe: universe(5) };
    rig = { ...rig, fixtures: [...rig.fixtures, ...lampsOf(rig, wanted, address(start), (n) => `${model}-${n}`)] };
  }
  return rig;
}

describe('bytes and what they mean', () => {
  test('one, two and three bytes come back as the value that went in, to half their finest step', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), fc.integer({ min: 1, max: 3 }), (value, count) => {
        const bytes = bytesOfValue(value, count);
        expect(bytes.every((byte) => Number.isInteger(byte) && byte >= 0 && byte <= 255)).toBe(true);
        expect(Math.abs(valueOfBytes(bytes) - value)).toBeLessThanOrEqual(0.5 / (256 ** count - 1) + 1e-12);
      }),
    );
    expect(bytesOfValue(0.5, 2)).toEqual([128, 0]);
    expect(bytesOfValue(7, 3)).toEqual([255, 255, 255]);
  });

  test('a physical value goes through its range and back, backwards ranges too, and stops at their ends', () => {
    const ends = fc
      .tuple(fc.integer({ min: 0, max: 255 }), fc.integer({ min: 0, max: 255 }))
      .filter(([a, b]) => a !== b);
    fc.assert(
      fc.property(ends, fc.double({ min: 0, max: 1, noNaN: true }), ([from, to], share) => {
        const range: Range = { from, to, does: 'strobe', low: 1, high: 25 };
        const hz = 1 + 24 * share;
        expect(physicalOfDmx(range, dmxOfPhysical(range, hz))).toBeCloseTo(hz, 9);
        expect(dmxOfPhysical(range, 1000)).toBe(to);
        expect(dmxOfPhysical(range, -5)).toBe(from);
      }),
    );
  });

  test('an amount lies in the ranges that are one, and what it becomes is read as that amount', () => {
    const channel = (...ranges: Partial<Range>[]) =>
      Channel.parse({
        attribute: 'Dimmer',
        at: [1],
        ranges: ranges.map((range) => ({ from: 0, to: 255, does: 'level', ...range })),
      });
    const strobe: Partial<Range> = { from: 201, to: 255, does: 'strobe' };
    expect(amountsOf(channel())).toBeNull();
    expect(amountsOf(channel({}))).toBeNull();
    const inBytes = (...ranges: Partial<Range>[]) => {
      const { none, least, most } = amountsOf(channel(...ranges))!;
      return [none, least, most].map((one) => Math.round(one * 255));
    };
    expect(inBytes({ to: 200 }, strobe)).toEqual([0, 0, 200]);
    // In two halves, of which the maker says how bright each is; and where a lamp is brightest at the lower end.
    expect(inBytes({ to: 99 }, { from: 100, to: 200 }, strobe)).toEqual([0, 0, 200]);
    expect(inBytes({ to: 99, low: 0, high: 0.5 }, { from: 100, to: 200, low: 0.5, high: 1 }, strobe)).toEqual([
      0, 0, 200,
    ]);
    expect(amountsOf(channel({ to: 99, low: 10, high: 25 }, { from: 100, low: 25, high: 50 }))).toBeNull();
    expect(inBytes({ to: 99 }, { from: 100, low: 1, high: 0 })).toEqual([0, 0, 99]);
    // Full on right above the most is the most; one that strobes lies between in the others.
    expect(amountsOf(channel({ to: 239 }, { from: 240, does: 'open' }))).toBeNull();
    expect(inBytes({ to: 200, low: 1, high: 0 }, strobe)).toEqual([200, 200, 0]);
    expect(inBytes({ from: 10, to: 200 }, { from: 201, to: 255, name: 'strobe slow-fast' })).toEqual([0, 10, 200]);
    expect(inBytes({ to: 200 }, { from: 250, to: 255, does: 'closed' })).toEqual([250, 0, 200]);
    fc.assert(
      fc.property(
        fc.nat(255),
        fc.nat(255),
        fc.boolean(),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (a, b, falls, amount) => {
          const amounts = amountsOf(
            channel({ from: Math.min(a, b), to: Math.max(a, b), ...(falls ? { low: 1, high: 0 } : {}) }),
          );
          if (!amounts) return;
          const place = placeOfAmount(amounts, amount);
          expect(amount === 0 || (place * 255 >= Math.min(a, b) - 1e-9 && place * 255 <= Math.max(a, b) + 1e-9)).toBe(
            true,
          );
          if (Math.abs(place - amounts.none) >= 1e-3) expect(amountAtPlace(amounts, place)).toBeCloseTo(amount, 9);
        },
      ),
    );
  });

  test('lit by hand a lamp is open, white and at the level asked for, wherever its motors are told to go', () => {
    const spot = patchedFixtures(room, profiles).find(({ fixture }) => fixture.id === 's')!;
    const held = new Map(heldFor(spot, { level: 1, pan: 135, tilt: -125 }).map((one) => [one.address, one.value]));
    expect([held.get(1), held.get(2), held.get(3), held.get(4)]).toEqual([191, 255, 0, 0]);
    expect([held.get(5), held.get(7), held.get(8)]).toEqual([255, 228, 8]);
    const strobes = [
      { from: 0, to: 134, does: 'level' as const },
      { from: 135, to: 255, does: 'strobe' as const },
    ];
    const channels = spot.mode.channels.map((one) => (one.attribute === 'Dimmer' ? { ...one, ranges: strobes } : one));
    const dimmed = (level: number) => heldFor({ ...spot, mode: { ...spot.mode, channels } }, { level });
    expect([1, 0.5, 0].map((level) => dimmed(level).find(({ address }) => address === 5)!.value)).toEqual([134, 67, 0]);
    const turned = {
      ...spot,
      fixture: { ...spot.fixture, panInvert: true, limits: { panFrom: -45, panTo: 45, tiltFrom: 0, tiltTo: 90 } },
    };
    const inside = new Map(heldFor(turned, { pan: 135, tilt: -125 }).map((one) => [one.address, one.value]));
    expect(inside.get(1)).toBe(Math.floor((0.5 - 45 / 540) * 256));
    expect(inside.get(3)).toBe(128);
    expect(inside.has(5)).toBe(false);
  });
});

describe('many lamps at once', () => {
  const rig = fuller();
  const lamps = patchedFixtures(rig, profiles);

  test('packed lamps never overlap one another, keep their order, and the offered start is free', () => {
    fc.assert(
      fc.property(
        fc.subarray([...lamps], { minLength: 1 }),
        fc.integer({ min: 5, max: 6 }),
        fc.constantFrom(0, 8, 16, 24),
        (chosen, to, block) => {
          const start = packedStart(rig, profiles, chosen, { universe: universe(to), block });
          if (start === undefined) return;
          const { fixtures, clashes, past } = packed(rig, profiles, chosen, { universe: universe(to), start, block });
          expect([clashes, past]).toEqual([[], undefined]);
          const after = {
            ...rig,
            fixtures: rig.fixtures.map((one) => fixtures.find((next) => next.id === one.id) ?? one),
          };
          expect(overlaps(patchedFixtures(after, profiles))).toHaveLength(0);
          const places = fixtures.map((one) => one.address as number);
          expect([...places].sort((a, b) => a - b)).toEqual(places);
        },
      ),
      { seed: 4, numRuns: 60 },
    );
  });

  test('what does not fit is named and not moved', () => {
    expect(packed(rig, profiles, lamps.slice(0, 2), { universe: universe(5), start: address(1) }).clashes[0]).toBe(
      'RGBW 1',
    );
    expect(packed(rig, profiles, lamps, { universe: universe(9), start: address(500) }).past).toBeDefined();
  });

  test('new numbers are given in order, and those who had them take the freed ones', () => {
    const [a, b] = [room.fixtures[3]!, room.fixtures[4]!];
    const after = renumbered(room, [a, b], 1);
    const numbers = room.fixtures.map((one) => (after.find((next) => next.id === one.id) ?? one).number);
    expect(numbers).toEqual([4, 5, 3, 1, 2]);
  });

  test('a longer mode keeps its place where it fits, moves where it does not, and overlaps nobody', () => {
    const chosen = lamps.filter(({ profile }) => profile.model === 'LED PAR RGBW');
    const mode = type('LED PAR RGBW').modes[3]!;
    const { fixtures, moved, homeless } = inMode(rig, profiles, chosen, mode);
    expect(homeless).toEqual([]);
    expect(moved.length).toBeGreaterThan(0);
    const after = { ...rig, fixtures: rig.fixtures.map((one) => fixtures.find((next) => next.id === one.id) ?? one) };
    expect(overlaps(patchedFixtures(after, profiles))).toEqual([]);
    expect(fixtures.every((one) => one.mode === mode.id)).toBe(true);
  });

  test('lamps on one address on purpose are no overlap', () => {
    const profile = type('LED PAR RGBW');
    const wanted = { profile, mode: profile.modes[0]!, count: 4, universe: universe(7), together: true };
    const four = lampsOf(room, wanted, address(510 - 1), (n) => `t${n}`);
    expect(new Set(four.map((one) => one.address)).size).toBe(1);
    expect(overlaps(patchedFixtures({ ...room, fixtures: [...four] }, profiles))).toEqual([]);
  });

  test('watts add up by universe and circuit', () => {
    const with1 = {
      ...room,
      fixtures: room.fixtures.map((one, i) => (i < 2 ? { ...one, watts: 100, circuit: 'B' } : one)),
    };
    const { universes, circuits, unknown } = loads(with1, profiles);
    expect([universes.get(1), circuits.get('B'), unknown]).toEqual([200, 200, 3]);
  });
});

describe('on the plan', () => {
  test('lining up, spacing out and mirroring move only what they should', () => {
    const lamps = room.fixtures
      .slice(0, 3)
      .map((one, i) => ({ ...one, mount: { ...one.mount, x: [0, 1, 4][i]!, z: 3 + i } }));
    expect(spacedOut(lamps, 'x').map(({ mount }) => mount.x)).toEqual([0, 2, 4]);
    expect(aligned(lamps, 'z').map(({ mount }) => mount.z)).toEqual([4, 4, 4]);
    expect(movedBy(lamps, { x: 0.13 }, 0.25).map(({ mount }) => mount.x)).toEqual([0.25, 1.25, 4.25]);
    const mount = { x: 2, y: 1, z: 3, yaw: 30, pitch: 40, roll: 5 };
    expect(mirrored(mirrored(mount))).toEqual(mount);
    expect(mirrored(mount)).toMatchObject({ x: -2, yaw: -30, roll: -5, pitch: 40 });
  });

  test('a drawn line encloses what lies inside it; all is in sight', () => {
    const square = [
      [0, 0],
      [2, 0],
      [2, 2],
      [0, 2],
    ] as const;
    expect([isInside(square, 1, 1), isInside(square, 3, 1), isInside(square, -1, 1)]).toEqual([true, false, false]);
    for (const view of ['above', 'audience'] as const) {
      const { left, right, low, high } = extentOf(room, view);
      for (const { mount } of room.fixtures) {
        const up = view === 'above' ? mount.y : mount.z;
        expect(mount.x > left && mount.x < right && up > low && up < high).toBe(true);
      }
    }
  });
});

describe('roles', () => {
  test('orders follow the plan or the patch', () => {
    const ids = room.fixtures.map(({ id }) => id);
    expect(ordered(room, ids, 'left to right')[0]).toBe('a');
    expect(ordered(room, ids, 'by address')).toEqual(['a', 'b', 's', 'c', 'idle']);
    expect(ordered(room, ids, 'top to bottom')[0]).toBe('s');
  });

  test('notes count up from C3 within a role, and are read as musicians write them', () => {
    expect(noteName(noteOf(room, room.fixtures[0]!)!)).toBe('C3');
    expect(noteName(noteOf(room, room.fixtures[1]!)!)).toBe('C#3');
    expect(noteOf(room, room.fixtures[4]!)).toBeUndefined();
    for (let note = 0; note < 128; note++) expect(noteFromText(noteName(note))).toBe(note);
    expect([noteFromText('Db3'), noteFromText('60'), noteFromText('H3'), noteFromText('G10')]).toEqual([
      49,
      60,
      undefined,
      undefined,
    ]);
  });

  test('one role goes into another in every rig and look', () => {
    const { show: after } = edit(show, { type: 'merge-roles', role: show.roles[1]!.id, into: show.roles[0]!.id });
    expect(after.roles.map(({ id }) => id)).toEqual(['wash', 'bars']);
    expect(after.rigs[0]!.casting.find(({ role }) => role === 'wash')!.fixtures).toEqual(['a', 'b', 's']);
    expect(after.looks[1]!.values.map(({ role }) => role)).toEqual(['wash']);
    expect(edit(show, { type: 'merge-roles', role: show.roles[0]!.id, into: show.roles[0]!.id }).show).toBe(show);
  });
});

describe('another room', () => {
  const [from, to] = [show.rigs[0]!, show.rigs[1]!];

  test('what is lost there is said role by role, with what happens instead', () => {
    const report = castingReport(show, from, to, to.casting);
    const words = Object.fromEntries(report.map(({ role, losses }) => [role.name, losses.map(lossWords)]));
    expect(words['Wash']).toEqual(['1 lamp instead of 2: values repeat over fewer lamps.']);
    expect(words['Movers']).toEqual(['Nobody plays it: what it does is not seen.']);
    const all = castingReport(
      show,
      from,
      to,
      show.roles.map(({ id }) => ({ role: id, fixtures: [to.fixtures[0]!.id] })),
    );
    expect(all.find(({ role }) => role.id === 'movers')!.losses.map(lossWords)).toEqual([
      'It has no pan and tilt: they shine where they point.',
    ]);
  });

  test('staying loses nothing; every suggestion names lamps of that room only', () => {
    expect(castingReport(show, from, from, from.casting).flatMap(({ losses }) => losses)).toEqual([]);
    const there = new Set<string>(to.fixtures.map(({ id }) => id));
    const suggested = suggestedCasting(show, from, to);
    expect(suggested.map(({ role }) => role)).toEqual(['wash', 'movers', 'bars']);
    expect(suggested.every(({ fixtures }) => fixtures.every((id) => there.has(id)))).toBe(true);
  });

  test('recasting takes it into use and undoes in one step', () => {
    const casting = [...suggestedCasting(show, from, to)];
    const { show: after } = edit(show, { type: 'recast', rig: to.id, casting });
    expect([after.rig, after.rigs[1]!.casting.length]).toEqual(['hall', 3]);
  });
});
