// A DJ with three hundred songs, and a hall with two hundred lamps: only what is in sight is on the page.

import type { Page } from '@playwright/test';
import type { Show } from '@hovlix/core/show';
import { open, restoreConnections, restoreShow } from './hovlix';
import { expect, test } from './screens';

test.afterEach(async ({ page }) => {
  await restoreShow(page);
  await restoreConnections(page);
});

const many = <T>(length: number, make: (n: number) => T): readonly T[] => Array.from({ length }, (_, n) => make(n + 1));

const bigShow = (show: Show): Show =>
  ({
    ...show,
    // All songs are the set where nobody made one.
    sets: [],
    songs: [
      ...show.songs,
      ...many(300, (n) => ({ ...show.songs[n % show.songs.length]!, id: `track-${n}`, title: `Track ${n}` })),
    ],
    looks: [
      ...show.looks,
      ...many(120, (n) => ({
        ...show.looks[n % show.looks.length]!,
        id: `look-${n}`,
        number: 500 + n,
        name: `Extra ${n}`,
      })),
    ],
    rigs: show.rigs.map((rig) =>
      rig.id === show.rig
        ? {
            ...rig,
            fixtures: [
              ...rig.fixtures,
              ...many(200, (n) => ({
                ...rig.fixtures[0]!,
                id: `more-${n}`,
                name: `Hall ${n}`,
                number: 1000 + n,
                universe: 10 + Math.floor(n / 60),
                address: 1 + (n % 60) * 8,
              })),
            ],
          }
        : rig,
    ),
  }) as unknown as Show;

/** Scrolls to the end of what scrolls on the page. */
const toTheEnd = (page: Page) =>
  page.locator('main').evaluate((main) => {
    for (const one of main.querySelectorAll('div'))
      if (one.scrollHeight > one.clientHeight + 400 && getComputedStyle(one).overflowY === 'auto')
        one.scrollTop = one.scrollHeight;
  });

test('of three hundred songs those in sight are there; the last is scrolled to, one is found, one is moved by keys', async ({
  page,
}) => {
  await restoreShow(page, bigShow);
  await open(page, '/songs');
  const rows = page.getByRole('button', { name: /^Open / });
  await expect(rows.first()).toBeVisible();
  await expect.poll(() => rows.count()).toBeLessThan(60);
  await expect(page.getByRole('button', { name: 'Open Track 300', exact: true })).toHaveCount(0);
  await expect
    .poll(async () => {
      await toTheEnd(page);
      return page.getByRole('button', { name: 'Open Track 300', exact: true }).count();
    })
    .toBe(1);
  expect(await rows.count()).toBeLessThan(60);

  // With the keys the last but one goes to the end.
  const handle = page.getByRole('button', { name: 'Move Track 299', exact: true });
  await handle.focus();
  await page.keyboard.press('Enter');
  await page.waitForTimeout(300);
  await page.keyboard.press('ArrowDown');
  await page.waitForTimeout(300);
  await page.keyboard.press('Enter');
  const numberOf = (title: string) => page.getByRole('button', { name: `Open ${title}`, exact: true });
  await expect(numberOf('Track 299')).toContainText('304');
  await expect(numberOf('Track 300')).toContainText('303');

  await page.getByRole('button', { name: 'Search the songs' }).click();
  await page.getByLabel('Search the songs by title or artist').fill('track 217');
  await expect(rows).toHaveText([/Track 217/]);
});

test('of two hundred lamps those in sight are there; the last is scrolled to and chosen', async ({ page }) => {
  await restoreShow(page, bigShow);
  await open(page, '/rig');
  await page.getByRole('button', { name: 'List', exact: true }).click();
  const rows = page.getByRole('button', { name: /^(\d+ )?Hall \d+/ });
  const last = rows.filter({ hasText: 'Hall 200' });
  await expect
    .poll(async () => {
      await toTheEnd(page);
      return last.count();
    })
    .toBe(1);
  expect(await rows.count()).toBeLessThan(60);
  await last.click();
  await expect(page.getByRole('button', { name: 'Flash this lamp' })).toBeVisible();
});

test('of a hundred and twenty more looks the first screens are there, and the rest as one scrolls', async ({
  page,
}) => {
  await restoreShow(page, bigShow);
  await open(page, '/looks');
  const last = page.getByText('Extra 120', { exact: true });
  await expect(page.getByText('Harbour blue', { exact: true }).first()).toBeVisible();
  await expect(last).toHaveCount(0);
  await expect
    .poll(async () => {
      await toTheEnd(page);
      return last.count();
    })
    .toBe(1);
  await page.getByRole('button', { name: /^Search/ }).click();
  await page.getByRole('main').getByRole('textbox').fill('extra 77');
  await expect(page.getByText('Extra 77', { exact: true })).toBeVisible();
  await expect(page.getByText('Extra 78', { exact: true })).toHaveCount(0);
});

test('a set of three hundred songs: the last one is gone to, with what is in sight on the page', async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await restoreShow(page, bigShow);
  await open(page, '/gig');
  const rows = page.getByRole('list', { name: 'Set list' }).getByRole('button');
  await expect(rows.first()).toBeVisible();
  await expect.poll(() => rows.count()).toBeLessThan(60);
  const last = page.getByRole('button', { name: 'Go to Track 300', exact: true });
  await expect
    .poll(async () => {
      await toTheEnd(page);
      return last.count();
    })
    .toBe(1);
  await last.click();
  await expect(page.getByRole('heading', { name: 'Track 300', level: 1 })).toBeVisible();
  await expect(last).toHaveAttribute('aria-current', 'true');
});
