// Input: other programs' light on sACN and Art-Net, nodes that answer a poll, and who else sends our universes.
// It lives in a thread of its own: whatever a network throws at it, no frame waits.

import { createSocket, type RemoteInfo, type Socket } from 'node:dgram';
import { NO_CONNECTIONS, type InputReport, type Connections, type NetworkFace } from '@hovlix/core/connect';
import {
  ARTNET_PORT,
  decodeArtNet,
  decodeSacn,
  encodeArtPoll,
  encodeArtPollReplies,
  SACN_DISCOVERY_UNIVERSE,
  SACN_PORT,
  sacnGroup,
  type ArtPollReply,
} from '@hovlix/core/wire';
import { now } from '../clock';
import { faceFor, isInNetwork } from '../connect/networks';
import { neighbours } from './neighbours';
import type { SharedLevels } from './shared-levels';
import { sourceBook } from './source-book';

export type ToInput =
  | { readonly type: 'connections'; readonly connections: Connections }
  | { readonly type: 'networks'; readonly networks: readonly NetworkFace[] }
  | { readonly type: 'stop' };

export type Input = { readonly tell: (message: ToInput) => void; readonly report: () => InputReport };

/** UDP ports on which other sources are heard. */
export type InputPorts = { readonly sacn: number; readonly artnet: number };

type Start = {
  readonly cid: Uint8Array;
  readonly networks: readonly NetworkFace[];
  readonly heard: SharedLevels;
  readonly ports?: InputPorts;
};

/** Art-Net controllers ask about every three seconds (Art-Net 4, ArtPoll). */
const POLL_EVERY_MS = 3000;
const LOST_CHECK_MS = 250;

