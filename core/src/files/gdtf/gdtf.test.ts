import { strToU8, unzipSync, zipSync } from 'fflate';
import { wordsFor } from '../../problem';
import { amountsOf, fixtureLibrary, readChart, Profile, type Profile as ProfileType } from '../../rig';
import { readGdtf, writeGdtf } from '.';

const file = (xml: string) => zipSync({ 'description.xml': strToU8(xml) });
const wrongWith = (bytes: Uint8Array) => {
  const read = readGdtf(bytes, 'x.gdtf', 'x');
  return read.ok ? undefined : wordsFor(read.problem);
};

/** A type without what only names it inside a show, and with values as the wire has them. */
function plain(profile: ProfileType): unknown {
  const { id: _id, modes, ...rest } = profile;
  return {
    ...rest,
    modes: modes.map(({ id: _mode, channels, ...mode }) => ({
      ...mode,
      channels: channels.map((channel) => ({
        ...channel,
        home: channel.home === null ? null : Math.round(channel.home * 255),
      })),
    })),
  };
}

test('a written file opens again to the same type: every type that ships, in every mode', () => {
  for (const profile of fixtureLibrary()) {
    const read = readGdtf(writeGdtf(profile), `${profile.model}.gdtf`, profile.id);
    expect(read.ok && plain(read.value.profile)).toEqual(plain(profile));
    expect(read.ok && read.value.notKept).toEqual([]);
  }
});

test('amber and lime have the names of the standard in a file, and are our emitters when it is read', () => {
  const type = fixtureLibrary().find(({ model }) => model === 'LED PAR RGBA')!;
  const lime = JSON.parse(JSON.stringify(type).replaceAll('ColorAdd_G"', 'ColorAdd_L"')) as typeof type;
  const bytes = writeGdtf(lime);
  const xml = new TextDecoder().decode(unzipSync(bytes)['description.xml']!);
  expect(xml).toContain('Name="ColorAdd_RY" Pretty="Amber" Feature="Color.Color"');
  expect(xml).toContain('<ChannelFunction Name="ColorAdd_GY 1" Attribute="ColorAdd_GY"');
  expect(xml).not.toMatch(/ColorAdd_[AL]\b/);
  const read = readGdtf(bytes, 'lime.gdtf', type.id);
  expect(read.ok && plain(read.value.profile)).toEqual(plain(lime));
});

test('so does one from a chart, with shakes, rotations, resets and what the user said of its channels', () => {
  const chart = readChart(`1 Dimmer
2 Shutter 0-9 closed 10-199 strobe 1-18 Hz 200-255 open
3 Gobo wheel 0-9 open 10-19 dots 20-29 bars 100-150 shake 1-4 Hz 200-255 rotation 2-60 rpm
4 Control 0-100 no function 101-150 reset 151-200 lamp on 201-255 lamp off
5 Colour wheel 0-9 white 10-19 red 20-29 blue`);
  const profile = Profile.parse({
    id: 'own',
    maker: 'Quillon',
    model: 'Owl & "Friends" <2>',
    label: 'Owl',
    kind: 'strobe',
    beamAngle: 12,
    watts: 350,
    colours: chart.colours,
    gobos: chart.gobos,
    emitters: [{ attribute: 'ColorAdd_R', colour: { x: 0.7, y: 0.29 } }],
    strobesByLevel: false,
    modes: [
      {
        id: 'm1',
        name: '5 channels',
        channels: chart.channels.map((channel, i) =>
          i === 0 ? { ...channel, snap: true, masters: false, test: 0.8 } : channel,
        ),
      },
    ],
  });
  const read = readGdtf(writeGdtf(profile), 'owl.gdtf', 'own');
  const again = read.ok ? read.value.profile : undefined;
  const withTest = (value: unknown) =>
    JSON.parse(JSON.stringify(value), (key, each) => (key === 'test' ? Math.round(each * 255) : each));
  expect(withTest(plain(again!))).toEqual(withTest(plain(profile)));
});

