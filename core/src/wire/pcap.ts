// Packet captures that any network analyser opens. Source: draft-ietf-opsawg-pcap (classic pcap, microseconds),
// link type 1: Ethernet, IPv4 (RFC 791), UDP (RFC 768).

import type { Seconds } from '../units';

export type UdpFrame = {
  readonly at: Seconds;
  readonly from: readonly [number, number, number, number];
  readonly to: readonly [number, number, number, number];
  readonly fromPort: number;
  readonly toPort: number;
  readonly payload: Uint8Array;
};

/** The 24 bytes at the head of a capture. */
export function pcapHeader(): Uint8Array<ArrayBuffer> {
  const view = new DataView(new ArrayBuffer(24));
  view.setUint32(0, 0xa1b2c3d4, true);
  view.setUint16(4, 2, true);
  view.setUint16(6, 4, true);
  view.setUint32(16, 65535, true);
  view.setUint32(20, 1, true);
  return new Uint8Array(view.buffer);
}

/** One record: a UDP packet with its Ethernet and IPv4 headers. Times before 0 are not possible in the format. */
export function pcapRecord(frame: UdpFrame): Uint8Array<ArrayBuffer> {
  const udpLength = 8 + frame.payload.length;
  const length = 14 + 20 + udpLength;
  const bytes = new Uint8Array(16 + length);
  const view = new DataView(bytes.buffer);
  const micros = Math.max(0, Math.round(frame.at * 1e6));
  view.setUint32(0, Math.floor(micros / 1e6), true);
  view.setUint32(4, micros % 1e6, true);
  view.setUint32(8, length, true);
  view.setUint32(12, length, true);
  bytes.set(hardwareAddress(frame.to), 16);
  bytes.set([2, 0, 0, 0, 0, 1], 22);
  view.setUint16(28, 0x0800);
  bytes[30] = 0x45;
  view.setUint16(32, 20 + udpLength);
  view.setUint16(36, 0x4000);
  bytes[38] = 64;
  bytes[39] = 17;
  bytes.set(frame.from, 42);
  bytes.set(frame.to, 46);
  view.setUint16(40, onesComplement(view, 30, 20));
  view.setUint16(50, frame.fromPort);
  view.setUint16(52, frame.toPort);
  view.setUint16(54, udpLength);
  bytes.set(frame.payload, 58);
  return bytes;
}

/** A multicast group has its own hardware address (RFC 1112, clause 6.4); any other gets a made-up local one. */
function hardwareAddress(to: UdpFrame['to']): readonly number[] {
  return to[0] >= 224 && to[0] < 240 ? [1, 0, 0x5e, to[1] & 127, to[2], to[3]] : [2, 0, 0, 0, 0, 2];
}

/** The internet checksum (RFC 1071) over `length` bytes. */
function onesComplement(view: DataView, at: number, length: number): number {
  let sum = 0;
  for (let i = 0; i < length; i += 2) sum += view.getUint16(at + i);
  while (sum > 0xffff) sum = (sum & 0xffff) + (sum >> 16);
  return ~sum & 0xffff;
}
