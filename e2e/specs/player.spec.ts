// A DJ hour: songs go by the decks of a player, whatever is done on them.

import { createSocket } from 'node:dgram';
import { once } from 'node:events';
import type { Page } from '@playwright/test';
import { NO_PLAYER } from '@hovlix/core/connect';
import { compile, frameFor, render } from '@hovlix/core/engine';
import { AT_REST } from '@hovlix/core/live';
import { writeDeckWord, type Deck } from '@hovlix/core/player';
import { id, seconds } from '@hovlix/core/units';
import { button, clickTrack, demoShow, liveNow, open, restoreConnections, restoreShow, statusOf } from './hovlix';
import { expect, test } from './screens';

/** As a new computer has it, and as it is left. */
async function restored(page: Page): Promise<void> {
  for (const deck of [1, 2])
    for (const does of [{ do: 'eject' }, { do: 'pitch', by: 0 }, { do: 'level', level: 1 }])
      await page.request.post('/api/decks', { data: { deck, does } });
  await restoreConnections(page);
  await restoreShow(page);
}
test.beforeEach(async ({ page }) => restored(page));
test.afterEach(async ({ page }) => restored(page));

/** The names of the looks that are on. */
const stands = async () => {
  const { looks } = demoShow();
  const { standing } = await liveNow();
  return standing.filter(({ on }) => on).map(({ look }) => looks.find(({ id }) => id === look)?.name);
};

/** The light of a song at a moment, as it leaves for universe 1. */
function songLight(song: string) {
  const program = compile(demoShow());
  const frame = frameFor(program);
  return (at: number): Uint8Array => {
    const songTime = seconds(at);
    const playing = { id: id<'Song'>(song), playing: true, songTime, at: seconds(0), rate: 1, since: seconds(0) };
    render(program, { ...AT_REST, sending: true, song: playing }, seconds(0), frame);
    return frame.slice(0, 512);
  };
}

/**
 * How far the light that the node heard in the last second is ahead of where the deck was then, in seconds; of the frames
 * in which the light moves.
 */
async function strays(page: Page, light: (at: number) => Uint8Array): Promise<readonly number[]> {
  const answer = await page.request.get('/api/node/frames?universe=1&protocol=sacn');
  const frames: readonly { readonly at: number; readonly secondsAgo: number; readonly levels: readonly number[] }[] =
    await answer.json();
  const [now]: readonly Deck[] = await (await page.request.get('/api/decks')).json();
  const all: number[] = [];
  for (const { at, secondsAgo, levels } of frames) {
    if (secondsAgo > 1) continue;
    // Both tell the steady clock of the computer.
    const deck = now!.songTime - (now!.at - at) * now!.rate;
    const errors = Array.from({ length: 41 }, (_, i) => {
      // From 0 outwards, so that of equal ones the nearest counts.
      const off = Math.ceil(i / 2) * (i % 2 === 0 ? 0.005 : -0.005);
      const wanted = light(deck + off);
      return { off, error: levels.reduce((sum, level, k) => sum + Math.abs(level - wanted[k]!), 0) };
    });
    const best = errors.reduce((a, b) => (b.error < a.error ? b : a));
    const worst = Math.max(...errors.map(({ error }) => error));
    // Where the light stands still, nobody can tell.
    if (worst - best.error > 60) all.push(best.off);
  }
  return all;
}

