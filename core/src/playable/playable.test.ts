// What is played is the music as it was, and each packet of it stands where it sounds.

import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { MPEGDecoder } from 'mpg123-decoder';
import { decodeAudio } from '../analysis/decode';
import { asMp4 } from '.';

const sample = (name: string): Uint8Array =>
  new Uint8Array(readFileSync(join(__dirname, '../../../e2e/samples', name)));
const joined = (...parts: readonly (Uint8Array | readonly number[])[]): Uint8Array =>
  Uint8Array.from(parts.flatMap((part) => [...part]));
const wordAt = (bytes: Uint8Array, at: number) => new DataView(bytes.buffer, bytes.byteOffset).getUint32(at);

/** What is in a box that lies in others, the outermost first. @returns undefined where there is none. */
function boxIn(bytes: Uint8Array, [kind, ...inner]: readonly string[]): Uint8Array | undefined {
  for (let at = 0; at < bytes.length; at += wordAt(bytes, at)) {
    const body = bytes.subarray(at + 8, at + wordAt(bytes, at));
    if (String.fromCharCode(...bytes.subarray(at + 4, at + 8)) === kind)
      return inner.length ? boxIn(body, inner) : body;
  }
  return undefined;
}

const STBL = ['moov', 'trak', 'mdia', 'minf', 'stbl'];

/** The file as a reader of MP4 takes it apart. */
function readMp4(parts: readonly Uint8Array[]) {
  const file = joined(...parts);
  const table = (kind: string) => boxIn(file, [...STBL, kind])!;
  const words = (bytes: Uint8Array, from: number) =>
    Array.from({ length: (bytes.length - from) / 4 }, (_, i) => wordAt(bytes, from + i * 4));
  const runs = words(table('stts'), 8);
  return {
    sizes: words(table('stsz'), 12),
    samples: runs.flatMap((count, i) => (i % 2 === 0 ? Array<number>(count).fill(runs[i + 1]!) : [])),
    rate: wordAt(boxIn(file, ['moov', 'trak', 'mdia', 'mdhd'])!, 12),
    music: boxIn(file, ['mdat'])!,
    begins: file.subarray(wordAt(table('stco'), 8)),
  };
}

async function decoded(bytes: Uint8Array): Promise<Float32Array> {
  const slices: Float32Array[] = [];
  const take = ([first]: readonly Float32Array[]) => void slices.push(first!.slice());
  const done = await decodeAudio(bytes, 'x', take, async () => 'go-on');
  if (!done.ok) throw new Error(done.problem.code);
  const all = new Float32Array(slices.reduce((sum, { length }) => sum + length, 0));
  slices.reduce((at, slice) => (all.set(slice, at), at + slice.length), 0);
  return all;
}

describe.each(['chorus.mp3', 'uneven.mp3'])('%s', (name) => {
  const playable = asMp4(sample(name), 'mp3')!;
  const { sizes, samples, rate, music, begins } = readMp4(playable.parts);

  test('has a size and a length for each frame, and they are the whole of it', () => {
    expect(sizes.reduce((sum, size) => sum + size)).toBe(music.length);
    expect(samples).toHaveLength(sizes.length);
    expect(begins.subarray(0, music.length)).toEqual(music);
    // Each begins where a frame does.
    for (let i = 0, at = 0; i < sizes.length; at += sizes[i++]!) expect(music[at]).toBe(0xff);
  });

  test('sounds as it did, and begins where decoders are agreed that it does', async () => {
    const decoder = new MPEGDecoder({ enableGapless: false });
    await decoder.ready;
    const bare = decoder.decode(music).channelData[0]!;
    decoder.free();
    const wanted = await decoded(sample(name));
    const skipped = Math.round(playable.begins * rate);
    expect(skipped).toBe(1105);
    for (let i = 0; i < wanted.length; i++) if (bare[i + skipped] !== wanted[i]) throw new Error(`sample ${i} differs`);
    expect(samples.reduce((sum, one) => sum + one)).toBe(bare.length);
  });
});

test('an MP3 that says nothing of how it was made begins with its first frame', () => {
  const [whole, { parts, begins }] = [readMp4(asMp4(sample('uneven.mp3'), 'mp3')!.parts), asMp4(bare(), 'mp3')!];
  expect(begins).toBe(0);
  expect(readMp4(parts).music).toEqual(whole.music);
});

/** Without the frame that says how it was made. */
const bare = () => readMp4(asMp4(sample('uneven.mp3'), 'mp3')!.parts).music.slice();

