/** The sentence of a verb: `{blank}` stands for a blank, and a clause in square brackets may be left out. */
const BLANK = /\{(\w+)\}/g;
const CLAUSE = /\[([^\]]*)\]/g;

/** The blanks of a sentence or a clause, in order. */
export const blanksIn = (template: string): string[] => [...template.matchAll(BLANK)].map(([, id]) => id!);

/** The sentence with its clauses as `word` words them; an empty text leaves one out. */
export const withClauses = (
  sentence: string,
  word: (clause: string, blanks: readonly string[]) => string,
): string => sentence.replace(CLAUSE, (_, clause: string) => word(clause, blanksIn(clause)));

/** The template with words in the place of its blanks. */
export const filledIn = (template: string, word: (blank: string) => string): string =>
  template.replace(BLANK, (_, id: string) => word(id));

export type Piece = { readonly words: string } | { readonly blank: string };

/** The template cut into words and blanks. */
export const piecesIn = (template: string): Piece[] =>
  template
    .split(/(\{\w+\})/)
    .filter((piece) => piece.trim() !== '')
    .map((piece) => (piece.startsWith('{') ? { blank: piece.slice(1, -1) } : { words: piece.trim() }));
