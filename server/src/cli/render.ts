import { closeSync, openSync, writeSync } from 'node:fs';
import { compile, frameFor, levelsOf, render } from '@hovlix/core/engine';
import { AT_REST, type LiveState } from '@hovlix/core/live';
import { seconds, universe } from '@hovlix/core/units';
import { encodeSacn, pcapHeader, pcapRecord, SACN_PORT, sacnGroup, updateSacn } from '@hovlix/core/wire';
import { cidOfThisMachine } from '../links/cid';
import { homeFolder } from '../links/home';
import { FRAMES_PER_SECOND } from '../output/pacer';
import { bundleFrom, rigIn, songIn, soundsIn } from './files';
import { numberOf, options, UsageError } from './usage';

export const RENDER_HELP = `Usage: hovlix render SHOW.hovlix --song NAME [--rig NAME] [--from S] [--to S] --out FILE.pcap|FILE.csv

Renders a song's light without a network, faster than it plays, 44 frames a second.
  .pcap  sACN packets with their timestamps, for any network analyser
  .csv   time, universe, then 512 levels`;

export async function renderCommand(args: string[]): Promise<void> {
  const { values, positionals } = options({
    args,
    allowPositionals: true,
    options: {
      song: { type: 'string' },
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
  const song = songIn(show, values.song);
  const program = compile(show, rigIn(show, values.rig), soundsIn(bundle));
  const from = numberOf(values.from, 'from', 0, song.duration) ?? 0;
  const to = numberOf(values.to, 'to', from, 1e6) ?? song.duration;
  const frame = frameFor(program);
  const writer = (kind === 'pcap' ? pcapWriter : csvWriter)(openSync(values.out, 'w'));
  const playing: LiveState = {
    ...AT_REST,
    // Started long before, so that nothing of its start is still fading.
    song: { id: song.id, playing: true, songTime: seconds(-60), at: seconds(-60), rate: 1, since: seconds(-60) },
  };
  const first = Math.ceil(from * FRAMES_PER_SECOND);
  for (let n = first; n / FRAMES_PER_SECOND < to; n++) {
    const at = seconds(n / FRAMES_PER_SECOND);
    render(program, playing, at, frame);
    for (const number of program.universes) writer.write(at, number, levelsOf(program, frame, number)!);
  }
  writer.close();
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
