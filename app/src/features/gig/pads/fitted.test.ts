import fc from 'fast-check';
import { fittedPads } from './fitted';

const rooms = fc.record({
  width: fc.integer({ min: 320, max: 2000 }),
  height: fc.integer({ min: 140, max: 1400 }),
  count: fc.integer({ min: 1, max: 300 }),
});

test('all pads are there, none is too small for a thumb, and none leaves the room', () => {
  fc.assert(
    fc.property(rooms, ({ width, height, count }) => {
      const { columns, rows, height: high, pages } = fittedPads(width, height, count, 10);
      expect(columns * rows * pages).toBeGreaterThanOrEqual(count);
      expect((width + 10) / columns - 10).toBeGreaterThanOrEqual(104);
      expect(high).toBeGreaterThanOrEqual(64);
      expect(rows * (high + 10) - 10).toBeLessThanOrEqual(height);
      // No page is empty.
      expect(columns * rows * (pages - 1)).toBeLessThan(count);
    }),
  );
});

test('a phone shows eighteen pads at once, on end and on its side', () => {
  expect(fittedPads(366, 640, 18, 10)).toEqual({ columns: 3, rows: 6, height: 98, pages: 1 });
  expect(fittedPads(820, 240, 18, 10)).toMatchObject({ columns: 6, rows: 3, pages: 1 });
  expect(fittedPads(366, 640, 40, 10).pages).toBe(2);
  // Few are large.
  expect(fittedPads(366, 640, 2, 10)).toMatchObject({ columns: 1, rows: 2 });
});
