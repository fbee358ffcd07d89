import { testRig } from './test-rig';
import { arrowEnd, cornerOf, shapeMoved, shapeSized, turnedTo } from './handles';
import { fitted, metresX, metresY, nearestLine, pinched, pixelX, pixelY } from './window';

const size = { width: 366, height: 300 };
const all = { left: -5, right: 5, low: -3, high: 5 };

test('what fits is all in sight, and metres and pixels are each other’s inverse', () => {
  const view = fitted(all, size);
  for (const x of [all.left, 0, all.right]) {
    expect(pixelX(view, size, x)).toBeGreaterThanOrEqual(-1e-9);
    expect(pixelX(view, size, x)).toBeLessThanOrEqual(size.width + 1e-9);
    expect(metresX(view, size, pixelX(view, size, x))).toBeCloseTo(x);
  }
  expect(pixelY(view, size, all.high)).toBeGreaterThanOrEqual(-1e-9);
  expect(metresY(view, size, pixelY(view, size, 2))).toBeCloseTo(2);
});

test('what is under two fingers stays under them, and the room never leaves the picture', () => {
  const view = fitted(all, size);
  const under = { x: metresX(view, size, 100), y: metresY(view, size, 120) };
  const near = pinched(view, size, all, { x: 100, y: 120, apart: 50 }, { x: 140, y: 90, apart: 150 });
  expect(near.scale).toBeCloseTo(view.scale * 3);
  expect(metresX(near, size, 140)).toBeCloseTo(under.x);
  expect(metresY(near, size, 90)).toBeCloseTo(under.y);
  const thrown = pinched(view, size, all, { x: 0, y: 0, apart: 10 }, { x: 90000, y: -90000, apart: 0.001 });
  expect(thrown.x).toBe(all.left);
  expect(thrown.y).toBe(all.low);
  expect(thrown.scale).toBeCloseTo(view.scale * 0.6);
});

test('a line is snapped to only when it is near', () => {
  expect(nearestLine(1.1, [0, 1, 4], 0.2)).toBe(1);
  expect(nearestLine(1.3, [0, 1, 4], 0.2)).toBeUndefined();
  expect(nearestLine(1, [], 1)).toBeUndefined();
});

test('a lamp turned by its arrow lands where the arrow was let go', () => {
  const lamp = testRig().fixtures[0]!;
  const turned = { ...lamp, mount: turnedTo(lamp, { x: 1.5, high: 2.5 }, 'above') };
  const end = arrowEnd(turned);
  expect([end.x, end.y, end.z]).toEqual([expect.closeTo(1.5), expect.closeTo(2.5), expect.closeTo(0)]);
  // One that shines up keeps its lean and only turns.
  const bar = { ...lamp, mount: { ...lamp.mount, z: 0.2, pitch: 150 } };
  expect(turnedTo(bar, { x: -3, high: 0 }, 'above')).toMatchObject({ pitch: 150, z: 0.2 });
});

test('shapes move and are sized about their middle, turned ones too', () => {
  const shape = { ...testRig().shapes[0]!, turn: 90 };
  expect(shapeMoved(shape, 0.6, -0.3, 'above', 0.25)).toMatchObject({ x: 0.5, y: 1.75 });
  const corner = cornerOf(shape, 'above');
  const bigger = shapeSized(shape, 0.5, 0.5, 'above', 0);
  const after = cornerOf(bigger, 'above');
  expect(after.x - corner.x).toBeCloseTo(0.5, 1);
  expect(after.y - corner.y).toBeCloseTo(0.5, 1);
  expect(shapeSized(shape, -90, 90, 'above', 0)).toMatchObject({ depth: 0.1 });
});
