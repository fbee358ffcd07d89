import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';

/**
 * What a reader would stumble over on the page, each with where it is. What is fine is not gathered, and no second page is
 * opened for frames of other sites, which we have none of: that is most of the time it would take.
 * @param rules those that are looked for; all where none are named.
 */
export async function stumbles(page: Page, ...rules: readonly string[]): Promise<readonly string[]> {
  const axe = new AxeBuilder({ page }).setLegacyMode().options({ resultTypes: ['violations'] });
  const { violations } = await (rules.length > 0 ? axe.withRules([...rules]) : axe).analyze();
  return violations.map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.html.slice(0, 120)).join(' | ')}`);
}
