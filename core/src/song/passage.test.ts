// Beats placed anew over a stretch of a song: what is before and behind it stays where it sounds.

import fc from 'fast-check';
import { edit, type Show } from '../show';
import { testShow } from '../testing/show';
import { beatAt, tempoAt, timeAt, type Anchor } from '../time';
import { beats, id, seconds } from '../units';
import {
  barLineAt,
  beatLineAt,
  clipsIn,
  evenBars,
  tappedAnchors,
  timeOfBar,
  type Clip,
  type LookLane,
  type Song,
} from '.';

const song = id<'Song'>('song');
const clip = (from: number, to: number): Clip => ({
  id: id<'Clip'>(`c${from}`),
  look: id<'Look'>('red'),
  from: beats(from),
  to: beats(to),
});
/** 120 a minute throughout, with a clip on every bar. */
const start: Show = {
  ...testShow(),
  songs: testShow().songs.map((one) => ({
    ...one,
    duration: seconds(120),
    tempo: {
      anchors: [
        { beat: beats(0), time: seconds(0) },
        { beat: beats(240), time: seconds(120) },
      ],
    },
    sections: [{ id: id<'Section'>('s'), bar: 40, name: 'Chorus', note: '', tint: 1 }],
    markers: [{ id: id<'Marker'>('m'), at: beats(162), name: 'Cue' }],
    lanes: [
      { ...(one.lanes[0] as LookLane), clips: Array.from({ length: 60 }, (_, bar) => clip(bar * 4, bar * 4 + 4)) },
    ],
  })),
};
const before = start.songs[0]!;
const set = (anchors: readonly Anchor[], from: Show = start): Song =>
  edit(from, { type: 'set-passage', song, anchors: [...anchors] }).show.songs[0]!;
const soundOf = (one: Song, n: number) => timeAt(one.tempo, clipsIn(one)[n]!.from);

test('a bar line moved by hand takes its beats along, and no others; light stays on its bars', () => {
  fc.assert(
    fc.property(fc.integer({ min: 2, max: 50 }), fc.integer({ min: -90, max: 90 }), (bar, share) => {
      const time = timeOfBar(before, bar) + (share / 100) * 2;
      const anchors = barLineAt(before, bar, time)!;
      const moved = set(anchors);
      expect(timeOfBar(moved, bar)).toBeCloseTo(time, 9);
      for (let other = 0; other < 58; other++)
        if (other !== bar) expect(timeOfBar(moved, other)).toBeCloseTo(timeOfBar(before, other), 6);
      expect(moved.lanes).toEqual(before.lanes);
    }),
  );
  // It does not pass the lines beside it.
  expect(barLineAt(before, 8, timeOfBar(before, 9))).toBeUndefined();
  expect(barLineAt(before, 8, timeOfBar(before, 7) - 1)).toBeUndefined();
});

test('one beat within a bar moved by hand: the bar lines beside it and all other beats stay', () => {
  const beatTime = (one: Song, bar: number, beat: number) => timeAt(one.tempo, beats(bar * 4 + beat));
  const moved = set(beatLineAt(before, 8, 2, beatTime(before, 8, 2) + 0.12)!);
  expect(beatTime(moved, 8, 2)).toBeCloseTo(beatTime(before, 8, 2) + 0.12, 9);
  for (const [bar, beat] of [
    [7, 3],
    [8, 0],
    [8, 1],
    [8, 3],
    [9, 0],
    [30, 2],
  ] as const)
    expect(beatTime(moved, bar, beat)).toBeCloseTo(beatTime(before, bar, beat), 6);
  expect(beatLineAt(before, 8, 2, beatTime(before, 8, 3))).toBeUndefined();
});

test('some bars at one even tempo, between their first line and their last', () => {
  const wavy = set(barLineAt(before, 10, timeOfBar(before, 10) + 0.4)!);
  const show = { ...start, songs: [wavy] };
  const even = set(evenBars(wavy, 8, 11), show);
  for (let bar = 0; bar < 58; bar++) expect(timeOfBar(even, bar)).toBeCloseTo(timeOfBar(before, bar), 6);
});

