import { uninterrupted } from './uninterrupted';

/** An audio element on a device that may refuse to let it sound. */
class Element extends EventTarget {
  paused = true;
  ended = false;
  refuses = false;
  async play(): Promise<void> {
    this.paused = false;
    this.dispatchEvent(new Event('play'));
    if (this.refuses) {
      this.stops();
      throw new DOMException('interrupted', 'AbortError');
    }
    this.dispatchEvent(new Event('playing'));
  }
  pause(): void {
    if (!this.paused) this.stops();
  }
  /** Whoever stops it. */
  stops(): void {
    this.paused = true;
    this.dispatchEvent(new Event('pause'));
  }
}

function device() {
  const audio = new Element();
  const went: number[] = [];
  const told: boolean[] = [];
  const facts = { place: 7 as number | undefined };
  const sound = uninterrupted(
    { audio: audio as unknown as HTMLAudioElement, goTo: (time) => void went.push(time) },
    () => facts.place,
    (stopped) => void told.push(stopped),
  );
  return { audio, went, told, facts, sound };
}

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());
const pass = (ms: number) => jest.advanceTimersByTimeAsync(ms);

test('what the device stops goes on where the music is by now, as soon as it may; both are told', async () => {
  const { audio, went, told, facts } = device();
  await audio.play();
  audio.refuses = true;
  audio.stops();
  expect(told).toEqual([true]);
  await pass(3500);
  expect([audio.paused, told]).toEqual([true, [true]]);
  facts.place = 11;
  audio.refuses = false;
  await pass(1000);
  expect([audio.paused, went.at(-1), told]).toEqual([false, 11, [true, false]]);
  await pass(5000);
  expect(went.at(-1)).toBe(11);
});

test('what somebody here stops, what is over, and what need not sound here stays silent', async () => {
  const { audio, went, told, facts, sound } = device();
  await audio.play();
  sound.pause();
  await pass(3000);
  await audio.play();
  audio.ended = true;
  audio.stops();
  await pass(3000);
  audio.ended = false;
  await audio.play();
  facts.place = undefined;
  audio.stops();
  await pass(3000);
  expect([audio.paused, went, told]).toEqual([true, [], []]);
});

test('a song that is paused while the device keeps it silent is not taken up', async () => {
  const { audio, told, sound } = device();
  await audio.play();
  audio.refuses = true;
  audio.stops();
  sound.pause();
  audio.refuses = false;
  await pass(3000);
  expect([audio.paused, told]).toEqual([true, [true, false]]);
});
