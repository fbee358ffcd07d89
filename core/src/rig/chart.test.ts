import fc from 'fast-check';
import { amountsOf, Mode, readChart } from '.';

const attributes = (text: string) => readChart(text).channels.map(({ attribute, at }) => [attribute, at]);

describe('a chart from a manual', () => {
  const CHART = `1 Pan / 2 Pan fine / 3 Tilt 0-255 / 4 Tilt fine
5 Dimmer 0-100%
8 Shutter 0-9 closed 10-199 strobe slow-fast 200-255 open
9	Colour wheel
	0-15	Open
	16-31	Red
	32-47	Blue/green
	48-63	Mauve mist
	128-255	Rainbow rotation slow-fast
10 Gobo wheel
0-9 Open
10-19 Gobo 1
20-29 Gobo 2
200-255 Shake slow to fast
11 Wobbulator
12 Control 0-100 no function 101-150 Reset 151-200 Lamp on`;
  const chart = readChart(CHART);
  const channel = (attribute: string) => chart.channels.find((one) => one.attribute === attribute)!;

  test('becomes channels with coarse and fine bytes in one step', () => {
    expect(chart.channels.map(({ attribute, at }) => [attribute, at])).toEqual([
      ['Pan', [1, 2]],
      ['Tilt', [3, 4]],
      ['Dimmer', [5]],
      ['Shutter1', [8]],
      ['Color1', [9]],
      ['Gobo1', [10]],
      ['Reserved', [11]],
      ['LampControl', [12]],
    ]);
  });

  test('a span that only says how far the channel goes is neither a range nor part of its name', () => {
    expect([channel('Tilt').ranges, channel('Tilt').name, channel('Dimmer').name]).toEqual([[], undefined, undefined]);
  });

  test('ranges mean what their words say', () => {
    expect(channel('Shutter1').ranges).toEqual([
      { from: 0, to: 9, name: 'closed', does: 'closed' },
      { from: 10, to: 199, name: 'strobe slow-fast', does: 'strobe', low: 1, high: 20 },
      { from: 200, to: 255, name: 'open', does: 'open' },
    ]);
    expect(channel('Shutter1').home).toBeCloseTo(228 / 255, 2);
    expect(channel('Gobo1').ranges.map(({ does, slot }) => [does, slot])).toEqual([
      ['open', 0],
      ['slot', 1],
      ['slot', 2],
      ['shake', undefined],
    ]);
    expect(channel('LampControl').ranges.map(({ does, hold }) => [does, hold])).toEqual([
      ['nothing', undefined],
      ['reset', 5],
      ['lamp on', 3],
    ]);
  });

  test('wheel slots get the colours of their names, split ones two of them', () => {
    expect(chart.colours.map(({ name, second }) => [name, second !== undefined])).toEqual([
      ['Open', false],
      ['Red', false],
      ['Blue/green', true],
      ['Mauve mist', false],
    ]);
    expect(chart.colours[1]!.colour.x).toBeGreaterThan(0.6);
  });

  test('what was not understood is listed with its line, and nothing else', () => {
    expect(chart.unsettled.map(({ line, channel: at }) => [line, at])).toEqual([
      [4, 9],
      [15, 11],
    ]);
  });
});

test('many ways to write a channel number', () => {
  const wanted = [
    ['Dimmer', [1]],
    ['ColorAdd_R', [2]],
    ['ColorAdd_G', [3]],
    ['ColorAdd_B', [4]],
  ];
  for (const chart of [
    '1 Dimmer\n2 Red\n3 Green\n4 Blue',
    'CH1: Dimmer\nCH2: Red\nCH3: Green\nCH4: Blue',
    'Channel 1 - Master dimmer\nChannel 2 - Red 0-255\nChannel 3 - Green\nChannel 4 - Blue',
    '| 1. | Intensity | 000~255 |\n| 2. | Red | 000~255 |\n| 3. | Green | 000~255 |\n| 4. | Blue | 000~255 |',
    '1,Dimmer\n2,Red\n3,Green\n4,Blue',
    '[1] dimmer [2] red [3] green [4] blue',
    'CH1 Master CH2 R CH3 G CH4 B',
    'CH 1 – Dimmer (0–255)\nCH 2 – Red (0–255)\nCH 3 – Green (0–255)\nCH 4 – Blue (0–255)',
    'Kanal 1 Helligkeit\nKanal 2 Rot\nKanal 3 Grün\nKanal 4 Blau',
    'Canal 1 Intensidad\nCanal 2 Rojo\nCanal 3 Verde\nCanal 4 Azul',
  ])
    expect(attributes(chart)).toEqual(wanted);
});

