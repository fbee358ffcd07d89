// The steps of a chase: put in where they are wanted, copied and pasted there.

import type { Page } from '@playwright/test';
import { button, open, restoreShow } from './hovlix';
import { expect, test } from './screens';

test.afterEach(async ({ page }) => restoreShow(page));

const choose = (page: Page, step: number) =>
  page.getByRole('checkbox', { name: `Choose step ${step}`, exact: true }).click();
const steps = (page: Page) => page.locator('[data-step]');
const names = async (page: Page) =>
  (await steps(page).allInnerTexts()).map((text) => /\d+\. (.*)/.exec(text)?.[1] ?? text);

test('steps come before and after a chosen one, one after the other, and copies are pasted there', async ({ page }) => {
  await open(page, '/looks');
  await button(page, 'New chase').click();
  await button(page, 'Add a step').click();
  for (const look of ['Harbour blue', 'Lift']) await button(page, `Add ${look} as a step`).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
  expect(await names(page)).toEqual(['Harbour blue', 'Lift']);

  await choose(page, 2);
  await button(page, 'Add before').click();
  await expect(page.getByRole('dialog')).toContainText('Each becomes a step after step 1.');
  for (const look of ['Full sail', 'Embers']) await button(page, `Add ${look} as a step`).click();
  await expect(page.getByRole('dialog')).toContainText('Each becomes a step after step 3.');
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
  expect(await names(page)).toEqual(['Harbour blue', 'Full sail', 'Embers', 'Lift']);

  // Still the last one is chosen; what is copied goes after what is chosen then.
  await button(page, 'Copy').click();
  await choose(page, 4);
  await choose(page, 1);
  await button(page, 'Paste').click();
  expect(await names(page)).toEqual(['Harbour blue', 'Lift', 'Full sail', 'Embers', 'Lift']);
  await button(page, 'Add before').click();
  await expect(page.getByRole('dialog')).toContainText('Each becomes a step at the beginning.');
  await button(page, 'Add Lift as a step').click();
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
  await expect(steps(page)).toHaveCount(6);
  expect((await names(page))[0]).toBe('Lift');
});
