// How loud it is in sixteen bands of the spectrum, in decibels as bytes: what lamps follow, from a song or a microphone.

/** Bands lie evenly over the logarithm of frequency, 0.6 octaves each. */
export const LOUDNESS_BANDS = 16;
const LOWEST_HZ = 20;
const HIGHEST_HZ = 16000;

/** Edges of the bands in hertz, one more than there are bands. */
export const BAND_EDGES: readonly number[] = Array.from(
  { length: LOUDNESS_BANDS + 1 },
  (_, i) => LOWEST_HZ * (HIGHEST_HZ / LOWEST_HZ) ** (i / LOUDNESS_BANDS),
);

/** A byte of 0 is this far below a sine at full scale, 255 is that sine. */
export const SILENCE_DB = -90;

export const dbOf = (byte: number): number => SILENCE_DB - (byte / 255) * SILENCE_DB;

/** The byte of a power, where a sine at full scale has 1. */
export function loudnessByte(power: number): number {
  const db = 10 * Math.log10(power + 1e-12);
  return Math.max(0, Math.min(255, Math.round(((db - SILENCE_DB) / -SILENCE_DB) * 255)));
}

/** How much of each band lies between two frequencies in hertz, 0…1, measured on the logarithm of frequency. */
export function bandShares(low: number, high: number): Float64Array {
  return Float64Array.from({ length: LOUDNESS_BANDS }, (_, i) => {
    const [from, to] = [BAND_EDGES[i]!, BAND_EDGES[i + 1]!];
    const overlap = Math.log(Math.min(high, to)) - Math.log(Math.max(low, from));
    return Math.max(0, Math.min(1, overlap / Math.log(to / from)));
  });
}

/** Powers of all bytes; what is too soft to be told from silence has none. */
const POWERS = Float64Array.from({ length: 256 }, (_, byte) => (byte === 0 ? 0 : 10 ** (dbOf(byte) / 10)));

/**
 * Loudness of several bands together, in dB below a sine at full scale. Allocates nothing.
 * @param levels bytes, or numbers between them; sixteen from `at` on.
 */
export function loudnessOver(levels: ArrayLike<number>, at: number, shares: Float64Array): number {
  let power = 0;
  for (let band = 0; band < LOUDNESS_BANDS; band++)
    if (shares[band]! > 0) power += shares[band]! * POWERS[Math.round(levels[at + band]!)]!;
  return 10 * Math.log10(power + 1e-12);
}

/** First bin of each band in a spectrum, and one beyond the last; every band that the sample rate can carry has a bin. */
export function binsOf(sampleRate: number, size: number): readonly number[] {
  const bins = BAND_EDGES.map((hz) => Math.min(size / 2, Math.max(1, Math.round((hz * size) / sampleRate))));
  for (let i = 1; i < bins.length; i++) bins[i] = Math.min(size / 2, Math.max(bins[i]!, bins[i - 1]! + 1));
  return bins;
}
