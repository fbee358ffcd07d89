// What the engine, the analysis and the output cost on this machine. npm run bench [-- --json --only-output --only-rig --minutes=10]

import { fork } from 'node:child_process';
import { createSocket } from 'node:dgram';
import { Session } from 'node:inspector';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { compile, frameFor, limiter, render } from '@hovlix/core/engine';
import { readBundle } from '@hovlix/core/files';
import { steady } from '@hovlix/core/light';
import { AT_REST, type LiveState } from '@hovlix/core/live';
import { analyse } from '@hovlix/core/analysis';
import { id, seconds } from '@hovlix/core/units';
import { now } from '../../server/src/clock';
import { benchLeadSheet, benchLongSong } from './long-song';
import { bigShow, type Load } from './big-show';
import { benchEdits } from './edits';
import { firstLoad } from './first-load';
import { floods } from './floods';
import { gapsAfterDeath } from './killed';
import { benchLibrary } from './library';
import { pressed } from './presses';
import { storms, type Storm } from './storm';
import { dragOnPlan, patchHundred } from './rig';

type Line = { readonly what: string; readonly value: string; readonly target: string };
const lines: Line[] = [];
const note = (what: string, value: string, target = '') => lines.push({ what, value, target });
const root = new URL('../..', import.meta.url);

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
  const safe = limiter();
  // A frame as it leaves: rendered, and held by flash safety where it has to be.
  const make = (at: number, state = live) => {
    render(program, state, seconds(at), frame);
    safe.hold(program, frame, at);
  };
  for (let n = 0; n < 300; n++) make(n / 44);
  const times: number[] = [];
  for (let n = 0; n < 1000; n++) {
    const from = performance.now();
    make(10 + n / 44);
    times.push(performance.now() - from);
  }
  const perFrame = putOnHeap(1000, (n) => make(40 + n / 44));
  const name = `${universes} universe${universes > 1 ? 's' : ''}, ${fixtures} fixtures, 40 waves, 6 lanes`;
  note(`render ${name}: median`, `${at(times, 0.5).toFixed(3)} ms`, universes === 64 ? '<= 2 ms' : '');
  note(`render ${name}: p99`, `${at(times, 0.99).toFixed(3)} ms`, universes === 64 ? '<= 5 ms' : '');
  note(`render ${name}: put on the heap per frame`, `${perFrame.toFixed(0)} bytes`, '0');
  note(`compile ${name}`, `${compiled.toFixed(1)} ms`);
  if (universes !== 64) return;
  // Half-way from light that was frozen to that of now: both are laid.
  const halfWay: LiveState = { ...live, frozen: { lit: live, at: seconds(70), ramp: steady(0.5) } };
  for (let n = 0; n < 300; n++) make(80 + n / 44, halfWay);
  const mixed = Array.from({ length: 500 }, (_, n) => {
    const from = performance.now();
    make(90 + n / 44, halfWay);
    return performance.now() - from;
  });
  note('the same while one light gives way to another: median', `${at(mixed, 0.5).toFixed(3)} ms`, '<= 4 ms');
  note('and put on the heap per frame', `${putOnHeap(500, (n) => make(110 + n / 44, halfWay)).toFixed(0)} bytes`, '0');
}

/** What a step puts on the heap, in bytes, all of it: what was collected since counts too. */
function putOnHeap(steps: number, step: (n: number) => void): number {
  const session = new Session();
  session.connect();
  const collected = { includeObjectsCollectedByMajorGC: true, includeObjectsCollectedByMinorGC: true };
  session.post('HeapProfiler.startSampling', { samplingInterval: 256, ...collected });
  for (let n = 0; n < steps; n++) step(n);
  let bytes = 0;
  type Node = {
    readonly selfSize: number;
    readonly callFrame: { readonly functionName: string };
    readonly children: readonly Node[];
  };
  const add = ({ selfSize, callFrame, children }: Node): void => {
    // Asking costs something too.
    if (callFrame.functionName !== 'post') bytes += selfSize;
    children.forEach(add);
  };
  session.post('HeapProfiler.stopSampling', (_error, { profile }) => add(profile.head));
  session.disconnect();
  return bytes / steps;
}

