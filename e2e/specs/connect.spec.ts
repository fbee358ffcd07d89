import { spawn, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import type { Page } from '@playwright/test';
import { nodeReport, open, restoreConnections, statusOf } from './hovlix';
import { expect, test } from './screens';

const program = fileURLToPath(new URL('../../server/bin/hovlix.mjs', import.meta.url));
const button = (page: Page, name: string | RegExp) => page.getByRole('button', { name });

test.afterEach(async ({ page }) => restoreConnections(page));

test('the guided first minute: from a cable to “my lamp answers”, with the five reasons on the way', async ({
  page,
}) => {
  await open(page, '/connect');
  await page.getByRole('link', { name: /Make one lamp light up/ }).click();
  await button(page, /Framed cable stand-in/).click();
  await expect(page.getByText(/Universe 1 · USB cable stand-in-framed-cable: live/)).toBeVisible();

  // Sixteen channels from the start address flash, and no others.
  // Nothing has come over it until the node says so.
  const cable = async () => (await nodeReport(page, 'serial')) ?? { levels: [] };
  const flashes = async (channel: number) => {
    await expect.poll(async () => (await cable()).levels[channel - 1]).toBe(255);
    await expect.poll(async () => (await cable()).levels[channel - 1]).toBe(0);
  };
  await flashes(16);
  expect((await cable()).levels[300]).toBe(0);
  await page.getByLabel('Start address on the lamp').fill('301');
  await flashes(301);
  await page.getByLabel('Start address on the lamp').fill('600');
  await expect(page.getByText('A whole number from 1 to 512.')).toBeVisible();

  await page.getByRole('button', { name: 'No', exact: true }).click();
  await expect(page.getByText('Reason 1 of 5')).toBeVisible();
  await button(page, 'Flash all 512 channels').click();
  await flashes(512);
  for (const title of [
    'Another universe number',
    'Another network, or mask',
    'The lamp listens to something else',
    'The cable',
  ]) {
    await button(page, 'Still dark').click();
    await expect(page.getByRole('heading', { name: title })).toBeVisible();
  }
  await button(page, 'Try as a plain adapter').click();
  await expect
    .poll(async () => (await statusOf(page)).connections.outputs.at(-1)?.way)
    .toMatchObject({ kind: 'plain' });
  await button(page, 'Try as a framed interface').click();
  await flashes(512);
  await button(page, 'Now it flashes').click();
  await expect(page.getByRole('heading', { name: 'Your lamp answers.' })).toBeVisible();

  // A walk shows the start address: one channel at a time.
  await button(page, 'Walk through its channels').click();
  await expect.poll(async () => Number(await page.getByTestId('walked').textContent())).toBeGreaterThan(2);
  await button(page, /^Stay on/).click();
  const channel = Number(await page.getByTestId('walked').textContent());
  await expect.poll(async () => (await cable()).levels[channel - 1]).toBe(255);
  await page.getByRole('link', { name: 'On to the rig' }).click();
  await expect(page).toHaveURL(/\/rig$/);
  // Whoever leaves takes the test along.
  await expect.poll(async () => (await cable()).levels[511]).toBe(0);
});

test('a test that is running ends when its page goes', async ({ page, other }) => {
  await open(other, '/connect/first');
  await button(other, /Framed cable stand-in/).click();
  await expect.poll(async () => (await nodeReport(page, 'serial'))?.levels[15]).toBe(255);
  await other.goto('about:blank');
  // Flashing changes the levels four times a second; when it has ended, sixty packets go by without a change.
  let mark = await nodeReport(page, 'serial');
  await expect
    .poll(async () => {
      const now = await nodeReport(page, 'serial');
      if (now.changes !== mark.changes) mark = now;
      return now.packets - mark.packets;
    })
    .toBeGreaterThan(60);
});

test('outputs: add one to a found node, number it, mistype, remove, undo', async ({ page }) => {
  await open(page, '/connect');
  await button(page, 'Add output').click();
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('Hovlix universe').fill('1');
  await sheet.getByRole('button', { name: 'Art-Net' }).click();
  await sheet.getByRole('button', { name: 'One device' }).click();
  await expect(sheet.getByLabel('Found nodes')).toHaveValue('127.0.0.1');
  await sheet.getByLabel('Number on the wire').fill('3');
  await page.keyboard.press('Enter');
  await expect(sheet.getByText(/devices that count from 1 call it 4/)).toBeVisible();
  await expect(sheet.getByText('Live', { exact: true })).toBeVisible();
  // Art-Net’s 3 is the stand-in’s fourth universe.
  await expect.poll(async () => (await nodeReport(page, 'artnet', 4))?.framesPerSecond ?? 0).toBeGreaterThan(40);

  await sheet.getByLabel('Address of the device').fill('10.0.0.999');
  await expect(sheet.getByText(/Four numbers from 0 to 255/)).toBeVisible();
  expect((await statusOf(page)).connections.outputs[1]?.way).toMatchObject({ to: '127.0.0.1' });
  await sheet.getByLabel('Address of the device').fill('127.0.0.1');

  const rows = page.getByTestId('output-row');
  await sheet.getByRole('button', { name: 'Remove output' }).click();
  await expect(rows).toHaveCount(1);
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).click();
  await expect(rows).toHaveCount(2);
  await page.keyboard.press('Control+Z');
  await page.keyboard.press('Control+Shift+Z');
  await expect(rows).toHaveCount(2);
  await expect(page.getByTestId('health')).toHaveText(/2 outputs/);

  // With none at all nobody is told that we send.
  const master = page.getByRole('region', { name: 'Master output' });
  await expect(master).toContainText('We are sending');
  for (const left of [1, 0]) {
    await rows.first().click();
    await sheet.getByRole('button', { name: 'Remove output' }).click();
    await expect(rows).toHaveCount(left);
  }
  await expect(master).toContainText('No output yet');
  await expect(master).not.toContainText('We are sending');
  await restoreConnections(page);
});

