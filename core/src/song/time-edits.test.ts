// Bars put right by hand: what lies on a song stays on its bars or at its second, as was chosen.

import fc from 'fast-check';
import { edit, type Command, type Show } from '../show';
import { testShow } from '../testing/show';
import { beatOfBar, pulseLength, tempoAt, timeAt } from '../time';
import { beats, id, seconds } from '../units';
import { barsAt, clipsIn, timeOfBar, type Song } from '.';

const song = id<'Song'>('song');
const sections = [0, 4, 8, 16].map((bar) => ({
  id: id<'Section'>(`s${bar}`),
  bar,
  name: `S${bar}`,
  note: '',
  tint: 0,
}));
/** The test song with sections, at a tempo that drifts. */
const start: Show = {
  ...testShow(),
  songs: testShow().songs.map((one) => ({
    ...one,
    duration: seconds(90),
    tempo: {
      anchors: [0, 32, 64, 128].map((beat, i) => ({ beat: beats(beat), time: seconds(0.7 + beat * (0.5 + i / 90)) })),
    },
    sections,
  })),
};
const after = (show: Show, command: Command): Song => edit(show, command).show.songs[0]!;
const before = start.songs[0]!;
const soundsOf = (one: Song) => clipsIn(one).map(({ from, to }) => [timeAt(one.tempo, from), timeAt(one.tempo, to)]);
const pulses = fc.integer({ min: -16, max: 16 });

test('bar 1 moved by beats: light goes with the bars, to the very beat', () => {
  fc.assert(
    fc.property(pulses, (by) => {
      const moved = after(start, { type: 'shift-bars', song, pulses: by, keeps: 'bars' });
      expect(clipsIn(moved)).toEqual(clipsIn(before));
      expect(moved.sections).toEqual(before.sections);
      // What was beat `by` is the first of bar 1 now.
      expect(timeOfBar(moved, 0)).toBeCloseTo(timeAt(before.tempo, beats(by)), 9);
    }),
  );
});

test('bar 1 moved by beats: light stays where it sounds, sections at the nearest bar line; moved back, all is as it was', () => {
  fc.assert(
    fc.property(pulses, (by) => {
      const moved = after(start, { type: 'shift-bars', song, pulses: by, keeps: 'sound' });
      soundsOf(moved).forEach((at, i) =>
        at.forEach((time, k) => expect(time).toBeCloseTo(soundsOf(before)[i]![k]!, 9)),
      );
      for (const one of moved.sections) {
        const was = before.sections.find((old) => old.id === one.id)!;
        expect(Math.abs(barsAt(moved, timeOfBar(before, was.bar)) - one.bar)).toBeLessThanOrEqual(0.5 + 1e-6);
      }
      if (by % 4 !== 0) return;
      const whole: Show = { ...start, songs: [moved] };
      expect(after(whole, { type: 'shift-bars', song, pulses: -by, keeps: 'sound' })).toEqual(before);
    }),
  );
});

test('another meter for the whole song, or some of its bars: light stays where it sounds', () => {
  const three = after(start, { type: 'set-meter', song, first: 0, last: null, numerator: 3, denominator: 4 });
  expect(soundsOf(three)).toEqual(soundsOf(before));
  expect(beatOfBar(three.meter, 4)).toBe(12);
  // Bar 16 of 4/4 began at beat 64: bar 21 of 3/4 begins at 63.
  expect(three.sections.map(({ bar }) => bar)).toEqual([0, 5, 11, 21]);
  const some = after(start, { type: 'set-meter', song, first: 4, last: 5, numerator: 6, denominator: 8 });
  expect(some.meter).toEqual([
    { bar: 0, numerator: 4, denominator: 4 },
    { bar: 4, numerator: 6, denominator: 8 },
    { bar: 6, numerator: 4, denominator: 4 },
  ]);
  expect([4, 5, 6, 7].map((bar) => beatOfBar(some.meter, bar))).toEqual([16, 19, 22, 26]);
  // Two bars of 6/8 put back to 4/4 leave no trace.
  const back = edit(
    { ...start, songs: [some] },
    { type: 'set-meter', song, first: 4, last: 5, numerator: 4, denominator: 4 },
  );
  expect(back.show.songs[0]!.meter).toEqual(before.meter);
});

test('all bars 30 ms later, and one steady tempo from bar 1 on', () => {
  const late = after(start, { type: 'move-bars', song, seconds: 0.03 });
  expect(timeOfBar(late, 3) - timeOfBar(before, 3)).toBeCloseTo(0.03, 9);
  expect(clipsIn(late)).toEqual(clipsIn(before));
  const steady = after(start, { type: 'steady-tempo', song, bpm: 100 });
  expect(timeOfBar(steady, 0)).toBeCloseTo(timeOfBar(before, 0), 9);
  for (const at of [1, 30, 80])
    expect(tempoAt(steady.tempo, seconds(at)) / pulseLength(steady.meter[0]!)).toBeCloseTo(100, 9);
  expect(clipsIn(steady)).toEqual(clipsIn(before));
});
