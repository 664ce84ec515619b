import { expect, test } from '@playwright/test';
import { pageTrials } from '../checks/src/torture/runPages.ts';

/** The first of the trials that `npm run torture -- pages` has a thousand of. */
const TRIALS = 12;

test('two pages that save to one project, lose the server and are loaded again lose nothing', async ({
  baseURL,
}) => {
  const faults: unknown[] = [];
  for await (const fault of pageTrials(baseURL!, 1)) if (faults.push(fault) >= TRIALS) break;
  expect(faults).toEqual(Array.from({ length: TRIALS }, () => undefined));
});
