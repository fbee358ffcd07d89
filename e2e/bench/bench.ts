// What the engine, the analysis and the output cost on this machine. npm run bench [-- --json]

import { createSocket } from 'node:dgram';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import type { z } from 'zod';
import { compile, frameFor, render } from '@hovlix/core/engine';
import { readBundle } from '@hovlix/core/files';
import { steady } from '@hovlix/core/light';
import { AT_REST, type LiveState } from '@hovlix/core/live';
import { analyse } from '@hovlix/core/music';
import { Show } from '@hovlix/core/show';
import { id, seconds } from '@hovlix/core/units';
import { startOutput } from '../../server/src/output/output';
import { now } from '../../server/src/clock';

type Line = { readonly what: string; readonly value: string; readonly target: string };
const lines: Line[] = [];
const note = (what: string, value: string, target = '') => lines.push({ what, value, target });
const root = new URL('../..', import.meta.url);

/** A show of so many universes: RGBW washes and 16-bit spots in four parts, six busy lanes. */
function bigShow(universes: number, fixtures: number): Show {
  const channels = (...attributes: string[]) => attributes.map((attribute, i) => ({ attribute, at: [i + 1] }));
  const perUniverse = Math.ceil(fixtures / universes);
  const white = { x: 0.3127, y: 0.329 };
  const blue = { x: 0.16, y: 0.08 };
  const input: z.input<typeof Show> = {
    format: 'hovlix-show',
    version: 1,
    id: 'bench',
    name: 'Bench',
    profiles: [
      {
        id: 'wash',
        maker: 'Bench',
        model: 'Wash',
        label: 'Wash',
        kind: 'wash',
        beamAngle: 30,
        modes: [
          { id: 'm', name: 'm', channels: channels('Dimmer', 'ColorAdd_R', 'ColorAdd_G', 'ColorAdd_B', 'ColorAdd_W') },
        ],
      },
      {
        id: 'spot',
        maker: 'Bench',
        model: 'Spot',
        label: 'Spot',
        kind: 'moving wash',
        beamAngle: 15,
        panRange: 540,
        tiltRange: 250,
        modes: [
          {
            id: 'm',
            name: 'm',
            channels: [
              { attribute: 'Pan', at: [1, 2] },
              { attribute: 'Tilt', at: [3, 4] },
              { attribute: 'Dimmer', at: [5, 6] },
              ...['ColorAdd_R', 'ColorAdd_G', 'ColorAdd_B', 'ColorAdd_W'].map((attribute, i) => ({
                attribute,
                at: [7 + i],
              })),
              { attribute: 'Zoom', at: [11] },
            ],
          },
        ],
      },
    ],
    rigs: [
      {
        id: 'rig',
        name: 'Rig',
        fixtures: Array.from({ length: fixtures }, (_, i) => ({
          id: `f${i}`,
          number: i + 1,
          name: `F${i}`,
          profile: i % 2 ? 'spot' : 'wash',
          mode: 'm',
          universe: 1 + Math.floor(i / perUniverse),
          address: 1 + (i % perUniverse) * 12,
          mount: { x: (i % 20) - 10, y: i % 7, z: 4 },
        })),
        casting: [0, 1, 2, 3].map((part) => ({
          part: `p${part}`,
          fixtures: Array.from({ length: fixtures }, (_, i) => i)
            .filter((i) => i % 4 === part)
            .map((i) => `f${i}`),
        })),
      },
    ],
    rig: 'rig',
    parts: [0, 1, 2, 3].map((part) => ({ id: `p${part}`, name: `P${part}`, tint: part })),
    aims: [{ id: 'aim', name: 'Aim', x: 0, y: 1, z: 1 }],
    looks: Array.from({ length: 12 }, (_, n) => ({
      id: `l${n}`,
      number: n + 1,
      name: `L${n}`,
      fadeIn: 4,
      fadeOut: 4,
      values: [0, 1, 2, 3].map((part) => ({
        part: `p${part}`,
        level: { type: 'spread' as const, values: [0.2, 0.9, 0.4 + n / 40] },
        colour: { type: 'spread' as const, values: n % 2 ? [white, blue] : [blue, { x: 0.4, y: 0.4 }] },
        ...(part % 2 ? { aim: { type: 'hold' as const, value: { aim: 'aim' } } } : {}),
      })),
    })),
    songs: [
      {
        id: 'song',
        title: 'Song',
        music: null,
        duration: 600,
        tempo: {
          anchors: [
            { beat: 0, time: 0 },
            { beat: 2, time: 1 },
          ],
        },
        meter: [{ bar: 0, numerator: 4, denominator: 4 }],
        sections: [],
        lanes: Array.from({ length: 6 }, (_, lane) => ({
          id: `lane${lane}`,
          name: `Lane ${lane}`,
          type: 'looks' as const,
          clips: Array.from({ length: 280 }, (_unused, k) => ({
            id: `${lane}-${k}`,
            look: `l${(k + lane) % 12}`,
            from: k * 4,
            to: k * 4 + 4,
          })),
        })),
      },
    ],
  };
  return Show.parse(input);
}

const at = (times: readonly number[], share: number) =>
  [...times].sort((a, b) => a - b)[Math.floor(times.length * share)]!;

