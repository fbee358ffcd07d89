import { zipSync } from 'fflate';
import type { Page } from '@playwright/test';
import { bring, clickTrack, nodeReport, open } from './hovlix';
import { expect, test } from './screens';

const text = (value: string) => Buffer.from(value);
const zip = (entries: Record<string, Uint8Array>) => Buffer.from(zipSync(entries));
const manifest = (version: number) => text(JSON.stringify({ format: 'hovlix', version }));

async function refused(page: Page, name: string, buffer: Buffer, sentence: RegExp): Promise<void> {
  await bring(page, name, buffer);
  await expect(page.getByRole('alert')).toContainText(sentence);
  // The rest goes on: the songs are still there, the light still goes out.
  await expect(page.getByRole('button', { name: 'Open Paper Lighthouse' })).toBeVisible();
  await page.getByRole('button', { name: 'OK' }).click();
  await expect(page.getByRole('alert')).toHaveText([]);
}

test('bad music: each file gets one clear sentence', async ({ page }) => {
  await open(page, '/songs');
  await refused(page, 'empty.wav', Buffer.alloc(0), /“empty\.wav” is empty/);
  await refused(
    page,
    'letter.mp3',
    text('Dear friends, tonight we play at the boathouse.'),
    /not music Hovlix can read/,
  );
  await refused(page, 'cut.wav', clickTrack().subarray(0, 30), /cut short/);
  await refused(page, 'blip.wav', clickTrack({ seconds: 1 }).subarray(0, 44 + 13230), /lasts only 0\.3 s/);
  await refused(page, 'broken.flac', text('fLaC' + '\0'.repeat(90)), /“broken\.flac”/);
});

test('odd but good music comes in: mono at 8 kHz', async ({ page }) => {
  await open(page, '/songs');
  await bring(page, 'phone memo.wav', clickTrack({ bpm: 120, rate: 8000, seconds: 16 }));
  await expect(page.getByRole('heading', { name: 'phone memo' })).toBeVisible();
  await expect(page.getByTestId('bpm')).toHaveText(/^(120\.\d|119\.[89])$/);
});

test('bad shows: each file gets one clear sentence', async ({ page }) => {
  await open(page, '/songs');
  await refused(page, 'letter.hovlix', text('Dear friends'), /not a Hovlix show: it is not a zip file/);
  await refused(page, 'empty.hovlix', zip({ 'hovlix.json': manifest(1) }), /“show\.json” is missing/);
  await refused(page, 'newer.hovlix', zip({ 'hovlix.json': manifest(9) }), /saved by a newer Hovlix \(format 9/);
  await refused(
    page,
    'climb.hovlix',
    zip({ 'hovlix.json': manifest(1), '../outside.json': text('1') }),
    /points outside/,
  );
  await refused(
    page,
    'odd.hovlix',
    zip({ 'hovlix.json': manifest(1), 'show.json': text('{"format":"hovlix-show","version":1}') }),
    /cannot use, at/,
  );
});

test('a message that fails its schema is refused, and output goes on', async ({ page }) => {
  await open(page, '/connect');
  const answers = await page.evaluate(
    () =>
      new Promise<string[]>((resolve) => {
        const heard: string[] = [];
        const socket = new WebSocket(`ws://${location.host}/conductor`);
        socket.onmessage = (event) => heard.push(String(event.data)) === 3 && resolve(heard);
        socket.onopen = () =>
          ['rubbish', '{"type":"act"}', '{"type":"act","action":{"type":"master","level":99}}'].forEach((one) =>
            socket.send(one),
          );
      }),
  );
  for (const answer of answers) expect(JSON.parse(answer).type).toBe('refused');
  await expect.poll(async () => (await nodeReport(page)).framesPerSecond).toBeGreaterThan(42);
});

test('storage full: it is said, what is on screen stays, and editing goes on', async ({ page }) => {
  await page.addInitScript(() => {
    // The browser refuses every write from the moment the test says so, as it does when the disk is full.
    const put = IDBObjectStore.prototype.put;
    IDBObjectStore.prototype.put = function refuse(...args: Parameters<typeof put>) {
      if ((window as unknown as { full?: boolean }).full)
        throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
      return put.apply(this, args);
    };
  });
  // The demo's music, which comes a moment after its show, would find no room either and say so.
  await page.route('/demo/music/**', (route) => route.abort());
  await open(page, '/songs/paper-lighthouse');
  await page.getByRole('button', { name: 'Bar 1', exact: true }).click();
  await page.evaluate(() => void ((window as unknown as { full: boolean }).full = true));
  await page.getByRole('button', { name: 'Lay Embers' }).click();
  await expect(page.getByRole('alert')).toContainText('no room left');
  await expect(page.locator('[data-clip="Embers"]')).toHaveCount(1);
  await page.evaluate(() => void ((window as unknown as { full: boolean }).full = false));
  await page.keyboard.press('Control+Z');
  await expect(page.locator('[data-clip="Embers"]')).toHaveCount(0);
  await expect(page.getByRole('alert')).toHaveText([]);
});