test('two decks: pitch, a loop and a jump; the light at the node stays within 20 ms of the music', async ({ page }) => {
  test.slow();
  await open(page, '/connect');
  await page.getByText('Try it with the stand-in').click();
  await button(page, 'Listen').click();
  await button(page, 'Load Night Ferry on deck 1').click();
  const deck = page.getByRole('region', { name: 'Deck 1', exact: true });
  await deck.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(deck.getByRole('button', { name: 'Pause', exact: true })).toBeVisible();
  await page.getByRole('textbox', { name: 'Pitch, typed', exact: true }).first().fill('6');
  await page.keyboard.press('Enter');
  const goTo = async (place: string) => {
    await page.getByRole('textbox', { name: 'Position, typed', exact: true }).first().fill(place);
    await page.keyboard.press('Enter');
  };
  const light = songLight('night-ferry');
  const holds = async () => {
    // The last second is looked at, which is one after the jump.
    await page.waitForTimeout(1600);
    let all: number[] = [];
    const seen: string[] = [];
    // As many seconds as it takes until the light has moved often enough to tell, none of which the machine took away.
    await expect(async () => {
      all.push(...(await strays(page, light)));
      const sorted = all.toSorted((x, y) => x - y);
      const share = (part: number) => sorted[Math.floor(sorted.length * part)];
      const far = all.map(Math.abs).sort((x, y) => x - y)[Math.floor(all.length * 0.9)];
      const { position } = (await statusOf(page)).player!.decks[0]!;
      seen.push(
        `${position.toFixed(1)} s: ${all.length} frames, from ${share(0.1)} over ${share(0.5)} to ${share(0.9)}`,
      );
      const enough = all.length >= 20;
      if (enough) all = [];
      expect(enough && far! <= 0.02, seen.join('\n')).toBe(true);
    }).toPass({ intervals: [1000], timeout: 15_000 });
  };
  await goTo('64');
  await holds();
  // Four beats at 124 come round each 1.94 s; the light is asked for while it goes on.
  await deck.getByRole('button', { name: '4', exact: true }).click();
  const begun = (await statusOf(page)).player!.decks[0]!.position;
  await page.waitForTimeout(4000);
  const looping = (await statusOf(page)).player!.decks[0]!;
  // Without the loop it would be more than four seconds on.
  expect(Math.abs(looping.position - begun)).toBeLessThan(3);
  expect(looping).toMatchObject({ leads: true, by: 'kept', rate: expect.closeTo(1.06, 3) });
  await deck.getByRole('button', { name: 'Off', exact: true }).click();
  await goTo('90');
  await holds();

  // The other deck comes up, and the light goes over to its song.
  await button(page, 'Load Paper Lighthouse on deck 2').click();
  const other = page.getByRole('region', { name: 'Deck 2', exact: true });
  await other.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(other.getByRole('button', { name: 'Pause', exact: true })).toBeVisible();
  expect((await statusOf(page)).player!.decks.map(({ leads }) => leads)).toEqual([true, false]);
  await deck.getByRole('textbox', { name: 'Level, typed', exact: true }).fill('0');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await statusOf(page)).player!.decks.map(({ leads }) => leads)).toEqual([false, true]);

  // What was found is remembered, and a page without a part in it shows the song that plays.
  await open(page, '/gig');
  await expect(page.getByText('Paper Lighthouse').first()).toBeVisible();
});

test('a track that is no song has a look; told which song it is, it is remembered', async ({ page }) => {
  await open(page, '/connect');
  const card = page.getByRole('region', { name: 'DJ player', exact: true });
  await card.getByRole('button', { name: 'Listen to a player' }).click();
  // The stand-in may still be told of; where nobody uses it, it says nothing.
  await expect(card).toContainText(/Nothing heard yet|Deck 2: empty/);
  await card.getByLabel('Look for other tracks').selectOption({ label: 'Harbour blue' });
  await card.getByText('Try it with the stand-in').click();
  await page
    .getByLabel('Load a file on deck 1')
    .setInputFiles({ name: 'White label.wav', mimeType: 'audio/wav', buffer: clickTrack({ seconds: 20 }) });
  const deck = page.getByRole('region', { name: 'Deck 1', exact: true });
  await expect(deck).toContainText('White label');
  await deck.getByRole('button', { name: 'Play', exact: true }).click();
  await expect.poll(stands).toEqual(['Harbour blue']);

  await open(page, '/connect');
  await expect(card).toContainText('Deck 1: White label');
  await card.getByLabel('Song on deck 1').selectOption({ label: 'Salt and Signal' });
  await expect(card).toContainText('The light follows it.');
  await expect(card).toContainText('Remembered.');
  await expect.poll(stands).toEqual([]);

  // Turned off, the song that went by it stands still.
  await open(page, '/connect');
  await card.getByRole('switch', { name: 'Songs follow the player' }).click();
  await expect(card).not.toContainText('The light follows it.');
});

