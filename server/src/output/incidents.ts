// Notices what a stage would: the light stood still, the computer slept, or somebody set the time of day.

import type { Incident } from '@hovlix/core/connect';

const KEPT = 20;
/** Light that stands still for longer than this is worth a word. */
const HELD_UP = 0.25;
/** The two clocks may part by this much in one frame before it means anything. */
const PARTED = 2;

export type IncidentWatch = { readonly frame: () => void; readonly list: () => readonly Incident[] };

/**
 * @param steady seconds of a clock that never jumps and stands still while the computer sleeps.
 * @param wall ms since 1970, as people set it.
 */
export function incidentWatch(steady: () => number, wall: () => number): IncidentWatch {
  const found: Incident[] = [];
  let [lastSteady, lastWall] = [steady(), wall()];
  const add = (code: Incident['code'], length: number) => {
    found.push({ at: wall(), code, seconds: Math.round(Math.abs(length) * 10) / 10 });
    if (found.length > KEPT) found.shift();
  };
  return {
    frame() {
      const [at, time] = [steady(), wall()];
      const passed = at - lastSteady;
      const parted = (time - lastWall) / 1000 - passed;
      [lastSteady, lastWall] = [at, time];
      if (parted > PARTED && passed > 0.05) add('slept', parted + passed);
      else if (Math.abs(parted) > PARTED) add('clock-set', parted);
      else if (passed > HELD_UP) add('held-up', passed);
    },
    list: () => [...found],
  };
}
