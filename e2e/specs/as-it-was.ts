// Specs that change what the computer keeps: each test begins with the demo and its connections as they come, and leaves them so.

import type { Page } from '@playwright/test';
import { restoreConnections, restoreShow } from './hovlix';
import { test } from './screens';

async function restore({ page }: { readonly page: Page }): Promise<void> {
  await restoreConnections(page);
  await restoreShow(page);
}

/** For all tests of the file that calls it. */
export function eachAsItWas(): void {
  test.beforeEach(restore);
  test.afterEach(restore);
}
