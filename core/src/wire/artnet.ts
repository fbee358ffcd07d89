// Art-Net 4: DMX levels in UDP packets, and finding who listens. Numbers are low byte first unless the field says Hi.

import { utf8 } from '../letters';
import { seconds, type Seconds } from '../units';
import { textUntilZero } from './sacn';

export const ARTNET_PORT = 6454;

/**
 * A source that is silent for so long no longer counts where several are merged. What does not change may be told every
 * four seconds only (Art-Net 4, ArtDmx: refresh rate, and data merging).
 */
export const ARTNET_LOST_AFTER: Seconds = seconds(10);

/** 15 bits: net (7), sub-net (4), universe (4). Counted from 0 on the wire. */
export type PortAddress = number;

export type ArtDmx = {
  /** 1…255 counts packets; 0 says that the order is unknown. */
  readonly sequence: number;
  readonly physical: number;
  readonly port: PortAddress;
  /** 2…512 levels, an even number on the wire. */
  readonly levels: Uint8Array;
};

export type ArtPollReply = {
  readonly ip: readonly [number, number, number, number];
  readonly shortName: string;
  readonly longName: string;
  /**
   * Ports that take light from the network, which is sent to whoever has them, and ports that put light on it; four of
   * both together at most, all of one net and sub-net.
   */
  readonly outputs: readonly PortAddress[];
  readonly inputs?: readonly PortAddress[];
  /** A node turns packets into DMX; a controller sends them. */
  readonly role?: 'node' | 'controller';
};

export type ArtPacket =
  | { readonly kind: 'dmx'; readonly dmx: ArtDmx }
  | { readonly kind: 'sync' }
  | { readonly kind: 'poll' }
  | { readonly kind: 'poll-reply'; readonly reply: ArtPollReply }
  | { readonly kind: 'other' }
  | { readonly kind: 'bad'; readonly why: string };

const ID = [0x41, 0x72, 0x74, 0x2d, 0x4e, 0x65, 0x74, 0];
const OP_POLL = 0x2000;
const OP_POLL_REPLY = 0x2100;
const OP_DMX = 0x5000;
const OP_SYNC = 0x5200;
const VERSION = 14;
const STYLE_CONTROLLER = 1;
/** What a port does (ArtPollReply, PortTypes), of the protocol DMX512; and that it does so now (GoodInput, GoodOutput). */
const TAKES = 0x80;
const PUTS = 0x40;
const GOOD = 0x80;
const MOST_PORTS = 4;

export function encodeArtDmx(dmx: ArtDmx): Uint8Array<ArrayBuffer> {
  const count = Math.max(2, dmx.levels.length + (dmx.levels.length & 1));
  if (dmx.levels.length < 1 || count > 512)
    throw new RangeError(`A packet carries 1 to 512 levels, got: ${dmx.levels.length}`);
  const bytes = packet(OP_DMX, 18 + count);
  bytes[13] = dmx.physical;
  bytes[14] = dmx.port & 255;
  bytes[15] = (dmx.port >> 8) & 127;
  bytes[16] = count >> 8;
  bytes[17] = count & 255;
  updateArtDmx(bytes, dmx.sequence, dmx.levels);
  return bytes;
}

/** Writes the next sequence number and new levels into a packet made by `encodeArtDmx`. Allocates nothing. */
export function updateArtDmx(bytes: Uint8Array, sequence: number, levels: Uint8Array): void {
  bytes[12] = sequence & 255;
  bytes.set(levels, 18);
}

/** 1, 2 … 255, 1 …: zero would switch ordering off. */
export function nextArtSequence(sequence: number): number {
  return sequence >= 255 ? 1 : sequence + 1;
}

export function encodeArtSync(): Uint8Array<ArrayBuffer> {
  return packet(OP_SYNC, 14);
}

/** Asks every node to say who it is, and to say it again when it changes. */
export function encodeArtPoll(): Uint8Array<ArrayBuffer> {
  const bytes = packet(OP_POLL, 14);
  bytes[12] = 0x02;
  return bytes;
}

/** All replies of one that takes some ports from the network and puts others on it: as many as it takes to name them all. */
export function encodeArtPollReplies(
  who: Pick<ArtPollReply, 'ip' | 'shortName' | 'longName'>,
  takes: readonly PortAddress[],
  puts: readonly PortAddress[],
): Uint8Array<ArrayBuffer>[] {
  const replies = [
    ...inReplies(takes).map((outputs) => ({ ...who, outputs, role: 'node' as const })),
    ...inReplies(puts).map((inputs) => ({ ...who, outputs: [], inputs, role: 'controller' as const })),
  ];
  const said = replies.length > 0 ? replies : [{ ...who, outputs: [], role: 'controller' as const }];
  return said.map((reply, i) => encodeArtPollReply(reply, i + 1));
}

