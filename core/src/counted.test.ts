import { counted, someOf } from './counted';

test.each([
  [0, 'lamp', '0 lamps'],
  [1, 'lamp', '1 lamp'],
  [2, 'beat', '2 beats'],
  [0.5, 'beat', '0.5 beats'],
  [1 / 3, 'bar', '0.33 bars'],
])('%f %s is “%s”', (number, word, words) => expect(counted(number, word)).toBe(words));

test('of many names five are said, and how many more there are', () => {
  expect(someOf(['a', 'b'])).toBe('a, b');
  expect(someOf([...'abcdefg'])).toBe('a, b, c, d, e and 2 more');
});
