// Damaged and hostile input for every reader, by fixed seeds: `npm run fuzz`, and some seconds of it with the tests.

/** What a reader made of a try. */
export type Outcome = 'taken' | 'refused';

/** Something that reads what comes from outside. */
export type Reader = {
  readonly name: string;
  /** Well-formed input to begin from. */
  readonly samples: readonly Uint8Array[];
  /** Whether the samples are JSON, a document or one a line, and should be damaged as such half of the time. */
  readonly json: boolean;
  readonly read: (bytes: Uint8Array) => Outcome | Promise<Outcome>;
};

export type Tally = {
  readonly name: string;
  tries: number;
  refused: number;
  taken: number;
  /** What was thrown, or made that cannot be, with the seed that brings it back. */
  readonly crashes: string[];
  /** Seeds that took more than a second, or more than 300 MB. */
  readonly slow: string[];
  readonly large: string[];
};

/** Numbers of 0…1 from a seed: mulberry32, a public-domain generator. */
export function randomFrom(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = Math.imul(a ^ (a >>> 15), a | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** What people with bad intent, and broken disks, put in the place of a value. */
const NASTY: readonly unknown[] = [
  null,
  true,
  0,
  -1,
  1e308,
  -1e308,
  5e-324,
  2 ** 31,
  2 ** 53,
  0.1,
  '',
  ' ',
  'constructor',
  '__proto__',
  'toString',
  'hasOwnProperty',
  '../../x',
  '\u0000',
  '𝕊'.repeat(200),
  'x'.repeat(100_000),
  [],
  {},
  [[[[]]]],
  [null],
  { type: 'hold', value: 1 },
  { type: 'wave' },
  new Array(500).fill(0),
  'NaN',
  '1e999',
];

type Random = () => number;
const below = (random: Random, n: number) => Math.floor(random() * n);
const oneOf = <T>(random: Random, list: readonly T[]): T => list[below(random, list.length)]!;

/** One value of a document put wrong: replaced, left out, doubled, moved, or called by another name. */
function damagedJson(value: unknown, random: Random, depth = 0): unknown {
  if (typeof value !== 'object' || value === null || random() < 0.08 * depth) return oneOf(random, NASTY);
  if (Array.isArray(value)) {
    if (value.length === 0) return [oneOf(random, NASTY)];
    const at = below(random, value.length);
    const kind = random();
    if (kind < 0.08) return value.filter((_, i) => i !== at);
    if (kind < 0.14) return [...value, ...new Array<unknown>(1 + below(random, 40)).fill(value[at])];
    if (kind < 0.2) return [...value].reverse();
    return value.map((one, i) => (i === at ? damagedJson(one, random, depth + 1) : one));
  }
  const keys = Object.keys(value);
  if (keys.length === 0) return { [String(oneOf(random, NASTY)).slice(0, 40)]: 1 };
  const key = oneOf(random, keys);
  const kind = random();
  const own = value as Readonly<Record<string, unknown>>;
  if (kind < 0.06) return Object.fromEntries(Object.entries(own).filter(([name]) => name !== key));
  if (kind < 0.1) return { ...own, [oneOf(random, ['constructor', 'toString', 'type', 'id', 'x'])]: own[key] };
  if (kind < 0.14) return { ...own, [key]: own[oneOf(random, keys)] };
  return { ...own, [key]: damagedJson(own[key], random, depth + 1) };
}

const EDGES = [0, 1, 0x7f, 0x80, 0xff];

/** Bytes put wrong: flipped, set, cut out, doubled, cut short, or crossed with others. */
function damagedBytes(bytes: Uint8Array, random: Random, other: Uint8Array): Uint8Array {
  const damaged = Uint8Array.from(bytes);
  const at = below(random, Math.max(1, bytes.length));
  const length = 1 + below(random, Math.min(64, Math.max(1, bytes.length - at)));
  switch (below(random, 7)) {
    case 0:
      if (damaged.length > 0) damaged[at] = damaged[at]! ^ (1 << below(random, 8));
      return damaged;
    case 1:
      damaged.fill(oneOf(random, EDGES), at, at + 1 + below(random, 8));
      return damaged;
    case 2:
      return Uint8Array.from([...bytes.subarray(0, at), ...bytes.subarray(at + length)]);
    case 3: {
      const again = new Uint8Array(bytes.length + length);
      again.set(bytes.subarray(0, at + length));
      again.set(bytes.subarray(at), at + length);
      return again;
    }
    case 4:
      return bytes.slice(0, at);
    case 5: {
      const crossed = new Uint8Array(at + Math.max(0, other.length - at));
      crossed.set(bytes.subarray(0, at));
      crossed.set(other.subarray(at), at);
      return crossed;
    }
    default:
      for (let i = 0; i < 4; i++) damaged[below(random, Math.max(1, bytes.length))] = below(random, 256);
      return damaged;
  }
}

/** A try of a reader: the same for the same seed. */
export function damaged({ samples, json }: Reader, seed: number): Uint8Array {
  const random = randomFrom(seed);
  let bytes = oneOf(random, samples);
  const times = 1 + below(random, 3);
  const asJson = json && random() < 0.75;
  for (let i = 0; i < times; i++)
    bytes = asJson ? damagedText(bytes, random) : damagedBytes(bytes, random, oneOf(random, samples));
  return bytes;
}

function damagedText(bytes: Uint8Array, random: Random): Uint8Array {
  const lines = new TextDecoder().decode(bytes).split('\n');
  const at = below(random, lines.length);
  try {
    lines[at] = JSON.stringify(damagedJson(JSON.parse(lines[at]!), random)) ?? 'null';
  } catch {
    lines[at] = 'x';
  }
  return new TextEncoder().encode(lines.join('\n'));
}

const SLOW_MS = 1000;
const LARGE_BYTES = 300e6;

/** What a host has and core has not. */
export type Clock = { readonly ms: () => number; readonly bytes: () => number };

/** Tries a reader with the seeds `from` on, until `enough` says so. */
export async function fuzz(
  reader: Reader,
  from: number,
  enough: (tries: number) => boolean,
  clock: Clock,
): Promise<Tally> {
  const tally: Tally = { name: reader.name, tries: 0, refused: 0, taken: 0, crashes: [], slow: [], large: [] };
  for (let seed = from; !enough(tally.tries); seed++) {
    const bytes = damaged(reader, seed);
    const begun = clock.ms();
    const held = clock.bytes();
    try {
      tally[await reader.read(bytes)]++;
    } catch (error) {
      tally.crashes.push(
        `${reader.name}, seed ${seed}: ${error instanceof Error ? (error.stack ?? error.message) : String(error)}`,
      );
    }
    tally.tries++;
    if (clock.ms() - begun > SLOW_MS)
      tally.slow.push(`${reader.name}, seed ${seed}: ${Math.round(clock.ms() - begun)} ms`);
    if (clock.bytes() - held > LARGE_BYTES)
      tally.large.push(`${reader.name}, seed ${seed}: ${Math.round((clock.bytes() - held) / 1e6)} MB`);
  }
  return tally;
}
