// That a MIDI file that is written is read again to the tick.

import fc from 'fast-check';
import { all, brought, newId, read, show, song } from '../../testing/midi';
import { edit } from '../../show';
import { beatOfBar, timeAt } from '../../time';
import type { HitLane, Note, Song } from '../../song';
import { beats, id, seconds } from '../../units';
import { songOfMidi, TICKS, writeSongAsMidi } from '.';

test('written and read again: notes, sections and meter to the tick, tempo to a millionth', () => {
  const notes = fc.array(
    fc.tuple(
      fc.integer({ min: 0, max: TICKS * 60 }),
      fc.integer({ min: 1, max: 2000 }),
      fc.integer({ min: 20, max: 90 }),
      fc.integer({ min: 1, max: 127 }),
    ),
    { minLength: 1, maxLength: 30 },
  );
  const gaps = fc.array(fc.tuple(fc.integer({ min: 1, max: 8 }), fc.integer({ min: 250, max: 1500 })), {
    minLength: 2,
    maxLength: 12,
  });
  const meters = fc.constantFrom(
    [[0, 4, 4]],
    [
      [0, 6, 8],
      [4, 3, 4],
    ],
    [
      [0, 3, 4],
      [2, 7, 8],
      [9, 4, 4],
    ],
  );
  fc.assert(
    fc.property(notes, gaps, meters, fc.integer({ min: 0, max: 5000 }), (list, steps, changes, start) => {
      let [beat, time] = [0, start / 1000];
      const anchors = steps.map(([by, ms]) => {
        const anchor = { beat: beats(beat), time: seconds(time) };
        [beat, time] = [beat + by, time + (by * ms) / 1000];
        return anchor;
      });
      const meter = changes.map(([bar, numerator, denominator]) => ({
        bar: bar!,
        numerator: numerator!,
        denominator: denominator as 4,
      }));
      const known = new Set<string>();
      const placed = list.flatMap(([tick, length, pitch, velocity], i): Note[] => {
        // Two notes of one pitch that overlap are told apart by nobody.
        if (known.has(`${pitch}`)) return [];
        known.add(`${pitch}`);
        return [
          {
            id: id<'Note'>(`n${i}`),
            at: beats(tick / TICKS),
            length: beats(length / TICKS),
            note: pitch,
            velocity: velocity / 127,
          },
        ];
      });
      const lane: HitLane = {
        id: id('h'),
        name: 'Schläge',
        type: 'hits',
        kit: id('k'),
        role: id('wash'),
        notes: placed.sort((a, b) => a.at - b.at || a.note - b.note),
      };
      const sections = [0, 3, 8].map((bar, i) => ({
        id: id<'Section'>(`s${i}`),
        bar,
        name: `Teil ${i} – ü`,
        note: '',
        tint: 0,
      }));
      const markers = list
        .slice(0, 5)
        .map(([tick], i) => ({ id: id<'Marker'>(`c${i}`), at: beats(tick / TICKS), name: `Zeichen ${i} – é` }));
      const made: Song = {
        ...song,
        duration: seconds(60),
        tempo: { anchors },
        meter,
        sections,
        markers,
        lanes: [song.lanes[0]!, lane],
      };
      const music = read(writeSongAsMidi(made));
      const bare = {
        ...show,
        songs: [
          {
            ...song,
            tempo: {
              anchors: [
                { beat: beats(0), time: timeAt(made.tempo, beats(0)) },
                { beat: beats(1), time: seconds(timeAt(made.tempo, beats(0)) + 1) },
              ],
            },
          },
        ],
      };
      const after = brought(music, all(music), bare).songs[0]!;
      expect(after.meter).toEqual(meter.filter(({ bar }) => beatOfBar(meter, bar) < 400));
      expect(after.sections.map(({ bar, name }) => [bar, name])).toEqual(sections.map(({ bar, name }) => [bar, name]));
      const placesOf = (all: Song['markers']) =>
        (all ?? []).map(({ at, name }) => `${Math.round(at * TICKS)} ${name}`).sort();
      expect(placesOf(after.markers)).toEqual(placesOf(markers));
      const back = (after.lanes.at(-1) as HitLane).notes;
      expect(
        back.map(({ at, length, note, velocity }) => [at, length, note, velocity].map((one) => Math.round(one * 1e6))),
      ).toEqual(
        lane.notes.map(({ at, length, note, velocity }) =>
          [at, length, note, velocity].map((one) => Math.round(one * 1e6)),
        ),
      );
      // What lies behind the end of the song is not written.
      for (const { beat: place } of anchors.filter(({ time: at }) => at <= made.duration))
        expect(Math.abs(timeAt(after.tempo, place) - timeAt(made.tempo, place))).toBeLessThan(2e-5);
    }),
    { numRuns: 60 },
  );
});

test('a pickup: the file begins with it, and bar 1 is found again', () => {
  const pickup: Song = {
    ...song,
    tempo: {
      anchors: [
        { beat: beats(0), time: seconds(1.5) },
        { beat: beats(1), time: seconds(2) },
      ],
    },
    lanes: [
      song.lanes[0]!,
      {
        id: id('h'),
        name: 'H',
        type: 'hits',
        kit: id('k'),
        role: id('wash'),
        notes: [-2, 0, 1].map((at) => ({
          id: id<'Note'>(`p${at}`),
          at: beats(at),
          length: beats(0.5),
          note: 36,
          velocity: 1,
        })),
      },
    ],
  };
  // Not even a marker that is called like the place of bar 1 moves it.
  const music = read(writeSongAsMidi({ ...pickup, markers: [{ id: id('c'), at: beats(3), name: 'bar 1' }] }));
  expect(music.origin).toBe(4);
  expect(music.cues.map(({ name }) => name)).toEqual(['Bar 1']);
  const after = brought(music, all(music), { ...show, songs: [pickup] }).songs[0]!;
  expect((after.lanes.at(-1) as HitLane).notes.map(({ at }) => at)).toEqual([-2, 0, 1]);
  expect(timeAt(after.tempo, beats(0))).toBeCloseTo(1.5, 6);

  // As a song of its own it begins with the file, so that its pickup is played too.
  const { commands } = songOfMidi(music, 'Pickup', show, newId);
  const own = edit(show, { type: 'together', commands: [...commands] }).show.songs.at(-1)!;
  expect(timeAt(own.tempo, beats(0))).toBeCloseTo(2, 6);
  expect(own.duration).toBeCloseTo(timeAt(own.tempo, beats(music.end - 4)), 6);
  const notes = (own.lanes.at(-1) as HitLane).notes.map(({ at }) => timeAt(own.tempo, at));
  expect(notes[0]).toBeCloseTo(1, 6);
});
