// A small show for tests: two rooms, three roles, four looks, one song. Made by the schema, so it is a valid one.

import type { z } from 'zod';
import { Show } from '../show/schema';
import { id } from '../units';

const shutter = [
  { from: 0, to: 9, does: 'closed' as const },
  { from: 10, to: 199, does: 'strobe' as const, low: 1, high: 20 },
  { from: 200, to: 255, does: 'open' as const },
];

const plain = (...attributes: string[]) => attributes.map((attribute, i) => ({ attribute, at: [i + 1] }));

const input: z.input<typeof Show> = {
  format: 'hovlix-show',
  version: 13,
  id: 'test',
  name: 'Test show',
  profiles: [
    {
      id: 'rgbw',
      maker: 'Ardent',
      model: 'Test RGBW',
      label: 'RGBW',
      kind: 'wash',
      beamAngle: 30,
      modes: [
        { id: 'm', name: '5', channels: plain('Dimmer', 'ColorAdd_R', 'ColorAdd_G', 'ColorAdd_B', 'ColorAdd_W') },
      ],
    },
    {
      id: 'rgb',
      maker: 'Ardent',
      model: 'Test RGB',
      label: 'RGB',
      kind: 'par',
      beamAngle: 30,
      modes: [{ id: 'm', name: '3', channels: plain('ColorAdd_R', 'ColorAdd_G', 'ColorAdd_B') }],
    },
    {
      id: 'spot',
      maker: 'Northlamp',
      model: 'Test spot',
      label: 'Spot',
      kind: 'moving spot',
      beamAngle: 12,
      panRange: 540,
      tiltRange: 250,
      colours: [
        { name: 'Open', colour: { x: 0.3127, y: 0.329 } },
        { name: 'Red', colour: { x: 0.64, y: 0.33 } },
        { name: 'Blue', colour: { x: 0.15, y: 0.06 } },
      ],
      gobos: [
        { name: 'Open', pattern: 'open' },
        { name: 'Stars', pattern: 'dots' },
      ],
      modes: [
        {
          id: 'm',
          name: '8',
          channels: [
            { attribute: 'Pan', at: [1, 2], home: 0.5 },
            { attribute: 'Tilt', at: [3, 4], home: 0.5 },
            { attribute: 'Dimmer', at: [5, 6] },
            { attribute: 'Shutter1', at: [7], ranges: shutter, home: 1 },
            {
              attribute: 'Color1',
              at: [8],
              ranges: [
                { from: 0, to: 15, does: 'open', slot: 0 },
                { from: 16, to: 31, does: 'slot', slot: 1 },
                { from: 32, to: 47, does: 'slot', slot: 2 },
              ],
            },
          ],
        },
      ],
    },
    {
      id: 'bar',
      maker: 'Quillon',
      model: 'Test bar',
      label: 'Bar',
      kind: 'bar',
      beamAngle: 60,
      modes: [
        {
          id: 'm',
          name: '6',
          channels: [0, 1].flatMap((cell) =>
            ['ColorAdd_R', 'ColorAdd_G', 'ColorAdd_B'].map((attribute, k) => ({
              attribute,
              at: [cell * 3 + k + 1],
              cell,
            })),
          ),
        },
      ],
    },
  ],
  rigs: [
    {
      id: 'room',
      name: 'Room',
      fixtures: [
        {
          id: 'a',
          number: 1,
          name: 'A',
          profile: 'rgbw',
          mode: 'm',
          universe: 1,
          address: 1,
          mount: { x: -1, y: 0, z: 3 },
        },
        {
          id: 'b',
          number: 2,
          name: 'B',
          profile: 'rgb',
          mode: 'm',
          universe: 1,
          address: 10,
          mount: { x: 1, y: 0, z: 3 },
        },
        {
          id: 's',
          number: 3,
          name: 'S',
          profile: 'spot',
          mode: 'm',
          universe: 2,
          address: 1,
          mount: { x: 0, y: 3, z: 4 },
        },
        {
          id: 'c',
          number: 4,
          name: 'C',
          profile: 'bar',
          mode: 'm',
          universe: 2,
          address: 100,
          mount: { x: 0, y: 0, z: 0 },
        },
        {
          id: 'idle',
          number: 5,
          name: 'Idle',
          profile: 'rgb',
          mode: 'm',
          universe: 2,
          address: 200,
          mount: { x: 0, y: 0, z: 3 },
        },
      ],
      casting: [
        { role: 'wash', fixtures: ['a', 'b'] },
        { role: 'movers', fixtures: ['s'] },
        { role: 'bars', fixtures: ['c'] },
      ],
    },
    {
      id: 'hall',
      name: 'Hall',
      fixtures: [
        {
          id: 'h',
          number: 1,
          name: 'H',
          profile: 'rgb',
          mode: 'm',
          universe: 1,
          address: 1,
          mount: { x: 0, y: 0, z: 3 },
        },
      ],
      casting: [{ role: 'wash', fixtures: ['h'] }],
    },
  ],
  rig: 'room',
  roles: [
    { id: 'wash', name: 'Wash', tint: 0 },
    { id: 'movers', name: 'Movers', tint: 1 },
    { id: 'bars', name: 'Bars', tint: 2 },
  ],
  aims: [{ id: 'singer', name: 'Singer', x: 0, y: 1, z: 1.6 }],
  looks: [
    {
      id: 'red',
      number: 1,
      name: 'Red',
      fadeIn: 2,
      fadeOut: 2,
      values: [
        { role: 'wash', level: { type: 'hold', value: 1 }, colour: { type: 'hold', value: { x: 0.64, y: 0.33 } } },
      ],
    },
    {
      id: 'half-blue',
      number: 2,
      name: 'Half blue',
      fadeIn: 2,
      fadeOut: 4,
      values: [
        { role: 'wash', level: { type: 'hold', value: 0.5 }, colour: { type: 'hold', value: { x: 0.15, y: 0.06 } } },
        {
          role: 'movers',
          level: { type: 'hold', value: 0.8 },
          colour: { type: 'hold', value: { x: 0.15, y: 0.06 } },
          aim: { type: 'hold', value: { aim: 'singer' } },
        },
      ],
    },
    {
      id: 'spread',
      number: 3,
      name: 'Spread',
      fadeIn: 0,
      fadeOut: 0,
      values: [
        {
          role: 'bars',
          level: { type: 'spread', values: [1, 0.25] },
          colour: { type: 'hold', value: { x: 0.3127, y: 0.329 } },
        },
      ],
    },
    {
      id: 'kept',
      number: 4,
      name: 'Kept',
      fadeIn: 0,
      fadeOut: 0,
      keep: true,
      values: [{ role: 'wash', level: { type: 'hold', value: 0.2 } }],
    },
  ],
  chases: [],
  kits: [],
  banks: [],
  sets: [],
  pedals: [],
  controls: [],
  events: [],
  safety: { on: false, most: 3 },
  songs: [
    {
      id: 'song',
      title: 'Song',
      music: null,
      duration: 60,
      tempo: {
        anchors: [
          { beat: 0, time: 0 },
          { beat: 2, time: 1 },
        ],
      },
      meter: [{ bar: 0, numerator: 4, denominator: 4 }],
      sections: [],
      lanes: [
        {
          id: 'looks',
          name: 'Looks',
          type: 'looks',
          clips: [
            { id: 'c1', look: 'red', from: 0, to: 8 },
            { id: 'c2', look: 'half-blue', from: 8, to: 16 },
            { id: 'c3', look: null, from: 24, to: 28 },
          ],
        },
        {
          id: 'top',
          name: 'Top',
          type: 'looks',
          blend: 'highest',
          clips: [{ id: 't1', look: 'spread', from: 4, to: 5 }],
        },
      ],
    },
  ],
};

export const testShow = (): Show => Show.parse(input);
export const songId = id<'Song'>('song');
export const lookId = (name: string) => id<'Look'>(name);
