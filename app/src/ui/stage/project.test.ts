import fc from 'fast-check';
import { project, viewFor } from './project';

const point = new Float64Array(3);
const sizes = [
  [390, 158],
  [1204, 196],
  [208, 270],
  [1280, 720],
] as const;
const lamp = fc.record({
  x: fc.double({ min: -9, max: 9, noNaN: true }),
  y: fc.double({ min: -0.5, max: 6, noNaN: true }),
  z: fc.double({ min: 0, max: 7, noNaN: true }),
});

test('a lamp on the stage is in the picture, however high or wide it hangs, and at the edge of its floor', () => {
  fc.assert(
    fc.property(fc.constantFrom(...sizes), fc.array(lamp, { maxLength: 20 }), ([width, height], lamps) => {
      const view = viewFor(width, height, lamps);
      for (const { x, y, z } of lamps) {
        project(view, x, y, z, point);
        expect(point[0]).toBeGreaterThan(0);
        expect(point[0]).toBeLessThan(width);
        expect(point[1]).toBeGreaterThan(0);
        expect(point[1]).toBeLessThan(height);
      }
      // The floor stays where it is, but for lamps that stand before it.
      project(view, 0, 2, 0, point);
      if (lamps.every(({ y, z }) => y > 2 || z > 1)) expect(point[1]).toBeCloseTo(height * 0.93, 6);
      else expect(point[1]).toBeLessThan(height * 0.93 + 1e-6);
    }),
  );
});

test('lamps before the stage, and a usual rig, leave the camera where it is', () => {
  for (const [width, height] of sizes) {
    const usual = viewFor(width, height, []);
    const rig = [
      { x: 3.2, y: 2, z: 3.6 },
      { x: -6, y: -4, z: 5 },
    ];
    expect(viewFor(width, height, rig)).toEqual(usual);
  }
});
