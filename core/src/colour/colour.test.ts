import { converter } from 'culori';
import fc from 'fast-check';
import {
  chromaticityFromHex,
  chromaticityFromLinear,
  hexFromChromaticity,
  lightOfMix,
  linearFromChromaticity,
  linearFromOkLab,
  mixerFor,
  nearestSlot,
  okLabFromChromaticity,
  solveMix,
} from '.';

const oklab = converter('oklab');
const unit = fc.double({ min: 0, max: 1, noNaN: true });

test('display colours survive the way to chromaticity and back', () => {
  for (const hex of ['#ff7a59', '#ffffff', '#00ff00', '#4cc9ff', '#ff00aa'])
    expect(hexFromChromaticity(chromaticityFromHex(hex))).toBe(hex);
});

test('OKLab agrees with an independent library', () => {
  for (const hex of ['#ff7a59', '#0000ff', '#ffd400', '#9a4dff']) {
    const ours = okLabFromChromaticity(chromaticityFromHex(hex));
    const theirs = oklab(hex)!;
    expect(ours.L).toBeCloseTo(theirs.l, 3);
    expect(ours.a).toBeCloseTo(theirs.a, 3);
    expect(ours.b).toBeCloseTo(theirs.b, 3);
  }
});

test('linear light comes back from OKLab', () => {
  const out = new Float64Array(3);
  const light = linearFromChromaticity({ x: 0.25, y: 0.3 });
  const { L, a, b } = okLabFromChromaticity({ x: 0.25, y: 0.3 });
  linearFromOkLab(L, a, b, out);
  expect(out[0]).toBeCloseTo(light.r, 5);
  expect(out[1]).toBeCloseTo(light.g, 5);
  expect(out[2]).toBeCloseTo(light.b, 5);
});

describe('mixing', () => {
  const rgb = mixerFor(['ColorAdd_R', 'ColorAdd_G', 'ColorAdd_B']);
  const rgbw = mixerFor(['ColorAdd_R', 'ColorAdd_G', 'ColorAdd_B', 'ColorAdd_W']);
  const drives = new Float64Array(8);
  const scratch = new Float64Array(8);
  const light = new Float64Array(3);

  test('white on RGB is all three at full, and on RGBW the white emitter alone', () => {
    solveMix(rgb, 1, 1, 1, drives, scratch);
    for (let i = 0; i < 3; i++) expect(drives[i]).toBeCloseTo(1, 6);
    solveMix(rgbw, 1, 1, 1, drives, scratch);
    expect(drives[3]).toBeCloseTo(1, 2);
    expect(Math.max(drives[0]!, drives[1]!, drives[2]!)).toBeLessThan(0.02);
  });

  test('every colour a screen can show keeps its chromaticity on RGB and RGBW', () => {
    fc.assert(
      fc.property(unit, unit, unit, (r, g, b) => {
        fc.pre(Math.max(r, g, b) > 0.05);
        for (const mixer of [rgb, rgbw]) {
          solveMix(mixer, r, g, b, drives, scratch);
          for (let i = 0; i < mixer.count; i++) {
            expect(drives[i]).toBeGreaterThanOrEqual(0);
            expect(drives[i]).toBeLessThanOrEqual(1 + 1e-9);
          }
          lightOfMix(mixer, drives, light);
          const got = chromaticityFromLinear({ r: light[0]!, g: light[1]!, b: light[2]! });
          const wanted = chromaticityFromLinear({ r, g, b });
          expect(Math.hypot(got.x - wanted.x, got.y - wanted.y)).toBeLessThan(0.004);
        }
      }),
      { seed: 3, numRuns: 300 },
    );
  });

  test('a colour outside the emitters is met as nearly as no negative light allows', () => {
    // Far more saturated green than the emitter: green alone is the best there is.
    solveMix(rgb, -1.2, 1, -0.4, drives, scratch);
    expect(drives[0]).toBe(0);
    expect(drives[2]).toBe(0);
    expect(drives[1]).toBeGreaterThan(0.5);
  });
});

test('a wheel takes the slot nearest to the eye and says how far off it is', () => {
  const slots = ['#ffffff', '#ff1a1a', '#2438ff'].map(chromaticityFromHex);
  expect(nearestSlot(slots, chromaticityFromHex('#ff2200')).slot).toBe(1);
  expect(nearestSlot(slots, chromaticityFromHex('#2438ff')).off).toBeLessThan(0.5);
  expect(nearestSlot(slots, chromaticityFromHex('#00ff00')).off).toBeGreaterThan(20);
});
