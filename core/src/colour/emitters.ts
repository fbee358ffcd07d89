// How strongly each emitter of a lamp must shine so that their sum has a wanted colour.

import type { Chromaticity } from './spaces';

/**
 * The emitters a mix may have, by GDTF attribute name, with the chromaticity usual for such LEDs. Ultraviolet is none of
 * them: there is next to nothing of it to see, and what glows in it should glow only when asked.
 */
export const EMITTERS = {
  ColorAdd_R: { x: 0.69, y: 0.308 },
  ColorAdd_G: { x: 0.19, y: 0.72 },
  ColorAdd_B: { x: 0.14, y: 0.045 },
  ColorAdd_W: { x: 0.3127, y: 0.329 },
  ColorAdd_WW: { x: 0.44, y: 0.403 },
  ColorAdd_CW: { x: 0.3063, y: 0.3165 },
  ColorAdd_A: { x: 0.57, y: 0.42 },
  ColorAdd_L: { x: 0.41, y: 0.55 },
  ColorAdd_C: { x: 0.08, y: 0.42 },
  ColorAdd_Y: { x: 0.49, y: 0.48 },
  ColorAdd_GC: { x: 0.09, y: 0.64 },
  ColorAdd_BC: { x: 0.1, y: 0.15 },
  ColorAdd_BM: { x: 0.18, y: 0.03 },
  ColorAdd_RM: { x: 0.45, y: 0.22 },
  ColorAdd_M: { x: 0.35, y: 0.16 },
} as const satisfies Record<string, Chromaticity>;

export type EmitterName = keyof typeof EMITTERS;

/**
 * A lamp's mixer, ready to solve. `inverse` turns linear sRGB light into red, green and blue drive;
 * `extras` are the drives of red, green and blue that each further emitter stands for, at its full.
 */
export type Mixer = {
  readonly columns: Float64Array;
  readonly inverse: Float64Array;
  readonly extras: Float64Array;
  readonly count: number;
  /** Of a lamp that lacks red, green or blue; null where it has all three. */
  readonly between: Between | null;
};

/** Emitters along the line of chromaticities from the coldest to the warmest: where that begins, its way, and each one's place. */
type Between = { readonly axis: Float64Array; readonly places: Float64Array };

/** Chromaticities measured on a lamp; the usual ones count for emitters not named. */
export type MeasuredEmitters = { readonly [name in EmitterName]?: Chromaticity };

/**
 * Scales red, green and blue so that all three at full give D65 white of luminance 1, as lamps are balanced. Of a lamp that
 * lacks one of them all emitters are further ones, red included: it goes from the coldest to the warmest of them.
 */
export function mixerFor(names: readonly EmitterName[], measured: MeasuredEmitters = {}): Mixer {
  const colours = { ...EMITTERS, ...measured };
  const columns = balancedColumns(colours);
  const inverse = inverse3(columns);
  const whole = names.filter(isPrimary).length === 3;
  const further = names.filter((name) => !whole || !isPrimary(name));
  const extras = new Float64Array(further.length * 3);
  further.forEach((name, i) => {
    const [r, g, b] = lightOf(colours[name]);
    const most = Math.max(r, g, b);
    multiply3(inverse, r / most, g / most, b / most, extras, i * 3);
  });
  const between = whole ? null : betweenOf(further.map((name) => colours[name]));
  return { columns, inverse, extras, count: 3 + further.length, between };
}

function betweenOf(colours: readonly Chromaticity[]): Between {
  const [cold, warm] = [...colours].sort((a, b) => a.x - b.x).filter((_, i, all) => i === 0 || i === all.length - 1);
  const [dx, dy] = [(warm ?? cold!).x - cold!.x, (warm ?? cold!).y - cold!.y];
  const long = dx * dx + dy * dy || 1;
  const axis = Float64Array.of(cold!.x, cold!.y, dx / long, dy / long);
  return { axis, places: Float64Array.from(colours, ({ x, y }) => placeAlong(axis, x, y)) };
}

