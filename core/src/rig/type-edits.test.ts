import fc from 'fast-check';
import { compile, frameFor, lampsFor, readLamps, render } from '../engine';
import { AT_REST } from '../live';
import { steady } from '../light';
import { testShow } from '../testing/show';
import { id, seconds } from '../units';
import {
  ATTRIBUTES,
  blankType,
  copyOfType,
  fixtureLibrary,
  modeFaults,
  packedPlaces,
  paired,
  Profile,
  readChart,
  searchAttributes,
  typeFromChart,
  unpaired,
  usualChannel,
  withChannel,
  withFlags,
  withoutSlot,
  type Fixture,
  type Mode,
} from '.';

const mode = (): Mode => fixtureLibrary().find((one) => one.model === 'Kestrel spot 150')!.modes[0]!;

describe('building a type', () => {
  test('a slot is taken off a wheel: every other range still turns to the colour it turned to', () => {
    const spot = fixtureLibrary().find((one) => one.model === 'Kestrel spot 150')!;
    const chooses = (type: Profile) =>
      type.modes.flatMap(({ channels }) =>
        channels.flatMap(({ attribute, ranges }) =>
          attribute !== 'Color1'
            ? []
            : ranges.map(({ from, does, slot = 0 }) => [
                from,
                does === 'nothing' ? undefined : type.colours[slot]?.name,
              ]),
        ),
      );
    for (let index = 0; index < spot.colours.length; index++) {
      const less = withoutSlot(spot, 'colours', index);
      const gone = spot.colours[index]!.name;
      expect(less.colours).toHaveLength(spot.colours.length - 1);
      expect(chooses(less)).toEqual(chooses(spot).map(([from, name]) => [from, name === gone ? undefined : name]));
      expect(less.gobos).toBe(spot.gobos);
      expect(Profile.safeParse(less).success).toBe(true);
    }
  });

  test('a new one can be used at once, and so can a copy', () => {
    const blank = blankType('x');
    expect(Profile.safeParse(blank).success).toBe(true);
    expect(copyOfType(blank, 'y')).toMatchObject({ id: 'y', model: 'New type, copy', modes: blank.modes });
  });

  test('channels go where they were wanted in the order, at the first place that is free', () => {
    const gap = { ...mode(), channels: mode().channels.filter((channel) => !channel.at.includes(5)) };
    const more = withChannel(gap, 'Zoom', 1);
    expect(more.channels[1]).toMatchObject({ attribute: 'Zoom', at: [5], home: 0.5 });
    expect(more.channels.length).toBe(gap.channels.length + 1);
  });

  test('channels chosen together become coarse and fine, and come apart again', () => {
    const eight = readChart('1 Pan\n2 Something\n3 Tilt\n4 Dimmer').channels;
    const plain: Mode = { id: id('m'), name: 'M', channels: [...eight] };
    const wide = paired(plain, [0, 1])!;
    expect(wide.channels.map(({ attribute, at }) => [attribute, at])).toEqual([
      ['Pan', [1, 2]],
      ['Tilt', [3]],
      ['Dimmer', [4]],
    ]);
    expect(unpaired(wide, 0).channels.map(({ at }) => at)).toEqual([[1], [2], [3], [4]]);
    expect(paired(plain, [0])).toBeUndefined();
    expect(paired(wide, [0, 1, 2])).toBeUndefined();
  });

  test('packing gives places side by side in the order shown, whatever the order', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray([...mode().channels], { minLength: 1 }), (channels) => {
        const packed = packedPlaces({ ...mode(), channels });
        const places = packed.channels.flatMap(({ at }) => at);
        expect(places).toEqual(places.map((_, i) => i + 1));
        expect(packed.channels.map(({ attribute }) => attribute)).toEqual(channels.map(({ attribute }) => attribute));
        expect(modeFaults(packed)).toEqual([]);
      }),
    );
  });

  test('flags are set on the chosen channels only', () => {
    const { channels } = withFlags(mode(), [1, 3], { snap: true, masters: false });
    expect(channels.map(({ snap }) => snap === true)).toEqual(channels.map((_, i) => i === 1 || i === 3));
  });

  test('what cannot work is said: places used twice, ranges that overlap or end before they start', () => {
    const twice = {
      ...mode(),
      channels: mode().channels.map((channel, i) => (i === 2 ? { ...channel, at: [1] } : channel)),
    };
    expect(modeFaults(twice)).toEqual(['Pan and Dimmer are both at place 1.']);
    const ranges = [
      { from: 0, to: 20, does: 'open' as const },
      { from: 15, to: 30, does: 'closed' as const },
      { from: 90, to: 80, does: 'nothing' as const },
    ];
    const odd = { ...mode(), channels: [{ ...mode().channels[2]!, ranges }] };
    expect(modeFaults(odd)).toEqual([
      'Dimmer: two ranges claim value 15.',
      'Dimmer: a range ends at 80, before its start 90.',
    ]);
  });

  test('a chart makes the lamp what its channels say; what it does not say stays', () => {
    const spot = typeFromChart(
      blankType('x'),
      readChart('1 Pan\n2 Tilt\n3 Dimmer\n4 Gobo 0-9 open 10-19 stars'),
      id('m1'),
    );
    expect(spot).toMatchObject({ kind: 'moving spot', panRange: 540, tiltRange: 270, maker: 'My own' });
    expect(spot.gobos.map(({ name }) => name)).toEqual(['open', 'stars']);
    expect(spot.modes[0]!.name).toBe('4 channels');
  });

  test('attributes are found by the trade’s words, a manual’s, and their own names', () => {
    expect(searchAttributes('strobe')[0]!.attribute).toBe('Shutter1');
    expect(searchAttributes('ColorAdd_UV')[0]!.name).toBe('UV');
    expect(searchAttributes('rot')[0]!.attribute).toBe('ColorAdd_R');
    expect(searchAttributes('')).toHaveLength(ATTRIBUTES.length);
    expect(searchAttributes('nothing at all like it')).toEqual([]);
  });
});

