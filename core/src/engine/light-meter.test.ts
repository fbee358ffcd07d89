// What lamps make of the bytes they get: for pictures, and for what flash safety counts.

import { AT_REST } from '../live';
import { patchedFixtures } from '../rig';
import { Show } from '../show';
import { hold, look, on, withLooks } from '../testing/stage';
import { seconds } from '../units';
import { colourMatch, compile, frameFor, LAMP_STRIDE, lampsFor, readLamps, render } from '.';

/** The test show with other channels in its bar, all lamps of it in the hand of one look. */
function barOf(channels: readonly object[], values: object) {
  const show = withLooks(look([{ role: 'bars', ...values }]));
  const profiles = JSON.parse(JSON.stringify(show.profiles)) as { id: string; modes: { channels: unknown }[] }[];
  profiles.find(({ id }) => id === 'bar')!.modes[0]!.channels = channels;
  const program = compile(Show.parse({ ...JSON.parse(JSON.stringify(show)), profiles }));
  const [frame, lamps] = [frameFor(program), lampsFor(program)];
  const cells = program.heads.flatMap(({ fixture }, head) => (fixture.id === 'c' ? [head] : []));
  const places = Math.max(...(channels as { at: readonly number[] }[]).flatMap(({ at }) => at));
  return {
    bytes: (state = on(), at = 1) => {
      render(program, state, seconds(at), frame);
      return [...frame.subarray(512 + 99, 512 + 99 + places)];
    },
    bar: (change: (bar: Uint8Array) => void = () => undefined, state = on()) => {
      render(program, state, seconds(1), frame);
      change(frame.subarray(512 + 99));
      readLamps(program, frame, lamps);
      return cells.map((head) => [...lamps.subarray(head * LAMP_STRIDE, head * LAMP_STRIDE + 7)]);
    },
  };
}
const rgb = (cell: number, from: number) =>
  ['ColorAdd_R', 'ColorAdd_G', 'ColorAdd_B'].map((attribute, k) => ({ attribute, at: [from + k], cell }));
const ranges = [
  { from: 0, to: 9, does: 'closed' },
  { from: 10, to: 199, does: 'strobe', low: 1, high: 20 },
  { from: 200, to: 255, does: 'open' },
];

test('the dimmer and the shutter of a bar are before all of its cells', () => {
  const common = [
    { attribute: 'Dimmer', at: [1] },
    { attribute: 'Shutter1', at: [2], ranges, home: 1 },
  ];
  const { bar } = barOf([...common, ...rgb(0, 3), ...rgb(1, 6)], { level: hold(1), strobe: hold(5) });
  const [first, second] = bar();
  expect(first![6]).toBeCloseTo(5, 0);
  expect(second![6]).toBeCloseTo(5, 0);
  expect(second!.slice(0, 3)).toEqual(first!.slice(0, 3));
  // Closed, and at half: for both.
  expect(bar((bytes) => (bytes[1] = 0)).every(([r, g, b]) => r! + g! + b! === 0)).toBe(true);
  const half = bar((bytes) => (bytes[0] = 128));
  expect(half[1]![0]! / second![0]!).toBeCloseTo(0.5, 1);
});

test('cells that have dimmers of their own are dimmed by them, and dark when nothing is on', () => {
  const dimmers = [0, 1].map((cell) => ({ attribute: 'Dimmer', at: [cell + 1], cell }));
  const spread = { type: 'spread' as const, values: [1, 0.5] };
  const blinder = barOf(dimmers, { level: spread });
  expect(blinder.bytes()).toEqual([255, 128]);
  expect(blinder.bytes(AT_REST)).toEqual([0, 0]);
  expect(blinder.bar().map(([r]) => r)).toEqual([expect.closeTo(1, 2), expect.closeTo(0.5, 2)]);
  // A dimmer before all of them stays open; in each cell its own dims what it mixes.
  const coloured = [
    ...[0, 1].map((cell) => ({ attribute: 'Dimmer', at: [4 * cell + 2], cell })),
    ...rgb(0, 3),
    ...rgb(1, 7),
  ];
  const bar = barOf([{ attribute: 'Dimmer', at: [1] }, ...coloured], { level: spread });
  expect(bar.bytes().slice(0, 6)).toEqual([255, 255, 255, 255, 255, 128]);
  expect(bar.bytes(AT_REST).map((value, i) => (i === 1 || i === 5 ? value : 0))).toEqual(
    Array.from({ length: 9 }, () => 0),
  );
});

