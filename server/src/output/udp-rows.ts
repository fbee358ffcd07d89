// Rows that leave through a network: sACN (ANSI E1.31-2018) and Art-Net 4.

import { createSocket, type Socket } from 'node:dgram';
import type { NetworkFace, OutputRow, RowTrouble } from '@hovlix/core/connect';
import { universe } from '@hovlix/core/units';
import {
  ARTNET_PORT,
  encodeArtDmx,
  encodeArtSync,
  encodeSacn,
  encodeSacnDiscovery,
  encodeSacnSync,
  nextArtSequence,
  SACN_DISCOVERY_UNIVERSE,
  SACN_PORT,
  sacnGroup,
  updateArtDmx,
  updateSacn,
} from '@hovlix/core/wire';
import { now } from '../clock';
import { faceFor, isInNetwork } from '../connect/networks';
import { FRAMES_PER_SECOND } from './pacer';
import type { RowSender } from './row';

type UdpWay = Exclude<OutputRow['way'], { protocol: 'serial' }>;

/** Universe that carries the sync packets, so that several universes change at once. */
const SYNC_UNIVERSE = 63999;
/** After the last refusal a row counts as failed for so long. */
const FAILED_FOR = 1.5;

export type UdpRows = {
  readonly row: (row: OutputRow) => RowSender;
  /** Sends what makes the universes of this instant change together. */
  readonly synchronize: (tick: number) => void;
  /** Lists what is sent on every network it is sent to (E1.31, clause 8). */
  readonly discover: () => void;
  readonly close: () => Promise<void>;
};

type Place = { readonly socket: Socket; readonly face: NetworkFace | undefined };
/** Rows whose universes change together, and where they are told of it. */
type Group = {
  readonly way: UdpWay;
  readonly place: Place;
  readonly host: string;
  readonly port: number;
  rows: number;
  tick: number;
  sent: number;
};

/** @param facts asked anew for each row that is made. */
export function udpRows(facts: {
  readonly cid: Uint8Array;
  readonly sourceName: string;
  readonly sync: boolean;
  readonly networks: readonly NetworkFace[];
  readonly sequences: SequenceBook;
}): UdpRows {
  const places = new Map<string, Place>();
  const groups = new Map<string, Group>();
  const { sequences } = facts;
  const listed = new Map<Place, Set<number>>();
  const syncPacket = encodeSacnSync({ cid: facts.cid, sequence: 0, universe: SYNC_UNIVERSE });
  const artSync = encodeArtSync();
  const ordered: Group[] = [];

  const placeFor = (way: UdpWay): Place => {
    const face = faceOf(way, facts.networks);
    const everyone = way.to === 'multicast' ? 'multicast' : way.to === 'broadcast' ? 'broadcast' : 'one';
    const key = `${face?.address ?? 'any'} ${everyone}`;
    const known = places.get(key);
    if (known) return known;
    const place = { socket: opened(face, everyone), face };
    places.set(key, place);
    return place;
  };

  return {
    row(row) {
      const way = row.way as UdpWay;
      const problem = troubleOf(way, facts.networks);
      if (problem) return silentRow(row, problem);
      const place = placeFor(way);
      const host = hostOf(way, place.face);
      const port = way.port ?? (way.protocol === 'sacn' ? SACN_PORT : ARTNET_PORT);
      const together = way.protocol === 'sacn' ? way.to : togetherOf(host, place.face);
      const key = `${way.protocol} ${place.face?.address ?? ''} ${together} ${port}`;
      const group = groups.get(key) ?? { way, place, host: together, port, rows: 0, tick: -1, sent: 0 };
      if (group.rows === 0) ordered.push(group);
      groups.set(key, group);
      group.rows++;
      const levels = new Uint8Array(512);
      const packet =
        way.protocol === 'sacn'
          ? encodeSacn({
              cid: facts.cid,
              sourceName: facts.sourceName,
              priority: way.priority,
              sync: 0,
              sequence: 0,
              preview: false,
              terminated: false,
              universe: universe(way.number),
              levels,
            })
          : encodeArtDmx({ sequence: 1, physical: 0, port: way.number, levels });
      const view = new DataView(packet.buffer);
      let packets = 0;
      let failure: { readonly detail: string; readonly at: number } | undefined;
      let sending = false;
      const settled = (error: Error | null) => {
        if (error) failure = { detail: (error as NodeJS.ErrnoException).code ?? error.message, at: now() };
        else packets++;
      };
      const target = host === 'multicast' ? sacnGroup(way.number) : host;
      const out = (bytes: Uint8Array) => place.socket.send(bytes, port, target, settled);
      return {
        row,
        send(fresh, tick) {
          const sequence = sequences(`${way.protocol} ${way.number}`, tick, way.protocol);
          if (way.protocol === 'sacn') {
            updateSacn(packet, sequence, fresh);
            view.setUint16(109, facts.sync && group.rows > 1 ? SYNC_UNIVERSE : 0);
            if (!sending) listedOf(place).add(way.number);
          } else updateArtDmx(packet, sequence, fresh);
          sending = true;
          if (group.tick !== tick) group.sent = 0;
          group.tick = tick;
          group.sent++;
          out(packet);
        },
        fallSilent() {
          if (!sending) return;
          sending = false;
          listed.get(place)?.delete(way.protocol === 'sacn' ? way.number : -1);
          if (way.protocol !== 'sacn') return;
          // Three packets with the Stream_Terminated bit (E1.31, clause 6.2.6).
          for (let i = 0; i < 3; i++) {
            updateSacn(packet, sequences(`sacn ${way.number}`, -1, 'sacn'), packet.slice(126), true);
            out(packet.slice());
          }
        },
        trouble: () =>
          failure && now() - failure.at < FAILED_FOR ? { code: 'cannot-send', detail: failure.detail } : null,
        packets: () => packets,
        close: () => Promise.resolve(),
      };
    },
    synchronize(tick) {
      if (!facts.sync) return;
      syncPacket[44] = sequences('sync', tick, 'sacn');
      for (let i = 0; i < ordered.length; i++) {
        const group = ordered[i]!;
        if (group.tick !== tick || group.sent < 2) continue;
        const { socket } = group.place;
        if (group.way.protocol === 'artnet') socket.send(artSync, group.port, group.host, ignore);
        else {
          const to = group.host === 'multicast' ? sacnGroup(SYNC_UNIVERSE) : group.host;
          socket.send(syncPacket, group.port, to, ignore);
        }
      }
    },
    discover() {
      for (const [place, numbers] of listed) {
        if (numbers.size === 0) continue;
        for (const page of encodeSacnDiscovery(facts.cid, facts.sourceName, [...numbers]))
          place.socket.send(page, SACN_PORT, sacnGroup(SACN_DISCOVERY_UNIVERSE), ignore);
      }
    },
    async close() {
      // What was handed over leaves first.
      await new Promise((resolve) => setTimeout(resolve, 20));
      await Promise.all([...places.values()].map(({ socket }) => closed(socket)));
    },
  };

  function listedOf(place: Place): Set<number> {
    const known = listed.get(place) ?? new Set<number>();
    listed.set(place, known);
    return known;
  }
}

