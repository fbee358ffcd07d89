// MIDI files: what they say, and what comes of it in a song.

import fc from 'fast-check';
import { writeMidi, type MidiEvent } from 'midi-file';
import { wordsFor } from '../../problem';
import { edit, legal } from '../../show';
import { all, brought, newId, read, show, song } from '../../testing/midi';
import { timeAt } from '../../time';
import { MOST_LANES, MOST_NOTES, type HitLane } from '../../song';
import { beats, id, seconds } from '../../units';
import { readMidi, songOfMidi, takenFrom } from '.';

type Event = { readonly deltaTime: number; readonly type: string };

const meta = (deltaTime: number, type: string, more: object = {}): Event => ({
  deltaTime,
  type,
  ...{ meta: true, ...more },
});
const end = meta(0, 'endOfTrack');
const on = (deltaTime: number, noteNumber: number, velocity = 100, channel = 9): Event =>
  meta(deltaTime, 'noteOn', { meta: undefined, noteNumber, velocity, channel });
const off = (deltaTime: number, noteNumber: number, channel = 9): Event =>
  meta(deltaTime, 'noteOff', { meta: undefined, noteNumber, velocity: 0, channel });
const file = (tracks: Event[][], header: object = { format: 1, ticksPerBeat: 480 }) =>
  Uint8Array.from(
    writeMidi({
      header: { format: 1, numTracks: tracks.length, ...header },
      tracks: tracks.map((one) => [...one, end] as MidiEvent[]),
    }),
  );
const problem = (bytes: Uint8Array): string => {
  const music = readMidi(bytes, 'x.mid');
  return music.ok ? 'read' : wordsFor(music.problem);
};

const DRUMS = [
  meta(0, 'trackName', { text: 'Drums' }),
  on(0, 36),
  off(120, 36),
  on(360, 38, 64),
  off(0, 38),
  on(480, 36),
];

