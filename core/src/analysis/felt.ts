// Which of several tempi is the one that people count: the likeliest path of beats, and the likeliest of half, a third and
// twice its tempo, are held against each other by what the network says on and between their beats, and by how strokes of
// drums lie on them. How much each of that counts was learned: `training/felt.mts`; docs/music.md tells on what and how well.

import { DRUMS, type StrokeTimes } from '../music';
import { findBeats, likelihood, pathWithScore, type Path, type PathLimits } from './beats';
import weights from './felt-weights.json';
import { ACTIVATION_RATE, type Activations } from './network';
import { quantile } from './tempo';

export const COUNTS = ['found', 'half', 'third', 'twice'] as const;
/** How beats are counted: as the network says by itself, or half, a third or twice as fast. */
export type Count = (typeof COUNTS)[number];

/** A way to count: its beats, and what speaks for it, as numbers by `TELLS`. */
export type Counted = { readonly count: Count; readonly path: Path; readonly tells: readonly number[] };

/** From these tempi on other counts are looked for: between them people seldom count otherwise. */
const HALF_FROM = 126;
const THIRD_FROM = 150;
const TWICE_TO = 86;
/** By how much other paths must be slower or faster at the least. */
const LIMITS: Readonly<Record<Count, (bpm: number) => PathLimits>> = {
  found: () => ({}),
  half: (bpm) => ({ most: bpm * 0.72 }),
  third: (bpm) => ({ most: bpm * 0.42 }),
  twice: (bpm) => ({ least: bpm * 1.4 }),
};
const TIMES: Readonly<Record<Count, number>> = { found: 1, half: 1 / 2, third: 1 / 3, twice: 2 };
const FEWEST_BEATS = 8;
/** A tempo in the middle of what people count, in beats a minute. */
const MIDDLE_BPM = 110;
/** Less than this, as log odds, is as good as none. */
const SILENT_ODDS = -9;
/** A stroke this near lies on a beat, in seconds; fewer strokes than so many tell nothing. */
const ON_BEAT = 0.06;
const FEWEST_STROKES = 8;

const OF_BEATS = [
  'is half',
  'is a third',
  'is twice',
  'score',
  'tempo',
  'tempo squared',
  'strong and weak in turn',
  'on beats',
  'midway',
  'at thirds',
  'beats in a bar',
  'beats in a bar squared',
  'sure beats',
  'likely first beats',
] as const;
const OF_DRUMS = [
  'a beat',
  'a beat squared',
  'on beats',
  'on every other beat',
  'on one of four beats',
  'beats struck',
];
/** What the numbers of a count are. */
export const TELLS: readonly string[] = [
  ...OF_BEATS,
  ...DRUMS.flatMap((drum) => OF_DRUMS.map((tell) => `${drum}: ${tell}`)),
];

/** So near to what somebody says it is, a tempo is that: whole numbers are written to files. */
const AS_SAID = 0.04;

/**
 * The beats as they are felt.
 * @param strokes of drums, as far as they are known. @param said beats a minute that somebody has counted, as in a file's
 * tags: where one of the counts comes to that, it is the one.
 */
export function findFeltBeats(
  odds: Activations,
  strokes: StrokeTimes,
  said?: number,
): { readonly count: Count; readonly path: Path } {
  const told = said === undefined ? undefined : countSaid(odds, said);
  if (told) return told;
  const worth = ({ tells }: Counted) => tells.reduce((sum, value, i) => sum + value * weights[i]!, 0);
  return countsOf(odds, strokes).reduce((best, one) => (worth(one) > worth(best) ? one : best));
}

function countSaid({ beat }: Activations, said: number): { readonly count: Count; readonly path: Path } | undefined {
  const isSaid = (path: Path) => path.beats.length >= FEWEST_BEATS && Math.abs(tempoOf(path) / said - 1) < AS_SAID;
  const found = pathWithScore(beat, {}).path;
  for (const count of COUNTS) {
    // Others are looked for where they may come to it: each search takes its time.
    if (count !== 'found' && Math.abs((tempoOf(found) * TIMES[count]) / said - 1) >= 2 * AS_SAID) continue;
    const path = count === 'found' ? found : pathWithScore(beat, LIMITS[count](tempoOf(found))).path;
    if (isSaid(path)) return { count, path };
  }
  return undefined;
}

/** The beats of a count that is known. */
export function beatsCounted(odds: Activations, count: Count): Path {
  const found = findBeats(odds.beat);
  return count === 'found' ? found : findBeats(odds.beat, LIMITS[count](tempoOf(found)));
}

