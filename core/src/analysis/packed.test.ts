import fc from 'fast-check';
import { packedAs, rateOfPacked, wavOfSound } from './packed';
import { readTags, tagChunks, type Tags } from './tags';
import { wavReader } from './wav';

const bytes = (text: string) => Uint8Array.from(text, (letter) => letter.charCodeAt(0));
const nothing = (count: number) => '\0'.repeat(count);

test('what is packed is told by its own first bytes', () => {
  expect(packedAs(bytes(`\0\0\0\x20ftypM4A ${nothing(40)}`))).toBe('MP4 or M4A');
  expect(packedAs(bytes(`OggS\0\x02${nothing(20)}\x01\x13OpusHead`))).toBe('Opus');
  expect(packedAs(bytes('\xff\xf1\x50\x80'))).toBe('AAC');
  expect(packedAs(bytes('\x1aE\xdf\xa3'))).toBe('WebM');
  // What Hovlix unpacks itself, and what is none.
  for (const other of [
    '',
    'OggS',
    `OggS\0\x02${nothing(20)}\x01\x1e\x01vorbis`,
    '\xff\xfb\x90\x64',
    'RIFF',
    'fLaC',
    'Dear friends',
  ])
    expect(packedAs(bytes(other))).toBeUndefined();
});

test('the rate is that of the sample entry, wherever it lies; Opus always has 48 kHz', () => {
  const entry = (rate: string) =>
    bytes(`\0\0\0\x18ftypM4A ${nothing(90)}mdat mp4a\0\0${nothing(30)}\0\0\0\x30mp4a${nothing(24)}${rate}\0\0`);
  expect(rateOfPacked(entry('\xac\x44'))).toBe(44_100);
  expect(rateOfPacked(entry('\xbb\x80'))).toBe(48_000);
  expect(rateOfPacked(entry('\x56\x22'))).toBe(44_100);
  expect(rateOfPacked(bytes(`\0\0\0\x18ftypM4A ${nothing(90)}`))).toBe(44_100);
  expect(rateOfPacked(bytes(`OggS\0\x02${nothing(20)}\x01\x13OpusHead`))).toBe(48_000);
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 200 }), (some) => {
      const rate = rateOfPacked(Uint8Array.of(0, 0, 0, 24, ...bytes('ftyp'), ...some));
      expect(rate).toBeGreaterThanOrEqual(44_100);
    }),
    { seed: 4 },
  );
});

test('sound becomes a WAV file of the same samples, to half a step of 16 bits; what is too loud is held', () => {
  const sample = fc.double({ min: -1.5, max: 1.5, noNaN: true });
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 3 }), fc.array(sample, { minLength: 1, maxLength: 50 }), (count, samples) => {
      const channels = Array.from({ length: count }, (_, i) => Float32Array.from(samples, (one) => one / (i + 1)));
      const read = wavReader(wavOfSound(channels, 32_000, []), 'x');
      if (!read.ok) throw new Error(JSON.stringify(read.problem));
      expect(read.value).toMatchObject({ frames: samples.length, sampleRate: 32_000, channels: count });
      read.value.read(0, samples.length).forEach((channel, i) =>
        channel.forEach((one, at) => {
          const held = Math.max(-1, Math.min(32767 / 32768, channels[i]![at]!));
          expect(Math.abs(one - held)).toBeLessThanOrEqual(0.51 / 32768);
        }),
      );
    }),
    { seed: 4, numRuns: 60 },
  );
});

test('tags go into the file and are read there, in any script', async () => {
  const tags: Tags = { title: 'Příliš žluťoučký — 夜の港', artist: 'Tin Lantern & Söhne', bpm: 128, key: 'F♯m' };
  const wav = (said: Tags) => wavOfSound([new Float32Array(100)], 44_100, tagChunks(said));
  expect(await readTags(wav(tags))).toEqual(tags);
  expect(await readTags(wav({ title: 'Salt' }))).toEqual({ title: 'Salt' });
  expect(tagChunks({})).toEqual([]);
  expect(await readTags(wav({}))).toEqual({});
});
