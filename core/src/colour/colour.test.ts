import { converter, differenceCiede2000 } from 'culori';
import fc from 'fast-check';
import {
  chromaticityFromHex,
  chromaticityFromHue,
  chromaticityFromKelvin,
  chromaticityFromLinear,
  hexFromChromaticity,
  hueFromChromaticity,
  lightOfMix,
  linearFromChromaticity,
  linearFromOkLab,
  mixerFor,
  nearestSlot,
  okLabFromChromaticity,
  solveMix,
  srgbFromLinear,
} from '.';

const oklab = converter('oklab');
const display = (r: number, g: number, b: number) =>
  ({ mode: 'rgb', r: srgbFromLinear(r), g: srgbFromLinear(g), b: srgbFromLinear(b) }) as const;
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
  const light = new Float64Array(3);

  test('white on RGB is all three at full, and on RGBW the white emitter alone', () => {
    solveMix(rgb, 1, 1, 1, drives);
    for (let i = 0; i < 3; i++) expect(drives[i]).toBeCloseTo(1, 6);
    solveMix(rgbw, 1, 1, 1, drives);
    expect(drives[3]).toBeCloseTo(1, 2);
    expect(Math.max(drives[0]!, drives[1]!, drives[2]!)).toBeLessThan(0.02);
  });

  test('every colour a screen can show keeps its chromaticity on RGB and RGBW', () => {
    fc.assert(
      fc.property(unit, unit, unit, (r, g, b) => {
        fc.pre(Math.max(r, g, b) > 0.05);
        for (const mixer of [rgb, rgbw]) {
          solveMix(mixer, r, g, b, drives);
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

  test('in-gamut colours come out within a CIEDE2000 of 1.5 on every common mix, ambers and warm whites too', () => {
    const names = ['ColorAdd_R', 'ColorAdd_G', 'ColorAdd_B'] as const;
    const mixes = [
      [],
      ['ColorAdd_W'],
      ['ColorAdd_A'],
      ['ColorAdd_W', 'ColorAdd_A'],
      ['ColorAdd_WW'],
      ['ColorAdd_WW', 'ColorAdd_W', 'ColorAdd_A'],
      ['ColorAdd_L'],
      ['ColorAdd_A', 'ColorAdd_L', 'ColorAdd_C'],
      ['ColorAdd_W', 'ColorAdd_WW', 'ColorAdd_A', 'ColorAdd_L', 'ColorAdd_C'],
      ['ColorAdd_WW', 'ColorAdd_CW'],
      ['ColorAdd_Y', 'ColorAdd_GC', 'ColorAdd_BC', 'ColorAdd_BM', 'ColorAdd_RM', 'ColorAdd_M'],
    ] as const;
    const mixers = mixes.map((more) => mixerFor([...names, ...more]));
    fc.assert(
      fc.property(unit, unit, unit, (r, g, b) => {
        fc.pre(Math.max(r, g, b) > 0.1);
        const most = Math.max(r, g, b);
        for (const mixer of mixers) {
          solveMix(mixer, r / most, g / most, b / most, drives);
          lightOfMix(mixer, drives, light);
          expect(Math.min(...drives)).toBeGreaterThanOrEqual(0);
          const bright = Math.max(...light);
          const got = display(light[0]! / bright, light[1]! / bright, light[2]! / bright);
          expect(differenceCiede2000()(got, display(r / most, g / most, b / most))).toBeLessThan(1.5);
        }
      }),
      { seed: 4, numRuns: 300 },
    );
  });

  test('an amber emitter is used for amber', () => {
    const amber = mixerFor(['ColorAdd_R', 'ColorAdd_G', 'ColorAdd_B', 'ColorAdd_A']);
    const { r, g, b } = linearFromChromaticity(chromaticityFromHex('#ffa024'));
    solveMix(amber, r, g, b, drives);
    expect(drives[3]).toBe(1);
    expect(drives[2]).toBeLessThan(0.2);
  });

  test('a cyan emitter reaches what red, green and blue cannot, and a lime one is used for lime', () => {
    const names = ['ColorAdd_R', 'ColorAdd_G', 'ColorAdd_B', 'ColorAdd_L', 'ColorAdd_C'] as const;
    const five = mixerFor(names);
    const { r, g, b } = linearFromChromaticity({ x: 0.41, y: 0.54 });
    solveMix(five, r, g, b, drives);
    expect(drives[3]).toBe(1);
    const cyan = linearFromChromaticity(chromaticityFromHex('#00ffe0'));
    solveMix(five, cyan.r, cyan.g, cyan.b, drives);
    expect(drives[4]).toBeGreaterThan(0.3);
  });

  test('a colour outside the emitters keeps its hue: it goes straight towards white until it can be mixed', () => {
    fc.assert(
      fc.property(unit, unit, fc.integer({ min: 0, max: 2 }), (second, less, turn) => {
        // One emitter at full, one at some part, and one that would have to take light away.
        const wished = new Float64Array(8);
        wished[turn] = 1;
        wished[(turn + 1) % 3] = second;
        wished[(turn + 2) % 3] = -0.01 - less * 0.1;
        lightOfMix(rgb, wished, light);
        const [R, G, B] = [light[0]!, light[1]!, light[2]!];
        // Only light that could exist: tristimulus values above zero.
        fc.pre(0.4125 * R + 0.3576 * G + 0.1804 * B > 0.02 && 0.2127 * R + 0.7152 * G + 0.0722 * B > 0.02);
        fc.pre(0.0193 * R + 0.1192 * G + 0.9503 * B > 0.02);
        const wanted = chromaticityFromLinear({ r: R, g: G, b: B });
        solveMix(rgb, R, G, B, drives);
        expect(Math.min(drives[0]!, drives[1]!, drives[2]!)).toBe(0);
        lightOfMix(rgb, drives, light);
        const got = chromaticityFromLinear({ r: light[0]!, g: light[1]!, b: light[2]! });
        const angle = ({ x, y }: { x: number; y: number }) => Math.atan2(y - 0.329, x - 0.3127);
        const apart = Math.abs(angle(got) - angle(wanted));
        expect(Math.min(apart, 2 * Math.PI - apart)).toBeLessThan(0.02);
      }),
      { seed: 5, numRuns: 60 },
    );
  });
});

describe('against published values', () => {
  // G. Sharma, W. Wu, E. N. Dalal, "The CIEDE2000 color-difference formula", Color Research & Application 30 (2005), table 1.
  test.each([
    [[50, 2.6772, -79.7751], [50, 0, -82.7485], 2.0425],
    [[50, 3.1571, -77.2803], [50, 0, -82.7485], 2.8615],
    [[50, 2.8361, -74.02], [50, 0, -82.7485], 3.4412],
    [[50, -1.3802, -84.2814], [50, 0, -82.7485], 1],
    [[50, 0, 0], [50, -1, 2], 2.3669],
    [[50, 2.49, -0.001], [50, -2.49, 0.0009], 7.1792],
    [[50, 2.49, -0.001], [50, -2.49, 0.0011], 7.2195],
    [[50, -0.001, 2.49], [50, 0.0009, -2.49], 4.8045],
    [[50, 2.5, 0], [50, 0, -2.5], 4.3065],
    [[50, 2.5, 0], [73, 25, -18], 27.1492],
    [[50, 2.5, 0], [61, -5, 29], 22.8977],
    [[50, 2.5, 0], [56, -27, -3], 31.903],
    [[50, 2.5, 0], [58, 24, 15], 19.4535],
    [[60.2574, -34.0099, 36.2677], [60.4626, -34.1751, 39.4387], 1.2644],
    [[63.0109, -31.0961, -5.8663], [62.8187, -29.7946, -4.0864], 1.263],
    [[22.7233, 20.0904, -46.694], [23.0331, 14.973, -42.5619], 2.0373],
    [[90.8027, -2.0831, 1.441], [91.1528, -1.6435, 0.0447], 1.4441],
    [[2.0776, 0.0795, -1.135], [0.9033, -0.0636, -0.5514], 0.9082],
  ])('CIEDE2000 of %j and %j', (one, other, wanted) => {
    const lab = ([l, a, b]: number[]) => ({ mode: 'lab65' as const, l: l!, a: a!, b: b! });
    expect(differenceCiede2000()(lab(one), lab(other))).toBeCloseTo(wanted, 4);
  });

  // CIE 15:2004, table T.3: chromaticities of illuminants and of black bodies on the Planckian locus.
  test.each([
    [2000, 0.5267, 0.4133],
    [2856, 0.4476, 0.4074],
    [4000, 0.3804, 0.3767],
    [6500, 0.3135, 0.3236],
    [9000, 0.2866, 0.295],
  ])('a black body of %d K', (kelvin, x, y) => {
    const got = chromaticityFromKelvin(kelvin);
    expect(got.x).toBeCloseTo(x, 2);
    expect(got.y).toBeCloseTo(y, 2);
  });

  test('the corners of sRGB (IEC 61966-2-1) and its white', () => {
    for (const [hex, x, y] of [
      ['#ff0000', 0.64, 0.33],
      ['#00ff00', 0.3, 0.6],
      ['#0000ff', 0.15, 0.06],
      ['#ffffff', 0.3127, 0.329],
    ] as const) {
      expect(chromaticityFromHex(hex).x).toBeCloseTo(x, 3);
      expect(chromaticityFromHex(hex).y).toBeCloseTo(y, 3);
    }
  });
});

test('hue and saturation of a circle survive the way to chromaticity and back', () => {
  for (const hue of [0, 60, 125, 240, 300]) {
    const back = hueFromChromaticity(chromaticityFromHue(hue, 0.7));
    expect(Math.abs(back.hue - hue)).toBeLessThan(1.5);
    expect(back.saturation).toBeCloseTo(0.7, 2);
  }
});

test('a wheel takes the slot nearest to the eye and says how far off it is', () => {
  const slots = ['#ffffff', '#ff1a1a', '#2438ff'].map(chromaticityFromHex);
  expect(nearestSlot(slots, chromaticityFromHex('#ff2200')).slot).toBe(1);
  expect(nearestSlot(slots, chromaticityFromHex('#2438ff')).off).toBeLessThan(0.5);
  expect(nearestSlot(slots, chromaticityFromHex('#00ff00')).off).toBeGreaterThan(20);
});

test('a pale tint that a wheel lacks is its white and not its deepest neighbour; a deep one is no white', () => {
  const nearest = (hex: string, ...wheel: string[]) =>
    wheel[nearestSlot(wheel.map(chromaticityFromHex), chromaticityFromHex(hex)).slot];
  const wheel = ['#ffffff', '#ff2a00', '#ff7a00', '#fff000', '#00ff30', '#00d5ff', '#2030ff', '#8000ff'];
  for (const pale of ['#ffcf9a', '#ffd9a0', '#ffe4c4', '#d8e8ff']) expect(nearest(pale, ...wheel)).toBe('#ffffff');
  expect(nearest('#ffe060', ...wheel)).toBe('#fff000');
  expect(nearest('#ff5a8a', ...wheel)).not.toBe('#ffffff');
  // Of its own hue a deep one is meant.
  expect(nearest('#ffcf9a', ...wheel, '#ff9b00')).toBe('#ff9b00');
  // Without a white the nearest is taken all the same, and white itself is white however deep the others are.
  expect(nearest('#ffd9a0', '#2030ff', '#fff000')).toBe('#fff000');
  expect(nearest('#ffffff', '#fff000', '#ffffff')).toBe('#ffffff');
});