test('a USB cable is pulled out during the show and plugged in again: said in every place, and back without a touch', async ({
  page,
}) => {
  const path = `/tmp/hovlix-e2e-cable-${process.pid}`;
  const plug = () =>
    new Promise<ChildProcess>((resolve) => {
      const cable = spawn(process.execPath, [program, 'serial', '--at', path], {
        stdio: ['ignore', 'pipe', 'inherit'],
      });
      cable.stdout!.once('data', () => resolve(cable));
    });
  const unplug = (cable: ChildProcess) =>
    new Promise((resolve) => {
      cable.once('exit', resolve);
      cable.kill();
    });
  let cable = await plug();
  await open(page, '/connect');
  await button(page, 'Add output').click();
  const sheet = page.getByRole('dialog');
  await sheet.getByRole('button', { name: 'USB cable' }).click();
  await sheet.getByLabel('Its name in the system').fill(path);
  await expect(sheet.getByText('Live', { exact: true })).toBeVisible();
  await sheet.getByRole('button', { name: 'Close' }).click();

  await page.getByRole('link', { name: 'Gig' }).click();
  await unplug(cable);
  const alarm = page.getByTestId('alarm');
  await expect(alarm).toContainText('has stopped sending');
  await expect(alarm).toContainText('not plugged in');
  await expect(page.getByTestId('health')).toHaveText('1 of 2 outputs fail');
  // The other row never stopped.
  await expect.poll(async () => (await nodeReport(page)).framesPerSecond).toBeGreaterThan(40);
  expect((await nodeReport(page)).lost).toBe(0);

  cable = await plug();
  await expect(alarm).toHaveCount(0);
  await expect(page.getByTestId('said')).toContainText('is sending again');
  await unplug(cable);
});

