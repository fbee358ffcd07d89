// The light goes by a clock from outside, and carries on without it.

import { freeBeat, songTimeAt } from '../live';
import { testHost } from '../testing/gear-host';
import { testShow } from '../testing/show';
import { beatAt } from '../time';
import { seconds } from '../units';
import type { BytesTaker } from '../gear/host';
import { clockIn, sendClock, type ClockIn } from '.';

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
  expect(sent.slice(0, 2).map((one) => one.bytes)).toEqual([[0xf2, 48, 0], [0xfb]]);
  host.act({ type: 'pause' });
  pass(100, 0);
  expect(sent.map((one) => one.bytes[0])).toContain(0xfc);
  expect(state().song?.playing).toBe(false);
});
