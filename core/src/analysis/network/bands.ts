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

/** Triangular filters over a power spectrum; each rises from the middle of the band below to its own and falls again. */
export type FilterBank = {
  readonly firstBin: Int32Array;
  /** Where a band's weights begin in `weights`; one more entry than there are bands. */
  readonly from: Int32Array;
  readonly weights: Float64Array;
};

/** @param size length of the transform in samples. */
export function filterBank(sampleRate: number, size: number): FilterBank {
  const centres = bandCentres();
  const firstBin = new Int32Array(NETWORK_BANDS);
  const from = new Int32Array(NETWORK_BANDS + 1);
  const weights: number[] = [];
  const hertz = sampleRate / size;
  for (let band = 0; band < NETWORK_BANDS; band++) {
    const [below, middle, above] = [centres[band]!, centres[band + 1]!, centres[band + 2]!];
    const first = Math.max(0, Math.floor(below / hertz) + 1);
    firstBin[band] = first;
    for (let bin = first; bin <= size / 2 && bin * hertz < above; bin++) {
      const rise = (bin * hertz - below) / (middle - below);
      const fall = (above - bin * hertz) / (above - middle);
      weights.push(Math.max(0, Math.min(rise, fall)));
    }
    from[band + 1] = weights.length;
  }
  return { firstBin, from, weights: Float64Array.from(weights) };
}

/**
 * Bytes of one frame's bands into `out`.
 * @param spectrum power of the windowed frame, by bin.
 */
export function bandBytes(spectrum: Float64Array, size: number, bank: FilterBank, out: Uint8Array): void {
  for (let band = 0; band < NETWORK_BANDS; band++) {
    let power = 0;
    const to = bank.from[band + 1]!;
    for (let k = bank.from[band]!, bin = bank.firstBin[band]!; k < to; k++, bin++)
      power += bank.weights[k]! * spectrum[bin]!;
    const value = Math.log10(1 + (1000 * Math.sqrt(power)) / size);
    out[band] = Math.min(255, Math.round(value / VALUES_PER_BYTE));
  }
}
