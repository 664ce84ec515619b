/** A part of `npm run torture -- edits`. */
import { editVerdict, startingDocument } from './edits.ts';

test('random edits are refused with a sentence, or leave a sound document', () => {
  const document = startingDocument();
  const verdicts = Array.from({ length: 1500 }, (_, i) => editVerdict(document, i + 1));
  expect(verdicts.filter(({ outcome }) => outcome === 'wrong')).toEqual([]);
  const refused = verdicts.filter(({ outcome }) => outcome === 'refused');
  expect(refused.every(({ words }) => words.length > 20)).toBe(true);
  // Chance hits what is right often enough to show that not everything is refused.
  expect(verdicts.length - refused.length).toBeGreaterThan(50);
  expect(refused.length).toBeGreaterThan(500);
});
