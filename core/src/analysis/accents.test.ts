import fc from 'fast-check';
import { wavOf } from '../testing/wav';
import { accentedClicks } from './accents';
import { analyse } from '.';
import { featureTaker } from './features';
import { onsetStrength } from './onset';

const RATE = 22_050;

type Click = { readonly hertz: number; readonly level: number };
type Track = {
  readonly bpm: number;
  readonly pulses: number;
  /** The first accent. */
  readonly first: number;
  readonly usual: Click;
  readonly accent: Click;
  readonly seconds: number;
};

function samplesOf({ bpm, pulses, first, usual, accent, seconds }: Track): Float32Array {
  return Float32Array.from({ length: seconds * RATE }, (_, i) => {
    const beats = ((i / RATE) * bpm) / 60;
    const since = ((beats % 1) * 60) / bpm;
    const { hertz, level } = Math.floor(beats) % pulses === first ? accent : usual;
    return level * Math.sin(2 * Math.PI * hertz * since) * Math.exp(-40 * since);
  });
}

/** What is heard of clicks whose beats are known. */
function accentsIn(track: Track, noise?: (i: number) => number): readonly number[] | undefined {
  const samples = samplesOf(track);
  if (noise) samples.forEach((one, i) => (samples[i] = one + noise(i)));
  const taker = featureTaker();
  taker.take([samples], RATE);
  const beats = Array.from({ length: Math.floor((track.seconds * track.bpm) / 60) }, (_, i) => (i * 60) / track.bpm);
  const { bands, frames } = taker.end();
  return accentedClicks(bands, onsetStrength(bands, frames), beats);
}

const usual = { hertz: 1000, level: 0.4 };
const other = fc.constantFrom({ hertz: 1000, level: 0.9 }, { hertz: 1500, level: 0.4 }, { hertz: 80, level: 0.7 });
const tracks = fc
  .record({
    bpm: fc.integer({ min: 56, max: 190 }),
    pulses: fc.integer({ min: 3, max: 7 }),
    accent: other,
    order: fc.nat({ max: 6 }),
  })
  .map(({ order, ...rest }): Track => ({ ...rest, first: order % rest.pulses, usual, seconds: 34 }));

describe('the accents of bare clicks', () => {
  test('are the louder ones, or those of another pitch, however long the bars', () => {
    fc.assert(
      fc.property(tracks, (track) => {
        const { pulses, first } = track;
        const accents = accentsIn(track)!;
        expect(accents).toEqual(accents.map((_, i) => first + i * pulses));
        expect(accents.length).toBe(Math.ceil((Math.floor((track.seconds * track.bpm) / 60) - first) / pulses));
      }),
      { numRuns: 15 },
    );
  });

  test('are none where all clicks are the same, two by two, or where something sounds between them', () => {
    const track: Track = { bpm: 100, pulses: 4, first: 0, usual, accent: { hertz: 1500, level: 0.9 }, seconds: 24 };
    expect(accentsIn(track)).toHaveLength(10);
    expect(accentsIn({ ...track, accent: usual })).toBeUndefined();
    expect(accentsIn({ ...track, pulses: 2 })).toBeUndefined();
    // Hats between the clicks, from a cheap generator of noise.
    const hat = (i: number) => ((i * 7919) % 997 > 498 ? 0.2 : -0.2);
    const offBeat = (i: number) => ((i / RATE / 0.6) % 1 > 0.5 && (i / RATE / 0.6) % 1 < 0.6 ? hat(i) : 0);
    expect(accentsIn(track, offBeat)).toBeUndefined();
    // A hum is no music.
    expect(accentsIn(track, (i) => 0.01 * Math.sin((2 * Math.PI * 50 * i) / RATE))).toHaveLength(10);
  });

  test('begin the bars', async () => {
    const asked = tracks.filter(({ bpm }) => bpm >= 70 && bpm <= 150);
    await fc.assert(
      fc.asyncProperty(asked, async (track) => {
        const found = await analyse(wavOf(samplesOf(track), RATE), 'clicks.wav', async () => 'go-on');
        if (!found.ok) throw new Error(found.problem.code);
        const { downbeats, meter, beats } = found.value;
        const period = 60 / track.bpm;
        // A tempo that is heard as half or twice as fast has other bars.
        fc.pre(Math.abs((beats.at(-1)! - beats[0]!) / (beats.length - 1) / period - 1) < 0.05);
        expect(meter[0]!.numerator).toBe(track.pulses);
        for (const at of downbeats) expect((at / period - track.first + 0.2) % track.pulses).toBeLessThan(0.4);
      }),
      { numRuns: 6 },
    );
  });
});
