// Follower inputs: what followers listen for, and how much of it there is at an instant.

import { hertzOf, type Follower, type Measure } from '../light';
import type { Hearing } from '../live';
import { bandShares, brightnessOf, K_WEIGHTS, LKFS, LOUDNESS_BANDS, loudnessOver, MOMENTARY } from '../music/bands';
import { type Drum } from '../music/drums';
import { ENVELOPE_RATE, type Envelopes, type StrokeList } from '../music/envelopes';
import type { Seconds } from '../units';

/** One way of listening, shared by all followers that listen alike. */
export type FollowerInput = {
  readonly key: string;
  readonly source: Follower['source'];
  readonly drum: Drum | null;
  readonly measure: Measure | null;
  /** Strokes are this far apart at least, in seconds; 0 for all that there are. */
  readonly gap: number;
  /** How much of each band counts; of a drum, nothing. */
  readonly shares: Float64Array;
  readonly attack: number;
  readonly release: number;
  readonly floor: number;
  readonly ceiling: number;
  /** NaN where it adapts. */
  readonly gain: number;
  /** What it hears in this instant, 0…1. */
  height: number;
  /** What the microphone's last moments made of it, so that they are gone through once. */
  readonly memory: { moments: Hearing['moments'] | null; height: number };
};

/** Decibels between nothing and all. */
const RANGE = 30;
/** Where it adapts, all is what was loudest of late; that is forgotten by so many decibels a second, down to `QUIET`. */
const FORGETS = 2;
const QUIET = -50;
/** A microphone that says nothing for so long hears nothing. */
const SILENT_AFTER = 0.3;

/**
 * While flashes are limited, loudness takes its time to rise and fall, so that it cannot flicker; strokes that come too
 * quickly after one another are not heard.
 */
function inputOf(follower: Follower, most: number): FollowerInput {
  const { source, hears, floor, ceiling, gain } = follower;
  const quickest = 'drum' in hears ? 0 : 1 / most;
  const attack = Math.max(follower.attack, quickest);
  const release = Math.max(follower.release, quickest);
  const drum = 'drum' in hears ? hears.drum : null;
  const measure = 'measure' in hears ? hears.measure : null;
  const hertz = 'drum' in hears || 'measure' in hears ? undefined : hertzOf(hears);
  const shares = measure === 'loudness' ? K_WEIGHTS : new Float64Array(LOUDNESS_BANDS);
  return {
    key: JSON.stringify([source, hears, attack, release, floor, ceiling, gain ?? null]),
    source,
    drum,
    measure,
    gap: 1 / most,
    shares: hertz ? bandShares(hertz.low, hertz.high) : shares,
    attack,
    release,
    floor,
    ceiling,
    gain: gain ?? NaN,
    height: 0,
    memory: { moments: null, height: 0 },
  };
}

/** So many ways of listening are known again; a dragged fader leaves many behind it. */
const MOST_KNOWN = 256;

/** Finds the same input for the same way of listening. */
export function inputBook(most: number): (follower: Follower) => FollowerInput {
  const known = new Map<string, FollowerInput>();
  return (follower) => {
    const input = inputOf(follower, most);
    const before = known.get(input.key);
    if (!before) remember(known, input.key, input, MOST_KNOWN);
    return before ?? input;
  };
}

/** Keeps what is new, and forgets what was kept longest where there would be more than `most`. */
function remember<K, V>(known: Map<K, V>, key: K, value: V, most: number): V {
  known.set(key, value);
  if (known.size > most) known.delete(known.keys().next().value!);
  return value;
}

/** Writes what each input hears in this instant. Allocates nothing, but for a curve of a song that was never asked for. */
export function listen(
  inputs: readonly FollowerInput[],
  envelopes: Envelopes | null,
  songTime: number,
  hearing: Hearing | null,
  at: Seconds,
): void {
  for (let i = 0; i < inputs.length; i++) {
    const input = inputs[i]!;
    if (input.source === 'song' && envelopes)
      input.height = input.drum
        ? strokesAt(input, strokesOf(envelopes, input.drum, input.gap), songTime)
        : sampled(curveFor(envelopes, input), songTime * ENVELOPE_RATE);
    else input.height = hearing ? heardNow(input, hearing, at) : 0;
  }
}

