// Tablets and programs that press and move over OSC: learned in a page, or by addresses that Hovlix knows.

import { createSocket, type Socket } from 'node:dgram';
import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import type { Page } from '@playwright/test';
import { NO_OSC, NO_PLAYER } from '@hovlix/core/connect';
import { decodeOsc, encodeOsc, type OscValue } from '@hovlix/core/wire';
import { eachAsItWas } from './as-it-was';
import { addAct, brightness, button, liveNow, nodeReport, open, statusOf } from './hovlix';
import { expect, test } from './screens';

eachAsItWas();

let tablet: Socket;
test.beforeEach(async () => {
  tablet = createSocket('udp4').bind(0, '127.0.0.1');
  await once(tablet, 'listening');
});
test.afterEach(() => void tablet.close());

const send = (address: string, ...values: readonly OscValue[]) => {
  const types = values.map((value) => (typeof value === 'number' ? 'f' : 's')).join('');
  tablet.send(encodeOsc(address, types, values), NO_OSC.port, '127.0.0.1');
};
const card = (page: Page) => page.getByRole('region', { name: 'OSC', exact: true });
const listen = async (page: Page) => {
  await open(page, '/connect');
  await button(page, 'Listen to OSC').click();
  await expect(card(page).getByText('Nothing heard yet.')).toBeVisible();
};
const isOn = async () => (await liveNow()).standing.filter(({ on }) => on).length;

test('a look by its name, the master and blackout reach the lamps; what came is said, and what cannot be done', async ({
  page,
}) => {
  await listen(page);
  const came = page.getByTestId('osc-came');
  send('/hovlix/look', 'full sail');
  await expect(came).toContainText('/hovlix/look “full sail”');
  await expect(came).toContainText('Full sail');
  await expect.poll(async () => brightness((await nodeReport(page)).levels)).toBeGreaterThan(300);
  const full = brightness((await nodeReport(page)).levels);
  send('/hovlix/master', 0.5);
  await expect.poll(async () => brightness((await nodeReport(page)).levels)).toBeLessThan(full * 0.8);
  send('/hovlix/blackout', 1);
  await expect.poll(async () => (await nodeReport(page)).levels[0]).toBe(0);
  send('/hovlix/look', 'Nothing of the kind');
  await expect(came).toContainText('finds no look or chase named “Nothing of the kind”');
  send('/desk/9', 0.7);
  await expect(came).toContainText('/desk/9 0.7');
  await expect(came).toContainText('Not bound to a control yet');
  await button(page, 'Show addresses').click();
  await expect(page.getByRole('list', { name: 'Addresses Hovlix knows' }).getByRole('listitem')).toHaveCount(15);
});

test('a button of a tablet is learned by touching it, works with no page open, and shows what is on', async ({
  page,
  other,
}) => {
  const ear = createSocket('udp4').bind(0, '127.0.0.1');
  await once(ear, 'listening');
  const shown: OscValue[] = [];
  ear.on('message', (bytes: Buffer) => {
    const packet = decodeOsc(bytes);
    if (packet.kind === 'messages') shown.push(...packet.messages.flatMap(({ values }) => values));
  });
  await listen(page);
  const answers = card(page).getByLabel('Reply port');
  await answers.fill(String((ear.address() as AddressInfo).port));
  await answers.press('Enter');
  await card(page).getByRole('link', { name: 'Bind an address' }).click();
  await button(page, 'Add a switch or key').click();
  await button(page, 'Learn').click();
  await expect(page.getByTestId('source')).toContainText('Step on it now');
  send('/tablet/1', 1);
  send('/tablet/1', 0);
  await expect(page.getByTestId('source')).toHaveText('OSC /tablet/1');
  await addAct(page, 'Press', 'full sail on', 'Full sail on or off');
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
  expect(await isOn()).toBe(0);
  await open(other, '/looks');
  await page.goto('about:blank');
  send('/tablet/1', 1);
  send('/tablet/1', 0);
  await expect.poll(isOn).toBe(1);
  await expect.poll(() => shown.at(-1)).toBe(1);
  // Turned off on another screen: the tablet shows that, too.
  await other.getByRole('button', { name: 'Full sail, on', exact: true }).click();
  await expect.poll(isOn).toBe(0);
  await expect.poll(() => shown.at(-1)).toBe(0);
  ear.close();
});

test('a fader that is typed by its address moves the master; preflight says when nobody listens', async ({ page }) => {
  await open(page, '/gig/pedals');
  await button(page, 'Add a knob').click();
  const sheet = page.getByRole('dialog');
  await button(page, 'By OSC address').click();
  const address = sheet.getByLabel('OSC address');
  await address.fill('desk/fader 1');
  await address.press('Enter');
  await expect(sheet.getByText('An address begins with a slash')).toBeVisible();
  await address.fill('/desk/fader');
  await address.press('Enter');
  await sheet.getByLabel('Full at').fill('127');
  await expect(sheet.getByText('Hovlix does not listen to OSC.')).toBeVisible();
  await sheet.getByRole('button', { name: 'Close' }).click();
  await open(page, '/gig/preflight');
  const missing = page.getByText('OSC is not listened to, and controls are bound to it.');
  await expect(missing).toBeVisible();
  await listen(page);
  // It takes hold as it comes to where the master stands, which is full.
  send('/desk/fader', 127);
  await expect.poll(async () => (await statusOf(page)).osc?.last?.by).toBe('control');
  send('/desk/fader', 31.75);
  await expect.poll(async () => (await liveNow()).master.to).toBeCloseTo(0.25, 2);
  await open(page, '/gig/preflight');
  await expect(page.getByTestId('preflight')).not.toHaveText(/Looking/);
  await expect(missing).toHaveCount(0);
});

test('OSC and a DJ player cannot be heard at one port, which is said, and put right by another one', async ({
  page,
}) => {
  await listen(page);
  const port = card(page).getByLabel('UDP port for OSC');
  await port.fill(String(NO_PLAYER.port));
  await port.press('Enter');
  await expect.poll(async () => (await statusOf(page)).connections.osc?.port).toBe(NO_PLAYER.port);
  await button(page, 'Listen to a player').click();
  const player = page.getByRole('region', { name: 'DJ player', exact: true });
  await expect(player.getByText('OSC for presses is heard at this port. Choose another.')).toBeVisible();
  await port.fill(String(NO_OSC.port));
  await port.press('Enter');
  await expect(player.getByText(`Send to this computer, UDP port ${NO_PLAYER.port}.`)).toBeVisible();
  // And not the other way round either.
  await port.fill(String(NO_PLAYER.port));
  await expect(card(page).getByText('The DJ player is heard at this port. Choose another.')).toBeVisible();
});