const placeAlong = (axis: Float64Array, x: number, y: number): number => {
  const place = (x - axis[0]!) * axis[2]! + (y - axis[1]!) * axis[3]!;
  return place > 0 ? (place < 1 ? place : 1) : 0;
};

export function isPrimary(name: EmitterName): boolean {
  return name === 'ColorAdd_R' || name === 'ColorAdd_G' || name === 'ColorAdd_B';
}

/**
 * Writes drives (0…1) for red, green, blue and the further emitters, in the order given to `mixerFor`, to `out`.
 * No drive is below zero: what the primaries cannot mix is brought to the nearest colour of its hue. Then whites,
 * ambers, limes and cyans take over what they can, as they are brighter and render faces better; an emitter more saturated than the
 * primaries is met half way by the one across from it. All are then scaled until the strongest is at full: a colour means the brightest this lamp has
 * of it, and how bright it shines is the level's business.
 * @param first where in `out` the drives begin.
 */
export function solveMix(mixer: Mixer, r: number, g: number, b: number, out: Float64Array, first = 0): void {
  solveMixOf(mixer, Float64Array.of(r, g, b), out, first);
}

/** The same of linear light in `light[0..2]`, for the frame loop: numbers that are passed are put on the heap. */
export function solveMixOf(mixer: Mixer, light: Float64Array, out: Float64Array, first: number): void {
  if (mixer.between) return solveBetween(mixer.between, light, out, first);
  const { inverse, extras, count } = mixer;
  multiply3(inverse, light[0]!, light[1]!, light[2]!, out, first);
  let x = out[first]!;
  let y = out[first + 1]!;
  let z = out[first + 2]!;
  if (x < 0 || y < 0 || z < 0) {
    towardsWhite(out, first);
    x = out[first]!;
    y = out[first + 1]!;
    z = out[first + 2]!;
  }
  let most = 0;
  for (let i = 3; i < count; i++) {
    const at = (i - 3) * 3;
    const ex = extras[at]!;
    const ey = extras[at + 1]!;
    const ez = extras[at + 2]!;
    let share = 1;
    if (ex > 1e-9 && x < share * ex) share = x / ex;
    if (ey > 1e-9 && y < share * ey) share = y / ey;
    if (ez > 1e-9 && z < share * ez) share = z / ez;
    if (share < 0) share = 0;
    out[first + i] = share;
    if (share > most) most = share;
    x = x > share * ex ? x - share * ex : 0;
    y = y > share * ey ? y - share * ey : 0;
    z = z > share * ez ? z - share * ez : 0;
  }
  if (x > most) most = x;
  if (y > most) most = y;
  if (z > most) most = z;
  const scale = most > 1e-6 ? 1 / most : 1;
  out[first] = x * scale;
  out[first + 1] = y * scale;
  out[first + 2] = z * scale;
  for (let i = 3; i < count; i++) out[first + i] = out[first + i]! * scale;
}

/** The two emitters next to the wanted colour on the line give it, the nearer one at full; both in the middle between them. */
function solveBetween({ axis, places }: Between, light: Float64Array, out: Float64Array, first: number): void {
  const X = 0.4124564 * light[0]! + 0.3575761 * light[1]! + 0.1804375 * light[2]!;
  const Y = 0.2126729 * light[0]! + 0.7151522 * light[1]! + 0.072175 * light[2]!;
  const sum = X + Y + 0.0193339 * light[0]! + 0.119192 * light[1]! + 0.9503041 * light[2]!;
  const wanted = sum > 1e-9 ? placeAlong(axis, X / sum, Y / sum) : 0;
  let below = -1;
  let above = 2;
  for (let i = 0; i < places.length; i++) {
    const place = places[i]!;
    if (place <= wanted && place > below) below = place;
    if (place > wanted && place < above) above = place;
  }
  const share = above > 1 ? 0 : (wanted - below) / (above - below);
  out.fill(0, first, first + 3);
  for (let i = 0; i < places.length; i++) {
    const drive = places[i] === below ? 2 - 2 * share : places[i] === above ? 2 * share : 0;
    out[first + 3 + i] = drive > 1 ? 1 : drive;
  }
}

