// Every lamp that Hovlix knows from the start, in each of its modes, and lamps as manuals have them: what a look that says
// no more than a level and a colour makes of it.

import {
  abilityOf,
  blankType,
  fixtureLibrary,
  heldFor,
  rangeAt,
  readChart,
  typeFromChart,
  undrawn,
  type Mode,
  type Profile,
} from '../rig';
import { AT_REST } from '../live';
import { Show } from '../show';
import { testShow } from '../testing/show';
import { hold, look, on, type ValueIn } from '../testing/stage';
import { address, seconds, universe } from '../units';
import { compile, frameFor, lampsFor, LAMP_STRIDE, readLamps, render } from '.';

const plain = JSON.parse(JSON.stringify(testShow())) as Show;
const lamps = fixtureLibrary()
  .filter(({ kind, output }) => kind !== 'hazer' && output > 0)
  .flatMap((profile) => profile.modes.map((mode) => ({ profile, mode, name: `${profile.model}, ${mode.name}` })));

/** Linear red, green and blue of each cell of one such lamp by itself, and its bytes. */
function lit(profile: Profile, mode: Mode, says: Partial<ValueIn> | null) {
  const [rig] = plain.rigs;
  const fixture = { ...rig!.fixtures[0], profile: profile.id, mode: mode.id, universe: 1, address: 1 };
  const rigs = [{ ...rig, fixtures: [fixture], casting: [{ role: 'wash', fixtures: [fixture.id] }] }];
  const looks = [...plain.looks, look([{ role: 'wash', ...says }])];
  const program = compile(Show.parse(JSON.parse(JSON.stringify({ ...plain, profiles: [profile], rigs, looks }))));
  const [frame, found] = [frameFor(program), lampsFor(program)];
  render(program, says ? on() : AT_REST, seconds(1), frame);
  readLamps(program, frame, found);
  const cells = program.heads.map((_, head) => [...found.subarray(head * LAMP_STRIDE, head * LAMP_STRIDE + 3)]);
  return {
    cells,
    frame,
    most: Math.max(...cells.flat()),
    least: Math.min(...cells.map((cell) => Math.max(...cell))),
    hertz: Math.max(...program.heads.map((_, head) => found[head * LAMP_STRIDE + 6]!)),
  };
}

const has = (mode: Mode, pattern: RegExp) => mode.channels.some(({ attribute }) => pattern.test(attribute));
const dims = ({ mode }: { mode: Mode }) => has(mode, /^(Dimmer$|ColorAdd_)/);
/** Figures of their own are all the light they have. */
const drawing = ({ mode }: { mode: Mode }) => !has(mode, /^(Dimmer$|ColorAdd_)/) && has(mode, /^Effects/);

/** Between two whites none of red, green and blue is quite at full. */
const fullOf = (mode: Mode, others: number) => (has(mode, /^CTC$/) && !has(mode, /^Color/) ? 0.9 : others);

test.each(lamps)('$name is dark with nothing on, and at level 0', ({ profile, mode }) => {
  expect(lit(profile, mode, null).most).toBe(0);
  expect(lit(profile, mode, { level: hold(0) }).most).toBe(0);
});

test.each(lamps.filter((lamp) => !drawing(lamp)))('$name shines with its level in all of its cells', (lamp) => {
  const { profile, mode } = lamp;
  expect(lit(profile, mode, { level: hold(1) }).least).toBeGreaterThan(fullOf(mode, 0.95));
  const half = lit(profile, mode, { level: hold(0.5) });
  // What nothing dims is open or closed.
  for (const one of [half.least, half.most]) expect(one).toBeCloseTo(dims(lamp) ? 0.5 : 1, 1);
});

test.each(lamps.filter((lamp) => abilityOf(lamp).colour !== 'none' && !drawing(lamp)))(
  '$name is red where it can',
  (lamp) => {
    const { cells } = lit(lamp.profile, lamp.mode, { level: hold(1), colour: hold({ x: 0.64, y: 0.33 }) });
    for (const [r, g, b] of cells) {
      expect(r).toBeGreaterThan(0.6);
      expect(Math.max(g!, b!)).toBeLessThan(0.2);
    }
  },
);

