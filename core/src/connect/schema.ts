// Where DMX goes and where it may come from: the cables and networks of one computer, whatever show it plays.

import { z } from 'zod';
import { universe } from '../units';
import { idOf } from '../rig/schema';

/** Dotted decimal, as people type it. */
export const Ipv4 = z
  .string()
  .regex(
    /^(25[0-5]|2[0-4]\d|1?\d?\d)(\.(25[0-5]|2[0-4]\d|1?\d?\d)){3}$/,
    'an address has four numbers from 0 to 255, like 10.0.0.20',
  );

const HovlixUniverse = z.number().int().min(1).max(63999).transform(universe);
/** Name of a network interface of the computer, or null for the one the system prefers. */
const Network = z.string().min(1).max(80).nullable();
const UdpPort = z.number().int().min(1).max(65535);
const SacnNumber = z.number().int().min(1).max(63999);
/** A Port-Address: net, sub-net and universe in 15 bits, counted from 0. */
const ArtNetNumber = z.number().int().min(0).max(32767);

/** How one output reaches its lamps. `number` is the universe's number on the wire. */
export const Way = z.discriminatedUnion('protocol', [
  z.strictObject({
    protocol: z.literal('sacn'),
    to: z.union([z.literal('multicast'), Ipv4]),
    network: Network,
    number: SacnNumber,
    priority: z.number().int().min(0).max(200).default(100),
    port: UdpPort.optional(),
  }),
  z.strictObject({
    protocol: z.literal('artnet'),
    to: z.union([z.literal('broadcast'), Ipv4]),
    network: Network,
    number: ArtNetNumber,
    port: UdpPort.optional(),
  }),
  z.strictObject({
    protocol: z.literal('serial'),
    kind: z.enum(['plain', 'framed']),
    /** The port as the system names it. */
    path: z.string().min(1).max(300),
  }),
]);
export type Way = z.infer<typeof Way>;

/** How early or late an output's light may be, in ms: cables and radio add their own delay. */
export const DELAY_MS = { least: -250, most: 1000 } as const;

export const OutputRow = z.strictObject({
  id: idOf<'Output'>(),
  universe: HovlixUniverse,
  on: z.boolean().default(true),
  /** Light leaves this much later than the music says; negative is earlier. */
  delayMs: z.number().int().min(DELAY_MS.least).max(DELAY_MS.most).default(0),
  way: Way,
});
export type OutputRow = z.infer<typeof OutputRow>;

/** What becomes of light that arrives from elsewhere. */
export const MERGES = ['highest', 'takes-over', 'backup'] as const;

export const InputRow = z.strictObject({
  id: idOf<'Input'>(),
  universe: HovlixUniverse,
  on: z.boolean().default(true),
  protocol: z.enum(['sacn', 'artnet']),
  number: z.number().int().min(0).max(63999),
  merge: z.enum(MERGES).default('highest'),
});
export type InputRow = z.infer<typeof InputRow>;

export const MOST_ROWS = 256;
export const MOST_INPUTS = 64;

/** A DJ player that tells of its decks over OSC: where it is listened to, and whether songs go by it. */
export const PlayerIn = z.strictObject({
  on: z.boolean(),
  port: z.number().int().min(1024).max(65535),
  follows: z.boolean(),
});
export type PlayerIn = z.infer<typeof PlayerIn>;

/** OSC that presses and moves, from other programs and from tablets: where it is listened to. */
export const OscIn = z.strictObject({
  on: z.boolean(),
  port: z.number().int().min(1024).max(65535),
  /** Whoever sends is told at this port what is on and where knobs stand, so that a tablet shows it; null tells nobody. */
  answersAt: UdpPort.nullable(),
});
export type OscIn = z.infer<typeof OscIn>;

/** MIDI ports of the computer that conducts: whether they are listened to, what a clock from there leads, and whether ours is sent. */
export const MidiIn = z.strictObject({
  on: z.boolean(),
  follows: z.enum(['nothing', 'tempo', 'songs']),
  sendsClock: z.boolean(),
});
export type MidiIn = z.infer<typeof MidiIn>;

/** Whether this computer does by the clock what the timetable of the show says. */
export const TimetableIn = z.strictObject({ on: z.boolean() });
export type TimetableIn = z.infer<typeof TimetableIn>;

export const Connections = z.strictObject({
  format: z.literal('hovlix-connections'),
  version: z.literal(1),
  /** How this computer introduces itself on sACN and Art-Net. */
  sourceName: z.string().trim().min(1).max(60).default('Hovlix'),
  /** Universes of one network change at the same instant, by synchronization packets. */
  sync: z.boolean().default(true),
  outputs: z.array(OutputRow).max(MOST_ROWS).default([]),
  inputs: z.array(InputRow).max(MOST_INPUTS).default([]),
  player: PlayerIn.optional(),
  midi: MidiIn.optional(),
  osc: OscIn.optional(),
  timetable: TimetableIn.optional(),
  /** Universes that were given an output once, so that a row someone removed stays removed. */
  seen: z.array(HovlixUniverse).max(4096).default([]),
});
export type Connections = z.infer<typeof Connections>;

/** Nobody is listened to before somebody asks for it. */
export const NO_PLAYER: PlayerIn = { on: false, port: 9045, follows: true };
export const NO_OSC: OscIn = { on: false, port: 9046, answersAt: null };
export const NO_TIMETABLE: TimetableIn = { on: false };
export const NO_MIDI: MidiIn = { on: false, follows: 'nothing', sendsClock: false };

export const NO_CONNECTIONS: Connections = {
  format: 'hovlix-connections',
  version: 1,
  sourceName: 'Hovlix',
  sync: true,
  outputs: [],
  inputs: [],
  seen: [],
};
