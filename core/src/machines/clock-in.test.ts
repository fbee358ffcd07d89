// The light goes by a clock from outside, and carries on without it.

import { freeBeat, songTimeAt } from '../live';
import { testHost } from '../testing/gear-host';
import { testShow } from '../testing/show';
import { beatAt } from '../time';
import { seconds } from '../units';
import type { BytesTaker } from '../gear/host';
import { clockIn, clockSender, sendClock, type ClockIn, type ClockSource } from '.';

let hears: BytesTaker = () => undefined;
/** At a moment of Jest's own clock, in ms. */
const bytes = (device: string, data: readonly number[], ms: number) => hears(device, data, seconds(ms / 1000));
let follows: 'nothing' | 'tempo' | 'songs';
let said: string | null;

function screen() {
  const line = testHost();
  let clock: ClockIn | null = null;
  const wishes = { follows: () => follows, say: (text: string) => void (said = text) };
  hears = clockIn(line.host, wishes, (told) => void (clock = told));
  return { ...line, clock: () => clock as ClockIn | null };
}

/** Time passes in ms, with a clock of so many beats a minute, 1 ms early or late; none at 0. */
function pass(length: number, bpm: number, device = 'Deck') {
  const period = bpm > 0 ? 60_000 / bpm / 24 : Infinity;
  let due = performance.now() + period;
  const end = performance.now() + length;
  while (performance.now() < end - 1e-9) {
    jest.advanceTimersByTime(1);
    while (due <= performance.now()) {
      bytes(device, [0xf8], due + Math.sin(due * 77));
      due += period;
    }
  }
}

beforeEach(() => {
  jest.useFakeTimers();
  [follows, said] = ['tempo', null];
});
afterEach(() => jest.useRealTimers());

test('the free clock goes by it, in tempo and in phase; silent, it is carried on and that is said', () => {
  const { state, now, clock } = screen();
  bytes('Deck', [0xfa], performance.now());
  pass(4000, 124);
  expect(state().tempo.bpm).toBeCloseTo(124, 0);
  // It was started four seconds ago: 8.27 beats.
  const beat = freeBeat(state(), now());
  expect(Math.abs(beat - (4 * 124) / 60) * (60 / 124)).toBeLessThan(0.03);
  expect(clock()).toMatchObject({ device: 'Deck', state: 'running' });
  // A second clock is not listened to while the first one is there.
  for (let i = 0; i < 50; i++) bytes('Other', [0xf8], performance.now());
  pass(1500, 124);
  expect(state().tempo.bpm).toBeCloseTo(124, 0);
  pass(1000, 0);
  expect(said).toMatch(/^The MIDI clock of Deck stopped\. The tempo stays at 12[34]/);
  expect(state().tempo.bpm).toBeCloseTo(124, 0);
  pass(1000, 124);
  expect(said).toBe('The MIDI clock of Deck is back.');
});

test('a song starts, goes at the clock’s tempo, stops, and goes on from a position', () => {
  follows = 'songs';
  const { state, now } = screen();
  const [song] = testShow().songs;
  bytes('Deck', [0xfa], performance.now());
  pass(4000, 132);
  const place = () => songTimeAt(state().song!, now());
  expect(state().song).toMatchObject({ id: song!.id, playing: true });
  // Written at 120, played at 132: 8.8 beats in four seconds.
  expect(beatAt(song!.tempo, place())).toBeCloseTo(8.8, 1);
  expect(state().song!.rate).toBeCloseTo(1.1, 2);
  bytes('Deck', [0xfc], performance.now());
  expect(state().song!.playing).toBe(false);
  // 48 sixteenths are 12 beats: 6 s at 120.
  bytes('Deck', [0xf2, 48, 0], performance.now());
  bytes('Deck', [0xfb], performance.now());
  expect(place()).toBeCloseTo(6, 1);
  pass(1000, 120);
  expect(place()).toBeCloseTo(7, 1);
});

test('a clock that starts begins with the first beat of a recording, not with the silence before it', () => {
  follows = 'songs';
  const { put, state, now, acted } = screen();
  const show = testShow();
  const [song] = show.songs;
  const anchors = song!.tempo.anchors.map(({ beat, time }) => ({ beat, time: seconds(time + 1.5) }));
  put({ ...show, songs: [{ ...song!, tempo: { anchors } }, ...show.songs.slice(1)] });
  bytes('Deck', [0xfa], performance.now());
  expect(acted).toContainEqual({ type: 'play', song: song!.id, from: 1.5 });
  pass(2000, 120);
  expect(songTimeAt(state().song!, now())).toBeCloseTo(3.5, 1);
});

test('a loop of ours gives way to it', () => {
  follows = 'songs';
  const { state, now, host } = screen();
  bytes('Deck', [0xfa], performance.now());
  pass(2000, 120);
  host.act({ type: 'loop', loop: { from: seconds(1.5), to: seconds(2.4) } });
  pass(3000, 120);
  expect(songTimeAt(state().song!, now())).toBeCloseTo(5, 1);
  expect(state().song).not.toHaveProperty('loop');
});

test('nothing is led by it unless that is wanted', () => {
  follows = 'nothing';
  const { acted, clock } = screen();
  bytes('Deck', [0xfa], performance.now());
  pass(2000, 124);
  expect(acted).toEqual([]);
  expect(clock()?.bpm).toBeCloseTo(124, 0);
});