describe('reading', () => {
  test('names of older files are read as programs of the computer’s language write', () => {
    const name = (text: string, language?: string) => {
      const music = readMidi(file([[meta(0, 'trackName', { text }), ...DRUMS.slice(1)]]), 'x.mid', language);
      return music.ok && music.value.parts[0]!.name;
    };
    expect(name('\x83\x68\x83\x89\x83\x80', 'ja')).toBe('ドラム');
    expect(name('\xd3\xe4\xe0\xf0\xed\xfb\xe5', 'ru-RU')).toBe('Ударные');
    expect(name('Gr\xfcn')).toBe('Grün');
    expect(name('Gr\xc3\xbcn', 'ru')).toBe('Grün');
  });

  test('notes by track and channel, in quarter notes; a note that nobody ends goes on to the end; one of no length stays', () => {
    const music = read(
      file([[meta(0, 'setTempo', { microsecondsPerBeat: 500000 })], [...DRUMS, on(0, 60, 127, 0), off(480, 60, 0)]]),
    );
    expect(music.parts.map(({ key, name, channel }) => [key, name, channel])).toEqual([
      ['2/1', 'Drums, channel 1', 1],
      ['2/10', 'Drums, channel 10', 10],
    ]);
    expect(music.parts[1]!.notes).toEqual([
      { at: 0, length: 0.25, note: 36, velocity: 100 / 127 },
      { at: 1, length: 0, note: 38, velocity: 64 / 127 },
      { at: 2, length: 1, note: 36, velocity: 100 / 127 },
    ]);
    expect(music.end).toBe(3);
  });

  test('type 0, running status, and chunks of other kinds', () => {
    const bytes = file([DRUMS], { format: 0, ticksPerBeat: 480 });
    const strange = Uint8Array.from([
      ...bytes.slice(0, 14),
      ...[0x58, 0x46, 0x49, 0x48, 0, 0, 0, 2, 1, 2],
      ...bytes.slice(14),
    ]);
    expect(read(strange).parts[0]!.notes).toHaveLength(3);
    // 90 24 40, then 00 26 40 without its status byte.
    const running = Uint8Array.from([
      0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6, 0, 0, 0, 1, 0, 96, 0x4d, 0x54, 0x72, 0x6b, 0, 0, 0, 14, 0, 0x99, 36, 64, 48,
      38, 64, 48, 36, 0, 0, 0xff, 0x2f, 0,
    ]);
    expect(read(running).parts[0]!.notes).toEqual([
      { at: 0, length: 1, note: 36, velocity: 64 / 127 },
      { at: 0.5, length: 0.5, note: 38, velocity: 64 / 127 },
    ]);
  });

  test('files that count in frames: 25 frames of 40 ticks are a second; 29 stands for 29.97', () => {
    const [fine] = read(
      file([[on(500, 36), off(250, 36)]], { format: 1, framesPerSecond: 25, ticksPerFrame: 40 }),
    ).parts;
    expect(fine!.notes[0]).toMatchObject({ at: 0.5, length: 0.25 });
    const drop = read(file([[on(30_000, 36)]], { format: 1, framesPerSecond: 29, ticksPerFrame: 10 }));
    expect([drop.timed, drop.parts[0]!.notes[0]!.at]).toEqual([true, expect.closeTo(100.1, 3)]);
  });

  test('what cannot be read is said with its place, and the rest counts', () => {
    expect(problem(new Uint8Array(0))).toMatch(/is empty/);
    expect(problem(Uint8Array.from([1, 2, 3, 4, 5, 6, 7, 8, 9]))).toBe(
      '“x.mid” is not a MIDI file Hovlix can read: it does not begin with “MThd”. Use a Standard MIDI File, which ends in .mid.',
    );
    expect(problem(file([DRUMS], { format: 7, ticksPerBeat: 480 }))).toMatch(/this is type 7/);
    const broken = file([DRUMS, DRUMS]);
    // The second track's first event: a status byte that there is none of.
    const place = broken.lastIndexOf(0x4d, broken.length - 5) + 8;
    const damaged = broken.with(place + 1, 0xf4);
    expect(read(damaged).left).toEqual([expect.stringMatching(/^Track 2 is damaged and was left out/)]);
    expect(read(damaged).parts).toHaveLength(1);
    expect(read(broken.slice(0, -9)).left).toEqual(['Track 2 is cut short; what there is of it counts.']);
    // A text whose length has five digits that all go on: read as a number it would be below 0.
    const text = Uint8Array.from([
      0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6, 0, 0, 0, 1, 0, 96, 0x4d, 0x54, 0x72, 0x6b, 0, 0, 0, 12, 0, 0xff, 1, 0xff,
      0xff, 0xff, 0xff, 0xff, 0x70, 0, 0, 0,
    ]);
    expect(problem(text)).toMatch(/Track 1 is damaged/);
    const odd = [
      meta(0, 'setTempo', { microsecondsPerBeat: 0 }),
      meta(480, 'timeSignature', { numerator: 4, denominator: 32, metronome: 24, thirtyseconds: 8 }),
      ...DRUMS,
    ];
    expect(read(file([odd])).left).toEqual([
      'A tempo of 0 at beat 1 was left out.',
      'A meter of 4/32 at beat 2 was left out.',
    ]);
    expect(read(file([DRUMS, DRUMS], { format: 2, ticksPerBeat: 480 })).left).toEqual([
      'Its tracks are patterns of their own (type 2): each one begins at bar 1.',
    ]);
  });

  test('whatever the bytes are, it ends with a file that was read or with a sentence', () => {
    const whole = file([[meta(0, 'setTempo', { microsecondsPerBeat: 400000 })], DRUMS]);
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(whole.length - 1), fc.nat(255)), { maxLength: 8 }),
        fc.nat(whole.length),
        (changes, cut) => {
          const bytes = Uint8Array.from(whole);
          for (const [at, value] of changes) bytes[at] = value;
          const music = readMidi(bytes.slice(0, whole.length - (cut % 20)), 'x.mid');
          if (!music.ok) return expect(wordsFor(music.problem)).toMatch(/x\.mid/);
          const after = brought(music.value);
          expect(legal(after, new WeakSet())).toMatchObject({ ok: true });
        },
      ),
      { numRuns: 300 },
    );
  });
});

