// Pedals, keys and MIDI: learned by touching them, told apart, tried, and what is done is done to the light.

import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { readLog, reduced } from '@hovlix/core/live';
import { stepOn } from './feet';
import { addAct, bindKey, brightness, button, nodeReport, open, restoreConnections, restoreShow } from './hovlix';
import { expect, test } from './screens';

test.beforeEach(async ({ page }) => {
  await restoreConnections(page);
  // The set is where nobody has been in it yet.
  await restoreShow(page);
});
test.afterEach(async ({ page }) => {
  await restoreConnections(page);
  await restoreShow(page);
});

const light = async (page: Page) => brightness((await nodeReport(page)).levels);
const back = async (page: Page) => (await nodeReport(page)).levels.slice(24, 36).reduce((sum, level) => sum + level, 0);
const sheet = (page: Page) => page.getByRole('dialog');

/** Two MIDI devices that can be plugged in and pulled out, as a browser shows them. */
async function withMidi(page: Page): Promise<(device: string, ...bytes: number[]) => Promise<void>> {
  await page.addInitScript(() => {
    type Port = { name: string; onmidimessage: ((event: { data: Uint8Array }) => void) | null };
    const port = (name: string): Port => ({ name, onmidimessage: null });
    const inputs = new Map([
      ['a', port('Floor board')],
      ['b', port('Keys')],
    ]);
    const access = { inputs, outputs: new Map(), onstatechange: null as (() => void) | null };
    navigator.requestMIDIAccess = async () => access as unknown as MIDIAccess;
    Object.assign(window, {
      send: (device: string, bytes: number[]) => {
        for (const one of inputs.values())
          if (one.name === device) one.onmidimessage?.({ data: Uint8Array.from(bytes) });
      },
      plug: (name: string, there: boolean) => {
        for (const [key, one] of [...inputs]) if (one.name === name) inputs.delete(key);
        if (there) inputs.set(`${name} again`, port(name));
        access.onstatechange?.();
      },
    });
  });
  return (device, ...bytes) =>
    page.evaluate(
      ([name, data]) => (window as unknown as { send: (device: string, all: number[]) => void }).send(name, data),
      [device, bytes] as const,
    );
}
const plug = (page: Page, name: string, there: boolean) =>
  page.evaluate(
    ([which, is]) => (window as unknown as { plug: (name: string, there: boolean) => void }).plug(which, is),
    [name, there] as const,
  );

