// Light that nothing stops: killed, out of disk, or started again, it goes on. The built command, as it runs at a gig.

import { spawnSync, type ChildProcess } from 'node:child_process';
import { createSocket, type Socket } from 'node:dgram';
import { existsSync, mkdtempSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Packet } from 'sacn';
import { WebSocket } from 'ws';
import type { Status } from '@hovlix/core/connect';
import { PROTOCOL, readLog, type LiveState } from '@hovlix/core/live';
import { isOutOfOrder, SACN_LOST_AFTER } from '@hovlix/core/wire';
import { started } from '../testing/children';

const mounts: string[] = [];
afterEach(() => {
  for (const folder of mounts.splice(0)) spawnSync('umount', ['-l', folder]);
});
const freshFolder = () => mkdtempSync(join(tmpdir(), 'hovlix-night-'));
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
async function until(done: () => boolean | Promise<boolean>, ms = 60_000): Promise<void> {
  for (const begun = Date.now(); !(await done()); await pause(20))
    if (Date.now() - begun > ms) throw new Error(`not within ${ms} ms: ${done}`);
}

type Heard = { readonly at: number; readonly sequence: number; readonly front: number };
/** A receiver of sACN universe 1: when each packet came, and the dimmer of the first front lamp. */
async function receiver(): Promise<{ port: number; heard: Heard[]; socket: Socket }> {
  const socket = createSocket('udp4');
  const heard: Heard[] = [];
  socket.on('message', (bytes) => {
    try {
      const packet = new Packet(bytes);
      if (packet.universe === 1) heard.push({ at: performance.now(), sequence: packet.sequence, front: bytes[126]! });
    } catch {
      // Synchronization and discovery.
    }
  });
  await new Promise<void>((resolve) => socket.bind(0, '127.0.0.1', resolve));
  return { port: (socket.address() as AddressInfo).port, heard, socket };
}

/** A port that nobody listens on: one that is started again has to find its own. */
const freePort = () =>
  new Promise<number>((resolve) => {
    const one = createServer();
    one.listen(0, '127.0.0.1', () => {
      const { port } = one.address() as AddressInfo;
      one.close(() => resolve(port));
    });
  });

async function serve(home: string, port: number, ...more: string[]) {
  const way = { protocol: 'sacn', to: '127.0.0.1', network: null, number: 1, priority: 100, port };
  const connections = join(home, 'connect-demo.json');
  if (!existsSync(connections))
    writeFileSync(
      connections,
      JSON.stringify({
        format: 'hovlix-connections',
        version: 1,
        sourceName: 'T',
        sync: false,
        outputs: [{ id: 'universe-1-0', universe: 1, on: true, delayMs: 0, way }],
        inputs: [],
        seen: [1],
      }),
    );
  const args = ['serve', '--demo', '--port', String(await freePort()), '--home', home, ...more];
  const child = started(args, { HOVLIX_LOG: 'silent' });
  const address = await new Promise<string>((resolve, reject) => {
    child.stdout.on('data', (part) => resolve(/localhost:\d+/.exec(String(part))![0]));
    child.once('exit', (code) => reject(new Error(`it ended with ${code}`)));
  });
  return { child, address };
}

/** The process that serves, below its guard. */
const servingPid = ({ pid }: ChildProcess): number | undefined => {
  // The oldest: a younger one is in reserve.
  const found = spawnSync('pgrep', ['-o', '-P', String(pid)], { encoding: 'utf8' }).stdout.trim();
  return found === '' ? undefined : Number(found);
};

/** A screen that comes back by itself whenever the line breaks. */
function screen(address: string, name: string) {
  let state: LiveState | undefined;
  let socket: WebSocket;
  let over = false;
  let welcomes = 0;
  const refusals: string[] = [];
  const connect = () => {
    socket = new WebSocket(`ws://${address}/conductor`);
    socket.on('open', () =>
      socket.send(JSON.stringify({ type: 'hello', protocol: PROTOCOL, screen: name, show: null })),
    );
    socket.on('message', (data) => {
      const message = JSON.parse(String(data));
      if (message.type === 'refused') refusals.push(message.why);
      if (message.type !== 'welcome') return;
      state = message.state;
      welcomes++;
    });
    socket.on('error', () => undefined);
    socket.on('close', () => over || setTimeout(connect, 50));
  };
  connect();
  return {
    welcomes: () => welcomes,
    state: () => state!,
    act: (action: object) => socket.send(JSON.stringify({ type: 'act', action })),
    close() {
      over = true;
      socket.close();
      expect(refusals).toEqual([]);
    },
  };
}
/** What a state says, without what moves by itself. */
const settled = ({ song, standing, master, blackout, sending, tempo, hands }: LiveState) => ({
  song: song && {
    id: song.id,
    playing: song.playing,
    sound: song.sound,
    began: Math.round((song.songTime - song.at) * 1000),
  },
  standing: standing.map(({ look, on }) => [look, on]),
  hands: hands.map(({ value }) => value),
  master: master.to,
  blackout: blackout.on,
  sending,
  bpm: tempo.bpm,
});

