// Who sends light to us: the sources of each input row, and what they come to together.

import { arbitrated, type InputReport, type InputRow, type Source } from '@hovlix/core/connect';
import { ARTNET_LOST_AFTER, isOutOfOrder, SACN_LOST_AFTER, type ArtDmx, type SacnData } from '@hovlix/core/wire';
import { clearShared, writeShared, type SharedLevels } from './shared-levels';

/** More sources on one universe than any stage has; beyond them a flood of made-up ones is ignored. */
const MOST_SOURCES = 16;

export type SourceBook = {
  readonly take: (rows: readonly InputRow[], at: number) => void;
  readonly sacn: (data: SacnData, at: number) => void;
  readonly artnet: (dmx: ArtDmx, from: string, at: number) => void;
  /** Lets go of sources that have fallen silent. */
  readonly check: (at: number) => void;
  readonly report: (at: number) => InputReport['rows'];
};

type Line = {
  readonly row: InputRow;
  readonly slot: number;
  readonly sources: Map<string, Source & { sequence: number }>;
  winners: readonly string[];
};

const lostAfter = ({ protocol }: InputRow) => (protocol === 'artnet' ? ARTNET_LOST_AFTER : SACN_LOST_AFTER);

/** The first slot that no row has. */
function freeOf(taken: ReadonlySet<number>): number {
  let slot = 0;
  while (taken.has(slot)) slot++;
  return slot;
}

export function sourceBook(shared: SharedLevels): SourceBook {
  let lines: Line[] = [];
  const merged = new Uint8Array(512);

  const settle = (line: Line, at: number) => {
    line.winners = arbitrated(line.sources.values(), at, lostAfter(line.row), merged);
    writeShared(shared, line.slot, line.row.id, line.winners.length > 0 ? merged : null);
  };
  const hear = (line: Line, source: Source, sequence: number, ordered: boolean) => {
    const before = line.sources.get(source.key);
    if (before && ordered && isOutOfOrder(sequence, before.sequence)) return;
    if (!before && line.sources.size >= MOST_SOURCES) return;
    line.sources.set(source.key, { ...source, levels: Uint8Array.from(source.levels), sequence });
    settle(line, source.at);
  };

  return {
    take(rows, at) {
      const before = new Map(lines.map((line) => [line.row.id, line]));
      const wanted = rows.filter((row) => row.on);
      // What is heard goes on being heard: each row stays in its place, and a new one takes a place that is free.
      const taken = new Set(wanted.flatMap(({ id }) => before.get(id)?.slot ?? []));
      lines = wanted.map((row) => {
        const kept = before.get(row.id);
        const same = kept && kept.row.protocol === row.protocol && kept.row.number === row.number;
        const slot = kept?.slot ?? freeOf(taken);
        taken.add(slot);
        return { row, slot, sources: same ? kept.sources : new Map(), winners: same ? kept.winners : [] };
      });
      for (const line of lines) settle(line, at);
      clearShared(shared, taken);
    },
    sacn(data, at) {
      const key = Buffer.from(data.cid).toString('hex');
      for (const line of lines) {
        if (line.row.protocol !== 'sacn' || line.row.number !== data.universe) continue;
        if (data.terminated) {
          line.sources.delete(key);
          settle(line, at);
        } else {
          const { sourceName, priority, levels, sequence } = data;
          hear(line, { key, name: sourceName || 'a source without a name', priority, at, levels }, sequence, true);
        }
      }
    },
    artnet({ port, sequence, levels }, from, at) {
      for (const line of lines)
        if (line.row.protocol === 'artnet' && line.row.number === port)
          hear(line, { key: from, name: from, priority: 0, at, levels }, sequence, sequence !== 0);
    },
    check(at) {
      for (const line of lines) {
        for (const [key, source] of line.sources) if (at - source.at > lostAfter(line.row)) line.sources.delete(key);
        settle(line, at);
      }
    },
    report: (at) =>
      lines.map(({ row, sources, winners }) => ({
        id: row.id,
        sources: [...sources.values()].map((source) => ({
          name: source.name,
          priority: row.protocol === 'sacn' ? source.priority : null,
          secondsAgo: Math.round((at - source.at) * 10) / 10,
          wins: winners.includes(source.name),
        })),
      })),
  };
}
