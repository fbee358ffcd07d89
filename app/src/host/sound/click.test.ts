import { testShow } from '../../../../core/src/testing/show';
import type { HitLane } from '@hovlix/core/song';
import { beats, id } from '@hovlix/core/units';
import { nextPulse, notesBetween } from './click';

const song = {
  ...testShow().songs[0]!,
  meter: [
    { bar: 0, numerator: 4, denominator: 4 as const },
    { bar: 2, numerator: 6, denominator: 8 as const },
  ],
};

test('clicks fall on felt beats, the first of each bar marked; of 6/8 there are two', () => {
  const heard: (readonly [number, boolean])[] = [];
  for (let at = 2; at < 6;) {
    const { time, first } = nextPulse(song, at);
    heard.push([time, first]);
    at = time + 0.01;
  }
  // At 120 a bar of 4/4 takes 2 s, one of 6/8 1.5 s.
  expect(heard).toEqual([
    [2, true],
    [2.5, false],
    [3, false],
    [3.5, false],
    [4, true],
    [4.75, false],
    [5.5, true],
    [6.25, false],
  ]);
});

test('asked at the very moment of a beat, it is that beat', () => {
  expect([nextPulse(song, 0), nextPulse(song, 0.5)]).toEqual([
    { time: 0, first: true },
    { time: 0.5, first: false },
  ]);
});

test('the notes of lanes that play are handed on once each, whatever the stretches', () => {
  const lane: HitLane = {
    id: id('h'),
    name: 'H',
    type: 'hits',
    kit: id('k'),
    role: id('wash'),
    notes: [0, 0.5, 1, 1.75, 4].map((at, n) => ({
      id: id(`n${n}`),
      at: beats(at),
      length: beats(0.25),
      note: 36,
      velocity: 1,
    })),
  };
  const drums = { ...song, lanes: [lane] };
  // At 120 a minute a beat is half a second.
  const heard = [0, 0.1, 0.25, 0.26, 0.9, 2.5].flatMap((to, i, all) => notesBetween(drums, all[i - 1] ?? -0.1, to));
  expect(heard.map(({ at }) => at)).toEqual([0, 0.5, 1, 1.75, 4]);
  expect(notesBetween({ ...drums, lanes: [{ ...lane, muted: true }] }, 0, 3)).toEqual([]);
});
