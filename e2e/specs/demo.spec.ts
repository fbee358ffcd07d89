import { nodeReport, open, stageBrightness } from './hovlix';
import { expect, test } from './screens';
import { rememberSounds } from './sounding';

test('a new user opens it, plays Paper Lighthouse, and light, sheet, beat and node follow the music', async ({
  page,
}) => {
  const errors: string[] = [];
  page.on(
    'console',
    (message) => message.type() === 'error' && errors.push(`${message.text()} ${message.location().url}`),
  );
  await open(page, '/');
  await expect(page).toHaveURL(/\/songs$/);
  await expect(page.getByText('Friday at the Boathouse')).toBeVisible();
  await page.getByRole('button', { name: 'Open Paper Lighthouse' }).click();
  await expect(page.getByRole('heading', { name: 'Paper Lighthouse' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Intro' })).toBeVisible();

  // From the chorus on, where much happens.
  await page.getByRole('button', { name: 'Bar 17', exact: true }).click();
  const before = await nodeReport(page);
  await page.getByRole('button', { name: 'Play from here' }).click();
  await page.getByRole('button', { name: 'Clear selection' }).click();
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();

  // Music sounds: the decoded audio element moves on.
  const position = page.getByTestId('position');
  await expect(position).toHaveText(/0:3[7-9]/);
  // The pin stands on the line that sounds, and goes on to the next one.
  const sounding = page.locator('[data-sounding="true"] [data-pin]');
  await expect(sounding).toHaveAttribute('data-first', '16');
  // The pulse bar's dots beat: each of the four is lit in turn.
  await expect(page.getByTestId('bpm')).toHaveText('112.0');
  for (const dot of [0, 1, 2, 3])
    await expect(page.getByTestId('dots').locator('span').nth(dot)).toHaveAttribute('data-on', 'true');
  // The stage is lit, and not always the same.
  const pictures = new Set<number>();
  // Looked at often: once a second would keep step with lights that change about once a second.
  await expect
    .poll(async () => pictures.add(Math.round((await stageBrightness(page)) * 10)).size, { intervals: [170] })
    .toBeGreaterThan(4);
  expect(Math.max(...pictures)).toBeGreaterThan(100);
  await expect(sounding).toHaveAttribute('data-first', '20');

  // Real packets arrived at the node, 44 a second, and changed with the music.
  await expect.poll(async () => (await nodeReport(page)).framesPerSecond).toBeGreaterThan(42);
  const after = await nodeReport(page);
  expect(after.changes - before.changes).toBeGreaterThan(40);
  expect(Math.max(...after.levels.slice(0, 36))).toBeGreaterThan(100);

  await page.getByRole('link', { name: 'Connect' }).click();
  await expect(page.getByTestId('node-rate')).toHaveText(/4[34]/);
  await expect(page.getByText('Universe 1 arrives')).toBeVisible();
  await expect(page.getByText('The Hovlix server conducts')).toBeVisible();
  expect(errors).toEqual([]);
});

/** How often the sound itself strays from an even clock in so many seconds, by 8 ms: where a machine leaves it no time it stumbles. */
const straysIn = (seconds: number) =>
  new Promise<number>((resolve) => {
    const heard = window.sounding.at(-1)!;
    const ahead = () => heard.currentTime - performance.now() / 1000;
    const end = heard.currentTime + seconds;
    let even = ahead();
    let strays = 0;
    const looking = setInterval(() => {
      if (Math.abs(ahead() - even) > 0.008) {
        strays++;
        even = ahead();
      }
      if (heard.currentTime < end) return;
      clearInterval(looking);
      resolve(strays);
    }, 20);
  });

test('light stays with the sound: once it runs, it hardly ever strays by the 8 ms that call for a correction', async ({
  page,
}) => {
  await rememberSounds(page);
  const entries: { songTime: number; at: number }[] = [];
  page.on('websocket', (socket) =>
    socket.on('framereceived', ({ payload }) => {
      const message = JSON.parse(String(payload));
      for (const { action } of message.entries ?? []) if (action.type === 'anchor') entries.push(action);
    }),
  );
  await open(page, '/songs/night-ferry');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  const audioTime = () => page.evaluate(() => window.sounding.at(-1)!.currentTime);
  await expect.poll(audioTime).toBeGreaterThan(4);
  // Corrections are rare once it runs: the clock and the sound agree by themselves.
  const corrections = entries.length;
  const strays = await page.evaluate(straysIn, 4);
  expect(entries.length - corrections).toBeLessThan(6 + strays);
  await page.getByRole('button', { name: 'Pause' }).click();
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
});

test('closing the page changes nothing on stage, and the next one sees the song going on', async ({ page, other }) => {
  await open(page, '/songs/paper-lighthouse');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(page.getByTestId('position')).toHaveText(/0:0[2-9]/);
  await page.close();
  await open(other, '/songs/paper-lighthouse');
  await expect(other.getByRole('button', { name: 'Pause' })).toBeVisible();
  await expect(other.getByTestId('position')).toHaveText(/0:(0[5-9]|1)/);
  await other.getByRole('button', { name: 'Pause' }).click();
});