/** As manuals have them: what strobes, in which words, and what is dark. */
const CHARTS: Readonly<Record<string, string>> = {
  'a strobe channel that has no function at its lower end': `CH1 Master dimmer 0-255
CH2 Red 0-255
CH3 Green 0-255
CH4 Blue 0-255
CH5 Strobe
0-10 no function
11-255 slow to fast
CH6 Speed 0-255`,
  'one of which no more is said': `1 Dimmer
2 Red
3 Green
4 Blue
5 White
6 Strobe 0-255`,
  'one that goes from slow to fast': `1 Red
2 Green
3 Blue
4 White
5 Amber
6 UV
7 Dimmer
8 Strobe slow-fast`,
  'a dimmer that strobes at its upper end': `1 Dimmer / strobe
0-189 dimmer
190-250 strobe slow-fast
251-255 full on
2 Red
3 Green
4 Blue`,
  'a shutter that dims': `1 Pan
2 Tilt
3 Shutter / dimmer
0-7 blackout
8-134 dimmer dark to bright
135-239 strobe slow to fast
240-255 open
4 Colour 0-15 white 16-31 red 32-47 blue`,
  'in German': `Kanal 1: Dimmer 0-100%
Kanal 2: Rot
Kanal 3: Grün
Kanal 4: Blau
Kanal 5: Strobe 0-5 aus, 6-255 langsam - schnell`,
  'a strobe': `1 Dimmer
2 Flash rate 0-5 off 6-255 1-20 Hz`,
  'two whites': `1 Warm white
2 Cool white
3 Dimmer
4 Strobe 0-19 open 20-255 strobe`,
  'a blacklight': `1 UV dimmer
2 Strobe 0-255`,
  'hue and saturation': `1 Intensity
2 Hue 0-360°
3 Saturation 0-100%
4 Strobe 0-5 off 6-255 1-20 Hz`,
  'hue, fine too, with colour temperature beside it': `1 Dimmer
2 Hue
3 Hue fine
4 Saturation
5 CCT 2700K-6500K`,
  'one white, from warm to cold': `1 Dimmer
2 Dimmer fine
3 Colour temperature (2700 K - 6500 K)`,
  'one white, from cold to warm': `1 Colour temperature 0-10 no function 11-255 6500K to 2700K
2 Dimmer`,
  'colours that are chosen, and off': `1 Colour 0-5 off 6-20 red 21-35 green 36-50 blue 51-65 white
2 Strobe
3 Speed`,
};

test.each(Object.entries(CHARTS))('as a manual has it: %s', (_, text) => {
  const blank = blankType('t');
  const profile = typeFromChart(blank, readChart(text), blank.modes[0]!.id);
  const mode = profile.modes[0]!;
  expect(lit(profile, mode, null)).toMatchObject({ most: 0, hertz: 0 });
  expect(lit(profile, mode, { level: hold(0) })).toMatchObject({ most: 0, hertz: 0 });
  const full = lit(profile, mode, { level: hold(1) });
  expect(full.least).toBeGreaterThan(fullOf(mode, 0.995));
  expect(full.hertz).toBe(0);
  if (dims({ mode }))
    expect(lit(profile, mode, { level: hold(0.5) })).toMatchObject({ least: expect.closeTo(0.5, 1), hertz: 0 });
  const shutter = mode.channels.find(({ attribute }) => attribute === 'Shutter1');
  if (shutter) expect(Math.round(lit(profile, mode, { level: hold(1), strobe: hold(5) }).hertz)).toBe(5);
  if (abilityOf({ profile, mode }).colour === 'none') return;
  const [[r, g, b] = []] = lit(profile, mode, { level: hold(1), colour: hold({ x: 0.64, y: 0.33 }) }).cells;
  expect(r! > 0.6 && Math.max(g!, b!) < 0.2).toBe(true);
  // Lit by hand it neither strobes nor stays dark.
  const held = heldFor(
    { fixture: { ...plain.rigs[0]!.fixtures[0]!, universe: universe(1), address: address(1) }, profile, mode },
    { level: 1 },
  );
  const open = shutter && held.find(({ address: at }) => at === shutter.at[0])!.value;
  if (shutter) expect(rangeAt(shutter, open!)?.does).toBe('open');
});

