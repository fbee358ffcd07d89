import fc from 'fast-check';
import { testShow } from '../testing/show';
import { steadyTempo } from '../time';
import { beats, id, seconds } from '../units';
import {
  bareSong,
  barsAt,
  barSpan,
  barsOfSection,
  beatsOfBars,
  clipAt,
  copiedClips,
  firstLike,
  leadSheetLines,
  lookLanes,
  rehearsalMark,
  sectionAt,
  timeOfBar,
  timeOfBars,
  type Clip,
  type Copying,
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

test('a pickup has a line of its own, a breath of silence does not', () => {
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

test('a song without a recording lasts for its bars, in felt beats', () => {
  const bare = (bpm: number, numerator: number, denominator: 4 | 8, bars: number) =>
    bareSong({ id: 'x', title: 'X', bpm, meter: { numerator, denominator }, bars });
  expect([
    barSpan(bare(120, 4, 4, 16)).last,
    barSpan(bare(66, 6, 8, 3)).last,
    barSpan(bare(200, 7, 8, 1)).last,
  ]).toEqual([15, 2, 0]);
  expect(bare(120, 4, 4, 16).duration).toBeCloseTo(32, 3);
  // Two dotted quarters at 60 a minute are two seconds.
  expect(bare(60, 6, 8, 1).duration).toBeCloseTo(2, 3);
});

test('what lies where', () => {
  expect(sectionAt({ ...song, sections: [section(2)] }, 1)).toBeUndefined();
  expect(sectionAt({ ...song, sections: [section(2)] }, 5)?.bar).toBe(2);
  expect(clipAt(lookLanes(song)[0]!.clips, beats(8))?.id).toBe('c2');
  expect(clipAt(lookLanes(song)[0]!.clips, beats(20))).toBeUndefined();
  expect([0, 25, 26, 27].map(rehearsalMark)).toEqual(['A', 'Z', 'AA', 'AB']);
});

describe('bars lit like others', () => {
  const clip = (name: string, from: number, to: number) => ({
    id: id<'Clip'>(name),
    look: id<'Look'>(name),
    from: beats(from),
    to: beats(to),
  });
  const lit = (clips: readonly Clip[], beat: number) => clipAt(clips, beats(beat))?.look ?? null;
  const copied = (clips: readonly Clip[], copying: Copying) =>
    copiedClips(
      clips,
      copying,
      (n) => id(`new${n}`),
      (of) => id(`${of.id}half`),
    );

  test('a verse of two looks, laid again twice and a half: cut where it ends', () => {
    const verse = [clip('a', 0, 6), clip('b', 6, 8), clip('old', 14, 40)];
    const laid = copied(verse, { from: 0, to: 8, at: 8, until: 28 });
    expect(laid.map(({ look, from, to }) => [look, from, to])).toEqual([
      ['a', 0, 6],
      ['b', 6, 8],
      ['a', 8, 14],
      ['b', 14, 16],
      ['a', 16, 22],
      ['b', 22, 24],
      ['a', 24, 28],
      ['old', 28, 40],
    ]);
    expect(new Set(laid.map((one) => one.id)).size).toBe(8);
  });

  test('wherever it is laid: there as in the stretch, elsewhere as before, and no two clips overlap', () => {
    const places = fc.uniqueArray(fc.integer({ min: 0, max: 60 }), { minLength: 2, maxLength: 12 });
    const stretch = fc.tuple(fc.nat(40), fc.integer({ min: 1, max: 20 }), fc.nat(50), fc.integer({ min: 1, max: 40 }));
    fc.assert(
      fc.property(places, stretch, (ends, [from, length, at, reach]) => {
        const sorted = ends.sort((a, b) => a - b);
        // Every other gap is empty.
        const clips = sorted.slice(1).flatMap((to, i) => (i % 2 ? [] : [clip(`c${i}`, sorted[i]!, to)]));
        const laid = copied(clips, { from, to: from + length, at, until: at + reach });
        for (let beat = 0; beat < 120; beat += 0.5) {
          const within = beat >= at && beat < at + reach;
          expect(lit(laid, beat)).toBe(lit(clips, within ? from + ((beat - at) % length) : beat));
        }
        laid.forEach((one, i) => expect(i === 0 || laid[i - 1]!.to <= one.from).toBe(true));
      }),
    );
  });

  test('nothing to lay, or far too much, changes nothing', () => {
    const clips = [clip('a', 0, 4)];
    for (const copying of [
      { from: 4, to: 4, at: 8, until: 12 },
      { from: 0, to: 4, at: 8, until: 8 },
      { from: 0, to: 0.001, at: 0, until: 90 },
    ])
      expect(copied(clips, copying)).toBe(clips);
  });

  test('the section of a bar, and the first that is like it, by name without its number', () => {
    const named = (bar: number, name: string) => ({ ...section(bar), name });
    const whole = {
      ...song,
      sections: [named(2, 'Verse 1'), named(6, 'Chorus'), named(10, 'Verse 2'), named(14, 'Chorus 2')],
    };
    expect(barsOfSection(whole, 7)).toEqual({ first: 6, last: 9 });
    expect(barsOfSection(whole, 20)).toEqual({ first: 14, last: 21 });
    expect(barsOfSection(whole, 0)).toEqual({ first: 0, last: 1 });
    expect([0, 3, 11, 15].map((bar) => firstLike(whole, bar)?.name)).toEqual([
      undefined,
      undefined,
      'Verse 1',
      'Chorus',
    ]);
  });
});
