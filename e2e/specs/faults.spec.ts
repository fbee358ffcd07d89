import { spawnSync } from 'node:child_process';
import { createSocket } from 'node:dgram';
import { fileURLToPath } from 'node:url';
import { encodeArtDmx, encodeArtPollReply, encodeSacn, encodeSacnDiscovery } from '@hovlix/core/wire';
import { universe } from '@hovlix/core/units';
import { nodeReport, open, restoreConnections, statusOf } from './hovlix';
import { newScreen, startServer, stopServers } from './servers';
import { expect, test } from './screens';

test('100,000 mutated packets at both inputs: nothing falls over, and not one frame of the output is lost', async ({
  page,
}) => {
  await open(page, '/connect');
  await page.getByRole('button', { name: 'Add input' }).click();
  const before = await nodeReport(page);
  const seeds = [
    encodeSacn({
      cid: new Uint8Array(16).fill(7),
      sourceName: 'Rogue',
      priority: 10,
      sync: 0,
      sequence: 0,
      preview: false,
      terminated: false,
      universe: universe(1),
      levels: new Uint8Array(512),
    }),
    ...encodeSacnDiscovery(new Uint8Array(16).fill(7), 'Rogue', [1, 2]),
    encodeArtDmx({ sequence: 1, physical: 0, port: 0, levels: new Uint8Array(64) }),
    encodeArtPollReply({ ip: [127, 0, 0, 9], shortName: 'Rogue', longName: 'Rogue', outputs: [0] }),
  ];
  const socket = createSocket('udp4');
  let chance = 41;
  const next = (below: number) => (chance = (Math.imul(chance, 1664525) + 1013904223) >>> 0) % below;
  for (let n = 0; n < 100_000; n++) {
    const bytes = Uint8Array.from(seeds[next(seeds.length)]!);
    for (let k = next(6); k >= 0; k--) bytes[next(bytes.length)] = next(256);
    // At an address where only Hovlix itself listens, not the stand-in.
    socket.send(bytes, n % 2 ? 5568 : 6454, '127.0.0.2');
    // About 20,000 a second: bounded, and more than any network at a venue.
    if (n % 200 === 0) await new Promise((resolve) => setTimeout(resolve, 10));
  }
  socket.close();
  const status = await statusOf(page);
  expect(status.input!.bad).toBeGreaterThan(1000);
  await expect.poll(async () => (await nodeReport(page)).framesPerSecond).toBeGreaterThan(40);
  const after = await nodeReport(page);
  expect(after.lost - before.lost).toBe(0);
  expect(after.packets).toBeGreaterThan(before.packets);
  await restoreConnections(page);
});

test('a second Hovlix on the same port is refused in one line, and the first goes on', async ({ page }) => {
  await open(page, '/connect');
  const program = fileURLToPath(new URL('../../server/bin/hovlix.mjs', import.meta.url));
  const taken = spawnSync(process.execPath, [program, 'serve', '--port', '4757'], {
    encoding: 'utf8',
    timeout: 30_000,
  });
  expect([taken.status, taken.stderr]).toEqual([1, expect.stringContaining('Port 4757 is taken')]);
  await expect.poll(async () => (await nodeReport(page)).framesPerSecond).toBeGreaterThan(40);
});

test('an output to a place that cannot be reached fails alone and says why', async ({ page }) => {
  await open(page, '/connect');
  await page.getByRole('button', { name: 'Add output' }).click();
  const sheet = page.getByRole('dialog');
  await sheet.getByRole('button', { name: 'One device' }).click();
  // From the network that only reaches this computer there is no way to any other: the system refuses every packet.
  await sheet.getByLabel('Network', { exact: true }).selectOption('lo');
  await sheet.getByLabel('Address of the device').fill('198.51.100.7');
  await page.keyboard.press('Enter');
  await expect(sheet.getByText('Failed', { exact: true })).toBeVisible();
  await expect(sheet.getByText(/The network does not take it/)).toBeVisible();
  await sheet.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByRole('region', { name: 'Master output' })).toContainText('1 of 2 outputs fail');
  // In every place the pill says so, too, and leads there.
  await page.getByRole('link', { name: 'Looks', exact: true }).click();
  await page.getByRole('button', { name: 'Output: 1 of 2 outputs fail' }).click();
  await page.getByRole('dialog', { name: 'Master output' }).getByRole('button', { name: 'Connect' }).click();
  await expect(page).toHaveURL(/\/connect$/);
  await expect.poll(async () => (await nodeReport(page)).framesPerSecond).toBeGreaterThan(40);
  await restoreConnections(page);
});

test.afterEach(stopServers);

test('the server is killed while a song plays: light, song and masters are back by themselves, and the sound never stopped', async ({
  browser,
}) => {
  const server = await startServer(4773, ['--demo']);
  const { page, context } = await newScreen(browser, server.base);
  // Whether the sound was ever stopped by us.
  await page.addInitScript(() => {
    const pause = HTMLMediaElement.prototype.pause;
    HTMLMediaElement.prototype.pause = function () {
      (window as unknown as { paused?: boolean }).paused = true;
      return pause.call(this);
    };
  });
  await page.goto('/songs/night-ferry');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(page.getByTestId('position')).toHaveText(/0:0[2-9]/);
  await page.evaluate(() => void ((window as unknown as { paused?: boolean }).paused = false));
  await page.keyboard.press('b');
  await expect(page.getByText('blackout', { exact: true })).toBeVisible();
  await page.waitForTimeout(600);
  server.kill();
  await expect(page.getByTestId('health')).toHaveText('the server is gone');
  await expect(page.getByTestId('health')).toHaveText(/sending/);
  await expect(page.getByText('blackout', { exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  const place = async () => Number(/0:(\d+)/.exec((await page.getByTestId('position').textContent())!)![1]);
  const before = await place();
  await expect.poll(place).toBeGreaterThan(before + 1);
  expect(await page.evaluate(() => (window as unknown as { paused?: boolean }).paused)).toBe(false);
  await context.close();
  await server.stop();
});
