// Bars, and the pulse that is felt in them.

import { beats, type Beats } from '../units';

/** From a bar on, so many notes of such a value make a bar. `denominator` is 1, 2, 4, 8 or 16. */
export type MeterChange = { readonly bar: number; readonly numerator: number; readonly denominator: number };

/** Meter changes by rising bar number; the first one also counts for all bars before it. Bar 0 starts at beat 0. */
export type Meter = readonly MeterChange[];

/** A place as musicians say it: `bar` counts from 0, `pulse` from 0 within the bar, `fraction` is how far into the pulse (0…1). */
export type BarPlace = { readonly bar: number; readonly pulse: number; readonly fraction: number };

export const COMMON_TIME: Meter = [{ bar: 0, numerator: 4, denominator: 4 }];

/** Length of a bar in quarter notes: 4 in 4/4, 3 in 6/8. */
export function barLength(change: MeterChange): Beats {
  return beats((change.numerator * 4) / change.denominator);
}

/** Length of the pulse that is felt, in quarter notes: the dotted note in 6/8, 9/8 and 12/8, else the note the meter names. */
export function pulseLength(change: MeterChange): Beats {
  const compound = change.denominator >= 8 && change.numerator % 3 === 0 && change.numerator > 3;
  return beats(((compound ? 3 : 1) * 4) / change.denominator);
}

/** How many pulses are felt in a bar: 4 in 4/4, 2 in 6/8. */
export function pulsesInBar(change: MeterChange): number {
  return Math.round(barLength(change) / pulseLength(change));
}

/** The meter in force in a bar. Bars before the first change take the first one. */
export function meterAtBar(meter: Meter, bar: number): MeterChange {
  let found = meter[0]!;
  for (const change of meter) if (change.bar <= bar) found = change;
  return found;
}

/** The quarter note on which a bar starts. Bars before 0 (a pickup) have negative beats. */
export function beatOfBar(meter: Meter, bar: number): Beats {
  let at = 0;
  let from = 0;
  let current = meter[0]!;
  for (const change of meter) {
    if (change.bar <= from) {
      current = change;
      continue;
    }
    if (change.bar >= bar) break;
    at += (change.bar - from) * barLength(current);
    from = change.bar;
    current = change;
  }
  return beats(at + (bar - from) * barLength(current));
}

/** Which bar and pulse a place in the music lies in. Inverse of `beatOfBar` at bar starts. */
export function barAt(meter: Meter, beat: Beats): BarPlace {
  // A millionth of a beat keeps a bar line that arithmetic put a hair early in its own bar.
  const at = beat + 1e-6;
  let start = 0;
  let bar = 0;
  let current = meter[0]!;
  for (let i = 0; i < meter.length; i++) {
    current = meter[i]!;
    const next = meter[i + 1];
    if (!next) break;
    const end = start + (next.bar - bar) * barLength(current);
    if (at < end) break;
    start = end;
    bar = next.bar;
  }
  const bars = Math.floor((at - start) / barLength(current));
  const inBar = Math.max(0, at - start - bars * barLength(current));
  const pulse = Math.min(Math.floor(inBar / pulseLength(current)), pulsesInBar(current) - 1);
  return { bar: bar + bars, pulse, fraction: inBar / pulseLength(current) - pulse };
}
