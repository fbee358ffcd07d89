// A song that loops and jumps is where a player with a needle would be.

import fc from 'fast-check';
import { seconds } from '../units';
import { anchoredAt, looped, jumping, songAt, songTimeAt, type SongClock } from './song-clock';

const span = (from: number, to: number) => ({ from: seconds(from), to: seconds(to) });
const song = (extra: Partial<SongClock> = {}): SongClock => ({
  playing: true,
  songTime: seconds(10),
  at: seconds(100),
  rate: 1,
  ...extra,
});
const time = (one: SongClock, at: number) => songTimeAt(one, seconds(at));

/** The same by moving a needle a little at a time, in hundredths of a second so that sums are exact. */
function needle(one: SongClock, until: number): number {
  let place = Math.round(one.songTime * 100);
  let loop: SongClock['loop'] = one.loop && one.songTime < one.loop.to ? one.loop : undefined;
  let jump = one.jump;
  for (let at = Math.round(one.at * 100); at < Math.round(until * 100); at++) {
    if (jump && place === Math.round(jump.when * 100)) {
      place = Math.round(jump.to * 100);
      loop = jump.loop;
      jump = undefined;
    } else if (loop && place === Math.round(loop.to * 100)) place = Math.round(loop.from * 100);
    // A jump from the very end of a loop is the jump's.
    place += 1;
    if (jump && place === Math.round(jump.when * 100) && at + 1 === Math.round(until * 100)) return jump.to;
  }
  return loop && place === Math.round(loop.to * 100) ? loop.from : place / 100;
}

const tenths = (low: number, high: number) => fc.integer({ min: low, max: high }).map((n) => n / 10);
const anySong: fc.Arbitrary<SongClock> = fc
  .record({
    here: tenths(0, 300),
    loop: fc.option(fc.tuple(tenths(0, 300), tenths(5, 60))),
    jump: fc.option(fc.tuple(tenths(0, 300), tenths(0, 300), fc.option(fc.tuple(tenths(0, 20), tenths(5, 60))))),
  })
  .map(({ here, loop, jump }) =>
    song({
      songTime: seconds(here),
      ...(loop ? { loop: span(loop[0], loop[0] + loop[1]) } : {}),
      ...(jump
        ? {
            jump: {
              when: seconds(jump[0]),
              to: seconds(jump[1]),
              ...(jump[2] ? { loop: span(Math.max(0, jump[1] - jump[2][0]), jump[1] + jump[2][1]) } : {}),
            },
          }
        : {}),
    }),
  );

test('it is where a needle would be, however it loops and jumps', () => {
  fc.assert(
    fc.property(anySong, tenths(1, 900), (one, later) => {
      // A needle on the place of a jump, or at the end of a loop, is between two places.
      const here = one.songTime;
      fc.pre(here !== one.jump?.when && here !== one.loop?.to);
      const expected = needle(one, 100 + later) + 0.005;
      expect(time(one, 100 + later + 0.005)).toBeCloseTo(expected, 6);
    }),
    { seed: 15, numRuns: 200 },
  );
});

test('anchored anew at any moment it goes on the same', () => {
  fc.assert(
    fc.property(anySong, tenths(0, 400), tenths(0, 400), (one, first, then) => {
      const rebased = songAt(one, seconds(100 + first + 0.013));
      expect(time(rebased, 100 + first + then + 0.02)).toBeCloseTo(time(one, 100 + first + then + 0.02), 6);
    }),
    { seed: 15, numRuns: 200 },
  );
});

test('a loop goes on until it is released, and then the song plays on from where it is', () => {
  const looping = song({ loop: span(12, 16) });
  expect([101, 105.9, 106, 110, 113].map((at) => time(looping, at))).toEqual(
    [11, 15.9, 12, 12, 15].map((n) => expect.closeTo(n, 6)),
  );
  const free = looped(songAt(looping, seconds(113)), null);
  expect(time(free, 118)).toBeCloseTo(20, 6);
  // One that is left behind does not catch it again.
  expect(time(song({ loop: span(2, 6) }), 120)).toBe(30);
});

test('a jump leaves at its bar line, and may be taken back before it', () => {
  const chosen = jumping(song(), { when: seconds(12), to: seconds(40), loop: span(40, 44) });
  expect([101, 101.99, 102, 105, 106.5].map((at) => time(chosen, at))).toEqual(
    [11, 11.99, 40, 43, 40.5].map((n) => expect.closeTo(n, 6)),
  );
  expect(time(jumping(songAt(chosen, seconds(101)), null), 105)).toBe(15);
  // Played slower it takes longer to get there.
  expect(time({ ...chosen, rate: 0.5 }, 104)).toBeCloseTo(40, 6);
});

test('a sound that is a little ahead, or behind, never slips out of a loop or past a jump', () => {
  fc.assert(
    fc.property(
      anySong,
      fc.array(fc.integer({ min: -30, max: 30 }), { minLength: 1, maxLength: 60 }),
      (one, errors) => {
        let now = one;
        let at = 100;
        for (const ms of errors) {
          at += 0.25;
          const before = time(now, at);
          now = anchoredAt(now, seconds(before + ms / 1000), seconds(at));
          // The sound is off by what it is off, and never by a whole loop or a jump.
          const turn = [now.loop, one.jump?.loop, one.loop].flatMap((span) => (span ? [span.to - span.from] : []));
          const off = Math.abs(time(now, at) - before);
          const lengths = [0, ...turn, ...(one.jump ? [Math.abs(one.jump.to - one.jump.when)] : [])];
          expect(Math.min(...lengths.map((length) => Math.abs(off - length)))).toBeLessThan(0.0301);
        }
        // What loops still loops, wherever the errors fell.
        if (one.loop && !one.jump && one.songTime < one.loop.to)
          expect(time(now, at + 500)).toBeLessThan(one.loop.to + 0.0001);
      },
    ),
    { seed: 15, numRuns: 200 },
  );
  const near = song({ songTime: seconds(15.9), loop: span(12, 16) });
  expect(time(anchoredAt(near, seconds(16.004), seconds(100.1)), 101)).toBeCloseTo(12.904, 6);
  const jumped = anchoredAt(
    song({ songTime: seconds(11.9), jump: { when: seconds(12), to: seconds(40) } }),
    seconds(12.005),
    seconds(100.1),
  );
  expect(time(jumped, 100.1)).toBeCloseTo(40.005, 6);
  expect(time(jumped, 130)).toBeCloseTo(69.905, 6);
});