test('our own clock leaves evenly, ahead of its time, with starts and stops', () => {
  follows = 'nothing';
  const { host, state } = screen();
  const sent: { readonly bytes: readonly number[]; readonly at: number }[] = [];
  const sendTo = (_: unknown, out: readonly number[], inSeconds = 0) =>
    void sent.push({ bytes: out, at: performance.now() + inSeconds * 1000 });
  sendClock(host, { sendTo }, () => true);
  pass(4000, 0);
  const ticks = sent.filter(({ bytes: [status] }) => status === 0xf8).map(({ at }) => at);
  // 120 a minute are 48 ticks a second.
  expect(ticks.length).toBeGreaterThan(180);
  const gaps = ticks.slice(1).map((at, i) => at - ticks[i]!);
  expect(Math.max(...gaps)).toBeLessThan(60_000 / 120 / 24 + 1);
  expect(Math.min(...gaps)).toBeGreaterThan(60_000 / 120 / 24 - 1);
  sent.length = 0;
  host.act({ type: 'play', song: testShow().songs[0]!.id, from: seconds(6) });
  pass(100, 0);
  expect(transport(sent)).toEqual([[0xf2, 48, 0], [0xfb]]);
  host.act({ type: 'pause' });
  pass(100, 0);
  expect(sent.map((one) => one.bytes[0])).toContain(0xfc);
  expect(state().song?.playing).toBe(false);
});

/** What leaves of a source, in ms from its beginning; `at` plays it on for so many ms, looked at every 30. */
function sent() {
  const out: { readonly bytes: readonly number[]; readonly at: number }[] = [];
  const { host } = screen();
  const begun = performance.now();
  let source: ClockSource | undefined;
  const end = clockSender(
    host.time,
    { sendTo: (_, bytes, inSeconds = 0) => out.push({ bytes, at: performance.now() - begun + inSeconds * 1000 }) },
    () => source,
  );
  /** At 120 beats a minute, from a beat on. */
  const play = (name: string | null, from: number, ms: number) => {
    const start = performance.now();
    for (let past = 0; past < ms; past += 30) {
      const now = performance.now() / 1000;
      const beat = from + (performance.now() - start) / 500;
      source = { name, now, beat, when: (to) => now + (to - beat) / 2 };
      pass(30, 0);
    }
    return from + (performance.now() - start) / 500;
  };
  const fallSilent = () => {
    source = undefined;
    pass(60, 0);
  };
  return { out, play, fallSilent, end };
}
const transport = (out: readonly { readonly bytes: readonly number[] }[]) =>
  out.flatMap(({ bytes }) => (bytes[0] === 0xf8 ? [] : [bytes]));

test('gear goes on with the very tick of the sixteenth it was told, and starts with the first beat, not with the count-in', () => {
  follows = 'nothing';
  const { out, play, end } = sent();
  // The next sixteenth after beat 1.15 is the fifth, at 1.25, which is 50 ms later.
  play('a', 1.15, 600);
  expect(transport(out)).toEqual([[0xf2, 5, 0], [0xfb]]);
  const goes = out.findIndex(({ bytes }) => bytes[0] === 0xfb);
  expect(out[goes + 1]!.bytes).toEqual([0xf8]);
  expect(out[goes + 1]!.at - out[0]!.at).toBeCloseTo(50, 0);
  expect(out[goes]!.at).toBe(out[goes + 1]!.at);
  out.length = 0;
  // From the beginning, looked at a moment later: it starts, and what it missed comes at once.
  play('start', 0.05, 300);
  expect(transport(out)).toEqual([[0xfc], [0xfa]]);
  const ticks = out.filter(({ bytes, at }) => bytes[0] === 0xf8 && at <= out[0]!.at);
  expect(ticks).toHaveLength(2);
  out.length = 0;
  // Another song, with a beat of count-in: the one before stops, and this one starts a beat later.
  play('b', -1, 900);
  expect(transport(out)).toEqual([[0xfc], [0xfa]]);
  const start = out.find(({ bytes }) => bytes[0] === 0xfa)!;
  expect(start.at - out[0]!.at).toBeCloseTo(500, 0);
  end();
});

test('a song that jumps takes gear along, and so does a page that was held up for a second', () => {
  follows = 'nothing';
  const { out, play, fallSilent, end } = sent();
  const beat = play('a', 0, 600);
  expect(transport(out)).toEqual([[0xfa]]);
  out.length = 0;
  // Nothing is looked at for a second, and the music goes on.
  pass(1000, 0);
  const on = play('a', beat + 2, 300);
  expect(transport(out)).toEqual([[0xfc], [0xf2, expect.any(Number), 0], [0xfb]]);
  out.length = 0;
  play('a', on + 16, 300);
  const place = out.find(({ bytes: [status] }) => status === 0xf2)!.bytes[1]!;
  expect(transport(out)).toEqual([[0xfc], [0xf2, place, 0], [0xfb]]);
  // A little later than it was thought, as where sound begins late: gear waits, and nothing is told.
  out.length = 0;
  play('a', on + 16.3, 300);
  expect(transport(out)).toEqual([]);
  play('a', on, 300);
  expect(transport(out).map(([status]) => status)).toEqual([0xfc, 0xf2, 0xfb]);
  expect(Math.abs(place / 4 - (on + 16))).toBeLessThan(0.26);
  out.length = 0;
  play(null, 3, 200);
  expect(transport(out)).toEqual([[0xfc]]);
  out.length = 0;
  // The clock is switched off in a song, and on again.
  play('a', 8, 300);
  fallSilent();
  play('a', 8.5, 300);
  expect(transport(out)).toEqual([[0xf2, 32, 0], [0xfb], [0xfc], [0xf2, 34, 0], [0xfb]]);
  // Stopped before it has gone on: the stop comes behind what was handed on ahead of its time, and gear stands.
  play(null, 0, 300);
  out.length = 0;
  play('a', 20.125, 30);
  play(null, 0, 200);
  const inTime = [...out].sort((one, other) => one.at - other.at);
  expect(transport(inTime)).toEqual([[0xf2, 81, 0], [0xfb], [0xfc]]);
  end();
});
