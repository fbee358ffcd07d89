// Pedals and keys: learned by touching them, told apart, tried, and what is done is done to the light.

import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { readLog, reduced } from '@hovlix/core/live';
import { eachAsItWas } from './as-it-was';
import { stepOn } from './feet';
import { addAct, back, bindKey, button, light, nodeReport, open } from './hovlix';
import { expect, test } from './screens';

eachAsItWas();

const sheet = (page: Page) => page.getByRole('dialog');

test('a pedal of two switches: learned by stepping on it, tried, and played on any page', async ({ page }) => {
  await open(page, '/gig/pedals');
  await button(page, 'Pedal with 2 switches').click();
  await expect(page.getByText('not learned yet')).toHaveCount(2);
  for (const [name, key, word] of [
    ['Left', 'F7', 'key F7'],
    ['Right', 'PageDown', 'key Page Down'],
  ] as const) {
    await button(page, `Change ${name}`).click();
    await button(page, 'Learn').click();
    await expect(page.getByTestId('source')).toHaveText('Step on it now, and let go …');
    await page.keyboard.press(key);
    await expect(page.getByTestId('source')).toHaveText(word);
    await sheet(page).getByRole('button', { name: 'Close' }).click();
  }
  // Two switches on one key are told; one of them is removed.
  await expect(page.getByRole('alert')).toHaveText('“Foot” and “Right” both hear key Page Down: one press does both.');
  await button(page, 'Change Foot').click();
  await button(page, 'Remove this control').click();
  await expect(page.getByRole('alert')).toHaveCount(0);

  // The trainer shows what was meant, and fits its times to the foot.
  await button(page, 'Settings of Pedal 2').click();
  await expect(page.getByTestId('recognised')).toHaveText('Waiting for your foot');
  await page.keyboard.press('F7', { delay: 950 });
  await expect(page.getByTestId('recognised')).toHaveText('Hold: Left');
  await expect.poll(() => page.getByText('Blackout: all dark').count()).toBe(1);
  await page.keyboard.press('F7', { delay: 950 });
  await expect(page.getByText('Blackout: all dark')).toHaveCount(0);
  for (let i = 0; i < 4; i++) {
    await stepOn(page, 'F7', [0, 300]);
    await page.waitForTimeout(700);
  }
  await page.getByRole('button', { name: /^Use times that fit/ }).click();
  await expect(page.getByRole('textbox', { name: 'A hold is longer than, typed' })).not.toHaveValue('700');
  await sheet(page).getByRole('button', { name: 'Close' }).click();

  // It works in any place.
  await page.getByRole('link', { name: 'Looks' }).click();
  await page.keyboard.press('PageDown');
  await page.getByRole('link', { name: 'Gig', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Paper Lighthouse', level: 1 })).toBeVisible();
  await expect.poll(() => back(page)).toBeGreaterThan(300);
  await expect(button(page, 'Right: Play Paper Lighthouse')).toBeVisible();
});

test('keys take a colour by hand, make a look of what is on, and lock the screen', async ({ page }) => {
  await open(page, '/gig/pedals');
  for (const [key, typed, act] of [
    ['F6', 'front wash red', 'Front wash: Red'],
    ['F7', 'store', 'Store what is on as a look'],
    ['F8', 'lock or unlock', 'Lock or unlock this screen'],
  ] as const) {
    await bindKey(page, key, typed, act);
  }
  await page.keyboard.press('F7');
  await expect(page.getByTestId('said')).toHaveText('Nothing to store: no look is on, and nothing is by hand.');
  await page.getByRole('link', { name: 'Gig', exact: true }).click();
  await page.keyboard.press('2');
  await page.keyboard.press('F6');
  // The front wash, mixed of red, green and blue behind its dimmers: full red, next to no green.
  const front = async () => (await nodeReport(page)).levels.slice(0, 6);
  await expect.poll(async () => (await front())[1]! - (await front())[2]!).toBeGreaterThan(150);
  await page.keyboard.press('F7');
  await expect(page.getByTestId('said')).toHaveText(/^“Look \d+” is a look now\.$/);
  const name = /“(.*)”/.exec((await page.getByTestId('said').textContent())!)![1]!;
  await page.keyboard.press('F8');
  await expect(page.getByTestId('lock')).toBeVisible();
  // So soon after the first, a switch would only have bounced.
  await page.waitForTimeout(300);
  await page.keyboard.press('F8');
  await expect(page.getByTestId('lock')).toHaveCount(0);
  // Alone, it gives the same light, once what was pressed has faded in.
  let stored: readonly number[] = [];
  await expect
    .poll(
      async () => {
        const before = stored;
        stored = await front();
        return stored.join() === before.join();
      },
      { intervals: [700] },
    )
    .toBe(true);
  await button(page, /^By hand/).click();
  await page.keyboard.press('2');
  await expect.poll(async () => (await front())[0]).toBe(0);
  await page
    .getByRole('group', { name: 'Pads' })
    .getByRole('button', { name: new RegExp(`^${name},`) })
    .click();
  await expect.poll(front).toEqual(stored);
});

test('pads that wait for the bar, and that do more than one thing; letters for those beyond nine', async ({ page }) => {
  await open(page, '/gig');
  await button(page, 'Change the banks').click();
  await button(page, 'Make a bank of them').click();
  await button(page, 'Change Harbour blue').click();
  await sheet(page).getByLabel('Starts').selectOption({ label: 'On the next bar' });
  await button(page, 'Change Full sail').click();
  await addAct(page, 'It also does', 'grand master 50', 'Grand master to 50 %');
  await sheet(page).getByRole('button', { name: 'Close' }).click();
  const pad = (name: string) =>
    page.getByRole('group', { name: 'Pads' }).getByRole('button', { name: new RegExp(`^${name}, key`) });
  // At 30 beats a minute a bar is eight seconds: it is armed, seen to be, and called off with the same key.
  await button(page, 'Tap the tempo').click();
  await page.waitForTimeout(1900);
  await button(page, 'Tap the tempo').click();
  await page.waitForTimeout(1500);
  // The bar may be as good as over when the key is pressed: then it comes on, is turned off, fades out for a beat, and the
  // next bar is longer away. What is armed is dark.
  const armed = pad('Harbour blue').getByText('on the next bar');
  const isDarkAndArmed = async () => (await light(page)) === 0 && (await armed.isVisible());
  await expect(async () => {
    await page.keyboard.press('1');
    const seen = await expect
      .poll(isDarkAndArmed, { timeout: 4000 })
      .toBe(true)
      .then(
        () => true,
        () => false,
      );
    if (!seen) await page.keyboard.press('1');
    expect(seen).toBe(true);
  }).toPass();
  await page.keyboard.press('1');
  await expect(pad('Harbour blue')).not.toContainText('on the next bar');
  await page.keyboard.press('1');
  await expect.poll(() => back(page), { timeout: 12_000 }).toBeGreaterThan(300);
  await expect(pad('Harbour blue')).toContainText('on');
  await page.keyboard.press('1');
  await page.keyboard.press('2');
  await expect(page.getByTestId('master')).toHaveText('50');
  const tenth = page.getByRole('group', { name: 'Pads' }).getByRole('button', { name: /, key Q,/ });
  await page.keyboard.press('q');
  await expect(tenth).toHaveAttribute('aria-pressed', 'true');
});

test('locked, a sleeve changes nothing while the pedal goes on; a code is asked for', async ({ page }) => {
  await open(page, '/gig');
  await button(page, 'On stage: lock, large letters, pedals').click();
  await page.getByLabel('Code to unlock').fill('2580');
  await page.keyboard.press('Enter');
  await button(page, 'Lock the screen').click();
  await expect(page.getByText('Locked')).toBeVisible();
  await page.mouse.click(100, 420);
  await page.keyboard.press('1');
  await page.keyboard.press('b');
  await page.waitForTimeout(400);
  expect(await light(page)).toBe(0);
  await expect(page.getByText('Blackout: all dark')).toHaveCount(0);
  await page.keyboard.press('PageDown');
  await expect.poll(() => back(page)).toBeGreaterThan(300);
  // Tempo, master and blackout stay in sight, on a tablet, a phone on its side, and where pads have all the room.
  const unlock = button(page, 'Hold to unlock');
  const pulse = page.getByRole('toolbar', { name: 'Pulse', exact: true });
  for (const [width, height] of [
    [1280, 800],
    [844, 390],
    [390, 844],
  ] as const) {
    await page.setViewportSize({ width, height });
    // Nor does a page take a touch that is loaded anew.
    if (width === 390) await page.goto('/gig/pads');
    await expect
      .poll(async () => {
        const [lock, bar] = [(await unlock.boundingBox())!, (await pulse.boundingBox())!];
        return lock.x + lock.width <= bar.x || bar.y + bar.height <= lock.y;
      })
      .toBe(true);
  }
  await unlock.hover();
  await page.mouse.down();
  await page.waitForTimeout(900);
  await page.mouse.up();
  for (const figure of ['1', '2', '5', '8', '0']) await button(page, figure).click();
  await expect(page.getByText('Locked')).toHaveCount(0);
  await page.keyboard.press('b');
  await expect(page.getByText('Blackout: all dark')).toBeVisible();
});

test('large letters, the foot controller on a screen, the log and Preflight', async ({ page, context }) => {
  await page.goto('/gig/foot');
  const amp = await context.newPage();
  await amp.goto('/gig/large');
  await expect(amp.getByText('Ready: Paper Lighthouse')).toBeVisible();
  await expect(amp.getByText('Blackout', { exact: true })).toBeVisible();
  const foot = button(page, 'Switch Foot');
  const step = async (ms: number) => {
    await foot.hover();
    await page.mouse.down();
    await page.waitForTimeout(ms);
    await page.mouse.up();
  };
  await step(80);
  await expect(page.getByTestId('happened')).toHaveText('Ready: Paper Lighthouse');
  await expect(amp.getByText('Play Paper Lighthouse')).toBeVisible();
  await expect.poll(() => back(page)).toBeGreaterThan(300);
  await step(900);
  await expect(amp.getByText('BLACKOUT', { exact: true })).toBeVisible();
  await expect(amp.getByText('Light again')).toBeVisible();
  await step(900);
  await expect(amp.getByText('BLACKOUT', { exact: true })).toHaveCount(0);

  // What happened before the page was opened is there too.
  await open(page, '/gig/log');
  const log = page.getByRole('list', { name: 'Log' });
  await expect(log).toContainText('Blackout over');
  await page.keyboard.press('PageDown');
  await expect(log.getByRole('listitem').first()).toContainText(/Paper Lighthouse played/);
  await expect(log).toContainText('On to Play Paper Lighthouse');
  const [download] = await Promise.all([page.waitForEvent('download'), button(page, 'Save the log').click()]);
  expect(download.suggestedFilename()).toMatch(/^Friday at the Boathouse, \d{4}-\d\d-\d\d\.log$/);
  // It can be read again, whole, and leads to what is on.
  const read = readLog(readFileSync(await download.path(), 'utf8'), 'the log');
  if (!read.ok) throw new Error('it cannot be read');
  expect(read.value.entries.reduce(reduced, read.value.begin).song).toMatchObject({
    id: 'paper-lighthouse',
    playing: true,
  });

  await page.goto('/gig/preflight');
  await expect(page.getByTestId('preflight')).toHaveText('All is ready for tonight.');
  await page.goto('/gig/pedals');
  await button(page, 'Pedal with 3 switches').click();
  await page.goto('/gig/preflight');
  await expect(page.getByTestId('preflight')).toHaveText('1 would be missed tonight.');
  await page.getByRole('button', { name: /^Fix: Not learned yet/ }).click();
  await expect(page.getByRole('heading', { name: 'Pedals and MIDI' })).toBeVisible();
});
