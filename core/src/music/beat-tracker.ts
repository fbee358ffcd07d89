// The beat of music as it sounds: how fast it goes, and where a beat falls, a few seconds after it began. It is what follows a
// microphone; recordings are analysed otherwise.

import { clamp, seconds, type Seconds } from '../units';
import { LOUDNESS_BANDS, SILENCE_DB } from './bands';

export type TrackedBeat = {
  /** Beats a minute. */
  readonly bpm: number;
  /** A beat fell at this moment, in seconds. */
  readonly at: Seconds;
  /** Whether it is heard now; else it is carried on. */
  readonly sure: boolean;
};

export type BeatTracker = {
  /** @param levels sixteen bytes of loudness. @param at seconds, rising; about a hundred times a second. */
  readonly hear: (levels: ArrayLike<number>, at: number) => void;
  /** Undefined until a beat was heard for long enough. */
  readonly beat: () => TrackedBeat | undefined;
  /** Somebody has tapped, or typed: it goes on from there, and counts as they do. */
  readonly told: (bpm: number, at: number) => void;
};

/** Onsets are kept so many times a second. */
const RATE = 100;
/** So much is listened back over, in seconds. */
const WINDOW = 8;
const SIZE = RATE * WINDOW;
/** The longest and the shortest beat, in samples: 40 and 240 a minute. */
const LONGEST = Math.round((RATE * 60) / 40);
const SHORTEST = Math.round((RATE * 60) / 240);
/** How often it is worked out anew, in seconds, and from how much sound on. */
const EVERY = 0.25;
const FIRST_AFTER = 3;
/** People count best around two beats a second, and less readily the further off (Moelants 2002; Ellis 2007). */
const PREFERRED = 120;
const PREFERENCE_OCTAVES = 0.9;
/** Once somebody has tapped, only what is so near to it counts, in octaves. */
const TAPPED_OCTAVES = 0.25;
/** So far apart tempos are the same, as a share; phases, of a beat. */
const SAME_TEMPO = 0.04;
const SAME_PHASE = 0.1;
/** How much repeats, of all that sounds, for a beat to be heard. */
const REPEATS = 0.2;
/** So often in a row something else must be heard to be believed. */
const BELIEVED_FIRST = 4;
const BELIEVED = 8;
/** How fast what is followed is put right, each time. */
const PULL = 0.3;
/** A tap is let stand for so long, in seconds, before its phase is put right. */
const TAP_STANDS = 4;
/** Rises of less than so many decibels are noise; and a band so far below the loudest of late is not heard. */
const RISE_DB = 2;
const BELOW_LOUDEST_DB = 45;
const FORGETS_DB = 6;
const DB = -SILENCE_DB / 255;

/** Low bands, where kick and bass are, count for more: they tell the beat from the off-beat. */
const WEIGHTS = Array.from({ length: LOUDNESS_BANDS }, (_, band) => (band < 5 ? 2 : 1));

type Candidate = { readonly period: number; readonly at: number; readonly repeats: number };