const FOREIGN = `<?xml version="1.0" encoding="UTF-8"?>
<GDTF DataVersion="1.1"><FixtureType Name="Nine" ShortName="NINE-EYES" Manufacturer="Ardent" FixtureTypeID="0">
  <Wheels><Wheel Name="Colorful Gobos"/><Wheel Name="Filters 1"><Slot Name="Open" Color="0.3127,0.329,100"/><Slot Name="Red" Color="0.68,0.31,20"/></Wheel></Wheels>
  <Models><Model Name="Body"/></Models>
  <Geometries>
    <Geometry Name="Base"><Axis Name="Yoke"><Axis Name="Head">
      <GeometryReference Name="Eye 1" Geometry="Eye"><Break DMXBreak="1" DMXOffset="8"/></GeometryReference>
      <GeometryReference Name="Eye 2" Geometry="Eye"><Break DMXBreak="1" DMXOffset="11"/></GeometryReference>
    </Axis></Axis></Geometry>
    <Geometry Name="Eye"><Beam Name="Lens" BeamAngle="8" LuminousFlux="8000" PowerConsumption="120"/></Geometry>
  </Geometries>
  <DMXModes><DMXMode Name="Extended" Geometry="Base"><DMXChannels>
    <DMXChannel DMXBreak="1" Offset="1,2" Geometry="Yoke" Highlight="None"><LogicalChannel Attribute="Pan" Snap="No" Master="None">
      <ChannelFunction Name="Pan 1" Attribute="Pan" DMXFrom="0/2" Default="32768/2" PhysicalFrom="270" PhysicalTo="-270"/></LogicalChannel></DMXChannel>
    <DMXChannel DMXBreak="1" Offset="3,4" Geometry="Head" Highlight="None"><LogicalChannel Attribute="Tilt" Snap="No" Master="None">
      <ChannelFunction Name="Tilt 1" Attribute="Tilt" DMXFrom="0/2" Default="32768/2" PhysicalFrom="-110" PhysicalTo="110"/></LogicalChannel></DMXChannel>
    <DMXChannel DMXBreak="1" Offset="5" Geometry="Head" Highlight="255/1"><LogicalChannel Attribute="Shutter1" Snap="Yes" Master="Grand">
      <ChannelFunction Name="Closed" Attribute="Shutter1" DMXFrom="0/1" Default="255/1" PhysicalFrom="0" PhysicalTo="0"/>
      <ChannelFunction Name="Strobe" Attribute="Shutter1Strobe" DMXFrom="16/1" PhysicalFrom="0.5" PhysicalTo="12"/>
      <ChannelFunction Name="Open" Attribute="Shutter1" DMXFrom="240/1" PhysicalFrom="1" PhysicalTo="1"/></LogicalChannel></DMXChannel>
    <DMXChannel DMXBreak="1" Offset="6" Geometry="Head" Highlight="None"><LogicalChannel Attribute="Color1" Snap="Yes" Master="None">
      <ChannelFunction Name="Select" Attribute="Color1" DMXFrom="0/1" Default="0/1" Wheel="Filters 1">
        <ChannelSet Name="Open" DMXFrom="0/1" WheelSlotIndex="1"/><ChannelSet Name="Red" DMXFrom="64/1" WheelSlotIndex="2"/></ChannelFunction>
      <ChannelFunction Name="Spin" Attribute="Color1WheelSpin" DMXFrom="128/1" PhysicalFrom="12" PhysicalTo="360"/></LogicalChannel></DMXChannel>
    <DMXChannel DMXBreak="1" Offset="None" Geometry="Head"><LogicalChannel Attribute="Dimmer"><ChannelFunction Attribute="Dimmer" DMXFrom="0/1"/></LogicalChannel></DMXChannel>
    <DMXChannel DMXBreak="1" Offset="1" Geometry="Eye" Highlight="255/1"><LogicalChannel Attribute="ColorAdd_R"><ChannelFunction Attribute="ColorAdd_R" DMXFrom="0/1" Default="0/1"/></LogicalChannel></DMXChannel>
    <DMXChannel DMXBreak="1" Offset="2" Geometry="Eye" Highlight="255/1"><LogicalChannel Attribute="ColorAdd_G"><ChannelFunction Attribute="ColorAdd_G" DMXFrom="0/1" Default="0/1"/></LogicalChannel></DMXChannel>
    <DMXChannel DMXBreak="1" Offset="3" Geometry="Eye" Highlight="255/1"><LogicalChannel Attribute="ColorAdd_B"><ChannelFunction Attribute="ColorAdd_B" DMXFrom="0/1" Default="0/1"/></LogicalChannel></DMXChannel>
  </DMXChannels><Relations><Relation Name="r"/></Relations></DMXMode></DMXModes>
</FixtureType></GDTF>`;

