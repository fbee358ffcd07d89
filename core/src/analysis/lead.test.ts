// Recordings as they lie about: with a tag where none belongs, cut out of a stream, or left by a recorder without power.

import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { wordsFor } from '../problem';
import { wavOf } from '../testing/wav';
import { audioTypeOf, decodeAudio } from './decode';
import { behindTag, fromFirstFrame } from './lead';
import { packedAs, rateOfPacked } from './packed';
import { readTags } from './tags';

const sample = (name: string): Uint8Array =>
  new Uint8Array(readFileSync(join(__dirname, '../../../e2e/samples', name)));
const joined = (...parts: readonly (Uint8Array | readonly number[])[]): Uint8Array =>
  Uint8Array.from(parts.flatMap((part) => [...part]));
const zeros = (count: number): Uint8Array => new Uint8Array(count);

async function decoded(bytes: Uint8Array): Promise<{ readonly seconds: number; readonly loud: number }> {
  let [sum, count] = [0, 0];
  const take = ([first]: readonly Float32Array[]) => {
    for (const value of first!) sum += value * value;
    count += first!.length;
  };
  const result = await decodeAudio(bytes, 'take', take, async () => 'go-on');
  if (!result.ok) throw new Error(wordsFor(result.problem));
  return { seconds: result.value.seconds, loud: Math.sqrt(sum / count) };
}

/** A tag of ID3v2.4 with one title, as some programs put it before any file. */
const title = (text: string): Uint8Array => {
  const said = new TextEncoder().encode(text);
  const frame = joined(new TextEncoder().encode('TIT2'), [0, 0, 0, said.length + 1, 0, 0, 3], said);
  return joined(new TextEncoder().encode('ID3'), [4, 0, 0, 0, 0, 0, frame.length], frame);
};

test('a FLAC file with the tag of an MP3 is the music it is, and its title is known', async () => {
  const [plain, tagged] = [sample('chorus.flac'), joined(title('Lanterns'), sample('chorus.flac'))];
  expect([audioTypeOf(tagged), behindTag(tagged).length]).toEqual(['flac', plain.length]);
  expect(await decoded(tagged)).toEqual(await decoded(plain));
  expect(await readTags(tagged)).toMatchObject({ title: 'Lanterns' });
});

describe('an MP3', () => {
  test.each([
    ['after zeros', joined(zeros(700), sample('chorus.mp3'))],
    [
      'after what is none',
      joined(
        Uint8Array.from({ length: 3000 }, (_, i) => (i * 7919) >> 3),
        sample('chorus.mp3'),
      ),
    ],
    ['after the rest of a frame', sample('chorus.mp3').subarray(900)],
  ])('%s', async (_, bytes) => {
    expect(audioTypeOf(bytes)).toBeUndefined();
    const plain = await decoded(sample('chorus.mp3'));
    const found = await decoded(bytes);
    expect(Math.abs(found.seconds - plain.seconds)).toBeLessThan(0.2);
    expect(found.loud).toBeCloseTo(plain.loud, 2);
    expect(audioTypeOf(fromFirstFrame(bytes)!)).toBe('mp3');
  });

  test('is found in nothing else', () => {
    expect(fromFirstFrame(zeros(5000))).toBeUndefined();
    expect(fromFirstFrame(Uint8Array.from({ length: 200_000 }, (_, i) => (i * 2654435761) >>> 13))).toBeUndefined();
    // The heads of two frames alone are an accident.
    expect(
      fromFirstFrame(joined([0xff, 0xfb, 0x90, 0x64], zeros(413), [0xff, 0xfb, 0x90, 0x64], zeros(900))),
    ).toBeUndefined();
  });
});

describe('a WAV', () => {
  const whole = wavOf(
    Float32Array.from({ length: 66_150 }, (_, i) => Math.sin(i / 9) * 0.5),
    22050,
    { channels: 1 },
  );
  const with32 = (at: number, value: number) => {
    const bytes = whole.slice();
    new DataView(bytes.buffer).setUint32(at, value, true);
    return bytes;
  };
  const size = new DataView(whole.buffer).getUint32(40, true);

  test.each([
    ['whose recorder lost its power before it wrote how long it is', with32(40, 0)],
    ['that was written as it came, without an end', with32(40, 0xffffffff)],
    [
      'as programs write long ones, its size in a chunk of its own',
      joined(
        new TextEncoder().encode('RF64????WAVE'),
        new TextEncoder().encode('ds64'),
        [28, 0, 0, 0],
        zeros(8),
        new Uint8Array(new BigUint64Array([BigInt(size)]).buffer),
        zeros(12),
        with32(40, 0xffffffff).subarray(12),
        // What comes behind the sound is none of it.
        new TextEncoder().encode('LIST'),
        [200, 0, 0, 0],
        new Uint8Array(200).fill(90),
      ),
    ],
  ])('%s', async (_, bytes) => {
    expect(size).toBeGreaterThan(1000);
    expect(await decoded(bytes)).toEqual(await decoded(whole));
  });

  test('that packs its sound as telephones or broadcasters do is left to the browser', async () => {
    const packed = whole.slice();
    new DataView(packed.buffer).setUint16(20, 7, true);
    expect([packedAs(packed), rateOfPacked(packed)]).toEqual(['mu-law in a WAV file', 22050]);
    await expect(decoded(packed)).rejects.toThrow('it is mu-law in a WAV file');
    expect(packedAs(whole)).toBeUndefined();
  });
});
