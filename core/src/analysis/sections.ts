// Where sections begin, which of them are alike, and a guess of what each is. How likely one begins at each bar line is
// learned (`lines.ts`); a dynamic programme then chooses the lines, lengths of four and eight bars being the common ones.

import { barsOf, beginnings, isPlain, LOW_BANDS, meanLevel } from './lines';
import { NETWORK_BANDS, type Activations } from './network';
import { quantile } from './tempo';

export type Role = 'Intro' | 'Verse' | 'Chorus' | 'Bridge' | 'Break' | 'Build-up' | 'Drop' | 'Outro';

export type FoundSection = {
  /** Bar in which it begins, 0 from the first downbeat. */
  readonly bar: number;
  /** Seconds. */
  readonly start: number;
  /** Sections with one letter are alike. */
  readonly letter: string;
  readonly role: Role;
  /** How sure its beginning is, 0…1. */
  readonly confidence: number;
};

/** Fewer bars than this have no form. */
const FEWEST_BARS = 8;
const LONGEST_SECTION = 128;
/** A section has lost its bass where it has less than this share of what follows. */
const BASSLESS = 0.65;
/** A build-up's last quarter is louder than its first by this share. */
const RISE = 1.06;

/** @param downbeats moments in seconds, rising. @param bands as the network hears them. */
export function findSections(odds: Activations, bands: Uint8Array, downbeats: readonly number[]): FoundSection[] {
  const bars = downbeats.length - 1;
  if (bars < FEWEST_BARS) return [];
  const heard = barsOf(odds, bands, downbeats);
  if (isPlain(heard)) return [];
  const { colours, apart, tells } = heard;
  const merits = beginnings(tells);
  const starts = chosenLines(merits, bars);
  // One section is no form.
  if (starts.length < 2) return [];
  const letters = lettersOf(starts, bars, apart);
  const shapes = starts.map((start, i) => shapeOf(colours, start, starts[i + 1] ?? bars));
  const roles = withDrops(
    rolesOf(
      letters,
      shapes.map(({ loud }) => loud),
    ),
    shapes,
  );
  return starts.map((bar, i) => ({
    bar,
    start: downbeats[bar]!,
    letter: letters[i]!,
    role: roles[i]!,
    confidence: i === 0 ? 1 : 1 / (1 + Math.exp(-merits[bar]!)),
  }));
}

/** How much lengths count beside what is heard, and what a line must earn beside its log odds. */
export type Choice = { readonly lengths: number; readonly price: number };
const CHOICE: Choice = { lengths: 2, price: -1 };

/** The lines that together earn the most; lengths in fours and eights earn more than odd ones. */
export function chosenLines(merits: Float64Array, bars: number, { lengths, price } = CHOICE): number[] {
  const best = new Float64Array(bars + 1).fill(-Infinity);
  const came = new Int32Array(bars + 1);
  best[0] = 0;
  for (let end = 1; end <= bars; end++)
    for (let start = Math.max(0, end - LONGEST_SECTION); start < end; start++) {
      const merit = start === 0 ? 0 : merits[start]! - price;
      const value = best[start]! + merit + lengths * lengthMerit(end - start, start === 0 || end === bars);
      if (value > best[end]!) [best[end], came[end]] = [value, start];
    }
  const starts: number[] = [];
  for (let end = bars; end > 0; end = came[end]!) starts.unshift(came[end]!);
  return starts;
}

function lengthMerit(length: number, atAnEnd: boolean): number {
  if (length < 2) return -3;
  if (length < 4) return atAnEnd ? -0.2 : -0.6;
  if (length % 8 === 0) return 0.3;
  if (length % 4 === 0) return 0.2;
  return length % 2 === 0 ? 0 : -0.2;
}

/** One letter for sections whose bars, one by one, are as near as bars of one section are. */
function lettersOf(starts: readonly number[], bars: number, apart: Float64Array): string[] {
  const letters: string[] = [];
  let used = 0;
  starts.forEach((start, i) => {
    const length = (starts[i + 1] ?? bars) - start;
    let nearest = { apart: 0.55, letter: '' };
    for (let k = 0; k < i; k++) {
      const other = starts[k]!;
      const shared = Math.min(length, starts[k + 1]! - other);
      if (shared * 2 < length || shared * 2 < starts[k + 1]! - other) continue;
      let sum = 0;
      for (let bar = 0; bar < shared; bar++) sum += apart[(start + bar) * bars + other + bar]!;
      if (sum / shared < nearest.apart) nearest = { apart: sum / shared, letter: letters[k]! };
    }
    letters.push(nearest.letter || String.fromCharCode(65 + Math.min(25, used++)));
  });
  return letters;
}

/** How loud a section is, how loud its bass, and how much louder it ends than it begins. */
type Shape = { readonly loud: number; readonly low: number; readonly rise: number };

function shapeOf(colours: readonly Float64Array[], from: number, to: number): Shape {
  const quarter = Math.max(1, Math.floor((to - from) / 4));
  const level = (first: number, last: number, bands = NETWORK_BANDS) => meanLevel(colours, first, last, bands);
  return {
    loud: level(from, to),
    low: level(from, to, LOW_BANDS),
    rise: level(to - quarter, to) / Math.max(1, level(from, from + quarter)),
  };
}

/** A chorus that mostly comes in after the bass was gone, once at least after what rose to it, is a drop. */
function withDrops(roles: readonly Role[], shapes: readonly Shape[]): Role[] {
  const entries = roles.flatMap((role, i) => (i > 0 && role === 'Chorus' && roles[i - 1] !== 'Chorus' ? [i] : []));
  const drops = entries.filter((i) => shapes[i - 1]!.low < BASSLESS * shapes[i]!.low);
  const rises = (i: number) => drops.includes(i + 1) && shapes[i]!.rise > RISE;
  if (drops.length * 2 < entries.length || !shapes.some((_, i) => rises(i))) return [...roles];
  return roles.map((role, i) => (role === 'Chorus' ? 'Drop' : rises(i) ? 'Build-up' : role));
}

/** A plain guess: the loudest of what comes again is the chorus, quiet ends are intro and outro. */
function rolesOf(letters: readonly string[], loud: readonly number[]): Role[] {
  const count = (letter: string) => letters.filter((other) => other === letter).length;
  const level = (letter: string) => {
    const levels = loud.filter((_, i) => letters[i] === letter);
    return levels.reduce((sum, value) => sum + value, 0) / levels.length;
  };
  const kinds = [...new Set(letters)];
  const repeated = kinds.filter((letter) => count(letter) > 1);
  const chorus = (repeated.length > 0 ? repeated : kinds).reduce((a, b) => (level(b) > level(a) ? b : a));
  const usual = quantile(loud, 0.5);
  const last = letters.length - 1;
  return letters.map((letter, i) => {
    if (i === 0 && letter !== chorus && (loud[i]! < usual || count(letter) === 1)) return 'Intro';
    if (letter === chorus) return 'Chorus';
    if (i === last && count(letter) === 1) return 'Outro';
    if (count(letter) > 1) return 'Verse';
    if (loud[i]! < usual * 0.8) return 'Break';
    return i > last / 2 ? 'Bridge' : 'Verse';
  });
}
