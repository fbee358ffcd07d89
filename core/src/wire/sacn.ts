// Streaming ACN, ANSI E1.31-2018: DMX levels in UDP packets. Numbers are big-endian; offsets are those of table 4-1.

import { utf8 } from '../letters';
import { seconds, universe, type Seconds, type Universe } from '../units';

export const SACN_PORT = 5568;

export type SacnData = {
  /** 16 bytes that name the sender for as long as it lives (clause 5.6). */
  readonly cid: Uint8Array;
  readonly sourceName: string;
  /** 0…200; the highest wins (clause 6.2.3). */
  readonly priority: number;
  /** Universe that carries the synchronization, 0 for none (clause 6.2.4.1). */
  readonly sync: number;
  readonly sequence: number;
  /** Levels that must not be shown by receivers (clause 6.2.6). */
  readonly preview: boolean;
  /** The source says goodbye (clause 6.2.6). */
  readonly terminated: boolean;
  readonly universe: Universe;
  /** 1…512 levels, after the zero start code. */
  readonly levels: Uint8Array;
};

export type SacnSync = { readonly cid: Uint8Array; readonly sequence: number; readonly universe: number };

/** One page of a source's list of the universes it sends (clause 8). */
export type SacnDiscovery = {
  readonly cid: Uint8Array;
  readonly sourceName: string;
  readonly page: number;
  readonly lastPage: number;
  /** Rising; at most 512 a page. */
  readonly universes: readonly number[];
};

export type SacnPacket =
  | { readonly kind: 'data'; readonly data: SacnData }
  | { readonly kind: 'sync'; readonly sync: SacnSync }
  | { readonly kind: 'discovery'; readonly discovery: SacnDiscovery }
  /** Well formed, but nothing we use: another start code, another root vector. */
  | { readonly kind: 'other' }
  | { readonly kind: 'bad'; readonly why: string };

const ACN_IDENTIFIER = [0x41, 0x53, 0x43, 0x2d, 0x45, 0x31, 0x2e, 0x31, 0x37, 0, 0, 0];
const VECTOR_ROOT_E131_DATA = 4;
const VECTOR_ROOT_E131_EXTENDED = 8;
const VECTOR_E131_DATA_PACKET = 2;
const VECTOR_E131_EXTENDED_SYNCHRONIZATION = 1;
const VECTOR_E131_EXTENDED_DISCOVERY = 2;
const VECTOR_UNIVERSE_DISCOVERY_UNIVERSE_LIST = 1;
const VECTOR_DMP_SET_PROPERTY = 2;

/** The universe whose group carries universe discovery (appendix A, E131_DISCOVERY_UNIVERSE). */
export const SACN_DISCOVERY_UNIVERSE = 64214;

/** How often a source lists its universes (appendix A, E131_UNIVERSE_DISCOVERY_INTERVAL). */
export const SACN_DISCOVERY_EVERY: Seconds = seconds(10);

const PREVIEW = 0x80;
const TERMINATED = 0x40;

/** A new data packet; the levels are copied. To send at 44 Hz without new memory, keep it and call `updateSacn`. */
export function encodeSacn(data: SacnData): Uint8Array<ArrayBuffer> {
  const count = data.levels.length;
  if (count < 1 || count > 512) throw new RangeError(`A packet carries 1 to 512 levels, got: ${count}`);
  const bytes = new Uint8Array(126 + count);
  const view = new DataView(bytes.buffer);
  root(bytes, view, VECTOR_ROOT_E131_DATA, data.cid);
  view.setUint16(38, 0x7000 | (bytes.length - 38));
  view.setUint32(40, VECTOR_E131_DATA_PACKET);
  bytes.set(utf8(data.sourceName, 63), 44);
  bytes[108] = Math.min(200, Math.max(0, Math.round(data.priority)));
  view.setUint16(109, data.sync);
  bytes[111] = data.sequence & 255;
  bytes[112] = (data.preview ? PREVIEW : 0) | (data.terminated ? TERMINATED : 0);
  view.setUint16(113, data.universe);
  view.setUint16(115, 0x7000 | (bytes.length - 115));
  bytes[117] = VECTOR_DMP_SET_PROPERTY;
  bytes[118] = 0xa1;
  view.setUint16(121, 1);
  view.setUint16(123, count + 1);
  bytes.set(data.levels, 126);
  return bytes;
}

/** Writes the next sequence number and new levels into a packet made by `encodeSacn`. Allocates nothing. */
export function updateSacn(packet: Uint8Array, sequence: number, levels: Uint8Array, terminated = false): void {
  packet[111] = sequence & 255;
  packet[112] = (packet[112]! & ~TERMINATED) | (terminated ? TERMINATED : 0);
  packet.set(levels, 126);
}

/** Tells receivers to show what they hold for a synchronization universe (clause 6.3). */
export function encodeSacnSync(sync: SacnSync): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(49);
  const view = new DataView(bytes.buffer);
  root(bytes, view, VECTOR_ROOT_E131_EXTENDED, sync.cid);
  view.setUint16(38, 0x7000 | (bytes.length - 38));
  view.setUint32(40, VECTOR_E131_EXTENDED_SYNCHRONIZATION);
  bytes[44] = sync.sequence & 255;
  view.setUint16(45, sync.universe);
  return bytes;
}