test('a pedal of two switches: learned by stepping on it, tried, and played on any page', async ({ page }) => {
  await open(page, '/gig/pedals');
  await button(page, 'Pedal with 2 switches').click();
  await expect(page.getByText('not learned yet')).toHaveCount(2);
  for (const [name, key, word] of [
    ['Left', 'F7', 'key F7'],
    ['Right', 'PageDown', 'key Page Down'],
  ] as const) {
    await button(page, `Change ${name}`).click();
    await button(page, 'Learn').click();
    await expect(page.getByTestId('source')).toHaveText('Step on it now …');
    await page.keyboard.press(key);
    await expect(page.getByTestId('source')).toHaveText(word);
    await sheet(page).getByRole('button', { name: 'Close' }).click();
  }
  // Two switches on one key are told; one of them is removed.
  await expect(page.getByRole('alert')).toHaveText('“Foot” and “Right” both hear key Page Down: one press does both.');
  await button(page, 'Change Foot').click();
  await button(page, 'Remove this control').click();
  await expect(page.getByRole('alert')).toHaveCount(0);

  // The trainer shows what was meant, and fits its times to the foot.
  await button(page, 'Settings of Pedal 2').click();
  await expect(page.getByTestId('recognised')).toHaveText('Waiting for your foot');
  await page.keyboard.press('F7', { delay: 950 });
  await expect(page.getByTestId('recognised')).toHaveText('Hold: Left');
  await expect.poll(() => page.getByText('Blackout: all dark').count()).toBe(1);
  await page.keyboard.press('F7', { delay: 950 });
  await expect(page.getByText('Blackout: all dark')).toHaveCount(0);
  for (let i = 0; i < 4; i++) {
    await stepOn(page, 'F7', [0, 300]);
    await page.waitForTimeout(700);
  }
  await page.getByRole('button', { name: /^Use times that fit/ }).click();
  await expect(page.getByRole('textbox', { name: 'A hold is longer than, typed' })).not.toHaveValue('700');
  await sheet(page).getByRole('button', { name: 'Close' }).click();

  // It works in any place.
  await page.getByRole('link', { name: 'Looks' }).click();
  await page.keyboard.press('PageDown');
  await page.getByRole('link', { name: 'Gig', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Paper Lighthouse', level: 1 })).toBeVisible();
  await expect.poll(() => back(page)).toBeGreaterThan(300);
  await expect(button(page, 'Right: Play Paper Lighthouse')).toBeVisible();
});

test('MIDI: notes, programs with banks, a knob that does not jump, a device pulled out and plugged in again', async ({
  page,
}) => {
  const send = await withMidi(page);
  await open(page, '/gig/pedals');
  await page.getByRole('switch', { name: 'MIDI of this screen' }).click();
  await expect(page.getByText('Listens to Floor board, Keys.')).toBeVisible();
  await button(page, 'Add a switch or key').click();
  await button(page, 'Learn').click();
  await send('Floor board', 0x99, 36, 100);
  await expect(page.getByTestId('source')).toHaveText('note 36 (C2), channel 10, Floor board');
  await send('Floor board', 0x89, 36, 0);
  await expect(page.getByTestId('when')).toHaveText('');
  await addAct(page, 'Press', 'harbour blue held', 'Harbour blue while held');
  await expect(page.getByTestId('when')).toHaveText('A press acts at once.');
  await sheet(page).getByRole('button', { name: 'Close' }).click();
  // Held as long as the note is; the same note of another device is none of it.
  await send('Keys', 0x99, 36, 100);
  await page.waitForTimeout(200);
  expect(await light(page)).toBe(0);
  await send('Floor board', 0x99, 36, 100);
  await expect.poll(() => back(page)).toBeGreaterThan(300);
  await send('Floor board', 0x99, 36, 0);
  await expect.poll(() => light(page)).toBe(0);
  // Pulled out with the foot on it, it lets go.
  await send('Floor board', 0x99, 36, 100);
  await expect.poll(() => back(page)).toBeGreaterThan(300);
  await plug(page, 'Floor board', false);
  await expect(page.getByText('Listens to Keys.')).toBeVisible();
  await expect.poll(() => light(page)).toBe(0);
  await plug(page, 'Floor board', true);
  await send('Floor board', 0x99, 36, 100);
  await expect.poll(() => back(page)).toBeGreaterThan(300);
  await send('Floor board', 0x89, 36, 0);
  await expect.poll(() => light(page)).toBe(0);

  // A program with its bank, typed as gear prints it; the number from 0 is said beside it.
  await button(page, 'Add a switch or key').click();
  await button(page, 'By program number').click();
  await page.getByLabel('Program, from 1').fill('6');
  await page.keyboard.press('Enter');
  await page.getByLabel('Bank', { exact: true }).fill('131');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('source')).toHaveText('program 6 (from 0: 5), bank 131, any channel');
  await addAct(page, 'Press', 'blackout on', 'Blackout on');
  await sheet(page).getByRole('button', { name: 'Close' }).click();
  await send('Keys', 0xc0, 5);
  await page.waitForTimeout(200);
  await expect(page.getByText('Blackout: all dark')).toHaveCount(0);
  for (const bytes of [
    [0xb0, 0, 1],
    [0xb0, 32, 3],
    [0xc0, 5],
  ])
    await send('Keys', ...bytes);
  await expect(page.getByText('Blackout: all dark')).toBeVisible();
  await page.keyboard.press('b');

  // A knob takes hold of the grand master where that stands, and moves it from there.
  await button(page, 'Add a knob').click();
  await button(page, 'Learn').click();
  await send('Keys', 0xb0, 7, 20);
  await expect(page.getByTestId('source')).toHaveText('control 7, channel 1, Keys');
  await sheet(page).getByRole('button', { name: 'Close' }).click();
  await send('Keys', 0xb0, 7, 30);
  await page.waitForTimeout(150);
  await expect(page.getByTestId('master')).toHaveText('100');
  for (const value of [80, 110, 126, 100, 64]) await send('Keys', 0xb0, 7, value);
  await expect(page.getByTestId('master')).toHaveText('50');

  // Reloaded, it listens again without being asked, and a storm of messages leaves it alive.
  await page.reload();
  await expect(page.getByText('Listens to Floor board, Keys.')).toBeVisible();
  await page.evaluate(() => {
    const { send: say } = window as unknown as { send: (device: string, all: number[]) => void };
    for (let i = 0; i < 10_000; i++)
      say('Keys', [[0xb0, 7, i % 128], [0xf0, 1, 2, 3, 0xf7], [0xf8], [0x99, 200, 5], []][i % 5]!);
    say('Keys', [0xb0, 7, 127]);
  });
  await send('Keys', 0xb0, 7, 127);
  await expect(page.getByTestId('master')).toHaveText('100');
  await send('Floor board', 0x99, 36, 100);
  await expect.poll(() => back(page)).toBeGreaterThan(300);
  await send('Floor board', 0x89, 36, 0);
  await expect.poll(async () => (await nodeReport(page)).framesPerSecond).toBeGreaterThan(35);
});

test('a clock from outside leads the tempo, and starts and stops the song that is next', async ({ page }) => {
  const send = await withMidi(page);
  await open(page, '/gig/pedals');
  await page.getByRole('switch', { name: 'MIDI of this screen' }).click();
  await page
    .getByRole('group', { name: 'MIDI clock from outside leads' })
    .getByRole('button', { name: 'Tempo and songs' })
    .click();
  await expect(page.getByTestId('clock')).toHaveText('No clock comes in.');
  // 100 beats a minute from another device: 40 ticks a second.
  await page.evaluate(() => {
    const { send: say } = window as unknown as { send: (device: string, all: number[]) => void };
    const begun = performance.now();
    let told = 0;
    Object.assign(window, {
      ticking: setInterval(() => {
        for (; told < (performance.now() - begun) / 25; told++) say('Keys', [0xf8]);
      }, 4),
    });
  });
  await expect(page.getByTestId('clock')).toHaveText(/^Keys: running, (99|100|101)\.\d bpm$/);
  await expect.poll(async () => Math.abs(Number(await page.getByTestId('bpm').textContent()) - 100)).toBeLessThan(1.5);
  await page.getByRole('link', { name: 'Gig', exact: true }).click();
  await send('Keys', 0xfa);
  await expect(page.getByRole('button', { name: 'Pause', exact: true })).toBeVisible();
  const bar = async () => Number(/^bar (\d+) of/.exec((await page.getByTestId('gig-bar').textContent()) ?? '')?.[1]);
  await expect.poll(bar).toBeGreaterThanOrEqual(1);
  // From its beginning: the bar it has reached is one of the first.
  expect(await bar()).toBeLessThan(9);
  await expect.poll(bar).toBeGreaterThanOrEqual(2);
  await send('Keys', 0xfc);
  await expect(page.getByRole('button', { name: 'Play Paper Lighthouse', exact: true })).toBeVisible();
  await page.evaluate(() => clearInterval((window as unknown as { ticking: number }).ticking));
  await page.goto('/gig/pedals');
  await page
    .getByRole('group', { name: 'MIDI clock from outside leads' })
    .getByRole('button', { name: 'Nothing' })
    .click();
});

test('timecode from outside plays the song that begins at that time, at that place', async ({ page }) => {
  await restoreShow(page, (show) => ({
    ...show,
    songs: show.songs.map((song) => (song.title === 'Night Ferry' ? { ...song, timecode: 3600 } : song)),
  }));
  await withMidi(page);
  await open(page, '/gig/pedals');
  await page.getByRole('switch', { name: 'MIDI of this screen' }).click();
  await page
    .getByRole('group', { name: 'MIDI clock from outside leads' })
    .getByRole('button', { name: 'Tempo and songs' })
    .click();
  // From five seconds into the song: 25 frames, a hundred quarter frames a second.
  await page.evaluate(() => {
    const { send: say } = window as unknown as { send: (device: string, all: number[]) => void };
    const begun = performance.now();
    let quarter = 0;
    Object.assign(window, {
      ticking: setInterval(() => {
        for (; quarter < (performance.now() - begun) / 10; quarter++) {
          const frame = 3605 * 25 + Math.floor(quarter / 8) * 2;
          const second = Math.floor(frame / 25);
          const [f, s, m, h] = [frame % 25, second % 60, Math.floor(second / 60) % 60, Math.floor(second / 3600)];
          const piece = [f & 15, f >> 4, s & 15, s >> 4, m & 15, m >> 4, h & 15, (h >> 4) | 2][quarter % 8]!;
          say('Keys', [0xf1, ((quarter % 8) << 4) | piece]);
        }
      }, 4),
    });
  });
  await expect(page.getByTestId('timecode')).toHaveText(/^Keys: timecode 01:00:\d\d running, 25 frames a second$/);
  await page.getByRole('link', { name: 'Gig', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Night Ferry' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Pause', exact: true })).toBeVisible();
  await page.evaluate(() => clearInterval((window as unknown as { ticking: number }).ticking));
  await expect(page.getByRole('button', { name: 'Play Night Ferry', exact: true })).toBeVisible();
  await expect(page.getByTestId('said')).toHaveText('The timecode of Keys has stopped.');

  // Where it begins is set behind its title.
  await page.getByRole('link', { name: 'Songs' }).click();
  await button(page, 'Open Night Ferry').click();
  await page.getByRole('heading', { name: 'Night Ferry' }).getByRole('button').click();
  const begins = page.getByLabel('Begins at timecode');
  await expect(begins).toHaveValue('01:00:00');
  await begins.fill('a quarter past');
  await expect(page.getByText('Hours, minutes and seconds, as in 01:00:00.')).toBeVisible();
  await begins.fill('1:00:05');
  await begins.blur();
  await expect(begins).toHaveValue('01:00:05');
});

