// The four songs of the night: scores in bars and beats, played by the synth, with the exact beats kept as truth.

import { beatOfBar, steadyTempo, tempoMap, timeAt, type Meter, type TempoMap } from '@hovlix/core/time';
import { beats, seconds } from '@hovlix/core/units';
import { bass, chord, clap, crash, hat, kick, lead, mastered, riser, silence, snare, tom, type Mix } from './synth';

export type ScoreSection = {
  readonly bar: number;
  readonly bars: number;
  readonly name: string;
  readonly note: string;
};

export type Score = {
  readonly slug: string;
  readonly title: string;
  readonly by: string;
  readonly tempo: TempoMap;
  readonly meter: Meter;
  /** Pulses in a bar and their length in quarter notes. */
  readonly pulses: number;
  readonly pulse: number;
  readonly sections: readonly ScoreSection[];
  readonly bars: number;
  readonly duration: number;
  readonly play: () => Mix;
};

/** How full a section is played. */
type Band = {
  readonly drums: 0 | 1 | 2 | 3;
  readonly bass: boolean;
  readonly chords: 'none' | 'soft' | 'plucked';
  readonly lead: boolean;
};

const COUNT_IN = 0.4;

type Plan = readonly (readonly [name: string, bars: number, note: string, band: Band])[];

const band = (drums: Band['drums'], withBass: boolean, chords: Band['chords'], withLead: boolean): Band => ({
  drums,
  bass: withBass,
  chords,
  lead: withLead,
});

function laidOut(plan: Plan): readonly ScoreSection[] {
  let bar = 0;
  return plan.map(([name, bars, note]) => {
    const section = { bar, bars, name, note };
    bar += bars;
    return section;
  });
}

function score(
  facts: Pick<Score, 'slug' | 'title' | 'by' | 'tempo' | 'meter' | 'pulses' | 'pulse'>,
  plan: Plan,
  playBar: (mix: Mix, at: (beat: number) => number, bar: number, of: Band, section: ScoreSection) => void,
  wet: number,
): Score {
  const sections = laidOut(plan);
  const bars = sections.reduce((sum, section) => sum + section.bars, 0);
  const end = timeAt(facts.tempo, beatOfBar(facts.meter, bars));
  const duration = end + 2.5;
  return {
    ...facts,
    sections,
    bars,
    duration,
    play() {
      const mix = silence(duration);
      sections.forEach((section, i) => {
        for (let n = 0; n < section.bars; n++) {
          const start = beatOfBar(facts.meter, section.bar + n);
          playBar(mix, (beat) => timeAt(facts.tempo, beats(start + beat)), n, plan[i]![3], section);
        }
      });
      crash(mix, end);
      kick(mix, end);
      return mastered(mix, wet);
    },
  };
}

const C4 = [{ bar: 0, numerator: 4, denominator: 4 }] as const;

function rockBar(chords: readonly (readonly number[])[], tune: readonly number[]) {
  return (mix: Mix, at: (beat: number) => number, bar: number, of: Band, section: ScoreSection): void => {
    const notes = chords[bar % chords.length]!;
    const beat = at(1) - at(0);
    const last = bar === section.bars - 1;
    if (bar === 0 && of.drums > 1) crash(mix, at(0), 0.8);
    if (of.drums > 0) {
      for (const b of of.drums > 2 ? [0, 1.5, 2, 3.5] : [0, 2]) kick(mix, at(b), b % 1 ? 0.7 : 1);
      if (of.drums > 1) for (const b of [1, 3]) snare(mix, at(b));
      for (let b = 0; b < 4; b += of.drums > 1 ? 0.5 : 1)
        hat(mix, at(b), b % 1 ? 0.6 : 1, of.drums > 2 && b % 2 === 1.5);
      if (last && of.drums > 1) [2.5, 2.75, 3.25, 3.5, 3.75].forEach((b, i) => tom(mix, at(b), 52 - i * 3, 0.8));
    }
    if (of.bass) for (let b = 0; b < 4; b += 0.5) bass(mix, at(b), beat * 0.46, notes[0]! - 24, b % 1 ? 0.7 : 0.9);
    if (of.chords === 'soft') chord(mix, at(0), at(4) - at(0), notes, 0.9, 0.25);
    if (of.chords === 'plucked')
      for (let b = 0; b < 4; b += 1) chord(mix, at(b), beat * 0.95, notes, b % 2 ? 1.1 : 0.9);
    if (of.lead)
      for (let i = 0; i < 4; i++) {
        const note = tune[(bar * 4 + i) % tune.length]!;
        if (note > 0) lead(mix, at(i), beat * 0.9, note, 0.9);
      }
  };
}

