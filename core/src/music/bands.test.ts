import { BAND_EDGES, brightnessOf, K_WEIGHTS, LKFS, LOUDNESS_BANDS, loudnessOver } from './bands';

const bandOf = (hertz: number) => BAND_EDGES.findLastIndex((edge) => edge <= hertz);
const only =
  (...bands: readonly number[]) =>
  (byte: number) =>
    Uint8Array.from({ length: LOUDNESS_BANDS }, (_, band) => (bands.includes(band) ? byte : 0));
const db = (band: number) => 10 * Math.log10(K_WEIGHTS[band]!);

test('a sine of 997 Hz at full scale has -3.01 LKFS, as BS.1770-4 says', () => {
  const sine = only(bandOf(997))(255);
  // As near as the middle of its band is to it.
  expect(loudnessOver(sine, 0, K_WEIGHTS) + LKFS).toBeCloseTo(-3.01, 0);
});

test('what lies low counts for less than what lies in the middle, and what lies high for four decibels more', () => {
  expect(db(0)).toBeLessThan(-8);
  expect(db(bandOf(500))).toBeCloseTo(0, 0);
  expect(db(bandOf(10000))).toBeCloseTo(4, 0);
});

test('brightness is where the sound lies, however loud it is', () => {
  const [bass, hiss, both] = [only(0, 1, 2, 3), only(13, 14, 15), only(bandOf(150), bandOf(4000))];
  expect(brightnessOf(bass(255), 0)).toBe(0);
  expect(brightnessOf(hiss(200), 0)).toBe(1);
  expect(brightnessOf(both(255), 0)).toBeCloseTo(0.5, 1);
  expect(brightnessOf(both(120), 0)).toBeCloseTo(brightnessOf(both(255), 0), 6);
  expect(brightnessOf(only()(0), 0)).toBe(0);
});