test('keys take a colour by hand, make a look of what is on, and lock the screen', async ({ page }) => {
  await open(page, '/gig/pedals');
  for (const [key, typed, act] of [
    ['F6', 'front wash red', 'Front wash: Red'],
    ['F7', 'store', 'Store what is on as a look'],
    ['F8', 'lock or unlock', 'Lock or unlock this screen'],
  ] as const) {
    await bindKey(page, key, typed, act);
  }
  await page.keyboard.press('F7');
  await expect(page.getByTestId('said')).toHaveText('Nothing to store: no look is on, and nothing is by hand.');
  await page.getByRole('link', { name: 'Gig', exact: true }).click();
  await page.keyboard.press('2');
  await page.keyboard.press('F6');
  // The front wash, mixed of red, green and blue behind its dimmers: full red, next to no green.
  const front = async () => (await nodeReport(page)).levels.slice(0, 6);
  await expect.poll(async () => (await front())[1]! - (await front())[2]!).toBeGreaterThan(150);
  await page.keyboard.press('F7');
  await expect(page.getByTestId('said')).toHaveText(/^“Look \d+” is a look now\.$/);
  const name = /“(.*)”/.exec((await page.getByTestId('said').textContent())!)![1]!;
  await page.keyboard.press('F8');
  await expect(page.getByTestId('lock')).toBeVisible();
  // So soon after the first, a switch would only have bounced.
  await page.waitForTimeout(300);
  await page.keyboard.press('F8');
  await expect(page.getByTestId('lock')).toHaveCount(0);
  // Alone, it gives the same light, once what was pressed has faded in.
  let stored: readonly number[] = [];
  await expect
    .poll(
      async () => {
        const before = stored;
        stored = await front();
        return stored.join() === before.join();
      },
      { intervals: [700] },
    )
    .toBe(true);
  await button(page, /^By hand/).click();
  await page.keyboard.press('2');
  await expect.poll(async () => (await front())[0]).toBe(0);
  await page
    .getByRole('group', { name: 'Pads' })
    .getByRole('button', { name: new RegExp(`^${name},`) })
    .click();
  await expect.poll(front).toEqual(stored);
});