test('a table that has values before words, a list copied as one line, and each colour said to be dimmed', () => {
  const table = readChart(`Channel Value Function
1 000-255 X axis
2 000-255 X axis fine
3 000-255 Y axis
4 000-255 XY speed fast to slow
5 000-255 Dimmer
6 000-003 off
004-251 strobe slow to fast
252-255 on
7 000-009 white
010-019 red
020-029 yellow
140-255 rainbow flow
8 000-007 white light
008-015 gobo1
016-023 gobo2
9 000-127 no prism
128-255 prism
10 200-255 reset`);
  expect(table.unsettled).toEqual([]);
  expect(table.channels.map(({ attribute, at }) => [attribute, at.length])).toEqual([
    ['Pan', 2],
    ['Tilt', 1],
    ['PanTiltSpeed', 1],
    ['Dimmer', 1],
    ['Shutter1', 1],
    ['Color1', 1],
    ['Gobo1', 1],
    ['Prism1', 1],
    ['LampControl', 1],
  ]);
  expect(table.colours.map(({ name }) => name)).toEqual(['white', 'red', 'yellow']);
  expect(attributes('1. LED Red 2. LED Green 3. LED Blue 4. Master dimmer')).toEqual([
    ['ColorAdd_R', [1]],
    ['ColorAdd_G', [2]],
    ['ColorAdd_B', [3]],
    ['Dimmer', [4]],
  ]);
  expect(attributes('1: Total dimming\n2: Red dimming\n3: Green dimming\n4: Blue dimming\n5: White dimmer')).toEqual([
    ['Dimmer', [1]],
    ['ColorAdd_R', [2]],
    ['ColorAdd_G', [3]],
    ['ColorAdd_B', [4]],
    ['ColorAdd_W', [5]],
  ]);
});

test('a strobe that is off and on, cells beside what is not known, and turns beside values', () => {
  const [, strobe] = readChart('1 Dimmer\n2 Strobe 0-10 off 11-255 on').channels;
  expect(strobe!.ranges.map(({ from, does }) => [from, does])).toEqual([
    [0, 'open'],
    [11, 'strobe'],
  ]);
  const shutter = readChart('1 Dimmer\n2 Shutter (0-127 closed, 128-255 open)').channels[1]!;
  expect([shutter.name, ...shutter.ranges.map(({ name, does }) => [name, does])]).toEqual([
    'Shutter',
    ['closed', 'closed'],
    ['open', 'open'],
  ]);
  const cells = readChart('1 Red 1\n2 Green 1\n3 Blue 1\n4 Red 2\n5 Green 2\n6 Blue 2\n7 Wobble\n8 Whirr').channels;
  expect(cells.map(({ cell }) => cell)).toEqual([0, 0, 0, 1, 1, 1, undefined, undefined]);
  expect(attributes('1 Master\n2 Master/slave mode\n3 Chase\n4 Chase speed').map(([attribute]) => attribute)).toEqual([
    'Dimmer',
    'LampControl',
    'Effects1',
    'EffectsSpeed',
  ]);
  const zoom = readChart('1 Dimmer\n2 Zoom wide to narrow\n').channels[1]!;
  expect(amountsOf(zoom)).toEqual({ none: 1, least: 1, most: 0 });
  expect(amountsOf(readChart('1 Dimmer\n2 Zoom 0-255 narrow-wide').channels[1]!)).toBeNull();
  const turned = readChart('CH1\tPan\t0~255\t0-540°\nCH2\tTilt\t0~255\t0-270°');
  expect(turned).toMatchObject({
    panRange: 540,
    tiltRange: 270,
    unsettled: [],
    channels: [{ ranges: [] }, { ranges: [] }],
  });
});

