import { stageBrightness } from './hovlix';
import { startStatic } from './static-host';
import { expect, test } from './screens';

let host: Awaited<ReturnType<typeof startStatic>>;
let base: string;

test.beforeAll(async () => {
  host = await startStatic();
  base = host.base;
});
test.afterAll(() => host.stop());

test('without the server everything but output works, and it says so', async ({ page }) => {
  await page.goto(base);
  await expect(page.getByTestId('health')).toHaveText('no output: this browser only');
  await page.getByRole('button', { name: 'Open Night Ferry' }).click();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(page.getByTestId('position')).toHaveText(/0:0[2-9]/);
  await expect.poll(() => stageBrightness(page)).toBeGreaterThan(12);
  await page.getByRole('button', { name: 'Pause' }).click();
  await page.getByRole('link', { name: 'Connect' }).click();
  await expect(page.getByText('This browser conducts by itself')).toBeVisible();
  // Deep links survive a reload here too, and looks, blackout and master act.
  await page.goto(`${base}/looks`);
  await expect(page.getByRole('button', { name: 'House warm, off' })).toBeVisible();
  const dark = await stageBrightness(page);
  await page.getByRole('button', { name: 'House warm, off' }).click();
  await expect.poll(() => stageBrightness(page)).toBeGreaterThan(dark + 3);
  await page.getByRole('button', { name: 'Blackout' }).click();
  await expect.poll(() => stageBrightness(page)).toBeLessThan(dark + 1);
});

test('an edit is kept although the page goes without a goodbye right after it', async ({ page, context }) => {
  await page.goto(`${base}/songs/low-tide-engine`);
  await page.getByRole('button', { name: 'Bar 3', exact: true }).click();
  await page.getByRole('button', { name: 'Lay Moonrise' }).click();
  await expect(page.locator('[data-clip="Moonrise"]')).toHaveCount(1);
  // The page is torn down at once; no unload handler runs, and no server holds a copy.
  await page.close({ runBeforeUnload: false });
  const again = await context.newPage();
  await again.goto(`${base}/songs/low-tide-engine`);
  await expect(again.locator('[data-clip="Moonrise"]')).toHaveCount(1);
  await again.keyboard.press('Control+z');
  await expect(again.locator('[data-clip="Moonrise"]')).toHaveCount(0);
});

test('an edit is kept although the page is closed while it still draws it', async ({ page, context }) => {
  await page.goto(`${base}/songs/low-tide-engine`);
  const lay = page.getByRole('button', { name: 'Lay Moonrise' });
  const clips = page.locator('[data-clip="Moonrise"]');
  await page.getByRole('button', { name: 'Bar 3', exact: true }).click();
  await lay.click();
  await expect(clips).toHaveCount(1);
  // The first edit of a show writes all of it.
  await page.waitForTimeout(1000);
  await page.getByRole('button', { name: 'Bar 7', exact: true }).click();
  await lay.waitFor();
  await page.evaluate(() => {
    const busy = () => {
      if (document.querySelectorAll('[data-clip="Moonrise"]').length < 2) return;
      setTimeout(() => {
        for (const until = performance.now() + 5000; performance.now() < until;);
      });
    };
    new MutationObserver(busy).observe(document.body, { childList: true, subtree: true });
  });
  void lay.click().catch(() => undefined);
  await new Promise((resolve) => setTimeout(resolve, 1500));
  await page.close({ runBeforeUnload: false });
  const again = await context.newPage();
  await again.goto(`${base}/songs/low-tide-engine`);
  await expect(again.locator('[data-clip="Moonrise"]')).toHaveCount(2);
});
