// Between chromaticity, linear light, display colour and OKLab. Spaces are told apart by their types.

/** CIE 1931 chromaticity of a light, 2° observer. The light meant is the brightest a screen could show of it. */
export type Chromaticity = { readonly x: number; readonly y: number };

/** Linear light on the sRGB primaries, 1 = full. Components may leave 0…1 for colours no screen can show. */
export type LinearRgb = { readonly r: number; readonly g: number; readonly b: number };

/** OKLab: L 0…1, a and b about -0.4…0.4. Source: B. Ottosson, "A perceptual color space for image processing", 2020. */
export type OkLab = { readonly L: number; readonly a: number; readonly b: number };

/** D65, the white of sRGB (IEC 61966-2-1). */
export const D65: Chromaticity = { x: 0.3127, y: 0.329 };

/** Linear light of that chromaticity, scaled so that its largest component is 1. Negative components are held at 0. */
export function linearFromChromaticity({ x, y }: Chromaticity): LinearRgb {
  const X = x / y;
  const Z = (1 - x - y) / y;
  // XYZ to linear sRGB: the inverse of the matrix in IEC 61966-2-1, Y = 1.
  const r = Math.max(0, 3.2404542 * X - 1.5371385 - 0.4985314 * Z);
  const g = Math.max(0, -0.969266 * X + 1.8760108 + 0.041556 * Z);
  const b = Math.max(0, 0.0556434 * X - 0.2040259 + 1.0572252 * Z);
  const most = Math.max(r, g, b);
  return { r: r / most, g: g / most, b: b / most };
}

/** Chromaticity of a linear light. Black has none and gives white. */
export function chromaticityFromLinear({ r, g, b }: LinearRgb): Chromaticity {
  const X = 0.4124564 * r + 0.3575761 * g + 0.1804375 * b;
  const Y = 0.2126729 * r + 0.7151522 * g + 0.072175 * b;
  const Z = 0.0193339 * r + 0.119192 * g + 0.9503041 * b;
  const sum = X + Y + Z;
  return sum > 0 ? { x: X / sum, y: Y / sum } : D65;
}

/** Chromaticity of a display colour such as `#ff7a59`. @throws RangeError when it is not six hexadecimal digits. */
export function chromaticityFromHex(hex: string): Chromaticity {
  const match = /^#?([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i.exec(hex);
  if (!match) throw new RangeError(`A display colour is # and six hexadecimal digits, got: ${hex}`);
  const [r, g, b] = match.slice(1).map((pair) => linearFromSrgb(parseInt(pair, 16) / 255));
  return chromaticityFromLinear({ r: r!, g: g!, b: b! });
}

/** Display colour of a chromaticity at full brightness, such as `#ff7a59`. */
export function hexFromChromaticity(colour: Chromaticity): string {
  const { r, g, b } = linearFromChromaticity(colour);
  const pair = (linear: number) =>
    Math.round(srgbFromLinear(linear) * 255)
      .toString(16)
      .padStart(2, '0');
  return `#${pair(r)}${pair(g)}${pair(b)}`;
}

/** Linear light of one sRGB channel; 0…1 for 0…1. Source: IEC 61966-2-1:1999, straight up to 0.04045. */
export function linearFromSrgb(encoded: number): number {
  return encoded <= 0.04045 ? encoded / 12.92 : ((encoded + 0.055) / 1.055) ** 2.4;
}

/** One sRGB channel of a linear light; inverse of `linearFromSrgb`. Input is held within 0…1. */
export function srgbFromLinear(linear: number): number {
  const held = linear < 0 ? 0 : linear > 1 ? 1 : linear;
  return held <= 0.0031308 ? held * 12.92 : 1.055 * held ** (1 / 2.4) - 0.055;
}

/** OKLab of a chromaticity at full brightness. */
export function okLabFromChromaticity(colour: Chromaticity): OkLab {
  const { r, g, b } = linearFromChromaticity(colour);
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  return {
    L: 0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    a: 1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    b: 0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  };
}

/** Writes the linear light of an OKLab colour to `out[0..2]`. */
export function linearFromOkLab(L: number, a: number, b: number, out: Float64Array): void {
  linearFromOkLabAt(Float64Array.of(L, a, b), 0, out);
}

/** The same of a colour that is in a list from `at` on, for the frame loop: numbers that are passed are put on the heap. */
export function linearFromOkLabAt(lab: Float64Array, at: number, out: Float64Array): void {
  const L = lab[at]!;
  const a = lab[at + 1]!;
  const b = lab[at + 2]!;
  const p = L + 0.3963377774 * a + 0.2158037573 * b;
  const q = L - 0.1055613458 * a - 0.0638541728 * b;
  const t = L - 0.0894841775 * a - 1.291485548 * b;
  // Multiplied out: a power costs eight times as much.
  const l = p * p * p;
  const m = q * q * q;
  const s = t * t * t;
  out[0] = 4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s;
  out[1] = -1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s;
  out[2] = -0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s;
}

/**
 * Chromaticity of a black body of 1667 to 25000 K; colder and hotter ones are held there. Source: the cubic fit of the
 * Planckian locus in B. Kang et al., Journal of the Korean Physical Society 41 (2002), page 865.
 */
export function chromaticityFromKelvin(kelvin: number): Chromaticity {
  const t = Math.min(25000, Math.max(1667, kelvin));
  const [a, b] = [1e9 / t ** 3, 1e6 / t ** 2];
  const c = 1e3 / t;
  const x =
    t <= 4000
      ? -0.2661239 * a - 0.234358 * b + 0.8776956 * c + 0.17991
      : -3.0258469 * a + 2.1070379 * b + 0.2226347 * c + 0.24039;
  const y =
    t <= 2222
      ? -1.1063814 * x ** 3 - 1.3481102 * x ** 2 + 2.18555832 * x - 0.20219683
      : t <= 4000
        ? -0.9549476 * x ** 3 - 1.37418593 * x ** 2 + 2.09137015 * x - 0.16748867
        : 3.081758 * x ** 3 - 5.8733867 * x ** 2 + 3.75112997 * x - 0.37001483;
  return { x, y };
}
