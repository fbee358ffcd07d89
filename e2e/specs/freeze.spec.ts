// Light that is frozen and let go, and sections that fade into one another, as a node hears them.

import type { Show } from '@hovlix/core/show';
import { button, listen, open, restoreConnections, restoreShow, type Heard } from './hovlix';
import { expect, test } from './screens';

test.beforeEach(async ({ page }) => restoreConnections(page));
test.afterEach(async ({ page }) => {
  await restoreShow(page);
  await restoreConnections(page);
});

/** How many different frames came. */
const different = (heard: readonly Heard[]) => new Set(heard.map(({ levels }) => String(levels))).size;

test('a key freezes the light while a song plays on; masters stay above it, and its mark lets go of it', async ({
  page,
}) => {
  await open(page, '/songs/night-ferry');
  await button(page, 'Play').click();
  await expect(page.getByTestId('position')).toHaveText(/0:0[3-9]/);
  expect(different(await listen(page, 2))).toBeGreaterThan(10);
  await page.keyboard.press('m');
  const mark = button(page, 'Light frozen. Release');
  await expect(mark).toBeVisible();
  await page.waitForTimeout(500);
  expect(different(await listen(page, 2))).toBe(1);
  // On every page, and on the one that is read from afar.
  await page.getByRole('link', { name: 'Gig' }).click();
  await button(page, 'On stage: lock, large letters, pedals').click();
  await button(page, 'Large letters').click();
  await expect(page.getByRole('heading', { name: 'FROZEN' })).toBeVisible();
  await button(page, 'Close').click();
  await page.keyboard.press('b');
  await expect
    .poll(async () =>
      (await listen(page, 0.3))
        .at(-1)!
        .levels.slice(24, 36)
        .some((level) => level > 0),
    )
    .toBe(false);
  await page.keyboard.press('b');
  await button(page, /^Grand master/).click();
  await button(page, 'All masters').click();
  const freeze = page.getByRole('switch', { name: 'Freeze the light' });
  await expect(freeze).toBeChecked();
  await page.getByRole('dialog', { name: 'Masters' }).getByRole('button', { name: 'Close' }).click();
  await mark.click();
  await expect(mark).toHaveCount(0);
  await page.waitForTimeout(800);
  expect(different(await listen(page, 2))).toBeGreaterThan(10);
});

/** Night Ferry as two sections: all washes full to bar 9, then dark. */
function twoSections(show: Show): Show {
  const wash = show.roles[0]!.id;
  const look = {
    ...show.looks[0]!,
    id: 'all-up' as Show['looks'][number]['id'],
    number: 900,
    name: 'All up',
    fadeIn: 0,
    fadeOut: 0,
    values: [{ role: wash, level: { type: 'hold', value: 1 } }],
  };
  const songs = show.songs.map((song) => ({
    ...song,
    sections: [
      { id: 'up', bar: 0, name: 'Up', tint: 0 },
      { id: 'down', bar: 8, name: 'Down', tint: 1 },
    ],
    lanes: [
      {
        id: 'l',
        name: 'Looks',
        type: 'looks',
        blend: 'highest',
        clips: [{ id: 'c', look: 'all-up', from: 0, to: 32 }],
      },
    ],
  }));
  return { ...show, looks: [...show.looks, look], songs } as unknown as Show;
}

for (const [choice, between] of [
  ['4 beats', true],
  ['Cuts', false],
] as const)
  test(`from section to section the light of the one that is left ${between ? 'fades over four beats' : 'cuts'}, as the set says`, async ({
    page,
  }) => {
    await restoreShow(page, twoSections);
    await open(page, '/gig');
    await button(page, 'Set list').click();
    await button(page, 'Change the set list').click();
    await page.getByRole('group', { name: 'Jump to sections' }).getByRole('button', { name: 'At once' }).click();
    await page.getByRole('group', { name: 'Light at a jump' }).getByRole('button', { name: choice }).click();
    await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
    await button(page, /^Play Paper/).click();
    await expect(button(page, 'Pause')).toBeVisible();
    await page.waitForTimeout(1500);
    const heard = await listen(page, 0.5, async () => {
      await page.waitForTimeout(500);
      await button(page, 'Go to Down').click();
      await page.waitForTimeout(3500);
    });
    const brightness = heard.map(({ at, levels }) => ({ at, sum: levels.reduce((sum, level) => sum + level, 0) }));
    const most = Math.max(...brightness.map(({ sum }) => sum));
    const least = Math.min(...brightness.map(({ sum }) => sum));
    expect(most).toBeGreaterThan(least + 200);
    const [high, low] = [most - (most - least) * 0.1, least + (most - least) * 0.1];
    // From the last frame that is bright to the first that is dark, by when they came: four beats at 112 are 2.1 s.
    const dark = brightness.findIndex(({ sum }) => sum < low);
    const bright = brightness.slice(0, dark).findLast(({ sum }) => sum > high)!;
    const took = brightness[dark]!.at - bright.at;
    if (between) expect(took).toBeGreaterThan(1);
    else expect(took).toBeLessThan(0.3);
    expect(brightness.at(-1)!.sum).toBe(least);
  });
