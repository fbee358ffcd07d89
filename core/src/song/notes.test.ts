// Notes of hit lanes: on a grid, as patterns, copied.

import fc from 'fast-check';
import { testShow } from '../testing/show';
import { beats, id } from '../units';
import { copiedNotes, gridBeat, humanised, patternBeats, quantised, strokeBeats, type Note, type Song } from '.';

const note = (at: number, velocity = 0.8): Note => ({
  id: id<'Note'>(`n${at}`),
  at: beats(at),
  length: beats(0.25),
  note: 36,
  velocity,
});
const song = testShow().songs[0]!;

test('a grid: the nearest line, every second one late where it swings', () => {
  expect([0.1, 0.4, 0.6, 1.2].map((beat) => gridBeat(beat, 0.5))).toEqual([0, 0.5, 0.5, 1]);
  expect([0.6, 1.1].map((beat) => gridBeat(beat, 0.5, 0.33))).toEqual([expect.closeTo(0.665), 1]);
});

test('quantised: all the way onto the grid, half the way half as far off, none leaves it as it was', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 4000 }), { minLength: 1 }), (places) => {
      const notes = places.map((place) => note(place / 100));
      const off = (strength: number) =>
        quantised(notes, 0.25, strength, 0).map(({ at }) => Math.abs(at - gridBeat(at, 0.25)));
      const before = off(0);
      off(1).forEach((far) => expect(far).toBeLessThan(1e-9));
      off(0.5).forEach((far, i) => expect(far).toBeCloseTo(before[i]! / 2, 9));
      expect(quantised(notes, 0.25, 0, 0)).toEqual(notes);
    }),
  );
});

test('humanised: within what was asked for', () => {
  const early = humanised([note(4)], 0.05, () => [0, 0]);
  expect(early[0]).toMatchObject({ at: 3.95, velocity: expect.closeTo(0.7) });
  expect(humanised([note(4, 1)], 0.05, () => [1, 1])[0]).toMatchObject({ at: 4.05, velocity: 1 });
});

test('patterns, bar by bar, in the meter of each bar', () => {
  const changing = { ...song, meter: [...song.meter, { bar: 1, numerator: 6, denominator: 8 as const }] };
  expect(patternBeats(changing, 'beats', 0, 1)).toEqual([0, 1, 2, 3, 4, 5.5]);
  expect(patternBeats(song, 'off-beats', 0, 0)).toEqual([0.5, 1.5, 2.5, 3.5]);
  expect(patternBeats(song, '3-3-2', 0, 1)).toEqual([0, 1.5, 3, 4, 5.5, 7]);
  expect(patternBeats(song, 'back beats', 0, 0)).toEqual([1, 3]);
  expect(patternBeats(song, 'downbeats', 2, 3)).toEqual([8, 12]);
  expect(patternBeats(changing, 'eighths', 1, 1)).toEqual([4, 4.5, 5, 5.5, 6, 6.5]);
});

test('heard strokes become places in the song; weak ones are left out', () => {
  const heard = [
    { time: 1, size: 0.9 },
    { time: 1.5, size: 0.2 },
    { time: 2, size: 0.5 },
  ];
  expect(strokeBeats(song as Song, heard, 0.4)).toEqual([
    { at: 2, velocity: 0.9 },
    { at: 4, velocity: 0.5 },
  ]);
});

test('copied notes: those of the stretch, end to end, what was there is gone', () => {
  const notes = [note(0), note(1.5), note(4), note(9)];
  let n = 0;
  const laid = copiedNotes(notes, { from: 0, to: 2, at: 4, until: 9 }, () => id<'Note'>(`c${n++}`));
  expect(laid.map(({ at }) => at)).toEqual([0, 1.5, 4, 5.5, 6, 7.5, 8, 9]);
  expect(new Set(laid.map((one) => one.id)).size).toBe(8);
});
