/**
 * The number language: text of a field → a tree. Grammar, loosest first:
 *
 *   sum      product (('+' | '-') product)*
 *   product  signed (('*' | '/') signed)*
 *   signed   ('-' | '+') signed | power
 *   power    atom ('^' signed)?                       right to left; -2^2 is -4
 *   atom     '(' sum ')' | name '(' sum, … ')' | name | measure
 *   measure  figure unit (figure unit)*               5' 3-1/2"   2 ft 6 in   12° 30'
 *   figure   3   3/4 (before a unit)   3 1/2   3-1/2 (tight, before a unit)
 *   slope    sum ':' sum                              1:12, in an angle field only
 *
 * A fraction of whole numbers straight before a unit is one figure: `1/2 in` is half an inch.
 */
import { quantityError, tokens, type Token } from './lexer.ts';
import { unitNamed, type QuantityKind, type Unit } from './units.ts';

/** A text as it was understood, with the place of each piece. */
export type Tree = { readonly at: number; readonly length: number } & (
  | { readonly node: 'number'; readonly value: number }
  | { readonly node: 'measure'; readonly value: number; readonly unit: Unit; readonly power: number }
  | { readonly node: 'percent'; readonly of: Tree }
  | { readonly node: 'name'; readonly name: string }
  | { readonly node: 'call'; readonly name: string; readonly args: readonly Tree[] }
  | { readonly node: 'negative'; readonly of: Tree }
  | {
      readonly node: 'binary';
      readonly op: '+' | '-' | '*' | '/' | '^' | ':';
      readonly left: Tree;
      readonly right: Tree;
    }
);

/** Deeper nesting than this is refused, so that hostile text cannot exhaust the stack. */
const DEEPEST_NESTING = 100;

/** More than anybody types, and few enough for a sum of them to be reckoned term within term. */
const MAX_TOKENS = 2000;

/** Throws QuantityError where the text stops making sense. */
export function parseQuantity(text: string, kind: QuantityKind): Tree {
  const list = tokens(text);
  const tree = new Parser(list, kind).whole();
  if (list.length > MAX_TOKENS) throw quantityError('too-long.most', { maxTokens: MAX_TOKENS }, { at: 0 });
  return tree;
}

class Parser {
  private position = 0;
  private depth = 0;

  constructor(
    private readonly list: readonly Token[],
    private readonly kind: QuantityKind,
  ) {}

  whole(): Tree {
    if (this.peek().kind === 'end') throw quantityError('empty.type', {}, { at: 0 });
    let tree = this.sum();
    if (this.isMark(':')) {
      this.position += 1;
      const right = this.sum();
      tree = this.binary(':', tree, right);
    }
    const rest = this.peek();
    if (rest.kind !== 'end') this.fail(rest);
    return tree;
  }

  private sum(): Tree {
    let left = this.product();
    while (this.isMark('+') || this.isMark('-')) {
      const op = this.take().text as '+' | '-';
      left = this.binary(op, left, this.product());
    }
    return left;
  }

  private product(): Tree {
    let left = this.signed();
    while (this.isMark('*') || this.isMark('/')) {
      const op = this.take().text as '*' | '/';
      left = this.binary(op, left, this.signed());
    }
    return left;
  }

  private signed(): Tree {
    const sign = this.peek();
    if (!this.isMark('-') && !this.isMark('+')) return this.power();
    this.deeper(sign);
    this.position += 1;
    const of = this.signed();
    this.depth -= 1;
    return sign.text === '+'
      ? of
      : { node: 'negative', of, at: sign.at, length: of.at + of.length - sign.at };
  }

  private power(): Tree {
    const base = this.atom();
    if (!this.isMark('^')) return base;
    this.position += 1;
    return this.binary('^', base, this.exponent());
  }

  /** A figure in a power is neither a fraction nor a measure with what follows: (1 in)^2 / 1 in is an inch. */
  private exponent(): Tree {
    const token = this.peek();
    if (token.kind !== 'number') return this.signed();
    this.position += 1;
    const figure: Tree = { node: 'number', value: token.value, at: token.at, length: token.text.length };
    if (!this.isMark('^')) return figure;
    this.position += 1;
    return this.binary('^', figure, this.exponent());
  }

  private atom(): Tree {
    const token = this.peek();
    if (token.kind === 'number') return this.measure();
    if (token.kind === 'word') return this.named();
    if (!this.isMark('(')) this.fail(token);
    this.deeper(token);
    this.position += 1;
    const inner = this.sum();
    const close = this.expect(')');
    this.depth -= 1;
    return this.unitAfterBracket({ ...inner, at: token.at, length: close.at + 1 - token.at });
  }

  /** `(2 + 3) cm` reads as a product with one centimetre. */
  private unitAfterBracket(inner: Tree): Tree {
    const token = this.peek();
    const unit = this.unitAt(this.position);
    if (!unit) return this.percentAfter(inner);
    this.position += 1;
    const one: Tree = {
      node: 'measure',
      value: 1,
      unit,
      power: this.unitPower(),
      at: token.at,
      length: token.text.length,
    };
    return this.binary('*', inner, one);
  }

  private named(): Tree {
    const token = this.take();
    const name = token.text;
    if (!this.isMark('(')) return { node: 'name', name, at: token.at, length: name.length };
    this.deeper(token);
    this.position += 1;
    const args: Tree[] = [];
    if (!this.isMark(')')) {
      args.push(this.sum());
      while (this.isMark(',')) {
        this.position += 1;
        args.push(this.sum());
      }
    }
    const close = this.expect(')');
    this.depth -= 1;
    return { node: 'call', name, args, at: token.at, length: close.at + 1 - token.at };
  }

