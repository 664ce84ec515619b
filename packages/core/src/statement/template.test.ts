import { blanksIn, filledIn, piecesIn, withClauses } from './template.ts';

const SENTENCE = 'Box {size} with its corner at {at}[ named {as}][, {a} by {b}]';

test('a sentence is its blanks, its clauses and its words', () => {
  expect(blanksIn(SENTENCE)).toEqual(['size', 'at', 'as', 'a', 'b']);
  const kept = withClauses(SENTENCE, (clause, blanks) => (blanks.includes('as') ? clause : ''));
  expect(kept).toBe('Box {size} with its corner at {at} named {as}');
  expect(filledIn(kept, (id) => id.toUpperCase())).toBe('Box SIZE with its corner at AT named AS');
  expect(piecesIn('{size} with its corner at {at}')).toEqual([
    { blank: 'size' },
    { words: 'with its corner at' },
    { blank: 'at' },
  ]);
});
