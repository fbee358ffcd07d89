// What a foot means, over contacts that bounce and feet that are never twice the same.

import fc from 'fast-check';
import { USUAL_TIMES, type Gesture, type Times } from './control';
import { felt, FOOT_AWAY, wakeAt, type Foot, type Wanted } from './gesture';
import { measured, suggestedTimes, type Edge } from './trainer';

type Told = { readonly gesture: Gesture; readonly at: number };

/** Plays edges, waking in between as a host does. */
function played(edges: readonly Edge[], wanted: Wanted, times: Times = USUAL_TIMES): readonly Told[] {
  const told: Told[] = [];
  let foot: Foot = FOOT_AWAY;
  let contact = false;
  const see = (at: number) => {
    const result = felt(foot, contact, at, times, wanted);
    foot = result.foot;
    for (const gesture of result.gestures) told.push({ gesture, at });
  };
  const wakeUntil = (end: number) => {
    for (let n = 0; n < 20; n++) {
      const wake = wakeAt(foot, times, wanted);
      if (wake === null || wake > end) return;
      see(wake);
    }
    throw new Error('It never sleeps');
  };
  for (const edge of edges) {
    wakeUntil(edge.at);
    contact = edge.down;
    see(edge.at);
  }
  wakeUntil(1e6);
  return told;
}
const names = (told: readonly Told[]) => told.map(({ gesture }) => gesture);
const step = (at: number, length = 0.12): Edge[] => [
  { down: true, at },
  { down: false, at: at + length },
];
const NOTHING: Wanted = { double: false, hold: false };
const DOUBLE: Wanted = { double: true, hold: false };
const HOLD: Wanted = { double: false, hold: true };
const ALL: Wanted = { double: true, hold: true };

test('a press acts at once where nothing else is assigned', () => {
  expect(played(step(5), NOTHING)).toEqual([
    { gesture: 'press', at: 5 },
    { gesture: 'release', at: 5.12 },
  ]);
});

test('with a double press it acts when the time for a second is over, with a hold as the foot lifts', () => {
  expect(played(step(5), DOUBLE)[1]).toEqual({ gesture: 'press', at: 5 + USUAL_TIMES.double });
  expect(names(played([...step(5), ...step(5.25)], DOUBLE))).toEqual(['release', 'double', 'release']);
  expect(played(step(5), HOLD)[0]).toEqual({ gesture: 'press', at: 5.12 });
  expect(played(step(5, 2), HOLD)).toEqual([
    { gesture: 'hold', at: 5 + USUAL_TIMES.hold },
    { gesture: 'release', at: 7 },
  ]);
  expect(names(played([...step(5), ...step(5.25, 3)], ALL))).toEqual(['release', 'double', 'release']);
});

test('an eager switch acts at once and holds too', () => {
  expect(played(step(5, 2), { ...HOLD, eager: true })).toEqual([
    { gesture: 'press', at: 5 },
    { gesture: 'hold', at: 5 + USUAL_TIMES.hold },
    { gesture: 'release', at: 7 },
  ]);
});

test('a third step begins anew, and two slow ones are two presses', () => {
  expect(names(played([...step(5), ...step(5.25), ...step(5.5)], DOUBLE)).filter((one) => one !== 'release')).toEqual([
    'double',
    'press',
  ]);
  expect(names(played([...step(5), ...step(6)], DOUBLE)).filter((one) => one !== 'release')).toEqual([
    'press',
    'press',
  ]);
});

/** A night of somebody's foot: what they meant, with the edges of it. */
const meant = fc.array(
  fc.record({
    kind: fc.constantFrom<'press' | 'double' | 'hold'>('press', 'double', 'hold'),
    length: fc.integer({ min: 60, max: 300 }),
    gap: fc.integer({ min: 130, max: 320 }),
    rest: fc.integer({ min: 800, max: 3000 }),
    bounces: fc.array(fc.integer({ min: 1, max: 4 }), { maxLength: 3 }),
  }),
  { minLength: 1, maxLength: 12 },
);

