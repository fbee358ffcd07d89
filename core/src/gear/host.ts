// What gear needs of where it is plugged in, a page or the conductor's computer: the moment, a clock, timers, and a way to act.

import type { Act } from '../gig';
import type { Action, Moment } from '../live';
import type { Seconds } from '../units';

export type BareHost = {
  /** Undefined while no show is open. */
  readonly moment: () => Moment | undefined;
  /** The same for a press: on top of what was pressed just before, and is not answered yet. */
  readonly press: () => Moment | undefined;
  /** The conductor's clock. */
  readonly now: () => Seconds;
  readonly act: (action: Action) => void;
  readonly time: Timers;
};

export type GearHost = BareHost & {
  /** What a switch means as it goes down, or comes up: see `Act`. @param at when, by the clock of the surface. */
  readonly doActs: (acts: readonly Act[], down: boolean, at: number) => void;
};

/** Each gives what ends it. Times in ms. */
export type Timers = {
  readonly after: (ms: number, what: () => void) => () => void;
  readonly every: (ms: number, what: () => void) => () => void;
};

/** The timers of a page or of Node, which core has no names for. */
type Clocks<Timer> = {
  setTimeout(what: () => void, ms: number): Timer;
  clearTimeout(timer: Timer): void;
  setInterval(what: () => void, ms: number): Timer;
  clearInterval(timer: Timer): void;
};

export const timersOf = <Timer>(clocks: Clocks<Timer>): Timers => ({
  after(ms, what) {
    const timer = clocks.setTimeout(what, ms);
    return () => clocks.clearTimeout(timer);
  },
  every(ms, what) {
    const timer = clocks.setInterval(what, ms);
    return () => clocks.clearInterval(timer);
  },
});

/** MIDI ports as gear needs them. A device of null is every one. */
export type Ports = {
  /** Names of what takes MIDI; the same array until something is plugged in or pulled out. */
  readonly outputs: () => readonly string[];
  readonly sendTo: (device: string | null, bytes: readonly number[], inSeconds?: number) => void;
};

/** Hears all that comes in as it is: a clock, timecode. @param at by the conductor's clock. */
export type BytesTaker = (device: string, data: ArrayLike<number>, at: Seconds) => void;
