// Where the beats are. A dynamic programme over (moment, interval): each beat earns its likelihood there, and the interval
// may change, at a price. This is the bar-pointer idea of Whiteley, Cemgil and Godsill (2006) with the tempo changing only
// at beats (Krebs, Böck and Widmer 2015), solved as a semi-Markov chain.

import { ACTIVATION_RATE } from './network';
import { LONGEST, pathFinder, STEP_RATE } from './paths';
import { evidenceNear, filledAlong, slips, steadyLine } from './steady';

/** Activations within so many of a step tell of it, the nearer the more, and what they sum up to where a beat is certain. */
const REACH = 2.5;
const CERTAIN = 1.4;
/** What the activations of one certain beat sum up to. */
const OF_ONE_BEAT = 1.5;
/** A path is looked for at most so often, each time with a better guess of how well it will do. */
const ROUNDS = 5;
const FIRST_GUESS = 0.8;
/** A guess that near to what came out is good enough. */
const ENOUGH = 0.004;
/** From here to there a beat is found at all, as log odds. */
const HEARD_ODDS = -1.5;
/** A beat that lies so near to the start of a recording, in seconds, is its first, where it is so likely, as log odds. */
const AT_START = 0.03;
const FIRST_ODDS = -3;
/** A path of one tempo need only earn so much of what the best earns: records without one earn far less on a line. */
const NEARLY_AS_GOOD = 0.85;

/** Beats of the best path. */
export type Path = {
  /** Moments in seconds, rising. */
  readonly beats: readonly number[];
  /** How well it can be expected to match the beats that are there (F-measure), 0…1. */
  readonly score: number;
};

/** Limits of a path, to ask for another than the likeliest. */
export type PathLimits = {
  /** Beats a minute. */
  readonly least?: number;
  readonly most?: number;
  /** Moments in seconds, rising, at which there shall be no beat. */
  readonly avoid?: readonly number[];
  /** From when to when the music goes, in seconds, where that is known: without, from the first beat heard to the last. */
  readonly within?: { readonly from: number; readonly to: number };
};

/**
 * The beats that can be expected to match those that are there best, by the F-measure: twice the likelihood of all beats
 * of the path over its beats and the expected number of true ones. A path is best where its beats together are the most
 * above half that measure (Dinkelbach 1967), so it is looked for with a guess of it, and again with what came out: where
 * the network is sure, only likely beats count; where it is not, half-likely ones do.
 * @param odds log odds of a beat, `ACTIVATION_RATE` a second. Empty where none is likely.
 */
export function findBeats(odds: Float32Array, limits: PathLimits = {}): Path {
  return search(odds, limits).path();
}

type Steps = { readonly steps: readonly number[]; readonly score: number };

/** A path, and what it earns on one line of tempo: paths of different tempi are held against each other by that. */
export function pathWithScore(odds: Float32Array, limits: PathLimits): { readonly path: Path; readonly score: number } {
  const found = search(odds, limits);
  return { path: found.path(), score: found.score() };
}

/** A search: its path, and what it earns on one line of tempo, each worked out when it is asked for. */
function search(odds: Float32Array, limits: PathLimits) {
  const strength = beatEvidence(odds);
  if (limits.avoid) closeOff(strength, limits.avoid);
  const expected = odds.reduce((sum, value) => sum + likelihood(value), 0) / OF_ONE_BEAT;
  const free: Steps =
    strength.length < LONGEST ? { steps: [], score: 0 } : bestSteps(strength, expected, limits, FIRST_GUESS);
  let known: Steps | null | undefined;
  const steady = () => (known ??= steadySteps(free, strength, expected, limits) ?? null);
  const path = (): Path => {
    const { steps, score } = (slips(free.steps) && steady()) || free;
    const { within } = limits;
    const inside = within
      ? steps.filter((step) => step >= within.from * STEP_RATE && step <= within.to * STEP_RATE)
      : trimmed(steps, odds);
    const beats = inside.map((step) => refined(step, strength) / STEP_RATE);
    return { beats: within ? beats : withFirst(beats, odds), score };
  };
  // A path that is free to wander always earns more: two are held against each other by what they earn on their lines.
  return { path, score: () => (steady() ?? free).score };
}

/**
 * A recording that was cut on its first beat: that one may come to lie a little before the recording, where the search has
 * no room for it.
 */
