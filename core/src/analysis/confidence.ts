// How sure found beats are, beat by beat: a calibrated share of beats as clear as these that are right.

import { beatEvidence } from './beats';
import { STEP_RATE } from './paths';
import type { Grid, Heard } from './grid';

/** Clearness is the mean likelihood of the beats within so many to either side. */
const REACH = 8;
/** Logistic curve from clearness to the share of right beats; docs/music.md tells how it was fitted. */
const CALIBRATION = { offset: -0.67, slope: 4.03 } as const;
/** Below this, a passage is worth a look. */
const DOUBTFUL = 0.7;

/** Bars that may be wrong, 0 from the first downbeat; the last one is included. */
export type Passage = { readonly first: number; readonly last: number; readonly confidence: number };

/** Mean likelihood, as the network sees it, of the beats around each beat, 0…1. */
function clearnessOf({ odds }: Heard, beats: readonly number[]): readonly number[] {
  const evidence = beatEvidence(odds.beat);
  const likely = beats.map((beat) => {
    const step = Math.round(beat * STEP_RATE);
    return Math.max(...[-1, 0, 1].map((k) => evidence[step + k] ?? 0));
  });
  return likely.map((_, i) => mean(likely.slice(Math.max(0, i - REACH), i + REACH + 1)));
}

/** How sure each beat of a grid is, 0…1. */
export const confidencesOf = (heard: Heard, { beats }: Pick<Grid, 'beats'>): readonly number[] =>
  clearnessOf(heard, beats).map((clear) => 1 / (1 + Math.exp(-(CALIBRATION.offset + CALIBRATION.slope * clear))));

/** How sure a grid is as a whole, 0…1; 0 where nothing was found. */
export const confidenceOf = (heard: Heard, grid: Pick<Grid, 'beats'>): number => mean(confidencesOf(heard, grid));

/** Passages that may be wrong. */
export function doubtfulPassages(heard: Heard, grid: Pick<Grid, 'beats' | 'downbeats'>): readonly Passage[] {
  const confidences = confidencesOf(heard, grid);
  const passages: Passage[] = [];
  grid.downbeats.slice(0, -1).forEach((from, bar) => {
    const inside = confidences.filter((_, i) => grid.beats[i]! >= from && grid.beats[i]! < grid.downbeats[bar + 1]!);
    const confidence = mean(inside);
    if (confidence >= DOUBTFUL) return;
    const before = passages.at(-1);
    if (before?.last === bar - 1)
      passages[passages.length - 1] = {
        first: before.first,
        last: bar,
        confidence: Math.min(before.confidence, confidence),
      };
    else passages.push({ first: bar, last: bar, confidence });
  });
  return passages;
}

const mean = (values: readonly number[]): number =>
  values.length === 0 ? 0 : values.reduce((sum, value) => sum + value, 0) / values.length;