test('what stands before, between and behind the frames of an MP3 is left out', () => {
  const frames = bare();
  const { sizes } = readMp4(asMp4(frames, 'mp3')!.parts);
  const half = sizes.slice(0, sizes.length >> 1).reduce((sum, size) => sum + size, 0);
  // A picture in a tag may look like music.
  const picture = [...frames.subarray(0, 1400)];
  const tag = [
    ...new TextEncoder().encode('ID3'),
    4,
    0,
    0,
    0,
    0,
    picture.length >> 7,
    picture.length & 127,
    ...picture,
  ];
  const end = [...new TextEncoder().encode('TAG'), ...Array<number>(125).fill(32)];
  const mixed = joined(tag, frames.subarray(0, half), Array<number>(900).fill(7), frames.subarray(half), end);
  expect(readMp4(asMp4(mixed, 'mp3')!.parts).music).toEqual(frames);
  // Half of a frame cannot be played.
  expect(readMp4(asMp4(frames.subarray(0, -20), 'mp3')!.parts).sizes).toHaveLength(sizes.length - 1);
});

/** Where the pages of an Ogg file begin (RFC 3533, clause 6). */
function pagesOf(bytes: Uint8Array): readonly number[] {
  const pages: number[] = [];
  for (let at = 0; at < bytes.length;) {
    pages.push(at);
    const laces = bytes.subarray(at + 27, at + 27 + bytes[at + 26]!);
    at += 27 + laces.length + laces.reduce((sum, lace) => sum + lace, 0);
  }
  return pages;
}

describe.each(['chorus.ogg', 'uneven.ogg'])('%s', (name) => {
  const bytes = sample(name);
  const view = new DataView(bytes.buffer);
  const pages = pagesOf(bytes);
  const { sizes, samples, music } = readMp4(asMp4(bytes, 'ogg')!.parts);

  test('has each packet with its length: from page to page they come to what pages say', () => {
    expect(sizes.reduce((sum, size) => sum + size)).toBe(music.length);
    let packets = 0;
    let others = 0;
    // The heads have two pages; the last page may be cut.
    for (const page of pages.slice(2, -1)) {
      const laces = bytes.subarray(page + 27, page + 27 + bytes[page + 26]!);
      packets += laces.filter((lace) => lace < 255).length;
      // A packet stands for what comes out with the next one.
      const sum = samples.slice(0, packets - 1).reduce((all, one) => all + one, 0);
      if (Number(view.getBigInt64(page + 6, true)) !== sum) others++;
    }
    // One page of one of them was counted with a rounded clock.
    expect(others).toBeLessThanOrEqual(name === 'chorus.ogg' ? 1 : 0);
    expect(packets).toBeGreaterThan(100);
    // One has blocks of two lengths.
    expect(new Set(samples).size).toBe(name === 'uneven.ogg' ? 3 : 1);
  });

  test('what is damaged, or has a second stream, is not taken apart', () => {
    expect(asMp4(joined(bytes, bytes), 'ogg')).toBeUndefined();
    expect(asMp4(joined(bytes.subarray(0, pages[3]), bytes.subarray(pages[4])), 'ogg')).toBeUndefined();
    expect(asMp4(bytes.subarray(10), 'ogg')).toBeUndefined();
    // As far as it goes: a packet that goes on in a page that is missing is not played, and moves nothing.
    const cut = bytes.slice(0, pages[4]);
    const laces = cut.subarray(pages[3]! + 27, pages[3]! + 27 + cut[pages[3]! + 26]!);
    const last = laces.at(-1)!;
    const longer = joined(cut, Array<number>(255 - last).fill(0));
    longer[pages[3]! + 26 + laces.length] = 255;
    const open = readMp4(asMp4(longer, 'ogg')!.parts);
    expect(open.sizes).toEqual(sizes.slice(0, open.sizes.length));
    expect(open.music.length).toBe(open.sizes.reduce((sum, size) => sum + size) + 255);
    // So many pages.
    const half = readMp4(asMp4(bytes.subarray(0, pages[5]! + 40), 'ogg')!.parts);
    expect(half.sizes).toEqual(sizes.slice(0, half.sizes.length));
    expect(half.music).toEqual(music.subarray(0, half.music.length));
  });
});

test.each([
  ['chorus.opus', 'ogg'],
  ['chorus.flac', 'ogg'],
  ['chorus.m4a', 'mp3'],
  ['chorus.ogg', 'mp3'],
] as const)('%s is not taken for %s', (name, type) => {
  expect(asMp4(sample(name), type)).toBeUndefined();
});