/** How much of the way from floor to ceiling. */
function between(input: FollowerInput, value: number): number {
  if (input.floor >= input.ceiling) return value >= input.floor && value > 0 ? 1 : 0;
  const share = (value - input.floor) / (input.ceiling - input.floor);
  return share < 0 ? 0 : share > 1 ? 1 : share;
}

/** Loudness as a share of the range below what counts as loud. */
function shareOf(input: FollowerInput, decibels: number, loudest: number): number {
  const top = Number.isNaN(input.gain) ? Math.max(loudest, QUIET) : -input.gain;
  const share = 1 - (top - decibels) / RANGE;
  return between(input, share < 0 ? 0 : share > 1 ? 1 : share);
}

/** One step towards a target, no faster than attack and release allow. */
function slewed(value: number, target: number, passed: number, attack: number, release: number): number {
  if (target >= value) return attack > 0 ? Math.min(target, value + passed / attack) : target;
  return release > 0 ? Math.max(target, value - passed / release) : target;
}

type Curves = { readonly heard: Map<string, Float32Array>; readonly loudness: Map<string, Loudness> };
/** Of a song, by frame: how loud some bands are, and how loud they have been of late, in decibels. */
type Loudness = { readonly decibels: Float32Array; readonly loudest: Float32Array };

const curves = new WeakMap<Envelopes, Curves>();
const MOST_CURVES = 64;
const MOST_LOUDNESS = 16;

/** What an input hears over a whole song, `ENVELOPE_RATE` values a second. Worked out once for each song and way. */
export function curveFor(envelopes: Envelopes, input: FollowerInput): Float32Array {
  let known = curves.get(envelopes);
  if (!known) curves.set(envelopes, (known = { heard: new Map(), loudness: new Map() }));
  const curve = known.heard.get(input.key);
  if (curve) return curve;
  return remember(
    known.heard,
    input.key,
    curveOf(envelopes.frames, sharesFor(known, envelopes, input), input),
    MOST_CURVES,
  );
}

/** What an input would hear without attack and release: by frame, how much of the way from floor to ceiling. */
function sharesFor(known: Curves, envelopes: Envelopes, input: FollowerInput): (frame: number) => number {
  if (input.measure === 'brightness')
    return (frame) => between(input, brightnessOf(envelopes.levels, frame * LOUDNESS_BANDS));
  // The bands are what takes long: whoever drags an attack or a floor asks for the same ones again and again.
  const bands = `${input.measure ?? ''} ${input.shares.join()}`;
  const { decibels, loudest } =
    known.loudness.get(bands) ?? remember(known.loudness, bands, loudnessIn(envelopes, input), MOST_LOUDNESS);
  return (frame) => shareOf(input, decibels[frame]!, loudest[frame]!);
}

function loudnessIn({ frames, levels }: Envelopes, { shares, measure }: FollowerInput): Loudness {
  const decibels = new Float32Array(frames);
  const loudest = new Float32Array(frames);
  const momentary = measure === 'loudness' ? Math.round(MOMENTARY * ENVELOPE_RATE) : 1;
  const powers = new Float64Array(momentary);
  let most = -Infinity;
  for (let frame = 0; frame < frames; frame++) {
    let now = loudnessOver(levels, frame * LOUDNESS_BANDS, shares);
    if (momentary > 1) {
      powers[frame % momentary] = 10 ** (now / 10);
      now = LKFS + 10 * Math.log10(meanOf(powers) + 1e-12);
    }
    most = Math.max(now, most - FORGETS / ENVELOPE_RATE);
    decibels[frame] = now;
    loudest[frame] = most;
  }
  return { decibels, loudest };
}

function meanOf(powers: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < powers.length; i++) sum += powers[i]!;
  return sum / powers.length;
}

function curveOf(frames: number, share: (frame: number) => number, input: FollowerInput): Float32Array {
  const curve = new Float32Array(frames);
  let value = 0;
  for (let frame = 0; frame < curve.length; frame++) {
    value = slewed(value, share(frame), 1 / ENVELOPE_RATE, input.attack, input.release);
    curve[frame] = value;
  }
  return curve;
}

