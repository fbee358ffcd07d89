// Lights by the clock: events made in a page or brought in from a calendar, done by the computer that conducts.

import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { eachAsItWas } from './as-it-was';
import { brightness, button, nodeReport, open, statusOf } from './hovlix';
import { expect, test } from './screens';

eachAsItWas();

/** The clock on the wall so many seconds from now, as a calendar writes it. */
function inSeconds(from: number): string {
  const at = new Date(Date.now() + from * 1000);
  const local = new Date(at.getTime() - at.getTimezoneOffset() * 60_000);
  return local.toISOString().replace(/[-:]|\.\d+Z/g, '');
}
const dayHere = () => inSeconds(0).replace(/^(\d{4})(\d\d)(\d\d)T.*/, '$1-$2-$3');
const event = (...lines: readonly string[]) => ['BEGIN:VEVENT', ...lines, 'END:VEVENT'];
const calendar = (...lines: readonly string[]) =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', ...lines, 'END:VCALENDAR', ''].join('\r\n');
const bring = (page: Page, text: string) =>
  page
    .getByLabel('Choose a calendar file')
    .setInputFiles({ name: 'house.ics', mimeType: 'text/calendar', buffer: Buffer.from(text) });
const row = (page: Page, name: string) =>
  page.getByRole('list', { name: 'Events' }).getByRole('listitem').filter({ hasText: name });
const said = (page: Page) => page.getByTestId('said');

test('a calendar is brought in: its event turns the look of its name on at the second, and off at its end, with no page open', async ({
  page,
  other,
}) => {
  await open(page, '/connect');
  await button(page, 'Follow the timetable').click();
  await page.getByRole('link', { name: 'Open timetable' }).click();
  await open(other, '/connect/timetable');
  // Long enough for a slow computer to show what comes.
  const begins = 12;
  await bring(
    page,
    calendar(
      ...event('UID:sail', 'SUMMARY:full sail', `DTSTART:${inSeconds(begins)}`, 'DURATION:PT12S'),
      ...event('UID:holiday', 'SUMMARY:Holiday', 'DTSTART;VALUE=DATE:20300101', 'DTEND;VALUE=DATE:20300201'),
    ),
  );
  await expect(said(page)).toContainText(
    '1 event from house.ics. “Holiday” was left out: it lasts longer than a week.',
  );
  await expect(row(other, 'full sail')).toContainText('Full sail');
  await expect(other.getByTestId('timetable-now')).toContainText('full sail begins today');
  expect(brightness((await nodeReport(other)).levels)).toBe(0);
  await page.goto('about:blank');
  await expect.poll(async () => brightness((await nodeReport(other)).levels)).toBeGreaterThan(300);
  await expect(other.getByTestId('timetable-now')).toContainText('On now: full sail');
  await expect(row(other, 'full sail')).toContainText('On now, until');
  const { timetable } = await statusOf(other);
  expect(timetable?.last).toMatchObject({ name: 'full sail', what: 'begins', did: 'Full sail' });
  await expect.poll(async () => brightness((await nodeReport(other)).levels), { timeout: 30_000 }).toBe(0);
  await expect(row(other, 'full sail')).toContainText('Over');
  await expect(other.getByTestId('timetable-now')).toContainText('Nothing is ahead.');
});

test('an event is made by its picture, repeats, skips a day, goes into a calendar, and comes back at another time with its light', async ({
  page,
}) => {
  await open(page, '/connect/timetable');
  await expect(page.getByText('Nothing happens by the clock yet.')).toBeVisible();
  await button(page, 'Add an event').click();
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('Name').fill('Foyer');
  // A Friday.
  await sheet.getByLabel('Day', { exact: true }).fill('2035-06-01');
  await sheet.getByLabel('Begins at').fill('19:30');
  await sheet.getByLabel('Ends at', { exact: true }).fill('01:00');
  await expect(sheet.getByText('Ends on the next day.')).toBeVisible();
  await sheet.getByRole('button', { name: 'Harbour blue', exact: true }).click();
  await expect(sheet.getByRole('group', { name: 'When it ends' })).toContainText('Harbour blue off');
  await sheet.getByRole('switch', { name: 'Every week' }).click();
  await sheet.getByRole('button', { name: 'Sa', exact: true }).click();
  await sheet.getByRole('button', { name: 'Skip Fri, 1 Jun 2035' }).click();
  await expect(sheet.getByRole('group', { name: 'Skipped days' })).toContainText('Fri, 1 Jun 2035');
  await sheet.getByRole('button', { name: 'Close' }).click();
  await expect(row(page, 'Foyer')).toContainText('Fri, Sat, 19:30–01:00');
  await expect(row(page, 'Foyer')).toContainText('Next: Sat, 2 Jun 2035 19:30');

  const saving = page.waitForEvent('download');
  await button(page, 'Save as calendar').click();
  const text = readFileSync(await (await saving).path(), 'utf8');
  expect(text).toContain('DTSTART:20350601T193000');
  expect(text).toContain('RRULE:FREQ=WEEKLY;BYDAY=FR,SA');
  expect(text).toContain('EXDATE:20350601T193000');
  await bring(page, text.replaceAll('T193000', 'T203000'));
  await expect(row(page, 'Foyer')).toHaveCount(1);
  await expect(row(page, 'Foyer')).toContainText('20:30–02:00');
  await expect(row(page, 'Foyer')).toContainText('Harbour blue');
  await button(page, 'Undo').click();
  await expect(row(page, 'Foyer')).toContainText('19:30–01:00');

  await open(page, '/gig/preflight');
  await expect(page.getByText('This computer does not follow the timetable.')).toBeVisible();
  await open(page, '/connect/timetable');
  await button(page, 'Change Foyer').click();
  await sheet.getByRole('button', { name: 'Remove this event' }).click();
  await expect(row(page, 'Foyer')).toHaveCount(0);
  await button(page, 'Undo').click();
  await expect(row(page, 'Foyer')).toHaveCount(1);
});

test('of an event that is on now, light comes on as its picture is touched, and goes off as it is taken out', async ({
  page,
}) => {
  await open(page, '/connect/timetable');
  await button(page, 'Follow the timetable').click();
  await button(page, 'Add an event').click();
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('Day', { exact: true }).fill(dayHere());
  await sheet.getByLabel('Begins at').fill('00:00');
  await sheet.getByLabel('Ends at', { exact: true }).fill('23:59');
  await sheet.getByRole('button', { name: 'Harbour blue', exact: true }).click();
  await expect.poll(async () => brightness((await nodeReport(page)).levels)).toBeGreaterThan(300);
  await expect(page.getByTestId('timetable-now')).toContainText('On now: Doors');
  await sheet.getByRole('button', { name: 'Remove this event' }).click();
  await expect.poll(async () => brightness((await nodeReport(page)).levels)).toBe(0);
});

test('what is no calendar is refused in words, and nothing is changed', async ({ page }) => {
  await open(page, '/connect/timetable');
  await bring(page, 'hello');
  await expect(said(page)).toContainText('“house.ics” is not a calendar Hovlix can read');
  await bring(page, calendar(...event('UID:x', 'SUMMARY:Bell', 'DTSTART:20350601T180000', 'RRULE:FREQ=HOURLY')));
  await expect(said(page)).toContainText('“Bell” was left out: it comes more often than once a day.');
  await expect(page.getByRole('list', { name: 'Events' })).toHaveCount(0);
});
