// The lamps of two rooms. Makers and models are made up.

import type { z } from 'zod';
import { chromaticityFromHex } from '@hovlix/core/colour';
import type { Aim, Role, Profile, Rig } from '@hovlix/core/rig';

type ProfileIn = z.input<typeof Profile>;
type ChannelIn = ProfileIn['modes'][number]['channels'][number];

const plain = (...attributes: string[]): ChannelIn[] => attributes.map((attribute, i) => ({ attribute, at: [i + 1] }));

const SHUTTER: NonNullable<ChannelIn['ranges']> = [
  { from: 0, to: 9, does: 'closed' },
  { from: 10, to: 199, does: 'strobe', low: 1, high: 18 },
  { from: 200, to: 255, does: 'open' },
];

const slots = (count: number): NonNullable<ChannelIn['ranges']> =>
  Array.from({ length: count }, (_, slot) => ({
    from: slot * 16,
    to: slot * 16 + 15,
    does: slot === 0 ? ('open' as const) : ('slot' as const),
    slot,
  }));

const WHEEL = [
  ['Open', '#ffffff'],
  ['Red', '#ff1a1a'],
  ['Amber', '#ffa024'],
  ['Green', '#20e060'],
  ['Cyan', '#2fd8ff'],
  ['Blue', '#2438ff'],
  ['Violet', '#9a3cff'],
  ['Pink', '#ff5aa8'],
] as const;

export const PROFILES: readonly ProfileIn[] = [
  {
    id: 'ardent-tern',
    maker: 'Ardent',
    model: 'Tern 4',
    label: 'Tern',
    kind: 'wash',
    beamAngle: 38,
    output: 1.2,
    watts: 80,
    modes: [
      {
        id: 'six',
        name: '6 channels',
        channels: [
          ...plain('Dimmer', 'ColorAdd_R', 'ColorAdd_G', 'ColorAdd_B', 'ColorAdd_W'),
          { attribute: 'Shutter1', at: [6], ranges: SHUTTER, home: 1 },
        ],
      },
    ],
  },
  {
    id: 'ardent-plover',
    maker: 'Ardent',
    model: 'Plover 3',
    label: 'Plover',
    kind: 'wash',
    beamAngle: 30,
    output: 1.1,
    watts: 45,
    modes: [{ id: 'three', name: '3 channels', channels: plain('ColorAdd_R', 'ColorAdd_G', 'ColorAdd_B') }],
  },
  {
    id: 'northlamp-heron',
    maker: 'Northlamp',
    model: 'Heron 60',
    label: 'Heron',
    kind: 'moving spot',
    beamAngle: 13,
    output: 2.6,
    watts: 190,
    panRange: 540,
    tiltRange: 250,
    colours: WHEEL.map(([name, hex]) => ({ name, colour: chromaticityFromHex(hex) })),
    gobos: [
      { name: 'Open', pattern: 'open' },
      { name: 'Reeds', pattern: 'bars' },
      { name: 'Ripples', pattern: 'waves' },
      { name: 'Stars', pattern: 'dots' },
      { name: 'Portholes', pattern: 'rings' },
      { name: 'Net', pattern: 'net' },
    ],
    modes: [
      {
        id: 'sixteen',
        name: '16 channels',
        channels: [
          { attribute: 'Pan', at: [1, 2], home: 0.5 },
          { attribute: 'Tilt', at: [3, 4], home: 0.5 },
          { attribute: 'Dimmer', at: [5, 6] },
          { attribute: 'Shutter1', at: [7], ranges: SHUTTER, home: 1 },
          { attribute: 'Color1', at: [8], ranges: slots(8) },
          { attribute: 'Gobo1', at: [9], ranges: slots(6) },
          { attribute: 'Gobo1Pos', at: [10], home: 0.5 },
          { attribute: 'Focus1', at: [11], home: 0.5 },
          { attribute: 'Prism1', at: [12] },
          { attribute: 'PanTiltSpeed', at: [13] },
          { attribute: 'Fans', at: [14] },
          { attribute: 'LampControl', at: [15] },
          { attribute: 'Reserved', at: [16] },
        ],
      },
    ],
  },
  {
    id: 'northlamp-egret',
    maker: 'Northlamp',
    model: 'Egret Wash',
    label: 'Egret',
    kind: 'moving wash',
    beamAngle: 24,
    output: 2.2,
    watts: 150,
    panRange: 540,
    tiltRange: 230,
    modes: [
      {
        id: 'eleven',
        name: '11 channels',
        channels: [
          { attribute: 'Pan', at: [1, 2], home: 0.5 },
          { attribute: 'Tilt', at: [3, 4], home: 0.5 },
          { attribute: 'Dimmer', at: [5] },
          { attribute: 'Shutter1', at: [6], ranges: SHUTTER, home: 1 },
          { attribute: 'ColorAdd_R', at: [7] },
          { attribute: 'ColorAdd_G', at: [8] },
          { attribute: 'ColorAdd_B', at: [9] },
          { attribute: 'ColorAdd_W', at: [10] },
          { attribute: 'Zoom', at: [11], home: 0.5 },
        ],
      },
    ],
  },
  {
    id: 'quillon-spark',
    maker: 'Quillon',
    model: 'Spark',
    label: 'Spark',
    kind: 'strobe',
    beamAngle: 80,
    output: 3,
    watts: 300,
    modes: [
      {
        id: 'two',
        name: '2 channels',
        channels: [
          { attribute: 'Dimmer', at: [1] },
          { attribute: 'Shutter1', at: [2], ranges: SHUTTER, home: 1 },
        ],
      },
    ],
  },
  {
    id: 'quillon-can',
    maker: 'Quillon',
    model: 'Can 56',
    label: 'Can',
    kind: 'dimmer',
    beamAngle: 20,
    output: 1.3,
    watts: 300,
    modes: [{ id: 'one', name: 'Dimmer', channels: plain('Dimmer') }],
  },
  {
    id: 'quillon-reed',
    maker: 'Quillon',
    model: 'Reed 8',
    label: 'Reed',
    kind: 'bar',
    beamAngle: 60,
    output: 0.5,
    watts: 40,
    modes: [
      {
        id: 'cells',
        name: '8 cells, 24 channels',
        channels: Array.from({ length: 8 }, (_, cell) =>
          ['ColorAdd_R', 'ColorAdd_G', 'ColorAdd_B'].map((attribute, k) => ({
            attribute,
            at: [cell * 3 + k + 1],
            cell,
          })),
        ).flat(),
      },
    ],
  },
  {
    id: 'ardent-fogbank',
    maker: 'Ardent',
    model: 'Fogbank',
    label: 'Haze',
    kind: 'hazer',
    beamAngle: 90,
    output: 0,
    watts: 700,
    modes: [{ id: 'two', name: '2 channels', channels: plain('Fog1', 'Fans') }],
  },
  {
    id: 'ardent-wren',
    maker: 'Ardent',
    model: 'Wren PAR',
    label: 'Wren',
    kind: 'par',
    beamAngle: 34,
    output: 1,
    watts: 60,
    modes: [{ id: 'four', name: '4 channels', channels: plain('Dimmer', 'ColorAdd_R', 'ColorAdd_G', 'ColorAdd_B') }],
  },
];

