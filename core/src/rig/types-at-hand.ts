// Fixture types that come along, each in a line: generic ones over everything that hangs on a stage, and those of makers
// we made up.

import type { Profile } from './schema';

/** One type in a line. A mode is a row of channel words, `16` after one for two bytes, `8*(r g b)` for eight cells. */
export type Line = {
  readonly model: string;
  readonly label: string;
  readonly kind: Profile['kind'];
  readonly beam: number;
  readonly output?: number;
  readonly pan?: number;
  readonly tilt?: number;
  /** Slots of the colour and the gobo wheel, open included. */
  readonly colours?: number;
  readonly gobos?: number;
  readonly modes: readonly string[];
};

export const GENERIC: readonly Line[] = [
  { model: 'Dimmer', label: 'Dim', kind: 'dimmer', beam: 40, modes: ['dim', 'dim16'] },
  { model: 'Switch', label: 'Switch', kind: 'dimmer', beam: 40, output: 0, modes: ['dim'] },
  { model: 'Gelled PAR', label: 'PAR', kind: 'dimmer', beam: 28, output: 1.4, modes: ['dim'] },
  { model: 'Profile spot on a dimmer', label: 'Prof', kind: 'dimmer', beam: 19, output: 1.6, modes: ['dim'] },
  {
    model: 'LED PAR RGB',
    label: 'RGB',
    kind: 'par',
    beam: 30,
    modes: ['r g b', 'dim r g b', 'dim shutter r g b', 'r g b dim shutter macro rate'],
  },
  {
    model: 'LED PAR RGBW',
    label: 'RGBW',
    kind: 'par',
    beam: 30,
    modes: ['r g b w', 'dim r g b w', 'dim shutter r g b w', 'dim r g b w shutter macro rate'],
  },
  {
    model: 'LED PAR RGBA',
    label: 'RGBA',
    kind: 'par',
    beam: 30,
    modes: ['r g b a', 'dim r g b a', 'dim shutter r g b a'],
  },
  {
    model: 'LED PAR RGBAW+UV',
    label: 'Hex',
    kind: 'par',
    beam: 28,
    modes: ['r g b a w uv', 'dim r g b a w uv', 'dim r g b a w uv shutter macro rate control'],
  },
  {
    model: 'LED PAR white and warm',
    label: 'Tune',
    kind: 'par',
    beam: 40,
    output: 1.3,
    modes: ['w ww', 'dim w ww', 'dim ctc'],
  },
  { model: 'LED flood UV', label: 'UV', kind: 'par', beam: 60, output: 0.4, modes: ['dim', 'dim shutter'] },
  {
    model: 'LED bar, 4 cells RGB',
    label: 'Bar 4',
    kind: 'bar',
    beam: 50,
    modes: ['r g b', '4*(r g b)', 'dim shutter 4*(r g b)'],
  },
  {
    model: 'LED bar, 8 cells RGB',
    label: 'Bar 8',
    kind: 'bar',
    beam: 40,
    modes: ['r g b', 'dim r g b shutter', '8*(r g b)'],
  },
  { model: 'LED bar, 16 cells RGB', label: 'Bar 16', kind: 'bar', beam: 30, modes: ['r g b', '16*(r g b)'] },
  { model: 'LED bar, 8 cells RGBW', label: 'BarW 8', kind: 'bar', beam: 40, modes: ['r g b w', '8*(r g b w)'] },
  {
    model: 'Strobe',
    label: 'Strobe',
    kind: 'strobe',
    beam: 90,
    output: 4,
    modes: ['shutter dim', 'dim shutter', 'dim'],
  },
  {
    model: 'Moving head, wash RGBW',
    label: 'MWash',
    kind: 'moving wash',
    beam: 24,
    output: 1.8,
    pan: 540,
    tilt: 220,
    modes: ['pan tilt dim shutter r g b w', 'pan16 tilt16 speed dim shutter r g b w zoom'],
  },
  {
    model: 'Moving head, spot',
    label: 'MSpot',
    kind: 'moving spot',
    beam: 15,
    output: 2,
    pan: 540,
    tilt: 250,
    colours: 8,
    gobos: 8,
    modes: ['pan tilt colour gobo dim shutter', 'pan16 tilt16 speed colour gobo turn prism focus dim shutter control'],
  },
  {
    model: 'Scanner',
    label: 'Scan',
    kind: 'moving spot',
    beam: 12,
    output: 1.4,
    pan: 180,
    tilt: 90,
    colours: 8,
    gobos: 8,
    modes: ['pan tilt colour gobo shutter dim'],
  },
  { model: 'Hazer', label: 'Hazer', kind: 'hazer', beam: 30, output: 0, modes: ['fog', 'fog fan'] },
  { model: 'Fog machine', label: 'Fog', kind: 'hazer', beam: 30, output: 0, modes: ['fog'] },
  { model: 'Fan', label: 'Fan', kind: 'dimmer', beam: 30, output: 0, modes: ['fan'] },
];