test('the open place of a wheel is its first, wherever it lies', () => {
  const { channels, colours } = readChart('1 Dimmer\n2 Colour 0-9 red 10-19 green 20-29 white 30-39 blue');
  expect(channels[1]!.ranges.map(({ does, slot }) => [does, slot])).toEqual([
    ['slot', 1],
    ['slot', 2],
    ['open', 0],
    ['slot', 3],
  ]);
  expect(colours.map(({ name }) => name)).toEqual(['white', 'red', 'green', 'blue']);
});

test('two-byte channels written as a pair, and cells that repeat', () => {
  expect(attributes('1-2 Pan (16 bit)\n3/4 Tilt 16bit\n5 Dimmer')).toEqual([
    ['Pan', [1, 2]],
    ['Tilt', [3, 4]],
    ['Dimmer', [5]],
  ]);
  const bar = readChart('1 Red 1\n2 Green 1\n3 Blue 1\n4 Red 2\n5 Green 2\n6 Blue 2\n7 Dimmer');
  expect(bar.channels.map(({ cell }) => cell)).toEqual([0, 0, 0, 1, 1, 1, undefined]);
});

test('a dimmer and a white that strobe at their upper ends are told from what they dim', () => {
  const chart = readChart(`1 Master dimmer/strobe
0-7 blackout
8-134 dimmer 0-100%
135-239 strobe slow-fast
240-255 full
2 White 0-189 white 190-255 flash 2-12 Hz`);
  expect(chart.channels.map(({ ranges }) => ranges.map(({ does, low, high }) => [does, low, high]))).toEqual([
    [
      ['closed', undefined, undefined],
      ['level', undefined, undefined],
      ['strobe', 1, 20],
      ['open', undefined, undefined],
    ],
    [
      ['level', undefined, undefined],
      ['strobe', 2, 12],
    ],
  ]);
});

test('single values are ranges of one; degrees are taken from the text', () => {
  const chart = readChart('1 Strobe\n0 closed\n1-254 strobe 2-12 Hz\n255 open\n2 Pan 540°\n3 Tilt (270 deg)');
  expect(chart.channels[0]!.ranges.map(({ from, to, does, low, high }) => [from, to, does, low, high])).toEqual([
    [0, 0, 'closed', undefined, undefined],
    [1, 254, 'strobe', 2, 12],
    [255, 255, 'open', undefined, undefined],
  ]);
  expect([chart.panRange, chart.tiltRange]).toEqual([540, 270]);
});

test('ten thousand channels, doubles and values past 255 are refused in words, the rest is kept', () => {
  const chart = readChart('1 Dimmer 0-300 bright\n1 Red\n10000 Blue');
  expect(chart.channels).toHaveLength(1);
  expect(chart.unsettled.map(({ why }) => why)).toEqual([
    'DMX values go from 0 to 255',
    'channel 1 is there already; the first one is kept',
    'a lamp has at most 512 channels, and this says 10000',
  ]);
  expect(
    readChart(Array.from({ length: 10000 }, (_, i) => `${i + 1} Dimmer`).join('\n')).channels.length,
  ).toBeLessThanOrEqual(512);
});

test('no text at all breaks it, and what comes out is a mode', () => {
  const words = fc.constantFrom(
    'Pan',
    'Shutter',
    '0-9',
    '10-255 strobe',
    '12',
    'CH 3',
    '\n',
    '/',
    'fine',
    '～',
    '–',
    'open',
    '99999',
    '\t',
  );
  fc.assert(
    fc.property(
      fc.oneof(
        fc.string({ maxLength: 300 }),
        fc.array(words, { maxLength: 60 }).map((all) => all.join(' ')),
      ),
      (text) => {
        const { channels } = readChart(text);
        if (channels.length > 0) expect(Mode.safeParse({ id: 'm', name: 'M', channels }).success).toBe(true);
      },
    ),
    { seed: 3, numRuns: 500 },
  );
});
