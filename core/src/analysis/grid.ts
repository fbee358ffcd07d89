// Beats and bars as a tempo map and a meter; and other readings of the same music, each the likeliest of its kind.

import { steadyTempo, timeAt, type Meter, type TempoMap } from '../time';
import { beats as quarterNotes } from '../units';
import { findBars, type BarLimits, type Bars } from './bars';
import { findBeats, type Path, type PathLimits } from './beats';
import { beatsCounted, findFeltBeats, type Count } from './felt';
import type { Activations } from './network';
import { isRising, quantile, smoothTempo } from './tempo';

export type Grid = {
  /** False where no beat was found and 120 bpm was taken instead. */
  readonly found: boolean;
  /** Beats a minute as they are felt, over the song as a whole (median). */
  readonly bpm: number;
  readonly tempo: TempoMap;
  readonly meter: Meter;
  /** Moments in seconds. The first downbeat is beat 0 of the tempo map. */
  readonly beats: readonly number[];
  readonly downbeats: readonly number[];
};

/** What is remembered of a recording to read it anew: what the network said, and whether beats divide in three. */
export type Heard = {
  readonly odds: Activations;
  /** How much the harmony changes, 0…2, one value for each activation; empty in what was kept before that was heard. */
  readonly change: Float32Array;
  /** Beats divide in three. */
  readonly compound: boolean;
  /** What the network takes for bars of three is 6/8: two beats, each of which divides in three. */
  readonly sixEight: boolean;
  /** How its beats are counted; absent in what was kept before that was. */
  readonly count?: Count | undefined;
};

export const READINGS = ['half', 'double', 'off-beat', 'other-beat', 'other-meter'] as const;
/** Another way to count: half or twice the tempo, beats between these, bars from another beat, three for four. */
export type Reading = (typeof READINGS)[number];

const FEWEST_BEATS = 8;
export const NO_GRID: Grid = {
  found: false,
  bpm: 120,
  tempo: steadyTempo(120),
  meter: [{ bar: 0, numerator: 4, denominator: 4 }],
  beats: [],
  downbeats: [],
};

const NO_STROKES = { kick: new Float64Array(), snare: new Float64Array(), hat: new Float64Array() };

/** The beats as they are felt. */
const feltBeats = ({ odds, count }: Heard): Path =>
  count ? beatsCounted(odds, count) : findFeltBeats(odds, NO_STROKES).path;

/**
 * The likeliest grid within limits. Nothing found is a steady 120 bpm.
 * @param known the beats as they are felt, where they were found already.
 */
export function gridOf(heard: Heard, path?: PathLimits, bars: BarLimits = {}, known?: Path): Grid {
  const { odds, change, compound, sixEight } = heard;
  const felt = path ? findBeats(odds.beat, path) : (known ?? feltBeats(heard));
  const { beats } = sixEight && !path ? findBeats(odds.beat, twoForThree(felt)) : felt;
  if (beats.length < FEWEST_BEATS || !isRising(beats)) return NO_GRID;
  const lengths: BarLimits = sixEight && !path ? { length: 2 } : {};
  return gridThrough(beats, findBars({ ...odds, change }, beats, compound, { ...lengths, ...bars }));
}

/** Two beats in the time of three. */
function twoForThree({ beats }: Path): PathLimits {
  const bpm = (60 * (beats.length - 1)) / (beats.at(-1)! - beats[0]!);
  return { least: bpm * 0.6, most: bpm * 0.74 };
}

/** The likeliest grid that differs from `now` in one way. */
export function otherGrid(heard: Heard, now: Grid, reading: Reading): Grid {
  if (!now.found) return NO_GRID;
  // The same music, counted otherwise: as long as it is now, give or take a beat.
  const within = { from: now.beats[0]! - 30 / now.bpm, to: now.beats.at(-1)! + 60 / now.bpm };
  switch (reading) {
    case 'half':
      return gridOf(heard, { most: now.bpm * 0.72, within });
    case 'double':
      return gridOf(heard, { least: now.bpm * 1.4, within });
    case 'off-beat':
      return gridOf(heard, { avoid: now.beats, least: now.bpm * 0.72, most: now.bpm * 1.4, within });
    case 'other-beat':
      return sameBeats(heard, now, { avoid: startsOf(now), length: lengthOf(now) });
    case 'other-meter':
      return sameBeats(heard, now, { length: lengthOf(now) === 3 ? 4 : 3 });
  }
}

function sameBeats({ odds, change, compound }: Heard, { beats }: Grid, limits: BarLimits): Grid {
  return gridThrough(beats, findBars({ ...odds, change }, beats, compound, limits));
}

const startsOf = ({ beats, downbeats }: Grid) => downbeats.map((downbeat) => beats.indexOf(downbeat));

/** Beats in a bar, as they are felt. */
function lengthOf({ meter }: Grid): 2 | 3 | 4 | 5 | 6 | 7 {
  const { numerator, denominator } = meter[0]!;
  return (denominator === 8 ? numerator / 3 : numerator) as 2 | 3 | 4 | 5 | 6 | 7;
}

function gridThrough(raw: readonly number[], bars: Bars): Grid {
  const first = bars.starts[0] ?? 0;
  const pulse = bars.compound ? 1.5 : 1;
  const tempo = smoothTempo(raw, first, pulse);
  const beats = raw.map((_, i) => Math.max(0, timeAt(tempo, quarterNotes((i - first) * pulse))));
  const gaps = beats.slice(1).map((beat, i) => beat - beats[i]!);
  return {
    found: true,
    bpm: 60 / quantile(gaps, 0.5),
    tempo,
    meter: meterOf(bars),
    beats,
    downbeats: bars.starts.map((i) => beats[i]!),
  };
}

/** Bars of one length after the other become one entry. */
function meterOf({ starts, beatsInBar, compound }: Bars): Meter {
  const lengths = starts.slice(1).map((start, i) => start - starts[i]!);
  const sign = (bar: number, length: number) =>
    compound ? { bar, numerator: 3 * length, denominator: 8 } : { bar, numerator: length, denominator: 4 };
  const meter = lengths.flatMap((length, bar) => (length === lengths[bar - 1] ? [] : [sign(bar, length)]));
  return meter.length > 0 ? meter : [sign(0, beatsInBar)];
}
