import { catchUp, placeIn } from './tracks';

test('a track begins with its song, later, or some way into itself', () => {
  expect([placeIn({ at: 0 }, 5), placeIn({ at: 8 }, 5), placeIn({ at: 8 }, 9.5), placeIn({ at: -3 }, 0)]).toEqual([
    5,
    undefined,
    1.5,
    3,
  ]);
});

test('late it goes faster, early slower, and in time as it is', () => {
  expect(catchUp(0.003)).toBe(1);
  expect(catchUp(0.05)).toBeGreaterThan(1);
  expect(catchUp(-0.05)).toBeLessThan(1);
});