const paperLighthouse = score(
  {
    slug: 'paper-lighthouse',
    title: 'Paper Lighthouse',
    by: 'Tin Lantern',
    tempo: steadyTempo(112, seconds(COUNT_IN)),
    meter: C4,
    pulses: 4,
    pulse: 1,
  },
  [
    ['Intro', 4, 'one lamp, then the riff', band(1, false, 'plucked', false)],
    ['Verse 1', 8, 'only blue, wait for the drummer', band(2, true, 'soft', false)],
    ['Lift', 4, 'grow, do not give it away', band(1, true, 'plucked', false)],
    ['Chorus 1', 8, 'everything, movers out, white on the snare', band(3, true, 'plucked', true)],
    ['Verse 2', 8, 'same as verse 1, singer in warm', band(2, true, 'soft', false)],
    ['Lift', 4, 'grow again, a little redder', band(1, true, 'plucked', false)],
    ['Chorus 2', 8, 'everything', band(3, true, 'plucked', true)],
    ['Bridge', 8, 'nearly dark, the singer alone', band(0, false, 'soft', true)],
    ['Chorus 3', 12, 'more than everything', band(3, true, 'plucked', true)],
    ['Outro', 4, 'let it go out over the river', band(1, true, 'soft', false)],
  ],
  rockBar(
    [
      [57, 60, 64],
      [53, 57, 60],
      [48, 55, 64],
      [55, 59, 62],
    ],
    [76, 0, 74, 72, 77, 76, 0, 72, 79, 0, 76, 72, 74, 74, 71, 0],
  ),
  0.5,
);

/** A drummer who leans into the chorus and sits back in the verse: ±4 %, slowly, one anchor a beat. */
function drifting(bpm: number, pulses: number): TempoMap {
  const anchors = [{ beat: beats(0), time: seconds(COUNT_IN) }];
  for (let i = 1; i <= pulses; i++) {
    const lean = 0.028 * Math.sin((2 * Math.PI * i) / 93) + 0.012 * Math.sin((2 * Math.PI * i) / 37 + 1);
    anchors.push({ beat: beats(i), time: seconds(anchors[i - 1]!.time + 60 / (bpm * (1 + lean))) });
  }
  return tempoMap(anchors);
}

const lowTideEngine = score(
  {
    slug: 'low-tide-engine',
    title: 'Low Tide Engine',
    by: 'Tin Lantern',
    tempo: drifting(116, 260),
    meter: C4,
    pulses: 4,
    pulse: 1,
  },
  [
    ['Intro', 4, 'the engine starts: embers only', band(2, false, 'none', false)],
    ['Verse', 12, 'amber, low, close', band(2, true, 'plucked', false)],
    ['Chorus', 8, 'sparks', band(3, true, 'plucked', true)],
    ['Verse', 12, 'amber again, movers on the drums', band(2, true, 'plucked', false)],
    ['Chorus', 8, 'sparks, brighter', band(3, true, 'plucked', true)],
    ['Breakdown', 4, 'under water', band(0, true, 'soft', false)],
    ['Chorus', 8, 'all of it', band(3, true, 'plucked', true)],
    ['Outro', 4, 'embers', band(1, true, 'soft', false)],
  ],
  rockBar(
    [
      [52, 59, 64],
      [52, 57, 60],
      [55, 59, 62],
      [50, 57, 62],
    ],
    [64, 67, 0, 69, 71, 0, 69, 67, 64, 62, 0, 64, 67, 0, 62, 0],
  ),
  0.35,
);

const saltAndSignal = score(
  {
    slug: 'salt-and-signal',
    title: 'Salt and Signal',
    by: 'Tin Lantern',
    tempo: steadyTempo(99, seconds(COUNT_IN)),
    meter: [{ bar: 0, numerator: 6, denominator: 8 }],
    pulses: 2,
    pulse: 1.5,
  },
  [
    ['Intro', 4, 'moonrise from behind', band(0, false, 'plucked', false)],
    ['Verse 1', 8, 'the singer, and sea', band(1, true, 'plucked', false)],
    ['Chorus 1', 8, 'lanterns', band(2, true, 'plucked', true)],
    ['Verse 2', 8, 'sea again', band(1, true, 'plucked', false)],
    ['Chorus 2', 8, 'lanterns, then the whole bank', band(2, true, 'plucked', true)],
    ['Outro', 4, 'moon down', band(0, false, 'plucked', false)],
  ],
  (mix, at, bar, of) => {
    const notes = [
      [50, 57, 66],
      [47, 54, 62],
      [55, 59, 62],
      [45, 57, 61],
    ][bar % 4]!;
    const eighth = at(0.5) - at(0);
    for (let i = 0; i < 6; i++) {
      if (of.chords !== 'none')
        chord(mix, at(i / 2), eighth * 2.4, [notes[[0, 1, 2, 1, 2, 1][i]!]! + (i > 2 ? 12 : 0)], i % 3 ? 1.5 : 2.2);
      if (of.drums > 0) hat(mix, at(i / 2), i % 3 ? 0.6 : 1);
    }
    if (of.drums > 0) kick(mix, at(0), 0.8);
    if (of.drums > 0) snare(mix, at(1.5), of.drums > 1 ? 0.7 : 0.35);
    if (of.drums > 1 && bar === 0) crash(mix, at(0), 0.6);
    if (of.bass) bass(mix, at(0), eighth * 5.5, notes[0]! - 12, 0.8);
    if (of.lead) [notes[2]! + 12, notes[1]! + 12].forEach((note, i) => lead(mix, at(i * 1.5), eighth * 2.7, note, 0.9));
  },
  0.8,
);