/** Threads of a process that go before all that is not in real time: SCHED_RR is policy 2 (sched(7); proc(5): stat, 41). */
const inRealTime = (pid: number): readonly string[] =>
  readdirSync(`/proc/${pid}/task`).filter((thread) => {
    const stat = readFileSync(`/proc/${pid}/task/${thread}/stat`, 'utf8');
    return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[38] === '2';
  });

test('of the server one thread goes before everything else, where this user may: the one that sends', async () => {
  const allowed = spawnSync('chrt', ['--rr', '--reset-on-fork', '5', 'true']).status === 0;
  const { port, socket } = await receiver();
  const { child, address } = await serve(freshFolder(), port);
  const output = async () => ((await (await fetch(`http://${address}/api/status`)).json()) as Status).output;
  await until(async () => (await output())?.realTime === allowed);
  const server = servingPid(child)!;
  expect(inRealTime(server)).toHaveLength(allowed ? 1 : 0);
  // Node.js begins as the thread that has the number of its process.
  expect(inRealTime(server)).not.toContain(String(server));
  socket.close();
});

test('killed again and again while a song plays, it is back by itself with the night as it was', async () => {
  const home = freshFolder();
  const log = join(home, 'evening.log');
  const { port, heard, socket } = await receiver();
  const { child, address } = await serve(home, port, '--log', log);
  const one = screen(address, 'stage');
  await until(() => one.welcomes() === 1);
  for (const action of [
    { type: 'play', song: 'night-ferry', from: 10, sound: 'stage' },
    { type: 'look-on', look: 'full-sail', fade: 0 },
    { type: 'hand', values: [{ role: 'back', level: { type: 'hold', value: 0.5 } }] },
    { type: 'master', level: 0.8 },
    { type: 'tap' },
  ])
    one.act(action);
  await pause(700);
  const gaps: number[] = [];
  let before: object | undefined;
  for (let n = 1; n <= 4; n++) {
    process.kill(servingPid(child)!, 'SIGKILL');
    const killed = performance.now();
    await until(() => one.welcomes() === n + 1 && heard.at(-1)!.at > killed + 500);
    const place = heard.findIndex(({ at }, i) => at > killed && at - heard[i - 1]!.at > 100);
    const [last, first] = [heard[place - 1]!, heard[place]!];
    gaps.push(first.at - killed);
    // A node takes it for what is new, unless it has given us up by then and begins anew.
    const lost = first.at - last.at > SACN_LOST_AFTER * 1000;
    expect(lost || !isOutOfOrder(first.sequence, last.sequence)).toBe(true);
    const now = settled(one.state());
    before ??= now;
    expect(now).toEqual(before);
    expect(now).toMatchObject({ song: { id: 'night-ferry', playing: true, sound: 'stage' }, master: 0.8 });
    expect(settled(one.state()).standing).toEqual([['full-sail', true]]);
    expect(settled(one.state()).hands).toMatchObject([{ role: 'back', level: { value: 0.5 } }]);
    // Half of the deaths come before the next process in reserve is ready.
    await pause(n % 2 === 0 ? 6000 : 1200);
  }
  // Two seconds are the aim, as `npm run bench` measures it; here only that it comes back by itself.
  expect(Math.max(...gaps)).toBeLessThan(15_000);
  // What was pressed between two deaths is in the log, without a gap.
  one.act({ type: 'blackout', on: true, fade: 0 });
  await pause(300);
  one.close();
  child.kill('SIGTERM');
  await new Promise((resolve) => child.once('exit', resolve));
  const read = readLog(readFileSync(log, 'utf8'), 'evening.log');
  if (!read.ok) throw new Error(JSON.stringify(read.problem));
  expect(read.value.entries.at(-1)!.action).toEqual({ type: 'blackout', on: true, fade: 0 });
  expect(statSync(log).mode & 0o077).toBe(0);
  // Asked to end, it says goodbye and stays away.
  const after = heard.length;
  await pause(500);
  expect(heard.length).toBe(after);
  socket.close();
}, 120_000);