test('everything a foot meant is told, in order and once, whatever the contact bounces', () => {
  fc.assert(
    fc.property(meant, (all) => {
      const edges: Edge[] = [];
      let at = 10;
      const change = (down: boolean, when: number, bounces: readonly number[]) => {
        edges.push({ down, at: when });
        let then = when;
        for (const ms of bounces) {
          edges.push({ down: !down, at: (then += ms / 1000) });
          edges.push({ down, at: (then += 0.001) });
        }
      };
      for (const { kind, length, gap, rest, bounces } of all) {
        const press = (from: number, seconds: number) => {
          change(true, from, bounces);
          change(false, from + seconds, bounces);
        };
        if (kind === 'hold') press(at, 0.9);
        else if (kind === 'press') press(at, length / 1000);
        else {
          press(at, 0.08);
          press(at + gap / 1000, length / 1000);
        }
        at += 1.3 + rest / 1000;
      }
      const told = played(edges, ALL).filter(({ gesture }) => gesture !== 'release');
      expect(names(told)).toEqual(all.map(({ kind }) => kind));
      for (const [i, one] of told.entries()) if (i > 0) expect(one.at).toBeGreaterThan(told[i - 1]!.at);
    }),
    { seed: 15, numRuns: 300 },
  );
});

test('every time down ends with one release, and a contact that flutters for long settles as it ends', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.boolean(), fc.integer({ min: 1, max: 900 })), { minLength: 1, maxLength: 60 }),
      fc.boolean(),
      fc.boolean(),
      (changes, double, hold) => {
        let at = 0;
        const edges = changes.map(([down, ms]) => ({ down, at: (at += ms / 1000) }));
        const told = names(played([...edges, { down: false, at: at + 1 }], { double, hold }));
        const releases = told.filter((one) => one === 'release').length;
        const began =
          told.filter((one) => one === 'press' || one === 'hold').length +
          2 * told.filter((one) => one === 'double').length;
        expect(began).toBe(releases);
      },
    ),
    { seed: 15, numRuns: 300 },
  );
});

describe('the trainer', () => {
  const doubles = (gap: number, count: number) =>
    Array.from({ length: count }, (_, i) => [...step(i * 3, 0.1), ...step(i * 3 + gap, 0.1)]).flat();

  test('suggests times with which the foot it saw is understood', () => {
    fc.assert(
      fc.property(fc.integer({ min: 160, max: 700 }), fc.integer({ min: 90, max: 600 }), (gap, length) => {
        fc.pre(length < gap - 60 || length > 250);
        const edges = [
          ...doubles(gap / 1000, 4),
          ...Array.from({ length: 4 }, (_, i) => step(100 + i * 3, length / 1000)).flat(),
        ];
        const times = suggestedTimes(measured(edges));
        expect(names(played(doubles(gap / 1000, 1), ALL, times))).toContain('double');
        expect(names(played(step(5, length / 1000), ALL, times))).toContain('press');
        expect(names(played(step(5, 1.6), ALL, times))).toContain('hold');
      }),
      { seed: 15, numRuns: 200 },
    );
  });

  test('tells double presses from presses in a steady row', () => {
    const steady = Array.from({ length: 8 }, (_, i) => step(i * 0.8, 0.1)).flat();
    expect(measured(steady).doubles).toEqual([]);
    const quick = Array.from({ length: 4 }, (_, i) => [...step(i * 0.9, 0.08), ...step(i * 0.9 + 0.2, 0.08)]).flat();
    expect(suggestedTimes(measured(quick)).double).toBeCloseTo(0.25, 2);
  });

  test('leaves usual what it saw too little of, and widens the bounce to what the contact does', () => {
    expect(suggestedTimes(measured([]))).toEqual(USUAL_TIMES);
    const rough = [0, 0.006, 0.018, 0.2, 0.3, 0.32, 0.335, 0.6].map((at, i) => ({ down: i % 2 === 0, at }));
    const found = measured(rough);
    expect(found.bounces.length).toBeGreaterThan(2);
    expect(suggestedTimes(found).bounce).toBeGreaterThanOrEqual(0.02);
  });
});
