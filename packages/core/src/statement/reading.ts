/** Numbers that a verb reads itself, since `now` is another for each part. */
import { valueOf } from '../document/items.ts';
import type { Num, NumVector } from '../document/schema.ts';
import { QuantityError } from '../quantity/lexer.ts';
import type { QuantityKind } from '../quantity/units.ts';
import { isRefusal, refuseFor, type Refusal, type VerbContext } from './declare.ts';

/** What is read. */
export interface Reading<N> {
  readonly kind: QuantityKind;
  /** What `now` says. */
  readonly now: N;
  readonly context: VerbContext;
  readonly blank: string;
}

export function readOne(text: string, { kind, now, context, blank }: Reading<Num>): Num | Refusal {
  try {
    const value = context.read(text, kind, valueOf(now));
    return text.trim() === 'now' ? now : value;
  } catch (error) {
    if (error instanceof QuantityError) return refuseFor(error, blank);
    throw error;
  }
}

export function readThree(
  texts: readonly string[],
  { now, ...reading }: Reading<NumVector>,
): NumVector | Refusal {
  const read = texts.map((text, axis) => readOne(text, { ...reading, now: now[axis]! }));
  return read.find(isRefusal) ?? (read as NumVector);
}
