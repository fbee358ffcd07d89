// One instant of light, as bytes.

import { rampAt } from '../light/ramp';
import type { LiveState } from '../live/live-state';
import { clamp, type Seconds } from '../units';
import { blackoutAt, evaluate } from './evaluate';
import { layTests } from './held-channels';
import type { Program } from './program';
import { writeHead } from './write';
import type { HeadPlan } from './parts';

/**
 * Fills `out` (512 bytes per universe of the program, see `frameFor`) with the light of one instant.
 * A pure function of its arguments: the same bytes whenever and in whatever order it is called. Allocates nothing.
 * @param at the conductor's clock.
 */
export function render(program: Program, live: LiveState, at: Seconds, out: Uint8Array): void {
  evaluate(program, live, at);
  out.fill(0);
  takeMasters(program, live, at);
  const dark = blackoutAt(live, at);
  for (let head = 0; head < program.plans.length; head++) writeHead(program, head, dark, at, out);
  layTests(program.universes, live, at, out);
}

/** Works out what grand master, role masters and blackout leave of each head's level. */
export function takeMasters(program: Program, live: LiveState, at: Seconds): void {
  const { masters } = program.scratch;
  const grand = clamp(rampAt(live.master, at), 0, 1);
  const dark = blackoutAt(live, at);
  for (let head = 0; head < masters.length; head++) masters[head] = headMaster(program.plans[head]!, grand, dark);
  for (let i = 0; i < live.roleMasters.length; i++) {
    const { role, ramp } = live.roleMasters[i]!;
    const level = clamp(rampAt(ramp, at), 0, 1);
    const cast = level < 1 ? program.casts.get(role) : undefined;
    if (cast) for (let k = 0; k < cast.length; k++) masters[cast[k]!] = masters[cast[k]!]! * level;
  }
}

/** What the grand master and a blackout so dark (0…1) leave of a head's level. */
function headMaster(plan: HeadPlan, grand: number, dark: number): number {
  return (plan.freeOfMaster ? 1 : grand) * (plan.freeOfBlackout ? 1 : 1 - dark);
}
