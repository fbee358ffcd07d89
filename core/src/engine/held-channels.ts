// Channels held or tested by hand, laid over a rendered frame: what shows that DMX arrives before anything is patched.

import type { ChannelTest, LiveState } from '../live/live-state';
import type { Seconds } from '../units';

/** Full and nothing in turn, twice a second: seen from across a room, and under three flashes a second. */
export const FLASHES_PER_SECOND = 2;

/**
 * Writes what is held and tested into a frame. Blackout goes before: then only acts of lamps are written. Allocates nothing.
 * @param universes universe i fills bytes `[512 i, 512 i + 512)` of `out`.
 */
export function layTests(universes: readonly number[], live: LiveState, at: Seconds, out: Uint8Array): void {
  const dark = live.blackout.on;
  for (let i = 0; i < live.held.length; i++) {
    const { universe, address, value, until } = live.held[i]!;
    // An act of a lamp is no light: it goes out in the dark, and ends by itself.
    if (until === undefined ? dark : at >= until) continue;
    const place = universes.indexOf(universe);
    if (place >= 0) out[place * 512 + address - 1] = value;
  }
  if (dark) return;
  const { test } = live;
  const place = test ? universes.indexOf(test.universe) : -1;
  if (!test || place < 0) return;
  if (test.kind === 'walk') out[place * 512 + walkedChannel(test, at) - 1] = 255;
  else if (at < test.until) {
    const value = ((at - test.at) * FLASHES_PER_SECOND) % 1 < 0.5 ? 255 : 0;
    const { from, count, only } = test;
    if (only) for (let i = 0; i < only.length; i++) out[place * 512 + only[i]! - 1] = value;
    else out.fill(value, place * 512 + from - 1, place * 512 + Math.min(512, from - 1 + count));
  }
}

/** Which channel a walk has come to; past the last it begins again. */
export function walkedChannel(test: Extract<ChannelTest, { kind: 'walk' }>, at: Seconds): number {
  if (test.step <= 0) return test.from;
  const steps = Math.max(0, Math.floor((at - test.at) / test.step));
  return test.from + (steps % (test.to - test.from + 1));
}
