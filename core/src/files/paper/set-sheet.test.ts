import { clock } from './set-sheet';

test('lengths are rounded as a whole: no song takes two minutes and sixty seconds', () => {
  expect([179.7, 59.4, 60, 0, 3599.6].map(clock)).toEqual(['3:00', '0:59', '1:00', '', '60:00']);
});
