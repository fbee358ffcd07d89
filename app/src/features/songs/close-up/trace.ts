// A curve drawn by hand, or played on a fader, as few points.

import simplify from 'simplify-js';
import type { Point } from '@hovlix/core/song';
import { beats, clamp } from '@hovlix/core/units';
import { freshId } from '../../../host/fresh-id';

/** A place of a trace: a beat and a value, 0…1. */
export type Traced = { readonly at: number; readonly value: number };

/**
 * The points that a trace needs, rising in time; the last one ends the curve. Where a finger went back, what it drew last
 * counts.
 * @param tolerance how far the curve may lie beside the trace, as a share of the full height. @param perBeat how many of
 * those heights a beat is as long as, on the screen.
 */
export function pointsOfTrace(trace: readonly Traced[], tolerance: number, perBeat: number): readonly Point[] {
  const rising = forward(trace);
  const few = simplify(
    rising.map(({ at, value }) => ({ x: at * perBeat, y: value })),
    tolerance,
    true,
  );
  return few.map(({ x, y }, i) => ({
    id: freshId() as Point['id'],
    at: beats(x / perBeat),
    value: clamp(y, 0, 1),
    shape: i === few.length - 1 ? ('off' as const) : ('straight' as const),
  }));
}

function forward(trace: readonly Traced[]): readonly Traced[] {
  const kept: Traced[] = [];
  const backwards = (trace.at(-1)?.at ?? 0) < (trace[0]?.at ?? 0);
  for (const one of backwards ? [...trace].reverse() : trace) {
    while (kept.length > 0 && kept.at(-1)!.at >= one.at) kept.pop();
    kept.push(one);
  }
  return kept;
}
