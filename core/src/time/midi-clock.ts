// Follows a MIDI clock: 24 ticks a quarter note that come a little early or late, get lost, stop and start.

import { clamp, type Seconds } from '../units';

export const TICKS_A_BEAT = 24;

/** What the clock does: nothing yet, it runs, it was stopped, or it fell silent and is carried on. */
export type ClockState = 'none' | 'running' | 'stopped' | 'lost';

export type MidiClock = {
  /** A tick that came in at a moment of the host's clock. Moments must not fall. */
  readonly tick: (at: Seconds) => void;
  /** From its beginning, on with the next tick. */
  readonly start: () => void;
  /** On from where it is. */
  readonly goOn: () => void;
  readonly stop: () => void;
  /** Its position, in sixteenths from the beginning (song position pointer, in “MIDI beats”). */
  readonly position: (sixteenths: number) => void;
  readonly state: (now: Seconds) => ClockState;
  /** Quarter notes a minute; undefined before it is known. */
  readonly bpm: () => number | undefined;
  /** Quarter notes from the beginning at a moment, carried on past the last tick. It does not move until its tempo is known. */
  readonly beatAt: (now: Seconds) => number;
};

/** The line through ticks is laid through so many of them: a beat and a half evens out jitter. */
const WINDOW = 36;
/** After a change of tempo the line begins anew with the last of these. */
const FRESH = 6;
/** So many ticks on one side of the line, by so much, in seconds, are no jitter. */
const BENT = 5;
const OFF_SECONDS = 0.004;
/** Silent for longer it is lost, in seconds. */
const LOST_SECONDS = 0.3;
/** Ticks that are missing over a gap of up to this are counted, in seconds. */
const HELD_SECONDS = 4;
/** A gap of 1.6 ticks and more has lost one: jitter alone is less, up to 250 beats a minute. */
const SURELY = 0.4;
/** 20 to 400 beats a minute, in seconds of a tick. */
const SHORTEST = 60 / 400 / TICKS_A_BEAT;
const LONGEST = 60 / 20 / TICKS_A_BEAT;

type Tick = { readonly n: number; readonly at: number };
type Line = { readonly period: number; readonly at: number; readonly n: number };

export function midiClock(): MidiClock {
  let ticks: Tick[] = [];
  /** Number of the tick that comes next, from the beginning. */
  let next = 0;
  let line: Line | undefined;
  let runs = false;
  let heard = false;
  let last = -Infinity;

  const predicted = (n: number): number => line!.at + (n - line!.n) * line!.period;
  const begin = (n: number) => {
    next = n;
    ticks = [];
    // Its tempo is what it was; where it falls is told by the next tick.
    line = undefined;
  };
  /** Ticks that were lost on the way are counted, as the sender has counted them. */
  const missed = (at: number): number => {
    const before = ticks.at(-1);
    if (!line || !before || at - before.at > HELD_SECONDS) return 0;
    // From the tick before, and not from the line, which a change of tempo leaves behind.
    return Math.max(0, Math.floor((at - before.at) / line.period - 1 + SURELY));
  };
  const take = (at: number) => {
    next += missed(at);
    ticks = [...ticks.slice(1 - WINDOW), { n: next, at }];
    if (line && bent(ticks, predicted)) ticks = ticks.slice(-FRESH);
    line = lineThrough(ticks) ?? line;
    next++;
  };

  return {
    tick(at) {
      heard = true;
      // A clock that runs without ever being started runs all the same.
      if (!runs && ticks.length === 0 && next === 0) runs = true;
      if (at - last > HELD_SECONDS) ticks = [];
      last = at;
      if (!runs) {
        // Stopped, it may tick on: its tempo is followed, its place stays.
        ticks = [...ticks.slice(1 - WINDOW), { n: (ticks.at(-1)?.n ?? 0) + 1, at }];
        line = lineThrough(ticks) ?? line;
        return;
      }
      take(at);
    },
    start() {
      begin(0);
      runs = true;
    },
    goOn() {
      begin(next);
      runs = true;
    },
    stop() {
      runs = false;
      ticks = [];
    },
    position(sixteenths) {
      begin(Math.max(0, Math.round(sixteenths)) * (TICKS_A_BEAT / 4));
    },
    state(now) {
      if (!heard) return 'none';
      if (!runs) return 'stopped';
      return now - last > LOST_SECONDS ? 'lost' : 'running';
    },
    bpm: () => (line ? 60 / (line.period * TICKS_A_BEAT) : undefined),
    beatAt: (now) => (runs && line ? line.n + (now - line.at) / line.period : next) / TICKS_A_BEAT,
  };
}

/** The steady line that fits the ticks best, by least squares; undefined for fewer than three. */
function lineThrough(ticks: readonly Tick[]): Line | undefined {
  if (ticks.length < 3) return undefined;
  const n0 = ticks.reduce((sum, { n }) => sum + n, 0) / ticks.length;
  const t0 = ticks.reduce((sum, { at }) => sum + at, 0) / ticks.length;
  let [covariance, variance] = [0, 0];
  for (const { n, at } of ticks) {
    covariance += (n - n0) * (at - t0);
    variance += (n - n0) ** 2;
  }
  return { period: clamp(covariance / variance, SHORTEST, LONGEST), at: t0, n: n0 };
}

/** Whether the last ticks all lie to one side of the line: the tempo has changed. */
function bent(ticks: readonly Tick[], predicted: (n: number) => number): boolean {
  if (ticks.length < BENT + 3) return false;
  const off = ticks.slice(-BENT).map(({ n, at }) => at - predicted(n));
  return off.every((one) => one > OFF_SECONDS) || off.every((one) => one < -OFF_SECONDS);
}
