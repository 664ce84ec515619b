/** What axe finds on a page as it stands. */
import type { Page } from '@playwright/test';
import axe, { type RunOptions } from 'axe-core';

/** One line for each rule that is broken, with the places. */
export async function violationsOf(page: Page, options: RunOptions = {}): Promise<string[]> {
  // To read its source takes the page longer than most looks: once for each page that is loaded.
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source);
  const asked: RunOptions = { ...options, resultTypes: ['violations'] };
  return page.evaluate(async (run) => {
    const { violations } = await (window as unknown as { axe: typeof axe }).axe.run(document, run);
    return violations.map(
      ({ id, nodes }) => `${id} ${nodes.map(({ target }) => target.join(' ')).join('; ')}`,
    );
  }, asked);
}