export function beatTracker(): BeatTracker {
  /** Strength of onsets by sample, counted round. */
  const onsets = new Float64Array(SIZE);
  const line = new Float64Array(SIZE);
  /** The same about its mean: noise is then like nothing. */
  const level = new Float64Array(SIZE);
  const before = new Float64Array(LOUDNESS_BANDS);
  let loudest = 0;
  let newest = -1;
  let first: number | undefined;
  let looked = -Infinity;
  let held: { period: number; at: number; sure: boolean } | undefined;
  let other: { candidate: Candidate; times: number } | undefined;
  let tap: { readonly period: number; readonly at: number } | undefined;

  const strengthOf = (levels: ArrayLike<number>, passed: number): number => {
    loudest -= FORGETS_DB * passed;
    for (let band = 0; band < LOUDNESS_BANDS; band++) loudest = Math.max(loudest, levels[band]! * DB);
    let sum = 0;
    for (let band = 0; band < LOUDNESS_BANDS; band++) {
      const db = Math.max(levels[band]! * DB, loudest - BELOW_LOUDEST_DB);
      const rise = db - before[band]!;
      before[band] = db;
      if (rise > RISE_DB) sum += WEIGHTS[band]! * rise;
    }
    return sum;
  };

  const hear: BeatTracker['hear'] = (levels, at) => {
    const sample = Math.floor(at * RATE);
    const fresh = newest < 0 || sample - newest > SIZE || sample < newest;
    if (fresh) onsets.fill(0);
    const strength = strengthOf(levels, fresh ? 0 : (sample - newest) / RATE);
    first ??= at;
    // The first moment rises from nothing: that is no stroke.
    for (let i = fresh ? sample : newest + 1; i < sample; i++) onsets[i % SIZE] = 0;
    onsets[sample % SIZE] = fresh ? 0 : Math.max(sample === newest ? onsets[sample % SIZE]! : 0, strength);
    if (fresh) first = at;
    newest = sample;
    if (at - looked < EVERY || at - first < FIRST_AFTER) return;
    looked = at;
    follow(at);
  };

  /** The last seconds as one line, the oldest first, without what lasts: a stroke stands out of what is around it. */
  const unroll = (): number => {
    let power = 0;
    for (let i = 0; i < SIZE; i++) line[i] = onsets[(newest + 1 + i) % SIZE]!;
    let around = 0;
    const half = RATE / 2;
    for (let i = 0; i < half; i++) around += line[i]!;
    const mean = new Float64Array(SIZE);
    for (let i = 0; i < SIZE; i++) {
      if (i + half < SIZE) around += line[i + half]!;
      if (i - half - 1 >= 0) around -= line[i - half - 1]!;
      mean[i] = around / (2 * half + 1);
    }
    let sum = 0;
    for (let i = 0; i < SIZE; i++) sum += line[i] = Math.max(0, line[i]! - mean[i]!);
    for (let i = 0; i < SIZE; i++) {
      level[i] = line[i]! - sum / SIZE;
      power += level[i]! * level[i]!;
    }
    return power;
  };

  /** How alike the line is to itself so many samples later, softened by a sample to each side. */
  const alike = (lag: number): number => {
    if (lag >= SIZE - 2) return 0;
    let sum = 0;
    for (let i = lag + 1; i < SIZE - 1; i++)
      sum += level[i]! * (level[i - lag]! + 0.5 * (level[i - lag - 1]! + level[i - lag + 1]!));
    return (sum * SIZE) / (SIZE - lag) / 2;
  };

  const preference = (period: number): number => {
    const bpm = (60 * RATE) / period;
    const from = tap ? (60 * RATE) / tap.period : PREFERRED;
    const octaves = Math.log2(bpm / from) / (tap ? TAPPED_OCTAVES : PREFERENCE_OCTAVES);
    return Math.exp(-0.5 * octaves * octaves);
  };

  const heardNow = (): Candidate | undefined => {
    const power = unroll();
    if (power <= 0) return undefined;
    const all = new Float64Array(Math.min(SIZE - 2, 4 * LONGEST + 4));
    for (let lag = SHORTEST; lag < all.length; lag++) all[lag] = alike(lag);
    const near = (lag: number): number => {
      const at = Math.round(lag);
      return Math.max(all[at - 1] ?? 0, all[at] ?? 0, all[at + 1] ?? 0);
    };
    let best = 0;
    let period = 0;
    for (let lag = SHORTEST; lag <= LONGEST; lag++) {
      // A beat comes again after two and four of it.
      const score = (all[lag]! + 0.7 * near(2 * lag) + 0.5 * near(4 * lag)) * preference(lag);
      if (score > best) [best, period] = [score, lag];
    }
    if (period === 0) return undefined;
    const exact = refined(all, period);
    return { period: exact, at: phaseOf(exact), repeats: (all[Math.round(exact)] ?? 0) / power };
  };

  /** Four beats are measured four times as exactly as one. */
  const refined = (all: Float64Array, period: number): number => {
    for (const times of [4, 2, 1]) {
      const about = period * times;
      if (about + times + 1 >= all.length) continue;
      let top = Math.round(about);
      for (let lag = top - times; lag <= top + times; lag++) if (all[lag]! > all[top]!) top = lag;
      const [left, here, right] = [all[top - 1]!, all[top]!, all[top + 1]!];
      const bend = left - 2 * here + right;
      const off = bend < 0 ? clamp((0.5 * (left - right)) / bend, -0.5, 0.5) : 0;
      return (top + off) / times;
    }
    return period;
  };

  /** Where beats of a period fall best in the last seconds, those of late more than those before; in seconds. */
  const phaseOf = (period: number): number => {
    const steps = Math.max(8, Math.round(period));
    const fit = (back: number): number => {
      let sum = 0;
      for (let j = 0, place = SIZE - 1 - back; place >= 2; j++, place = SIZE - 1 - back - j * period) {
        const low = Math.floor(place);
        const share = place - low;
        const here = line[low]! * (1 - share) + (line[low + 1] ?? 0) * share;
        sum += (here + 0.6 * (line[low - 1]! + (line[low + 2] ?? 0))) * 0.93 ** j;
      }
      return sum;
    };
    let best = -1;
    let back = 0;
    for (let i = 0; i < steps; i++) {
      const value = fit((i * period) / steps);
      if (value > best) [best, back] = [value, (i * period) / steps];
    }
    const step = period / steps;
    const [left, right] = [fit(back - step), fit(back + step)];
    const bend = left - 2 * best + right;
    const off = bend < 0 ? clamp((0.5 * (left - right)) / bend, -0.5, 0.5) : 0;
    // A sample holds what came within it: on the average half of it later than its beginning.
    return (newest + 0.5 - back - off * step) / RATE;
  };

  /** How far a beat of the candidate is from the nearest of ours, in beats, -0.5…0.5. */
  const apart = (from: { readonly period: number; readonly at: number }, to: number): number => {
    const off = ((to - from.at) * RATE) / from.period;
    return off - Math.round(off);
  };
  const sameTempo = (a: number, b: number) => Math.abs(a / b - 1) < SAME_TEMPO;

  const believe = (candidate: Candidate, needed: number): boolean => {
    const goesOn =
      other &&
      sameTempo(candidate.period, other.candidate.period) &&
      Math.abs(apart(other.candidate, candidate.at)) < 2 * SAME_PHASE;
    other = { candidate, times: goesOn ? other!.times + 1 : 1 };
    return other.times >= needed;
  };

  const follow = (now: number): void => {
    const candidate = heardNow();
    if (!candidate || candidate.repeats < REPEATS) {
      other = undefined;
      if (held) held.sure = false;
      return;
    }
    if (!held) {
      if (believe(candidate, BELIEVED_FIRST)) held = { period: candidate.period, at: candidate.at, sure: true };
      return;
    }
    const off = apart(held, candidate.at);
    if (sameTempo(candidate.period, held.period) && Math.abs(off) < SAME_PHASE) {
      other = undefined;
      held.sure = true;
      held.period += PULL * (candidate.period - held.period);
      // Told from the newest beat on, so that what is left of an error in tempo does not add up.
      const beat = held.at + (Math.round(((candidate.at - held.at) * RATE) / held.period) * held.period) / RATE;
      const pulls = tap && now - tap.at < TAP_STANDS ? 0 : PULL;
      held.at = beat + pulls * (candidate.at - beat);
    } else if (believe(candidate, BELIEVED) && !(tap && now - tap.at < TAP_STANDS)) {
      held = { period: candidate.period, at: candidate.at, sure: true };
      other = undefined;
    }
  };

  return {
    hear,
    beat: () => held && { bpm: (60 * RATE) / held.period, at: seconds(held.at), sure: held.sure },
    told(bpm, at) {
      const period = (60 * RATE) / bpm;
      tap = { period, at };
      held = { period, at, sure: held?.sure ?? false };
      other = undefined;
    },
  };
}
