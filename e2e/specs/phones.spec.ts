import { hostname } from 'node:os';
import type { Page, WebSocket } from '@playwright/test';
import { lookIs, open, restoreConnections, stageBrightness } from './hovlix';
import { expect, test } from './screens';
import { rememberSounds } from './sounding';

/** As a phone in the hall calls this computer: by its name, over plain http. */
const hall = `http://${hostname().toLowerCase()}.local:4757`;

async function openToPhones(page: Page): Promise<string> {
  await open(page, '/connect');
  await page.getByRole('button', { name: 'Open to phones' }).click();
  await expect(page.getByTestId('qr')).toBeVisible();
  await expect(page.getByTestId('phone-address')).toHaveText('http://127.0.0.2:4757');
  // What joins here may do everything; rights have a spec of their own.
  await page.getByLabel('Whoever joins now is a').selectOption('operator');
  return (await page.getByTestId('code').textContent())!.replace(/\D/g, '');
}

test.afterEach(async ({ page, request }) => {
  await restoreConnections(page);
  const { phones } = await (await request.get('/api/status')).json();
  for (const device of phones.devices) await request.delete(`/api/phones/devices/${device.id}`);
  await request.post('/api/phones', { data: { open: false } });
});

test('a phone joins with the code, is refused with a wrong one, shares the light, and is sent away', async ({
  page,
  browser,
}) => {
  const code = await openToPhones(page);
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, baseURL: hall });
  const phone = await context.newPage();
  const errors: string[] = [];
  phone.on('pageerror', (error) => errors.push(error.message));
  // Nothing but the joining page, whatever is asked for.
  await phone.goto('/songs');
  await expect(phone.getByRole('heading', { name: 'Join the light' })).toBeVisible();
  await phone.getByLabel('Code').fill(code === '123456' ? '654321' : '123456');
  await phone.getByLabel('Name of this device').fill('Ana’s phone');
  await phone.getByRole('button', { name: 'Join' }).click();
  await expect(phone.getByRole('alert')).toHaveText('That is not the code. Try again.');
  await phone.getByLabel('Code').fill(code);
  await phone.getByRole('button', { name: 'Join' }).click();
  await expect(phone.getByTestId('health')).toHaveText(/sending/);
  expect(await phone.evaluate(() => window.isSecureContext)).toBe(false);
  expect(phone.url()).not.toContain(code);
  await expect(page.getByText('is here')).toBeVisible();
  // It sees that phones may come in, but no code.
  await phone.goto('/connect');
  await expect(phone.getByText('Open to phones and tablets')).toBeVisible();
  await expect(phone.getByTestId('code')).toHaveCount(0);

  // What one presses, the other shows: state, picture and pad.
  await phone.goto('/looks');
  await page.getByRole('link', { name: 'Looks' }).click();
  const dark = await stageBrightness(phone);
  await page.getByRole('button', { name: 'Full sail, off' }).click();
  await lookIs(phone, 'Full sail', true);
  await expect.poll(() => stageBrightness(phone)).toBeGreaterThan(dark + 5);
  await phone.getByRole('button', { name: 'Full sail, on' }).click();
  await lookIs(page, 'Full sail', false);

  // Sent away, it is back on the joining page at once.
  await page.getByRole('link', { name: 'Connect' }).click();
  await page.getByRole('button', { name: 'Hold to remove' }).click({ delay: 1000 });
  await expect(phone.getByRole('heading', { name: 'Join the light' })).toBeVisible();
  expect(errors).toEqual([]);
  await context.close();
});

test('the code in a QR address is taken out of it at once', async ({ page, browser }) => {
  const code = await openToPhones(page);
  const context = await browser.newContext();
  const phone = await context.newPage();
  const asked: string[] = [];
  phone.on('request', (request) => asked.push(request.url()));
  await phone.goto(`http://127.0.0.2:4757/#${code}`);
  await expect(phone.getByLabel('Code')).toHaveValue(`${code.slice(0, 3)} ${code.slice(3)}`);
  expect(phone.url()).toBe('http://127.0.0.2:4757/');
  await phone.getByRole('button', { name: 'Join' }).click();
  await expect(phone.getByTestId('health')).toHaveText(/sending/);
  expect(asked.filter((url) => new URL(url).search.includes(code) || new URL(url).pathname.includes(code))).toEqual([]);
  await context.close();
});

