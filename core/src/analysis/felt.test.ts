// Which tempo people count: what the network is sure of stays; between two that it thinks likely, drums decide.

import type { StrokeTimes } from '../music';
import { beatsCounted, findFeltBeats } from './felt';
import { gridOf, readHeard, writeHeard } from '.';
import { ACTIVATION_RATE, type Activations } from './network';

/** Beats at `bpm` for a minute, those in between as likely as `between`. */
function odds(bpm: number, between: number): Activations {
  const frames = 60 * ACTIVATION_RATE;
  const row = () => new Float32Array(frames).fill(-6);
  const all = { frames, beat: row(), downbeat: row(), section: row() };
  const gap = 30 / bpm;
  for (let i = 0; 1 + i * gap < 58; i++) {
    const at = Math.round((1 + i * gap) * ACTIVATION_RATE);
    const share = i % 2 ? between : 0.97;
    for (const k of [-1, 0]) {
      if (share > 0) all.beat[at + k] = Math.log(share / (1 - share));
      if (i % 8 === 0) all.downbeat[at + k] = 1;
    }
  }
  return all;
}

/** Strokes on beats of `bpm`: for each drum, on which of four. */
function strokes(bpm: number, on: Readonly<Record<'kick' | 'snare' | 'hat', readonly number[]>>): StrokeTimes {
  const times = (which: readonly number[]) =>
    Float64Array.from({ length: Math.floor((57 * bpm) / 60) * 4 }, (_, i) => 1 + (i * 15) / bpm).filter((_, i) =>
      which.some((beat) => Math.round(beat * 4) === i % 16),
    );
  return { kick: times(on.kick), snare: times(on.snare), hat: times(on.hat) };
}

const bpmOf = ({ path }: { readonly path: { readonly beats: readonly number[] } }) =>
  (60 * (path.beats.length - 1)) / (path.beats.at(-1)! - path.beats[0]!);
const NONE = strokes(60, { kick: [], snare: [], hat: [] });

test.each([62, 76, 100, 128, 152, 174])('what the network is sure of is counted as it says: %i', (bpm) => {
  expect(bpmOf(findFeltBeats(odds(bpm, 0), NONE))).toBeCloseTo(bpm, 0);
});

test('of a slow song whose beats in between are likely, too, snares on two and four tell the beat', () => {
  const heard = odds(70, 0.8);
  const slow = strokes(70, { kick: [0, 2], snare: [1, 3], hat: [0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5] });
  expect(bpmOf(findFeltBeats(heard, slow))).toBeCloseTo(70, 0);
  const fast = strokes(140, { kick: [0, 2], snare: [1, 3], hat: [0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5] });
  expect(bpmOf(findFeltBeats(heard, fast))).toBeCloseTo(140, 0);
});

test.each([
  [120, 60, 60],
  [60, 121, 120],
  [120, 122, 120],
  [168, 56, 56],
  // Neither as many nor half nor twice as many: whoever said that meant something else.
  [120, 97, 120],
  [120, 90, 120],
])('of %i, said to be %i, there are %i beats a minute; it is read again so', (bpm, said, meant) => {
  // Every other beat is a little likelier, so that it can be counted at half the tempo.
  const heard = odds(bpm / 2, 0.9);
  const felt = findFeltBeats(heard, NONE, said);
  expect(bpmOf(felt)).toBeCloseTo(meant, 0);
  expect(beatsCounted(heard, felt.count).beats).toEqual(felt.path.beats);
});

test('how beats are counted is kept with what was heard, and read again without the drums', () => {
  const activations = odds(70, 0.8);
  const slow = strokes(70, { kick: [0, 2], snare: [1, 3], hat: [0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5] });
  const { count, path } = findFeltBeats(activations, slow);
  expect(beatsCounted(activations, count).beats).toEqual(path.beats);
  const heard = { odds: activations, change: new Float32Array(), compound: false, sixEight: false, count };
  const grid = gridOf(heard, undefined, {}, path);
  const kept = readHeard(writeHeard(heard), 'x');
  if (!kept.ok) throw new Error('not read');
  expect(kept.value.count).toBe(count);
  expect(gridOf(kept.value).bpm).toBeCloseTo(grid.bpm, 1);
  // In what was kept before, nothing tells it: it is found from the beats alone.
  const old = readHeard(writeHeard({ ...heard, count: undefined }), 'x');
  expect(old.ok && old.value.count).toBeUndefined();
});
