import { closeSync, writeSync } from 'node:fs';
import { basename } from 'node:path';
import { compile, frameFor, levelsOf, limiter, render } from '@hovlix/core/engine';
import { playedAlone, readLog, replay, type LiveState } from '@hovlix/core/live';
import { wordsFor } from '@hovlix/core/problem';
import type { Song } from '@hovlix/core/song';
import { seconds, universe, type Seconds } from '@hovlix/core/units';
import { encodeSacn, pcapHeader, pcapRecord, SACN_PORT, sacnGroup, updateSacn } from '@hovlix/core/wire';
import { cidOfThisMachine } from '../connect/cid';
import { homeFolder } from '../connect/home';
import { FRAMES_PER_SECOND } from '../output/pacer';
import { bundleFrom, bytesOf, openedTo, rigIn, songIn, soundsIn } from './files';
import { numberOf, options, UsageError } from './usage';

export const RENDER_HELP = `Usage: hovlix render SHOW.hovlix --song NAME | --log FILE [--rig NAME] [--from S] [--to S] --out FILE.pcap|FILE.csv

Renders the light of a song, or of all that was pressed in an evening (hovlix serve --log), without a network, faster than
it plays, 44 frames a second. A log counts from its first entry and ends 5 s after its last.
  .pcap  sACN packets with their timestamps, for any network analyser
  .csv   time, universe, then 512 levels`;

export async function renderCommand(args: string[]): Promise<void> {
  const { values, positionals } = options({
    args,
    allowPositionals: true,
    options: {
      song: { type: 'string' },
      log: { type: 'string' },
      rig: { type: 'string' },
      from: { type: 'string' },
      to: { type: 'string' },
      out: { type: 'string' },
    },
  });
  const [file] = positionals;
  if (positionals.length !== 1 || !file) throw new UsageError('render takes one SHOW.hovlix');
  const kind = /\.(pcap|csv)$/i.exec(values.out ?? '')?.[1]?.toLowerCase();
  if (!values.out || !kind) throw new UsageError('--out takes a name that ends in .pcap or .csv');
  const bundle = bundleFrom(file);
  const { show } = bundle;
  if (values.log !== undefined && values.song !== undefined) throw new UsageError('either --song or --log, not both');
  const { start, length, stateAt } =
    values.log === undefined ? songPlayed(songIn(show, values.song)) : logPlayed(values.log);
  const program = compile(show, rigIn(show, values.rig), soundsIn(bundle));
  const from = numberOf(values.from, 'from', 0, length) ?? 0;
  const to = numberOf(values.to, 'to', from, 1e6) ?? length;
  const frame = frameFor(program);
  const safe = limiter();
  const writer = (kind === 'pcap' ? pcapWriter : csvWriter)(openedTo(values.out));
  const first = Math.ceil(from * FRAMES_PER_SECOND);
  for (let n = first; n / FRAMES_PER_SECOND < to; n++) {
    const at = seconds(start + n / FRAMES_PER_SECOND);
    render(program, stateAt(at), at, frame);
    safe.hold(program, frame, at);
    for (const number of program.universes)
      writer.write(seconds(n / FRAMES_PER_SECOND), number, levelsOf(program, frame, number)!);
  }
  writer.close();
}

/** What is on at each moment, from `start` on the conductor's clock, for so many seconds. */
type Played = { readonly start: number; readonly length: number; readonly stateAt: (at: Seconds) => LiveState };

function songPlayed({ id, duration }: Song): Played {
  const state = playedAlone(id);
  return { start: 0, length: duration, stateAt: () => state };
}

/** Light goes on this long after the last entry of a log, in seconds: fades end. */
const AFTER_LOG = 5;

function logPlayed(file: string): Played {
  const read = readLog(new TextDecoder().decode(bytesOf(file)), basename(file));
  if (!read.ok) throw new Error(wordsFor(read.problem));
  const start = read.value.entries[0]?.at ?? 0;
  return { start, length: (read.value.entries.at(-1)?.at ?? 0) - start + AFTER_LOG, stateAt: replay(read.value) };
}

type Writer = {
  readonly write: (at: ReturnType<typeof seconds>, number: number, levels: Uint8Array) => void;
  readonly close: () => void;
};

function csvWriter(file: number): Writer {
  const head = Array.from({ length: 512 }, (_, i) => i + 1).join(',');
  writeSync(file, `time_s,universe,${head}\n`);
  return {
    write: (at, number, levels) => writeSync(file, `${at.toFixed(4)},${number},${levels.join(',')}\n`),
    close: () => closeSync(file),
  };
}

function pcapWriter(file: number): Writer {
  const packets = new Map<number, { packet: Uint8Array; sequence: number }>();
  const cid = cidOfThisMachine(homeFolder());
  writeSync(file, pcapHeader());
  return {
    write(at, number, levels) {
      const line = packets.get(number) ?? {
        packet: encodeSacn({
          cid,
          sourceName: 'Hovlix',
          priority: 100,
          sync: 0,
          sequence: 0,
          preview: false,
          terminated: false,
          universe: universe(number),
          levels,
        }),
        sequence: 0,
      };
      packets.set(number, line);
      updateSacn(line.packet, line.sequence, levels);
      line.sequence = (line.sequence + 1) & 255;
      const group = sacnGroup(number).split('.').map(Number) as [number, number, number, number];
      const record = pcapRecord({
        at,
        from: [127, 0, 0, 1],
        to: group,
        fromPort: SACN_PORT,
        toPort: SACN_PORT,
        payload: line.packet,
      });
      writeSync(file, record);
    },
    close: () => closeSync(file),
  };
}
