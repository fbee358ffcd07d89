import { placeIn } from './tracks';

test('a track begins with its song, later, or some way into itself', () => {
  expect([placeIn({ at: 0 }, 5), placeIn({ at: 8 }, 5), placeIn({ at: 8 }, 9.5), placeIn({ at: -3 }, 0)]).toEqual([
    5,
    undefined,
    1.5,
    3,
  ]);
});