export const ARDENT: readonly Line[] = [
  {
    model: 'Wren 7',
    label: 'Wren',
    kind: 'par',
    beam: 25,
    modes: ['r g b w', 'dim r g b w shutter', 'dim r g b w shutter macro rate'],
  },
  {
    model: 'Linnet 12',
    label: 'Linnet',
    kind: 'par',
    beam: 40,
    output: 1.3,
    modes: ['r g b a w uv', 'dim shutter r g b a w uv'],
  },
  {
    model: 'Curlew bar',
    label: 'Curlew',
    kind: 'bar',
    beam: 20,
    output: 1.1,
    modes: ['r g b', 'dim shutter r g b', '12*(r g b)'],
  },
  {
    model: 'Kestrel wash 19',
    label: 'Kestr',
    kind: 'moving wash',
    beam: 18,
    output: 2.4,
    pan: 540,
    tilt: 230,
    modes: ['pan tilt dim shutter r g b w zoom', 'pan16 tilt16 speed dim16 shutter r g b w ctc zoom macro control'],
  },
  {
    model: 'Kestrel spot 150',
    label: 'KSpot',
    kind: 'moving spot',
    beam: 16,
    output: 2.6,
    pan: 540,
    tilt: 270,
    colours: 9,
    gobos: 8,
    modes: [
      'pan16 tilt16 dim shutter colour gobo turn prism focus',
      'pan16 tilt16 speed dim16 shutter colour gobo turn gobo2 prism focus zoom frost control',
    ],
  },
  {
    model: 'Flash 900',
    label: 'Flash',
    kind: 'strobe',
    beam: 100,
    output: 6,
    modes: ['shutter dim', 'dim shutter r g b'],
  },
];

export const NORTHLAMP: readonly Line[] = [
  {
    model: 'Egret 30',
    label: 'Egret',
    kind: 'moving spot',
    beam: 14,
    output: 1.2,
    pan: 540,
    tilt: 210,
    colours: 8,
    gobos: 7,
    modes: ['pan tilt dim shutter colour gobo', 'pan16 tilt16 speed dim shutter colour gobo turn'],
  },
  {
    model: 'Bittern beam 230',
    label: 'Bitt',
    kind: 'moving spot',
    beam: 3,
    output: 4,
    pan: 540,
    tilt: 270,
    colours: 14,
    gobos: 16,
    modes: ['colour shutter dim gobo prism turn frost focus pan16 tilt16 speed control'],
  },
  {
    model: 'Gannet CMY 400',
    label: 'Gann',
    kind: 'moving spot',
    beam: 20,
    output: 5,
    pan: 540,
    tilt: 270,
    colours: 7,
    gobos: 7,
    modes: [
      'pan16 tilt16 dim16 shutter cyan magenta yellow ctc colour gobo turn gobo2 prism focus zoom iris frost control',
    ],
  },
  {
    model: 'Osprey wash CMY',
    label: 'Ospr',
    kind: 'moving wash',
    beam: 30,
    output: 4,
    pan: 540,
    tilt: 240,
    modes: ['pan16 tilt16 dim shutter cyan magenta yellow ctc zoom control'],
  },
  {
    model: 'Dunlin scanner',
    label: 'Dunlin',
    kind: 'moving spot',
    beam: 10,
    output: 1.6,
    pan: 176,
    tilt: 84,
    colours: 10,
    gobos: 10,
    modes: ['shutter colour gobo turn pan tilt', 'shutter dim colour gobo turn prism pan16 tilt16'],
  },
  {
    model: 'Fresnel LED 100',
    label: 'Fres',
    kind: 'wash',
    beam: 35,
    output: 1.8,
    modes: ['dim', 'dim16 zoom', 'dim shutter zoom'],
  },
  {
    model: 'Fresnel LED 200 colour',
    label: 'FresC',
    kind: 'wash',
    beam: 35,
    output: 2,
    modes: ['dim r g b w', 'dim16 r g b a w zoom'],
  },
];

export const QUILLON: readonly Line[] = [
  {
    model: 'Derby',
    label: 'Derby',
    kind: 'strobe',
    beam: 80,
    output: 0.8,
    modes: ['r g b shutter effect', 'r g b w a shutter effect rate'],
  },
  {
    model: 'Party bar 4',
    label: 'Party',
    kind: 'bar',
    beam: 30,
    modes: ['r g b', 'dim shutter r g b macro', '4*(r g b)'],
  },
  {
    model: 'Laser fan',
    label: 'Laser',
    kind: 'strobe',
    beam: 60,
    output: 0.6,
    modes: ['effect rate control', 'shutter effect rate pan tilt zoom control'],
  },
  {
    model: 'Moonflower',
    label: 'Moon',
    kind: 'strobe',
    beam: 90,
    output: 0.9,
    modes: ['effect rate shutter', 'r g b w effect rate shutter'],
  },
  { model: 'Pixel tube 24', label: 'Tube', kind: 'bar', beam: 110, output: 0.7, modes: ['dim r g b', '24*(r g b)'] },
  {
    model: 'Blinder 4',
    label: 'Blind',
    kind: 'wash',
    beam: 60,
    output: 5,
    modes: ['dim', '4*(dim)', 'dim ww shutter'],
  },
  {
    model: 'Uplight, battery',
    label: 'Uplit',
    kind: 'par',
    beam: 25,
    output: 0.8,
    modes: ['r g b a', 'dim r g b a uv', 'dim r g b a uv shutter macro'],
  },
  { model: 'Mist 2', label: 'Mist', kind: 'hazer', beam: 30, output: 0, modes: ['fog fan', 'fog fan control'] },
];