test('two players that take turns are heard apart, each by its address', async ({ page }) => {
  const players = await Promise.all(['127.0.0.1', '127.0.0.2'].map(saying));
  await open(page, '/connect');
  const card = page.getByRole('region', { name: 'DJ player', exact: true });
  await card.getByRole('button', { name: 'Listen to a player' }).click();
  const told = setInterval(() => players.forEach(({ say }, n) => say(`Track ${n + 1}`)), 200);
  await expect(card).toContainText('Deck 1 of 127.0.0.1: Track 1');
  await expect(card).toContainText('Deck 1 of 127.0.0.2: Track 2');
  await card.getByLabel('Song on deck 1 of 127.0.0.2').selectOption({ label: 'Salt and Signal' });
  await expect(card.getByLabel('Song on deck 1 of 127.0.0.1')).toHaveValue('not-yet');
  clearInterval(told);
  for (const { socket } of players) socket.close();
});

/** A player at an address, whose deck 1 has a track. */
async function saying(address: string) {
  const socket = createSocket('udp4').bind(0, address);
  await once(socket, 'listening');
  const say = (title: string) =>
    socket.send(
      writeDeckWord({ deck: 1, says: 'track', track: { title, by: '', length: 100 } }),
      NO_PLAYER.port,
      '127.0.0.1',
    );
  return { socket, say };
}

test('the beat of the decks goes out as MIDI clock, as fast as the deck turns', async ({ page }) => {
  await page.addInitScript(() => {
    const sent: { readonly byte: number; readonly at: number }[] = [];
    const output = {
      name: 'Rack',
      state: 'connected',
      send: (bytes: number[], at = performance.now()) => sent.push({ byte: bytes[0]!, at }),
    };
    const access = { inputs: new Map(), outputs: new Map([['rack', output]]), onstatechange: null };
    Object.assign(navigator, { requestMIDIAccess: async () => access });
    Object.assign(window, { sent });
  });
  await open(page, '/connect/decks');
  await button(page, 'Load Night Ferry on deck 1').click();
  const deck = page.getByRole('region', { name: 'Deck 1', exact: true });
  await deck.getByRole('textbox', { name: 'Pitch, typed', exact: true }).fill('-10');
  await page.keyboard.press('Enter');
  await deck.getByRole('button', { name: 'Play', exact: true }).click();
  await page.getByRole('switch', { name: 'MIDI of this screen' }).click();
  await page.getByRole('switch', { name: 'Send MIDI clock from the decks' }).click();
  type Sent = readonly { readonly byte: number; readonly at: number }[];
  const ticks = () =>
    page.evaluate(() =>
      (window as unknown as { sent: Sent }).sent.filter(({ byte }) => byte === 0xf8).map(({ at }) => at),
    );
  await expect.poll(async () => (await ticks()).length, { timeout: 30_000 }).toBeGreaterThan(120);
  const at = await ticks();
  const gaps = at.slice(20).map((one, i) => one - at[i + 19]!);
  // Night Ferry at 124, a tenth slower, 24 ticks a beat.
  expect(gaps.sort((a, b) => a - b)[gaps.length >> 1]! / (60_000 / (124 * 0.9 * 24))).toBeCloseTo(1, 1);
  await deck.getByRole('button', { name: 'Pause', exact: true }).click();
  const first = (byte: number) =>
    page.evaluate((one) => (window as unknown as { sent: Sent }).sent.some(({ byte }) => byte === one), byte);
  await expect.poll(() => first(0xfc)).toBe(true);
  // A start, or a continue with a place.
  expect((await first(0xfa)) || (await first(0xfb))).toBe(true);
});