test('whites go from the coldest to the warmest as the colour does, and shine whatever it is', () => {
  const { profile, mode } = lamps.find(
    ({ mode: { channels } }) => channels.map(({ attribute }) => attribute).join() === 'ColorAdd_W,ColorAdd_WW',
  )!;
  const of = (x: number, y: number, level = 1) => [
    ...lit(profile, mode, { level: hold(level), colour: hold({ x, y }) }).frame.subarray(0, 2),
  ];
  expect(of(0.3127, 0.329)).toEqual([255, 0]);
  expect(of(0.44, 0.403)).toEqual([0, 255]);
  expect(of(0.376, 0.366).every((byte) => byte > 240)).toBe(true);
  expect(of(0.15, 0.06)).toEqual([255, 0]);
  expect(of(0.64, 0.33)).toEqual([0, 255]);
  expect(of(0.44, 0.403, 0.5)).toEqual([0, 128]);
});

/** A lamp as its manual has it, lit in a colour: its bytes. */
function bytesOf(chart: string, x: number, y: number, level = 1): readonly number[] {
  const blank = blankType('t');
  const profile = typeFromChart(blank, readChart(chart), blank.modes[0]!.id);
  return [...lit(profile, profile.modes[0]!, { level: hold(level), colour: hold({ x, y }) }).frame.subarray(0, 4)];
}

test('hue and saturation follow the colour, and are read as it', () => {
  const chart = '1 Dimmer\n2 Hue\n3 Saturation\n4 Reserved';
  const [level, red, deep] = bytesOf(chart, 0.69, 0.308, 0.5);
  expect(level).toBe(128);
  expect(Math.min(red!, 255 - red!)).toBeLessThan(4);
  expect(deep).toBeGreaterThan(240);
  // A third of the circle on is green, a screen's being yellower, and two thirds blue; white has no saturation.
  expect(bytesOf(chart, 0.19, 0.72)[1]).toBeGreaterThan(70);
  expect(bytesOf(chart, 0.19, 0.72)[1]).toBeLessThan(90);
  expect(Math.abs(bytesOf(chart, 0.14, 0.045)[1]! - 170)).toBeLessThan(4);
  expect(bytesOf(chart, 0.3127, 0.329)[2]).toBeLessThan(4);
  // It comes out as a lamp of red, green and blue would have it, to within what bytes round.
  const cellOf = (text: string, x: number, y: number) => {
    const blank = blankType('t');
    const profile = typeFromChart(blank, readChart(text), blank.modes[0]!.id);
    return lit(profile, profile.modes[0]!, { level: hold(1), colour: hold({ x, y }) }).cells[0]!;
  };
  for (const [x, y] of [
    [0.64, 0.33],
    [0.5, 0.4],
    [0.3, 0.55],
    [0.22, 0.25],
    [0.33, 0.2],
    [0.3127, 0.329],
  ] as const) {
    const mixed = cellOf('1 Dimmer\n2 Red\n3 Green\n4 Blue', x, y);
    cellOf(chart, x, y).forEach((part, k) => expect(part).toBeCloseTo(mixed[k]!, 1));
  }
});

test('a lamp of one white goes from warm to cold, whichever way its channel runs', () => {
  const [rising, falling] = ['1 Dimmer\n2 CCT 2700K-6500K', '1 Dimmer\n2 CCT cold to warm'];
  const [warm, cold] = [[0.44, 0.403] as const, [0.3063, 0.3165] as const];
  expect(bytesOf(rising, ...warm)[1]).toBe(0);
  expect(bytesOf(rising, ...cold)[1]).toBe(255);
  expect(bytesOf(falling, ...warm)[1]).toBe(255);
  expect(bytesOf(falling, ...cold)[1]).toBe(0);
  expect(undrawn([readChart(rising).channels])).toEqual([]);
  // Before a wheel it is a further filter, and stays where it rests: the picture does not show it.
  const spot = '1 Dimmer\n2 CTC\n3 Colour 0-10 open 11-20 red 21-30 blue\n4 Pan';
  expect(undrawn([readChart(spot).channels])).toEqual(['colour temperature']);
  expect(bytesOf(spot, ...cold)[1]).toBe(bytesOf(spot, ...warm)[1]);
});
