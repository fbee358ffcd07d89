// The last stage of flash safety: whatever came together to make a frame, light does not flash more often than it may.
//
// A flash is a pair of opposing changes of relative luminance of 10 % or more, or of saturated red by more than 20/320
// (WCAG 2.2, success criterion 2.3.1 and "general flash and red flash thresholds"; ITU-R BT.1702-3, annex 1). Light
// that goes out is never held up, so blackout works at once. Getting brighter or redder waits, with the light as it was in
// the frame before, while there have been as many flashes within a second as there may be.
//
// This is the one part of the engine that goes by what has left before: a limit on that cannot be had without. It is a
// function of the frames of the last seconds and their times, and so the same for a log that is rendered anew.

import { LUMINANCE, measure, QUICKEST, REDNESS, slowShutters, STROBING } from './light-meter';
import type { Program } from './program';
import { FLASH_SHARE } from './flash-share';
import { changed, LOW, WAY } from './safety';
import type { LightMeter } from './parts';

export type Limiter = {
  /**
   * Takes a frame before it leaves, and holds its light back where it would flash too often. Allocates nothing while
   * the rig stays as it is.
   * @param at when it leaves, in seconds of any clock that goes forward.
   * @returns whether its light was held.
   */
  readonly hold: (program: Program, frame: Uint8Array, at: number) => boolean;
};

/** So much red more or less is a change of red. */
const RED_SHARE = 20 / 320;
/** Flashes are counted within a second; exactly so many a second may go on for ever. */
const WINDOW = 1 - 1e-4;
/** More than may ever be within a second. */
const KEPT = 32;

/** Changes of one kind of light, as they left. */
type Changes = {
  /** See `changed`. */
  readonly now: Float64Array;
  /** When the last changes up were, a ring: with so many of them within a second there are no more pairs than that. */
  readonly ups: Float64Array;
  readonly next: Int32Array;
  readonly least: number;
};

const changes = (least: number): Changes => ({
  now: new Float64Array(3),
  ups: new Float64Array(KEPT).fill(-Infinity),
  next: new Int32Array(1),
  // What rounding leaves of a change of just so much counts too.
  least: least - 1e-3,
});

const within = (ring: Float64Array, at: number): number => {
  let count = 0;
  for (let i = 0; i < KEPT; i++) if (at - ring[i]! < WINDOW) count++;
  return count;
};

const rises = ({ now, least }: Changes, value: number): boolean => now[WAY]! <= 0 && value - now[LOW]! >= least;

/** The light that leaves is so: a change up is noted. */
function follow({ now, least, ups, next }: Changes, value: number, at: number): void {
  if (changed(now, value, least) <= 0) return;
  ups[next[0]!] = at;
  next[0] = (next[0]! + 1) % KEPT;
}

export function limiter(): Limiter {
  const light = changes(FLASH_SHARE);
  const red = changes(RED_SHARE);
  const strobes = new Float64Array(KEPT).fill(-Infinity);
  let strobeHead = 0;
  let before: { meter: LightMeter; bytes: Uint8Array } | undefined;
  const found = new Float64Array(4);
  /** When the last frame was, and how far the strobes of lamps have come since their last flash. */
  const clock = Float64Array.of(-Infinity, 0);

  const begin = () => {
    for (const of of [light, red]) {
      of.now.fill(found[of === light ? LUMINANCE : REDNESS]!, LOW, WAY);
      of.now[WAY] = 0;
      of.ups.fill(-Infinity);
    }
    strobes.fill(-Infinity);
  };
  /** Whether one more flash of this kind may begin. */
  const mayRise = (of: Changes, most: number, at: number): boolean =>
    within(of.ups, at) + (of === light ? within(strobes, at) : 0) < most;
  const countStrobes = (at: number, passed: number): void => {
    if (found[STROBING]! < FLASH_SHARE || found[QUICKEST]! <= 0) {
      clock[1] = 1;
      return;
    }
    clock[1] = clock[1]! + found[QUICKEST]! * passed;
    if (clock[1] < 1) return;
    clock[1] = clock[1]! % 1;
    strobes[strobeHead] = at;
    strobeHead = (strobeHead + 1) % KEPT;
  };
  const keep = (meter: LightMeter, frame: Uint8Array): void => {
    if (before?.bytes.length !== frame.length) before = { meter, bytes: Uint8Array.from(frame) };
    else {
      before.meter = meter;
      before.bytes.set(frame);
    }
  };

  return {
    hold({ safety, meter }, frame, at) {
      const { most } = safety;
      if (most === Infinity) {
        before = undefined;
        return false;
      }
      const same = before?.meter === meter && before.bytes.length === frame.length;
      measure(meter, frame, found);
      if (!before || at < clock[0]!) begin();
      const waits =
        (rises(light, found[LUMINANCE]!) && !mayRise(light, most, at)) ||
        (rises(red, found[REDNESS]!) && !mayRise(red, most, at));
      const held = waits && same;
      if (held) {
        for (let i = 0; i < meter.lit.length; i++) frame[meter.lit[i]!] = before!.bytes[meter.lit[i]!]!;
        measure(meter, frame, found);
      }
      if (found[STROBING]! >= FLASH_SHARE) {
        // What waits gets its turn: the lamps' own strobes leave room for it.
        const room = most - within(light.ups, at) - Number(waits || rises(light, found[LUMINANCE]!));
        slowShutters(meter, frame, Math.max(0, room));
        measure(meter, frame, found);
      }
      follow(light, found[LUMINANCE]!, at);
      follow(red, found[REDNESS]!, at);
      countStrobes(at, Math.min(1, Math.max(0, at - clock[0]!)));
      clock[0] = at;
      keep(meter, frame);
      return held;
    },
  };
}
