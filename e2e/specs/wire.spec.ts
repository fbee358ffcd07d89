// What leaves this computer, judged by programs that are not ours: a packet dissector, and receivers in other networks.

import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, existsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Status } from '@hovlix/core/connect';
import { PROTOCOL } from '@hovlix/core/live';
import { decodeArtNet, encodeArtPoll } from '@hovlix/core/wire';
import { actElsewhere, nodeReport, open, restoreConnections } from './hovlix';
import { expect, test } from './screens';

const program = fileURLToPath(new URL('../../server/bin/hovlix.mjs', import.meta.url));
const demo = fileURLToPath(new URL('../../demo/boathouse.hovlix', import.meta.url));
const root = process.getuid?.() === 0;
const has = (command: string) => spawnSync('sh', ['-c', `command -v ${command}`]).status === 0;

test.describe('dissected', () => {
  test.skip(!has('tshark'), 'tshark is not installed here (apt-get install tshark)');
  test.skip(!root, 'capturing packets needs the rights of root here');
  test.afterEach(async ({ page }) => restoreConnections(page));

  test('sACN and Art-Net as an independent dissector reads them', async ({ page }) => {
    await open(page, '/connect');
    // A second output with a number, a priority and a protocol of its own.
    await page.getByRole('button', { name: 'Add output' }).click();
    const sheet = page.getByRole('dialog');
    await sheet.getByLabel('Hovlix universe').fill('1');
    await sheet.getByLabel('Number on the wire').fill('258');
    await sheet.getByLabel('Priority').fill('150');
    await sheet.getByRole('button', { name: 'Close' }).click();
    await page.getByRole('button', { name: 'Add output' }).click();
    await sheet.getByLabel('Hovlix universe').fill('1');
    await sheet.getByRole('button', { name: 'Art-Net' }).click();
    await sheet.getByRole('button', { name: 'One device' }).click();
    await sheet.getByLabel('Number on the wire').fill('291');
    await page.keyboard.press('Enter');
    await expect(sheet.getByText('Live', { exact: true })).toBeVisible();
    await actElsewhere({ type: 'hold-channels', channels: [{ universe: 1, address: 512, value: 77 }] });
    await expect.poll(async () => (await nodeReport(page)).levels[511]).toBe(77);
    await expect(page.getByTestId('health')).toHaveText(/3 outputs/);

    const file = join(mkdtempSync(join(tmpdir(), 'hovlix-capture-')), 'lo.pcapng');
    const filter = 'udp port 5568 or udp port 6454';
    // As many packets as some five seconds have, however long this machine takes for them.
    const captured = spawnSync('tshark', ['-i', 'lo', '-c', '660', '-a', 'duration:40', '-f', filter, '-w', file], {
      timeout: 60_000,
    });
    test.skip(captured.status !== 0 || !existsSync(file), 'this machine does not let packets be captured');
    const dissect = (shown: string, ...fields: string[]) =>
      execFileSync(
        'tshark',
        [
          '-r',
          file,
          '--enable-heuristic',
          'acn',
          '-o',
          'acn.dmx_enable:TRUE',
          '-Y',
          shown,
          '-T',
          'fields',
          ...fields.flatMap((field) => ['-e', field]),
        ],
        { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'], maxBuffer: 64 * 1024 * 1024 },
      )
        .trim()
        .split('\n')
        .map((line) => line.split('\t'));

    const sacn = dissect(
      'acn.dmx.universe',
      'acn.dmx.universe',
      'acn.dmx.priority',
      'acn.dmx.source_name',
      'acn.dmx.seq_number',
      'acn.dmx.start_code',
      'acn.dmx.count',
      'acn.cid',
    );
    for (const number of ['1', '258']) {
      const packets = sacn.filter(([universe]) => universe === number);
      expect(packets.length, `packets of universe ${number}`).toBeGreaterThan(100);
      expect(new Set(packets.map(([, priority]) => priority))).toEqual(new Set([number === '258' ? '150' : '100']));
      expect(new Set(packets.map(([, , name]) => name))).toEqual(new Set(['Hovlix']));
      for (let i = 1; i < packets.length; i++)
        expect((Number(packets[i]![3]) - Number(packets[i - 1]![3]) + 256) % 256).toBe(1);
    }
    expect(new Set(sacn.map((packet) => packet[6])).size).toBe(1);
    expect(dissect('artnet.output', 'artnet.output.universe', 'artnet.output.length')[0]).toEqual(['291', '512']);
    // Nodes were asked, and one answered.
    expect(dissect('artnet.poll_reply', 'artnet.poll_reply.short_name')[0]).toEqual(['Hovlix node']);
    // Nothing that the dissector calls malformed.
    expect(dissect('_ws.malformed', 'frame.number')).toEqual([['']]);
  });
});

test.describe('between computers', () => {
  const spaces = ['hovlix-a', 'hovlix-b'] as const;
  const ip = (...args: string[]) => spawnSync('ip', args, { encoding: 'utf8' });
  const clear = () => spaces.forEach((space) => ip('netns', 'del', space));
  const can = root && has('ip') && (clear(), ip('netns', 'add', spaces[0]).status === 0);
  test.skip(!can, 'this machine does not let us make networks of our own (ip netns)');
  test.afterAll(clear);
  test.beforeAll(() => {
    clear();
    for (const space of spaces) ip('netns', 'add', space);
    ip('link', 'add', 'stage0', 'netns', spaces[0], 'type', 'veth', 'peer', 'name', 'stage0', 'netns', spaces[1]);
    spaces.forEach((space, i) => {
      ip('-n', space, 'addr', 'add', `10.77.0.${i + 1}/24`, 'dev', 'stage0');
      for (const link of ['lo', 'stage0']) ip('-n', space, 'link', 'set', link, 'up');
      ip('-n', space, 'route', 'add', '224.0.0.0/4', 'dev', 'stage0');
    });
  });
  const inside = (space: string, ...args: string[]) =>
    spawn('ip', ['netns', 'exec', space, process.execPath, program, ...args], {
      stdio: ['ignore', 'pipe', 'inherit'],
      env: { ...process.env, HOVLIX_HOME: mkdtempSync(join(tmpdir(), 'hovlix-net-')) },
    });
  type Heard = {
    universes: {
      universe: number;
      source: string;
      priority: number;
      packets: number;
      lost: number;
      framesPerSecond: number;
      levels: number[];
    }[];
  };

  test('multicast reaches another computer, a pulled network comes back by itself, and a goodbye lets go at once', async () => {
    const node = inside(spaces[1], 'node', '--at', '10.77.0.2', '--join', '1');
    let heard: Heard = { universes: [] };
    node.stdout.on('data', (text: Buffer) => {
      const line = text.toString().trim().split('\n').at(-1)!;
      if (line.startsWith('{')) heard = JSON.parse(line);
    });
    const play = inside(
      spaces[0],
      'play',
      demo,
      '--song',
      'Paper Lighthouse',
      '--to',
      'sacn:multicast',
      '--from',
      '30',
    );
    const universe = () => heard.universes[0];
    // Counted, not timed: how steady it is is the bench's business.
    const arrives = () => expect.poll(() => universe()?.packets ?? 0, { timeout: 20_000 }).toBeGreaterThan(20);
    await arrives();
    expect(universe()).toMatchObject({ universe: 1, source: 'Hovlix', priority: 100 });
    expect(Math.max(...universe()!.levels)).toBeGreaterThan(100);

    // The cable out and in again.
    ip('-n', spaces[1], 'link', 'set', 'stage0', 'down');
    await expect.poll(() => heard.universes.length, { timeout: 20_000 }).toBe(0);
    ip('-n', spaces[1], 'link', 'set', 'stage0', 'up');
    await arrives();
    play.kill('SIGINT');
    // Goodbye: the receiver lets go at once instead of holding the last light.
    await expect.poll(() => heard.universes.length, { timeout: 5_000 }).toBe(0);
    node.kill();
  });

  test('two senders on one universe: one hears the other and says who is in the way; a desk that asks is told what comes in', async () => {
    const serve = inside(spaces[0], 'serve', '--port', '4800', '--to', 'sacn:multicast');
    await new Promise((resolve) => serve.stdout.once('data', resolve));
    const other = inside(spaces[1], 'play', demo, '--song', 'Salt and Signal', '--to', 'sacn:multicast');
    const status = () => {
      const asked = spawnSync(
        'ip',
        [
          'netns',
          'exec',
          spaces[0],
          process.execPath,
          '-e',
          'fetch("http://localhost:4800/api/status").then((r) => r.text()).then(console.log)',
        ],
        { encoding: 'utf8' },
      );
      return JSON.parse(asked.stdout || '{}') as Status;
    };
    // A server without a show sends nothing yet; one output makes the universe its own.
    const edit = `const s = new (require(${JSON.stringify(fileURLToPath(new URL('../../node_modules/ws', import.meta.url)))}))("ws://localhost:4800/conductor");
      s.on("open", () => s.send(JSON.stringify({ type: "hello", protocol: ${PROTOCOL}, screen: "t", show: null })));
      s.on("message", (d) => { const m = JSON.parse(d); if (m.type !== "connections") return;
        if (m.connections.outputs.length) process.exit(0);
        const way = { protocol: "sacn", to: "multicast", network: null, number: 1, priority: 90 };
        const row = { id: "o", universe: 1, on: true, delayMs: 0, way };
        const input = { id: "i", universe: 1, on: true, protocol: "sacn", number: 1, merge: "highest" };
        const artOut = { id: "ao", universe: 3, on: true, delayMs: 0, way: { protocol: "artnet", to: "broadcast", network: null, number: 7 } };
        const artIn = { id: "ai", universe: 2, on: true, protocol: "artnet", number: 0x25, merge: "highest" };
        const ops = [["outputs", [row, artOut]], ["inputs", [input, artIn]]].map(([key, to]) => ({ op: "set", path: [key], from: m.connections[key], to }));
        s.send(JSON.stringify({ type: "connections-edit", command: { type: "adjust", ops } })); });`;
    execFileSync('ip', ['netns', 'exec', spaces[0], process.execPath, '-e', edit], { timeout: 20_000 });
    await expect
      .poll(() => status().input?.clashes ?? [], { timeout: 25_000 })
      .toMatchObject([{ name: 'Hovlix', address: '10.77.0.2', universes: [1], twin: false }]);
    expect(status().input!.rows[0]!.sources).toMatchObject([{ name: 'Hovlix', priority: 100, wins: true }]);
    // A desk on the other computer asks who is there: it is told what comes in here, and what leaves.
    const poll = Buffer.from(encodeArtPoll()).toString('hex');
    const asks = `const s = require("dgram").createSocket("udp4");
      s.on("message", (reply) => console.log(reply.toString("hex")));
      s.bind(0, () => { s.setBroadcast(true); s.send(Buffer.from("${poll}", "hex"), 6454, "10.77.0.255"); });
      setTimeout(() => process.exit(0), 2000);`;
    const told = spawnSync('ip', ['netns', 'exec', spaces[1], process.execPath, '-e', asks], { encoding: 'utf8' });
    const replies = told.stdout
      .trim()
      .split('\n')
      .map((hex) => decodeArtNet(Buffer.from(hex, 'hex')));
    expect(replies).toMatchObject([
      {
        kind: 'poll-reply',
        reply: { ip: [10, 77, 0, 1], shortName: 'Hovlix', outputs: [0x25], inputs: [], role: 'node' },
      },
      { kind: 'poll-reply', reply: { outputs: [], inputs: [7], role: 'controller' } },
    ]);
    serve.kill('SIGINT');
    other.kill('SIGINT');
  });
});
