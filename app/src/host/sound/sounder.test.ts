import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { MIME, type ToMusicWorker } from './form';
import { sounder } from './sounder';

/** What a browser's audio element does with what it is given. */
class FakeAudio {
  currentTime = 0;
  src = '';
  onloadedmetadata?: () => void;
  onerror?: () => void;
  canPlayType = (type: string) => (CAN.test(type) ? 'maybe' : '');
  pause = () => undefined;
}

/** What the worker does, in this thread. */
jest.mock('../workers', () => ({ startMusicWorker: () => new MockWorker() }));
let mockSilent = false;
class MockWorker {
  onmessage?: (event: { data: unknown }) => void;
  terminate = () => undefined;
  async postMessage({ recording, as }: ToMusicWorker) {
    if (mockSilent) return;
    const { asMp4 } = await import('@hovlix/core/playable');
    const form = await recording.arrayBuffer().then(
      (bytes) => asMp4(new Uint8Array(bytes), as),
      () => undefined,
    );
    const parts = form?.parts as BlobPart[] | undefined;
    this.onmessage?.({
      data: form && { recording: new Blob(parts, { type: 'audio/mp4' }), begins: form.begins },
    });
  }
}

let CAN = /./;
let audio: FakeAudio;
/** What was shown to the browser, in order. */
let shown: Blob[] = [];

const recording = (name: string, type: keyof typeof MIME) => {
  const bytes = new Uint8Array(readFileSync(join(__dirname, '../../../../e2e/samples', name)));
  return Object.assign(new Blob([bytes], { type: MIME[type] }), { arrayBuffer: async () => bytes.buffer });
};
const mp3 = () => recording('chorus.mp3', 'mp3');

beforeEach(() => {
  CAN = /./;
  mockSilent = false;
  shown = [];
  Object.assign(globalThis, { Audio: jest.fn(() => (audio = new FakeAudio())) });
  URL.createObjectURL = (blob) => `blob:${shown.push(blob as Blob)}`;
  URL.revokeObjectURL = () => undefined;
});

/** Once something new is shown, the browser says whether it takes it. */
async function answer(takes: boolean, count = 1): Promise<void> {
  while (shown.length < count) await new Promise((resolve) => setTimeout(resolve));
  (takes ? audio.onloadedmetadata : audio.onerror)?.();
}

test('an MP3 is played in a form with tables; its moments are those of the music', async () => {
  const one = sounder();
  const loading = one.load(mp3());
  await answer(true);
  expect(await loading).toBe(true);
  expect(shown.map(({ type }) => type)).toEqual(['audio/mp4']);
  one.goTo(3);
  // 1,105 samples come before it.
  expect(audio.currentTime).toBeCloseTo(3 + 1105 / 22_050, 6);
  expect(one.at()).toBeCloseTo(3, 6);
});

test.each([
  ['says that it does not know it', /mpeg/],
  ['refuses it when it sees it', /./],
])('a browser that %s plays the file as it is', async (_, can) => {
  CAN = can;
  const one = sounder();
  const loading = one.load(mp3());
  if (can.test('mp4')) await answer(false);
  expect(await loading).toBe(true);
  expect(shown.at(-1)!.type).toBe('audio/mpeg');
  one.goTo(3);
  expect(audio.currentTime).toBe(3);
});

test('where no other form can be made, the file is played as it is', async () => {
  const one = sounder();
  const gone = Object.assign(mp3(), { arrayBuffer: () => Promise.reject(new Error('gone')) });
  expect(await one.load(gone)).toBe(true);
  expect(await one.load(Object.assign(mp3(), { arrayBuffer: async () => new ArrayBuffer(500) }))).toBe(true);
  expect(shown.map(({ type }) => type)).toEqual(['audio/mpeg', 'audio/mpeg']);
});

test('a worker that never answers is waited for some seconds, and the file is played as it is', async () => {
  jest.useFakeTimers();
  mockSilent = true;
  const loading = sounder().load(mp3());
  await jest.advanceTimersByTimeAsync(7900);
  expect(shown).toEqual([]);
  await jest.advanceTimersByTimeAsync(200);
  expect(await loading).toBe(true);
  expect(shown.map(({ type }) => type)).toEqual(['audio/mpeg']);
  jest.useRealTimers();
});

test('what a browser finds its way in by itself is played as it is: WAV, FLAC, Ogg outside Blink', async () => {
  const one = sounder();
  for (const type of ['wav', 'flac', 'ogg'] as const) {
    expect(await one.load(recording('chorus.ogg', type))).toBe(true);
    expect(shown.at(-1)!.type).toBe(MIME[type]);
  }
  Object.defineProperty(navigator, 'userAgent', { value: 'Mozilla/5.0 Chrome/140.0.0.0', configurable: true });
  const loading = one.load(recording('chorus.ogg', 'ogg'));
  await answer(true, 4);
  expect(await loading).toBe(true);
  expect(shown.at(-1)!.type).toBe('audio/mp4');
});

test('of two that are loaded at once the later one is played', async () => {
  const one = sounder();
  const first = one.load(mp3());
  const second = one.load(recording('chorus.flac', 'flac'));
  expect([await first, await second]).toEqual([false, true]);
  expect(shown.map(({ type }) => type)).toEqual(['audio/flac']);
  const third = one.load(mp3());
  while (shown.length < 2) await new Promise((resolve) => setTimeout(resolve));
  // The browser has not said yet whether it takes it.
  const fourth = one.load(recording('chorus.flac', 'flac'));
  expect([await third, await fourth]).toEqual([false, true]);
  expect(shown.at(-1)!.type).toBe('audio/flac');
});
