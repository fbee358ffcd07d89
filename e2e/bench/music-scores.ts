// How well found beats, bars and sections match the truth. Measures after Davies, Degara and Plumbley, “Evaluation
// Methods for Musical Audio Beat Tracking Algorithms” (2009); everything before 5 s is left out.

export type Truth = {
  readonly bpm?: number;
  readonly beats: readonly number[];
  readonly downbeats?: readonly number[];
  readonly sections?: readonly { readonly startSec: number }[];
};
export type Estimate = Required<Truth>;

export const MEASURES = ['F', 'CMLt', 'AMLt', 'octave', 'downbeat', 'S 0.5 s', 'S 3 s', 'error ms'] as const;
/** Every measure is 0…1, but for the median error in milliseconds; undefined where the truth does not say. */
export type Scores = Readonly<Record<(typeof MEASURES)[number], number | undefined>>;

const SKIPPED = 5;
const NEAR = 0.07;
const CONTINUOUS = 0.175;

export function scoresOf(truth: Truth, found: Estimate): Scores {
  const late = (moments: readonly number[]) => moments.filter((moment) => moment >= SKIPPED);
  const [beats, heard] = [late(truth.beats), late(found.beats)];
  const starts = (of: Truth) => of.sections?.slice(1).map(({ startSec }) => startSec) ?? [];
  const bounds = starts(truth);
  const errors = beats.map((beat) => Math.abs((heard[nearest(heard, beat)] ?? Infinity) - beat));
  const bpm = truth.bpm ?? 60 / median(gaps(truth.beats));
  return {
    F: fMeasure(beats, heard, NEAR),
    CMLt: correct(beats, heard),
    AMLt: Math.max(...allowedLevels(beats).map((level) => correct(level, heard))),
    octave: Math.abs(Math.log2(found.bpm / bpm)) < 0.3 ? 1 : 0,
    downbeat: truth.downbeats && fMeasure(late(truth.downbeats), late(found.downbeats), NEAR),
    'S 0.5 s': bounds.length > 0 ? fMeasure(bounds, starts(found), 0.5) : undefined,
    'S 3 s': bounds.length > 0 ? fMeasure(bounds, starts(found), 3) : undefined,
    'error ms': 1000 * median(errors),
  };
}

/** Mean of each measure, over the pieces that have it. */
export function meanOf(all: readonly Scores[]): Scores {
  const mean = (measure: (typeof MEASURES)[number]) => {
    const values = all.flatMap((scores) => scores[measure] ?? []);
    return values.length > 0 ? values.reduce((sum, value) => sum + value, 0) / values.length : undefined;
  };
  return Object.fromEntries(MEASURES.map((measure) => [measure, mean(measure)])) as Scores;
}

/** One to one matches within a window: from the left, each takes the first it can. */
function fMeasure(truth: readonly number[], found: readonly number[], window: number): number {
  if (truth.length + found.length === 0) return 1;
  let matches = 0;
  for (let i = 0, k = 0; i < truth.length && k < found.length;) {
    const apart = found[k]! - truth[i]!;
    if (Math.abs(apart) <= window + 1e-9) {
      matches++;
      i++;
      k++;
    } else if (apart < 0) k++;
    else i++;
  }
  return (2 * matches) / (truth.length + found.length);
}

/** Share of beats that are right in phase and period (CMLt). */
function correct(truth: readonly number[], found: readonly number[]): number {
  if (truth.length < 2 || found.length < 2) return 0;
  const used = new Set<number>();
  let right = 0;
  found.forEach((beat, k) => {
    const i = nearest(truth, beat);
    const first = i === 0 || k === 0;
    const gap = first ? (truth[i + 1] ?? truth[i]! * 2 - truth[i - 1]!) - truth[i]! : truth[i]! - truth[i - 1]!;
    const own = first ? (found[k + 1] ?? beat * 2 - found[k - 1]!) - beat : beat - found[k - 1]!;
    if (used.has(i) || Math.abs(beat - truth[i]!) >= CONTINUOUS * gap || Math.abs(1 - own / gap) >= CONTINUOUS) return;
    used.add(i);
    right++;
  });
  return right / Math.max(truth.length, found.length);
}

/** The truth, its off-beats, twice and half as many (AMLt). */
function allowedLevels(beats: readonly number[]): readonly (readonly number[])[] {
  const twice = beats.flatMap((beat, i) => (i + 1 < beats.length ? [beat, (beat + beats[i + 1]!) / 2] : [beat]));
  const half = (rest: number) => beats.filter((_, i) => i % 2 === rest);
  return [beats, twice.filter((_, i) => i % 2 === 1), twice, half(0), half(1)];
}

const gaps = (moments: readonly number[]) => moments.slice(1).map((moment, i) => moment - moments[i]!);

function nearest(moments: readonly number[], at: number): number {
  let best = 0;
  for (let i = 1; i < moments.length; i++) if (Math.abs(moments[i]! - at) <= Math.abs(moments[best]! - at)) best = i;
  return best;
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[sorted.length >> 1] ?? NaN;
}
