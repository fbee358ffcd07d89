// Follows MIDI timecode: where another machine is in its time, told in quarter frames that come a little early or late.
// Source: MIDI 1.0 Detailed Specification 4.2, “MIDI Time Code” (quarter frame messages, full message).

import { seconds, type Seconds } from '../units';
import type { ClockState } from './midi-clock';

export type MidiTimecode = {
  /** Takes a message that came in at a moment of the host's clock. @returns whether it was one of timecode. */
  readonly take: (data: ArrayLike<number>, at: Seconds) => boolean;
  /** Silent for a moment it is `lost` and carried on; for longer, or told to stand at a place, it is `stopped`. */
  readonly state: (now: Seconds) => ClockState;
  /** Whether it was told to stand at a place. */
  readonly halted: () => boolean;
  /** The other machine's time at a moment; undefined before it is known. */
  readonly timeAt: (now: Seconds) => Seconds | undefined;
  /** How fast its time goes, against ours; 1 is as usual. */
  readonly rate: () => number;
  /** Frames a second, as they are called: 24, 25, 29.97 or 30. */
  readonly frames: () => number | undefined;
};

const QUARTER_FRAME = 0xf1;
const PIECES = 8;
/** By the two bits of the rate: 24, 25, 30 with dropped numbers, and 30 frames a second. */
const RATES = [24, 25, 30000 / 1001, 30] as const;
const DROP = 2;
/** The line is laid through the places told within the last second and a half. */
const WINDOW = 18;
/** A place that is so far from the line was jumped to, in seconds. */
const JUMPED = 0.03;
/** Silent for longer it is lost; for longer still it has stopped. A machine that stops says nothing more. */
const LOST_SECONDS = 0.25;
const STOPPED_SECONDS = 2;
/** A rate so near to 1 is 1: that is how exact the line is. */
const AS_USUAL = 0.004;

type Told = { readonly at: number; readonly time: number };

export function midiTimecode(): MidiTimecode {
  const pieces = new Uint8Array(PIECES);
  /** The piece that comes next; −1 where the first is waited for. */
  let next = -1;
  let begun = 0;
  let told: Told[] = [];
  let line: { readonly rate: number; readonly at: number; readonly time: number } | undefined;
  let last = -Infinity;
  let halted = false;
  let called: number | undefined;

  const place = (at: number, time: number) => {
    if (halted || (line && Math.abs(line.time + (at - line.at) * line.rate - time) > JUMPED)) told = [];
    halted = false;
    told = [...told.slice(1 - WINDOW), { at, time }];
    line = lineThrough(told);
  };
  const quarter = (data: number, at: Seconds) => {
    const piece = data >> 4;
    const before = last;
    last = at;
    // A gap, or a machine that runs backwards, begins anew.
    if (piece === 0) begun = at;
    else if (piece !== next || at - before > LOST_SECONDS) return void (next = -1);
    pieces[piece] = data & 0x0f;
    next = (piece + 1) % PIECES;
    if (piece < PIECES - 1) return;
    const [f0, f1, s0, s1, m0, m1, h0, h1] = pieces as unknown as readonly number[];
    const told = timeOf(h0! | ((h1! & 1) << 4), m0! | (m1! << 4), s0! | (s1! << 4), f0! | (f1! << 4), (h1! >> 1) & 3);
    if (!told) return;
    called = told.called;
    // It is the time of the first of the eight pieces.
    place(begun, told.time);
  };
  const full = (data: ArrayLike<number>, at: Seconds) => {
    const told = timeOf(data[5]! & 0x1f, data[6]!, data[7]!, data[8]!, (data[5]! >> 5) & 3);
    if (!told) return;
    called = told.called;
    next = -1;
    last = at;
    halted = true;
    line = { rate: 0, at, time: told.time };
    begun = at;
  };
  return {
    take(data, at) {
      if (data[0] === QUARTER_FRAME && data.length >= 2) quarter(data[1]!, at);
      else if (isFull(data)) full(data, at);
      else return false;
      return true;
    },
    state(now) {
      if (!line) return 'none';
      const silent = now - last;
      return halted || silent > STOPPED_SECONDS ? 'stopped' : silent > LOST_SECONDS ? 'lost' : 'running';
    },
    timeAt(now) {
      if (!line) return undefined;
      // Where it has stopped, it stays where it was heard last.
      const until = now - last > STOPPED_SECONDS ? last : now;
      return seconds(Math.max(0, line.time + (until - line.at) * line.rate));
    },
    halted: () => halted,
    rate: () => (line && line.rate > 0 ? line.rate : 1),
    frames: () => called,
  };
}

/** F0 7F, any device, 01 01, the hour with the rate, minute, second, frame, F7. */
function isFull(data: ArrayLike<number>): boolean {
  return data.length >= 10 && data[0] === 0xf0 && data[1] === 0x7f && data[3] === 0x01 && data[4] === 0x01;
}

/** Undefined for figures that no clock shows. */
function timeOf(hour: number, minute: number, second: number, frame: number, rate: number) {
  const called = rate === DROP ? 29.97 : RATES[rate]!;
  if (hour > 23 || minute > 59 || second > 59 || frame >= Math.ceil(called)) return undefined;
  const whole = Math.ceil(called);
  const minutes = hour * 60 + minute;
  // Of dropped frames two numbers are left out each minute, but for every tenth.
  const dropped = rate === DROP ? 2 * (minutes - Math.floor(minutes / 10)) : 0;
  return { called, time: ((minutes * 60 + second) * whole + frame - dropped) / RATES[rate]! };
}

/** The steady line that fits best, by least squares; as usual where there is too little, or next to nothing off. */
function lineThrough(told: readonly Told[]) {
  const count = told.length;
  const at = told.reduce((sum, one) => sum + one.at, 0) / count;
  const time = told.reduce((sum, one) => sum + one.time, 0) / count;
  if (count < WINDOW / 2) return { rate: 1, at, time };
  let [covariance, variance] = [0, 0];
  for (const one of told) {
    covariance += (one.at - at) * (one.time - time);
    variance += (one.at - at) ** 2;
  }
  const rate = covariance / variance;
  return { rate: Math.abs(rate - 1) < AS_USUAL ? 1 : rate, at, time };
}