function withFirst(beats: number[], odds: Float32Array): number[] {
  const [first, second] = beats;
  if (first === undefined || second === undefined) return beats;
  const before = first - (second - first);
  const heard = Math.max(...odds.subarray(0, 3));
  return Math.abs(before) < AT_START && heard > FIRST_ODDS ? [Math.max(0, before), ...beats] : beats;
}

/** The path of one tempo, where it is nearly as good as the one that is free. */
function steadySteps(free: Steps, strength: Float32Array, expected: number, limits: PathLimits): Steps | undefined {
  const line = steadyLine(strength, free.steps);
  if (!line) return undefined;
  const near = bestSteps(evidenceNear(strength, line), expected, limits, free.score);
  const steps = filledAlong(line, near.steps);
  const score = scoreOf(steps, strength, expected);
  return score >= NEARLY_AS_GOOD * free.score ? { steps, score } : undefined;
}

/** Twice the likelihood of all beats over their number and the expected one. */
const scoreOf = (steps: readonly number[], strength: Float32Array, expected: number): number =>
  (2 * steps.reduce((sum, step) => sum + strength[step]!, 0)) / (steps.length + expected);

/** The path with the best score. @param first a guess of it. */
function bestSteps(
  strength: Float32Array,
  expected: number,
  { least = 0, most = Infinity }: PathLimits,
  first: number,
): Steps {
  const allowed = (interval: number) => {
    const bpm = (60 * STEP_RATE) / interval;
    return bpm >= least && bpm <= most;
  };
  const bestPath = pathFinder(strength);
  let best: Steps = { steps: [], score: 0 };
  let guess = first;
  for (let round = 0; round < ROUNDS; round++) {
    const steps = bestPath(guess / 2, allowed);
    const score = scoreOf(steps, strength, expected);
    if (score <= best.score) break;
    best = { steps, score };
    if (Math.abs(score - guess) < ENOUGH) break;
    guess = score;
  }
  return best;
}

/**
 * Likelihood of a beat at each step, 0…1. The network was trained to draw a triangle 30 ms to either side of a beat; what
 * it draws near a step is measured against what it draws for a beat it is certain of.
 */
export function beatEvidence(odds: Float32Array): Float32Array {
  const steps = odds.length * (STEP_RATE / ACTIVATION_RATE);
  const likely = odds.map(likelihood);
  return Float32Array.from({ length: steps }, (_, step) => {
    // An activation covers two steps; its middle lies between them.
    const at = (step - 0.5) / 2;
    const low = Math.floor(at);
    let sum = 0;
    for (let i = low - 2; i <= low + 3; i++) sum += Math.max(0, 1 - Math.abs(i - at) / REACH) * (likely[i] ?? 0);
    return Math.min(1, sum / CERTAIN);
  });
}

export const likelihood = (odds: number): number => 1 / (1 + Math.exp(-odds));

/** No beat within a fifth of a beat of some moments. */
function closeOff(strength: Float32Array, moments: readonly number[]): void {
  moments.forEach((moment, i) => {
    const gap = (moments[i + 1] ?? moment) - moment || moment - (moments[i - 1] ?? moment);
    const reach = Math.round(0.2 * gap * STEP_RATE);
    const middle = Math.round(moment * STEP_RATE);
    strength.fill(0, Math.max(0, middle - reach), middle + reach + 1);
  });
}

/** Leaves out beats counted in the silence before and after the music. */
function trimmed(path: readonly number[], odds: Float32Array): readonly number[] {
  const heard = (step: number) => {
    const at = Math.round(step / 2);
    return Math.max(odds[at - 1] ?? -9, odds[at] ?? -9, odds[at + 1] ?? -9) > HEARD_ODDS;
  };
  const first = path.findIndex(heard);
  const last = path.findLastIndex(heard);
  return first < 0 ? [] : path.slice(first, last + 1);
}

/** The step with its fraction, at the top of the evidence near it. */
function refined(step: number, strength: Float32Array): number {
  let top = step;
  for (let f = Math.max(1, step - 2); f <= Math.min(strength.length - 2, step + 2); f++)
    if (strength[f]! > strength[top]!) top = f;
  const [before, here, after] = [strength[top - 1] ?? 0, strength[top]!, strength[top + 1] ?? 0];
  const bend = before - 2 * here + after;
  // Where the evidence still rises at the edge of what is looked at, the top of the parabola lies far away.
  return bend > -1e-9 ? top : top + Math.max(-0.5, Math.min(0.5, (0.5 * (before - after)) / bend));
}