test('a maker’s own file: axes, strobe in Hz, wheel slots, spins, and eyes that refer to one geometry', () => {
  const read = readGdtf(file(FOREIGN), 'nine.gdtf', 'nine');
  if (!read.ok) throw new Error(wordsFor(read.problem));
  const { profile, notKept } = read.value;
  expect(profile).toMatchObject({
    maker: 'Ardent',
    model: 'Nine',
    label: 'NINE-E',
    kind: 'moving wash',
    panRange: 540,
    tiltRange: 220,
    beamAngle: 8,
    output: 2,
    watts: 120,
  });
  const [pan, tilt, shutter, colour, ...eyes] = profile.modes[0]!.channels;
  expect([pan!.at, tilt!.at]).toEqual([
    [1, 2],
    [3, 4],
  ]);
  expect(pan!.home).toBeCloseTo(0.5, 4);
  expect(shutter!.ranges.map(({ from, to, does, low, high }) => [from, to, does, low, high])).toEqual([
    [0, 15, 'closed', undefined, undefined],
    [16, 239, 'strobe', 0.5, 12],
    [240, 255, 'open', undefined, undefined],
  ]);
  expect(colour!.ranges.map(({ from, does, slot, low, high }) => [from, does, slot, low, high])).toEqual([
    [0, 'open', 0, undefined, undefined],
    [64, 'slot', 1, undefined, undefined],
    [128, 'rotate', undefined, 2, 60],
  ]);
  // By the wheel that its channel turns, whatever wheels are called.
  expect(profile.colours.map(({ name }) => name)).toEqual(['Open', 'Red']);
  expect(eyes.map(({ attribute, at, cell }) => [attribute, at[0], cell])).toEqual([
    ['ColorAdd_R', 8, 0],
    ['ColorAdd_R', 11, 1],
    ['ColorAdd_G', 9, 0],
    ['ColorAdd_G', 12, 1],
    ['ColorAdd_B', 10, 0],
    ['ColorAdd_B', 13, 1],
  ]);
  expect(notKept).toEqual(['mode “Extended”: relations between channels', '3D models']);
});

