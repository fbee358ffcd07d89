import { unpacked } from './unpack';

const sound = (duration: number) => ({
  duration,
  sampleRate: 44_100,
  numberOfChannels: 2,
  getChannelData: (channel: number) => Float32Array.of(channel, 0.5),
});
const file = (size = 100) => ({ size, arrayBuffer: async () => new ArrayBuffer(8) }) as File;
const browser = (decodes: () => Promise<unknown>) => {
  const asked: number[] = [];
  globalThis.OfflineAudioContext = class {
    constructor(_channels: number, _length: number, rate: number) {
      asked.push(rate);
    }
    decodeAudioData = decodes;
  } as unknown as typeof OfflineAudioContext;
  return asked;
};

test('what the browser unpacks comes with all its channels, at the rate it was packed at', async () => {
  const asked = browser(async () => sound(200));
  expect(await unpacked(file(), 44_100)).toEqual({
    rate: 44_100,
    channels: [Float32Array.of(0, 0.5), Float32Array.of(1, 0.5)],
  });
  expect(asked).toEqual([44_100]);
});

test('more than half an hour is too long, before it is unpacked where its size says so; what is no sound is unknown', async () => {
  const asked = browser(async () => sound(1801));
  expect(await unpacked(file(), 48_000)).toBe('too long');
  expect(await unpacked(file(100e6), 48_000)).toBe('too long');
  expect(asked).toHaveLength(1);
  browser(() => Promise.reject(new DOMException('Unable to decode audio data', 'EncodingError')));
  expect(await unpacked(file(), 48_000)).toBe('unknown');
});
