// What is heard of bar lines, in songs whose bars are known.

import { barsOf, beginnings, beside, LINE_TELLS, REACH } from './lines';
import { NETWORK_BANDS } from './network';

const BAR_SECONDS = 1;

/** A song of bars by their letters, each of which lights bands of its own; `crash` strikes the highest bands as bars begin. */
function song(letters: string, crash: readonly number[] = []) {
  const frames = letters.length * BAR_SECONDS * 100;
  const bands = new Uint8Array(frames * NETWORK_BANDS);
  for (let frame = 0; frame < frames; frame++) {
    const bar = Math.floor(frame / (BAR_SECONDS * 100));
    const kind = letters.charCodeAt(bar) - 97;
    for (let band = 0; band < NETWORK_BANDS; band++)
      bands[frame * NETWORK_BANDS + band] = (band * 7 + kind * 13) % 29 < 9 ? 120 : 40;
    if (crash.includes(bar) && frame % (BAR_SECONDS * 100) < 30)
      bands.fill(200, frame * NETWORK_BANDS + 48, (frame + 1) * NETWORK_BANDS);
  }
  const nothing = new Float32Array(letters.length * BAR_SECONDS * 50).fill(-4);
  const downbeats = Array.from({ length: letters.length + 1 }, (_, bar) => bar * BAR_SECONDS);
  return barsOf({ frames: nothing.length, beat: nothing, downbeat: nothing, section: nothing }, bands, downbeats).tells;
}

const column = (tells: ReturnType<typeof song>, tell: (typeof LINE_TELLS)[number]) =>
  tells.map((one) => one[LINE_TELLS.indexOf(tell)]!);
const highest = (values: readonly number[]) => values.indexOf(Math.max(...values));

test('a line where something heard before begins again stands out, and one where it ends', () => {
  const tells = song('abcdefgh' + 'ijklmnop' + 'abcdefgh' + 'qrstuvwx');
  const begins = column(tells, 'what follows was heard before, what went before was not');
  const ends = column(tells, 'what went before was heard before, what follows was not');
  expect(begins[16]).toBeGreaterThan(0.5);
  expect(begins[18]).toBeLessThan(begins[16]! - 0.3);
  expect(ends[8]).toBeGreaterThan(0.5);
  expect(ends[24]).toBeGreaterThan(0.5);
  expect(ends[6]).toBeLessThan(ends[8]! - 0.3);
});

test('a change is where bars before are unlike bars after; a bar that begins with a crash is struck brightly', () => {
  const tells = song('a'.repeat(8) + 'b'.repeat(8), [8]);
  for (const novelty of ['novelty over two bars', 'over four', 'over eight'] as const)
    expect(highest(column(tells, novelty))).toBe(8);
  expect(highest(column(tells, 'struck brightly'))).toBe(8);
  expect(column(tells, 'louder or softer').every((change) => change >= 0)).toBe(true);
});

test('the likeliest line of such a song is where it changes', () => {
  const odds = beginnings(song('a'.repeat(8) + 'b'.repeat(8), [8]));
  expect(highest([...odds].slice(1))).toBe(7);
  expect(odds[8]).toBeGreaterThan(odds[5]! + 1);
});

test('at its ends a song has no lines beyond its own', () => {
  const tells = song('abcdefghijkl');
  const width = LINE_TELLS.length;
  expect(beside(tells, 0)).toHaveLength(width * (2 * REACH + 1));
  expect(beside(tells, 0).slice(0, width)).toEqual(tells[0]);
  expect(beside(tells, 11).slice(-width)).toEqual(tells[11]);
});
