// Every place that has an address.

import type { Page } from '@playwright/test';
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