describe('taken into a song', () => {
  const tempo = [
    meta(0, 'setTempo', { microsecondsPerBeat: 500000 }),
    meta(0, 'timeSignature', { numerator: 3, denominator: 4, metronome: 24, thirtyseconds: 8 }),
    meta(0, 'marker', { text: 'Verse 1' }),
    meta(480 * 6, 'setTempo', { microsecondsPerBeat: 250000 }),
    meta(0, 'timeSignature', { numerator: 4, denominator: 4, metronome: 24, thirtyseconds: 8 }),
    meta(0, 'marker', { text: 'Chorus 1' }),
    meta(480 * 7, 'marker', { text: 'Verse 2' }),
  ];
  const music = read(file([tempo, DRUMS]));

  test('tempo and meter: bar 1 stays where it sounds, the rest goes by the file', () => {
    const late = {
      ...song,
      tempo: { anchors: song.tempo.anchors.map((one) => ({ ...one, time: seconds(one.time + 0.7) })) },
    };
    const after = brought(music, all(music), { ...show, songs: [late] }).songs[0]!;
    expect([0, 6, 10].map((beat) => timeAt(after.tempo, beats(beat)))).toEqual(
      [0.7, 3.7, 4.7].map((at) => expect.closeTo(at, 9)),
    );
    expect(after.meter).toEqual([
      { bar: 0, numerator: 3, denominator: 4 },
      { bar: 2, numerator: 4, denominator: 4 },
    ]);
    // The last marker lies three beats into a bar of four: the next line is nearer.
    expect(after.sections.map(({ bar, name, tint }) => [bar, name, tint])).toEqual([
      [0, 'Verse 1', 0],
      [2, 'Chorus 1', 1],
      [4, 'Verse 2', 0],
    ]);
  });

  test('the fastest and the slowest tempo that are taken make a song that can be kept', () => {
    const extremes = [30_100, 6_000_000].map((microsecondsPerBeat, i) =>
      meta(480 * i, 'setTempo', { microsecondsPerBeat }),
    );
    const fast = read(file([extremes, DRUMS]));
    expect(fast.left).toEqual([]);
    expect(legal(brought(fast), new WeakSet())).toMatchObject({ ok: true });
  });

  test('hits: a kit with a hit for each note, or one that is there; a lane for all, or for each note', () => {
    const after = brought(music);
    const lane = after.songs[0]!.lanes.at(-1) as HitLane;
    expect(after.kits.map(({ name, hits }) => [name, hits.map((hit) => [hit.name, hit.low])])).toEqual([
      [
        'Drums',
        [
          ['Kick', 36],
          ['Snare', 38],
        ],
      ],
    ]);
    expect(lane.notes.map(({ at, note }) => [at, note])).toEqual([
      [0, 36],
      [1, 38],
      [2, 36],
    ]);
    const parts = [{ part: '2/10', role: id<'Role'>('bars'), kit: id<'Kit'>('own'), byNote: true }];
    const each = brought(music, { tempo: false, sections: false, cues: false, parts });
    expect(each.songs[0]!.lanes.slice(2).map((one) => [one.name, one.type === 'hits' && one.notes.length])).toEqual([
      ['Kick', 2],
      ['Snare', 1],
    ]);
    expect([each.songs[0]!.tempo, each.songs[0]!.sections, each.kits]).toEqual([song.tempo, song.sections, []]);
  });

  test('a file in seconds lies where it sounds, and has no tempo to give', () => {
    const timed = read(file([[on(500, 36), off(250, 36)]], { format: 1, framesPerSecond: 25, ticksPerFrame: 40 }));
    const after = brought(timed).songs[0]!;
    expect(after.tempo).toEqual(song.tempo);
    // The test song counts 120: half a second is a beat.
    expect((after.lanes.at(-1) as HitLane).notes[0]).toMatchObject({ at: 1, length: 0.5 });
  });

  test('100,000 notes: two lanes; a song that is full says so', () => {
    const many = Array.from({ length: 100_000 }, (_, i) => (i % 2 ? off(10, 36) : on(0, 36)));
    const big = read(file([many]));
    const twice = {
      ...big,
      parts: [
        {
          ...big.parts[0]!,
          notes: [...big.parts[0]!.notes, ...big.parts[0]!.notes.map((one) => ({ ...one, at: one.at + 2000 }))],
        },
      ],
    };
    const lanes = brought(twice).songs[0]!.lanes.slice(2) as HitLane[];
    expect(lanes.map(({ notes }) => notes.length)).toEqual([MOST_NOTES, 50_000]);
    const full = {
      ...show,
      songs: [
        {
          ...song,
          lanes: Array.from({ length: MOST_LANES }, (_, i) => ({ ...song.lanes[0]!, id: id<'Lane'>(`l${i}`) })),
        },
      ],
    };
    expect(takenFrom(music, full.songs[0]!, full, all(music), newId)).toMatchObject({
      lanes: [],
      kits: [],
      left: [expect.stringMatching(/256 lanes/)],
    });
  });
});

