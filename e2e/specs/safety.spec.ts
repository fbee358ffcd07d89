// Flash safety: on in a new show, told where it acts, turned off by holding only.

import { button, gaps, listen, lookIs, middle, open, restoreConnections, restoreShow, tab, typed } from './hovlix';
import { expect, test } from './screens';

test.beforeEach(async ({ page }) => restoreConnections(page));
test.afterEach(async ({ page }) => {
  await restoreShow(page);
  await restoreConnections(page);
});

test('a look that flashes too often is held back, told in the report, and let go of only by holding', async ({
  page,
}) => {
  test.setTimeout(180_000);
  // All of the back and front wash, on and off four times a second.
  await open(page, '/looks/new');
  for (const role of ['Front wash', 'Back wash']) {
    await button(page, role).click();
    await tab(page, 'Waves').click();
    await page.getByRole('group', { name: 'Add a wave on' }).getByRole('button', { name: 'Level' }).click();
    await button(page, 'Square').click();
    await page.getByRole('group', { name: 'Beats per cycle' }).getByRole('button', { name: '1/2 beat' }).click();
    await typed(page, 'Offset across lamps', '0');
  }
  await button(page, 'Store').click();
  const sheet = page.getByRole('dialog', { name: 'Store a look' });
  await sheet.getByLabel('Name').fill('Hammer');
  await sheet.getByRole('button', { name: 'Store the look' }).click();
  await lookIs(page, 'Hammer', true);
  const flashes = async () => gaps(await listen(page, 5), (levels) => levels[0]! > 127);
  // Whatever tempo was tapped before: half a beat between flashes is doubled until no two are within a third of a second.
  const beat = 60 / Number(await page.getByTestId('bpm').textContent());
  let slower = beat / 2;
  while (slower < 1 / 3) slower *= 2;
  const held = await flashes();
  expect(middle(held)).toBeCloseTo(slower, 1);
  expect(Math.min(...held)).toBeGreaterThan(0.3);

  await open(page, '/gig/flashes');
  await expect(page.getByRole('heading', { name: 'On: at most 3 flashes a second' })).toBeVisible();
  await button(page, 'Count the flashes of this show').click();
  await expect(page.getByRole('group', { name: 'Hammer' })).toContainText('4 a second, held to 2', { timeout: 90_000 });

  // A tap is not enough; nothing is said beside the output while it is on.
  await expect(button(page, 'Flash safety: flashes not limited')).toHaveCount(0);
  await button(page, 'Hold to turn it off').click();
  await expect(page.getByRole('heading', { name: 'On: at most 3 flashes a second' })).toBeVisible();
  await button(page, 'Hold to turn it off').click({ delay: 900 });
  await expect(page.getByRole('heading', { name: 'Off: flashes are not limited' })).toBeVisible();
  await expect(page.getByText('The show has changed since it was counted.')).toBeVisible();
  await expect(button(page, 'Flash safety: flashes not limited')).toBeVisible();
  expect(middle(await flashes())).toBeCloseTo(beat / 2, 1);
  await page.getByRole('link', { name: 'Songs' }).click();
  await button(page, 'Flash safety: flashes not limited').click();
  await button(page, 'Turn it on').click();
  await expect(button(page, 'Flash safety: flashes not limited')).toHaveCount(0);
});
