// MIDI that comes in: switches, knobs and programs, a clock, timecode, as devices of a browser send them.

import type { Page } from '@playwright/test';
import { eachAsItWas } from './as-it-was';
import { addAct, back, button, light, nodeReport, open, restoreShow } from './hovlix';
import { expect, test } from './screens';

eachAsItWas();

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
/** The same, with the page of pedals open and listening to them. */
async function listening(page: Page): ReturnType<typeof withMidi> {
  const send = await withMidi(page);
  await open(page, '/gig/pedals');
  await page.getByRole('switch', { name: 'MIDI of this screen' }).click();
  return send;
}
const plug = (page: Page, name: string, there: boolean) =>
  page.evaluate(
    ([which, is]) => (window as unknown as { plug: (name: string, there: boolean) => void }).plug(which, is),
    [name, there] as const,
  );

test('MIDI: notes, programs with banks, a knob that does not jump, a device pulled out and plugged in again', async ({
  page,
}) => {
  const send = await listening(page);
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

test('a MIDI switch that says nothing when it is let go is learned as such: each of its messages is a press', async ({
  page,
}) => {
  const send = await listening(page);
  await button(page, 'Add a switch or key').click();
  await button(page, 'Learn').click();
  await send('Floor board', 0xb0, 64, 127);
  await expect(page.getByTestId('source')).toHaveText('control 64, channel 1, Floor board');
  // It is known two seconds later, though its sheet is closed by then.
  await sheet(page).getByRole('button', { name: 'Close' }).click();
  await expect(page.getByTestId('said')).toHaveText(
    'It does not say when it is let go: each message counts as a press.',
  );
  await page
    .getByRole('button', { name: /^Change Switch/ })
    .last()
    .click();
  await addAct(page, 'Press', 'blackout', 'Blackout on or off');
  await addAct(page, 'Hold', 'harbour blue on', 'Harbour blue on or off');
  await sheet(page).getByRole('button', { name: 'Close' }).click();
  const dark = page.getByText('Blackout: all dark');
  for (const [value, is] of [
    [0, 1],
    [127, 0],
    [127, 1],
  ] as const) {
    await send('Floor board', 0xb0, 64, value);
    await expect(dark).toHaveCount(is);
    // A second step comes no sooner than a foot can make it.
    await page.waitForTimeout(300);
  }
});

test('a clock from outside leads the tempo, and starts and stops the song that is next', async ({ page }) => {
  const send = await listening(page);
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
