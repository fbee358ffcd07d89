// A show as large as one likes, for the benchmarks.

import type { z } from 'zod';
import { Show } from '@hovlix/core/show';

/** How much moves and how much lies on top of one another. */
export type Load = { readonly waves: number; readonly lanes: number };

/** A show of so many universes: RGBW washes and 16-bit spots in four roles, with waves (up to 48) and busy lanes. */
export function bigShow(universes: number, fixtures: number, { waves, lanes }: Load = { waves: 40, lanes: 6 }): Show {
  const channels = (...attributes: string[]) => attributes.map((attribute, i) => ({ attribute, at: [i + 1] }));
  const perUniverse = Math.ceil(fixtures / universes);
  const white = { x: 0.3127, y: 0.329 };
  const blue = { x: 0.16, y: 0.08 };
  const input: z.input<typeof Show> = {
    format: 'hovlix-show',
    version: 13,
    id: 'bench',
    name: 'Bench',
    profiles: [
      {
        id: 'wash',
        maker: 'Bench',
        model: 'Wash',
        label: 'Wash',
        kind: 'wash',
        beamAngle: 30,
        modes: [
          { id: 'm', name: 'm', channels: channels('Dimmer', 'ColorAdd_R', 'ColorAdd_G', 'ColorAdd_B', 'ColorAdd_W') },
        ],
      },
      {
        id: 'spot',
        maker: 'Bench',
        model: 'Spot',
        label: 'Spot',
        kind: 'moving wash',
        beamAngle: 15,
        panRange: 540,
        tiltRange: 250,
        modes: [
          {
            id: 'm',
            name: 'm',
            channels: [
              { attribute: 'Pan', at: [1, 2] },
              { attribute: 'Tilt', at: [3, 4] },
              { attribute: 'Dimmer', at: [5, 6] },
              ...['ColorAdd_R', 'ColorAdd_G', 'ColorAdd_B', 'ColorAdd_W'].map((attribute, i) => ({
                attribute,
                at: [7 + i],
              })),
              { attribute: 'Zoom', at: [11] },
            ],
          },
        ],
      },
    ],
    rigs: [
      {
        id: 'rig',
        name: 'Rig',
        fixtures: Array.from({ length: fixtures }, (_, i) => ({
          id: `f${i}`,
          number: i + 1,
          name: `F${i}`,
          profile: i % 2 ? 'spot' : 'wash',
          mode: 'm',
          universe: 1 + Math.floor(i / perUniverse),
          // A wash takes 5 and a spot 11, in turn.
          address: 1 + Math.floor((i % perUniverse) / 2) * 16 + ((i % perUniverse) & 1 ? 5 : 0),
          mount: { x: (i % 20) - 10, y: i % 7, z: 4 },
        })),
        casting: [0, 1, 2, 3].map((role) => ({
          role: `p${role}`,
          fixtures: Array.from({ length: fixtures }, (_, i) => i)
            .filter((i) => i % 4 === role)
            .map((i) => `f${i}`),
        })),
      },
    ],
    rig: 'rig',
    roles: [0, 1, 2, 3].map((role) => ({ id: `p${role}`, name: `P${role}`, tint: role })),
    aims: [{ id: 'aim', name: 'Aim', x: 0, y: 1, z: 1 }],
    looks: Array.from({ length: 12 }, (_, n) => ({
      id: `l${n}`,
      number: n + 1,
      name: `L${n}`,
      fadeIn: 4,
      fadeOut: 4,
      values: [0, 1, 2, 3].map((role) => ({
        role: `p${role}`,
        level: { type: 'spread' as const, values: [0.2, 0.9, 0.4 + n / 40] },
        colour: { type: 'spread' as const, values: n % 2 ? [white, blue] : [blue, { x: 0.4, y: 0.4 }] },
        ...(role % 2 ? { aim: { type: 'hold' as const, value: { aim: 'aim' } } } : {}),
        ...(n * 4 + role < waves ? { waves: [waveOf(n * 4 + role)] } : {}),
      })),
    })),
    chases: [],
    kits: [],
    banks: [],
    sets: [],
    pedals: [],
    controls: [],
    events: [],
    safety: { on: true, most: 3 },
    songs: [
      {
        id: 'song',
        title: 'Song',
        music: null,
        duration: 600,
        tempo: {
          anchors: [
            { beat: 0, time: 0 },
            { beat: 2, time: 1 },
          ],
        },
        meter: [{ bar: 0, numerator: 4, denominator: 4 }],
        sections: [],
        lanes: Array.from({ length: lanes }, (_, lane) => ({
          id: `lane${lane}`,
          name: `Lane ${lane}`,
          type: 'looks' as const,
          clips: Array.from({ length: 280 }, (_unused, k) => ({
            id: `${lane}-${k}`,
            look: `l${(k + lane) % 12}`,
            from: k * 4,
            to: k * 4 + 4,
          })),
        })),
      },
    ],
  };
  return Show.parse(input);
}

/** Levels, hues, figures and zooms in turn. */
function waveOf(n: number) {
  const run = { span: { beats: 1 + (n % 8) }, turn: 1 };
  if (n % 4 === 2) return { type: 'move' as const, shape: 'circle' as const, width: 30, height: 20, ...run };
  const on = (['level', 'hue', 'level', 'zoom'] as const)[n % 4]!;
  return { type: 'wave' as const, on, shape: 'sine' as const, low: 0.1, high: on === 'hue' ? 180 : 0.9, ...run };
}
