// Art-Net 4: DMX levels in UDP packets, and finding who listens. Numbers are low byte first unless the field says Hi.

import { utf8 } from '../letters';
import { textUntilZero } from './sacn';

export const ARTNET_PORT = 6454;

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
  /** Output ports, as Port-Addresses; at most four. */
  readonly outputs: readonly PortAddress[];
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

export function encodeArtPollReply(reply: ArtPollReply): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(239);
  const view = new DataView(bytes.buffer);
  bytes.set(ID, 0);
  view.setUint16(8, OP_POLL_REPLY, true);
  bytes.set(reply.ip, 10);
  view.setUint16(14, ARTNET_PORT, true);
  const first = reply.outputs[0] ?? 0;
  bytes[18] = (first >> 8) & 127;
  bytes[19] = (first >> 4) & 15;
  bytes.set(utf8(reply.shortName, 17), 26);
  bytes.set(utf8(reply.longName, 63), 44);
  const outputs = reply.outputs.slice(0, 4);
  bytes[173] = outputs.length;
  outputs.forEach((port, i) => {
    bytes[174 + i] = 0x80;
    bytes[182 + i] = 0x80;
    bytes[190 + i] = port & 15;
  });
  if (reply.role === 'controller') bytes[200] = STYLE_CONTROLLER;
  bytes.set(reply.ip, 207);
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
  const outputs = [0, 1, 2, 3]
    .filter((i) => (bytes[174 + i]! & 0x80) !== 0 && i < Math.max(1, bytes[173]!))
    .map((i) => base | (bytes[190 + i]! & 15));
  return {
    kind: 'poll-reply',
    reply: {
      ip: [bytes[10]!, bytes[11]!, bytes[12]!, bytes[13]!],
      shortName: textUntilZero(bytes.subarray(26, 44)),
      longName: textUntilZero(bytes.subarray(44, 108)),
      outputs,
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
