import { NETWORK_BANDS } from './network';
import { findSections } from './sections';

const BAR_SECONDS = 2;

/** Bars of two seconds, each with the bands of its letter: low for a, high for b, both and louder for c, high and rising for u. */
function song(letters: string) {
  const bands = new Uint8Array(letters.length * BAR_SECONDS * 100 * NETWORK_BANDS);
  for (let frame = 0; frame < bands.length / NETWORK_BANDS; frame++) {
    const bar = Math.floor(frame / (BAR_SECONDS * 100));
    const letter = letters[bar]!;
    for (let band = 0; band < NETWORK_BANDS; band++) {
      const low = band < 32;
      const risen = letter === 'u' ? 6 * (bar - letters.lastIndexOf('a', bar)) : 0;
      const level = letter === 'a' ? (low ? 90 : 30) : letter === 'b' || letter === 'u' ? (low ? 40 : 80 + risen) : 130;
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

test('what comes in after the bass was gone is a drop, and what rises before it a build-up', () => {
  const found = song('a'.repeat(8) + 'u'.repeat(8) + 'c'.repeat(16) + 'a'.repeat(8) + 'u'.repeat(8) + 'c'.repeat(16));
  expect(found.map(({ role }) => role)).toEqual(['Intro', 'Build-up', 'Drop', 'Verse', 'Build-up', 'Drop']);
  // With its bass there all along, or after a verse without one that stays as it is, it is a chorus.
  const sung = song('a'.repeat(8) + 'c'.repeat(8) + 'a'.repeat(8) + 'c'.repeat(8));
  expect(sung.map(({ role }) => role)).toEqual(['Intro', 'Chorus', 'Verse', 'Chorus']);
});

test('where nothing changes there is no form, and a few bars have none', () => {
  expect(song('a'.repeat(40))).toEqual([]);
  // One odd bar at the start is no section.
  expect(song('b' + 'a'.repeat(39))).toEqual([]);
  expect(song('aaabbb')).toEqual([]);
});