/** The likeliest path, and other counts of it where people may count otherwise. */
export function countsOf(odds: Activations, strokes: StrokeTimes): readonly Counted[] {
  const found = pathWithScore(odds.beat, {});
  const bpm = tempoOf(found.path);
  const others = COUNTS.filter(
    (count) =>
      (count === 'half' && bpm >= HALF_FROM) ||
      (count === 'third' && bpm >= THIRD_FROM) ||
      (count === 'twice' && bpm <= TWICE_TO),
  );
  if (found.path.beats.length < FEWEST_BEATS || others.length === 0)
    return [{ count: 'found', path: found.path, tells: [] }];
  return (['found', ...others] as const).flatMap((count): Counted[] => {
    const { path, score } = count === 'found' ? found : pathWithScore(odds.beat, LIMITS[count](bpm));
    if (path.beats.length < FEWEST_BEATS) return [];
    const tells = [
      ...beatTells(count, path, score / found.score, odds),
      ...DRUMS.flatMap((drum) => drumTells(path.beats, strokes[drum])),
    ];
    return [{ count, path, tells }];
  });
}

/** By `OF_BEATS`. @param share of the score of the path as it was found. */
function beatTells(count: Count, path: Path, share: number, { beat, downbeat }: Activations): readonly number[] {
  const { beats } = path;
  const tempo = Math.log2(tempoOf(path) / MIDDLE_BPM);
  const on = beats.map((at) => oddsNear(beat, at));
  const between = (part: number) =>
    mean(beats.slice(1).map((at, i) => oddsNear(beat, beats[i]! + (at - beats[i]!) * part)));
  const first = beats.map((at) => likelihood(oddsNear(downbeat, at)));
  const sure = on.reduce((sum, odds) => sum + likelihood(odds), 0);
  const firsts = first.reduce((sum, one) => sum + one, 0);
  const inBar = Math.log2(Math.max(1, Math.min(16, sure / Math.max(1e-3, firsts))));
  return [
    Number(count === 'half'),
    Number(count === 'third'),
    Number(count === 'twice'),
    Math.log(Math.max(0.05, share)),
    tempo,
    tempo ** 2,
    alternation(on),
    mean(on),
    between(1 / 2),
    (between(1 / 3) + between(2 / 3)) / 2,
    inBar,
    inBar ** 2,
    sure / beats.length,
    first.filter((one) => one > 0.3).length / beats.length,
  ];
}

/** By `OF_DRUMS`; nothing where a drum is hardly struck. */
function drumTells(beats: readonly number[], strokes: Float64Array): readonly number[] {
  const half = (beats.at(-1)! - beats[0]!) / (beats.length - 1) / 2;
  const within = strokes.filter((at) => at >= beats[0]! - half && at <= beats.at(-1)! + half);
  if (within.length < FEWEST_STROKES) return OF_DRUMS.map(() => 0);
  const struck = beats.map(() => 0);
  let on = 0;
  let k = 0;
  for (const at of within) {
    while (k + 1 < beats.length && Math.abs(beats[k + 1]! - at) <= Math.abs(beats[k]! - at)) k++;
    if (Math.abs(beats[k]! - at) >= ON_BEAT) continue;
    on++;
    struck[k] = 1;
  }
  const every = (step: number, first: number) => mean(struck.filter((_, i) => i % step === first));
  const fours = [0, 1, 2, 3].map((first) => every(4, first));
  const often = Math.log2(0.05 + within.length / beats.length);
  return [
    often,
    often ** 2,
    on / within.length,
    Math.abs(every(2, 0) - every(2, 1)),
    Math.max(...fours) - Math.min(...fours),
    mean(struck),
  ];
}

const mean = (values: readonly number[]): number =>
  values.reduce((sum, one) => sum + one, 0) / Math.max(1, values.length);

/** The most that is said near a moment in seconds. */
function oddsNear(odds: Float32Array, at: number): number {
  const middle = Math.round(at * ACTIVATION_RATE);
  let most = SILENT_ODDS;
  for (let i = middle - 1; i <= middle + 1; i++) most = Math.max(most, odds[i] ?? SILENT_ODDS);
  return most;
}

/**
 * How much every other beat stands out from the two beside it, in log odds, as far as it does so all along: a song that is
 * counted twice too fast has true beats and beats between them in turn.
 */
function alternation(heard: readonly number[]): number {
  const ups = heard.slice(1, -1).map((here, i) => (i % 2 ? 1 : -1) * (here - (heard[i]! + heard[i + 2]!) / 2));
  if (ups.length === 0) return 0;
  const usual = mean(ups);
  const agree = ups.filter((up) => up * usual > 0).length / ups.length;
  return Math.abs(usual) * Math.max(0, 2 * agree - 1);
}

/** Beats a minute by the median gap. */
function tempoOf({ beats }: Path): number {
  const gaps = beats.slice(1).map((beat, i) => beat - beats[i]!);
  return 60 / (quantile(gaps, 0.5) || 0.5);
}
