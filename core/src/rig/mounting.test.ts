import fc from 'fast-check';
import {
  aimError,
  beamDirection,
  mountAngles,
  mountRotation,
  mountTowards,
  panTiltTo,
  pointToAdd,
  solveMount,
  type Point,
} from '.';

const angle = (most: number) => fc.double({ min: -most, max: most, noNaN: true });
const mounts = fc
  .record({
    yaw: angle(180),
    pitch: angle(179),
    roll: angle(179),
    x: angle(5),
    y: angle(5),
    z: fc.double({ min: 2.5, max: 6, noNaN: true }),
  })
  .map((mount) => mount);
const WIDE = { panRange: 540, tiltRange: 360 };

/** Points a user can name: the stage's corners, the singer, the riser's front. */
const POINTS = {
  left: { x: -3, y: 0.5, z: 0 },
  right: { x: 3, y: 0.5, z: 0 },
  singer: { x: 0, y: 1, z: 1.6 },
  back: { x: 0, y: 4.5, z: 0 },
} as const;

/** Where a head must be sent so that its beam lands on a point, as its channels say it. */
function sentTo(mount: Parameters<typeof panTiltTo>[0], point: Point, inverted = false) {
  const { pan, tilt, reached } = panTiltTo(mount, WIDE, point);
  expect(reached).toBe(true);
  return { pan: inverted ? -pan : pan, tilt, point };
}

/** Degrees between two mounts: how far one beam is from the other, at worst over a few directions. */
function apart(a: Parameters<typeof mountRotation>[0], b: Parameters<typeof mountRotation>[0]): number {
  const [first, second] = [mountRotation(a), mountRotation(b)];
  const [u, v] = [new Float64Array(3), new Float64Array(3)];
  const misses = [
    [0, 0],
    [0, 60],
    [90, 60],
    [180, 60],
    [270, 60],
    [45, 120],
  ].map(([pan, tilt]) => {
    beamDirection(first, pan!, tilt!, u);
    beamDirection(second, pan!, tilt!, v);
    const dot = u[0]! * v[0]! + u[1]! * v[1]! + u[2]! * v[2]!;
    return (Math.acos(Math.min(1, Math.max(-1, dot))) * 180) / Math.PI;
  });
  return Math.max(...misses);
}

test('angles of a rotation are its mount again', () => {
  fc.assert(
    fc.property(mounts, (mount) => {
      const again = mountAngles(mountRotation(mount));
      expect(apart(mount, again)).toBeLessThan(1e-4);
    }),
  );
});

describe('where does it point?', () => {
  test('two exact taps find the mount within half a degree, over all ways to hang a head', () => {
    fc.assert(
      fc.property(mounts, (mount) => {
        fc.pre(
          Object.values(POINTS).every(
            (point) => Math.hypot(point.x - mount.x, point.y - mount.y, point.z - mount.z) > 1,
          ),
        );
        const taps = [sentTo(mount, POINTS.left), sentTo(mount, POINTS.right)];
        const solved = solveMount(mount, taps, WIDE);
        if (typeof solved === 'string') return void expect(solved).toBe('taps in one line');
        expect(apart(solved.mount, mount)).toBeLessThan(0.5);
        expect(solved.residual).toBeLessThan(0.01);
        expect(solved.unsure).toBe(true);
      }),
      { seed: 5, numRuns: 300 },
    );
  });

  test('three taps with two degrees of scatter find it within three degrees', () => {
    fc.assert(
      fc.property(mounts, fc.array(angle(2), { minLength: 6, maxLength: 6 }), (hung, scatter) => {
        // Over the stage, so that the three points lie in clearly different directions.
        const mount = { ...hung, x: hung.x / 3, y: 1.5 + hung.y / 5 };
        const taps = [POINTS.left, POINTS.right, POINTS.back].map((point, i) => {
          const tap = sentTo(mount, point);
          // Scatter of the beam itself: the hand stops up to two degrees beside the point, in any direction.
          const [u, v] = [scatter[i * 2]! / Math.SQRT2, scatter[i * 2 + 1]! / Math.SQRT2];
          const side = Math.max(0.05, Math.abs(Math.sin((tap.tilt * Math.PI) / 180)));
          return { ...tap, pan: tap.pan + Math.min(20, Math.max(-20, u / side)), tilt: tap.tilt + v };
        });
        const solved = solveMount(mount, taps, WIDE);
        expect(typeof solved).toBe('object');
        if (typeof solved === 'string' || solved.panInvert) return;
        expect(apart(solved.mount, mount)).toBeLessThan(3);
      }),
      { seed: 6, numRuns: 300 },
    );
  });

  test('a head whose pan runs backwards is told from one that does not, once three points do not lie in one plane', () => {
    const mount = { x: -1.5, y: 3.5, z: 4, yaw: 20, pitch: 5, roll: 3 };
    const taps = [POINTS.left, POINTS.right, POINTS.back, POINTS.singer].map((point) => sentTo(mount, point, true));
    const solved = solveMount(mount, taps, WIDE);
    expect(solved).toMatchObject({ panInvert: true, swapPanTilt: false, unsure: false });
    expect(typeof solved === 'object' && solved.residual).toBeLessThan(0.01);
  });

  test('a head whose channels are swapped is found out', () => {
    const mount = { x: -1.5, y: 3.5, z: 4, yaw: -70, pitch: 12, roll: 0 };
    const taps = [POINTS.left, POINTS.right, POINTS.back, POINTS.singer].map((point) => {
      const tap = sentTo(mount, point);
      return { ...tap, pan: (tap.tilt / 360) * 540, tilt: (tap.pan / 540) * 360 };
    });
    expect(solveMount(mount, taps, WIDE)).toMatchObject({ swapPanTilt: true, panInvert: false });
  });

  test('what does not suffice is said, and the next point is the one that spans most', () => {
    const mount = { x: 0, y: 3, z: 4, yaw: 0, pitch: 0, roll: 0 };
    const tap = sentTo(mount, POINTS.left);
    expect(solveMount(mount, [tap], WIDE)).toBe('too few taps');
    expect(solveMount(mount, [tap, tap], WIDE)).toBe('taps in one line');
    const near = { name: 'near', ...POINTS.left, x: -2.95 };
    const far = { name: 'far', ...POINTS.right };
    expect(pointToAdd(mount, [tap], [near, far])).toBe(far);
    expect(pointToAdd(mount, [tap], [near])).toBeUndefined();
  });
});

