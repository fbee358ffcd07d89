// Learns where sections begin: `npx tsx training/sections.mts FOLDER`, where FOLDER holds pieces as `music/dump.py` writes
// them. Prints how well lines are found in pieces of styles it was not fitted to, and writes its weights into core.

import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { activationsOf } from '../core/src/analysis/network';
import { barsOf, beginnings, beside, LINE_TELLS, REACH, type LineNet } from '../core/src/analysis/lines';
import { chosenLines, type Choice } from '../core/src/analysis/sections';
import { randomFrom } from '../core/src/testing/fuzz';

type Truth = { readonly style: string; readonly downbeats?: readonly number[]; readonly sections?: readonly number[] };
type Line = { readonly tells: readonly number[]; readonly begins: boolean };
type Piece = {
  readonly style: string;
  readonly downbeats: readonly number[];
  readonly sections: readonly number[];
  readonly lines: readonly Line[];
};

/** A line is where a section begins within so many seconds; found ones count within those two. */
const SAME = 0.3;
const WINDOWS = [0.5, 3] as const;
/** Units of the hidden layer, of which some are left out at each step (Srivastava et al. 2014), and how training goes. */
const HIDDEN = 24;
const LEFT_OUT = 0.3;
const EPOCHS = 20;
const BATCH = 256;
const RATE = 3e-3;
/** How strongly weights are held near zero (Loshchilov and Hutter 2019). */
const HELD = 0.03;
const SEED = 3;
const INPUTS = LINE_TELLS.length * (2 * REACH + 1);
const CHOICES: readonly Choice[] = [1, 2, 3].flatMap((lengths) =>
  [-1.5, -1, -0.5, 0].map((price) => ({ lengths, price })),
);

const [folder, target = 'core/src/analysis/section-weights.json'] = process.argv.slice(2);
if (!folder) throw new Error('Which folder?');
const pieces = await readPieces(folder);
console.log(`${pieces.length} pieces, ${pieces.reduce((sum, { lines }) => sum + lines.length, 0)} lines`);
const all = pieces.flatMap(({ lines }) => lines);
const means = LINE_TELLS.map((_, i) => mean(all.map(({ tells }) => tells[i]!)));
const spreads = LINE_TELLS.map((_, i) => Math.sqrt(mean(all.map(({ tells }) => (tells[i]! - means[i]!) ** 2))) || 1);

const parts = 6;
const styles = [...new Set(pieces.map(({ style }) => style))].sort();
const partOf = ({ style }: Piece) => styles.indexOf(style) % parts;
const apart = Array.from({ length: parts }, (_, part) => ({
  pieces: pieces.filter((piece) => partOf(piece) === part),
  net: trained(pieces.filter((piece) => partOf(piece) !== part)),
}));
const heard = apart.flatMap(({ pieces: some, net }) => some.map((piece) => ({ piece, odds: oddsOf(piece, net) })));
for (const choice of CHOICES) {
  const each = heard.map(({ piece, odds }) => scoresOf(piece, odds, choice));
  const [near, far] = WINDOWS.map((_, w) => mean(each.map((one) => one[w]!)).toFixed(3));
  console.log(`in styles left out, ${JSON.stringify(choice)}: F at 0.5 s ${near}, at 3 s ${far}`);
}
const { hidden, weights } = trained(pieces);
const rounded = (values: readonly number[]) => values.map((one) => Number(one.toFixed(4)));
const stored = { hidden, means: rounded(means), spreads: rounded(spreads), weights: halvesIn(weights) };
writeFileSync(target, `${JSON.stringify(stored)}\n`);

async function readPieces(from: string): Promise<readonly Piece[]> {
  const kept = join(from, 'sections.cache');
  if (existsSync(kept)) return JSON.parse(readFileSync(kept, 'utf8')) as Piece[];
  const found: Piece[] = [];
  for (const file of readdirSync(from).filter((one) => one.endsWith('.bands'))) {
    const name = basename(file, '.bands');
    const { style, downbeats, sections } = JSON.parse(readFileSync(join(from, `${name}.json`), 'utf8')) as Truth;
    if (!downbeats || !sections || downbeats.length < 9 || sections.length < 2) continue;
    const bands = new Uint8Array(readFileSync(join(from, file)));
    const odds = (await activationsOf(bands, async () => 'go-on'))!;
    const bars = barsOf(odds, bands, downbeats);
    const near = (at: number) => sections.some((start) => Math.abs(start - at) < SAME);
    const lines = bars.tells.map((tells, bar) => ({ tells, begins: near(downbeats[bar]!) }));
    found.push({ style, downbeats, sections, lines });
    if (found.length % 50 === 0) console.log(`${found.length} heard`);
  }
  writeFileSync(kept, JSON.stringify(found));
  return found;
}