test('a shutter that also dims is the dimmer of a lamp that has no other', () => {
  const mode = (more: string) =>
    file(
      `<GDTF><FixtureType Name="A" Manufacturer="B"><DMXModes><DMXMode Name="M"><DMXChannels><DMXChannel Offset="1" Geometry="Beam">` +
        `<LogicalChannel Attribute="Shutter1"><ChannelFunction Name="Closed" Attribute="Shutter1" DMXFrom="0/1" PhysicalFrom="0" PhysicalTo="0"/>` +
        `<ChannelFunction Name="Dim" Attribute="Dimmer" DMXFrom="8/1" PhysicalFrom="0" PhysicalTo="1"/>` +
        `<ChannelFunction Name="Strobe" Attribute="Shutter1Strobe" DMXFrom="135/1" PhysicalFrom="1" PhysicalTo="20"/>` +
        `<ChannelFunction Name="Open" Attribute="Shutter1" DMXFrom="240/1" PhysicalFrom="1" PhysicalTo="1"/>` +
        `</LogicalChannel></DMXChannel>${more}</DMXChannels></DMXMode></DMXModes></FixtureType></GDTF>`,
    );
  const channels = (more = '') => {
    const read = readGdtf(mode(more), 'a.gdtf', 'a');
    if (!read.ok) throw new Error(wordsFor(read.problem));
    return read.value.profile.modes[0]!.channels;
  };
  const [dimmer] = channels();
  expect(dimmer!.attribute).toBe('Dimmer');
  expect(dimmer!.ranges.map(({ from, does }) => [from, does])).toEqual([
    [0, 'closed'],
    [8, 'level'],
    [135, 'strobe'],
    [240, 'open'],
  ]);
  const other =
    '<DMXChannel Offset="2" Geometry="Beam"><LogicalChannel Attribute="Dimmer"><ChannelFunction Attribute="Dimmer" DMXFrom="0/1"/></LogicalChannel></DMXChannel>';
  expect(channels(other).map(({ attribute }) => attribute)).toEqual(['Shutter1', 'Dimmer']);
});

test('the ends of an amount may have names, as “Closed” and “Open”; it is one amount all the same', () => {
  const set = (name: string, from: number, physical: number) =>
    `<ChannelSet Name="${name}" DMXFrom="${from}/1" PhysicalFrom="${physical}" PhysicalTo="${physical}"/>`;
  const one = (place: number, attribute: string, inside: string) =>
    `<DMXChannel Offset="${place}" Geometry="Beam"><LogicalChannel Attribute="${attribute}">${inside}</LogicalChannel></DMXChannel>`;
  const named = (attribute: string, low: number, high: number) =>
    `<ChannelFunction Name="All" Attribute="${attribute}" DMXFrom="0/1" PhysicalFrom="${low}" PhysicalTo="${high}">` +
    `${set('Closed', 0, low)}${set('', 1, low)}${set('Open', 255, high)}</ChannelFunction>`;
  const bytes = file(
    `<GDTF><FixtureType Name="A" Manufacturer="B"><DMXModes><DMXMode Name="M"><DMXChannels>${one(1, 'Dimmer', named('Dimmer', 0, 1))}` +
      `${one(2, 'ColorAdd_R', named('ColorAdd_R', 0, 1))}${one(3, 'Zoom', named('Zoom', 50, 10))}` +
      `</DMXChannels></DMXMode></DMXModes></FixtureType></GDTF>`,
  );
  const read = readGdtf(bytes, 'a.gdtf', 'a');
  if (!read.ok) throw new Error(wordsFor(read.problem));
  const { channels } = read.value.profile.modes[0]!;
  expect(channels.map(({ ranges }) => ranges.map(({ from, to, does }) => [from, to, does]))).toEqual(
    channels.map(() => [[0, 255, 'level']]),
  );
  // A beam that gets narrower as its value rises is wide at its lower end.
  expect(channels.map((channel) => amountsOf(channel))).toEqual([null, null, { none: 1, least: 1, most: 0 }]);
});

