// The DMX node stand-in: listens for sACN and Art-Net on loopback, as a box on a truss would, and says what arrives.

import { createSocket, type Socket } from 'node:dgram';
import {
  ARTNET_PORT,
  decodeArtNet,
  decodeSacn,
  encodeArtPollReply,
  isOutOfOrder,
  SACN_LOST_AFTER,
  SACN_PORT,
} from '@hovlix/core/wire';
import { now } from '../clock';

export type UniverseReport = {
  /** As Hovlix counts: sACN's own number, Art-Net's Port-Address plus one. */
  readonly universe: number;
  readonly protocol: 'sacn' | 'artnet';
  readonly source: string;
  readonly priority: number | null;
  readonly framesPerSecond: number;
  readonly packets: number;
  /** Packets the sequence numbers say are missing. */
  readonly lost: number;
  /** Longest time between two packets in the last second, ms. */
  readonly longestGapMs: number;
  /** How often any level changed since the start. */
  readonly changes: number;
  readonly levels: readonly number[];
};

export type NodeReport = {
  readonly universes: readonly UniverseReport[];
  /** Packets that were no sACN or Art-Net, and what was wrong with the last one. */
  readonly bad: number;
  readonly lastBad: string | null;
};

type Line = {
  report: Omit<UniverseReport, 'levels' | 'framesPerSecond' | 'longestGapMs'>;
  sequence: number;
  levels: Uint8Array;
  arrivals: number[];
};

export type DmxNode = { readonly report: () => NodeReport; readonly close: () => void };

/** @param host where to listen. @param ports 0 takes any free one. */
export async function startNode(
  host = '127.0.0.1',
  ports: { readonly sacn: number; readonly artnet: number } = { sacn: SACN_PORT, artnet: ARTNET_PORT },
): Promise<DmxNode> {
  const lines = new Map<string, Line>();
  let bad = 0;
  let lastBad: string | null = null;

  const refuse = (why: string) => {
    bad++;
    lastBad = why;
  };
  const take = (
    key: string,
    facts: Pick<UniverseReport, 'universe' | 'protocol' | 'source' | 'priority'>,
    sequence: number,
    levels: Uint8Array,
  ) => {
    const before = lines.get(key);
    if (before && isOutOfOrder(sequence, before.sequence)) return;
    const at = now();
    const wrap = facts.protocol === 'artnet' ? 255 : 256;
    const step = before ? (sequence - before.sequence + wrap) % wrap : 1;
    const changed = before !== undefined && !same(before.levels, levels);
    lines.set(key, {
      report: {
        ...facts,
        packets: (before?.report.packets ?? 0) + 1,
        lost: (before?.report.lost ?? 0) + Math.max(0, step - 1),
        changes: (before?.report.changes ?? 0) + (changed ? 1 : 0),
      },
      sequence,
      levels: Uint8Array.from(levels),
      arrivals: [...(before?.arrivals ?? []).filter((earlier) => at - earlier <= 2), at],
    });
  };

  const sacn = await listen(host, ports.sacn, (bytes) => {
    const packet = decodeSacn(bytes);
    if (packet.kind === 'bad') return refuse(`sACN: ${packet.why}`);
    if (packet.kind !== 'data') return;
    const { universe, sourceName, priority, sequence, levels, terminated, cid } = packet.data;
    const key = `sacn ${universe} ${Buffer.from(cid).toString('hex')}`;
    if (terminated) return void lines.delete(key);
    take(key, { universe, protocol: 'sacn', source: sourceName, priority }, sequence, levels);
  });
  const artnet = await listen(host, ports.artnet, (bytes, from, socket) => {
    const packet = decodeArtNet(bytes);
    if (packet.kind === 'bad') return refuse(`Art-Net: ${packet.why}`);
    if (packet.kind === 'poll') {
      const ip = host.split('.').map(Number) as [number, number, number, number];
      const reply = { ip, shortName: 'Hovlix node', longName: 'Hovlix DMX node stand-in', outputs: [0, 1, 2, 3] };
      return socket.send(encodeArtPollReply(reply), from.port, from.address);
    }
    if (packet.kind !== 'dmx') return;
    const { port, sequence, levels } = packet.dmx;
    const facts = { universe: port + 1, protocol: 'artnet' as const, source: from.address, priority: null };
    take(`artnet ${port} ${from.address}`, facts, sequence, levels);
  });

  return {
    report() {
      const at = now();
      for (const [key, line] of lines) if (at - line.arrivals.at(-1)! > SACN_LOST_AFTER) lines.delete(key);
      return {
        universes: [...lines.values()].map((line) => ({
          ...line.report,
          ...rateOf(line.arrivals, at),
          levels: Array.from(line.levels),
        })),
        bad,
        lastBad,
      };
    },
    close() {
      sacn.close();
      artnet.close();
    },
  };
}

/** Over the last second: packets, and the longest wait between two of them. */
function rateOf(arrivals: readonly number[], at: number): { framesPerSecond: number; longestGapMs: number } {
  const recent = arrivals.filter((earlier) => at - earlier <= 2);
  const gaps = recent.slice(1).map((time, i) => time - recent[i]!);
  const span = (recent.at(-1) ?? 0) - (recent[0] ?? 0);
  return {
    framesPerSecond: span > 0 ? Math.round(((recent.length - 1) / span) * 10) / 10 : 0,
    longestGapMs: Math.round(Math.max(0, ...gaps) * 10000) / 10,
  };
}

function same(a: Uint8Array, b: Uint8Array): boolean {
  return a.length === b.length && a.every((value, i) => value === b[i]);
}

function listen(
  host: string,
  port: number,
  take: (bytes: Uint8Array, from: { address: string; port: number }, socket: Socket) => void,
): Promise<Socket> {
  const socket = createSocket({ type: 'udp4', reuseAddr: true });
  socket.on('message', (bytes, from) => take(bytes, from, socket));
  return new Promise((resolve, reject) => {
    socket.once('error', reject);
    socket.bind(port, host, () => resolve(socket));
  });
}