/**
 * Brings a colour outside the primaries to the nearest one inside on the straight way to white, which keeps its dominant
 * wavelength, and so its hue. White is all three alike, as lamps are balanced.
 */
function towardsWhite(out: Float64Array, first: number): void {
  const white = Math.max(out[first]!, out[first + 1]!, out[first + 2]!, 1e-6);
  let share = 0;
  for (let k = 0; k < 3; k++) {
    const drive = out[first + k]!;
    if (drive < 0) share = Math.max(share, -drive / (white - drive));
  }
  for (let k = 0; k < 3; k++) out[first + k] = Math.max(0, out[first + k]! + share * (white - out[first + k]!));
}

/** Row-major 3x3: the linear sRGB light of red, green and blue, each scaled so that their sum is white. */
function balancedColumns(colours: Readonly<Record<EmitterName, Chromaticity>>): Float64Array {
  const raw = new Float64Array(9);
  (['ColorAdd_R', 'ColorAdd_G', 'ColorAdd_B'] as const).forEach((name, i) => {
    lightOf(colours[name]).forEach((part, k) => (raw[k * 3 + i] = part));
  });
  const scale = new Float64Array(3);
  multiply3(inverse3(raw), 1, 1, 1, scale, 0);
  return raw.map((value, i) => value * scale[i % 3]!);
}

/**
 * Linear sRGB light of a chromaticity at luminance 1; below zero where it lies outside what a screen shows, as most LEDs do.
 * Source: the inverse of the matrix in IEC 61966-2-1.
 */
function lightOf({ x, y }: Chromaticity): readonly [number, number, number] {
  const X = x / y;
  const Z = (1 - x - y) / y;
  return [
    3.2404542 * X - 1.5371385 - 0.4985314 * Z,
    -0.969266 * X + 1.8760108 + 0.041556 * Z,
    0.0556434 * X - 0.2040259 + 1.0572252 * Z,
  ];
}

/** The light that drives of a mixer give, as linear sRGB: for pictures and for checking a solution. */
export function lightOfMix(mixer: Mixer, drives: ArrayLike<number>, out: Float64Array): void {
  let r = drives[0] ?? 0;
  let g = drives[1] ?? 0;
  let b = drives[2] ?? 0;
  for (let i = 3; i < mixer.count; i++) {
    const at = (i - 3) * 3;
    const drive = drives[i] ?? 0;
    r += drive * mixer.extras[at]!;
    g += drive * mixer.extras[at + 1]!;
    b += drive * mixer.extras[at + 2]!;
  }
  multiply3(mixer.columns, r, g, b, out, 0);
}

function multiply3(m: Float64Array, a: number, b: number, c: number, out: Float64Array, at: number): void {
  out[at] = m[0]! * a + m[1]! * b + m[2]! * c;
  out[at + 1] = m[3]! * a + m[4]! * b + m[5]! * c;
  out[at + 2] = m[6]! * a + m[7]! * b + m[8]! * c;
}

function inverse3(m: Float64Array): Float64Array {
  const [a, b, c, d, e, f, g, h, i] = m as unknown as number[];
  const A = e! * i! - f! * h!;
  const B = f! * g! - d! * i!;
  const C = d! * h! - e! * g!;
  const det = a! * A + b! * B + c! * C;
  return Float64Array.from(
    [
      A,
      c! * h! - b! * i!,
      b! * f! - c! * e!,
      B,
      a! * i! - c! * g!,
      c! * d! - a! * f!,
      C,
      b! * g! - a! * h!,
      a! * e! - b! * d!,
    ],
    (value) => value / det,
  );
}