function benchRender(universes: number, fixtures: number): void {
  const show = bigShow(universes, fixtures);
  const begun = performance.now();
  const program = compile(show);
  const compiled = performance.now() - begun;
  const frame = frameFor(program);
  const live: LiveState = {
    ...AT_REST,
    song: { id: id<'Song'>('song'), playing: true, songTime: seconds(0), at: seconds(0), rate: 1, since: seconds(-9) },
    standing: [{ look: id<'Look'>('l3'), on: true, ramp: steady(1) }],
  };
  for (let n = 0; n < 300; n++) render(program, live, seconds(n / 44), frame);
  const times: number[] = [];
  for (let n = 0; n < 1000; n++) {
    const from = performance.now();
    render(program, live, seconds(10 + n / 44), frame);
    times.push(performance.now() - from);
  }
  const before = process.memoryUsage().heapUsed;
  for (let n = 0; n < 2000; n++) render(program, live, seconds(40 + n / 44), frame);
  const perFrame = Math.max(0, process.memoryUsage().heapUsed - before) / 2000;
  const name = `${universes} universe${universes > 1 ? 's' : ''}, ${fixtures} fixtures, 6 lanes`;
  note(`render ${name}: median`, `${at(times, 0.5).toFixed(3)} ms`, universes === 64 ? '<= 2 ms' : '');
  note(`render ${name}: p99`, `${at(times, 0.99).toFixed(3)} ms`, universes === 64 ? '<= 5 ms' : '');
  note(`render ${name}: heap growth per frame`, `${perFrame.toFixed(0)} bytes`, '0');
  note(`compile ${name}`, `${compiled.toFixed(1)} ms`);
}

async function benchAnalysis(): Promise<void> {
  const bundle = readBundle(readFileSync(new URL('demo/boathouse.hovlix', root)), 'demo');
  if (!bundle.ok) throw new Error('the demo does not open');
  let [length, spent] = [0, 0];
  for (const song of bundle.value.show.songs) {
    const bytes = bundle.value.music.get(song.music!.hash)!.bytes;
    const from = performance.now();
    await analyse(bytes, song.title, async () => 'go-on');
    spent += (performance.now() - from) / 1000;
    length += song.duration;
  }
  note(
    'analysis (OGG decoded, beats, bars)',
    `${(length / spent).toFixed(0)} s of audio a second`,
    '>= 40 (4 minutes in 6 s)',
  );
}

/** Receives its own output on loopback for 20 s and measures the time between packets of one universe. */
async function benchOutput(universes: number, length: number): Promise<void> {
  const socket = createSocket('udp4');
  socket.on('message', (bytes) => {
    if (bytes.length < 600 || bytes.readUInt16BE(113) !== 1) return;
    arrivals.push(now());
    sequences.push(bytes[111]!);
  });
  const arrivals: number[] = [];
  const sequences: number[] = [];
  await new Promise<void>((resolve) => socket.bind(0, '127.0.0.1', resolve));
  socket.setRecvBufferSize(4 * 1024 * 1024);
  const output = startOutput(
    [{ protocol: 'sacn', host: '127.0.0.1', port: socket.address().port }],
    new Uint8Array(16),
  );
  await output.tell({ type: 'show', show: bigShow(universes, universes * 30) });
  const cpu = process.cpuUsage();
  await new Promise((resolve) => setTimeout(resolve, length * 1000));
  const used = process.cpuUsage(cpu);
  await output.tell({ type: 'stop' });
  socket.close();
  const steadyPart = arrivals.slice(10, -4);
  const off = steadyPart.slice(1).map((time, i) => Math.abs((time - steadyPart[i]!) * 1000 - 1000 / 44));
  const lost = sequences
    .slice(11, -4)
    .filter((sequence, i) => (sequence - sequences[i + 10]! + 256) % 256 !== 1).length;
  note(
    `output, ${universes} universes, ${length} s: spacing off 22.7 ms, p99`,
    `${at(off, 0.99).toFixed(2)} ms`,
    '<= 3 ms',
  );
  note(`output, ${universes} universes, ${length} s: worst`, `${Math.max(...off).toFixed(2)} ms`);
  note(`output, ${universes} universes, ${length} s: frames, lost`, `${arrivals.length}, ${lost}`, `${44 * length}, 0`);
  note(
    `output, ${universes} universes: sender and receiver together`,
    `${(((used.user + used.system) / 1e6 / length) * 100).toFixed(0)} % of a core`,
  );
}

/** Mean beat F-measure on pieces with exact truth, where they are at hand. */
async function benchTruth(): Promise<void> {
  const folder = new URL('../shared/audio/', root);
  if (!existsSync(folder)) return;
  const { fMeasure, trim } = await import(new URL('score.mjs', folder).href);
  const pieces = readdirSync(folder).filter((name) => name.endsWith('.json'));
  let sum = 0;
  for (const piece of pieces) {
    const truth = JSON.parse(readFileSync(new URL(piece, folder), 'utf8'));
    const found = await analyse(
      readFileSync(new URL(piece.replace('.json', '.ogg'), folder)),
      piece,
      async () => 'go-on',
    );
    if (found.ok) sum += fMeasure(trim(truth.beats), trim(found.value.beats), 0.07);
  }
  note(`beat F-measure, mean of ${pieces.length} pieces`, (sum / pieces.length).toFixed(3), '>= 0.85');
}

for (const [universes, fixtures] of [
  [1, 30],
  [8, 250],
  [64, 2000],
] as const)
  benchRender(universes, fixtures);
benchCompile500();
await benchOutput(8, 20);
await benchAnalysis();
await benchTruth();

function benchCompile500(): void {
  const show = bigShow(16, 500);
  compile(show);
  const from = performance.now();
  compile(show);
  note('compile a 500-fixture show after an edit', `${(performance.now() - from).toFixed(1)} ms`, '<= 50 ms');
}

if (process.argv.includes('--json')) console.log(JSON.stringify(lines, null, 2));
else {
  const width = Math.max(...lines.map((line) => line.what.length));
  const values = Math.max(...lines.map((line) => line.value.length));
  for (const line of lines) console.log(`${line.what.padEnd(width)}  ${line.value.padStart(values)}  ${line.target}`);
}
process.exit(0);
