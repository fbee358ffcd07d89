import { testShow } from '../../../../core/src/testing/show';
import type { Conducting } from '../conduct/conduct';
import type { Document } from '../document/document';
import { ahead } from './ahead';

const [song] = testShow().songs;

/**
 * A song that plays for four seconds on a computer whose sound takes a while, with something in it each half second.
 * @returns when each was heard, in seconds of the music. @param latency from what is made to what is heard, in seconds.
 */
function heardOf(latency: number, tells = true): readonly (readonly [due: number, heard: number])[] {
  jest.useFakeTimers();
  const now = () => performance.now() / 1000;
  const begun = now();
  const heard: (readonly [number, number])[] = [];
  const made = () => now() - begun + 5;
  Object.assign(globalThis, {
    AudioContext: class {
      resume = () => Promise.resolve();
      get currentTime() {
        return made();
      }
      getOutputTimestamp = () =>
        tells
          ? { contextTime: made() - latency - 0.004, performanceTime: performance.now() - 4 }
          : { contextTime: 0, performanceTime: 0 };
    },
  });
  const live = { id: song!.id, playing: true, songTime: 0, at: begun, since: begun, rate: 1 };
  const sounds = ahead(
    { store: { getState: () => ({ show: { songs: [song] } }) } } as unknown as Document,
    { store: { getState: () => ({ live: { song: live } }) }, now } as unknown as Conducting,
    (_, __, from, to, at) => {
      for (let due = Math.ceil(from * 2) / 2 + 0; due < to; due += 0.5)
        if (due >= from) heard.push([due, at(due) + latency - 5]);
    },
  );
  sounds.turn(true);
  jest.advanceTimersByTime(4000);
  sounds.turn(false);
  jest.useRealTimers();
  return heard;
}

test.each([0, 0.04, 0.25])(
  'what sounds beside the music is heard with it, however late the loudspeaker is (%s s)',
  (latency) => {
    const heard = heardOf(latency);
    const inTime = heard.filter(([due]) => due > latency);
    expect(inTime.map(([due]) => due)).toEqual([0.5, 1, 1.5, 2, 2.5, 3, 3.5, 4]);
    for (const [due, at] of inTime) expect(at).toBeCloseTo(due, 6);
  },
);

test('the first one comes as soon as it can, and not at all where that is too late', () => {
  expect(heardOf(0.04)[0]).toEqual([0, expect.closeTo(0.04 + 0.025, 3)]);
  expect(heardOf(0.25)[0]![0]).toBe(0.5);
});

test('a browser that does not tell how late it is plays as before', () => {
  for (const [due, at] of heardOf(0.04, false).slice(1)) expect(at).toBeCloseTo(due + 0.04, 6);
});
