// Rehearsal: chosen bars come round again, slower if wanted; whoever leaves the song leaves that behind.

import type { Page } from '@playwright/test';
import { button, open, restoreConnections } from './hovlix';
import { expect, test } from './screens';

test.beforeEach(async ({ page }) => restoreConnections(page));
test.afterEach(async ({ page }) => restoreConnections(page));

/** Seconds of the music, as they are shown. */
async function place(page: Page): Promise<number> {
  const [, minutes, rest] = /(\d+):(\d+) \//.exec((await page.getByTestId('position').textContent())!)!;
  return Number(minutes) * 60 + Number(rest);
}

/** How long a second of the music takes, from one change of what is shown to the next; ten where it stands. */
async function secondTakes(page: Page): Promise<number> {
  return page.getByTestId('position').evaluate(
    (element) =>
      new Promise<number>((resolve) => {
        let [shown, changed] = [element.textContent, 0];
        const begun = performance.now();
        const look = () => {
          const now = performance.now();
          if (now - begun > 10_000) return resolve(10);
          requestAnimationFrame(look);
          if (element.textContent === shown) return;
          shown = element.textContent;
          if (changed > 0 && now - changed > 300) resolve((now - changed) / 1000);
          changed = now;
        };
        look();
      }),
  );
}

/** The music plays at its own speed: a busy machine plays some seconds slower. */
const playsAsItIs = (page: Page) =>
  expect.poll(() => secondTakes(page), { intervals: [0], timeout: 60_000 }).toBeLessThan(1.5);

test('two bars loop while they are worked on, at half speed too; left, the song plays as it is', async ({ page }) => {
  test.setTimeout(300_000);
  // Bars 5 and 6 at 112: from 8.6 s, for 4.3 s.
  await open(page, '/songs/paper-lighthouse');
  await button(page, 'Bar 5').click();
  await button(page, 'Bar 6').click();
  await button(page, 'Loop').click();
  await expect(page.getByTestId('loop')).toHaveText('5 – 6');
  const seen = new Set<number>();
  let rounds = 0;
  for (let last = 0; rounds < 2; await page.waitForTimeout(100)) {
    const now = await place(page);
    if (now < last - 1) rounds++;
    seen.add(now);
    last = now;
  }
  // The first look may come before the first bar sounds.
  expect([...seen].filter((at) => at > 0 && (at < 8 || at > 13))).toEqual([]);
  await playsAsItIs(page);
  await page.getByRole('group', { name: 'Speed of the music' }).getByRole('button', { name: '50 %' }).click();
  await expect.poll(() => secondTakes(page), { timeout: 60_000 }).toBeGreaterThan(1.6);

  // Without the loop the music goes on past its end; on another page at its own speed.
  await button(page, 'End the loop').click();
  await expect.poll(() => place(page), { timeout: 60_000 }).toBeGreaterThan(14);
  await button(page, 'All songs').click();
  await expect(page.getByRole('heading', { name: 'Songs', level: 1 })).toBeVisible();
  await page.getByRole('button', { name: 'Open Paper Lighthouse' }).click();
  await playsAsItIs(page);
  await expect(page.getByRole('group', { name: 'Speed of the music' })).toHaveCount(0);
});