function sampled(curve: Float32Array, place: number): number {
  const from = Math.floor(place);
  if (from < 0 || from >= curve.length) return 0;
  const next = from + 1 < curve.length ? curve[from + 1]! : 0;
  return curve[from]! + (next - curve[from]!) * (place - from);
}

const spaced = new WeakMap<StrokeList, Map<number, StrokeList>>();

/** The strokes of a drum in a song, but for those that come within `gap` seconds of one that counts. */
export function strokesOf({ strokes }: Envelopes, drum: Drum, gap: number): StrokeList {
  const all = strokes[drum];
  if (gap <= 0) return all;
  let known = spaced.get(all);
  if (!known) spaced.set(all, (known = new Map()));
  let list = known.get(gap);
  if (!list) {
    let last = -Infinity;
    const kept = Array.from(all.times, (time, i) => {
      if (time - last < gap) return -1;
      last = time;
      return i;
    }).filter((i) => i >= 0);
    list = {
      times: Float64Array.from(kept, (i) => all.times[i]!),
      strengths: Float64Array.from(kept, (i) => all.strengths[i]!),
    };
    known.set(gap, list);
  }
  return list;
}

/** Number of moments at or before `time`, in a rising list. */
export function countBefore(times: ArrayLike<number>, time: number): number {
  let low = 0;
  let high = times.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (times[middle]! <= time) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Each stroke rises over the attack and falls over the release; where they meet, the higher counts. */
function strokesAt(input: FollowerInput, { times, strengths }: StrokeList, time: number): number {
  let most = 0;
  for (let i = countBefore(times, time) - 1; i >= 0; i--) {
    const since = time - times[i]!;
    if (since > input.attack + input.release + STROKE) break;
    most = Math.max(most, strokeShape(input, strengths[i]!, since));
  }
  return most;
}

/** A stroke without attack and release is seen for this long, in seconds: two frames. */
const STROKE = 0.045;

function strokeShape(input: FollowerInput, strength: number, since: number): number {
  const full = between(input, strength);
  if (since < input.attack) return full * (since / input.attack);
  const falling = since - input.attack;
  if (falling >= input.release) return falling < STROKE ? full : 0;
  return full * (1 - falling / input.release);
}

/** What an input would hear of one of a microphone's moments without attack and release. */
function shareNow(input: FollowerInput, moments: Hearing['moments'], i: number, top: number): number {
  const { levels, at } = moments[i]!;
  if (input.measure === 'brightness') return between(input, brightnessOf(levels, 0));
  if (input.measure === null) return shareOf(input, loudnessOver(levels, 0, input.shares), top);
  let power = 0;
  let count = 0;
  for (let k = i; k >= 0 && at - moments[k]!.at < MOMENTARY; k--) {
    power += 10 ** (loudnessOver(moments[k]!.levels, 0, input.shares) / 10);
    count++;
  }
  return shareOf(input, LKFS + 10 * Math.log10(power / count + 1e-12), top + LKFS);
}

function heardNow(input: FollowerInput, hearing: Hearing, at: Seconds): number {
  const { moments, loudest } = hearing;
  const last = moments[moments.length - 1];
  if (!last) return 0;
  if (input.drum) {
    let most = 0;
    for (let i = moments.length - 1; i >= 0; i--) {
      const strength = moments[i]!.strokes[input.drum] ?? 0;
      if (input.gap > 0 && moments[i]!.crowded?.includes(input.drum)) continue;
      if (strength > 0) most = Math.max(most, strokeShape(input, strength, Math.max(0, at - moments[i]!.at)));
    }
    return most;
  }
  const top = loudnessOver(loudest, 0, input.shares);
  if (input.memory.moments !== moments) {
    let value = 0;
    for (let i = 0; i < moments.length; i++) {
      const passed = i > 0 ? moments[i]!.at - moments[i - 1]!.at : Infinity;
      value = slewed(value, shareNow(input, moments, i, top), passed, input.attack, input.release);
    }
    input.memory.moments = moments;
    input.memory.height = value;
  }
  const since = at - last.at;
  return since > SILENT_AFTER
    ? slewed(input.memory.height, 0, since - SILENT_AFTER, input.attack, input.release)
    : input.memory.height;
}
