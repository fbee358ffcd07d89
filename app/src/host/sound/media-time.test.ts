import { mediaTime } from './media-time';

/** A clock that is set forward every 75 ms, read every 10. @returns how far off what is read is, at most, in seconds. */
function off(rate: number, from: number, until: number, moved = (_: number) => 0): number {
  const { read } = mediaTime();
  let most = 0;
  for (let i = 0; i * 0.01 < until; i++) {
    const local = 1000 + i * 0.01;
    const media = i * 0.01 * rate - moved(i * 0.01);
    const said = Math.floor(media / (0.075 * rate)) * 0.075 * rate;
    const heard = read(said, local, rate);
    if (i * 0.01 > from) most = Math.max(most, Math.abs(heard - media));
  }
  return most;
}

test.each([0.5, 1, 1.06])('a clock in steps is read to 10 ms, at a pace of %d', (rate) => {
  expect(off(rate, 0.2, 10)).toBeLessThan(0.0101);
});

test('where music stood still, it is where its clock says within three steps', () => {
  const stood = (length: number) => (at: number) => (at > 3 ? Math.min(at - 3, length) : 0);
  for (const length of [0.06, 0.12, 0.3]) expect(off(1, 3.3 + length, 10, stood(length))).toBeLessThan(0.0101);
});

test('until it sounds the clock stands, and so does what is read; then it goes on from there', () => {
  const late = (at: number) => Math.min(at, 0.12);
  const { read } = mediaTime();
  for (let at = 0; at < 0.12; at += 0.01) expect(read(7, 20 + at, 1)).toBe(7);
  expect(read(7.01, 20.13, 1)).toBeCloseTo(7.01, 9);
  expect(off(1, 0.22, 3, late)).toBeLessThan(0.0101);
});

test('a clock that drifts is followed; one that goes evenly is read as it is', () => {
  expect(off(1, 0.2, 60, (at) => at * 0.001)).toBeLessThan(0.0115);
  const { read, forget } = mediaTime();
  for (let i = 0; i < 300; i++) expect(read(i * 0.01, 50 + i * 0.01, 1)).toBeCloseTo(i * 0.01, 9);
  // One that is held up is so at once.
  for (let i = 0; i < 5; i++) read(3 + i * 0.01, 53.1 + i * 0.01, 1);
  expect(read(3.05, 53.15, 1)).toBeCloseTo(3.05, 9);
  forget();
  expect(read(1, 54, 1)).toBe(1);
  // Seldom read, as by a page that nobody looks at.
  for (let i = 0; i < 9; i++)
    expect(read(2 + i * 1.2 - (i % 2) * 0.07, 60 + i * 1.2, 1)).toBe(2 + i * 1.2 - (i % 2) * 0.07);
});
