// Clicks: a metronome, sticks, a beep. They are no music, and the network, which hears music, counts them as if they were:
// two by two, or their eighths, and bars from another beat. What tells clicks from music is that nothing is between them, and
// that each is the same as the one some clicks before it, to half a decibel; what music repeats differs by more. How
// they come round says which are beats, and another click says where bars begin.

import { FRAME_RATE } from './features';
import { ACTIVATION_RATE, NETWORK_BANDS, type Activations } from './network';
import { quantile } from './tempo';

/** No two clicks lie nearer, in frames. */
const NEAREST = 8;
/** Weaker ones than this share of the strong ones are none, where that makes sense; else the weaker ones are let count. */
const LEAST = [0.25, 0.12];
const FEWEST = 12;
/** Of what is known to be near a click the click is that near, in frames. */
const REACH = 3;
/** Gaps are even where each is a whole number of those around it, so nearly; of all gaps nearly all are, and most are one. */
const AROUND = 4;
const UNEVEN = 0.2;
const NEARLY_ALL = 0.97;
const MOST = 0.9;
/** Away from clicks by so much, in frames, nothing begins that is more than this share of what begins on them. */
const AWAY = 9;
const QUIET = 0.3;
/** What of a click is compared, from and to, in frames from its moment on. */
const FROM = -1;
const TO = 5;
/** So many clicks may come round, so often at the least. */
const ROUNDS = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 12, 14, 15, 16, 18, 20, 21, 24, 28];
const FEWEST_ROUNDS = 3;
/** Clicks of one kind are the same within so much, as the mean difference of their bands in bytes; of two kinds they are further apart. */
const SAME = 2.4;
/** That little, or twice what is the least, is as good as the least. */
const AS_WELL = 1;
const APART = 1.5;
/** Of the largest difference between two kinds that much is none. */
const ALIKE = 0.25;
/** Bars that clicks count; of two clicks in turn either could be the first. */
const SHORTEST_BAR = 3;
const LONGEST_BAR = 7;
/** Between beats there may be so many quieter clicks; from that many clicks a minute on, those are not beats themselves. */
const DIVISIONS = [2, 3, 4];
const DIVIDED_FROM = 70;
/** Quieter by the same in all bands, so nearly, is the same sound; of bands that are heard at all, in bytes below the loudest. */
const SAME_SOUND = 0.35;
const HEARD = 150;
/** Beats a minute that can be counted. */
const SLOWEST = 40;
const FASTEST = 260;

/** Moments in seconds, rising. */
export type Clicks = {
  /** Those that are missing too. */
  readonly beats: readonly number[];
  /** Clicks that divide the beats. */
  readonly between: readonly number[];
  /** Beats on which bars begin; empty where clicks do not tell. */
  readonly firsts: readonly number[];
};

type Click = {
  readonly frame: number;
  /** Counted in clicks, those that are missing too. */
  readonly place: number;
  readonly bands: readonly number[];
};

/** What clicks come round as: the bands of each click of a round. */
type Round = readonly (readonly number[])[];

/**
 * What clicks say.
 * @param bands bytes, `NETWORK_BANDS` for each hundredth of a second. @param onset how strongly something begins, as often.
 * @param near frames near which they are, rising, where that is known: behind noise they may be hard to tell from it.
 * @returns undefined where there is more than clicks, or where they come in a way that nobody counts.
 */
export function clicksIn(bands: Uint8Array, onset: Float32Array, near?: readonly number[]): Clicks | undefined {
  if (near)
    return countedClicks(
      bands,
      onset,
      near.map((frame) => topNear(onset, frame)),
    );
  const tops = topsOf(onset);
  const highest = tops
    .map((at) => onset[at]!)
    .sort((a, b) => b - a)
    .slice(0, Math.ceil(onset.length / FRAME_RATE));
  const strong = quantile(highest, 0.5);
  for (const least of LEAST) {
    const counted = countedClicks(
      bands,
      onset,
      tops.filter((at) => onset[at]! > least * strong),
    );
    if (counted) return counted;
  }
  return undefined;
}