test('a passage tapped twice as fast: light and sections behind it stay where they sound', () => {
  // Bars 11 to 14 are felt at 240.
  const taps = Array.from({ length: 33 }, (_, i) => 20 + i * 0.25);
  const anchors = tappedAnchors(before, taps)!;
  expect(anchors.at(-1)!.beat - anchors[0]!.beat).toBe(32);
  const fast = set(anchors);
  expect(tempoAt(fast.tempo, seconds(24))).toBeCloseTo(240, 3);
  expect(tempoAt(fast.tempo, seconds(10))).toBeCloseTo(120, 3);
  expect(tempoAt(fast.tempo, seconds(60))).toBeCloseTo(120, 3);
  for (const n of [0, 5, 9, 14, 20, 59]) expect(soundOf(fast, n)).toBeCloseTo(soundOf(before, n), 3);
  expect(timeOfBar(fast, fast.sections[0]!.bar)).toBeCloseTo(timeOfBar(before, 40), 3);
  expect(timeAt(fast.tempo, fast.markers![0]!.at)).toBeCloseTo(81, 3);
});

test('hands are early and late, and leave beats out: the tempo is found, each beat within 18 ms', () => {
  const jitter = fc.array(fc.integer({ min: -20, max: 20 }), { minLength: 24, maxLength: 24 });
  fc.assert(
    fc.property(jitter, fc.integer({ min: 80, max: 160 }), fc.integer({ min: 4, max: 20 }), (late, bpm, gone) => {
      const gap = 60 / bpm;
      const taps = late.map((ms, i) => 30 + i * gap + ms / 1000).filter((_, i) => i !== gone);
      const anchors = tappedAnchors(before, taps)!;
      expect(anchors.at(-1)!.beat - anchors[0]!.beat).toBe(23);
      const middle = anchors.slice(3, -3);
      for (const { beat, time } of middle) {
        const meant = 30 + (beat - anchors[0]!.beat) * gap;
        expect(Math.abs(time - meant)).toBeLessThan(0.018);
      }
    }),
  );
  expect(tappedAnchors(before, [1, 2, 3])).toBeUndefined();
  expect(tappedAnchors(before, [1, 1, 1, 1, 1])).toBeUndefined();
});

test('whatever is tapped, the map rises and can be taken back', () => {
  const taps = fc.array(fc.integer({ min: 40, max: 3000 }), { minLength: 4, maxLength: 40 });
  fc.assert(
    fc.property(taps, fc.integer({ min: 0, max: 100_000 }), (gaps, from) => {
      let time = from / 1000;
      const anchors = tappedAnchors(
        before,
        gaps.map((ms) => (time += ms / 1000)),
      );
      if (!anchors) return;
      const { anchors: all } = set(anchors).tempo;
      all.forEach((one, i) => {
        if (i === 0) return;
        expect(one.beat).toBeGreaterThan(all[i - 1]!.beat);
        expect(one.time).toBeGreaterThan(all[i - 1]!.time);
      });
      expect(beatAt({ anchors: all }, anchors[0]!.time)).toBeCloseTo(anchors[0]!.beat, 6);
    }),
  );
});

test('light that is to stay where it sounds does, whatever is done to the bars', () => {
  const factor = fc.integer({ min: 60, max: 180 }).map((percent) => percent / 100);
  const even = (from: number, beatsOf: number, rate: number): Anchor[] =>
    Array.from({ length: beatsOf + 1 }, (_, n) => ({
      beat: beats(from + n),
      time: seconds(from / 2 + (n / 2) * rate),
    }));
  const sounds = (one: Song) =>
    [
      ...clipsIn(one).flatMap(({ from, to, fadeIn = 0 }) => [from, from + fadeIn, to]),
      ...(one.markers ?? []).map(({ at }) => at),
    ].map((beat) => timeAt(one.tempo, beats(beat)));
  const lanes = [
    { ...(before.lanes[0] as LookLane), clips: clipsIn(before).map((one) => ({ ...one, fadeIn: beats(1) })) },
  ];
  const faded: Show = { ...start, songs: [{ ...before, lanes }] };
  const commands = fc.oneof(
    fc.tuple(fc.integer({ min: 8, max: 40 }), fc.integer({ min: 4, max: 40 }), factor).map(([from, count, rate]) => ({
      type: 'set-passage' as const,
      song,
      anchors: even(from, count, rate),
      keeps: 'sound' as const,
    })),
    fc
      .integer({ min: -20, max: 20 })
      .map((by) => ({ type: 'move-bars' as const, song, seconds: by / 10, keeps: 'sound' as const })),
    fc
      .integer({ min: 60, max: 200 })
      .map((bpm) => ({ type: 'steady-tempo' as const, song, bpm, keeps: 'sound' as const })),
  );
  fc.assert(
    fc.property(commands, (command) => {
      const moved = edit(faded, command).show.songs[0]!;
      sounds(moved).forEach((time, i) => expect(time).toBeCloseTo(sounds(faded.songs[0]!)[i]!, 5));
    }),
  );
});
