// What the network listens to: log energy in 64 bands. `training/music/features.py` computes the same numbers.

/** Bands of a frame. */
export const NETWORK_BANDS = 64;

const LOWEST_HZ = 32;
/** Bands lie this far apart until ninths of an octave are wider. */
const STEP_HZ = 21.5;
const BANDS_IN_OCTAVE = 9;
/** Values are kept as bytes, in hundredths. */
export const VALUES_PER_BYTE = 0.01;

/** Middle of each band in hertz, with one more on either side. */
function bandCentres(): readonly number[] {
  const centres = [LOWEST_HZ - STEP_HZ, LOWEST_HZ];
  while (centres.length < NETWORK_BANDS + 2) {
    const last = centres.at(-1)!;
    centres.push(Math.max(last + STEP_HZ, last * 2 ** (1 / BANDS_IN_OCTAVE)));
  }
  return centres;
}

/** Bins of a power spectrum, each with its weight. */
type Filter = { readonly first: number; readonly weights: readonly number[] };

/**
 * Triangular filters over a power spectrum; each rises from the middle of the band below to its own and falls again.
 * @param size length of the transform in samples.
 */
export function filterBank(sampleRate: number, size: number): readonly Filter[] {
  const centres = bandCentres();
  const hertz = sampleRate / size;
  return Array.from({ length: NETWORK_BANDS }, (_, band) => {
    const [below, middle, above] = [centres[band]!, centres[band + 1]!, centres[band + 2]!];
    const first = Math.max(0, Math.floor(below / hertz) + 1);
    const weights: number[] = [];
    for (let bin = first; bin <= size / 2 && bin * hertz < above; bin++) {
      const rise = (bin * hertz - below) / (middle - below);
      const fall = (above - bin * hertz) / (above - middle);
      weights.push(Math.max(0, Math.min(rise, fall)));
    }
    return { first, weights };
  });
}

/** A band's byte. @param power of the windowed frame, through the band's filter. */
export const bandByte = (power: number, size: number): number =>
  Math.min(255, Math.round(Math.log10(1 + (1000 * Math.sqrt(power)) / size) / VALUES_PER_BYTE));
