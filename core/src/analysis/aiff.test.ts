// AIFF files of every coding that musicians' programs write, against the samples they were made from.

import fc from 'fast-check';
import { isAiff, wavOfAiff } from './aiff';
import { decodeAudio } from './decode';
import { readTags } from './tags';
import { wavReader } from './wav';
import { aiff, aiffChunk as chunk, letters as text } from '../testing/aiff';

const opened = (bytes: Uint8Array) => {
  const wav = wavOfAiff(bytes, 'song.aif');
  if (!wav.ok) throw new Error(JSON.stringify(wav.problem));
  const reader = wavReader(wav.value, 'song.aif');
  if (!reader.ok) throw new Error(JSON.stringify(reader.problem));
  return reader.value;
};

const CODINGS = [
  { bits: 8, write: (view: DataView, at: number, value: number) => view.setInt8(at, value * 127) },
  { bits: 16, write: (view: DataView, at: number, value: number) => view.setInt16(at, value * 32767) },
  { bits: 16, coding: 'twos', write: (view: DataView, at: number, value: number) => view.setInt16(at, value * 32767) },
  {
    bits: 16,
    coding: 'sowt',
    write: (view: DataView, at: number, value: number) => view.setInt16(at, value * 32767, true),
  },
  {
    bits: 24,
    write(view: DataView, at: number, value: number) {
      const whole = Math.round(value * 8388607);
      view.setInt8(at, whole >> 16);
      view.setUint16(at + 1, whole & 0xffff);
    },
  },
  {
    bits: 32,
    coding: 'in32',
    write: (view: DataView, at: number, value: number) => view.setInt32(at, value * 2147483647),
  },
  { bits: 32, coding: 'fl32', write: (view: DataView, at: number, value: number) => view.setFloat32(at, value) },
  { bits: 64, coding: 'FL64', write: (view: DataView, at: number, value: number) => view.setFloat64(at, value) },
  {
    bits: 8,
    coding: 'raw ',
    write: (view: DataView, at: number, value: number) => view.setUint8(at, 128 + value * 127),
  },
] as const;

test('each coding, any rate and number of channels: the samples are those that were written', () => {
  const value = fc.double({ min: -1, max: 1, noNaN: true });
  const sound = fc.record({
    how: fc.constantFrom(...CODINGS),
    channels: fc.integer({ min: 1, max: 4 }),
    rate: fc.constantFrom(8000, 22050, 44100, 48000, 88200, 192000),
    values: fc.array(fc.array(value, { minLength: 4, maxLength: 4 }), { minLength: 1, maxLength: 40 }),
    offset: fc.constantFrom(0, 16),
    soundFirst: fc.boolean(),
  });
  fc.assert(
    fc.property(sound, ({ how, channels, rate, values, offset, soundFirst }) => {
      const width = how.bits / 8;
      const bytes = new Uint8Array(values.length * channels * width);
      const view = new DataView(bytes.buffer);
      values.forEach((frame, i) => {
        for (let c = 0; c < channels; c++) how.write(view, (i * channels + c) * width, frame[c]!);
      });
      const coding = 'coding' in how ? { coding: how.coding } : {};
      const read = opened(aiff(bytes, { ...coding, bits: how.bits, channels, rate, offset, soundFirst }));
      expect([read.frames, read.sampleRate, read.channels]).toEqual([values.length, rate, channels]);
      const found = read.read(0, values.length);
      const step = how.bits === 8 ? 1 / 60 : 1 / 16000;
      for (let c = 0; c < channels; c++)
        values.forEach((frame, i) => expect(Math.abs(found[c]![i]! - frame[c]!)).toBeLessThan(step));
    }),
  );
});

test('it is decoded like all other music, with its title, who plays it and its tempo', async () => {
  const bytes = new Uint8Array(2 * 8000);
  const view = new DataView(bytes.buffer);
  for (let i = 0; i < 8000; i++) view.setInt16(i * 2, 9000 * Math.sin(i / 5));
  const named = [chunk('NAME', text('Low Water')), chunk('AUTH', text('Tin Lantern'))];
  // ID3v2.3 with one text frame, TBPM.
  const frame = Uint8Array.from([...text('TBPM'), 0, 0, 0, 4, 0, 0, 0, ...text('118')]);
  const id3 = chunk('ID3 ', Uint8Array.from([...text('ID3'), 3, 0, 0, 0, 0, 0, frame.length, ...frame]));
  const made = aiff(bytes, { bits: 16, channels: 1, rate: 8000, more: [...named, id3] });
  expect(isAiff(made)).toBe(true);
  let samples = 0;
  const decoded = await decodeAudio(
    made,
    'song.aif',
    ([one]) => void (samples += one!.length),
    async () => 'go-on',
  );
  expect(decoded).toMatchObject({ ok: true, value: { type: 'wav', sampleRate: 8000, seconds: 1 } });
  expect(samples).toBe(8000);
  const wav = wavOfAiff(made, 'song.aif');
  if (!wav.ok) throw new Error('refused');
  for (const of of [made, wav.value])
    expect(await readTags(of)).toEqual({ title: 'Low Water', artist: 'Tin Lantern', bpm: 118 });
});

test('one that is cut in its sound is read as far as it goes; one that never said its length, to its end', () => {
  const bytes = new Uint8Array(400).fill(1);
  const whole = aiff(bytes, { bits: 16, channels: 1, rate: 44100 });
  expect(opened(whole.subarray(0, whole.length - 100)).frames).toBe(150);
  expect(opened(aiff(bytes, { bits: 16, channels: 1, rate: 44100, frames: 0 })).frames).toBe(200);
});

test.each([
  ['packed in another way', aiff(new Uint8Array(8), { coding: 'ima4', bits: 16, channels: 1, rate: 44100 }), 'ima4'],
  ['without channels', aiff(new Uint8Array(8), { bits: 16, channels: 0, rate: 44100, frames: 4 }), '0 channels'],
  ['without sound', aiff(new Uint8Array(0), { bits: 16, channels: 1, rate: 44100 }), 'no sound'],
  [
    'that ends in its head',
    aiff(new Uint8Array(8), { bits: 16, channels: 1, rate: 44100 }).subarray(0, 20),
    'no sound',
  ],
])('one %s is refused with a sentence', (_, bytes, words) => {
  const wav = wavOfAiff(bytes, 'song.aif');
  expect(JSON.stringify(wav)).toContain(words);
  expect(wav.ok).toBe(false);
});
