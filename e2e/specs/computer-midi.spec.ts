// MIDI gear plugged into the computer that conducts: it works with no page open. A stand-in has the port.

import type { Page } from '@playwright/test';
import { NO_MIDI } from '@hovlix/core/connect';
import { eachAsItWas } from './as-it-was';
import { addAct, brightness, button, liveNow, nodeReport, open, statusOf } from './hovlix';
import { expect, test } from './screens';

eachAsItWas();

const STAND_IN = 'Foot controller stand-in';
const NOTE_ON = 0x90;
const step = (page: Page, ...bytes: number[]) => page.request.post('/api/foot', { data: { bytes } });
const tread = async (page: Page, note: number) => {
  await step(page, NOTE_ON, note, 127);
  await page.waitForTimeout(120);
  await step(page, NOTE_ON, note, 0);
};
const listen = async (page: Page) => {
  await open(page, '/gig/pedals');
  await page.getByRole('switch', { name: 'MIDI of the computer' }).click();
  await expect(page.getByTestId('computer-midi')).toContainText(`Listens to ${STAND_IN}.`);
};
const learn = async (page: Page, name: string, note: number, typed: string, act: string) => {
  await button(page, 'Add a switch or key').click();
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('Name').fill(name);
  await button(page, 'Learn').click();
  await tread(page, note);
  await expect(page.getByTestId('source')).toContainText(`, ${STAND_IN}`);
  await addAct(page, 'Press', typed, act);
  await sheet.getByRole('button', { name: 'Close' }).click();
};

test('learned in a page, it turns a look on and plays the set with no page open, and its switches are lit', async ({
  page,
  other,
}) => {
  await listen(page);
  await learn(page, 'Sail', 60, 'full sail on', 'Full sail on or off');
  await learn(page, 'On', 61, 'on in the set', 'On in the set');
  await open(other, '/gig');
  // What is learned does nothing else.
  expect((await liveNow()).standing.filter(({ on }) => on)).toEqual([]);
  // One screen sees what a foot did at the computer; then none is there.
  await tread(page, 60);
  await expect(other.getByText('Full sail', { exact: true }).first()).toBeVisible();
  await expect.poll(async () => brightness((await nodeReport(page)).levels)).toBeGreaterThan(300);
  const sent = async () => (await (await page.request.get('/api/foot')).json()) as number[][];
  await expect.poll(async () => (await sent()).at(-1)).toEqual([NOTE_ON, 60, 127]);
  await page.goto('about:blank');
  await tread(page, 60);
  await expect.poll(async () => (await nodeReport(page))?.levels[0]).toBe(0);
  await expect.poll(async () => (await sent()).at(-1)).toEqual([NOTE_ON, 60, 0]);
  await tread(page, 61);
  await expect.poll(async () => (await liveNow()).song?.playing ?? false).toBe(false);
  await tread(page, 61);
  await expect.poll(async () => (await liveNow()).song).toMatchObject({ playing: true });
  await expect.poll(async () => brightness((await nodeReport(page)).levels)).toBeGreaterThan(0);
});

test('a page on the computer leaves MIDI to it, its clock leads the tempo, and what is no MIDI is refused', async ({
  page,
}) => {
  await page.addInitScript(() => {
    const access = { inputs: new Map(), outputs: new Map(), onstatechange: null };
    Object.assign(navigator, { requestMIDIAccess: async () => access });
  });
  await listen(page);
  await page.getByRole('switch', { name: 'MIDI of this screen' }).click();
  await expect(page.getByText('The computer listens itself. This screen only sends.')).toBeVisible();
  await page
    .getByRole('group', { name: 'MIDI clock from outside leads' })
    .getByRole('button', { name: 'The tempo' })
    .click();
  expect((await step(page, 300)).status()).toBe(400);
  await step(page, 0xf0, 1, 2, 3, 0xf7);
  const begun = performance.now();
  // 96 beats a minute: a tick every 26 ms, as near as a request a tick can be.
  let over = false;
  const ticking = (async () => {
    for (let told = 0; !over; await page.waitForTimeout(3))
      for (; !over && told < (performance.now() - begun) / 26.0417; told++) await step(page, 0xf8);
  })();
  try {
    await expect(page.getByTestId('clock')).toHaveText(/^Foot controller stand-in: /);
    expect((await statusOf(page)).midi?.clock).toMatchObject({ device: STAND_IN });
    await expect.poll(async () => Math.abs((await liveNow()).tempo.bpm - 96)).toBeLessThan(5);
  } finally {
    over = true;
    await ticking;
  }
  await page.getByRole('switch', { name: 'MIDI of the computer' }).click();
  await expect.poll(async () => (await statusOf(page)).midi).toBeNull();
  expect((await statusOf(page)).connections.midi ?? NO_MIDI).toMatchObject({ on: false });
});