test('its guard is killed, then the server: another guard brings it back, and asked to end all of them do', async () => {
  const home = freshFolder();
  const { port, heard, socket } = await receiver();
  const { child, address } = await serve(home, port);
  const one = screen(address, 'stage');
  await until(() => one.welcomes() === 1);
  one.act({ type: 'master', level: 0.6 });
  const server = servingPid(child)!;
  child.kill('SIGKILL');
  // It goes on by itself, and has another guard below it.
  const below = (pid: number) =>
    spawnSync('pgrep', ['-o', '-P', String(pid), '-f', 'serve --demo'], { encoding: 'utf8' }).stdout.trim();
  await until(() => below(server) !== '');
  const guard = Number(below(server));
  await pause(1000);
  expect(one.welcomes()).toBe(1);
  expect(heard.at(-1)!.at).toBeGreaterThan(performance.now() - 300);
  process.kill(server, 'SIGKILL');
  await until(() => one.welcomes() === 2);
  expect(one.state().master.to).toBe(0.6);
  process.kill(guard, 'SIGTERM');
  await until(() => spawnSync('pgrep', ['-f', home]).status !== 0);
  const after = heard.length;
  await pause(500);
  expect(heard.length).toBe(after);
  one.close();
  socket.close();
});

test('stopped and started again the next song begins where the night was left', async () => {
  const home = freshFolder();
  const { port, socket } = await receiver();
  const first = await serve(home, port);
  const one = screen(first.address, 'stage');
  await until(() => one.welcomes() === 1);
  one.act({ type: 'blackout', on: true, fade: 0 });
  one.act({ type: 'master', level: 0.3 });
  one.act({ type: 'hold-channels', channels: [{ universe: 1, address: 9, value: 77 }], check: true });
  await pause(100);
  one.close();
  first.child.kill('SIGHUP');
  await new Promise((resolve) => first.child.once('exit', resolve));
  const second = await serve(home, port);
  const two = screen(second.address, 'another');
  await until(() => two.welcomes() === 1);
  expect(settled(two.state())).toMatchObject({ blackout: true, master: 0.3 });
  two.close();
  // The screen that held a channel does not come back: it is let go.
  const later = screen(second.address, 'later');
  await pause(7500);
  later.close();
  const last = screen(second.address, 'last');
  await until(() => last.welcomes() === 1);
  expect(last.state().held).toEqual([]);
  last.close();
  socket.close();
});

const canMount =
  spawnSync('sh', ['-c', 'd=$(mktemp -d) && mount -t tmpfs -o size=64k tmpfs $d && umount $d']).status === 0;
(canMount ? test : test.skip)(
  'a full disk under home and log stops neither presses nor light, and is said',
  async () => {
    const home = freshFolder();
    spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=4m', 'tmpfs', home]);
    mounts.push(home);
    const { port, heard, socket } = await receiver();
    const log = join(home, 'evening.log');
    const { address, child } = await serve(home, port, '--log', log);
    const one = screen(address, 'stage');
    await until(() => one.welcomes() === 1);
    one.act({ type: 'look-on', look: 'full-sail', fade: 0 });
    await until(() => (heard.at(-1)?.front ?? 0) > 50);
    spawnSync('sh', ['-c', `dd if=/dev/zero of=${join(home, 'full')} bs=1k 2>/dev/null`]);
    const troubles = async () =>
      ((await (await fetch(`http://${address}/api/status`)).json()) as { troubles: string[] }).troubles;
    for (let i = 0; i < 300; i++) {
      one.act({ type: 'master', level: (i % 10) / 10 });
      if (i % 50 === 49) await pause(300);
    }
    await until(async () => (await troubles()).length >= 2);
    expect((await troubles()).join(' ')).toMatch(/The log is not written: the disk is full/);
    expect((await troubles()).join(' ')).toMatch(/What is on is not kept: the disk is full/);
    one.act({ type: 'master', level: 1 });
    const from = heard.length;
    await until(() => heard.length > from + 20);
    expect(heard.at(-1)!.front).toBeGreaterThan(50);
    expect(child.exitCode).toBeNull();
    // Room again: the log goes on in a new piece that begins with what was on.
    spawnSync('rm', [join(home, 'full')]);
    await pause(5200);
    one.act({ type: 'master', level: 0.5 });
    one.act({ type: 'master', level: 0.6 });
    await until(async () => !(await troubles()).join().includes('The log'));
    await pause(200);
    const read = readLog(readFileSync(log, 'utf8'), 'evening.log');
    expect(read.ok && read.value.begin.standing.map(({ look }) => look)).toEqual(['full-sail']);
    expect(readdirSync(home)).toContain('evening.log.1');
    one.close();
    socket.close();
  },
  90_000,
);