test('pads that wait for the bar, and that do more than one thing; letters for those beyond nine', async ({ page }) => {
  await open(page, '/gig');
  await button(page, 'Change the banks').click();
  await button(page, 'Make a bank of them').click();
  await button(page, 'Change Harbour blue').click();
  await sheet(page).getByLabel('Starts').selectOption({ label: 'On the next bar' });
  await button(page, 'Change Full sail').click();
  await addAct(page, 'It also does', 'grand master 50', 'Grand master to 50 %');
  await sheet(page).getByRole('button', { name: 'Close' }).click();
  const pad = (name: string) =>
    page.getByRole('group', { name: 'Pads' }).getByRole('button', { name: new RegExp(`^${name}, key`) });
  // At 30 beats a minute a bar is eight seconds: it is armed, seen to be, and called off with the same key.
  await button(page, 'Tap the tempo').click();
  await page.waitForTimeout(1900);
  await button(page, 'Tap the tempo').click();
  await page.waitForTimeout(1500);
  // The bar may be as good as over when the key is pressed: then it comes on, is turned off, fades out for a beat, and the
  // next bar is longer away. What is armed is dark.
  const armed = pad('Harbour blue').getByText('on the next bar');
  const isDarkAndArmed = async () => (await light(page)) === 0 && (await armed.isVisible());
  await expect(async () => {
    await page.keyboard.press('1');
    const seen = await expect
      .poll(isDarkAndArmed, { timeout: 4000 })
      .toBe(true)
      .then(
        () => true,
        () => false,
      );
    if (!seen) await page.keyboard.press('1');
    expect(seen).toBe(true);
  }).toPass();
  await page.keyboard.press('1');
  await expect(pad('Harbour blue')).not.toContainText('on the next bar');
  await page.keyboard.press('1');
  await expect.poll(() => back(page), { timeout: 12_000 }).toBeGreaterThan(300);
  await expect(pad('Harbour blue')).toContainText('on');
  await page.keyboard.press('1');
  await page.keyboard.press('2');
  await expect(page.getByTestId('master')).toHaveText('50');
  const tenth = page.getByRole('group', { name: 'Pads' }).getByRole('button', { name: /, key Q,/ });
  await page.keyboard.press('q');
  await expect(tenth).toHaveAttribute('aria-pressed', 'true');
});