/** Trains the network of lines on all but the first of each piece, which is given, by cross entropy. */
function trained(train: readonly Piece[]): LineNet {
  const random = randomFrom(SEED);
  const rows = train.flatMap(({ lines }) => {
    const seen = lines.map(({ tells }) => tells.map((one, i) => (one - means[i]!) / spreads[i]!));
    return lines
      .map(({ begins }, line) => ({ seen: Float64Array.from(beside(seen, line)), begins: Number(begins) }))
      .slice(1);
  });
  const size = (INPUTS + 2) * HIDDEN + 1;
  const [biases, outs] = [INPUTS * HIDDEN, (INPUTS + 1) * HIDDEN];
  const weights = Float64Array.from({ length: size }, (_, i) =>
    i < biases ? (random() * 2 - 1) / Math.sqrt(INPUTS) : i < outs ? 0 : (random() * 2 - 1) / Math.sqrt(HIDDEN),
  );
  const [slow, fast, slope] = [new Float64Array(size), new Float64Array(size), new Float64Array(size)];
  const units = new Float64Array(HIDDEN);
  let step = 0;
  for (let epoch = 0; epoch < EPOCHS; epoch++) {
    const order = rows.map((row) => ({ row, at: random() })).sort((a, b) => a.at - b.at);
    for (let from = 0; from < order.length; from += BATCH) {
      const batch = order.slice(from, from + BATCH);
      slope.fill(0);
      for (const { row } of batch) {
        let odds = weights[size - 1]!;
        for (let h = 0; h < HIDDEN; h++) {
          let sum = weights[biases + h]!;
          for (let i = 0; i < INPUTS; i++) sum += row.seen[i]! * weights[h * INPUTS + i]!;
          units[h] = sum > 0 && random() >= LEFT_OUT ? sum / (1 - LEFT_OUT) : 0;
          odds += units[h]! * weights[outs + h]!;
        }
        const push = (1 / (1 + Math.exp(-odds)) - row.begins) / batch.length;
        slope[size - 1]! += push;
        for (let h = 0; h < HIDDEN; h++) {
          if (units[h] === 0) continue;
          slope[outs + h]! += push * units[h]!;
          const back = (push * weights[outs + h]!) / (1 - LEFT_OUT);
          slope[biases + h]! += back;
          for (let i = 0; i < INPUTS; i++) slope[h * INPUTS + i]! += back * row.seen[i]!;
        }
      }
      // Adam (Kingma and Ba 2015).
      step++;
      for (let i = 0; i < size; i++) {
        slow[i] = 0.9 * slow[i]! + 0.1 * slope[i]!;
        fast[i] = 0.999 * fast[i]! + 0.001 * slope[i]! ** 2;
        const by = slow[i]! / (1 - 0.9 ** step) / (Math.sqrt(fast[i]! / (1 - 0.999 ** step)) + 1e-8);
        weights[i]! -= RATE * (by + HELD * weights[i]!);
      }
    }
  }
  return { means: Float64Array.from(means), spreads: Float64Array.from(spreads), hidden: HIDDEN, weights };
}

function oddsOf({ lines }: Piece, net: LineNet): Float64Array {
  const tells = lines.map((line) => line.tells);
  return beginnings(tells, net);
}

function scoresOf({ lines, downbeats, sections }: Piece, odds: Float64Array, choice: Choice): readonly number[] {
  const found = chosenLines(odds, lines.length, choice)
    .slice(1)
    .map((bar) => downbeats[bar]!);
  return WINDOWS.map((window) => fMeasure(sections.slice(1), found, window));
}

/** As `halvesOf` of core reads them: IEEE 754 binary16, rounded to the nearest, in base64. Numbers here are small. */
function halvesIn(values: Float64Array): string {
  const bytes = new DataView(new ArrayBuffer(values.length * 2));
  values.forEach((value, i) => {
    const size = Math.abs(value);
    const exponent = size < 2 ** -14 ? -14 : Math.floor(Math.log2(size));
    const part = Math.round(size * 2 ** (10 - exponent));
    // What is below the smallest exponent has none; rounding up to the next power carries over by itself.
    const bits = size < 2 ** -14 ? part : ((exponent + 14) << 10) + part;
    bytes.setUint16(i * 2, bits | (value < 0 ? 0x8000 : 0), true);
  });
  return Buffer.from(bytes.buffer).toString('base64');
}

function fMeasure(truth: readonly number[], found: readonly number[], window: number): number {
  let [hits, k] = [0, 0];
  for (const at of truth) {
    while (k < found.length && found[k]! < at - window) k++;
    if (k < found.length && found[k]! <= at + window) {
      hits++;
      k++;
    }
  }
  return (2 * hits) / Math.max(1, truth.length + found.length);
}

function mean(values: readonly number[]): number {
  return values.reduce((sum, one) => sum + one, 0) / Math.max(1, values.length);
}