test('a dimmer that strobes at its upper end is dimmed below that, and a strobe is made by its level', () => {
  const ranges = [
    { from: 0, to: 7, does: 'closed' },
    { from: 8, to: 134, does: 'level' },
    { from: 135, to: 239, does: 'strobe', low: 1, high: 20 },
    { from: 240, to: 255, does: 'open' },
  ];
  const at = (level: number, more: object = {}) =>
    barOf([{ attribute: 'Dimmer', at: [1], ranges }], { level: hold(level), ...more });
  for (const [level, byte] of [
    [0, 0],
    [0.01, 9],
    [0.5, 71],
    [0.9, 121],
    [1, 134],
  ] as const) {
    const { bytes, bar } = at(level);
    expect(bytes()).toEqual([byte]);
    expect(bar()[0]![0]).toBeCloseTo(level, 2);
  }
  const strobing = at(1, { strobe: hold(5) });
  const seen = new Set(Array.from({ length: 40 }, (_, i) => strobing.bytes(on(), 1 + i / 44)[0]));
  expect([...seen].sort()).toEqual([0, 134]);
});

test('a lamp that has white emitters and nothing else shines as they do', () => {
  const { bar } = barOf([{ attribute: 'ColorAdd_W', at: [1] }], { level: hold(1), more: { ColorAdd_W: hold(1) } });
  expect(Math.max(...bar()[0]!.slice(0, 3))).toBeGreaterThan(0.9);
  expect(Math.max(...bar((bytes) => (bytes[0] = 0))[0]!.slice(0, 3))).toBe(0);
  expect(Math.max(...bar(undefined, AT_REST)[0]!.slice(0, 3))).toBe(0);
});

test('whites behind a gel shine in its colour, and are said to', () => {
  const gel = { x: 0.64, y: 0.33 };
  const show = withLooks(look([{ role: 'bars', level: hold(1) }]));
  const profiles = show.profiles.map((one) =>
    one.id === 'bar'
      ? { ...one, modes: [{ ...one.modes[0]!, channels: [{ attribute: 'ColorAdd_W', at: [1], ranges: [] }] }] }
      : one,
  );
  const rigs = show.rigs.map((rig) => ({
    ...rig,
    fixtures: rig.fixtures.map((one) => (one.id === 'c' ? { ...one, gel } : one)),
  }));
  const gelled = { ...show, profiles, rigs } as typeof show;
  const program = compile(gelled);
  const [frame, lamps] = [frameFor(program), lampsFor(program)];
  render(program, on(), seconds(1), frame);
  readLamps(program, frame, lamps);
  const at = program.heads.findIndex(({ fixture }) => fixture.id === 'c') * LAMP_STRIDE;
  expect(frame[512 + 99]).toBe(255);
  expect(lamps[at]! - lamps[at + 2]!).toBeGreaterThan(0.8);
  const [bar] = patchedFixtures(gelled.rigs[0]!, gelled.profiles).filter(({ fixture }) => fixture.id === 'c');
  expect(colourMatch(bar!, gel)).toMatchObject({ how: 'gel', off: expect.closeTo(0, 1) });
  expect(colourMatch({ ...bar!, fixture: { ...bar!.fixture, gel: undefined } }, gel)).toMatchObject({ how: 'mixes' });
});

test('lamps of different types with one gel between them keep their own colours', () => {
  const gel = { x: 0.64, y: 0.33 };
  const show = withLooks(look([{ role: 'movers', level: hold(1) }]));
  // The bar has no colours of its own, the spot has a wheel that is open.
  const profiles = show.profiles.map((one) =>
    one.id === 'bar'
      ? { ...one, modes: [{ ...one.modes[0]!, channels: [{ attribute: 'Dimmer', at: [1], ranges: [] }] }] }
      : one,
  );
  const rigs = show.rigs.map((rig) => ({
    ...rig,
    fixtures: rig.fixtures.map((one) => (one.id === 'c' || one.id === 's' ? { ...one, gel } : one)),
  }));
  const program = compile({ ...show, profiles, rigs } as typeof show);
  const [frame, lamps] = [frameFor(program), lampsFor(program)];
  render(program, on(), seconds(1), frame);
  frame[512 + 99] = 255;
  readLamps(program, frame, lamps);
  const blueOf = (fixture: string) =>
    lamps[program.heads.findIndex((head) => head.fixture.id === fixture) * LAMP_STRIDE + 2]!;
  expect(blueOf('s')).toBeGreaterThan(0.5);
  expect(blueOf('c')).toBeLessThan(0.1);
});