function countedClicks(bands: Uint8Array, onset: Float32Array, frames: readonly number[]): Clicks | undefined {
  const clicks = evenClicks(bands, onset, frames);
  const round = clicks && roundOf(clicks);
  if (!round) return undefined;
  const rate = (60 * FRAME_RATE) / quantile(gapsOf(clicks), 0.5);
  // What still sounds of a click before it makes one seem of another kind: a little, beside what tells kinds apart.
  const furthest = Math.max(...round.flatMap((one) => round.map((other) => distance(one, other))));
  const counted = [APART, ALIKE * furthest]
    .map((apart) => countOf(round, kindsOf(round, Math.max(APART, apart)), rate))
    .find((one) => one);
  if (!counted || rate / counted.every < SLOWEST || rate / counted.every > FASTEST) return undefined;
  const { every, beat, first, length } = counted;
  const isBeat = ({ place }: Click) => place % every === beat;
  return {
    beats: whole(clicks.filter(isBeat), every).map(momentOf),
    between: clicks.filter((click) => !isBeat(click)).map(momentOf),
    firsts: first === undefined ? [] : clicks.filter(({ place }) => place % length === first).map(momentOf),
  };
}

const momentOf = ({ frame }: Pick<Click, 'frame'>): number => frame / FRAME_RATE;

/** Clicks so many places apart, with those that are missing. */
const whole = (clicks: readonly Click[], every: number): readonly Pick<Click, 'frame'>[] =>
  clicks.flatMap((click, i) => {
    const next = clicks[i + 1];
    const steps = next ? (next.place - click.place) / every : 1;
    return Array.from({ length: steps }, (_, k) => ({
      frame: click.frame + (k * ((next ?? click).frame - click.frame)) / steps,
    }));
  });

/** Clicks with nothing between them, as even as their neighbours. */
function evenClicks(bands: Uint8Array, onset: Float32Array, frames: readonly number[]): readonly Click[] | undefined {
  if (frames.length < FEWEST || !isBare(onset, frames)) return undefined;
  const gaps = frames.slice(1).map((frame, i) => frame - frames[i]!);
  const steps = gaps.map((gap, i) => Math.max(1, Math.round(gap / usualAround(gaps, i))));
  const paces = gaps.map((gap, i) => gap / steps[i]!);
  const even = paces.filter(
    (pace, i) => nearly(pace, usualAround(gaps, i)) && (i === 0 || nearly(pace, paces[i - 1]!)),
  );
  if (even.length < NEARLY_ALL * gaps.length || steps.filter((one) => one === 1).length < MOST * gaps.length)
    return undefined;
  let place = 0;
  return frames.map((frame, i) => {
    if (i > 0) place += steps[i - 1]!;
    return { frame, place, bands: clickAt(bands, frame) };
  });
}

const usualAround = (gaps: readonly number[], i: number): number =>
  quantile(gaps.slice(Math.max(0, i - AROUND), i + AROUND + 1), 0.5);

const nearly = (gap: number, other: number): boolean => Math.abs(gap / other - 1) <= UNEVEN;

/** Where something begins more strongly than at any moment near it. */
function topsOf(onset: Float32Array): readonly number[] {
  const tops: number[] = [];
  onset.forEach((height, at) => {
    if (
      height > 0 &&
      at - (tops.at(-1) ?? -NEAREST) >= NEAREST &&
      height >= mostOf(onset, at - NEAREST + 1, at + NEAREST)
    )
      tops.push(at);
  });
  return tops;
}

/** The moment near a frame at which the most begins. */
function topNear(onset: Float32Array, frame: number): number {
  const from = Math.max(0, frame - REACH);
  const height = mostOf(onset, from, frame + REACH + 1);
  return from + Math.max(0, onset.subarray(from, frame + REACH + 1).indexOf(height));
}

