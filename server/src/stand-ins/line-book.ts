// What a receiver keeps of each universe that arrives: levels, rate, gaps, what was lost.

import type { NodeUniverse } from '@hovlix/core/connect';
import { isOutOfOrder, SACN_LOST_AFTER } from '@hovlix/core/wire';
import { now } from '../clock';

type Line = {
  report: Omit<NodeUniverse, 'levels' | 'framesPerSecond' | 'longestGapMs'>;
  sequence: number | null;
  levels: Uint8Array;
  arrivals: number[];
  /** The latest frames as they came, the oldest first. */
  frames: HeardFrame[];
};

/** A frame that arrived, in seconds of the clock of this process. */
export type HeardFrame = { readonly at: number; readonly levels: Uint8Array };

/** So many frames of each universe are kept: over six seconds of them. */
const KEPT_FRAMES = 300;

export type LineBook = {
  /** @param sequence null where the protocol does not count. */
  readonly take: (
    key: string,
    facts: Pick<NodeUniverse, 'universe' | 'protocol' | 'source' | 'priority'>,
    sequence: number | null,
    levels: Uint8Array,
  ) => void;
  readonly end: (key: string) => void;
  readonly report: () => NodeUniverse[];
  /** The latest frames of a universe, the oldest first. */
  readonly frames: (universe: number, protocol: NodeUniverse['protocol']) => readonly HeardFrame[];
};

export function lineBook(): LineBook {
  const lines = new Map<string, Line>();
  return {
    take(key, facts, sequence, levels) {
      const before = lines.get(key);
      const last = before?.sequence ?? null;
      if (sequence !== null && last !== null && isOutOfOrder(sequence, last)) return;
      const at = now();
      const wrap = facts.protocol === 'artnet' ? 255 : 256;
      const step = sequence !== null && last !== null ? (sequence - last + wrap) % wrap : 1;
      const frames = before?.frames ?? [];
      if (frames.length >= KEPT_FRAMES) frames.splice(0, frames.length - KEPT_FRAMES + 1);
      frames.push({ at, levels: Uint8Array.from(levels) });
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
        frames,
      });
    },
    end: (key) => void lines.delete(key),
    frames: (universe, protocol) =>
      [...lines.values()].find(({ report: of }) => of.universe === universe && of.protocol === protocol)?.frames ?? [],
    report() {
      const at = now();
      for (const [key, line] of lines) if (at - line.arrivals.at(-1)! > SACN_LOST_AFTER) lines.delete(key);
      return [...lines.values()].map((line) => ({
        ...line.report,
        ...rateOf(line.arrivals, at),
        levels: Array.from(line.levels),
      }));
    },
  };
}

/** Over the last two seconds: packets a second, and the longest wait between two of them. */
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
