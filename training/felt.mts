// Learns which tempo people count: `npx tsx training/felt.mts FOLDER`, where FOLDER holds pieces as `music/dump.py` writes
// them. Prints how well the choice does on pieces of styles it was not fitted to, and writes its weights into core.

import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { countsOf, TELLS } from '../core/src/analysis/felt';
import { activationsOf, drumOdds, strokesOf } from '../core/src/analysis/network';

type Truth = { readonly style: string; readonly beats: readonly number[] };
type Choice = { readonly count: string; readonly score: number; readonly tells: readonly number[] };
type Piece = { readonly name: string; readonly style: string; readonly choices: readonly Choice[] };

/** A beat is found within 70 ms; everything before 5 s is left out. */
const NEAR = 0.07;
const FROM = 5;
/** How strongly weights are held near zero, and how a fit goes. */
const HELD = 0.001;
const STEPS = 1500;
const RATE = 0.02;

const [folder, target = 'core/src/analysis/felt-weights.json'] = process.argv.slice(2);
if (!folder) throw new Error('Which folder?');
const pieces = await readPieces(folder);
const asked = pieces.filter(({ choices }) => choices.length > 1);
console.log(`${pieces.length} pieces; ${asked.length} of them can be counted in more than one way`);
const scale = TELLS.map((_, i) => spreadOf(asked.flatMap(({ choices }) => choices.map(({ tells }) => tells[i]!))));

const parts = 6;
const styles = [...new Set(asked.map(({ style }) => style))].sort();
// Those written by people are of no one style: each is a style of its own.
const partOf = ({ style, name }: Piece) => (style === 'people' ? Number(name) : styles.indexOf(style)) % parts;
const apart = Array.from({ length: parts }, (_, part) => {
  const fitted = fit(asked.filter((piece) => partOf(piece) !== part));
  return asked.filter((piece) => partOf(piece) === part).map((piece) => chosen(piece, fitted));
}).flat();
const alone = pieces.filter(({ choices }) => choices.length === 1).map(({ choices }) => choices[0]!.score);
const told = (what: string, scores: readonly number[]) =>
  console.log(`${what}: beat F ${mean([...scores, ...alone]).toFixed(3)}, of those asked ${mean(scores).toFixed(3)}`);
told(
  'as found',
  asked.map(({ choices }) => choices[0]!.score),
);
told('chosen, in styles left out', apart);
told(
  'the best of them',
  asked.map(({ choices }) => Math.max(...choices.map(({ score }) => score))),
);
const weights = fit(asked);
told(
  'chosen, as written',
  asked.map((piece) => chosen(piece, weights)),
);
TELLS.forEach((tell, i) => console.log(`${weights[i]!.toFixed(3).padStart(8)}  ${tell}`));
writeFileSync(target, `${JSON.stringify(weights.map((one) => Number(one.toFixed(4))))}\n`);

async function readPieces(from: string): Promise<readonly Piece[]> {
  const kept = join(from, 'felt.cache');
  if (existsSync(kept)) return JSON.parse(readFileSync(kept, 'utf8')) as Piece[];
  const all: Piece[] = [];
  for (const file of readdirSync(from).filter((one) => one.endsWith('.bands'))) {
    const name = basename(file, '.bands');
    const truth = JSON.parse(readFileSync(join(from, `${name}.json`), 'utf8')) as Truth;
    const bands = new Uint8Array(readFileSync(join(from, file)));
    const odds = (await activationsOf(bands, async () => 'go-on'))!;
    const strokes = strokesOf((await drumOdds(bands, async () => 'go-on'))!);
    const choices = countsOf(odds, strokes).map(({ count, path, tells }) => ({
      count,
      tells,
      score: fMeasure(truth.beats, path.beats),
    }));
    all.push({ name, style: truth.style, choices });
    if (all.length % 50 === 0) console.log(`${all.length} heard`);
  }
  writeFileSync(kept, JSON.stringify(all));
  return all;
}

/** Weights that make the F-measure to be expected the largest, where counts are drawn by their worth (softmax). */
function fit(train: readonly Piece[]): number[] {
  const scaled = train.map(({ choices }) =>
    choices.map(({ tells, score }) => ({ score, tells: tells.map((one, i) => one / scale[i]!) })),
  );
  const weights = TELLS.map(() => 0);
  const [slow, fast] = [TELLS.map(() => 0), TELLS.map(() => 0)];
  for (let step = 1; step <= STEPS; step++) {
    const slope = weights.map((one) => -2 * HELD * one);
    for (const choices of scaled) {
      const worth = choices.map(({ tells }) => tells.reduce((sum, one, i) => sum + one * weights[i]!, 0));
      const most = Math.max(...worth);
      const likely = worth.map((one) => Math.exp(one - most));
      const all = likely.reduce((sum, one) => sum + one, 0);
      const expected = choices.reduce((sum, { score }, k) => sum + (score * likely[k]!) / all, 0);
      choices.forEach(({ tells, score }, k) => {
        const push = ((likely[k]! / all) * (score - expected)) / train.length;
        tells.forEach((one, i) => (slope[i]! += push * one));
      });
    }
    // Adam (Kingma and Ba 2015).
    slope.forEach((one, i) => {
      slow[i] = 0.9 * slow[i]! + 0.1 * one;
      fast[i] = 0.999 * fast[i]! + 0.001 * one * one;
      weights[i]! += (RATE * (slow[i]! / (1 - 0.9 ** step))) / (Math.sqrt(fast[i]! / (1 - 0.999 ** step)) + 1e-8);
    });
  }
  return weights.map((one, i) => one / scale[i]!);
}

function chosen({ choices }: Piece, weights: readonly number[]): number {
  const worth = choices.map(({ tells }) => tells.reduce((sum, one, i) => sum + one * weights[i]!, 0));
  return choices[worth.indexOf(Math.max(...worth))]!.score;
}

function fMeasure(truth: readonly number[], found: readonly number[]): number {
  const [right, heard] = [truth.filter((at) => at >= FROM), found.filter((at) => at >= FROM)];
  let [hits, k] = [0, 0];
  for (const at of right) {
    while (k < heard.length && heard[k]! < at - NEAR) k++;
    if (k < heard.length && heard[k]! <= at + NEAR) {
      hits++;
      k++;
    }
  }
  return right.length + heard.length === 0 ? 0 : (2 * hits) / (right.length + heard.length);
}

function mean(values: readonly number[]): number {
  return values.reduce((sum, one) => sum + one, 0) / Math.max(1, values.length);
}

function spreadOf(values: readonly number[]): number {
  const middle = mean(values);
  return Math.sqrt(mean(values.map((one) => (one - middle) ** 2))) || 1;
}