const nightFerry = score(
  {
    slug: 'night-ferry',
    title: 'Night Ferry',
    by: 'Night Ferry',
    tempo: steadyTempo(124, seconds(COUNT_IN)),
    meter: C4,
    pulses: 4,
    pulse: 1,
  },
  [
    ['Groove', 8, 'teal, the floor comes first', band(2, false, 'none', false)],
    ['Theme', 16, 'undertow, bars follow the bass', band(2, true, 'plucked', false)],
    ['Breakdown', 8, 'moonlight, no beat', band(0, false, 'soft', true)],
    ['Build-up', 8, 'whiter and whiter', band(1, false, 'soft', false)],
    ['Drop', 16, 'everything on the kick', band(3, true, 'plucked', true)],
    ['Outro', 8, 'back to teal', band(2, true, 'none', false)],
  ],
  (mix, at, bar, of, section) => {
    const notes = [
      [57, 60, 64, 67],
      [53, 57, 60, 64],
      [50, 57, 60, 65],
      [52, 56, 59, 62],
    ][(bar >> 1) % 4]!;
    const beat = at(1) - at(0);
    const building = section.name === 'Build-up';
    if (building && bar === 0) riser(mix, at(0), at(section.bars * 4) - at(0) - beat);
    if (bar === 0 && of.drums > 1) crash(mix, at(0), 0.9);
    for (let b = 0; b < 4; b++) {
      if (of.drums > 1) kick(mix, at(b), 1.1);
      if (of.drums > 1 && b % 2) clap(mix, at(b));
      if (of.drums > 1) hat(mix, at(b + 0.5), 1, true);
    }
    if (of.drums > 2) for (let b = 0; b < 4; b += 0.25) hat(mix, at(b), b % 0.5 ? 0.4 : 0.7);
    // The snare doubles as the drop comes near, and holds its breath for the last beat.
    const step = bar < 4 ? 1 : bar < 6 ? 0.5 : 0.25;
    if (building) for (let b = 0; b < (bar === 7 ? 3 : 4); b += step) snare(mix, at(b), 0.3 + 0.07 * bar);
    if (of.bass) for (const b of [0.5, 1.5, 2.5, 2.75, 3.5]) bass(mix, at(b), beat * 0.4, notes[0]! - 24, 1);
    if (of.chords === 'soft') chord(mix, at(0), at(4) - at(0), notes, 0.7, 0.3);
    if (of.chords === 'plucked') for (const b of [0, 0.75, 1.5, 2.5, 3.25]) chord(mix, at(b), beat * 0.5, notes, 1);
    if (of.lead) [0, 1.5, 3].forEach((b, i) => lead(mix, at(b), beat * 0.7, notes[(bar + i) % 4]! + 12, 0.8));
  },
  0.4,
);

export const SCORES: readonly Score[] = [paperLighthouse, saltAndSignal, lowTideEngine, nightFerry];

/** Exact times of every pulse and every bar line, for tests of the analysis. */
export function truthOf(of: Score) {
  const pulses = Array.from(
    { length: of.bars * of.pulses + 1 },
    (_, i) => timeAt(of.tempo, beats(i * of.pulse)) as number,
  );
  return {
    title: of.title,
    durationSec: of.duration,
    meter: `${of.meter[0]!.numerator}/${of.meter[0]!.denominator}`,
    beats: pulses.map(rounded),
    downbeats: pulses.filter((_, i) => i % of.pulses === 0).map(rounded),
    sections: of.sections.map((section) => ({
      startSec: rounded(timeAt(of.tempo, beatOfBar(of.meter, section.bar))),
      endSec: rounded(timeAt(of.tempo, beatOfBar(of.meter, section.bar + section.bars))),
      label: section.name,
    })),
  };
}

const rounded = (time: number) => Math.round(time * 1e5) / 1e5;
