// Clicks: a metronome, sticks, a beep. They say where bars begin by another click, louder or of another pitch, which is no
// drum, no chord and no tune: nothing that music begins its bars with, and so nothing that the network knows. What tells
// clicks from music is that they are the same each time, and that nothing is between them.

import { NETWORK_BANDS } from './network';
import { FRAME_RATE } from './features';
import { quantile } from './tempo';

/** What of a click is compared, from and to, in frames from its beat on. */
const FROM = -1;
const TO = 5;
/** Away from beats by so much, in frames, nothing begins that is more than this share of what begins on them. */
const AWAY = 9;
const QUIET = 0.3;
/** Clicks of one kind are the same within a little more than half a decibel, in the mean of their bands, as a difference of bytes. */
const SAME = 3;
/** Accents differ from the other clicks by half a decibel at least. */
const APART = 2.5;
/** Clicks of one kind differ among themselves by so much of that at most; one in ten may differ more: where it begins, or ends. */
const ALIKE = 0.25;
const NEARLY_ALL = 0.9;
/** Bars that clicks count; two are left out, for either click could be the first. */
const SHORTEST = 3;
const LONGEST = 7;
/** So many of the bars are as long as most. */
const EVEN = 0.85;
const FEWEST_BARS = 3;

/**
 * The beats at which clicks are accented, as indexes.
 * @param bands bytes, `NETWORK_BANDS` for each hundredth of a second. @param onset how strongly something begins, as often.
 * @param beats seconds, rising.
 * @returns undefined where there is more than clicks, or no accent that comes round.
 */
export function accentedClicks(
  bands: Uint8Array,
  onset: Float32Array,
  beats: readonly number[],
): readonly number[] | undefined {
  if (beats.length < FEWEST_BARS * SHORTEST || !isBare(onset, beats)) return undefined;
  const clicks = beats.map((beat) => clickAt(bands, Math.round(beat * FRAME_RATE)));
  const usual = Array.from({ length: NETWORK_BANDS }, (_, band) => middleOf(clicks.map((click) => click[band]!)));
  const strange = clicks.map((click) => sumOf(click.map((one, k) => Math.abs(one - usual[k]!))) / NETWORK_BANDS);
  const between = (middleOf(strange) + quantile(strange, 1 - 0.5 / LONGEST)) / 2;
  const accents = strange.flatMap((one, i) => (one > between ? [i] : []));
  const [others, accented] = [strange.filter((one) => one <= between), accents.map((i) => strange[i]!)];
  const apart = middleOf(accented) - middleOf(others);
  if (middleOf(others) > SAME || apart < APART || strayOf(others) > ALIKE * apart || strayOf(accented) > ALIKE * apart)
    return undefined;
  const lengths = accents.slice(1).map((at, i) => at - accents[i]!);
  const usualLength = middleOf(lengths);
  const comesRound =
    lengths.length >= FEWEST_BARS && lengths.filter((one) => one === usualLength).length >= EVEN * lengths.length;
  return comesRound && usualLength >= SHORTEST && usualLength <= LONGEST ? accents : undefined;
}

/** The most of each band around a beat. */
function clickAt(bands: Uint8Array, frame: number): readonly number[] {
  return Array.from({ length: NETWORK_BANDS }, (_, band) => {
    let most = 0;
    for (let k = FROM; k < TO; k++) most = Math.max(most, bands[(frame + k) * NETWORK_BANDS + band] ?? 0);
    return most;
  });
}

const sumOf = (values: readonly number[]): number => values.reduce((sum, one) => sum + one, 0);
const middleOf = (values: readonly number[]): number => quantile(values, 0.5);

/** How far nearly all lie from the middle. */
function strayOf(values: readonly number[]): number {
  const middle = middleOf(values);
  return quantile(values.map((one) => Math.abs(one - middle)), NEARLY_ALL); // prettier-ignore
}

/** Whether next to nothing begins between the beats. */
function isBare(onset: Float32Array, beats: readonly number[]): boolean {
  const frames = beats.map((beat) => Math.round(beat * FRAME_RATE));
  const most = (from: number, to: number) =>
    onset.subarray(Math.max(0, from), Math.max(0, to)).reduce((a, b) => Math.max(a, b), 0);
  const on = middleOf(frames.map((at) => most(at - 2, at + 4)));
  return middleOf(frames.slice(1).map((next, i) => most(frames[i]! + AWAY, next - AWAY))) < QUIET * on;
}