export const ROLES: readonly z.input<typeof Role>[] = [
  { id: 'front', name: 'Front wash', tint: 2 },
  { id: 'back', name: 'Back wash', tint: 6 },
  { id: 'movers', name: 'Movers', tint: 4 },
  { id: 'accent', name: 'Accent lamps', tint: 1 },
  { id: 'bars', name: 'Light bars', tint: 0 },
  { id: 'strobe', name: 'Strobe', tint: 3 },
  { id: 'haze', name: 'Haze', tint: 5 },
];

export const AIMS: readonly z.input<typeof Aim>[] = [
  { id: 'singer', name: 'Singer', x: -0.4, y: 1, z: 1.6 },
  { id: 'drums', name: 'Drum riser', x: 0, y: 3.6, z: 1.3 },
  { id: 'left', name: 'Right', x: 2.6, y: 1.4, z: 0.2 },
  { id: 'right', name: 'Left', x: -2.6, y: 1.4, z: 0.2 },
  { id: 'crowd-left', name: 'Crowd, right side', x: 3.4, y: -4, z: 2.4 },
  { id: 'crowd-right', name: 'Crowd, left side', x: -3.4, y: -4, z: 2.4 },
  { id: 'roof-left', name: 'Roof, right side', x: 4.9, y: 2.2, z: 3.9 },
  { id: 'roof-right', name: 'Roof, left side', x: -4.9, y: 2.2, z: 3.9 },
];

type FixtureIn = z.input<typeof Rig>['fixtures'][number];
type MountIn = FixtureIn['mount'];

/** A row of lamps, numbered on and addressed one behind the other. */
function row(
  start: { readonly number: number; readonly address: number },
  name: string,
  profile: string,
  mode: string,
  length: number,
  mounts: readonly MountIn[],
  gels: readonly string[] = [],
): FixtureIn[] {
  return mounts.map((mount, i) => ({
    id: `${profile}-${start.number + i}`,
    number: start.number + i,
    name: mounts.length > 1 ? `${name} ${i + 1}` : name,
    profile,
    mode,
    universe: 1,
    address: start.address + i * length,
    mount,
    ...(profile.startsWith('northlamp') ? { directed: true } : {}),
    ...(gels[i] ? { gel: chromaticityFromHex(gels[i]) } : {}),
  }));
}

const across = (xs: readonly number[], rest: Omit<MountIn, 'x'>): MountIn[] => xs.map((x) => ({ x, ...rest }));

