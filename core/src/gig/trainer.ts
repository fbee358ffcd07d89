// The times that fit somebody's own foot, out of what their switch did while they tried it.

import { clamp } from '../units';
import { USUAL_TIMES, type Times } from './control';

/** A change of the contact, in seconds. */
export type Edge = { readonly down: boolean; readonly at: number };

/** Changes closer than this are bouncing, never two steps of a foot. */
const LONGEST_BOUNCE = 0.04;
/** Two presses further apart than this were not meant as one double press. */
const LONGEST_DOUBLE = 0.9;
/** Pressed longer than this was meant as a hold. */
const LONGEST_PRESS = 0.9;
const FEWEST = 3;

export type Measured = {
  /** Seconds from one press to the next of each double press. */
  readonly doubles: readonly number[];
  /** Seconds each short press was held. */
  readonly lengths: readonly number[];
  /** Seconds between changes that were bouncing. */
  readonly bounces: readonly number[];
};

/** What a foot did, taken apart. @param edges rising in time. */
export function measured(edges: readonly Edge[]): Measured {
  const bounces: number[] = [];
  const clean: Edge[] = [];
  for (const edge of edges) {
    const last = clean.at(-1);
    if (last && edge.at - last.at < LONGEST_BOUNCE) bounces.push(edge.at - last.at);
    // A contact that bounced ends as it is when it is quiet again.
    if (last && edge.at - last.at < LONGEST_BOUNCE && clean.length > 1 && edge.down === clean.at(-2)!.down) clean.pop();
    else if (!last || last.down !== edge.down) clean.push(edge);
  }
  const downs = clean.filter(({ down }) => down);
  const gaps = downs.slice(1).map(({ at }, i) => at - downs[i]!.at);
  const lengths = clean.flatMap((edge, i) => (edge.down && clean[i + 1] ? [clean[i + 1]!.at - edge.at] : []));
  return {
    doubles: shortOnes(gaps).filter((gap) => gap <= LONGEST_DOUBLE),
    lengths: lengths.filter((length) => length <= LONGEST_PRESS),
    bounces,
  };
}

/** From one gap to the next longer one by this much: below it lie double presses, above it the rests between them. */
const CLEARLY_LONGER = 1.6;

/** The gaps within double presses: those below the widest step from one length to the next. None where all are alike. */
function shortOnes(gaps: readonly number[]): readonly number[] {
  const sorted = [...gaps].sort((a, b) => a - b);
  let [at, widest] = [0, CLEARLY_LONGER];
  for (let i = 1; i < sorted.length; i++) {
    const step = sorted[i]! / sorted[i - 1]!;
    if (step >= widest && sorted[i - 1]! <= LONGEST_DOUBLE) [at, widest] = [i, step];
  }
  return sorted.slice(0, at);
}

/** Times that fit what was measured; what there are fewer than three examples of stays usual. In steps of 10 ms. */
export function suggestedTimes({ doubles, lengths, bounces }: Measured): Times {
  const most = (all: readonly number[]) => Math.max(...all);
  const round = (value: number) => Math.round(value * 100) / 100;
  return {
    double: doubles.length < FEWEST ? USUAL_TIMES.double : round(clamp(most(doubles) * 1.25, 0.15, 1)),
    hold: lengths.length < FEWEST ? USUAL_TIMES.hold : round(clamp(most(lengths) * 1.6, 0.4, 1.5)),
    bounce: bounces.length === 0 ? USUAL_TIMES.bounce : clamp(round(most(bounces) * 1.5), 0.02, 0.06),
  };
}
