import axe from 'axe-core';
import type { Page } from '@playwright/test';

/**
 * What a reader would stumble over on the page, each with where it is. What is fine is not gathered, and a page that was
 * looked at before has the checker already: that is most of the time it would take.
 * @param rules those that are looked for; all where none are named.
 */
export async function stumbles(page: Page, ...rules: readonly string[]): Promise<readonly string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source);
  return page.evaluate(
    async (only) => {
      const { axe: checker } = window as unknown as { axe: typeof axe };
      const { violations } = await checker.run(document, {
        resultTypes: ['violations'],
        ...(only.length > 0 ? { runOnly: { type: 'rule', values: only } } : {}),
      });
      return violations.map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.html.slice(0, 120)).join(' | ')}`);
    },
    [...rules],
  );
}
