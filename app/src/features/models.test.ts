import { AT_REST, type LiveState } from '@hovlix/core/live';
import { beats, seconds } from '@hovlix/core/units';
import { songId, testShow } from '../../../core/src/testing/show';
import { gigPlace, lookLanes } from '@hovlix/core/song';
import { plainWords } from './looks/model';
import { pulseAt } from './pulse/model';
import { contributionWords } from './rig/model';
import { clockText } from '../ui/clock-text';
import { clipBoxes, preciseText, rangeText, ribbonTimes, tapped, tickColour } from './songs/model';

const show = testShow();
const song = show.songs[0]!;

test('taps choose a bar, stretch to another, and let go', () => {
  const one = tapped(null, 4);
  expect(rangeText(one!)).toBe('Bar 5');
  expect(rangeText(tapped(one, 7)!)).toBe('Bars 5 – 8');
  expect(rangeText(tapped(one, 2)!)).toBe('Bars 3 – 5');
  expect(tapped(one, 4)).toBeNull();
  expect(tapped({ first: 2, last: 6 }, 4)).toEqual({ first: 4, last: 4 });
});

test('clips show on every line they reach, cut at its ends', () => {
  const boxes = clipBoxes(song, lookLanes(song)[0]!, 1, 2, 4);
  expect(boxes.map(({ clip, left, width, begins }) => [clip.id, left, width, begins])).toEqual([
    ['c1', 0, 0.25, false],
    ['c2', 0.25, 0.25, true],
  ]);
});

test('a line asks for its ribbon evenly; moments are told as on a clock', () => {
  expect(ribbonTimes(song, 1, 1, 4)).toEqual([2.25, 2.75, 3.25, 3.75]);
  expect([clockText(0), clockText(64.9), clockText(3849)]).toEqual(['0:00', '1:04', '1:04:09']);
  expect([0, 0.0004, 64.0309, -0.25].map(preciseText)).toEqual(['0:00.000', '0:00.000', '1:04.031', '−0:00.250']);
});

test('the pulse is the song’s while one is open, else the free clock’s', () => {
  const live: LiveState = {
    ...AT_REST,
    song: { id: songId, playing: true, songTime: seconds(0), at: seconds(10), rate: 1, since: seconds(10) },
  };
  expect(pulseAt(live, show.songs, seconds(11.1))).toMatchObject({ bpm: expect.closeTo(120), lit: 2, count: 4 });
  // Slowed to three quarters it counts so.
  const slow = { ...live, song: { ...live.song!, rate: 0.75 } };
  expect(pulseAt(slow, show.songs, seconds(11.1))).toMatchObject({ bpm: expect.closeTo(90), lit: 1 });
  expect(
    pulseAt({ ...AT_REST, tempo: { bpm: 90, at: seconds(1), beat: beats(0), felt: true } }, show.songs, seconds(1.7)),
  ).toMatchObject({ bpm: 90, lit: 1 });
  const felt = { ...AT_REST, tempo: { bpm: 90, at: seconds(1), beat: beats(0), felt: true } };
  // 1.05 beats have gone by: 0.95 are left of the second.
  expect(pulseAt(felt, show.songs, seconds(1.7)).next).toBeCloseTo((0.95 * 60) / 90, 6);
  const { next } = pulseAt(live, show.songs, seconds(11.1));
  expect(pulseAt(live, show.songs, seconds(11.1 + next - 1e-3)).lit).toBe(2);
  expect(pulseAt(live, show.songs, seconds(11.1 + next + 1e-3)).lit).toBe(3);
  expect(pulseAt(AT_REST, show.songs, seconds(3)).lit).toBe(-1);
});

test('gig: the bar within its section, and what comes then', () => {
  const section = (bar: number, name: string) => ({ id: name as never, bar, name, note: '', tint: 0 });
  const marked = { ...song, sections: [section(0, 'Verse'), section(4, 'Chorus')] };
  expect(gigPlace(marked, 6.1, 11)).toMatchObject({
    bar: 4,
    of: 4,
    section: { name: 'Verse' },
    next: { name: 'Chorus' },
  });
  expect(gigPlace(marked, 999, 11)).toMatchObject({ bar: 8, of: 8, next: undefined });
  expect(gigPlace(song, 2.1, 11)).toMatchObject({ bar: 2, of: 12, section: undefined });
});

test('what a look does, in plain words and one colour', () => {
  expect(plainWords(show.looks[1]!, show.roles)).toBe('fades in 2 beats · Wash, Movers');
  expect(plainWords(show.looks[3]!, show.roles)).toBe('at once · Wash · stays through songs');
  expect(tickColour(show.looks[0])).toBe('#ff0000');
  expect(tickColour(undefined)).toMatch(/^#/);
});

test('contributions are told one line a source', () => {
  const told = [
    { source: 'look Red', attribute: 'level', values: [0.5], weight: 0.25, moving: true, wins: true },
    { source: 'look Red', attribute: 'colour', values: [1, 0, 0], weight: 0.25, moving: false, wins: true },
  ];
  expect(contributionWords(told)).toEqual(['look Red: level 50 % in a wave, colour (25 % in)']);
});
