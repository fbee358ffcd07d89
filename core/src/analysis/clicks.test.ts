import fc from 'fast-check';
import { wavOf } from '../testing/wav';
import { analyse, otherGrid } from '.';
import { clicksIn } from './clicks';
import { featureTaker } from './features';
import { onsetStrength } from './onset';

const RATE = 22_050;

type Sound = { readonly hertz: number; readonly level: number };
type Click = Sound & { readonly at: number };

const PLAIN = { hertz: 1000, level: 0.4 };
const SOFT = { hertz: 1000, level: 0.15 };
const HIGH = { hertz: 1500, level: 0.5 };
const LOUD = { hertz: 1000, level: 0.9 };

/** Clicks at even moments: the sounds of a round, one after the other. @param rate clicks a minute. */
const track = (rate: number, round: readonly Sound[], seconds: number): readonly Click[] =>
  Array.from({ length: Math.floor((seconds * rate) / 60) }, (_, i) => ({
    at: 0.2 + (i * 60) / rate,
    ...round[i % round.length]!,
  }));

const momentsOf = (clicks: readonly Click[]) => clicks.map(({ at }) => at);

function samplesOf(clicks: readonly Click[]): Float32Array {
  const samples = new Float32Array(Math.ceil((clicks.at(-1)!.at + 1) * RATE));
  for (const { at, hertz, level } of clicks)
    for (let i = 0; i < RATE / 8; i++) {
      const since = (Math.ceil(at * RATE) + i) / RATE - at;
      samples[Math.ceil(at * RATE) + i]! += level * Math.sin(2 * Math.PI * hertz * since) * Math.exp(-40 * since);
    }
  return samples;
}

function heard(samples: Float32Array) {
  const taker = featureTaker();
  taker.take([samples], RATE);
  const { bands, frames } = taker.end();
  return clicksIn(bands, onsetStrength(bands, frames));
}

/** The same moments in the same order, to a hundredth and a half of a second. */
function expectMoments(found: readonly number[], wanted: readonly number[]): void {
  expect(found).toHaveLength(wanted.length);
  found.forEach((at, i) => expect(Math.abs(at - wanted[i]!)).toBeLessThan(0.016));
}

const barOf = (pulses: number, accent: Sound, usual: Sound = PLAIN): readonly Sound[] => [
  accent,
  ...Array<Sound>(pulses - 1).fill(usual),
];
const accents = fc.constantFrom<Sound>(LOUD, HIGH, { hertz: 80, level: 0.7 });

test('each click is a beat, and another one begins the bars, however long they are and wherever they begin', () => {
  const asked = fc.record({
    bpm: fc.integer({ min: 44, max: 205 }),
    pulses: fc.integer({ min: 3, max: 7 }),
    accent: accents,
    skipped: fc.nat({ max: 6 }),
  });
  fc.assert(
    fc.property(asked, ({ bpm, pulses, accent, skipped }) => {
      const clicks = track(bpm, barOf(pulses, accent), 40).slice(skipped);
      const found = heard(samplesOf(clicks))!;
      expectMoments(found.beats, momentsOf(clicks));
      expectMoments(
        found.firsts,
        clicks.filter(({ hertz, level }) => hertz === accent.hertz && level === accent.level).map(({ at }) => at),
      );
      expect(found.between).toEqual([]);
    }),
    { numRuns: 15 },
  );
});

test('clicks that are all the same, or two in turn, are beats, and say nothing of bars', () => {
  for (const round of [[PLAIN], [HIGH, PLAIN], [PLAIN, HIGH]])
    for (const bpm of [52, 120, 205]) {
      const clicks = track(bpm, round, 30);
      const found = heard(samplesOf(clicks))!;
      expectMoments(found.beats, momentsOf(clicks));
      expect(found.firsts).toEqual([]);
    }
});

test('clicks of a third kind divide the beats of bars', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 50, max: 100 }),
      fc.integer({ min: 3, max: 7 }),
      fc.constantFrom(2, 3),
      accents,
      (bpm, pulses, every, accent) => {
        const beat = (first: boolean) => [
          first ? accent : { hertz: 700, level: 0.5 },
          ...Array<Sound>(every - 1).fill(SOFT),
        ];
        const clicks = track(bpm * every, Array.from({ length: pulses }, (_, i) => beat(i === 0)).flat(), 36);
        const found = heard(samplesOf(clicks))!;
        expectMoments(found.beats, momentsOf(clicks.filter((_, i) => i % every === 0)));
        expectMoments(found.between, momentsOf(clicks.filter((_, i) => i % every > 0)));
        expectMoments(found.firsts, momentsOf(clicks.filter((_, i) => i % (every * pulses) === 0)));
      },
    ),
    { numRuns: 10 },
  );
});

