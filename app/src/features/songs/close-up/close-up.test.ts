// Close-up without React: the grid, the roll of pads, curves drawn by hand.

import fc from 'fast-check';
import { drumKit } from '@hovlix/core/light';
import { barSpan, beatsOfBars, curveAt, type Note } from '@hovlix/core/song';
import { beats, id } from '@hovlix/core/units';
import { testShow } from '../../../../../core/src/testing/show';
import { beatAtX, beatOfPlace, gridLength, GRIDS, placeText, secondsOfText, snapped, windowAt, xOf } from './grid';
import { harderNotes, laidNotes, longerNotes, movedNotes, padsOf, underFinger } from './roll';
import { pointsOfTrace } from './trace';

const song = {
  ...testShow().songs[0]!,
  meter: [
    { bar: 0, numerator: 4, denominator: 4 as const },
    { bar: 2, numerator: 6, denominator: 8 as const },
  ],
};
const window = { song, first: 1, count: 2, width: 400 };

test('a beat as pixels and back, over bars of different length', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 400 }), (x) => expect(xOf(window, beatAtX(window, x))).toBeCloseTo(x, 6)),
  );
  // Bar 2 of 4/4 and bar 3 of 6/8 take half of the width each.
  expect([4, 8, 9.5, 11].map((beat) => xOf(window, beat))).toEqual([0, 200, 300, 400]);
});

test('grids count in felt beats: of 6/8 a beat is a dotted quarter', () => {
  expect(GRIDS.map((grid) => gridLength(song, grid, 0))).toEqual([4, 1, 0.5, 0.25, 0.125, 1 / 3, 1 / 96]);
  expect(gridLength(song, 'beat', 2)).toBe(1.5);
  expect([snapped(song, 'beat', 5.4), snapped(song, 'beat', 5.6), snapped(song, 'beat', 5.9, true)]).toEqual([5, 6, 5]);
  // Lines count from each bar's own start, and none lies beyond it.
  expect(snapped(song, 'beat', 10.9)).toBe(11);
  fc.assert(
    fc.property(fc.constantFrom(...GRIDS), fc.integer({ min: 0, max: 2000 }), (grid, place) => {
      const once = snapped(song, grid, place / 100);
      expect(snapped(song, grid, once)).toBeCloseTo(once, 9);
    }),
  );
});

test('places as people say them', () => {
  expect([0, 5.5, 8, 9.5].map((beat) => placeText(song, beat))).toEqual(['1:1', '2:2.5', '3:1', '3:2']);
  expect(['1', '2:2.5', '3:2', '9:9', 'x', '2:0.5'].map((text) => beatOfPlace(song, text))).toEqual([
    0,
    5.5,
    9.5,
    undefined,
    undefined,
    undefined,
  ]);
  expect(['1:02.345', '7', '0:71,5', '1:2:3', ''].map(secondsOfText)).toEqual([62.345, 7, 71.5, undefined, undefined]);
  expect(windowAt(song, 400, 4).count).toBe(4);
  expect(windowAt(song, -9, 4).first).toBe(0);
});

describe('the roll', () => {
  let n = 0;
  const kit = drumKit('Drums', id<'Role'>('wash'), () => `k${n++}`);
  const note = (at: number, pitch: number, more: Partial<Note> = {}): Note => ({
    id: id<'Note'>(`n${at}-${pitch}`),
    at: beats(at),
    length: beats(0.5),
    note: pitch,
    velocity: 0.5,
    ...more,
  });
  const notes = [note(4, 36), note(5, 38), note(6, 99)];
  const pads = padsOf(kit, { notes });

  test('has a row for each pad, and one for notes that nothing answers to', () => {
    expect(pads.map(({ name }) => name)).toEqual(['Kick', 'Snare', 'Hat', 'Open hat', 'Tom', 'Crash', 'Note 99 (D♯7)']);
    expect(padsOf({ ...kit, hits: [{ ...kit.hits[0]!, low: 60, high: 90 }] }, { notes: [] })).toHaveLength(12);
  });

  test('a finger finds the note it means, and its end', () => {
    const laid = laidNotes(window, pads, notes, 4, 11);
    const found = (row: number, x: number) => {
      const hit = underFinger(laid, row, x);
      return hit && [hit.note.note, hit.end];
    };
    // A beat is 50 pixels: the kick lies from 0 to 25, the snare from 50 to 75.
    expect([found(0, 5), found(0, 20), found(0, 34), found(0, 36), found(1, 5)]).toEqual([
      [36, false],
      [36, true],
      [36, true],
      undefined,
      undefined,
    ]);
  });

  test('notes move together, stay on the pads, and keep their differences', () => {
    const moved = movedNotes(song, notes.slice(0, 2), 0.5, 1, pads);
    expect(moved.map(({ at, note: pitch }) => [at, pitch])).toEqual([
      [4.5, 38],
      [5.5, 42],
    ]);
    // As far up as the topmost can go: a snare does not become a kick.
    const [kick, snare] = moved;
    const up = movedNotes(song, moved, 0, -9, pads).map(({ note: pitch }) => pitch);
    expect(up).toEqual(notes.slice(0, 2).map(({ note: pitch }) => pitch));
    // As far as the song goes, and as far apart as they were.
    const early = movedNotes(song, moved, -1000, 0, pads).map(({ at }) => at);
    expect(early[0]).toBe(0);
    expect(early[1]! - early[0]!).toBe(snare!.at - kick!.at);
    // Notes that lie before the song stay there as they go to another row.
    expect(movedNotes(song, [note(-3, 36)], 0, 1, pads)[0]!.at).toBe(-3);
    const end = beatsOfBars(song, 0, barSpan(song).last).to;
    expect(movedNotes(song, moved, 1e6, 0, pads)[1]!.at).toBeCloseTo(end, 1);
    expect(harderNotes([note(4, 36, { velocity: 0.9 })], 0.3)[0]!.velocity).toBe(1);
    expect(longerNotes([note(4, 36)], -3)[0]!.length).toBeGreaterThan(0);
  });
});

test('a curve drawn by hand: few points, close to what was drawn, whichever way the finger went', () => {
  const drawn = Array.from({ length: 120 }, (_, i) => ({ at: 4 + i / 30, value: 0.5 + 0.4 * Math.sin(i / 19) }));
  for (const trace of [drawn, [...drawn].reverse()]) {
    const points = pointsOfTrace(trace, 0.02, 0.25);
    expect(points.length).toBeLessThan(20);
    expect(points.at(-1)!.shape).toBe('off');
    for (const { at, value } of drawn.slice(0, -1)) expect(Math.abs(curveAt(points, at)! - value)).toBeLessThan(0.05);
  }
});
