// What a knob, a fader or an expression pedal moves, and when it takes hold of it.

import { clamp } from '../units';
import type { FaderControl } from './control';
import type { Heard } from './heard';

/** How a control was left: what it asked for last, when, in seconds, and whether it has hold of the value. */
export type Grip = {
  readonly asked: number | null;
  readonly caught: boolean;
  readonly at: number;
  /** Of an endless knob: how its steps have turned out to be written. */
  readonly steps?: Steps;
};
/** Steps down are 127, 126 …; or 65, 66 …, of which steps up are 1, 2 …; or 63, 62 …, with 64 for none. */
type Steps = 'complement' | 'sign' | 'offset';
export const NO_GRIP: Grip = { asked: null, caught: false, at: -Infinity };

/** What was asked for comes back over the line: until then the value seems to stand where it was, in seconds. */
const ON_ITS_WAY = 0.5;

/** So near counts as there: about four steps of a 7-bit controller. */
const NEAR = 0.03;

/** What a control at `place`, 0…1 of its way, asks for, 0…1. */
export function askedFor({ low, high, curve }: Pick<FaderControl, 'low' | 'high' | 'curve'>, place: number): number {
  const at = clamp(place, 0, 1);
  const bent = curve === 'even' ? at : curve === 'gentle' ? at * at : Math.sqrt(at);
  return low + (high - low) * bent;
}

/** Where a control stands that asks for this, 0…1 of its way: the other way round. */
export function placeFor({ low, high, curve }: Pick<FaderControl, 'low' | 'high' | 'curve'>, asked: number): number {
  const bent = low === high ? 0 : clamp((asked - low) / (high - low), 0, 1);
  return curve === 'even' ? bent : curve === 'gentle' ? Math.sqrt(bent) : bent * bent;
}

/**
 * A control was moved. With soft takeover it moves nothing until it has come to the value, or past it; and lets go where
 * the value was changed elsewhere meanwhile.
 * @param value where the value is now, 0…1. @param at in seconds. @returns the value it is to be moved to, or null for none.
 */
export function turned(
  grip: Grip,
  control: FaderControl,
  heard: Pick<Heard, 'by'> & { readonly value: number },
  value: number,
  at: number,
): { readonly grip: Grip; readonly to: number | null } {
  if (heard.by === 'control' && control.source?.by === 'control' && control.source.sends === 'relative') {
    const raw = Math.round(heard.value * 127);
    const steps = writtenAs(raw, grip.steps);
    // Turned quickly, it goes on from what it asked for, which may not have come back yet.
    const from = grip.asked !== null && at - grip.at < ON_ITS_WAY ? grip.asked : value;
    const to = clamp(
      from + stepsOf(raw, steps) / 127,
      Math.min(control.low, control.high),
      Math.max(control.low, control.high),
    );
    return { grip: { asked: to, caught: true, at, ...(steps ? { steps } : {}) }, to };
  }
  const asked = askedFor(control, heard.value);
  const held =
    grip.caught && grip.asked !== null && (at - grip.at < ON_ITS_WAY || Math.abs(grip.asked - value) <= NEAR);
  const passed = grip.asked !== null && (grip.asked - value) * (asked - value) <= 0;
  const caught = !control.soft || held || passed || Math.abs(asked - value) <= NEAR;
  return { grip: { asked, caught, at }, to: caught ? asked : null };
}

/** Nobody turns a knob by more steps than this between two messages. */
const QUICKEST = 16;

/** How a knob writes its steps, by one more of them; undefined while nothing tells. */
function writtenAs(raw: number, before: Steps | undefined): Steps | undefined {
  if (raw >= 128 - QUICKEST) return 'complement';
  if (raw >= 64 - QUICKEST && raw < 64) return before === 'complement' ? before : 'offset';
  if (raw > 0 && raw <= QUICKEST) return before === 'complement' ? before : 'sign';
  return before;
}

/** Steps up, or below zero down. 65 and above are a step up until it is known that they are steps down. */
function stepsOf(raw: number, steps: Steps | undefined): number {
  if (raw < 64 && steps !== 'offset') return raw;
  if (steps === 'complement') return raw - 128;
  return steps === 'sign' ? 64 - raw : raw - 64;
}
