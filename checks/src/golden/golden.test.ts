/** Some of the golden ledgers; `npm run torture -- golden` replays all of them. */
import { loadKernel } from '@kadrel/kernel/node';
import { VERBS } from '@kadrel/core';
import { replay } from './ledgers.ts';
import { differences, storedLedgers } from './runGolden.ts';

const EVERY = 50;

/** From here on are those for verbs that random ones seldom reach. */
const BY_HAND = 300;
const EVERY_BY_HAND = 2;

test('ledgers come to what they came to, bit for bit', async () => {
  const kernel = await loadKernel();
  for (const [i, ledger] of storedLedgers().entries()) {
    if (i % (i < BY_HAND ? EVERY : EVERY_BY_HAND) !== 0) continue;
    expect({ ledger: i, differences: differences(ledger, replay(kernel, ledger.statements)) }).toEqual({
      ledger: i,
      differences: [],
    });
  }
});

test('they go through every verb', () => {
  const done = new Set(
    storedLedgers().flatMap(({ statements, titles }) =>
      statements.filter((_, i) => !titles[i]!.startsWith('refused')).map(([verb]) => verb),
    ),
  );
  const without = VERBS.filter(({ id }) => !done.has(id)).map(({ id }) => id);
  expect(without).toEqual([]);
});