/** All pages that list `universes` (clause 8.5); one empty page for none. */
export function encodeSacnDiscovery(
  cid: Uint8Array,
  sourceName: string,
  universes: readonly number[],
): Uint8Array<ArrayBuffer>[] {
  const sorted = [...new Set(universes)].sort((a, b) => a - b);
  const pages = Math.max(1, Math.ceil(sorted.length / 512));
  return Array.from({ length: pages }, (_, page) => {
    const list = sorted.slice(page * 512, page * 512 + 512);
    const bytes = new Uint8Array(120 + list.length * 2);
    const view = new DataView(bytes.buffer);
    root(bytes, view, VECTOR_ROOT_E131_EXTENDED, cid);
    view.setUint16(38, 0x7000 | (bytes.length - 38));
    view.setUint32(40, VECTOR_E131_EXTENDED_DISCOVERY);
    bytes.set(utf8(sourceName, 63), 44);
    view.setUint16(112, 0x7000 | (bytes.length - 112));
    view.setUint32(114, VECTOR_UNIVERSE_DISCOVERY_UNIVERSE_LIST);
    bytes[118] = page;
    bytes[119] = pages - 1;
    list.forEach((number, i) => view.setUint16(120 + i * 2, number));
    return bytes;
  });
}

/** Never throws: whatever arrives becomes a packet or says what is wrong with it. The levels share the bytes' memory. */
export function decodeSacn(bytes: Uint8Array): SacnPacket {
  if (bytes.length < 49) return bad(`${bytes.length} bytes are too few`);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (view.getUint16(0) !== 0x10) return bad('the preamble is not 16 bytes long');
  for (let i = 0; i < 12; i++) if (bytes[4 + i] !== ACN_IDENTIFIER[i]) return bad('the ACN identifier is missing');
  const cid = bytes.slice(22, 38);
  const vector = view.getUint32(18);
  if (vector === VECTOR_ROOT_E131_EXTENDED) {
    if (view.getUint32(40) === VECTOR_E131_EXTENDED_DISCOVERY) return discovery(bytes, view, cid);
    if (view.getUint32(40) !== VECTOR_E131_EXTENDED_SYNCHRONIZATION) return { kind: 'other' };
    return { kind: 'sync', sync: { cid, sequence: bytes[44]!, universe: view.getUint16(45) } };
  }
  if (vector !== VECTOR_ROOT_E131_DATA) return { kind: 'other' };
  if (bytes.length < 126) return bad(`${bytes.length} bytes are too few for levels`);
  if (view.getUint32(40) !== VECTOR_E131_DATA_PACKET) return bad('the framing vector is not DATA_PACKET');
  if (bytes[117] !== VECTOR_DMP_SET_PROPERTY || bytes[118] !== 0xa1) return bad('the DMP layer sets no properties');
  const count = view.getUint16(123) - 1;
  if (count < 0 || count > 512 || 126 + count > bytes.length) return bad(`it says ${count} levels and holds fewer`);
  const number = view.getUint16(113);
  if (number < 1 || number > 63999) return bad(`universe ${number} is outside 1 to 63999`);
  const terminated = (bytes[112]! & TERMINATED) !== 0;
  // What a goodbye holds does not count, and it may hold nothing (clause 6.2.6).
  if (count === 0 ? !terminated : bytes[125] !== 0) return { kind: 'other' };
  return {
    kind: 'data',
    data: {
      cid,
      sourceName: textUntilZero(bytes.subarray(44, 108)),
      priority: bytes[108]!,
      sync: view.getUint16(109),
      sequence: bytes[111]!,
      preview: (bytes[112]! & PREVIEW) !== 0,
      terminated,
      universe: universe(number),
      levels: bytes.subarray(126, 126 + count),
    },
  };
}

function discovery(bytes: Uint8Array, view: DataView, cid: Uint8Array): SacnPacket {
  if (bytes.length < 120) return bad(`${bytes.length} bytes are too few for a list of universes`);
  if (view.getUint32(114) !== VECTOR_UNIVERSE_DISCOVERY_UNIVERSE_LIST) return { kind: 'other' };
  const count = Math.min(512, (bytes.length - 120) >> 1);
  return {
    kind: 'discovery',
    discovery: {
      cid,
      sourceName: textUntilZero(bytes.subarray(44, 108)),
      page: bytes[118]!,
      lastPage: bytes[119]!,
      universes: Array.from({ length: count }, (_, i) => view.getUint16(120 + i * 2)),
    },
  };
}

/** The multicast group of a universe: 239.255.high.low (clause 9.3.1). */
export function sacnGroup(of: number): string {
  return `239.255.${of >> 8}.${of & 255}`;
}

/** Without a packet for this long a source is lost (clause 6.7.1, E131_NETWORK_DATA_LOSS_TIMEOUT). */
export const SACN_LOST_AFTER: Seconds = seconds(2.5);

/** True where a packet is older than the one before it and must be dropped (clause 6.7.2). */
export function isOutOfOrder(sequence: number, before: number): boolean {
  const step = ((sequence - before + 128) & 255) - 128;
  return step <= 0 && step > -20;
}

function root(bytes: Uint8Array, view: DataView, vector: number, cid: Uint8Array): void {
  view.setUint16(0, 0x10);
  bytes.set(ACN_IDENTIFIER, 4);
  view.setUint16(16, 0x7000 | (bytes.length - 16));
  view.setUint32(18, vector);
  bytes.set(cid.subarray(0, 16), 22);
}

export function textUntilZero(bytes: Uint8Array): string {
  const end = bytes.indexOf(0);
  return new TextDecoder().decode(end < 0 ? bytes : bytes.subarray(0, end));
}

function bad(why: string): SacnPacket {
  return { kind: 'bad', why };
}
