// The free clock, and beats that run faster or slower than the clock's.

import { beats, type Beats, type Seconds } from '../units';

/** So fast against the clock; where the clock reads `from`, this reads `to`. */
export type Run = { readonly rate: number; readonly from: number; readonly to: number };

export const AT_CLOCK: Run = { rate: 1, from: 0, to: 0 };

/** What a run reads where the clock reads `beat`. */
export function runAt(run: Run, beat: number): number {
  return run.to + (beat - run.from) * run.rate;
}

/**
 * A run at another rate. It goes on from where it is, so that a fader does not make the light jump; at halves and
 * doubles it moves by up to half a beat, so that it falls on the beats again.
 */
export function runChanged(run: Run, rate: number, beat: number): Run {
  const here = runAt(run, beat);
  const onBeat = Number.isInteger(Math.log2(rate));
  return { rate, from: beat, to: onBeat ? beat * rate + Math.round(here - beat * rate) : here };
}

/** Where the free clock is at a moment: `bpm` pulses a minute, number `beat` of them at `at`. */
export function freeBeat(
  { tempo }: { readonly tempo: { readonly bpm: number; readonly at: Seconds; readonly beat: Beats } },
  at: Seconds,
): Beats {
  return beats(tempo.beat + ((at - tempo.at) * tempo.bpm) / 60);
}
