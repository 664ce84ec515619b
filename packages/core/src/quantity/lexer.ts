/** Cuts the text of a field into tokens, each knowing where it stands. */
import { reasonOf, type AnyFacts, type FactsOf, type Reason, type ReasonCode } from '../language/reason.ts';

/** Where in a text, and how many characters, at least 1. */
interface Stretch {
  readonly at: number;
  readonly length?: number;
}

/** A number or a formula that cannot be read or worked out, and where in its text. */
export class QuantityError extends Error implements Reason {
  readonly code: ReasonCode;
  readonly facts: AnyFacts;
  /** Index of the first offending character. */
  readonly at: number;
  readonly length: number;

  constructor({ code, facts, message }: Reason, { at, length = 1 }: Stretch) {
    super(message);
    this.name = 'QuantityError';
    this.code = code;
    this.facts = facts;
    this.at = at;
    this.length = length;
  }
}

/** What is wrong with a number, and where in its text. */
export const quantityError = <C extends ReasonCode>(code: C, facts: FactsOf<C>, where: Stretch) =>
  new QuantityError(reasonOf(code, facts), where);

/** Kinds of what a text is cut into. */
export type TokenKind = 'number' | 'word' | 'mark' | 'end';

/** A piece of a text, and where it stands there. */
export interface Token {
  readonly kind: TokenKind;
  readonly text: string;
  readonly value: number;
  readonly at: number;
  /** True when no space stands before it. */
  readonly tight: boolean;
}

/** Thousands set apart by a space, thin ones too, as they are shown and copied: 48 000.5; before a stroke it is a fraction. */
const GROUPED = /\d{1,3}(?:[ \u00a0\u2009\u202f]\d{3})+(?![\d,])(?:\.\d*)?(?!\s*\/)/y;
/** A comma for decimals, where no function is open whose arguments it would part. */
const WITH_COMMA = /\d+,\d+(?![\d.]*,)/y;
const NUMBER = /(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?/y;
const ARGUMENT = [GROUPED, NUMBER];
const FIGURE = [GROUPED, WITH_COMMA, NUMBER];
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

const SPACES = /[ \u00a0\u2009\u202f]/g;

/** @param patterns in the order in which they are tried */
const firstMatch = (patterns: readonly RegExp[], text: string, at: number): string | undefined =>
  patterns.map((pattern) => match(pattern, text, at)).find((found) => found !== undefined);

/** Which brackets are open, and how many of them began after a name: a comma in those parts arguments. */
class OpenBrackets {
  private readonly open: boolean[] = [];
  private functions = 0;

  see({ text }: Token, before: Token | undefined): void {
    if (text === '(') {
      this.open.push(before?.kind === 'word');
      if (before?.kind === 'word') this.functions += 1;
    } else if (text === ')' && this.open.pop()) this.functions -= 1;
  }

  get areArguments(): boolean {
    return this.functions > 0;
  }
}

function match(pattern: RegExp, text: string, at: number): string | undefined {
  pattern.lastIndex = at;
  return pattern.exec(text)?.[0];
}

/** Throws QuantityError at a character that the number language does not know. */
export function tokens(text: string): Token[] {
  const found: Token[] = [];
  const brackets = new OpenBrackets();
  let at = 0;
  let tight = true;
  while (at < text.length) {
    const char = text[at]!;
    if (/\s/.test(char)) {
      at += 1;
      tight = false;
      continue;
    }
    const number = firstMatch(brackets.areArguments ? ARGUMENT : FIGURE, text, at);
    const word = number === undefined ? match(WORD, text, at) : undefined;
    const mark = SAME_AS[char] ?? char;
    if (number !== undefined) {
      const value = Number(number.replace(SPACES, '').replace(',', '.'));
      if (!Number.isFinite(value)) throw quantityError('too-large.number', {}, { at, length: number.length });
      found.push({ kind: 'number', text: number, value, at, tight });
    } else if (word !== undefined) found.push({ kind: 'word', text: word, value: NaN, at, tight });
    else if (text.startsWith('**', at)) found.push({ kind: 'mark', text: '^', value: NaN, at, tight });
    else if (MARKS.has(mark)) found.push({ kind: 'mark', text: mark, value: NaN, at, tight });
    else throw quantityError('unknown-character', { char }, { at });
    brackets.see(found.at(-1)!, found.at(-2));
    at += number?.length ?? word?.length ?? (text.startsWith('**', at) ? 2 : 1);
    tight = true;
  }
  found.push({ kind: 'end', text: '', value: NaN, at: text.length, tight });
  return found;
}
