/** Cuts the text of a field into tokens, each knowing where it stands. */

export class QuantityError extends Error {
  /**
   * @param code stable name of the fault, for tests and translations
   * @param at index of the first offending character
   * @param length how many characters are meant, at least 1
   */
  constructor(
    readonly code: string,
    message: string,
    readonly at: number,
    readonly length = 1,
  ) {
    super(message);
    this.name = 'QuantityError';
  }
}

export type TokenKind = 'number' | 'word' | 'mark' | 'end';

export interface Token {
  readonly kind: TokenKind;
  readonly text: string;
  readonly value: number;
  readonly at: number;
  /** True when no space stands before it. */
  readonly tight: boolean;
}

const NUMBER = /(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?/y;
const WORD = /[\p{L}_][\p{L}\p{Nd}_]*/uy;
const MARKS = new Set([...'+-*/^(),:%°\'"²³']);
/** Characters that people paste or type for an operator. */
const SAME_AS: Readonly<Record<string, string>> = {
  '×': '*',
  '·': '*',
  '÷': '/',
  '−': '-',
  '–': '-',
  '′': "'",
  '″': '"',
  '’': "'",
  '”': '"',
};

function match(pattern: RegExp, text: string, at: number): string | undefined {
  pattern.lastIndex = at;
  return pattern.exec(text)?.[0];
}

/** Throws QuantityError at a character that the number language does not know. */
export function tokens(text: string): Token[] {
  const found: Token[] = [];
  let at = 0;
  let tight = true;
  while (at < text.length) {
    const char = text[at]!;
    if (/\s/.test(char)) {
      at += 1;
      tight = false;
      continue;
    }
    const number = match(NUMBER, text, at);
    const word = number === undefined ? match(WORD, text, at) : undefined;
    const mark = SAME_AS[char] ?? char;
    if (number !== undefined) {
      const value = Number(number);
      if (!Number.isFinite(value))
        throw new QuantityError('too-large', 'This number is too large.', at, number.length);
      found.push({ kind: 'number', text: number, value, at, tight });
    } else if (word !== undefined) found.push({ kind: 'word', text: word, value: NaN, at, tight });
    else if (text.startsWith('**', at)) found.push({ kind: 'mark', text: '^', value: NaN, at, tight });
    else if (MARKS.has(mark)) found.push({ kind: 'mark', text: mark, value: NaN, at, tight });
    else throw new QuantityError('unknown-character', `“${char}” means nothing in a number.`, at);
    at += number?.length ?? word?.length ?? (text.startsWith('**', at) ? 2 : 1);
    tight = true;
  }
  found.push({ kind: 'end', text: '', value: NaN, at: text.length, tight });
  return found;
}
