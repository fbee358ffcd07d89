// Feet and fingers, exact to the millisecond: however late this machine passes them on, they say when they were.

import type { CDPSession, Page } from '@playwright/test';

const lines = new WeakMap<Page, Promise<CDPSession>>();
function lineTo(page: Page): Promise<CDPSession> {
  const line = lines.get(page) ?? page.context().newCDPSession(page);
  lines.set(page, line);
  return line;
}

/** As the browser counts: seconds since 1970. */
const now = (): number => Date.now() / 1000;
/** No foot steps again sooner, in seconds. */
const REST = 0.4;
const steppedAt = new WeakMap<Page, number>();
/** What Windows calls these keys, as the browser wants to know. */
const CODES: Readonly<Record<string, number>> = { PageUp: 33, PageDown: 34, F6: 117, F7: 118 };

/** A key goes down and comes up, as often as there are times: each in ms, down and up, the last of them a moment ago. */
export async function stepOn(
  page: Page,
  key: string,
  ...times: readonly (readonly [down: number, up: number])[]
): Promise<void> {
  const line = await lineTo(page);
  const length = (times.at(-1)![1] + 5) / 1000;
  const begun = Math.max(now() - length, (steppedAt.get(page) ?? 0) + REST);
  steppedAt.set(page, begun + length);
  await page.waitForTimeout(Math.max(0, begun + length - now()) * 1000);
  const edge = (type: 'rawKeyDown' | 'keyUp', ms: number) =>
    line.send('Input.dispatchKeyEvent', {
      type,
      key,
      code: key,
      windowsVirtualKeyCode: CODES[key]!,
      timestamp: begun + ms / 1000,
    });
  await Promise.all(times.flatMap(([down, up]) => [edge('rawKeyDown', down), edge('keyUp', up)]));
}

/** A key goes down, and comes up once something is seen. */
export async function holdUntil(page: Page, key: string, seen: () => Promise<void>): Promise<void> {
  await page.keyboard.down(key);
  await seen();
  await page.keyboard.up(key);
  steppedAt.set(page, now());
}

/** Taps a button as often as told, every so many ms; the page may be busy meanwhile. */
export async function tapOn(page: Page, name: string, count: number, everyMs: number): Promise<void> {
  const line = await lineTo(page);
  const box = (await page.getByRole('button', { name, exact: true }).boundingBox())!;
  const at = { x: box.x + box.width / 2, y: box.y + box.height / 2, button: 'left', clickCount: 1 } as const;
  const begun = now();
  const told: Promise<unknown>[] = [];
  for (let n = 0; n < count; n++) {
    await page.waitForTimeout(Math.max(0, (begun - now()) * 1000 + n * everyMs));
    const timestamp = begun + (n * everyMs) / 1000;
    told.push(line.send('Input.dispatchMouseEvent', { type: 'mousePressed', ...at, timestamp }));
    // Lifted early or late: what counts is when it came down.
    told.push(
      line.send('Input.dispatchMouseEvent', {
        type: 'mouseReleased',
        ...at,
        timestamp: timestamp + 0.05 + 0.1 * (n % 2),
      }),
    );
  }
  await Promise.all(told);
}