const mostOf = (onset: Float32Array, from: number, to: number): number =>
  onset.subarray(Math.max(0, from), Math.max(0, to)).reduce((a, b) => Math.max(a, b), 0);

/** Whether next to nothing begins between the clicks. */
function isBare(onset: Float32Array, frames: readonly number[]): boolean {
  const on = quantile(
    frames.map((at) => onset[at]!),
    0.5,
  );
  const between = frames.slice(1).map((next, i) => mostOf(onset, frames[i]! + AWAY, next - AWAY));
  return quantile(between, 0.5) < QUIET * on;
}

/** The most of each band around a click. */
function clickAt(bands: Uint8Array, frame: number): readonly number[] {
  return Array.from({ length: NETWORK_BANDS }, (_, band) => {
    let most = 0;
    for (let k = FROM; k < TO; k++) most = Math.max(most, bands[(frame + k) * NETWORK_BANDS + band] ?? 0);
    return most;
  });
}

const gapsOf = (clicks: readonly Click[]): readonly number[] =>
  clicks.slice(1).flatMap((click, i) => (click.place - clicks[i]!.place === 1 ? [click.frame - clicks[i]!.frame] : []));

/** The shortest round in which clicks come again as they were, nearly as well as in any. */
function roundOf(clicks: readonly Click[]): Round | undefined {
  const rounds = ROUNDS.filter((length) => length * FEWEST_ROUNDS <= clicks.length).map((length) => {
    const groups = Array.from({ length }, (_, at) => clicks.filter(({ place }) => place % length === at));
    const middles = groups.map(middleOf);
    const astray = groups.flatMap((group, at) => group.map(({ bands }) => distance(bands, middles[at]!)));
    return { middles, astray, usual: astray.reduce((sum, one) => sum + one, 0) / astray.length };
  });
  const best = Math.min(...rounds.map(({ usual }) => usual));
  return rounds.find(({ astray, usual }) => usual <= Math.max(AS_WELL, 2 * best) && quantile(astray, MOST) <= SAME)
    ?.middles;
}

const middleOf = (clicks: readonly Click[]): readonly number[] =>
  Array.from({ length: NETWORK_BANDS }, (_, band) =>
    quantile(
      clicks.map(({ bands }) => bands[band]!),
      0.5,
    ),
  );

const distance = (a: readonly number[], b: readonly number[]): number =>
  a.reduce((sum, value, band) => sum + Math.abs(value - b[band]!), 0) / NETWORK_BANDS;

/** For each click of a round the first that is the same within a distance; as long as it takes them to come round. */
function kindsOf(middles: Round, apart: number): readonly number[] {
  const kinds = middles.map((middle) => middles.findIndex((other) => distance(middle, other) < apart));
  const length = ROUNDS.find((one) => kinds.length % one === 0 && kinds.every((kind, at) => kind === kinds[at % one]));
  return kinds.slice(0, length);
}

/** One click in how many is a beat, from which of a round on, and on which of them bars begin. */
type Counted = {
  readonly every: number;
  readonly beat: number;
  readonly first?: number | undefined;
  /** Clicks in a round. */
  readonly length: number;
};

function countOf(middles: Round, kinds: readonly number[], rate: number): Counted | undefined {
  const { length } = kinds;
  const alone = length === 2 ? louderOf(middles) : aloneIn(kinds, 1, 0);
  if (alone !== undefined) {
    // Quieter clicks of the same sound divide beats, where they come too fast to be beats.
    if (
      DIVISIONS.includes(length) &&
      rate / length >= DIVIDED_FROM &&
      isQuieter(middles[(alone + 1) % length]!, middles[alone]!)
    )
      return { every: length, beat: alone, length };
    return { every: 1, beat: 0, first: isBar(length) ? alone : undefined, length };
  }
  if (length === 1) return { every: 1, beat: 0, length };
  // Bars begin with a click of one kind, beats with one of another, and a third divides them.
  for (const every of DIVISIONS)
    for (let beat = 0; beat < every && length % every === 0; beat++) {
      const first = isBar(length / every) ? aloneIn(kinds, every, beat) : undefined;
      const others = kinds.filter((_, at) => at % every !== beat);
      const divided = others.every((kind) => kind === others[0]) && kinds.indexOf(others[0]!) % every !== beat;
      if (first !== undefined && divided && !onBeat(kinds, every, beat).includes(others[0]!))
        return { every, beat, first, length };
    }
  return undefined;
}

