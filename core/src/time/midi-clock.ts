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
/** With fewer ticks than this, half a beat, nobody can tell a lost one from a late one. */
const EVEN = 12;
/** So many ticks on one side of the line, by so much, in seconds, are no jitter. */
const BENT = 5;
const OFF_SECONDS = 0.004;
/** Silent for longer it is lost, in seconds. */
const LOST_SECONDS = 0.3;
/** Ticks that are missing over a gap of up to this are counted, in seconds. */
const HELD_SECONDS = 4;
/** A gap of 1.6 ticks and more has lost one: jitter alone is less, up to 250 beats a minute. */
const SURELY = 0.4;
/** A tick that follows closer than so many periods came late: it is one of those that were thought lost. */
const CLOSE = 0.6;
/** What was thought lost may still come for so long, in seconds. */
const OWED_SECONDS = 0.5;
/** When so many of the last dozen ticks seem to come after a lost one, none was lost: the line is too short. */
const TOO_MANY = 0.7;
const FORGETS = 0.9;
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
  /** Ticks thought lost in the gap before, of which some may still come. */
  let owed = 0;
  let owedAt = 0;
  /** How often a tick came after a gap, 0…1, and how many ticks were counted in those gaps since it was rare. */
  let gaps = 0;
  let counted = 0;

  const predicted = (n: number): number => line!.at + (n - line!.n) * line!.period;
  const begin = (n: number) => {
    next = n;
    ticks = [];
    // Its tempo is what it was; where it falls is told by the next tick.
    line = undefined;
    owed = gaps = counted = 0;
  };
  /** Ticks that were lost on the way are counted, as the sender has counted them. */
  const missed = (at: number): number => {
    const before = ticks.at(-1);
    if (!line || !before || at - before.at > HELD_SECONDS) return 0;
    // From the tick before, and not from the line, which a change of tempo leaves behind.
    const between = Math.max(0, Math.floor((at - before.at) / line.period - 1 + SURELY));
    return between > 0 && steady(ticks, line.period, predicted) ? between : 0;
  };
  /** Counts those lost before a tick, and takes back what was counted and comes after all. */
  const count = (at: number) => {
    const before = ticks.at(-1);
    if (owed > 0 && line && before && at - before.at < CLOSE * line.period) {
      owed--;
      counted--;
      next--;
      return;
    }
    const lost = missed(at);
    if (at - owedAt > OWED_SECONDS) owed = 0;
    if (lost > 0) [owed, owedAt] = [owed + lost, at];
    if (gaps < 1 - FORGETS) counted = 0;
    gaps = gaps * FORGETS + (lost > 0 ? 1 - FORGETS : 0);
    next += lost;
    counted += lost;
  };
  const take = (at: number) => {
    count(at);
    ticks = [...ticks.slice(1 - WINDOW), { n: next, at }];
    if (gaps > TOO_MANY) {
      next -= counted;
      owed = gaps = counted = 0;
      const kept = ticks.slice(-FRESH);
      ticks = kept.map((one, i) => ({ n: next - kept.length + 1 + i, at: one.at }));
    } else if (line && bent(ticks, predicted)) ticks = ticks.slice(-FRESH);
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

/** Whether ticks come so evenly that a gap between two can be told from one that is late. */
function steady(ticks: readonly Tick[], period: number, predicted: (n: number) => number): boolean {
  return ticks.length >= EVEN && ticks.every(({ n, at }) => Math.abs(at - predicted(n)) < SURELY * period);
}

/** Whether the last ticks all lie to one side of the line: the tempo has changed. */
function bent(ticks: readonly Tick[], predicted: (n: number) => number): boolean {
  if (ticks.length < BENT + 3) return false;
  const off = ticks.slice(-BENT).map(({ n, at }) => at - predicted(n));
  return off.every((one) => one > OFF_SECONDS) || off.every((one) => one < -OFF_SECONDS);
}
