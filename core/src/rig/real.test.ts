import { Channel } from './schema';
import { realWords } from './real';

const turning = (high: number) =>
  Channel.parse({
    attribute: 'Gobo1Pos',
    at: [3],
    ranges: [
      { from: 0, to: 127, does: 'index', low: 0, high: 540 },
      { from: 128, to: 189, does: 'rotate', low: -high, high: -1 },
      { from: 190, to: 193, does: 'nothing', name: 'Stopped' },
      { from: 194, to: 255, does: 'rotate', low: 1, high },
    ],
  });

test('a value is told in the unit of the range it lies in, or by its name', () => {
  const one = [turning(30)];
  expect([0, 0.25, 0.5, 0.75, 1].map((value) => realWords(one, value))).toEqual([
    '0 °',
    '271 °',
    '-30 rpm',
    'Stopped',
    '30 rpm',
  ]);
});

test('what has no ranges, or differs from lamp to lamp, is a percentage', () => {
  expect(realWords([Channel.parse({ attribute: 'Frost1', at: [1] })], 0.624)).toBe('62 %');
  expect(realWords([turning(30), turning(12)], 1)).toBe('100 %');
  expect(realWords([turning(30), turning(12)], 0.25)).toBe('271 °');
  expect(realWords([], 0.5)).toBe('50 %');
});
