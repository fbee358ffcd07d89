// The DMX node stand-in: listens for sACN and Art-Net, as a box on a truss would, and says what arrives.

import { createSocket, type Socket } from 'node:dgram';
import type { NodeReport } from '@hovlix/core/connect';
import { ARTNET_PORT, decodeArtNet, decodeSacn, encodeArtPollReply, SACN_PORT, sacnGroup } from '@hovlix/core/wire';
import { lineBook, type LineBook } from './line-book';

export type DmxNode = {
  readonly report: () => NodeReport;
  readonly frames: LineBook['frames'];
  readonly close: () => void;
};

type Options = {
  /** Where to listen. */
  readonly host?: string;
  readonly ports?: { readonly sacn: number; readonly artnet: number };
  /** sACN universes to hear by multicast as well, on the network of `host`. */
  readonly join?: readonly number[];
};

export async function startNode({
  host = '127.0.0.1',
  ports = { sacn: SACN_PORT, artnet: ARTNET_PORT },
  join = [],
}: Options = {}): Promise<DmxNode> {
  const lines = lineBook();
  let bad = 0;
  let lastBad: string | null = null;
  const refuse = (why: string) => {
    bad++;
    lastBad = why;
  };

  // Multicast packets are addressed to their group: only a socket without an address of its own hears them.
  const sacn = await listen(join.length > 0 ? undefined : host, ports.sacn, (bytes) => {
    const packet = decodeSacn(bytes);
    if (packet.kind === 'bad') return refuse(`sACN: ${packet.why}`);
    if (packet.kind !== 'data') return;
    const { universe, sourceName, priority, sequence, levels, terminated, cid } = packet.data;
    const key = `sacn ${universe} ${Buffer.from(cid).toString('hex')}`;
    if (terminated) return lines.end(key);
    lines.take(key, { universe, protocol: 'sacn', source: sourceName, priority }, sequence, levels);
  });
  for (const number of join) sacn.addMembership(sacnGroup(number), host);
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
    lines.take(`artnet ${port} ${from.address}`, facts, sequence || null, levels);
  });

  return {
    report: () => ({ universes: lines.report(), bad, lastBad }),
    frames: lines.frames,
    close() {
      sacn.close();
      artnet.close();
    },
  };
}

function listen(
  host: string | undefined,
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