test('locked, a sleeve changes nothing while the pedal goes on; a code is asked for', async ({ page }) => {
  await open(page, '/gig');
  await button(page, 'On stage: lock, large letters, pedals').click();
  await page.getByLabel('Code to unlock').fill('2580');
  await page.keyboard.press('Enter');
  await button(page, 'Lock the screen').click();
  await expect(page.getByText('Locked')).toBeVisible();
  await page.mouse.click(100, 420);
  await page.keyboard.press('1');
  await page.keyboard.press('b');
  await page.waitForTimeout(400);
  expect(await light(page)).toBe(0);
  await expect(page.getByText('Blackout: all dark')).toHaveCount(0);
  await page.keyboard.press('PageDown');
  await expect.poll(() => back(page)).toBeGreaterThan(300);
  // Nor does a page that is loaded anew.
  await page.reload();
  const unlock = button(page, 'Hold to unlock');
  await unlock.hover();
  await page.mouse.down();
  await page.waitForTimeout(900);
  await page.mouse.up();
  for (const figure of ['1', '2', '5', '8', '0']) await button(page, figure).click();
  await expect(page.getByText('Locked')).toHaveCount(0);
  await page.keyboard.press('b');
  await expect(page.getByText('Blackout: all dark')).toBeVisible();
});

test('large letters, the foot controller on a screen, the log and Preflight', async ({ page, context }) => {
  await page.goto('/gig/foot');
  const amp = await context.newPage();
  await amp.goto('/gig/large');
  await expect(amp.getByText('Ready: Paper Lighthouse')).toBeVisible();
  await expect(amp.getByText('Blackout', { exact: true })).toBeVisible();
  const foot = button(page, 'Switch Foot');
  const step = async (ms: number) => {
    await foot.hover();
    await page.mouse.down();
    await page.waitForTimeout(ms);
    await page.mouse.up();
  };
  await step(80);
  await expect(page.getByTestId('happened')).toHaveText('Ready: Paper Lighthouse');
  await expect(amp.getByText('Play Paper Lighthouse')).toBeVisible();
  await expect.poll(() => back(page)).toBeGreaterThan(300);
  await step(900);
  await expect(amp.getByText('BLACKOUT', { exact: true })).toBeVisible();
  await expect(amp.getByText('Light again')).toBeVisible();
  await step(900);
  await expect(amp.getByText('BLACKOUT', { exact: true })).toHaveCount(0);

  // What happened before the page was opened is there too.
  await open(page, '/gig/log');
  const log = page.getByRole('list', { name: 'Log' });
  await expect(log).toContainText('Blackout over');
  await page.keyboard.press('PageDown');
  await expect(log.getByRole('listitem').first()).toContainText(/Paper Lighthouse played/);
  await expect(log).toContainText('On to Play Paper Lighthouse');
  const [download] = await Promise.all([page.waitForEvent('download'), button(page, 'Save the log').click()]);
  expect(download.suggestedFilename()).toMatch(/^Friday at the Boathouse, \d{4}-\d\d-\d\d\.log$/);
  // It can be read again, whole, and leads to what is on.
  const read = readLog(readFileSync(await download.path(), 'utf8'), 'the log');
  if (!read.ok) throw new Error('it cannot be read');
  expect(read.value.entries.reduce(reduced, read.value.begin).song).toMatchObject({
    id: 'paper-lighthouse',
    playing: true,
  });

  await page.goto('/gig/preflight');
  await expect(page.getByTestId('preflight')).toHaveText('All is ready for tonight.');
  await page.goto('/gig/pedals');
  await button(page, 'Pedal with 3 switches').click();
  await page.goto('/gig/preflight');
  await expect(page.getByTestId('preflight')).toHaveText('1 would be missed tonight.');
  await page.getByRole('button', { name: /^Fix: Not learned yet/ }).click();
  await expect(page.getByRole('heading', { name: 'Pedals and MIDI' })).toBeVisible();
});
