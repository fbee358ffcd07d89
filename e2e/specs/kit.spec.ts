// The page of samples: each piece in both themes, by finger and by keyboard.

import type { Page } from '@playwright/test';
import { button, open, tooSmall, typed } from './hovlix';
import { expect, test } from './screens';
import { stumbles } from './stumbles';

const theme = (page: Page, chosen: 'night' | 'day') =>
  page.addInitScript((one) => localStorage.setItem('hovlix-habits-1', JSON.stringify({ theme: one })), chosen);

for (const chosen of ['night', 'day'] as const)
  test(`each piece by ${chosen}: large enough, and nothing a reader would stumble over`, async ({ page }, info) => {
    await theme(page, chosen);
    await page.setViewportSize({ width: 390, height: 2400 });
    await open(page, '/kit');
    await expect(page.getByRole('heading', { name: 'Pieces' })).toBeVisible();
    expect(await stumbles(page)).toEqual([]);
    expect(await tooSmall(page)).toEqual([]);
    await info.attach(`kit by ${chosen}`, { body: await page.screenshot(), contentType: 'image/png' });
  });

test('by keyboard each piece does what it is for', async ({ page }) => {
  await open(page, '/kit');
  const plain = button(page, 'Plain');
  await plain.focus();
  await page.keyboard.press('Enter');
  await expect(button(page, 'Pressed')).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('group', { name: 'One of few' }).getByRole('button', { name: 'Green' }).press('Enter');
  await expect(page.getByLabel('One of many')).toHaveValue('green');
  await expect(
    page.getByRole('group', { name: 'One after the other' }).getByRole('button', { name: 'Green' }),
  ).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('switch', { name: 'On or off' }).press('Enter');
  await expect(page.getByRole('switch', { name: 'On or off' })).toHaveAttribute('aria-checked', 'false');
  const level = page.getByRole('slider', { name: 'Level', exact: true });
  await level.press('ArrowRight');
  await expect(level).toHaveAttribute('aria-valuenow', '65');
  await level.press('End');
  await expect(level).toHaveAttribute('aria-valuenow', '100');
  await typed(page, 'Level', '12');
  await expect(level).toHaveAttribute('aria-valuenow', '12');
  await button(page, 'Fade in longer').press('Enter');
  await expect(page.getByText('8 beats')).toBeVisible();
  // A press is too short; held it is done, once.
  const hold = button(page, 'Press and hold');
  await hold.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('held')).toHaveText('Held 0 times.');
  await page.keyboard.down('Enter');
  await expect(page.getByTestId('held')).toHaveText('Held 1 times.');
  await page.keyboard.up('Enter');
  // What cannot be is said beside it, and what was there stays.
  await page.getByLabel('Bars', { exact: true }).fill('99');
  await page.keyboard.press('Enter');
  await expect(page.getByText('1 to 64').or(page.getByText('from 1 to 64')).first()).toBeVisible();
  await expect(page.getByText('64 beats')).toBeVisible();
});

test('Tab comes to a choice once, and arrows go along it', async ({ page }) => {
  await open(page, '/kit');
  const few = page.getByRole('group', { name: 'One of few' });
  const tabs = page.getByRole('tablist', { name: 'Tabs' });
  for (const [row, role] of [
    [few, 'button'],
    [tabs, 'tab'],
  ] as const) {
    const one = (name: string) => row.getByRole(role, { name, exact: true });
    await one('Green').click();
    await page.keyboard.press('ArrowRight');
    await expect(one('Blue')).toBeFocused();
    await page.keyboard.press('ArrowRight');
    await expect(one('Red')).toBeFocused();
    await page.keyboard.press('Enter');
    await expect(page.getByLabel('One of many')).toHaveValue('red');
    await page.keyboard.press('Tab');
    await expect(row.locator(':focus')).toHaveCount(0);
    await page.keyboard.press('Shift+Tab');
    await expect(one('Red')).toBeFocused();
  }
});

test('a form with something wrong is not sent: the line says why, keeps what was typed, and gets the focus', async ({
  page,
}) => {
  await open(page, '/kit');
  const [title, bars] = [page.getByLabel('Title', { exact: true }), page.getByLabel('Length in bars')];
  await bars.fill('9');
  await title.fill('');
  await expect(page.getByText('A name, please.')).toBeVisible();
  await button(page, 'Send').click();
  await expect(title).toBeFocused();
  await expect(title).toHaveAttribute('aria-invalid', 'true');
  await expect(page.getByText(/was sent/)).toHaveCount(0);
  await title.fill('Low tide');
  await expect(page.getByText('A name, please.')).toHaveCount(0);
  await title.press('Enter');
  await expect(page.getByText('Low tide, 9 bars, was sent.')).toBeVisible();
});