/** Rising, each once, in lots that fit into a reply. */
function inReplies(ports: readonly PortAddress[]): PortAddress[][] {
  const lots: PortAddress[][] = [];
  for (const port of [...new Set(ports)].sort((a, b) => a - b)) {
    const last = lots.at(-1);
    if (last && last.length < MOST_PORTS && last[0]! >> 4 === port >> 4) last.push(port);
    else lots.push([port]);
  }
  return lots;
}

/** @param bind which reply of several it is, counted from 1 (BindIndex). */
export function encodeArtPollReply(reply: ArtPollReply, bind = 1): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(239);
  const view = new DataView(bytes.buffer);
  bytes.set(ID, 0);
  view.setUint16(8, OP_POLL_REPLY, true);
  bytes.set(reply.ip, 10);
  view.setUint16(14, ARTNET_PORT, true);
  const takes = reply.outputs.slice(0, MOST_PORTS);
  const puts = (reply.inputs ?? []).slice(0, MOST_PORTS - takes.length);
  const first = takes[0] ?? puts[0] ?? 0;
  bytes[18] = (first >> 8) & 127;
  bytes[19] = (first >> 4) & 15;
  bytes.set(utf8(reply.shortName, 17), 26);
  bytes.set(utf8(reply.longName, 63), 44);
  bytes[173] = takes.length + puts.length;
  takes.forEach((port, i) => {
    bytes[174 + i] = TAKES;
    bytes[182 + i] = GOOD;
    bytes[190 + i] = port & 15;
  });
  puts.forEach((port, k) => {
    const i = takes.length + k;
    bytes[174 + i] = PUTS;
    bytes[178 + i] = GOOD;
    bytes[186 + i] = port & 15;
  });
  if (reply.role === 'controller') bytes[200] = STYLE_CONTROLLER;
  bytes.set(reply.ip, 207);
  bytes[211] = bind & 255;
  bytes[212] = 0x08;
  return bytes;
}

/** Never throws: whatever arrives becomes a packet or says what is wrong with it. The levels share the bytes' memory. */
export function decodeArtNet(bytes: Uint8Array): ArtPacket {
  if (bytes.length < 10) return bad(`${bytes.length} bytes are too few`);
  for (let i = 0; i < 8; i++) if (bytes[i] !== ID[i]) return bad('it does not begin with Art-Net');
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const op = view.getUint16(8, true);
  if (op === OP_POLL_REPLY) return pollReply(bytes);
  if (bytes.length < 12) return bad(`${bytes.length} bytes are too few`);
  if (view.getUint16(10) < VERSION) return bad(`protocol version ${view.getUint16(10)} is older than ${VERSION}`);
  if (op === OP_POLL) return { kind: 'poll' };
  if (op === OP_SYNC) return { kind: 'sync' };
  if (op !== OP_DMX) return { kind: 'other' };
  if (bytes.length < 20) return bad(`${bytes.length} bytes are too few for levels`);
  const count = view.getUint16(16);
  if (count < 2 || count > 512 || 18 + count > bytes.length) return bad(`it says ${count} levels and holds fewer`);
  return {
    kind: 'dmx',
    dmx: {
      sequence: bytes[12]!,
      physical: bytes[13]!,
      port: bytes[14]! | ((bytes[15]! & 127) << 8),
      levels: bytes.subarray(18, 18 + count),
    },
  };
}

function pollReply(bytes: Uint8Array): ArtPacket {
  if (bytes.length < 207) return bad(`${bytes.length} bytes are too few for a poll reply`);
  const base = ((bytes[18]! & 127) << 8) | ((bytes[19]! & 15) << 4);
  const ports = (does: number, at: number) =>
    [0, 1, 2, 3]
      .filter((i) => (bytes[174 + i]! & does) !== 0 && i < Math.max(1, bytes[173]!))
      .map((i) => base | (bytes[at + i]! & 15));
  return {
    kind: 'poll-reply',
    reply: {
      ip: [bytes[10]!, bytes[11]!, bytes[12]!, bytes[13]!],
      shortName: textUntilZero(bytes.subarray(26, 44)),
      longName: textUntilZero(bytes.subarray(44, 108)),
      outputs: ports(TAKES, 190),
      inputs: ports(PUTS, 186),
      role: bytes[200] === STYLE_CONTROLLER ? 'controller' : 'node',
    },
  };
}

function packet(op: number, length: number): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(length);
  bytes.set(ID, 0);
  bytes[8] = op & 255;
  bytes[9] = op >> 8;
  bytes[11] = VERSION;
  return bytes;
}

function bad(why: string): ArtPacket {
  return { kind: 'bad', why };
}
