// Drum strokes as they are heard: where the low end, the middle or the top of the spectrum suddenly rises.

import { BAND_EDGES, LOUDNESS_BANDS, SILENCE_DB } from './bands';

export const DRUMS = ['kick', 'snare', 'hat'] as const;
export type Drum = (typeof DRUMS)[number];

/** By drum, how strong a stroke that was just heard is, 0…1; 0 where there was none. */
export type Strokes = Record<Drum, number>;

/** Hears loudness, moment after moment, and tells strokes as soon as they can be told. */
export type DrumDetector = {
  /**
   * @param levels sixteen bytes of loudness from `from` on. @param at seconds, rising.
   * @returns the strokes that were certain by now; the same object each time.
   */
  readonly hear: (levels: ArrayLike<number>, from: number, at: number) => Strokes;
  /** When each drum's last stroke began, in seconds: up to `LOOK_BACK` before it was told. */
  readonly began: Strokes;
};

type Kind = {
  /** Groups of bands that must all rise, each by so many decibels. The first is where the drum sounds loudest. */
  readonly rises: readonly (readonly [bands: readonly number[], decibels: number])[];
  /** What it must reach of the strongest rise of late, and in how many seconds that one is forgotten. */
  readonly of: number;
  readonly memory: number;
  /** How many decibels below the loudest of late it may be. */
  readonly near: number;
  /** Seconds between two strokes. */
  readonly apart: number;
  /** The bands in which its beginning is sharpest. */
  readonly begins: readonly number[];
};

const between = (low: number, high: number): readonly number[] =>
  Array.from({ length: LOUDNESS_BANDS }, (_, band) => band).filter(
    (band) => BAND_EDGES[band]! >= low * 0.99 && BAND_EDGES[band + 1]! <= high * 1.01,
  );

/** Numbers found on ten pieces of music with known strokes: docs/music.md says how well they do. */
const KINDS: Readonly<Record<Drum, Kind>> = {
  kick: { rises: [[between(30, 106), 10]], of: 0.3, memory: 4, near: 6, apart: 0.09, begins: between(70, 566) },
  snare: {
    rises: [
      [between(1977, 10501), 7],
      [between(161, 372), 2],
      [between(565, 1978), 2],
    ],
    of: 0.3,
    memory: 1.5,
    near: 4,
    apart: 0.09,
    begins: between(161, 10501),
  },
  hat: {
    rises: [[between(10500, 16000), 5]],
    of: 0.2,
    memory: 1.5,
    near: 10,
    apart: 0.06,
    begins: between(4556, 16000),
  },
};

/** A rise is measured against the quietest of the moments this far back, so that a slow window sees all of it. */
const LOOK_BACK = 0.065;
/** What was loudest is forgotten by so many decibels a second. */
const FORGETS = 3;
const DB_PER_BYTE = -SILENCE_DB / 255;
const MOMENTS = 32;

/** What one drum's listener remembers. */
type Memory = {
  older: number;
  old: number;
  level: number;
  usual: number;
  loudest: number;
  /** When the last stroke was. */
  last: number;
};