test('channels: several are moved together, the same one of all lamps alike, and release gives them back', async ({
  page,
}) => {
  await open(page, '/connect/universe/1');
  const levels = async () => (await nodeReport(page)).levels;
  const cell = (address: number) => button(page, new RegExp(`^Channel ${address}(,|$)`));
  await cell(400).click();
  await cell(404).click();
  await button(page, 'Every 4 from there').click();
  await expect(page.getByText('29 channels')).toBeVisible();
  await page.getByLabel('Level of the chosen channels').fill('77');
  await expect.poll(async () => (await levels())[403]).toBe(77);
  expect([(await levels())[399], (await levels())[400], (await levels())[507]]).toEqual([77, 0, 77]);
  await expect(cell(404)).toHaveAttribute('data-level', '77');
  await button(page, 'Choose none').click();

  await cell(2).click();
  await expect(page.getByText(/Channel 2 · Front 1/)).toBeVisible();
  // The fader takes a channel up where it is.
  const was = (await levels())[1]!;
  await expect(page.getByLabel('Level of the chosen channels')).toHaveValue(String(was));
  await button(page, /of all 4 Tern 4/).click();
  await page.getByLabel('Level of the chosen channels').fill('201');
  await expect.poll(async () => (await levels()).filter((level) => level === 201)).toHaveLength(4);
  await page.getByRole('main').getByRole('button', { name: 'Release', exact: true }).click();
  await expect
    .poll(async () => {
      const now = await levels();
      return [now[399], now[403], now[507], now.filter((level) => level === 201).length];
    })
    .toEqual([0, 0, 0, 0]);

  await button(page, 'Choose none').click();
  // The chosen ones flash, and nothing that lies between them.
  await cell(440).click();
  await cell(450).click();
  await button(page, 'Flash these').click();
  await expect.poll(async () => (await levels()).slice(439, 450)).toEqual([255, 0, 0, 0, 0, 0, 0, 0, 0, 0, 255]);
  await button(page, 'End the test').click();
  await button(page, 'Choose none').click();
  await button(page, 'Flash all').click();
  await expect.poll(async () => (await levels())[450]).toBe(255);
  await button(page, 'End the test').click();
  await button(page, 'Walk through').click();
  await expect.poll(async () => (await levels()).slice(0, 4).filter((level) => level === 255).length).toBe(1);
  await button(page, 'End the test').click();
  await expect.poll(async () => (await levels())[450]).toBe(0);
});

test('master output is not blackout: one sends darkness, the other nothing, and only a held press stops sending', async ({
  page,
}) => {
  await open(page, '/songs');
  await button(page, 'Blackout').click();
  await expect.poll(async () => (await nodeReport(page)).framesPerSecond).toBeGreaterThan(40);
  await expect(page.getByTestId('health')).toHaveText(/sending/);
  await button(page, 'Light again: end the blackout').click();

  await button(page, /^Output:/).click();
  await button(page, 'Hold to stop sending').click();
  await expect(page.getByTestId('health')).toHaveText(/sending/);
  await button(page, 'Hold to stop sending').click({ delay: 1000 });
  await expect(page.getByTestId('health')).toHaveText('output is off');
  await expect.poll(async () => (await nodeReport(page)) ?? 'nothing').toBe('nothing');
  await button(page, 'Start sending').click();
  await expect.poll(async () => (await nodeReport(page))?.framesPerSecond ?? 0).toBeGreaterThan(40);
});

test('a desk is let in: it takes over, the stage shows its light, and ours is back when it leaves', async ({
  page,
}) => {
  const { Sender } = await import('sacn');
  await open(page, '/connect');
  await button(page, 'Add input').click();
  const sheet = page.getByRole('dialog');
  await sheet.getByRole('button', { name: 'Takes over' }).click();
  await sheet.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByText('Universe 1: Nothing received')).toBeVisible();
  const desk = new Sender({
    universe: 1,
    useUnicastDestination: '127.0.0.2',
    minRefreshRate: 20,
    defaultPacketOptions: { sourceName: 'House desk', useRawDmxValues: true, priority: 100 },
  });
  await desk.send({ payload: Object.fromEntries(Array.from({ length: 24 }, (_, i) => [i + 1, 211])) });
  await expect(page.getByText('Universe 1: Other source in control')).toBeVisible();
  await expect(page.getByText(/House desk · priority 100 · heard/)).toBeVisible();
  await expect
    .poll(async () => (await nodeReport(page))?.levels.slice(0, 24).every((level) => level === 211))
    .toBe(true);
  desk.close();
  await expect(page.getByText('Universe 1: Nothing received')).toBeVisible();
  await expect.poll(async () => (await nodeReport(page))?.levels.includes(211)).toBe(false);
});
