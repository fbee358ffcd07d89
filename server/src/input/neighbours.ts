// Who else is on the network: nodes that answered a poll, and senders that list universes of ours.

import type { InputReport, Connections, NetworkFace } from '@hovlix/core/connect';
import type { ArtPollReply, SacnDiscovery } from '@hovlix/core/wire';

/** A node that leaves three polls unanswered is gone. */
const NODE_GONE_AFTER = 10;
/** E1.31, clause 4.4: a source lists its universes every 10 s; two lists missed and it is gone. */
const SENDER_GONE_AFTER = 21;
const MOST = 200;

export type Neighbours = {
  readonly send: (connections: Connections) => void;
  readonly answered: (reply: ArtPollReply, from: string, at: number) => void;
  readonly listed: (list: SacnDiscovery, from: string, ours: readonly NetworkFace[], at: number) => void;
  readonly sentArtNet: (port: number, from: string, at: number) => void;
  readonly report: (at: number) => Pick<InputReport, 'nodes' | 'clashes'>;
};

export function neighbours(cid: Uint8Array): Neighbours {
  const nodes = new Map<string, { reply: ArtPollReply; from: string; at: number }>();
  const senders = new Map<
    string,
    {
      name: string;
      address: string;
      protocol: 'sacn' | 'artnet';
      pages: Map<number, readonly number[]>;
      at: number;
      twin: boolean;
    }
  >();
  const mine = { sacn: new Set<number>(), artnet: new Set<number>() };
  const own = Buffer.from(cid).toString('hex');

  return {
    send(connections) {
      mine.sacn.clear();
      mine.artnet.clear();
      for (const { on, way } of connections.outputs)
        if (on && way.protocol !== 'serial') mine[way.protocol].add(way.number);
    },
    answered(reply, from, at) {
      const key = `${from} ${reply.outputs.join()}`;
      if (reply.role === 'controller' || (nodes.size >= MOST && !nodes.has(key))) return;
      nodes.set(key, { reply, from, at });
    },
    listed(list, from, ours, at) {
      const name = Buffer.from(list.cid).toString('hex');
      const twin = name === own;
      if (twin && (ours.length === 0 || ours.some((face) => face.address === from))) return;
      const key = `${name} ${from}`;
      if (senders.size >= MOST && !senders.has(key)) return;
      const known = senders.get(key);
      const pages = known?.pages ?? new Map<number, readonly number[]>();
      for (const page of [...pages.keys()]) if (page > list.lastPage) pages.delete(page);
      pages.set(list.page, list.universes);
      senders.set(key, { name: list.sourceName, address: from, protocol: 'sacn', pages, at, twin });
    },
    sentArtNet(port, from, at) {
      if (!mine.artnet.has(port)) return;
      const key = `artnet ${from} ${port}`;
      if (senders.size >= MOST && !senders.has(key)) return;
      senders.set(key, {
        name: from,
        address: from,
        protocol: 'artnet',
        pages: new Map([[0, [port]]]),
        at,
        twin: false,
      });
    },
    report(at) {
      for (const [key, node] of nodes) if (at - node.at > NODE_GONE_AFTER) nodes.delete(key);
      for (const [key, sender] of senders) if (at - sender.at > SENDER_GONE_AFTER) senders.delete(key);
      return {
        nodes: [...nodes.values()].map(({ reply, from, at: heard }) => ({
          address: from,
          shortName: reply.shortName,
          longName: reply.longName,
          outputs: [...reply.outputs],
          secondsAgo: Math.round((at - heard) * 10) / 10,
        })),
        clashes: [...senders.values()].flatMap(({ name, address, protocol, pages, twin }) => {
          const universes = [...pages.values()].flat().filter((number) => mine[protocol].has(number));
          return universes.length > 0 ? [{ name, address, universes, twin }] : [];
        }),
      };
    },
  };
}
