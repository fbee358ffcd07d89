import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readBundle } from '../files';
import { wordsFor } from '../problem';
import { wavOf, type WavKind } from '../testing/wav';
import { beatAt } from '../time';
import { seconds } from '../units';
import { analyse, audioTypeOf, type Analysis } from '.';

const root = join(__dirname, '../../..');
const run = (bytes: Uint8Array, name = 'test.wav') => analyse(bytes, name, async () => 'go-on');

/** A click every `period` seconds, the first of four louder and lower, as a WAV of any kind. */
function clicks({
  rate = 44100,
  length = 20,
  period = 0.5,
  ...kind
}: WavKind & { rate?: number; length?: number; period?: number } = {}): Uint8Array {
  const samples = Float32Array.from({ length: Math.round(rate * length) }, (_, i) => {
    const since = (i / rate) % period;
    const first = Math.floor(i / rate / period) % 4 === 0;
    return Math.sin(2 * Math.PI * (first ? 90 : 900) * since) * Math.exp(-since * 40) * (first ? 0.95 : 0.5);
  });
  return wavOf(samples, rate, { channels: 2, ...kind });
}

const fMeasure = (truth: readonly number[], found: readonly number[]) => {
  const hits = truth.filter((beat) => found.some((one) => Math.abs(one - beat) <= 0.07)).length;
  return (2 * hits) / (truth.length + found.length);
};

async function analysed(bytes: Uint8Array, name?: string): Promise<Analysis> {
  const result = await run(bytes, name);
  if (!result.ok) throw new Error(wordsFor(result.problem));
  return result.value;
}

describe('formats', () => {
  test.each([
    ['16 bit stereo', {}],
    ['mono, 8 kHz', { rate: 8000, channels: 1 }],
    ['8 bit', { bits: 8 }],
    ['24 bit', { bits: 24 }],
    ['96 kHz', { rate: 96000, bits: 24 }],
    ['float', { bits: 32, float: true }],
  ])('clicks at 120 in a WAV of %s', async (_, kind) => {
    const found = await analysed(clicks(kind));
    expect(found.bpm).toBeCloseTo(120, 0);
    expect(found.duration).toBeCloseTo(20, 1);
    expect(
      fMeasure(
        Array.from({ length: 40 }, (_unused, i) => i * 0.5),
        found.beats,
      ),
    ).toBeGreaterThan(0.93);
    expect(found.peaks.length).toBeGreaterThan(1950);
  });

  // A deep drum is no chord that begins or ends.
  test.each([84, 100, 133])('bars of clicks at %i begin with the deep one', async (bpm) => {
    const { downbeats } = await analysed(clicks({ period: 60 / bpm, length: 24 }));
    const bar = 240 / bpm;
    expect(downbeats.length).toBeGreaterThan(Math.floor(24 / bar) - 2);
    for (const one of downbeats) expect(Math.abs(one - Math.round(one / bar) * bar)).toBeLessThan(0.03);
  });

  test('the kind is read from the bytes', () => {
    expect(audioTypeOf(clicks({ length: 0.1 }))).toBe('wav');
    expect(audioTypeOf(Uint8Array.of(0xff, 0xfb, 0x90, 0x64))).toBe('mp3');
    expect(audioTypeOf(new TextEncoder().encode('OggS'))).toBe('ogg');
    expect(audioTypeOf(new TextEncoder().encode('fLaC'))).toBe('flac');
    expect(audioTypeOf(new TextEncoder().encode('Dear friends, tonight'))).toBeUndefined();
  });
});

// The MP3 decoder tells the console of what it cannot read; the sentence for the user is what counts here.
beforeAll(() => void jest.spyOn(console, 'error').mockImplementation(() => undefined));

