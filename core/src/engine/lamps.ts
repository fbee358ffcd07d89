// The way back: what the bytes that go out make the lamps do. Pictures are drawn from this, so they cannot flatter.

import { amountAtPlace } from '../rig';
import { LAMP_STRIDE } from './lamp-numbers';
import { bytesAt, HZ, lamp, nearestSlot, readLight } from './light-meter';
import type { Program } from './program';

/** An array for `readLamps`. */
export function lampsFor(program: Program): Float32Array<ArrayBuffer> {
  return new Float32Array(program.heads.length * LAMP_STRIDE);
}

/** Fills `out` (`LAMP_STRIDE` numbers per head) with what a frame's bytes mean. Allocates nothing. */
export function readLamps(program: Program, frame: Uint8Array, out: Float32Array): void {
  const { plans, heads, meter, scratch } = program;
  for (let head = 0; head < plans.length; head++) {
    const { writers } = plans[head]!;
    const at = head * LAMP_STRIDE;
    out.fill(0, at, at + LAMP_STRIDE);
    out[at + 5] = 0.5;
    for (let i = 0; i < writers.length; i++) {
      const { kind, coarse, fine, ultra, param, slots, amounts } = writers[i]!;
      if (kind !== 'pan' && kind !== 'tilt' && kind !== 'zoom' && kind !== 'gobo' && kind !== 'haze') continue;
      scratch.place[0] = coarse;
      scratch.place[1] = fine;
      scratch.place[2] = ultra;
      const place = bytesAt(scratch.place, frame, 0);
      const value = amounts === null ? place : amountAtPlace(amounts, place);
      if (kind === 'pan') out[at + 3] = (value - 0.5) * param;
      else if (kind === 'tilt') out[at + 4] = (value - 0.5) * param;
      else if (kind === 'zoom') out[at + 5] = value;
      else if (kind === 'gobo') out[at + 7] = nearestSlot(slots, value * 255);
      else out[at + 8] = value;
    }
    if (heads[head]!.profile.kind === 'hazer') continue;
    readLight(meter, frame, head);
    for (let k = 0; k < 3; k++) out[at + k] = lamp[k]!;
    out[at + 6] = lamp[HZ]!;
  }
}