  private measure(): Tree {
    const first = this.peek();
    let tree = this.figureWithUnit();
    if (tree.node !== 'measure') return this.percentAfter(tree);
    while (this.peek().kind === 'number' && tree.node === 'measure' && tree.power === 1) {
      const start = this.peek();
      const next = this.figureWithUnit();
      if (next.node !== 'measure' || next.unit.dimension.length !== tree.unit.dimension.length)
        throw quantityError('missing-unit', {}, { at: start.at, length: start.text.length });
      if (next.unit.factor >= tree.unit.factor)
        throw quantityError('unit-order', {}, { at: start.at, length: start.text.length });
      const value: number = tree.value + (next.value * next.unit.factor) / tree.unit.factor;
      tree = { ...tree, value, length: this.endOfLast() - first.at };
      // A power after the last unit is one of all of it: 1 m 20 cm ^2 is 1.44 m².
      if (next.power !== 1) return this.binary('^', tree, { ...next, node: 'number', value: next.power });
    }
    return tree;
  }

  /** A figure and its unit; without a unit a plain number. */
  private figureWithUnit(): Tree {
    const first = this.take();
    let value = first.value;
    const fraction = this.fractionAt(this.position + (this.isMark('-') ? 1 : 0));
    const wholeNumber = /^\d+$/.test(first.text);
    if (wholeNumber && fraction !== undefined && this.isMark('-') && this.isTightMixed()) {
      value += fraction;
      this.position += 4;
    } else if (wholeNumber && fraction !== undefined && this.peek().kind === 'number' && !this.peek().tight) {
      value += fraction;
      this.position += 3;
    } else if (wholeNumber && this.isMark('/')) {
      const over = this.list[this.position + 1]!;
      if (
        /^\d+$/.test(over.text) &&
        this.unitAt(this.position + 2) &&
        !this.isCallOrPower(this.position + 3)
      ) {
        if (over.value === 0) throw quantityError('division-by-zero', {}, { at: over.at });
        value /= over.value;
        this.position += 2;
      }
    }
    const unit = this.unitAt(this.position);
    if (!unit) return { node: 'number', value, at: first.at, length: this.endOfLast() - first.at };
    this.position += 1;
    const power = this.unitPower();
    return { node: 'measure', value, unit, power, at: first.at, length: this.endOfLast() - first.at };
  }

  /** `3-1/2"`: no spaces inside, and an inch, foot or other unit after it. */
  private isTightMixed(): boolean {
    const [minus, top, slash, bottom] = this.list.slice(this.position, this.position + 4);
    return Boolean(
      minus?.tight && top?.tight && slash?.tight && bottom?.tight && this.unitAt(this.position + 4),
    );
  }

  /** The value of `1/2` standing at `index`, when it is a proper fraction of whole numbers. */
  private fractionAt(index: number): number | undefined {
    const [top, slash, bottom] = this.list.slice(index, index + 3);
    if (!top || !slash || !bottom || slash.text !== '/') return undefined;
    if (!/^\d+$/.test(top.text) || !/^\d+$/.test(bottom.text) || top.value >= bottom.value) return undefined;
    return top.value / bottom.value;
  }

  private isCallOrPower(index: number): boolean {
    return this.list[index]?.text === '(';
  }

  private unitAt(index: number): Unit | undefined {
    const token = this.list[index];
    if (!token || token.kind === 'number' || token.kind === 'end') return undefined;
    if (this.list[index + 1]?.text === '(' && token.kind === 'word') return undefined;
    return unitNamed(token.text, this.kind);
  }

  /** `cm²`, `cm^2`: the power belongs to the unit. */
  private unitPower(): number {
    const token = this.peek();
    if (token.text === '²' || token.text === '³') {
      this.position += 1;
      return token.text === '²' ? 2 : 3;
    }
    const power = this.list[this.position + 1];
    if (this.isMark('^') && power?.kind === 'number') {
      this.position += 2;
      return power.value;
    }
    return 1;
  }

  private percentAfter(of: Tree): Tree {
    if (!this.isMark('%')) return of;
    const mark = this.take();
    return { node: 'percent', of, at: of.at, length: mark.at + 1 - of.at };
  }

  private binary(op: '+' | '-' | '*' | '/' | '^' | ':', left: Tree, right: Tree): Tree {
    return { node: 'binary', op, left, right, at: left.at, length: right.at + right.length - left.at };
  }

  private peek(): Token {
    return this.list[this.position]!;
  }

  private take(): Token {
    return this.list[this.position++]!;
  }

  private endOfLast(): number {
    const last = this.list[this.position - 1]!;
    return last.at + last.text.length;
  }

  private isMark(text: string): boolean {
    const token = this.peek();
    return token.kind === 'mark' && token.text === text;
  }

  private expect(text: string): Token {
    if (!this.isMark(text)) {
      const token = this.peek();
      if (token.kind === 'end') throw quantityError('unclosed', { text }, { at: token.at });
      this.fail(token);
    }
    return this.take();
  }

  private deeper(token: Token): void {
    this.depth += 1;
    if (this.depth > DEEPEST_NESTING) throw quantityError('too-deep', {}, { at: token.at });
  }

  private fail(token: Token): never {
    const length = Math.max(1, token.text.length);
    if (token.kind === 'end') throw quantityError('unfinished', {}, { at: token.at });
    if (token.text === ',') throw quantityError('comma', {}, { at: token.at });
    if (token.kind === 'word')
      throw quantityError('unknown-unit', { text: token.text }, { at: token.at, length: length });
    if (token.text === ':') throw quantityError('slope-place.such-stands', {}, { at: token.at });
    throw quantityError('unexpected', { text: token.text }, { at: token.at, length: length });
  }
}
