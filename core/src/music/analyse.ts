// From a file's bytes to what a lead sheet needs.

import { failed, ok, type Result } from '../problem';
import { steadyTempo, tempoMap, timeAt, type Meter, type TempoMap } from '../time';
import { beats as quarterNotes, seconds, type Seconds } from '../units';
import { findBars, type BarGuess } from './bars';
import { findBeats } from './beats';
import { decodeAudio, type AudioType, type Between } from './decode';
import { envelopesOf, type Envelopes } from './envelopes';
import { featureTaker, FRAME_RATE, type Features } from './features';

export type Analysis = {
  readonly type: AudioType;
  readonly sampleRate: number;
  readonly duration: Seconds;
  /** Beats a minute as they are felt, over the song as a whole (median). */
  readonly bpm: number;
  readonly tempo: TempoMap;
  readonly meter: Meter;
  /** Moments in seconds. */
  readonly beats: readonly number[];
  readonly downbeats: readonly number[];
  /** False where no beat was found and 120 bpm was taken instead. */
  readonly found: boolean;
  /** The loudest sample of each hundredth of a second, 0…255: for the waveform. */
  readonly peaks: Uint8Array;
  /** What lamps can follow. */
  readonly envelopes: Envelopes;
};

/** The waveform's values a second. */
export const PEAKS_PER_SECOND = FRAME_RATE;

const SHORTEST_SONG = 1;

/** Decodes and analyses. Silence, noise and free speech come out with a steady 120 bpm and `found` false. */
export async function analyse(bytes: Uint8Array, name: string, between: Between): Promise<Result<Analysis>> {
  const taker = featureTaker();
  const decoded = await decodeAudio(bytes, name, taker.take, (progress) => between(progress * 0.85));
  if (!decoded.ok) return decoded;
  const { type, sampleRate, seconds: length } = decoded.value;
  if (length < SHORTEST_SONG) return failed({ code: 'audio-too-short', name, seconds: length });
  const features = taker.end();
  if ((await between(0.88)) === 'stop') return failed({ code: 'cancelled' });
  const heard = findBeats(features);
  if ((await between(0.96)) === 'stop') return failed({ code: 'cancelled' });
  const { raw, bars } = feltPulse(features, heard);
  const found = raw.length >= 8;
  const pulse = bars.compound ? 1.5 : 1;
  const tempo =
    found && raw.every((beat, i) => i === 0 || beat > raw[i - 1]!)
      ? smoothTempo(raw, bars.firstDownbeat, pulse)
      : steadyTempo(120);
  const meter: Meter = [
    bars.compound
      ? { bar: 0, numerator: 3 * bars.beatsInBar, denominator: 8 }
      : { bar: 0, numerator: bars.beatsInBar, denominator: 4 },
  ];
  const count = raw.length;
  const beats = raw.map((_, i) => Math.max(0, timeAt(tempo, quarterNotes((i - bars.firstDownbeat) * pulse))));
  const gaps = beats.slice(1).map((beat, i) => beat - beats[i]!);
  return ok({
    type,
    sampleRate,
    duration: seconds(length),
    bpm: found ? 60 / median(gaps) : 120,
    tempo,
    meter,
    beats: found ? beats : [],
    downbeats: found
      ? beats.filter((_, i) => i % bars.beatsInBar === bars.firstDownbeat % bars.beatsInBar && i < count)
      : [],
    found,
    peaks: Uint8Array.from(features.peaks, (peak) => Math.min(255, Math.round(peak * 255))),
    envelopes: envelopesOf(features.loudness),
  });
}

/** In three faster than this, the bar is what one taps: its beats are the eighths of a 6/8. */
const FASTEST_THREE = 175;

/** The pulse that is felt, and its bars. */
function feltPulse(features: Features, heard: readonly number[]): { raw: readonly number[]; bars: BarGuess } {
  const bars = findBars(features, heard);
  const bpm = (60 * (heard.length - 1)) / ((heard.at(-1) ?? 0) - (heard[0] ?? 0) || Infinity);
  if (bars.beatsInBar !== 3 || bpm < FASTEST_THREE) return { raw: heard, bars };
  const raw = heard.filter((_, i) => i % 3 === bars.firstDownbeat);
  return { raw, bars: findBars(features, raw, true) };
}

/** A steady song strays from the straight line by less than this at the median: it gets one constant tempo. */
const STEADY_WITHIN = 0.008;

/**
 * A tempo map through the found beats. One that is steady all through becomes a straight line; else each beat is
 * moved onto the line that fits it and its four neighbours on either side, which takes a drummer's wobble and the
 * grid's coarseness out but keeps his drift; sudden changes keep their own two lines.
 */
function smoothTempo(raw: readonly number[], firstDownbeat: number, pulse: number): TempoMap {
  const line = fittedLine(raw, 0, raw.length - 1);
  const misses = raw.map((beat, i) => Math.abs(beat - (line.at + line.per * i)));
  const anchor = (i: number, time: number) => ({
    beat: quarterNotes((i - firstDownbeat) * pulse),
    time: seconds(time),
  });
  if (median(misses) < STEADY_WITHIN && quantile(misses, 0.95) < 0.04)
    return tempoMap([anchor(0, line.at), anchor(raw.length - 1, line.at + line.per * (raw.length - 1))]);
  const smoothed = raw.map((beat, i) => {
    const [low, high] = [Math.max(0, i - 4), Math.min(raw.length - 1, i + 4)];
    const choices = [fittedLine(raw, low, high), fittedLine(raw, low, i), fittedLine(raw, i, high)].map((fit, k) => {
      const [from, to] = k === 0 ? [low, high] : k === 1 ? [low, i] : [i, high];
      let worst = to - from < 2 ? Infinity : 0;
      for (let n = from; n <= to; n++) worst = Math.max(worst, Math.abs(raw[n]! - (fit.at + fit.per * n)));
      return { moved: fit.at + fit.per * i, worst: worst * (k === 0 ? 1 : 1.6) };
    });
    const best = choices.reduce((a, b) => (b.worst < a.worst ? b : a));
    return best.worst < 0.06 ? best.moved : beat;
  });
  const rising = smoothed.every((time, i) => i === 0 || time > smoothed[i - 1]! + 0.05);
  return tempoMap((rising ? smoothed : raw).map((time, i) => anchor(i, time)));
}

/** Least squares line `at + per * i` through `values[from..to]`, both included. */
function fittedLine(
  values: readonly number[],
  from: number,
  to: number,
): { readonly at: number; readonly per: number } {
  const n = to - from + 1;
  const middle = (from + to) / 2;
  let mean = 0;
  let slope = 0;
  let spread = 0;
  for (let i = from; i <= to; i++) mean += values[i]! / n;
  for (let i = from; i <= to; i++) {
    slope += (i - middle) * (values[i]! - mean);
    spread += (i - middle) ** 2;
  }
  const per = spread > 0 ? slope / spread : 0;
  return { at: mean - per * middle, per };
}

function median(values: readonly number[]): number {
  return quantile(values, 0.5);
}

function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0;
}
