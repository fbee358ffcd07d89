import fc from 'fast-check';
import { testShow } from '../testing/show';
import { steadyTempo } from '../time';
import { beats, seconds } from '../units';
import {
  barsAt,
  barSpan,
  beatsOfBars,
  clipAt,
  leadSheetLines,
  rehearsalMark,
  sectionAt,
  timeOfBar,
  timeOfBars,
  type Song,
} from '.';

const song: Song = { ...testShow().songs[0]!, duration: seconds(44) };
const at120 = (start: number) => ({ anchors: [...steadyTempo(120, seconds(start)).anchors] });
const section = (bar: number) => ({ id: `s${bar}` as never, bar, name: `S${bar}`, note: '', tint: 0 });

test('bars with music in them: 44 s at 120 in 4/4 are 22', () => {
  expect(barSpan(song)).toEqual({ first: 0, last: 21 });
  expect(timeOfBar(song, 3)).toBe(6);
  expect(beatsOfBars(song, 1, 2)).toEqual({ from: 4, to: 12 });
});

test('a moment as bars and back: 5 s at 120 is the middle of bar 3', () => {
  expect(barsAt(song, seconds(5))).toBeCloseTo(2.5);
  const changing = { ...song, meter: [...song.meter, { bar: 3, numerator: 3, denominator: 4 as const }] };
  fc.assert(
    fc.property(fc.double({ min: -8, max: 40, noNaN: true }), (place) => {
      expect(barsAt(changing, timeOfBars(changing, place))).toBeCloseTo(place, 6);
    }),
  );
});

test('a pickup stands in a line of its own, a breath of silence does not', () => {
  const pickup = { ...song, tempo: at120(0.6) };
  expect(leadSheetLines(pickup, 4)[0]).toMatchObject({ first: -1, count: 1 });
  expect(leadSheetLines(pickup, 4)[1]).toMatchObject({ first: 0, count: 4 });
  const breath = { ...song, tempo: at120(0.04) };
  expect(leadSheetLines(breath, 4)[0]).toMatchObject({ first: 0 });
});

test('a section begins a new line and every bar is on exactly one', () => {
  const lines = leadSheetLines({ ...song, sections: [section(0), section(6)] }, 4);
  expect(lines.slice(0, 3)).toEqual([
    { first: 0, count: 4, section: 0 },
    { first: 4, count: 2, section: 0 },
    { first: 6, count: 4, section: 1 },
  ]);
  expect(lines.reduce((sum, line) => sum + line.count, 0)).toBe(22);
});

test('what lies where', () => {
  expect(sectionAt({ ...song, sections: [section(2)] }, 1)).toBeUndefined();
  expect(sectionAt({ ...song, sections: [section(2)] }, 5)?.bar).toBe(2);
  expect(clipAt(song.lanes[0]!.clips, beats(8))?.id).toBe('c2');
  expect(clipAt(song.lanes[0]!.clips, beats(20))).toBeUndefined();
  expect([0, 25, 26, 27].map(rehearsalMark)).toEqual(['A', 'Z', 'AA', 'AB']);
});
