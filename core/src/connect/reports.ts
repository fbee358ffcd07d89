// What the server says of its connections, once a second: every screen shows it, nothing is decided by it.

import { z } from 'zod';
import { DeckTrack } from '../gig/known-track';
import { Connections } from './schema';

const Millis = z.number();

const Trouble = z.discriminatedUnion('code', [
  z.object({ code: z.literal('network-gone'), network: z.string() }),
  z.object({ code: z.literal('no-network') }),
  z.object({ code: z.literal('cannot-send'), detail: z.string() }),
  z.object({ code: z.literal('port-gone'), path: z.string() }),
  z.object({ code: z.literal('port-busy'), path: z.string() }),
  z.object({ code: z.literal('port-forbidden'), path: z.string() }),
  z.object({ code: z.literal('port-slow'), path: z.string() }),
  z.object({ code: z.literal('port-fails'), path: z.string(), detail: z.string() }),
]);

export const RowReport = z.object({
  id: z.string(),
  state: z.enum(['live', 'silent', 'failed']),
  silence: z.enum(['row-off', 'output-off', 'nothing-to-send']).nullable(),
  trouble: Trouble.nullable(),
  /** When it came into this state, ms since 1970. */
  since: Millis,
  packetsPerSecond: z.number(),
  packets: z.number(),
});
export type RowReport = z.infer<typeof RowReport>;

/** Something that held the light up, or made the clocks part. */
export const Incident = z.object({
  at: Millis,
  code: z.enum(['held-up', 'slept', 'clock-set']),
  seconds: z.number(),
});
export type Incident = z.infer<typeof Incident>;

export const OutputReport = z.object({
  sending: z.boolean(),
  framesPerSecond: z.number(),
  /** Frames that were due while the computer was busy or asleep, and were left out. */
  skipped: z.number(),
  /** Whether what sends goes before all that is not in real time; null where the system has none to give. */
  realTime: z.boolean().nullable(),
  universes: z.array(z.number()),
  rows: z.array(RowReport),
  /** Who controls each universe that has an input. */
  winners: z.array(z.object({ universe: z.number(), winner: z.enum(['ours', 'theirs', 'both']) })),
  /** Why the newest show, or the last frame, could not be lit: the last good light stays on. Null where all is well. */
  trouble: z.string().nullable(),
  incidents: z.array(Incident),
});
export type OutputReport = z.infer<typeof OutputReport>;

export const FoundNode = z.object({
  address: z.string(),
  shortName: z.string(),
  longName: z.string(),
  /** Port-Addresses of its DMX outputs. */
  outputs: z.array(z.number()),
  secondsAgo: z.number(),
});
export type FoundNode = z.infer<typeof FoundNode>;

export const InputReport = z.object({
  rows: z.array(
    z.object({
      id: z.string(),
      sources: z.array(
        z.object({ name: z.string(), priority: z.number().nullable(), secondsAgo: z.number(), wins: z.boolean() }),
      ),
    }),
  ),
  nodes: z.array(FoundNode),
  /** Other senders that list universes we send as well. `twin` has this computer's own identity. */
  clashes: z.array(
    z.object({ name: z.string(), address: z.string(), universes: z.array(z.number()), twin: z.boolean() }),
  ),
  bad: z.number(),
  lastBad: z.string().nullable(),
  /** Why a port cannot be listened to, in words. */
  deaf: z.array(z.string()),
});
export type InputReport = z.infer<typeof InputReport>;

const NodeUniverse = z.object({
  /** As the wire counts it, plus one on Art-Net. */
  universe: z.number(),
  protocol: z.enum(['sacn', 'artnet', 'serial']),
  source: z.string(),
  priority: z.number().nullable(),
  framesPerSecond: z.number(),
  packets: z.number(),
  /** Packets the sequence numbers say are missing. */
  lost: z.number(),
  /** Longest time between two packets in the last two seconds, ms. */
  longestGapMs: z.number(),
  /** How often any level changed since the start. */
  changes: z.number(),
  levels: z.array(z.number()),
});
export type NodeUniverse = z.infer<typeof NodeUniverse>;

export const NodeReport = z.object({
  universes: z.array(NodeUniverse),
  /** Packets that were no DMX, and what was wrong with the last one. */
  bad: z.number(),
  lastBad: z.string().nullable(),
});
export type NodeReport = z.infer<typeof NodeReport>;

/** What is heard of a DJ player. */
export const PlayerReport = z.object({
  decks: z.array(
    z.object({
      deck: z.number(),
      /** The address of the player it is of. */
      from: z.string(),
      track: DeckTrack.nullable(),
      /** The song it is found to be, and by what. */
      song: z.string().nullable(),
      by: z.enum(['kept', 'file', 'title']).nullable(),
      state: z.enum(['none', 'plays', 'stands', 'lost']),
      position: z.number(),
      rate: z.number(),
      level: z.number(),
      /** Songs go by this one now. */
      leads: z.boolean(),
    }),
  ),
  /** Packets that could not be read, and what was wrong with the last one. */
  bad: z.number(),
  lastBad: z.string().nullable(),
  /** Why nothing can be heard. */
  deaf: z.string().nullable(),
});
export type PlayerReport = z.infer<typeof PlayerReport>;