export function startInput({
  cid,
  networks: first,
  heard,
  ports = { sacn: SACN_PORT, artnet: ARTNET_PORT },
}: Start): Input {
  let connections = NO_CONNECTIONS;
  let networks = first;
  const sources = sourceBook(heard);
  const others = neighbours(cid);
  let bad = 0;
  let lastBad: string | null = null;
  const refuse = (why: string) => {
    bad++;
    lastBad = why;
  };

  const sacn = receiver(ports.sacn, 'sACN input does not work', (bytes, from) => {
    const packet = decodeSacn(bytes);
    if (packet.kind === 'bad') return refuse(`sACN from ${from.address}: ${packet.why}`);
    if (packet.kind === 'discovery') return others.listed(packet.discovery, from.address, networks, now());
    if (packet.kind !== 'data' || same(packet.data.cid, cid) || packet.data.preview) return;
    sources.sacn(packet.data, now());
  });
  const artnet = receiver(ports.artnet, 'Art-Net input does not work, and nodes are not found', (bytes, from) =>
    heardArtNet(bytes, from, true),
  );
  // Nodes answer to the usual port or to the one that asked: this one asks, and both listen.
  const asker = createSocket({ type: 'udp4' });
  asker.on('error', (error) => refuse(`asking for nodes: ${error.message}`));
  asker.on('message', (bytes, from) => heardArtNet(bytes, from, false));
  asker.bind(0, () => {
    asker.setBroadcast(true);
    poll();
  });

  function heardArtNet(bytes: Uint8Array, from: RemoteInfo, answers: boolean): void {
    const packet = decodeArtNet(bytes);
    if (packet.kind === 'bad') return refuse(`Art-Net from ${from.address}: ${packet.why}`);
    if (packet.kind === 'poll-reply') return others.answered(packet.reply, from.address, now());
    if (packet.kind === 'poll') return answers ? answer(from) : undefined;
    if (packet.kind !== 'dmx' || isOurs(from)) return;
    others.sentArtNet(packet.dmx.port, from.address, now());
    sources.artnet(packet.dmx, from.address, now());
  }

  /** Our own rows come back from broadcasts; another program on this computer is told apart by not being us. */
  const isOurs = (from: RemoteInfo) =>
    networks.some((face) => face.address === from.address && !face.internal) &&
    connections.outputs.some((row) => row.on && row.way.protocol === 'artnet' && row.way.to === 'broadcast');

  function answer(from: RemoteInfo): void {
    const reached = networks.find((one) => isInNetwork(from.address, one));
    const face = reached ?? faceFor(null, networks) ?? networks[0];
    if (!face || networks.some((one) => one.address === from.address)) return;
    const ip = face.address.split('.').map(Number) as unknown as ArtPollReply['ip'];
    const who = { ip, shortName: 'Hovlix', longName: connections.sourceName };
    // A desk sends a universe to whoever takes it from the network: to us, where it comes in here, and not where we send it.
    const takes = connections.inputs.flatMap(({ on, protocol, number }) =>
      on && protocol === 'artnet' ? [number] : [],
    );
    const puts = connections.outputs.flatMap(({ on, way }) => (on && way.protocol === 'artnet' ? [way.number] : []));
    for (const reply of encodeArtPollReplies(who, takes, puts))
      artnet.socket()?.send(reply, from.port, from.address, () => undefined);
  }

  function poll(): void {
    const told = connections.outputs.flatMap(({ way }) =>
      way.protocol === 'artnet' && way.to !== 'broadcast' ? [way.to] : [],
    );
    const places = new Set([
      '127.0.0.1',
      ...told,
      ...networks.filter((one) => !one.internal).map((one) => one.broadcast),
    ]);
    for (const place of places) asker.send(encodeArtPoll(), ports.artnet, place, () => undefined);
  }

  /** Multicast groups are joined on every network; joining twice, or where there is no such network, does no harm. */
  function join(): void {
    const numbers = new Set([
      SACN_DISCOVERY_UNIVERSE,
      ...connections.inputs.filter((row) => row.protocol === 'sacn' && row.on).map((row) => row.number),
    ]);
    for (const number of numbers)
      for (const face of networks)
        try {
          sacn.socket()?.addMembership(sacnGroup(number), face.address);
        } catch {
          // Joined before, or this network has no multicast.
        }
  }

  sacn.ready(join);
  const polls = setInterval(poll, POLL_EVERY_MS);
  const checks = setInterval(() => sources.check(now()), LOST_CHECK_MS);
  return {
    tell(message) {
      if (message.type === 'connections') {
        connections = message.connections;
        sources.take(connections.inputs, now());
        others.send(connections);
        join();
      } else if (message.type === 'networks') {
        networks = message.networks;
        join();
        poll();
      } else {
        clearInterval(polls);
        clearInterval(checks);
        sacn.close();
        artnet.close();
        asker.close();
      }
    },
    report: () => ({
      rows: sources.report(now()),
      ...others.report(now()),
      bad,
      lastBad,
      deaf: [sacn.trouble(), artnet.trouble()].filter((one) => one !== null),
    }),
  };
}

function same(a: Uint8Array, b: Uint8Array): boolean {
  return a.length === b.length && a.every((value, i) => value === b[i]);
}

/** A socket that is opened again until the port is free. */
function receiver(port: number, fault: string, take: (bytes: Uint8Array, from: RemoteInfo) => void) {
  let socket: Socket | undefined;
  let trouble: string | null = null;
  let again: ReturnType<typeof setTimeout> | undefined;
  let whenReady: () => void = () => undefined;
  const open = () => {
    const fresh = createSocket({ type: 'udp4', reuseAddr: true });
    fresh.on('message', take);
    fresh.on('error', (error: NodeJS.ErrnoException) => {
      const why = error.code === 'EADDRINUSE' ? `another program holds port ${port}` : error.message;
      trouble = `${fault}: ${why}. Output is not affected.`;
      socket = undefined;
      fresh.close();
      again = setTimeout(open, POLL_EVERY_MS);
    });
    fresh.bind(port, () => {
      socket = fresh;
      trouble = null;
      whenReady();
    });
  };
  open();
  return {
    socket: () => socket,
    trouble: () => trouble,
    ready(work: () => void) {
      whenReady = work;
      if (socket) work();
    },
    close() {
      clearTimeout(again);
      socket?.close();
    },
  };
}
