import fc from 'fast-check';
import { testShow } from '../testing/show';
import { address, id } from '../units';
import {
  beamDirection,
  dipSwitches,
  fixtureLibrary,
  footprint,
  mountRotation,
  nextFree,
  overlaps,
  panTiltTo,
  patchedFixtures,
  seenBy,
} from '.';

const show = testShow();
const patched = patchedFixtures(show.rigs[0]!, show.profiles);

test('addresses outside 1 to 512 cannot be made', () => {
  expect(() => address(0)).toThrow('1 to 512');
  expect(() => address(513)).toThrow('513');
  expect(() => address(1.5)).toThrow();
});

test('a lamp is seen by what lights it: it is not moved, nor reset, nor put out', () => {
  const acts = new Set(['reset', 'lamp on', 'lamp off']);
  for (const { modes } of fixtureLibrary())
    for (const mode of modes) {
      const seen = new Set(seenBy(mode));
      const channels = mode.channels.filter(({ at }) => at.some((place) => seen.has(place)));
      expect(channels.length).toBeGreaterThan(0);
      expect(channels.filter(({ attribute }) => /^(Pan|Tilt|LampControl)/.test(attribute))).toEqual([]);
      expect(channels.filter(({ ranges }) => ranges.some(({ does }) => acts.has(does)))).toEqual([]);
    }
  const channel = (attribute: string, ...at: number[]) => ({ attribute, at, home: 0, ranges: [] });
  const of = (...channels: ReturnType<typeof channel>[]) => seenBy({ id: id('m'), name: 'M', channels });
  expect(of(channel('Pan', 1, 2), channel('Dimmer', 3, 4), channel('Color1', 5))).toEqual([3, 4]);
  expect(of(channel('Pan', 1), channel('Color1', 2), channel('Shutter1', 3), channel('LampControl', 4))).toEqual([
    2, 3,
  ]);
  expect(of(channel('Pan', 1), channel('Tilt', 2))).toEqual([1, 2]);
});

test('the next free run is the first gap that is long enough', () => {
  expect(nextFree(patched, 1, 4)).toBe(6);
  expect(nextFree(patched, 1, 5)).toBe(13);
  expect(nextFree(patched, 3, 512)).toBe(1);
  expect(nextFree(patched, 1, 501)).toBeUndefined();
});

test('lamps that share a channel are found, neighbours are not', () => {
  expect(overlaps(patched)).toEqual([]);
  const moved = patched.map((one) =>
    one.fixture.id === 'b' ? { ...one, fixture: { ...one.fixture, address: address(5) } } : one,
  );
  expect(overlaps(moved).map(([a, b]) => [a.id, b.id])).toEqual([['a', 'b']]);
  expect(footprint(patched[2]!.mode)).toBe(8);
});

test('switches add up to the address', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 511 }), (n) => {
      const sum = dipSwitches(address(n)).reduce((total, on, i) => total + (on ? 2 ** i : 0), 0);
      expect(sum).toBe(n);
    }),
    { seed: 1 },
  );
});

describe('aiming', () => {
  const out = new Float64Array(3);
  const angle = fc.double({ min: -180, max: 180, noNaN: true });
  const metres = fc.double({ min: -6, max: 6, noNaN: true });

  test('without rotation a lamp points straight down; pitched by 90 it points up-stage', () => {
    beamDirection(mountRotation({ yaw: 0, pitch: 0, roll: 0 }), 0, 0, out);
    expect([...out]).toEqual([expect.closeTo(0), expect.closeTo(0), expect.closeTo(-1)]);
    beamDirection(mountRotation({ yaw: 0, pitch: 90, roll: 0 }), 0, 0, out);
    expect([...out]).toEqual([expect.closeTo(0), expect.closeTo(1), expect.closeTo(0)]);
  });

  test('the beam goes through the point that was aimed at, however the head is hung', () => {
    fc.assert(
      fc.property(angle, angle, angle, metres, metres, metres, (yaw, pitch, roll, x, y, z) => {
        fc.pre(Math.hypot(x, y, z - 4) > 0.5);
        const mount = { x: 0, y: 0, z: 4, yaw, pitch, roll };
        const { pan, tilt, reached } = panTiltTo(mount, { panRange: 540, tiltRange: 360 }, { x, y, z });
        expect(reached).toBe(true);
        beamDirection(mountRotation(mount), pan, tilt, out);
        const length = Math.hypot(x, y, z - 4);
        expect(out[0]! * x + out[1]! * y + out[2]! * (z - 4)).toBeCloseTo(length, 6);
      }),
      { seed: 11, numRuns: 300 },
    );
  });

  test('of two ways to a point the shorter one from where the head is', () => {
    const mount = { x: 0, y: 0, z: 4, yaw: 0, pitch: 0, roll: 0 };
    const range = { panRange: 540, tiltRange: 270 };
    const near = panTiltTo(mount, range, { x: 0.2, y: -3, z: 0 });
    expect(Math.abs(near.pan)).toBeLessThan(10);
    expect(near.tilt).toBeLessThan(0);
    expect(panTiltTo(mount, range, { x: 0.2, y: -3, z: 0 }, { pan: 180, tilt: 40 }).tilt).toBeGreaterThan(0);
  });

  test('a point out of range is approached and reported', () => {
    const up = panTiltTo(
      { x: 0, y: 0, z: 4, yaw: 0, pitch: 0, roll: 0 },
      { panRange: 540, tiltRange: 180 },
      { x: 0, y: 1, z: 9 },
    );
    expect(up.reached).toBe(false);
    expect(Math.abs(up.tilt)).toBe(90);
  });
});
