/** `npm run torture -- edits [COUNT] [SEED]`: random patches; taken and sound is right, refused with a sentence is what most should be. */
import { editVerdict, startingDocument } from './edits.ts';
import { clock, isReported, printTable, say, type Outcome } from './table.ts';

export function runEdits([count = '10000', start = '1']: readonly string[]): Promise<void> {
  const document = startingDocument();
  const outcomes: Outcome[] = [];
  const isTimeLeft = clock();
  const began = performance.now();
  for (let seed = Number(start); outcomes.length < Number(count) && isTimeLeft(); seed++) {
    const one = editVerdict(document, seed);
    outcomes.push(one);
    if (isReported(one)) say(`${one.outcome}: seed ${seed}: ${one.words}`);
  }
  printTable(['edits'], outcomes, new Map([['edits', performance.now() - began]]));
  if (outcomes.some(({ outcome }) => outcome === 'wrong')) process.exitCode = 1;
  return Promise.resolve();
}