test('hue, saturation and brightness are followed, and an amount that falls is known to, whatever its function is called', () => {
  const one = (place: number, attribute: string, low: number, high: number, name = `${attribute} 1`) =>
    `<DMXChannel Offset="${place}" Geometry="Beam"><LogicalChannel Attribute="${attribute}"><ChannelFunction Name="${name}" ` +
    `Attribute="${attribute}" DMXFrom="0/1" PhysicalFrom="${low}" PhysicalTo="${high}"/></LogicalChannel></DMXChannel>`;
  const read = readGdtf(
    file(
      `<GDTF><FixtureType Name="A" Manufacturer="B"><DMXModes><DMXMode Name="M"><DMXChannels>${one(1, 'HSB_Hue', 0, 360)}` +
        `${one(2, 'HSB_Saturation', 0, 1)}${one(3, 'HSB_Brightness', 0, 1)}${one(4, 'CTC', 6500, 2700)}${one(5, 'Zoom', 50, 10)}` +
        `${one(6, 'Pan', 270, -270)}${one(7, 'ColorRGB_Red', 0, 1)}</DMXChannels></DMXMode></DMXModes></FixtureType></GDTF>`,
    ),
    'a.gdtf',
    'a',
  );
  if (!read.ok) throw new Error(wordsFor(read.problem));
  const { channels } = read.value.profile.modes[0]!;
  expect(channels.map(({ attribute }) => attribute)).toEqual([
    'HSB_Hue',
    'HSB_Saturation',
    'Dimmer',
    'CTC',
    'Zoom',
    'Pan',
    'ColorAdd_R',
  ]);
  const falling = { none: 1, least: 1, most: 0 };
  expect(channels.map((channel) => amountsOf(channel))).toEqual([null, null, null, falling, falling, null, null]);
});

test('of two wheels of one kind the slots are those of the first, whichever comes first in the file', () => {
  const second =
    '<DMXChannel DMXBreak="1" Offset="7" Geometry="Head"><LogicalChannel Attribute="Color2"><ChannelFunction Attribute="Color2" DMXFrom="0/1" Wheel="Gels"/></LogicalChannel></DMXChannel>';
  const two = FOREIGN.replace('</Wheels>', '<Wheel Name="Gels"><Slot Name="Straw"/></Wheel></Wheels>').replace(
    '<DMXChannels>',
    `<DMXChannels>${second}`,
  );
  const read = readGdtf(file(two), 'nine.gdtf', 'nine');
  if (!read.ok) throw new Error(wordsFor(read.problem));
  expect(read.value.profile.colours.map(({ name }) => name)).toEqual(['Open', 'Red']);
});

test('a shutter whose physical ends say nothing is read by its words, and one without either opens at its upper end', () => {
  const shutter = (inside: string, more = '') =>
    file(
      `<GDTF><FixtureType Name="A" Manufacturer="B"><DMXModes><DMXMode Name="M"><DMXChannels><DMXChannel Offset="1" Geometry="Beam"${more}>` +
        `<LogicalChannel Attribute="Shutter1">${inside}</LogicalChannel></DMXChannel></DMXChannels></DMXMode></DMXModes></FixtureType></GDTF>`,
    );
  const channelOf = (bytes: Uint8Array) => {
    const read = readGdtf(bytes, 'a.gdtf', 'a');
    if (!read.ok) throw new Error(wordsFor(read.problem));
    return read.value.profile.modes[0]!.channels[0]!;
  };
  const ends = 'PhysicalFrom="0.000000" PhysicalTo="1.000000"';
  const sets = channelOf(
    shutter(
      `<ChannelFunction Name="Shutter 1" Attribute="Shutter1" DMXFrom="0/1" Default="0/1" ${ends}>` +
        `<ChannelSet Name="Closed" DMXFrom="0/1" ${ends}/><ChannelSet Name="Strobe 1-12 Hz" DMXFrom="16/1" ${ends}/>` +
        `<ChannelSet Name="Open" DMXFrom="200/1" ${ends}/></ChannelFunction>`,
    ),
  );
  expect(sets.ranges.map(({ from, to, does, low, high }) => [from, to, does, low, high])).toEqual([
    [0, 15, 'closed', undefined, undefined],
    [16, 199, 'strobe', 1, 12],
    [200, 255, 'open', undefined, undefined],
  ]);
  const bare = channelOf(shutter('<ChannelFunction Attribute="Shutter1" DMXFrom="0/1" Default="0/1"/>'));
  expect(bare.ranges).toEqual([{ from: 0, to: 255, does: 'level' }]);
  // Functions that another channel turns on begin anew from 0, and cut nothing off the others.
  const other = 'ModeMaster="Beam_Control1" ModeFrom="10/1" ModeTo="20/1"';
  const conditional = shutter(
    '<ChannelFunction Name="Closed" Attribute="Shutter1" DMXFrom="0/1" PhysicalTo="0"/><ChannelFunction Name="Open" Attribute="Shutter1" DMXFrom="128/1" PhysicalFrom="1"/>' +
      `<ChannelFunction Name="Pulse" Attribute="Shutter1StrobePulse" DMXFrom="0/1" ${other}/>`,
  );
  expect(channelOf(conditional).ranges.map(({ from, to, does }) => [from, to, does])).toEqual([
    [0, 127, 'closed'],
    [128, 255, 'open'],
  ]);
  const told = readGdtf(conditional, 'a.gdtf', 'a');
  expect(told.ok && told.value.notKept).toEqual(['mode “M”: functions that another channel turns on, at place 1']);
  // Which of its functions is on by itself may be said by the channel.
  const two =
    '<ChannelFunction Name="Off" Attribute="Shutter1" DMXFrom="0/1" Default="0/1"/><ChannelFunction Name="On" Attribute="Shutter1" DMXFrom="128/1" Default="255/1"/>';
  expect(channelOf(shutter(two)).home).toBe(0);
  expect(channelOf(shutter(two, ' InitialFunction="Beam_Shutter1.Shutter1.On"')).home).toBe(1);
});

