import { steadyTempo } from '@hovlix/core/time';
import { bareSong } from '@hovlix/core/song';
import { id } from '@hovlix/core/units';
import { commandsFor, gridAt } from './readings';

const song = bareSong({ id: id<'Song'>('s'), title: 'S', bpm: 120, meter: { numerator: 4, denominator: 4 }, bars: 8 });
const grid = (bpm: number) => ({
  found: true,
  bpm,
  tempo: steadyTempo(bpm),
  meter: [{ bar: 0, numerator: 4, denominator: 4 }],
  beats: [],
  downbeats: [],
});

test('light is counted anew by how far the song’s own tempo is from the reading, however often it is taken', () => {
  const types = (bpm: number) => commandsFor(song, grid(bpm)).map((one) => ('factor' in one ? one.factor : one.type));
  expect(types(60)).toEqual([0.5, 'set-bars']);
  expect(types(240)).toEqual([2, 'set-bars']);
  expect(types(120)).toEqual(['set-bars']);
  expect(types(30)).toEqual([0.5, 0.5, 'set-bars']);
});

test('half of a song that was halved is none that was heard; double of it is what was found', () => {
  const readings = { now: grid(120), others: [{ reading: 'half' as const, grid: grid(60) }], doubtful: [] };
  expect(gridAt(readings, 60)?.bpm).toBe(60);
  expect(gridAt(readings, 120)?.bpm).toBe(120);
  expect(gridAt(readings, 30)).toBeUndefined();
});
