import { NETWORK_BANDS } from './network';
import { findSections } from './sections';

const BAR_SECONDS = 2;

/** Bars of two seconds, each with the bands of its letter: low for a, high for b, both and louder for c. */
function song(letters: string) {
  const bands = new Uint8Array(letters.length * BAR_SECONDS * 100 * NETWORK_BANDS);
  for (let frame = 0; frame < bands.length / NETWORK_BANDS; frame++) {
    const letter = letters[Math.floor(frame / (BAR_SECONDS * 100))]!;
    for (let band = 0; band < NETWORK_BANDS; band++) {
      const low = band < 32;
      const level = letter === 'a' ? (low ? 90 : 30) : letter === 'b' ? (low ? 40 : 80) : 130;
      bands[frame * NETWORK_BANDS + band] = level + ((frame * 7 + band * 3) % 5);
    }
  }
  const frames = letters.length * BAR_SECONDS * 50;
  const nothing = new Float32Array(frames).fill(-4);
  const odds = { frames, beat: nothing, downbeat: nothing, section: nothing };
  const downbeats = Array.from({ length: letters.length + 1 }, (_, bar) => bar * BAR_SECONDS);
  return findSections(odds, bands, downbeats);
}

test('sections begin where the sound changes, and those that sound alike have one letter', () => {
  const found = song('a'.repeat(8) + 'b'.repeat(8) + 'a'.repeat(8) + 'b'.repeat(8));
  expect(found.map(({ bar }) => bar)).toEqual([0, 8, 16, 24]);
  expect(found.map(({ letter }) => letter)).toEqual(['A', 'B', 'A', 'B']);
  expect(found.map(({ start }) => start)).toEqual([0, 16, 32, 48]);
  found.forEach(({ confidence }) => expect(confidence).toBeGreaterThan(0.5));
});

test('the loudest that comes again is the chorus', () => {
  const found = song('a'.repeat(4) + 'b'.repeat(8) + 'c'.repeat(8) + 'b'.repeat(8) + 'c'.repeat(8));
  expect(found.map(({ role }) => role)).toEqual(['Intro', 'Verse', 'Chorus', 'Verse', 'Chorus']);
});

test('where nothing changes there is no form, and a few bars have none', () => {
  expect(song('a'.repeat(40))).toEqual([]);
  // One odd bar at the start is no section.
  expect(song('b' + 'a'.repeat(39))).toEqual([]);
  expect(song('aaabbb')).toEqual([]);
});