test('what is no fixture type says so in one sentence each', () => {
  expect(wrongWith(strToU8('hello'))).toContain('not a zip file');
  expect(wrongWith(new Uint8Array(0))).toContain('is empty');
  expect(wrongWith(zipSync({ 'readme.txt': strToU8('x') }))).toContain('there is no description.xml in it');
  expect(wrongWith(file('<GDTF><FixtureType'))).toContain('not well-formed');
  expect(wrongWith(file('<GDTF DataVersion="1.2"/>'))).toContain('no fixture type');
  expect(wrongWith(file('<GDTF><FixtureType Name="A"><DMXModes/></FixtureType></GDTF>'))).toContain('no DMX mode');
  const bomb = `<!DOCTYPE GDTF [<!ENTITY a "ha">${Array.from({ length: 20 }, (_, i) => `<!ENTITY b${i} "&a;&a;">`).join('')}]><GDTF><FixtureType Name="&b19;"/></GDTF>`;
  expect(wrongWith(file(bomb))).toContain('entities of its own');
  expect(wrongWith(writeGdtf(fixtureLibrary()[4]!).slice(0, 200))).toContain('cannot be unpacked');
});

test('contradictions inside a file leave out what cannot be, and say it', () => {
  const one = (offset: string, attribute = 'Dimmer') =>
    `<DMXChannel Offset="${offset}"><LogicalChannel Attribute="${attribute}"><ChannelFunction Attribute="${attribute}" DMXFrom="0/1"/></LogicalChannel></DMXChannel>`;
  const mode = (name: string, channels: string) =>
    `<DMXMode Name="${name}"><DMXChannels>${channels}</DMXChannels></DMXMode>`;
  const many = Array.from({ length: 10000 }, (_, i) => one(String(i + 1))).join('');
  const read = readGdtf(
    file(
      `<GDTF><FixtureType Name="A" Manufacturer="B"><DMXModes>${mode('Twice', one('1') + one('1', 'Pan'))}${mode('Huge', many)}${mode('None', '')}${mode('Odd', one('2') + one('minus'))}</DMXModes></FixtureType></GDTF>`,
    ),
    'a.gdtf',
    'a',
  );
  expect(read.ok && read.value.profile.modes.map(({ name, channels }) => [name, channels.length])).toEqual([
    ['Twice', 1],
    ['Odd', 1],
  ]);
  expect(read.ok && read.value.notKept).toEqual([
    'mode “Twice”: a second channel at place 1',
    'mode “Huge”: it needs more than 512 channels',
    'mode “None”: it has no channels',
    'mode “Odd”: a channel at “minus”',
  ]);
});