test('a file as a song of its own: as long as it is, with its bars, sections and drums', () => {
  const music = read(
    file([
      [
        meta(0, 'setTempo', { microsecondsPerBeat: 400000 }),
        meta(0, 'marker', { text: 'Verse' }),
        meta(480 * 40, 'marker', { text: 'End' }),
      ],
      DRUMS,
    ]),
  );
  const { commands } = songOfMidi(music, 'Click track', show, newId);
  const after = edit(show, { type: 'together', commands: [...commands] }).show;
  expect(legal(after, new WeakSet())).toMatchObject({ ok: true });
  const [, made] = after.songs;
  expect([made!.title, made!.duration, made!.music]).toEqual(['Click track', expect.closeTo(16, 6), null]);
  // A marker where the song is over is none of a section.
  expect(made!.sections.map(({ name, bar }) => [name, bar])).toEqual([['Verse', 0]]);
  expect(made!.lanes.map(({ type }) => type)).toEqual(['looks', 'looks', 'hits']);
  // The last note is over in the middle of a bar; the song is not.
  const short = read(file([DRUMS]));
  expect(short.end).toBe(2);
  expect(songOfMidi(short, 'Short', show, newId).commands[0]).toMatchObject({ added: { duration: 2 } });
});

test('markers in each bar are chords, and no sections: they stay where they are, as markers', () => {
  const marked = (names: readonly string[], bars: number) => {
    const apart = 480 * 4 * bars;
    const markers = names.map((text, i) => meta(i === 0 ? 0 : apart, 'marker', { text }));
    return read(file([[...markers, meta(apart, 'text', { text: 'Over' })], DRUMS]));
  };
  const chords = Array.from({ length: 12 }, (_, i) => ['C', 'F', 'G7'][i % 3]!);
  const after = (music: ReturnType<typeof read>) =>
    edit(show, { type: 'together', commands: [...songOfMidi(music, 'Chords', show, newId).commands] }).show.songs.at(
      -1,
    )!;
  const made = after(marked(chords, 1));
  expect(made.sections).toEqual([]);
  expect(made.markers!.map(({ name, at }) => [name, at])).toEqual(chords.map((name, i) => [name, 4 * i]));
  // Of two bars each they are short sections; and few that are near are those of a short song.
  expect(after(marked(chords, 2)).sections).toHaveLength(12);
  expect(after(marked(chords.slice(0, 7), 1)).sections).toHaveLength(7);
  // Whoever wants them for sections has them as such, and nothing in place of the markers there are.
  const taken = takenFrom(marked(chords, 1), song, show, all(marked(chords, 1)), newId);
  expect([taken.sections?.length, taken.markers]).toEqual([12, undefined]);
});

test('a file that is broken in part is a song of what there is, and says what was left out', () => {
  const cut = file([DRUMS]).slice(0, -6);
  const { commands, left } = songOfMidi(read(cut), 'Cut', show, newId);
  expect(left).toEqual([expect.stringMatching(/^Track 1 is cut short/)]);
  expect(commands[0]).toMatchObject({ type: 'add-song' });
});
