// A round of damaged input for every reader: each try is taken or refused, none throws. `npm run fuzz` goes on for longer.

import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { damaged, fuzz } from './fuzz';
import { readers } from './fuzz-readers';

const RECORDINGS = ['uneven.mp3', 'uneven.ogg'].map(
  (name) => new Uint8Array(readFileSync(join(__dirname, '../../../e2e/samples', name))),
);

/** Tries of each reader, in proportion to what one costs. */
const TRIES: Readonly<Record<string, number>> = {
  shows: 400,
  bundles: 500,
  screens: 700,
  logs: 600,
  'lamp types': 500,
  'MIDI files': 3000,
  playlists: 4000,
  calendars: 1000,
  charts: 6000,
  envelopes: 8000,
  recordings: 400,
  'music to play': 1000,
  'what was heard': 200,
  sACN: 40_000,
  'Art-Net': 40_000,
  OSC: 2000,
  serial: 8000,
};
/** Recordings take ten seconds where nothing else wants the processors, and minutes behind what does. */
const PATIENCE_MS = 300_000;

const clock = { ms: () => performance.now(), bytes: () => 0 };

test.each(readers(RECORDINGS).map((reader) => [reader.name, reader] as const))(
  '%s: damaged input is taken or refused',
  async (name, reader) => {
    const wanted = TRIES[name] ?? 0;
    expect(wanted).toBeGreaterThan(0);
    // Undamaged, every sample is read.
    for (const sample of reader.samples.slice(0, 3)) await reader.read(sample);
    const tally = await fuzz(reader, 1, (tries) => tries >= wanted, clock);
    expect(tally.crashes).toEqual([]);
    // The tries reach the reader's inside, and its refusals too.
    expect(tally.refused).toBeGreaterThan(tally.tries / 50);
    expect(tally.refused + tally.taken).toBe(wanted);
  },
  PATIENCE_MS,
);

test('a seed brings back the same try', () => {
  const [shows] = readers(RECORDINGS);
  expect(damaged(shows!, 77)).toEqual(damaged(shows!, 77));
  expect(damaged(shows!, 77)).not.toEqual(damaged(shows!, 78));
});