describe('what a type or a lamp says about itself is what goes out', () => {
  const show = testShow();
  const standing = (look: string) => [{ look: id<'Look'>(look), on: true, ramp: steady(1) }];
  /** Bytes of universe 1 and 2 in the look “half blue”, with lamps or types changed. */
  function bytes(
    change: { fixture?: Partial<Fixture>; of?: string; profile?: (type: Profile) => Profile },
    live = {},
  ): number[] {
    const rigs = show.rigs.map((rig) => ({
      ...rig,
      fixtures: rig.fixtures.map((one) => (one.id === change.of ? { ...one, ...change.fixture } : one)),
    }));
    const profiles = show.profiles.map((type) => change.profile?.(type) ?? type);
    const program = compile({ ...show, rigs, profiles });
    const frame = frameFor(program);
    render(program, { ...AT_REST, standing: standing('half-blue'), ...live }, seconds(0.1), frame);
    return [...frame.slice(0, 16), ...frame.slice(512, 520)];
  }
  const word = (from: number[], at: number) => from[at]! * 256 + from[at + 1]!;

  test('an inverted pan is mirrored in its channel, swapped ones change places', () => {
    const plain = bytes({});
    const inverted = bytes({ of: 's', fixture: { panInvert: true } });
    expect(word(plain, 16) + word(inverted, 16)).toBeGreaterThanOrEqual(65535 - 1);
    expect(word(inverted, 18)).toBe(word(plain, 18));
    const swapped = bytes({ of: 's', fixture: { swapPanTilt: true } });
    expect([word(swapped, 16), word(swapped, 18)]).toEqual([word(plain, 18), word(plain, 16)]);
  });

  test('a head never leaves its limits, not even where it rests', () => {
    const limits = { panFrom: 20, panTo: 90, tiltFrom: 10, tiltTo: 30 };
    const rest = bytes({ of: 's', fixture: { limits } }, { standing: [] });
    expect((word(rest, 16) / 65535 - 0.5) * 540).toBeCloseTo(20, 1);
    expect((word(rest, 18) / 65535 - 0.5) * 250).toBeCloseTo(10, 1);
  });

  test('lamps outside grand master or blackout keep their level there', () => {
    const down = { master: steady(0) };
    expect(bytes({ of: 'a', fixture: { freeOfMaster: true } }, down)[0]).toBe(128);
    expect(bytes({}, down)[0]).toBe(0);
    const dark = { blackout: { on: true, ramp: steady(1) } };
    expect(bytes({ of: 'a', fixture: { freeOfBlackout: true } }, dark)[0]).toBe(128);
    expect(bytes({}, dark)[0]).toBe(0);
  });

  test('a channel that does not follow the masters stays, and one with a value for blackout takes it there', () => {
    const dark = { blackout: { on: true, ramp: steady(1) } };
    const own = (type: Profile): Profile => ({
      ...type,
      modes: type.modes.map((one) => ({
        ...one,
        channels: one.channels.map((channel) =>
          channel.attribute === 'Dimmer'
            ? { ...channel, masters: false }
            : channel.attribute === 'Shutter1'
              ? { ...channel, dark: 0 }
              : channel,
        ),
      })),
    });
    expect(bytes({ profile: own }, dark)[0]).toBe(128);
    expect(bytes({ profile: own }, dark)[16 + 6]).toBe(0);
    expect(bytes({ profile: own })[16 + 6]).toBe(228);
  });

  test('cyan, magenta and yellow take away what the colour does not have, and the picture shows it', () => {
    const subtractive = (type: Profile): Profile =>
      type.id === 'rgbw'
        ? {
            ...type,
            modes: [
              {
                ...type.modes[0]!,
                channels: ['Dimmer', 'ColorSub_C', 'ColorSub_M', 'ColorSub_Y'].map((name, i) =>
                  usualChannel(name, [i + 1]),
                ),
              },
            ],
          }
        : type;
    const profiles = show.profiles.map(subtractive);
    const program = compile({ ...show, profiles });
    const frame = frameFor(program);
    const lamps = lampsFor(program);
    render(program, { ...AT_REST, standing: standing('red') }, seconds(0), frame);
    readLamps(program, frame, lamps);
    const [dimmer, cyan, magenta, yellow] = frame;
    expect(dimmer).toBe(255);
    expect(cyan).toBe(0);
    expect(Math.min(magenta!, yellow!)).toBeGreaterThan(200);
    expect(lamps[0]!).toBeGreaterThan(5 * Math.max(lamps[1]!, lamps[2]!));
    render(program, { ...AT_REST, standing: [] }, seconds(0), frame);
    expect([...frame.slice(1, 4)]).toEqual([0, 0, 0]);
  });

  test('emitters with a measured colour mix by it', () => {
    const green = (type: Profile): Profile => ({
      ...type,
      emitters: [{ attribute: 'ColorAdd_B', colour: { x: 0.17, y: 0.2 } }],
    });
    expect(bytes({ profile: green }).slice(0, 16)).not.toEqual(bytes({}).slice(0, 16));
  });

  test('without a shutter a strobe is made by level: as often a second as the look says, and not where the type says no', () => {
    const flashing = show.looks.map((look) =>
      look.id === 'red'
        ? { ...look, values: look.values.map((value) => ({ ...value, strobe: { type: 'hold' as const, value: 4 } })) }
        : look,
    );
    const changes = (byLevel: boolean) => {
      const profiles = show.profiles.map((type) => ({ ...type, strobesByLevel: byLevel }));
      const program = compile({ ...show, looks: flashing, profiles });
      const frame = frameFor(program);
      let count = 0;
      let before = -1;
      for (let i = 0; i < 400; i++) {
        render(program, { ...AT_REST, standing: standing('red') }, seconds(10 + i / 200), frame);
        if (before >= 0 && frame[0] !== before) count++;
        before = frame[0]!;
      }
      return count;
    };
    expect(changes(true)).toBeGreaterThanOrEqual(15);
    expect(changes(true)).toBeLessThanOrEqual(16);
    expect(changes(false)).toBe(0);
  });
});