describe('bad audio: a sentence, never a throw', () => {
  test.each([
    ['empty', new Uint8Array(), 'is empty'],
    ['a letter', new TextEncoder().encode('Dear friends, tonight we play'), 'not music Hovlix can read'],
    ['a WAV without sound', clicks({ length: 0 }), 'cut short'],
    ['a WAV cut in its header', clicks().slice(0, 30), 'cut short'],
    ['0.3 s', clicks({ length: 0.3 }), 'lasts only 0.3 s'],
    [
      'an OGG with Opus in it',
      new TextEncoder().encode('OggS\0\x02' + '\0'.repeat(20) + '\x01\x13OpusHead'),
      'it is Opus',
    ],
    ['an M4A', new TextEncoder().encode('\0\0\0\x20ftypM4A ' + '\0'.repeat(40)), 'it is MP4 or M4A'],
    ['an OGG cut in its first page', new TextEncoder().encode('OggS\0\x02' + '\0'.repeat(60)), 'cut short'],
    [
      'an MP3 of noise',
      Uint8Array.from({ length: 4000 }, (_, i) => (i < 4 ? [0xff, 0xfb, 0x90, 0x64][i]! : (i * 7919) & 127)),
      '“take.mp3”',
    ],
    ['a FLAC of nothing', new TextEncoder().encode('fLaC' + '\0'.repeat(80)), '“take.mp3”'],
  ])('%s', async (_, bytes, sentence) => {
    const result = await run(bytes, 'take.mp3');
    expect(!result.ok && wordsFor(result.problem)).toContain(sentence);
  });

  test('a WAV cut in its sound is read as far as it goes', async () => {
    const whole = clicks({ length: 20 });
    expect((await analysed(whole.slice(0, whole.length / 2))).duration).toBeCloseTo(10, 1);
  });

  test('silence has no beats: a steady 120, and it says that nothing was found', async () => {
    const silent = clicks();
    silent.fill(0, 44);
    const found = await analysed(silent);
    expect(found).toMatchObject({ found: false, bpm: 120, beats: [] });
  });

  test('cancelling stops at the next slice', async () => {
    let asked = 0;
    const result = await analyse(clicks({ length: 60 }), 'x', async () => (++asked === 3 ? 'stop' : 'go-on'));
    expect(!result.ok && result.problem.code).toBe('cancelled');
    expect(asked).toBe(3);
  });
});

describe('the songs of the demo, against the beats they were played from', () => {
  const bundle = readBundle(readFileSync(join(root, 'demo/boathouse.hovlix')), 'boathouse.hovlix');
  if (!bundle.ok) throw new Error(wordsFor(bundle.problem));
  const { show, music } = bundle.value;

  test.each(show.songs.map((song) => [song.title, song] as const))('%s', async (_, song) => {
    const truth: { beats: number[]; meter: string } = JSON.parse(
      readFileSync(join(root, `demo/truth/${song.id}.json`), 'utf8'),
    );
    const found = await analysed(music.get(song.music!.hash)!.bytes, song.title);
    expect(fMeasure(truth.beats, found.beats)).toBeGreaterThan(0.9);
    expect(`${found.meter[0]!.numerator}/${found.meter[0]!.denominator}`).toBe(truth.meter);
    // The show itself carries the truth: bar lines fall on its downbeats.
    const pulse = song.meter[0]!.denominator === 8 ? 1.5 : 1;
    expect(beatAt(song.tempo, seconds(truth.beats[8]!))).toBeCloseTo(8 * pulse, 3);
  });
});

/**
 * Recordings with truth, where they are: what is found in the first and the last of them by name, and what was true.
 * `npm run bench:music` goes through all. Everything before 5 s is left out.
 */
async function scored(folder: string): Promise<{ beats: number; downbeats: number }> {
  const pieces = readdirSync(folder).filter((name) => name.endsWith('.ogg'));
  const late = (beats: readonly number[]) => beats.filter((beat) => beat >= 5);
  const sums = { beats: 0, downbeats: 0 };
  for (const name of [pieces[0]!, pieces.at(-1)!]) {
    const truth: { beats: number[]; downbeats: number[] } = JSON.parse(
      readFileSync(join(folder, name.replace('.ogg', '.json')), 'utf8'),
    );
    const found = await analysed(readFileSync(join(folder, name)), name);
    sums.beats += fMeasure(late(truth.beats), late(found.beats)) / 2;
    sums.downbeats += fMeasure(late(truth.downbeats), late(found.downbeats)) / 2;
  }
  return sums;
}

const shared = (name: string) => join(root, '../shared', name);
const where = (folder: string) => (existsSync(folder) ? test : test.skip);

where(shared('audio'))(
  'two synthesised pieces with exact truth, not trained on: beats 0.97, downbeats 0.9',
  async () => {
    const { beats, downbeats } = await scored(shared('audio'));
    expect(beats).toBeGreaterThan(0.97);
    expect(downbeats).toBeGreaterThan(0.9);
  },
  300_000,
);

where(shared('audio-real'))(
  // Which beat a bar begins on is right or wrong for a whole piece: two of them say nothing about it.
  'two pieces made by people, not trained on: beats 0.93',
  async () => expect((await scored(shared('audio-real'))).beats).toBeGreaterThan(0.93),
  300_000,
);