const isBar = (beats: number): boolean => beats >= SHORTEST_BAR && beats <= LONGEST_BAR;

const louderOf = ([one, other]: Round): number => (loudness(one!) >= loudness(other!) ? 0 : 1);
const loudness = (middle: readonly number[]): number => middle.reduce((sum, value) => sum + value, 0);

/** The kinds of those clicks of a round that are beats. */
const onBeat = (kinds: readonly number[], every: number, beat: number): readonly number[] =>
  kinds.filter((_, at) => at % every === beat);

/** The beat of a round that is of another kind than all others, which are of one. */
function aloneIn(kinds: readonly number[], every: number, beat: number): number | undefined {
  const beats = onBeat(kinds, every, beat);
  if (beats.length < SHORTEST_BAR) return undefined;
  const alone = beats.findIndex((kind, i) => beats.every((other, k) => k === i || other !== kind));
  const others = beats.filter((_, i) => i !== alone);
  return alone >= 0 && others.every((kind) => kind === others[0]) ? alone * every + beat : undefined;
}

/** Whether a click is the same sound as another, and quieter: by much the same in all bands that are heard. */
function isQuieter(click: readonly number[], than: readonly number[]): boolean {
  const loudest = Math.max(...than);
  const less = than.flatMap((value, band) => (value > loudest - HEARD ? [value - click[band]!] : []));
  const mean = less.reduce((sum, one) => sum + one, 0) / less.length;
  const astray = Math.sqrt(less.reduce((sum, one) => sum + (one - mean) ** 2, 0) / less.length);
  return mean >= APART && astray <= SAME_SOUND * mean;
}

/** What the network would say if it knew clicks: so long around a beat, in seconds, does it say anything. */
const DRAWN = 0.034;
/** Log odds: of nothing, of a click between beats, of a beat at most; and of a first beat at an accent, and elsewhere. */
const NOTHING = -7;
const BETWEEN = -2;
const CERTAIN = 5;
const FIRST = 4;
const NOT_FIRST = -6;

/** Activations in which clicks have the say; about sections, and about first beats where clicks do not tell, the network has. */
export function saidByClicks(said: Activations, { beats, between, firsts }: Clicks): Activations {
  const beat = new Float32Array(said.frames).fill(NOTHING);
  for (const at of between) around(at, (i) => (beat[i] = BETWEEN));
  for (const at of beats)
    around(at, (i, apart) => {
      const share = 1 - apart / DRAWN;
      beat[i] = Math.max(beat[i]!, Math.min(CERTAIN, Math.log(share / (1 - share))));
    });
  return { ...saidOfFirsts(said, firsts), beat };
}

/** The same of first beats alone. */
export function saidOfFirsts(said: Activations, firsts: Clicks['firsts']): Activations {
  if (firsts.length === 0) return said;
  const downbeat = new Float32Array(said.frames).fill(NOT_FIRST);
  for (const at of firsts) around(at, (i) => (downbeat[i] = FIRST));
  return { ...said, downbeat };
}

/** The activations near a moment. Each covers two frames; its middle lies between them. */
function around(moment: number, each: (i: number, apart: number) => void): void {
  const middle = (i: number) => (i + 0.25) / ACTIVATION_RATE;
  const nearest = Math.round(moment * ACTIVATION_RATE - 0.25);
  for (let i = nearest - 2; i <= nearest + 2; i++) {
    const apart = Math.abs(middle(i) - moment);
    if (apart < DRAWN) each(i, apart);
  }
}