/** Median of a frame, in milliseconds. */
function frameCost(universes: number, fixtures: number, load: Load): number {
  const program = compile(bigShow(universes, fixtures, load));
  const frame = frameFor(program);
  const song = {
    id: id<'Song'>('song'),
    playing: true,
    songTime: seconds(0),
    at: seconds(0),
    rate: 1,
    since: seconds(-9),
  };
  const live: LiveState = { ...AT_REST, song };
  const times: number[] = [];
  for (let n = 0; n < 400; n++) {
    const from = performance.now();
    render(program, live, seconds(10 + n / 44), frame);
    if (n >= 100) times.push(performance.now() - from);
  }
  return at(times, 0.5);
}

/** How the cost of a frame grows with each thing by itself: it must be a straight line. */
function benchCurves(): void {
  const curve = (what: string, sizes: readonly number[], cost: (size: number) => number) =>
    note(
      `frame, median, with ${sizes.join(' / ')} ${what}`,
      `${sizes.map((size) => cost(size).toFixed(2)).join(' / ')} ms`,
      'linear',
    );
  curve('fixtures', [250, 500, 1000, 2000], (size) => frameCost(64, size, { waves: 40, lanes: 6 }));
  curve('universes', [16, 32, 64], (size) => frameCost(size, 500, { waves: 40, lanes: 6 }));
  curve('waves', [0, 12, 24, 48], (size) => frameCost(16, 500, { waves: size, lanes: 6 }));
  curve('lanes', [1, 2, 4, 8], (size) => frameCost(16, 500, { waves: 40, lanes: size }));
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

/** Processor time that the host of this virtual machine kept for others (Linux, proc(5): steal); 0 where unknown. */
function stolenSeconds(): number {
  try {
    return Number(readFileSync('/proc/stat', 'utf8').split('\n')[0]!.trim().split(/\s+/)[8] ?? 0) / 100;
  } catch {
    return 0;
  }
}

type Sent = { readonly cpuSeconds: number; readonly memoryMb: readonly number[] };

/** Receives on loopback what a sender in a process of its own sends, and measures the time between packets. */
async function benchOutput(
  universes: number,
  length: number,
  bounds: { spacing: string; cpu: string },
  drag = false,
): Promise<void> {
  const socket = createSocket('udp4');
  const arrivals: number[] = [];
  const last = new Map<number, number>();
  let lost = 0;
  socket.on('message', (bytes) => {
    if (bytes.length < 600) return;
    const universe = bytes.readUInt16BE(113);
    const before = last.get(universe);
    // Counted for every universe; the goodbyes at the end are not frames.
    if (before !== undefined && (bytes[112]! & 0x40) === 0) lost += (bytes[111]! - before + 255) & 255;
    last.set(universe, bytes[111]!);
    if (universe === 1) arrivals.push(now());
  });
  // A shared machine's host takes processor time away at will; seconds in which it did are told apart from the others.
  const taken: { readonly at: number; readonly stolen: number }[] = [];
  const looking = setInterval(() => taken.push({ at: now(), stolen: stolenSeconds() }), 1000);
  await new Promise<void>((resolve) => socket.bind(0, '127.0.0.1', resolve));
  socket.setRecvBufferSize(8 * 1024 * 1024);
  const args = [String(socket.address().port), String(universes), String(length), drag ? 'drag' : 'still'];
  const sender = fork(new URL('sender.ts', import.meta.url), args, { execArgv: ['--import', 'tsx'] });
  const sent = await new Promise<Sent>((resolve, reject) => {
    sender.once('message', (message) => resolve(message as Sent));
    sender.once('exit', (code) => reject(new Error(`the sender ended with ${code}`)));
  });
  clearInterval(looking);
  socket.close();
  const steadyRole = arrivals.slice(10, -4);
  const gaps = steadyRole
    .slice(1)
    .map((time, i) => ({ time, off: Math.abs((time - steadyRole[i]!) * 1000 - 1000 / 44) }));
  const off = gaps.map((gap) => gap.off);
  const robbed = taken.flatMap(({ at: time, stolen }, i) => (i > 0 && stolen > taken[i - 1]!.stolen ? [time] : []));
  // A robbed second spoils the one after it too: a frame that was late then shortens the next gap.
  const quiet = gaps
    .filter(({ time }) => !robbed.some((end) => time > end - 1.1 && time < end + 1.1))
    .map((gap) => gap.off);
  const name = `output, ${universes} universes${drag ? ', a fader dragged' : ''}, ${length} s`;
  note(`${name}: spacing off 22.7 ms, p99`, `${at(off, 0.99).toFixed(2)} ms`, bounds.spacing);
  note(
    `${name}: the same, in the ${Math.round(quiet.length / 44)} s in which the host took no time away`,
    quiet.length > 100 ? `${at(quiet, 0.99).toFixed(2)} ms` : '-',
    bounds.spacing,
  );
  note(`${name}: seconds in which the host took time away`, `${robbed.length}`);
  const late = quiet.filter((one) => one > 3).length;
  note(`${name}: frames later than 3 ms in those seconds`, `${late} of ${quiet.length}`, drag ? '0' : '');
  note(`${name}: worst`, `${off.reduce((most, one) => Math.max(most, one), 0).toFixed(2)} ms`);
  note(`${name}: frames; packets lost of all universes`, `${arrivals.length}; ${lost}`, `${44 * length}; 0`);
  note(`${name}: sender`, `${((sent.cpuSeconds / length) * 100).toFixed(1)} % of a core`, bounds.cpu);
  const memory = sent.memoryMb;
  note(
    `${name}: memory after a tenth, and at the end`,
    `${memory[0]!.toFixed(0)} MB, ${memory.at(-1)!.toFixed(0)} MB`,
    'flat',
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

const onlyOutput = process.argv.includes('--only-output');
const onlyEngine = process.argv.includes('--only-engine');
const onlyRig = process.argv.includes('--only-rig');
const onlyStorms = process.argv.includes('--only-storms');
if (onlyStorms) await benchStorms();
if (onlyStorms) tell();
if (process.argv.includes('--only-load') || !(onlyOutput || onlyEngine || onlyRig)) {
  await benchFirstLoad();
  await benchLibrary(note);
}
if (process.argv.includes('--only-load')) tell();
if (!onlyOutput && !onlyEngine) {
  note('patch 100 lamps in a rig of 500', `${patchHundred().toFixed(1)} ms`, '<= 100 ms');
  const { framesPerSecond, slowest } = await dragOnPlan();
  note('drag on the plan, 500 lamps, phone, CPU slowed 4x', `${framesPerSecond.toFixed(0)} frames/s`, '>= 50');
  note('drag on the plan: slowest frame', `${slowest.toFixed(0)} ms`);
  await benchLeadSheet(note);
}
if (!onlyOutput && !onlyRig) {
  for (const [universes, fixtures] of [
    [1, 30],
    [8, 250],
    [64, 2000],
  ] as const)
    benchRender(universes, fixtures);
  benchCompile500();
  benchEdits(note);
  benchLongSong(note);
  benchCurves();
}
if (!(onlyRig || onlyEngine || onlyOutput)) await benchStorms();
if (!onlyRig && !onlyEngine)
  for (const { what, times } of await pressed(100))
    note(
      `${what} to changed packet: median, p99, of ${times.length}`,
      `${at(times, 0.5).toFixed(1)}, ${at(times, 0.99).toFixed(1)} ms`,
      '<= 25 ms',
    );
const minutes = Number(process.argv.find((one) => one.startsWith('--minutes='))?.slice(10) ?? 0);
if (!onlyRig && !onlyEngine)
  await benchOutput(8, minutes > 0 ? minutes * 60 : 20, { spacing: '<= 3 ms', cpu: '<= 15 %' });
if (!onlyRig && !onlyEngine) {
  const gaps = await gapsAfterDeath(20);
  note(
    'killed 20 times: no light, median and longest',
    `${gaps[10]!.toFixed(2)} s, ${gaps[19]!.toFixed(2)} s`,
    '<= 2 s',
  );
  for (const { name, perSecond, longest } of await floods(stolenSeconds))
    note(
      `a device floods with ${name}: frames a second, longest gap`,
      `${perSecond.toFixed(1)}, ${longest.toFixed(0)} ms`,
      '44 +-1, <= 60 ms',
    );
}
if (!onlyRig && !onlyEngine) await benchOutput(16, 30, { spacing: '<= 3 ms', cpu: '' }, true);
if (!onlyRig && !onlyEngine) await benchOutput(64, 20, { spacing: '', cpu: '<= 60 %' });
if (!onlyOutput && !onlyRig && !onlyEngine) {
  await benchAnalysis();
  await benchTruth();
}

/** Packets a second; the longest gap, and how far 99 of 100 were at most from their time: a press brings its own forward. */
function spacingOf({ perSecond, spacing, robbed }: Storm): string {
  const off = spacing.map((gap) => Math.abs(gap - 1000 / 44)).sort((a, b) => a - b);
  const left = robbed > 0 ? ` (${robbed} left out: the host took time away)` : '';
  return `${perSecond.toFixed(1)}; ${spacing.at(-1)!.toFixed(0)}, ${at(off, 0.99).toFixed(1)} ms${left}`;
}

async function benchStorms(): Promise<void> {
  const { midi, last, stuck, banks } = await storms(onlyStorms ? 60 : 20, stolenSeconds);
  note(
    '1,000 MIDI messages a second: packets a second; longest gap, off 22.7 ms at p99',
    spacingOf(midi),
    '44 +-1; <= 60 ms',
  );
  note('the same: the last value of the knob; pads that stayed on', `${Math.round(last * 127)}; ${stuck}`, '64; 0');
  note(
    'the same: frames of the page; slowest of 99 in 100',
    `${midi.pageFrames.toFixed(0)}/s, ${at(midi.frames, 0.99).toFixed(0)} ms`,
  );
  note(
    '10 banks of 20 looks, turned 4 times a second: packets a second; longest gap, off at p99',
    spacingOf(banks),
    '44 +-1; <= 60 ms',
  );
  note(
    'the same: frames of the page; slowest of 99 in 100',
    `${banks.pageFrames.toFixed(0)}/s, ${at(banks.frames, 0.99).toFixed(0)} ms`,
  );
}

async function benchFirstLoad(): Promise<void> {
  const { first, second, third, script, largest } = await firstLoad();
  const phone = 'phone, CPU slowed 4x, 10 Mbit/s';
  note(
    `usable, first visit, ${phone}: first paint, list of songs`,
    `${(first.painted / 1000).toFixed(1)}, ${(first.usable / 1000).toFixed(1)} s`,
    '<= 2.5 s',
  );
  note(
    `usable, second visit, ${phone}: first paint, list of songs`,
    `${(second.painted / 1000).toFixed(1)}, ${(second.usable / 1000).toFixed(1)} s`,
    '<= 1 s',
  );
  note(
    `usable, third visit, ${phone}: first paint, list of songs`,
    `${(third.painted / 1000).toFixed(1)}, ${(third.usable / 1000).toFixed(1)} s`,
    '<= 1 s',
  );
  note('script of the first place over the wire', `${script.toFixed(0)} kB`, '<= 350 kB');
  note('the largest of it', largest.join(', '));
}

function benchCompile500(): void {
  const show = bigShow(16, 500);
  compile(show);
  const from = performance.now();
  compile(show);
  note('compile a 500-fixture show after an edit', `${(performance.now() - from).toFixed(1)} ms`, '<= 50 ms');
}

tell();

/** Prints all lines and ends. */
function tell(): never {
  if (process.argv.includes('--json')) console.log(JSON.stringify(lines, null, 2));
  else {
    const width = Math.max(...lines.map((line) => line.what.length));
    const values = Math.max(...lines.map((line) => line.value.length));
    for (const line of lines) console.log(`${line.what.padEnd(width)}  ${line.value.padStart(values)}  ${line.target}`);
  }
  process.exit(0);
}