export const NetworkFace = z.object({
  name: z.string(),
  address: z.string(),
  netmask: z.string(),
  broadcast: z.string(),
  /** Only reaches this computer itself. */
  internal: z.boolean(),
});
export type NetworkFace = z.infer<typeof NetworkFace>;

export const SerialPlace = z.object({ path: z.string(), name: z.string(), standIn: z.boolean() });
export type SerialPlace = z.infer<typeof SerialPlace>;

export const Device = z.object({
  id: z.string(),
  name: z.string(),
  addedAt: Millis,
  lastSeenAt: Millis.nullable(),
  screens: z.number(),
  /** What it may do, see `core/src/live/rights.ts`. */
  may: z.enum(['operator', 'player', 'viewer']),
});
export type Device = z.infer<typeof Device>;

const ClockWord = z.enum(['none', 'running', 'stopped', 'lost']);

/** MIDI ports of the conductor's computer. */
export const MidiReport = z.object({
  inputs: z.array(z.string()),
  outputs: z.array(z.string()),
  /** Why nothing can be heard, in words. */
  deaf: z.string().nullable(),
  last: z.object({ channel: z.number(), note: z.number() }).nullable(),
  clock: z.object({ device: z.string(), state: ClockWord, bpm: z.number().nullable() }).nullable(),
  timecode: z
    .object({ device: z.string(), state: ClockWord, text: z.string(), frames: z.number().optional() })
    .nullable(),
});
export type MidiReport = z.infer<typeof MidiReport>;

/** What is heard over OSC. */
export const OscReport = z.object({
  /** The last message that could be read. */
  last: z
    .object({
      address: z.string(),
      /** Its arguments, as people read them. */
      values: z.string(),
      from: z.string(),
      /** Seconds since it came. */
      ago: z.number(),
      by: z.enum(['control', 'word', 'nobody']),
      /** What a word of ours did. */
      did: z.string(),
    })
    .nullable(),
  /** Messages that could not be read or done, and what was wrong with the last one. */
  bad: z.number(),
  lastBad: z.string().nullable(),
  /** Why nothing can be heard. */
  deaf: z.string().nullable(),
});
export type OscReport = z.infer<typeof OscReport>;

/** What was done by the clock, and what comes. Days and times are those of the clock on the wall. */
export const TimetableReport = z.object({
  now: z.object({ day: z.string(), time: z.string() }),
  /** Events that are on. */
  on: z.array(z.string()),
  /** What the clock brings next: an event begins, or one that is on ends. */
  next: z.object({ name: z.string(), what: z.enum(['begins', 'ends']), day: z.string(), time: z.string() }).nullable(),
  last: z
    .object({
      name: z.string(),
      what: z.enum(['begins', 'ends']),
      day: z.string(),
      time: z.string(),
      /** What it did, in words; empty for nothing. */
      did: z.string(),
    })
    .nullable(),
  /** Events that came and went while this computer was off or asleep. */
  missed: z.array(z.string()),
});
export type TimetableReport = z.infer<typeof TimetableReport>;

export const Status = z.object({
  version: z.string(),
  /** True where the asking screen is on the computer that conducts. */
  host: z.boolean(),
  screens: z.number(),
  /** What cannot be kept or lit right now, in words. The light goes on. */
  troubles: z.array(z.string()),
  connections: Connections,
  output: OutputReport.nullable(),
  input: InputReport.nullable(),
  /** What the stand-ins say; null where none runs. */
  node: NodeReport.nullable(),
  /** Null while no player is listened to. */
  player: PlayerReport.nullable(),
  /** Null while its MIDI ports are not listened to. */
  midi: MidiReport.nullable(),
  /** Null while it is not listened to. */
  osc: OscReport.nullable(),
  /** Null while no timetable is followed. */
  timetable: TimetableReport.nullable(),
  networks: z.array(NetworkFace),
  serialPorts: z.array(SerialPlace),
  phones: z.object({
    open: z.boolean(),
    addresses: z.array(z.string()),
    /** Only told to the host's own screens. */
    code: z.string().nullable(),
    codeUntil: Millis.nullable(),
    /** What the next device that joins may do. */
    grant: z.enum(['operator', 'player', 'viewer']),
    /** Devices that ask to be let in without a code. Only told to the host's own screens. */
    knocks: z.array(z.object({ id: z.string(), name: z.string(), tag: z.string() })),
    devices: z.array(Device),
    problem: z.string().nullable(),
  }),
});
export type Status = z.infer<typeof Status>;

export function incidentInWords({ code, seconds }: Incident): string {
  const length = seconds >= 90 ? `${Math.round(seconds / 60)} minutes` : `${seconds.toFixed(1)} s`;
  if (code === 'slept') return `This computer slept for ${length}. Light went on from where the music is now.`;
  if (code === 'clock-set')
    return `The time of day jumped by ${length}. Light runs by a clock of its own and took no notice.`;
  return `This computer was held up for ${length}, and light stood still meanwhile.`;
}
