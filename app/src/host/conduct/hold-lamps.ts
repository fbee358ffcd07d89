// Lamps taken by hand from the rig: lit, dimmed or steered over everything else, and given back.

import { heldFor, spanOf, type ByHand, type Patched } from '@hovlix/core/rig';
import type { Conducting } from './conduct';

/** Not more often than this: what a hand does in between is overtaken by where it is now. */
const EVERY_MS = 40;
const MOST_AT_ONCE = 2000;

export type Hand = {
  /** Sends at most 25 times a second; the last wish always goes out. */
  readonly hold: (wishes: readonly (readonly [Patched, ByHand])[]) => void;
  readonly free: (lamps: readonly Patched[]) => void;
};

/** @param check they are held only as long as this screen is there: for a check, or to find them. */
export function hand({ conducting }: { readonly conducting: Pick<Conducting, 'act'> }, check = false): Hand {
  let waiting: readonly (readonly [Patched, ByHand])[] | undefined;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const send = (wishes: readonly (readonly [Patched, ByHand])[]) => {
    const channels = wishes.flatMap(([lamp, wish]) => heldFor(lamp, wish));
    for (let at = 0; at < channels.length; at += MOST_AT_ONCE)
      conducting.act({
        type: 'hold-channels',
        channels: channels.slice(at, at + MOST_AT_ONCE),
        ...(check ? { check } : {}),
      });
  };
  const tick = () => {
    timer = undefined;
    if (!waiting) return;
    send(waiting);
    waiting = undefined;
    timer = setTimeout(tick, EVERY_MS);
  };
  return {
    hold(wishes) {
      waiting = wishes;
      if (timer === undefined) tick();
    },
    free(lamps) {
      waiting = undefined;
      for (const lamp of lamps) {
        const { from, count } = spanOf(lamp);
        const fits = Math.min(count, 513 - from);
        conducting.act({ type: 'free-channels', universe: lamp.fixture.universe, from, count: fits });
      }
    },
  };
}