/** A refusal of these is seen on the rows themselves. */
function ignore(): void {
  return undefined;
}

export type SequenceBook = (key: string, tick: number, protocol: 'sacn' | 'artnet') => number;

/**
 * One sequence per universe, whatever ways it leaves by: a receiver that hears it twice takes the second for a copy.
 * A tick of -1 always counts on. It begins by the computer's clock, so that after a crash it goes on ahead of what was sent
 * before: what is up to 19 behind a receiver throws away (E1.31, clause 6.7.2).
 */
export function sequenceBook(): SequenceBook {
  const book = new Map<string, { tick: number; sequence: number }>();
  return (key, tick, protocol) => {
    let entry = book.get(key);
    if (!entry) book.set(key, (entry = { tick: -2, sequence: Math.floor(now() * FRAMES_PER_SECOND) & 255 }));
    if (entry.tick !== tick || tick < 0)
      entry.sequence = protocol === 'sacn' ? (entry.sequence + 1) & 255 : nextArtSequence(entry.sequence);
    entry.tick = tick;
    return entry.sequence;
  };
}

/** Loopback is its own network: what is sent to this computer itself never needs another. */
function faceOf(way: UdpWay, networks: readonly NetworkFace[]): NetworkFace | undefined {
  if (way.network !== null) return faceFor(way.network, networks);
  if (way.to === 'multicast' || way.to === 'broadcast') return faceFor(null, networks) ?? networks[0];
  return networks.find((face) => isInNetwork(way.to, face));
}

function troubleOf(way: UdpWay, networks: readonly NetworkFace[]): RowTrouble | null {
  if (way.network !== null && !faceFor(way.network, networks)) return { code: 'network-gone', network: way.network };
  if (networks.length === 0) return { code: 'no-network' };
  if (way.to === 'broadcast' && !faceOf(way, networks)) return { code: 'no-network' };
  return null;
}

function hostOf(way: UdpWay, face: NetworkFace | undefined): string {
  return way.to === 'broadcast' ? (face?.broadcast ?? '255.255.255.255') : way.to;
}

/**
 * Who is told that the levels of all universes are there: every node of a network at once (Art-Net 4, ArtSync, which is
 * never sent to one of them). A node on this computer, or behind a router, no such packet reaches: it is told by itself.
 */
function togetherOf(host: string, face: NetworkFace | undefined): string {
  return face && !face.internal && isInNetwork(host, face) ? face.broadcast : host;
}

function opened(face: NetworkFace | undefined, everyone: 'multicast' | 'broadcast' | 'one'): Socket {
  const socket = createSocket({ type: 'udp4' });
  // An address that went away between two looks at the networks; the row is made anew when they are looked at again.
  socket.on('error', ignore);
  socket.bind(0, face?.address, () => {
    try {
      socket.setBroadcast(true);
      socket.setMulticastTTL(everyone === 'multicast' ? 8 : 1);
      if (face) socket.setMulticastInterface(face.address);
    } catch {
      // Said by the first packet that cannot be sent.
    }
  });
  return socket;
}

function closed(socket: Socket): Promise<void> {
  return new Promise((resolve) => {
    try {
      socket.close(() => resolve());
    } catch {
      resolve();
    }
  });
}

/** A row that cannot send as things are. */
export function silentRow(row: OutputRow, trouble: RowTrouble): RowSender {
  return {
    row,
    send: ignore,
    fallSilent: ignore,
    trouble: () => trouble,
    packets: () => 0,
    close: () => Promise.resolve(),
  };
}
