// All output rows of this computer: made, changed and taken away one by one, so that the others never notice.

import type { Connections, NetworkFace, OutputRow, RowReport, Silence } from '@hovlix/core/connect';
import { limiter, type Limiter } from '@hovlix/core/engine';
import { now } from '../clock';
import type { RowSender } from './row';
import { serialRow } from './serial-row';
import { sequenceBook, udpRows, type UdpRows } from './udp-rows';

/** Rows of one delay, and the frame they share. */
export type Group = {
  readonly delay: number;
  /** Knows what has left by these rows. */
  readonly limiter: Limiter;
  readonly frame: Uint8Array;
  readonly universes: readonly number[];
  /** One universe each, in the order of the program's. */
  readonly views: readonly Uint8Array[];
  readonly merged: Uint8Array;
  readonly rows: readonly { readonly sender: RowSender; readonly place: number }[];
};

export type RowBook = {
  readonly take: (connections: Connections) => void;
  readonly see: (networks: readonly NetworkFace[]) => void;
  readonly universes: () => number[];
  /** Gives every group a frame over these universes. */
  readonly lay: (universes: readonly number[], bytes: number) => void;
  readonly groups: () => readonly Group[];
  readonly synchronize: (tick: number) => void;
  readonly discover: () => void;
  readonly reports: (hasShow: boolean, sending: boolean) => RowReport[];
  readonly close: () => Promise<void>;
};

type Counted = { packets: number; at: number; perSecond: number; state: RowReport['state']; since: number };

export function rowBook(cid: Uint8Array, first: Connections, seen: readonly NetworkFace[]): RowBook {
  let connections = first;
  let networks = seen;
  // Kept over every change of rows, so that receivers see one unbroken count.
  const sequences = sequenceBook();
  let udp: UdpRows = makeUdp();
  let senders = new Map<string, RowSender>();
  let groups: readonly Group[] = [];
  let laid: { universes: readonly number[]; bytes: number } = { universes: [], bytes: 0 };
  const counts = new Map<string, Counted>();
  reconcile(true);

  function makeUdp(): UdpRows {
    return udpRows({ cid, sourceName: connections.sourceName, sync: connections.sync, networks, sequences });
  }

  /** Keeps what is unchanged; network rows are made anew together when a network or their common facts change. */
  function reconcile(networkToo: boolean): void {
    const before = senders;
    const old = udp;
    if (networkToo) udp = makeUdp();
    senders = new Map();
    for (const row of connections.outputs) {
      const kept = before.get(row.id);
      const udpRow = row.way.protocol !== 'serial';
      if (kept && JSON.stringify(kept.row) === JSON.stringify(row) && !(udpRow && networkToo)) {
        senders.set(row.id, kept);
        before.delete(row.id);
      } else if (row.on) senders.set(row.id, udpRow ? udp.row(row) : serialRow(row));
    }
    for (const sender of before.values()) {
      // The same universe under the same number goes on at once: no goodbye in between.
      if (![...senders.values()].some((one) => sameLine(one.row, sender.row))) sender.fallSilent();
      void sender.close();
    }
    if (networkToo) void old.close();
    group();
  }

  function group(): void {
    const delays = [...new Set([0, ...[...senders.values()].map(({ row }) => row.delayMs)])];
    const before = groups;
    groups = delays.map((delayMs) => {
      const frame = new Uint8Array(laid.bytes);
      // Until the next frame is there, and if none can be made, what was sent last goes on.
      const old = before.find(({ delay }) => delay === delayMs / 1000) ?? before[0];
      old?.views.forEach((view, place) => {
        const at = laid.universes.indexOf(old.universes[place]!);
        if (at >= 0) frame.set(view, at * 512);
      });
      return {
        delay: delayMs / 1000,
        limiter: old?.delay === delayMs / 1000 ? old.limiter : limiter(),
        universes: laid.universes,
        frame,
        views: laid.universes.map((_, i) => frame.subarray(i * 512, i * 512 + 512)),
        merged: new Uint8Array(laid.universes.length),
        rows: [...senders.values()]
          .filter(({ row }) => row.delayMs === delayMs)
          .map((sender) => ({ sender, place: laid.universes.indexOf(sender.row.universe) }))
          .filter(({ place }) => place >= 0),
      };
    });
  }

  const reportOf = (row: OutputRow, hasShow: boolean, sending: boolean): RowReport => {
    const sender = senders.get(row.id);
    // Rates by the steady clock, which nobody sets; only what people read is told by the time of day.
    const at = now();
    const counted = counts.get(row.id) ?? { packets: 0, at, perSecond: 0, state: 'silent', since: Date.now() };
    counts.set(row.id, counted);
    const packets = sender?.packets() ?? 0;
    if (packets < counted.packets) counted.packets = 0;
    if (at - counted.at >= 0.9) {
      counted.perSecond = Math.round(((packets - counted.packets) / (at - counted.at)) * 10) / 10;
      counted.packets = packets;
      counted.at = at;
    }
    const trouble = sender?.trouble() ?? null;
    const moving = counted.perSecond > 0 || packets > counted.packets;
    const silence: Silence | null = !row.on
      ? 'row-off'
      : trouble
        ? null
        : moving && sending
          ? null
          : !sending && !moving
            ? 'output-off'
            : !hasShow || !moving
              ? 'nothing-to-send'
              : null;
    const state = trouble ? 'failed' : silence ? 'silent' : 'live';
    if (state !== counted.state) Object.assign(counted, { state, since: Date.now() });
    return { id: row.id, state, silence, trouble, since: counted.since, packetsPerSecond: counted.perSecond, packets };
  };

  return {
    take(next) {
      const common = next.sourceName !== connections.sourceName || next.sync !== connections.sync;
      const udpOf = (of: Connections) => JSON.stringify(of.outputs.filter((row) => row.way.protocol !== 'serial'));
      const changed = common || udpOf(next) !== udpOf(connections);
      connections = next;
      reconcile(changed);
    },
    see(next) {
      if (JSON.stringify(next) === JSON.stringify(networks)) return;
      networks = next;
      reconcile(true);
    },
    universes: () => connections.outputs.map((row) => row.universe as number),
    lay(universes, bytes) {
      laid = { universes, bytes };
      group();
    },
    groups: () => groups,
    synchronize: (tick) => udp.synchronize(tick),
    discover: () => udp.discover(),
    reports: (hasShow, sending) => connections.outputs.map((row) => reportOf(row, hasShow, sending)),
    async close() {
      for (const sender of senders.values()) sender.fallSilent();
      await Promise.all([...senders.values()].map((sender) => sender.close()));
      await udp.close();
    },
  };
}

/** True where two rows send the same universe number to the same receivers. */
function sameLine(a: OutputRow, b: OutputRow): boolean {
  return a.way.protocol === b.way.protocol && a.way.protocol !== 'serial' && b.way.protocol !== 'serial'
    ? a.way.number === b.way.number && a.way.to === b.way.to
    : false;
}
