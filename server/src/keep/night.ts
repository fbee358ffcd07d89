// What is on, kept in the home folder: a server that was stopped or killed goes on with the night as it was.

import { existsSync, readFileSync } from 'node:fs';
import { z } from 'zod';
import { leftAs, LiveState } from '@hovlix/core/live';
import { seconds, type Seconds } from '@hovlix/core/units';
import { AGAIN_MS, reasonOf, writeWhole, writeWholeSoon } from './whole';

/** `at` by the machine's steady clock, `wall` in ms since 1970: together they tell how long ago it was. */
const File = z.object({
  at: z.number().transform(seconds),
  wall: z.number(),
  state: LiveState,
  phones: z.boolean().default(false),
});

export type Kept = {
  readonly state: LiveState;
  /** Phones may join. */
  readonly phones: boolean;
};

export type Night = {
  /**
   * What was on last, by the clock of now; undefined where nothing is known, or a new night begins. It goes on where the
   * break was so short that the same clock counts.
   */
  readonly read: () => (Kept & { readonly goesOn: boolean }) | undefined;
  /** Writes it soon: the newest of several. */
  readonly keep: (kept: () => Kept) => void;
  /** Writes it at the end. */
  readonly close: (kept: Kept) => void;
};

/** A press is at most this long in memory only. */
const SOON_MS = 250;
/** After a shorter break the song has gone on meanwhile, and so do fades; after a longer one all is as it was left. */
const BREAK_SECONDS = 120;
/** Whoever comes back after this begins a new night. */
const NIGHT_SECONDS = 12 * 3600;
/** The steady clock starts anew with the machine. By so much it and the time of day may differ over a break. */
const CLOCKS_DIFFER = 5;

/**
 * @param now the machine's steady clock. @param trouble is told why it cannot be kept; null when it can again.
 * @param lost is told in words what could not be read.
 */
export function night(
  file: string,
  now: () => Seconds,
  trouble: (why: string | null) => void,
  lost: (why: string) => void,
): Night {
  let waiting: (() => Kept) | undefined;
  let timer: NodeJS.Timeout | undefined;
  let closed = false;
  const text = (kept: Kept) => JSON.stringify({ at: now(), wall: Date.now(), ...kept });
  const failed = (error: unknown) =>
    trouble(`What is on is not kept: ${reasonOf(error)}. After a restart it would not come back.`);
  /** @returns how soon what waits is to be written. */
  const write = async (): Promise<number> => {
    const kept = waiting;
    waiting = undefined;
    if (!kept || closed) return SOON_MS;
    try {
      await writeWholeSoon(file, text(kept()), () => !closed);
      trouble(null);
      return SOON_MS;
    } catch (error) {
      failed(error);
      waiting ??= kept;
      return AGAIN_MS;
    }
  };
  const soon = (ms: number): void => {
    timer ??= setTimeout(() => {
      void write().then((next) => {
        timer = undefined;
        if (waiting && !closed) soon(next);
      });
    }, ms).unref();
  };
  return {
    read() {
      if (!existsSync(file)) return undefined;
      try {
        const { at, wall, state, phones } = File.parse(JSON.parse(readFileSync(file, 'utf8')));
        const [passed, byWall] = [now() - at, (Date.now() - wall) / 1000];
        const sameClock = passed >= 0 && Math.abs(passed - byWall) < CLOCKS_DIFFER;
        if (byWall > NIGHT_SECONDS) return undefined;
        const goesOn = sameClock && passed < BREAK_SECONDS;
        return { state: goesOn ? state : leftAs(state, at, now()), phones, goesOn };
      } catch (error) {
        lost(`What was on last cannot be read (${(error as Error).message}). It begins with nothing on.`);
        return undefined;
      }
    },
    keep(kept) {
      waiting = kept;
      soon(SOON_MS);
    },
    close(kept) {
      closed = true;
      clearTimeout(timer);
      try {
        writeWhole(file, text(kept));
      } catch (error) {
        failed(error);
      }
    },
  };
}