describe('aiming within limits', () => {
  const limits = fc.record({
    panFrom: fc.double({ min: -200, max: 0, noNaN: true }),
    panTo: fc.double({ min: 1, max: 200, noNaN: true }),
    tiltFrom: fc.double({ min: -100, max: 0, noNaN: true }),
    tiltTo: fc.double({ min: 1, max: 100, noNaN: true }),
  });
  const spots = fc.record({ x: angle(6), y: angle(6), z: fc.double({ min: 0, max: 2, noNaN: true }) });

  test('a head never leaves them; where it says it reached a point its beam passes within a tenth of a degree', () => {
    fc.assert(
      fc.property(mounts, limits, spots, (mount, held, point) => {
        fc.pre(Math.hypot(point.x - mount.x, point.y - mount.y, point.z - mount.z) > 0.5);
        const turned = panTiltTo(mount, { ...WIDE, limits: held }, point);
        expect(turned.pan).toBeGreaterThanOrEqual(held.panFrom);
        expect(turned.pan).toBeLessThanOrEqual(held.panTo);
        expect(turned.tilt).toBeGreaterThanOrEqual(held.tiltFrom);
        expect(turned.tilt).toBeLessThanOrEqual(held.tiltTo);
        const miss = aimError(mount, turned, point);
        expect(turned.reached ? miss <= 0.1 : miss >= 0.05 - 1e-9).toBe(true);
        expect(panTiltTo(mount, { ...WIDE, limits: held }, point)).toEqual(turned);
      }),
      { seed: 7, numRuns: 400 },
    );
  });

  test('out of reach, no pan and tilt within the limits passes nearer to the point', () => {
    fc.assert(
      fc.property(mounts, limits, spots, (mount, held, point) => {
        fc.pre(Math.hypot(point.x - mount.x, point.y - mount.y, point.z - mount.z) > 0.5);
        const turned = panTiltTo(mount, { ...WIDE, limits: held }, point);
        fc.pre(!turned.reached);
        const best = aimError(mount, turned, point);
        for (let i = 0; i <= 24; i++)
          for (let k = 0; k <= 24; k++) {
            const pan = held.panFrom + ((held.panTo - held.panFrom) * i) / 24;
            const tilt = held.tiltFrom + ((held.tiltTo - held.tiltFrom) * k) / 24;
            expect(aimError(mount, { pan, tilt }, point)).toBeGreaterThanOrEqual(best - 1e-6);
          }
      }),
      { seed: 8, numRuns: 60 },
    );
  });
});

test('an arrow on the plan turns a lamp that does not move towards its end', () => {
  fc.assert(
    fc.property(mounts, angle(6), angle(6), (mount, x, y) => {
      const turned = mountTowards(mount, { x, y, z: 0 });
      expect(aimError(turned, { pan: 0, tilt: 0 }, { x, y, z: 0 })).toBeLessThan(1e-4);
    }),
  );
});
