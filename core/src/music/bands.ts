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

/** A filter of second order: the powers of z it multiplies by, and those it feeds back. */
type Filter = { readonly b: readonly [number, number, number]; readonly a: readonly [number, number] };
/** K-weighting at 48 kHz: the head, then the low cut (ITU-R BS.1770-4, annex 1, tables 1 and 2). */
const K_FILTERS: readonly Filter[] = [
  { b: [1.53512485958697, -2.69169618940638, 1.19839281085285], a: [-1.69065929318241, 0.73248077421585] },
  { b: [1, -2, 1], a: [-1.99004745483398, 0.99007225036621] },
];

/** By how much a filter multiplies the power of a sine at `hertz`. */
function powerThrough({ b, a }: Filter, hertz: number): number {
  const w = (2 * Math.PI * hertz) / 48000;
  const part = (of: readonly [number, number, number]) =>
    Math.hypot(of[0] + of[1] * Math.cos(w) + of[2] * Math.cos(2 * w), of[1] * Math.sin(w) + of[2] * Math.sin(2 * w));
  return (part(b) / part([1, ...a])) ** 2;
}

const MIDDLES = Array.from({ length: LOUDNESS_BANDS }, (_, i) => Math.sqrt(BAND_EDGES[i]! * BAND_EDGES[i + 1]!));

/** How much each band counts for how loud it sounds; in place of shares. */
export const K_WEIGHTS = Float64Array.from(MIDDLES, (hertz) =>
  K_FILTERS.reduce((power, filter) => power * powerThrough(filter, hertz), 1),
);
/** Momentary loudness is the mean over so many seconds (ITU-R BS.1771-1, annex 1). */
export const MOMENTARY = 0.4;
/** To be added to the level of weighted bands for loudness in LKFS: a sine at full scale has half its power as mean square. */
export const LKFS = -0.691 + 10 * Math.log10(0.5);

/** Where brightness is 0 and 1, in octaves above the lowest band's middle; what is softer than `FAINT` in all has none. */
const DARK = Math.log2(150 / MIDDLES[0]!);
const BRIGHT = Math.log2(4000 / MIDDLES[0]!);
const OCTAVES = Math.log2(MIDDLES[1]! / MIDDLES[0]!);
const FAINT = 10 ** (-70 / 20);

/**
 * Where the middle of the sound lies, on the logarithm of frequency and weighted by amplitude: 0 at 150 Hz, 1 at 4 kHz.
 * Allocates nothing.
 * @param levels as in {@link loudnessOver}.
 */
export function brightnessOf(levels: ArrayLike<number>, at: number): number {
  let sum = 0;
  let octaves = 0;
  for (let band = 0; band < LOUDNESS_BANDS; band++) {
    const amplitude = Math.sqrt(POWERS[Math.round(levels[at + band]!)]!);
    sum += amplitude;
    octaves += amplitude * band * OCTAVES;
  }
  if (sum < FAINT) return 0;
  return Math.max(0, Math.min(1, (octaves / sum - DARK) / (BRIGHT - DARK)));
}

/** First bin of each band in a spectrum, and one beyond the last; every band that the sample rate can carry has a bin. */
export function binsOf(sampleRate: number, size: number): readonly number[] {
  const bins = BAND_EDGES.map((hz) => Math.min(size / 2, Math.max(1, Math.round((hz * size) / sampleRate))));
  for (let i = 1; i < bins.length; i++) bins[i] = Math.min(size / 2, Math.max(bins[i]!, bins[i - 1]! + 1));
  return bins;
}
