/** Numbers that a verb reads itself, since `now` is another for each part. */
import { valueOf } from '../document/items.ts';
import type { Num, NumVector } from '../document/schema.ts';
import { QuantityError } from '../quantity/lexer.ts';
import type { QuantityKind } from '../quantity/units.ts';
import { isRefusal, refuse, type Refusal, type VerbContext } from './declare.ts';

export function readOne(
  text: string,
  kind: QuantityKind,
  now: Num,
  context: VerbContext,
  blank: string,
  positive: boolean,
): Num | Refusal {
  try {
    const value = context.read(text, kind, valueOf(now));
    if (positive && !(valueOf(value) > 0))
      return refuse('not-positive', 'This must be more than zero.', blank);
    return text.trim() === 'now' ? now : value;
  } catch (error) {
    if (error instanceof QuantityError) return refuse(error.code, error.message, blank, error.at);
    throw error;
  }
}

export function readThree(
  texts: readonly string[],
  kind: QuantityKind,
  now: NumVector,
  context: VerbContext,
  blank: string,
  positive: boolean,
): NumVector | Refusal {
  const read = texts.map((text, axis) => readOne(text, kind, now[axis]!, context, blank, positive));
  return read.find(isRefusal) ?? (read as NumVector);
}