test('where quieter clicks of the same sound come too fast to be beats they divide them, slower ones are beats', () => {
  const fast = track(200, [PLAIN, SOFT], 30);
  expectMoments(heard(samplesOf(fast))!.beats, momentsOf(fast.filter((_, i) => i % 2 === 0)));
  const slow = track(100, [PLAIN, SOFT], 30);
  expectMoments(heard(samplesOf(slow))!.beats, momentsOf(slow));
  const waltz = track(150, barOf(3, PLAIN, SOFT), 30);
  expectMoments(heard(samplesOf(waltz))!.firsts, momentsOf(waltz.filter((_, i) => i % 3 === 0)));
});

test('clicks that are missing are counted through, and an uneven tempo is followed', () => {
  const whole = track(110, barOf(4, HIGH), 40);
  const found = heard(samplesOf(whole.filter((_, i) => ![9, 22, 23].includes(i))))!;
  expectMoments(found.beats, momentsOf(whole));
  expectMoments(found.firsts, momentsOf(whole.filter((_, i) => i % 4 === 0)));
  let at = 0.2;
  const drifting = track(100, barOf(3, LOUD), 40).map((click, i) => {
    const here = { ...click, at };
    at += 0.6 + 0.15 * Math.sin(i / 3);
    return here;
  });
  expectMoments(heard(samplesOf(drifting))!.beats, momentsOf(drifting));
});

describe('nothing is taken for clicks', () => {
  const clicks = track(100, barOf(4, HIGH), 24);
  const with_ = (more: (i: number) => number) => samplesOf(clicks).map((one, i) => one + more(i));
  /** Noise from a cheap generator, the same each time. */
  const noise = (i: number) => ((i * 7919 + ((i * i) % 613)) % 997) / 500 - 1;

  test('where something sounds between them, and a hum does not', () => {
    expect(
      heard(with_((i) => ((i / RATE - 0.2) % 0.6 > 0.3 && (i / RATE - 0.2) % 0.6 < 0.36 ? 0.2 * noise(i) : 0))),
    ).toBeUndefined();
    expect(heard(with_((i) => 0.01 * Math.sin((2 * Math.PI * 50 * i) / RATE)))?.firsts).toHaveLength(10);
  });

  test('where each is another sound, where they come unevenly, in a drum beat, in noise and in silence', () => {
    const tune = clicks.map((click, i) => ({ ...click, hertz: 220 * 2 ** (((i * 7) % 17) / 12) }));
    const uneven = clicks.map((click, i) => ({ ...click, at: click.at + 0.2 * Math.abs(noise(i * 31)) }));
    const [kick, hat, snare] = [
      { hertz: 60, level: 0.9 },
      { hertz: 7000, level: 0.2 },
      { hertz: 300, level: 0.6 },
    ];
    for (const none of [tune, uneven, track(220, [kick, hat, snare, hat], 24)])
      expect(heard(samplesOf(none))).toBeUndefined();
    expect(heard(Float32Array.from({ length: 10 * RATE }, (_, i) => 0.3 * noise(i)))).toBeUndefined();
    expect(heard(new Float32Array(10 * RATE))).toBeUndefined();
  });
});

test('they give the tempo and the bars, and can be counted half as fast', async () => {
  const asked = fc.record({
    bpm: fc.integer({ min: 46, max: 200 }),
    pulses: fc.integer({ min: 3, max: 7 }),
    accent: accents,
  });
  await fc.assert(
    fc.asyncProperty(asked, async ({ bpm, pulses, accent }) => {
      const clicks = track(bpm, barOf(pulses, accent), 30);
      const found = await analyse(wavOf(samplesOf(clicks), RATE), 'clicks.wav', async () => 'go-on');
      if (!found.ok) throw new Error(found.problem.code);
      const { downbeats, meter, beats, heard: remembered } = found.value;
      expect(Math.abs(found.value.bpm / bpm - 1)).toBeLessThan(0.005);
      expect(meter).toEqual([{ bar: 0, numerator: pulses, denominator: 4 }]);
      expectMoments(beats, momentsOf(clicks));
      expectMoments(downbeats, momentsOf(clicks.filter((_, i) => i % pulses === 0)).slice(0, downbeats.length));
      expect(downbeats.length).toBeGreaterThanOrEqual(Math.floor(clicks.length / pulses));
      if (bpm > 90) expect(otherGrid(remembered, found.value, 'half').bpm / bpm).toBeCloseTo(0.5, 1);
    }),
    { numRuns: 6 },
  );
});