test('closed, the door is shut: nobody answers on the network', async ({ page, other }) => {
  await openToPhones(page);
  await page.getByRole('button', { name: 'Close to phones' }).click();
  await expect(page.getByText('Only this computer can open Hovlix')).toBeVisible();
  await expect(other.goto('http://127.0.0.2:4757/')).rejects.toThrow(/ERR_CONNECTION/);
});

test('two screens show the same state within 100 ms', async ({ page, other }) => {
  // The two browsers report on their own: what was received may be heard of before what was sent.
  const sent = new Map<number, number>();
  const received = new Map<number, number>();
  const note = (book: Map<number, number>) => (socket: WebSocket) => {
    const read = ({ payload }: { payload: string | Buffer }) => {
      const message = JSON.parse(String(payload));
      const actions = [message.action, ...(message.entries ?? []).map((entry: { action: unknown }) => entry.action)];
      for (const action of actions) if (action?.type === 'master') book.set(action.level, performance.now());
    };
    if (book === sent) socket.on('framesent', read);
    else socket.on('framereceived', read);
  };
  page.on('websocket', note(sent));
  other.on('websocket', note(received));
  await open(page, '/connect');
  await open(other, '/connect');
  await page.getByRole('button', { name: /Grand master, / }).click();
  const fader = page.getByLabel('Grand master level');
  const levels = Array.from({ length: 20 }, (_, i) => (40 + i) / 100);
  // One after the other: twenty at once measure how fast this machine draws two pages.
  for (const level of levels) {
    await fader.fill(String(Math.round(level * 100)));
    await expect.poll(() => sent.has(level) && received.has(level), { intervals: [20] }).toBe(true);
  }
  await expect(other.getByTestId('master')).toHaveText('59');
  const waits = levels.map((level) => received.get(level)! - sent.get(level)!).sort((a, b) => a - b);
  // The middle one, as the machine that tests also runs both browsers.
  expect(waits[10]).toBeLessThan(100);
  await page.getByRole('button', { name: 'Grand master to full' }).click();
  await expect(other.getByTestId('master')).toHaveText('100');
});

test('the screen with the music stays the clock: another without it pauses, seeks and starts, and the sound follows', async ({
  page,
  other,
}) => {
  await rememberSounds(page);
  const heard = () =>
    page.evaluate(() => {
      const audio = window.sounding.at(-1)!;
      return { playing: !audio.paused, at: audio.currentTime };
    });
  await open(page, '/songs/paper-lighthouse');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect.poll(async () => (await heard()).at).toBeGreaterThan(1);

  // As on a phone that got the show through the conductor: the words and lanes, not the recordings.
  await other.addInitScript(() => {
    const get = IDBObjectStore.prototype.get;
    IDBObjectStore.prototype.get = function missing(key: IDBValidKey) {
      return get.call(this, String(key).startsWith('music:') ? 'nothing' : key);
    };
  });
  await open(other, '/songs/paper-lighthouse');
  const pause = async () => {
    await expect(other.getByTestId('health')).toHaveText(/sending/);
    await other.getByRole('button', { name: 'Pause' }).click();
    // What the other screen was told stands beside it, should the sound go on.
    const said = () => other.getByTestId('said').allTextContents();
    await expect.poll(async () => ({ ...(await heard()), said: await said() })).toMatchObject({ playing: false });
  };
  await pause();

  // From the middle, on the screen that has no music of it.
  await other.getByRole('button', { name: 'Bar 17', exact: true }).click();
  await other.getByRole('button', { name: 'Play from here' }).click();
  await expect.poll(async () => (await heard()).playing).toBe(true);
  const { at } = await heard();
  expect(at).toBeGreaterThan(34);
  await expect(other.getByTestId('position')).toHaveText(/0:(3[4-9]|4)/);
  await expect(other.getByText('is not in this browser')).toHaveCount(0);
  await pause();
});
