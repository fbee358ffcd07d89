// Sends a program's universes to one target, as sACN or Art-Net.

import { createSocket } from 'node:dgram';
import { universe } from '@hovlix/core/units';
import {
  encodeArtDmx,
  encodeArtSync,
  encodeSacn,
  encodeSacnSync,
  nextArtSequence,
  sacnGroup,
  updateArtDmx,
  updateSacn,
} from '@hovlix/core/wire';
import type { Target } from './target';

export type SenderReport = {
  readonly protocol: Target['protocol'];
  readonly host: string;
  readonly port: number;
  readonly packets: number;
  /** The last thing the network said against it, and when (ms since 1970). */
  readonly error: string | null;
  readonly errorAt: number | null;
};

export type Sender = {
  /** @param frame 512 levels for each of `universes`. */
  readonly send: (universes: readonly number[], frame: Uint8Array) => void;
  /** Three terminated packets a universe (E1.31, clause 6.2.6); a later `send` begins anew. */
  readonly fallSilent: () => void;
  readonly report: () => SenderReport;
  readonly close: () => Promise<void>;
};

/** Universe that carries the sync packets, so that several universes change at once. */
const SYNC_UNIVERSE = 63999;

type Line = { packet: Uint8Array; sequence: number; levels: Uint8Array };

/** @param cid 16 bytes that name this Hovlix on sACN. */
export function startSender(target: Target, cid: Uint8Array): Sender {
  const socket = createSocket({ type: 'udp4' });
  const lines = new Map<number, Line>();
  let packets = 0;
  let failure: { error: string; errorAt: number } | undefined;
  let syncSequence = 0;
  const settled = (error: Error | null) => {
    if (error) failure = { error: error.message, errorAt: Date.now() };
    else packets++;
  };
  socket.on('error', settled);
  const ready = new Promise<void>((resolve) => {
    socket.bind(0, () => {
      if (target.host === 'multicast') socket.setMulticastTTL(8);
      if (target.host === 'multicast' || target.host.endsWith('.255')) socket.setBroadcast(true);
      resolve();
    });
  });
  const out = (bytes: Uint8Array, number: number) =>
    socket.send(bytes, target.port, target.host === 'multicast' ? sacnGroup(number) : target.host, settled);

  const lineFor = (number: number): Line => {
    const known = lines.get(number);
    if (known) return known;
    const levels = new Uint8Array(512);
    const packet =
      target.protocol === 'sacn'
        ? encodeSacn({
            cid,
            sourceName: 'Hovlix',
            priority: 100,
            sync: 0,
            sequence: 0,
            preview: false,
            terminated: false,
            universe: universe(number),
            levels,
          })
        : // Hovlix counts universes from 1, Art-Net from 0.
          encodeArtDmx({ sequence: 1, physical: 0, port: (number - 1) & 0x7fff, levels });
    const line = { packet, sequence: 0, levels };
    lines.set(number, line);
    return line;
  };

  return {
    send(universes, frame) {
      const together = universes.length > 1;
      for (let i = 0; i < universes.length; i++) {
        const number = universes[i]!;
        const line = lineFor(number);
        const levels = frame.subarray(i * 512, i * 512 + 512);
        if (target.protocol === 'sacn') {
          line.sequence = (line.sequence + 1) & 255;
          updateSacn(line.packet, line.sequence, levels);
          new DataView(line.packet.buffer).setUint16(109, together ? SYNC_UNIVERSE : 0);
        } else {
          line.sequence = nextArtSequence(line.sequence);
          updateArtDmx(line.packet, line.sequence, levels);
        }
        out(line.packet, number);
      }
      if (!together) return;
      if (target.protocol === 'artnet') return out(encodeArtSync(), 0);
      syncSequence = (syncSequence + 1) & 255;
      out(encodeSacnSync({ cid, sequence: syncSequence, universe: SYNC_UNIVERSE }), SYNC_UNIVERSE);
    },
    fallSilent() {
      if (target.protocol === 'sacn')
        for (const [number, line] of lines)
          for (let i = 0; i < 3; i++) {
            line.sequence = (line.sequence + 1) & 255;
            updateSacn(line.packet, line.sequence, line.levels, true);
            out(line.packet.slice(), number);
          }
      lines.clear();
    },
    report: () => ({
      protocol: target.protocol,
      host: target.host,
      port: target.port,
      packets,
      error: failure && Date.now() - failure.errorAt < 5000 ? failure.error : null,
      errorAt: failure?.errorAt ?? null,
    }),
    async close() {
      await ready;
      await new Promise<void>((resolve) => setTimeout(() => socket.close(() => resolve()), 20));
    },
  };
}
