// Every place that has an address.

import { expect, type Page } from '@playwright/test';
import { button, open } from './hovlix';

export const PLACES = [
  '/songs',
  '/songs/paper-lighthouse',
  '/looks',
  '/looks/new',
  '/looks/kits',
  '/rig',
  '/rig/type/northlamp-heron',
  '/gig',
  '/gig/pedals',
  '/gig/bindings',
  '/gig/pads',
  '/gig/large',
  '/gig/foot',
  '/gig/log',
  '/gig/preflight',
  '/gig/flashes',
  '/connect',
  '/connect/first',
  '/connect/decks',
  '/connect/timetable',
  '/connect/universe/1',
  '/shows',
  '/settings',
] as const;

/** Opens a place and waits until its show is there: some fill the screen, and have no stage that says what is sent. */
export async function openPlace(page: Page, path: string): Promise<void> {
  if (!/\/(large|foot|pads)$/.test(path)) return open(page, path);
  await page.goto(path);
  await button(page, 'Close').waitFor();
}

/** Turns a page to a theme as if it were chosen in another window. */
export async function turnTo(page: Page, theme: 'night' | 'day'): Promise<void> {
  await page.evaluate((chosen) => {
    const key = 'hovlix-habits-1';
    const kept = JSON.parse(localStorage.getItem(key) ?? '{}') as object;
    localStorage.setItem(key, JSON.stringify({ ...kept, theme: chosen }));
    window.dispatchEvent(new StorageEvent('storage', { key }));
  }, theme);
  await expect(page.locator('html')).toHaveCSS('color-scheme', theme === 'day' ? 'light' : 'dark');
  await stillAgain(page);
}

/** Waits until nothing on the page moves or fades any more. */
export const stillAgain = (page: Page) =>
  page.waitForFunction(() => document.getAnimations().every(({ playState }) => playState !== 'running'));