const boathouseFixtures: FixtureIn[] = [
  ...row(
    { number: 1, address: 1 },
    'Front',
    'ardent-tern',
    'six',
    6,
    across([-2.7, -0.9, 0.9, 2.7], { y: -2.2, z: 3.7, pitch: 48 }),
  ),
  ...row(
    { number: 5, address: 25 },
    'Back',
    'ardent-plover',
    'three',
    3,
    across([-3, -1.05, 1.05, 3], { y: 4, z: 3.6, pitch: -16 }),
  ),
  ...row(
    { number: 9, address: 37 },
    'Spot',
    'northlamp-heron',
    'sixteen',
    16,
    across([-1.95, 1.95], { y: 3.7, z: 3.5 }),
  ),
  ...row({ number: 11, address: 69 }, 'Wash', 'northlamp-egret', 'eleven', 11, across([-3.9, 3.9], { y: 3.2, z: 3.5 })),
  ...row({ number: 13, address: 91 }, 'Strobe', 'quillon-spark', 'two', 2, [{ x: 0, y: 4.2, z: 3.2, pitch: -70 }]),
  ...row(
    { number: 14, address: 93 },
    'Can',
    'quillon-can',
    'one',
    1,
    [
      { x: -1.6, y: 4.4, z: 0.15, pitch: 160, roll: 8 },
      { x: 1.6, y: 4.4, z: 0.15, pitch: 160, roll: -8 },
    ],
    ['#ffb04a', '#ff8f3a'],
  ),
  ...row(
    { number: 16, address: 97 },
    'Reed',
    'quillon-reed',
    'cells',
    24,
    across([-2.85, -0.95, 0.95, 2.85], { y: 0.15, z: 0.15, pitch: 150 }),
  ),
  ...row({ number: 20, address: 201 }, 'Haze', 'ardent-fogbank', 'two', 2, [{ x: -4.3, y: 4, z: 0.3 }]),
];

const byProfile = (fixtures: readonly FixtureIn[], ...profiles: string[]) =>
  fixtures.filter((fixture) => profiles.includes(fixture.profile)).map((fixture) => fixture.id);

/** The room as it stands: what lamps hang from and what the band stands on. */
const BOATHOUSE_SHAPES: z.input<typeof Rig>['shapes'] = [
  { id: 'stage', kind: 'stage', name: 'Stage', x: 0, y: 2.4, width: 8.8, depth: 4.8 },
  { id: 'riser', kind: 'riser', name: 'Riser', x: 0, y: 3.55, width: 2.8, depth: 1.5, height: 0.42 },
  { id: 'back-truss', kind: 'truss', name: 'Back truss', x: 0, y: 4, z: 3.66, width: 9.2, depth: 0.3, height: 0.2 },
  { id: 'front-truss', kind: 'truss', name: 'Front truss', x: 0, y: -2.2, z: 3.7, width: 7.2, depth: 0.3, height: 0.2 },
];

const HALL_SHAPES: z.input<typeof Rig>['shapes'] = [
  { id: 'stage', kind: 'stage', name: 'Stage', x: 0, y: 1.9, width: 6.6, depth: 3.8 },
  { id: 'curtain', kind: 'curtain', name: 'Curtain', x: 0, y: 3.9, width: 6.6, depth: 0.2, height: 3.2 },
  { id: 'left-stand', kind: 'stand', name: 'Left stand', x: -2.4, y: -1.6, width: 0.9, depth: 0.9, height: 2.9 },
  { id: 'right-stand', kind: 'stand', name: 'Right stand', x: 2.4, y: -1.6, width: 0.9, depth: 0.9, height: 2.9 },
];

export const BOATHOUSE: z.input<typeof Rig> = {
  id: 'boathouse',
  name: 'Boathouse',
  fixtures: boathouseFixtures,
  shapes: BOATHOUSE_SHAPES,
  casting: [
    { role: 'front', fixtures: byProfile(boathouseFixtures, 'ardent-tern') },
    { role: 'back', fixtures: byProfile(boathouseFixtures, 'ardent-plover') },
    {
      role: 'movers',
      fixtures: ['northlamp-egret-11', 'northlamp-heron-9', 'northlamp-heron-10', 'northlamp-egret-12'],
    },
    { role: 'accent', fixtures: byProfile(boathouseFixtures, 'quillon-can') },
    { role: 'bars', fixtures: byProfile(boathouseFixtures, 'quillon-reed') },
    { role: 'strobe', fixtures: byProfile(boathouseFixtures, 'quillon-spark') },
    { role: 'haze', fixtures: byProfile(boathouseFixtures, 'ardent-fogbank') },
  ],
};

const hallFixtures = row({ number: 1, address: 1 }, 'PAR', 'ardent-wren', 'four', 4, [
  ...across([-2.4, 0, 2.4], { y: -1.6, z: 3, pitch: 42 }),
  ...across([-2.4, 0, 2.4], { y: 3.2, z: 3, pitch: -18 }),
]);

export const VILLAGE_HALL: z.input<typeof Rig> = {
  id: 'village-hall',
  name: 'Village hall',
  fixtures: hallFixtures,
  shapes: HALL_SHAPES,
  casting: [
    { role: 'front', fixtures: hallFixtures.slice(0, 3).map((fixture) => fixture.id) },
    { role: 'back', fixtures: hallFixtures.slice(3).map((fixture) => fixture.id) },
    { role: 'accent', fixtures: [hallFixtures[1]!.id] },
  ],
};