export function drumDetector(): DrumDetector {
  const levels = new Float32Array(MOMENTS * LOUDNESS_BANDS);
  const times = new Float64Array(MOMENTS).fill(-Infinity);
  const strokes: Strokes = { kick: 0, snare: 0, hat: 0 };
  const fresh = (): Memory => ({ older: 0, old: 0, level: 0, usual: 0, loudest: 0, last: -Infinity });
  const began: Strokes = { kick: -Infinity, snare: -Infinity, hat: -Infinity };
  const memories: Record<Drum, Memory> = { kick: fresh(), snare: fresh(), hat: fresh() };
  let here = 0;

  /** By how many decibels a band rose within the last moments; 0 where it fell. */
  const riseOf = (band: number, at: number): number => {
    const now = levels[here * LOUDNESS_BANDS + band]!;
    let least = now;
    for (let back = 1; back < MOMENTS; back++) {
      const moment = (here - back + MOMENTS) % MOMENTS;
      // Before all that was heard there was silence: what begins with a stroke has a stroke.
      if (times[moment] === -Infinity) least = 0;
      if (times[moment]! < at - LOOK_BACK) break;
      least = Math.min(least, levels[moment * LOUDNESS_BANDS + band]!);
    }
    return (now - least) * DB_PER_BYTE;
  };

  /** The moment of the sharpest step of late in some bands: low drums take their time to be heard in full. */
  const beginOf = (bands: readonly number[], at: number): number => {
    let sharpest = -Infinity;
    let found = at;
    for (let back = 1; back < MOMENTS - 1; back++) {
      const moment = (here - back + MOMENTS) % MOMENTS;
      const before = (moment - 1 + MOMENTS) % MOMENTS;
      if (times[moment]! < at - LOOK_BACK) break;
      let step = 0;
      for (const band of bands) {
        const was = times[before] === -Infinity ? 0 : levels[before * LOUDNESS_BANDS + band]!;
        step += Math.max(0, levels[moment * LOUDNESS_BANDS + band]! - was);
      }
      if (step <= sharpest) continue;
      sharpest = step;
      found = times[moment]!;
    }
    return found;
  };

  /** The stroke that had its steepest rise in the moment before this one: how strong, 0…1; 0 for none. */
  const strokeOf = (kind: Kind, memory: Memory, at: number, before: number): number => {
    let rise = Infinity;
    for (const [bands, decibels] of kind.rises) {
      let sum = 0;
      for (const band of bands) sum += riseOf(band, at);
      rise = Math.min(rise, sum / bands.length / decibels);
    }
    let level = 0;
    const [loudest] = kind.rises[0]!;
    for (const band of loudest) level += (levels[here * LOUDNESS_BANDS + band]! * DB_PER_BYTE) / loudest.length;
    const passed = before === -Infinity ? 0 : Math.min(1, Math.max(0, at - before));
    memory.loudest = Math.max(level, memory.loudest - FORGETS * passed);
    const { older, old, usual } = memory;
    const steepest = old >= older && old > rise && old > 1 && old > usual * kind.of;
    const told =
      steepest && before - memory.last > kind.apart && Math.max(level, memory.level) > memory.loudest - kind.near;
    memory.usual = Math.max(old, usual * (1 - Math.min(1, passed / kind.memory)));
    memory.older = old;
    memory.old = rise;
    memory.level = level;
    if (!told) return 0;
    memory.last = before;
    return Math.min(1, old / Math.max(usual, 1));
  };

  return {
    hear(heard, from, at) {
      const before = times[here]!;
      here = (here + 1) % MOMENTS;
      times[here] = at;
      for (let band = 0; band < LOUDNESS_BANDS; band++) levels[here * LOUDNESS_BANDS + band] = heard[from + band]!;
      for (const drum of DRUMS) {
        strokes[drum] = strokeOf(KINDS[drum], memories[drum], at, before);
        if (strokes[drum] > 0) began[drum] = beginOf(KINDS[drum].begins, at);
      }
      return strokes;
    },
    began,
  };
}

/** How long after its beginning a stroke is loudest, in frames of a hundredth of a second, and how far back it was quiet. */
const RISEN = 5;
const QUIET = 5;
/** No stroke is weaker than this: it was heard. */
const WEAKEST = 0.1;

/**
 * How strong strokes are, 0…1: how far the drum's loudest bands rise, of the strongest rise of late.
 * @param times when it is struck, rising, in seconds. @param levels bytes of loudness, a hundred frames a second.
 */
export function strengthsOf(drum: Drum, times: Float64Array, levels: Uint8Array): Float64Array {
  const { rises, memory } = KINDS[drum];
  const [bands, decibels] = rises[0]!;
  const frames = Math.floor(levels.length / LOUDNESS_BANDS);
  const loudness = (frame: number): number => {
    if (frame < 0 || frame >= frames) return 0;
    let sum = 0;
    for (const band of bands) sum += levels[frame * LOUDNESS_BANDS + band]!;
    return (sum / bands.length) * DB_PER_BYTE;
  };
  let usual = 0;
  let before = -Infinity;
  return times.map((at) => {
    const frame = Math.round(at * 100);
    let [most, least] = [0, Infinity];
    for (let i = 0; i <= RISEN; i++) most = Math.max(most, loudness(frame + i));
    for (let i = 1; i <= QUIET; i++) least = Math.min(least, loudness(frame - i));
    const rise = Math.max(0, most - least);
    usual = Math.max(rise, usual * (1 - Math.min(1, (at - before) / memory)));
    before = at;
    return Math.max(WEAKEST, Math.min(1, rise / Math.max(usual, decibels)));
  });
}
