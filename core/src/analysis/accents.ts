// Bare clicks: a metronome, sticks, a beep. It says where bars begin by another click, louder or of another pitch, which is
// no drum, no chord and no tune: nothing that music begins its bars with, and so nothing that the network knows.

import { NETWORK_BANDS } from './network';
import { FRAME_RATE } from './features';
import { quantile } from './tempo';

/** A click is over when it is 25 dB below its loudest, as a difference of bytes; sound that mostly lasts longer is music. */
const OVER = 125;
const SOUNDING_AT_MOST = 0.4;
/** What of a click is compared, from and to, in frames from its beat on. */
const FROM = -1;
const TO = 5;
/** Clicks that differ by less than 2 dB in the mean of their bands are the same. */
const SAME = 10;
/** Bars that clicks count; two are left out, for either click could be the first. */
const SHORTEST = 3;
const LONGEST = 7;
/** So many bars must be as long as most. */
const EVEN = 0.85;
const FEWEST_BARS = 3;

/**
 * The beats at which bare clicks are accented, as indexes.
 * @param bands bytes, `NETWORK_BANDS` for each hundredth of a second. @param beats seconds, rising.
 * @returns undefined where there is more than clicks, or no accent that comes round.
 */
export function accentedClicks(bands: Uint8Array, beats: readonly number[]): readonly number[] | undefined {
  if (beats.length < FEWEST_BARS * SHORTEST || !isBare(bands, beats)) return undefined;
  const clicks = beats.map((beat) => clickAt(bands, Math.round(beat * FRAME_RATE)));
  const usual = Array.from({ length: NETWORK_BANDS }, (_, band) => quantile(clicks.map((click) => click[band]!), 0.5)); // prettier-ignore
  const strange = clicks.map((click) => click.reduce((sum, one, k) => sum + Math.abs(one - usual[k]!), 0) / NETWORK_BANDS); // prettier-ignore
  const [least, most] = [Math.min(...strange), Math.max(...strange)];
  if (most - least < SAME) return undefined;
  const accents = strange.flatMap((one, i) => (one > (least + most) / 2 ? [i] : []));
  const lengths = accents.slice(1).map((at, i) => at - accents[i]!);
  const usualLength = quantile(lengths, 0.5);
  const even = lengths.filter((length) => length === usualLength).length;
  const comesRound = lengths.length >= FEWEST_BARS && even >= EVEN * lengths.length;
  return comesRound && usualLength >= SHORTEST && usualLength <= LONGEST ? accents : undefined;
}

/** Whether there is silence between the beats for most of the time. */
function isBare(bands: Uint8Array, beats: readonly number[]): boolean {
  const from = Math.max(0, Math.round(beats[0]! * FRAME_RATE));
  const to = Math.min(bands.length / NETWORK_BANDS, Math.round(beats.at(-1)! * FRAME_RATE));
  const loud = Array.from({ length: Math.max(0, to - from) }, (_, i) => loudest(bands, from + i));
  const click = quantile(beats.map((beat) => Math.max(...[FROM, 0, 1, 2].map((k) => loudest(bands, Math.round(beat * FRAME_RATE) + k)))), 0.5); // prettier-ignore
  return loud.filter((one) => one > click - OVER).length < SOUNDING_AT_MOST * loud.length;
}

function loudest(bands: Uint8Array, frame: number): number {
  let most = 0;
  for (let k = 0; k < NETWORK_BANDS; k++) most = Math.max(most, bands[frame * NETWORK_BANDS + k] ?? 0);
  return most;
}

/** The most of each band around a beat. */
function clickAt(bands: Uint8Array, frame: number): readonly number[] {
  return Array.from({ length: NETWORK_BANDS }, (_, band) => {
    let most = 0;
    for (let k = FROM; k < TO; k++) most = Math.max(most, bands[(frame + k) * NETWORK_BANDS + band] ?? 0);
    return most;
  });
}
