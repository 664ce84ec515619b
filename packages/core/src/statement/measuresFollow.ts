/** Variables that are set from kept measures follow the model: what is measured anew moves what follows them, until nothing moves. */
import { current, isDraft } from 'immer';
import { recalculate } from '../document/recalculate.ts';
import type { KadrelDocument } from '../document/schema.ts';
import type { Measure } from '../document/fit.ts';
import { measuresUsed } from '../document/variables.ts';
import { measuredValue } from '../fit/judge.ts';
import { measuringOf } from '../fit/survey.ts';
import { takenFollow } from '../racks/follow.ts';
import { Unanswerable, refuse, type Refusal, type VerbContext } from './declare.ts';

/** Measured this often, a model that still moves follows itself: chains of measures that follow one another come to rest sooner. */
const MAX_ROUNDS = 6;
/** mm, mm², mm³, degrees or g: measured again, a thing that stands still may differ by less, in parts of it. */
const SAME = 1e-9;

/** @param before what the statement began with @returns why the statement cannot be carried out */
export function measuresFollow(
  before: KadrelDocument,
  draft: KadrelDocument,
  context: VerbContext,
): Refusal | undefined {
  if (measuresUsed(draft).length === 0) return undefined;
  for (let round = 0; round < MAX_ROUNDS; round++) {
    const moved = measuresUsed(draft).filter((measure) => hasMoved({ before, draft, context }, measure));
    if (moved.length === 0) return undefined;
    const problem = recalculate(draft)[0] ?? takenFollow(draft, () => context.newId());
    if (problem) return refuse('formula', { message: problem });
  }
  return refuse('measure-circle', {
    names: measuresUsed(draft)
      .map(({ name }) => name)
      .join(', '),
  });
}

/** What variables are set from is measured once, where that was not done before. */
export function readMeasures(draft: KadrelDocument, context: VerbContext): void {
  for (const measure of measuresUsed(draft)) {
    const value = measure.value ?? measuredNow(context, measure, {});
    if (value !== undefined) measure.value = value;
  }
}

interface Following {
  readonly before: KadrelDocument;
  readonly draft: KadrelDocument;
  readonly context: VerbContext;
}

/** Measures it as the draft now is, and keeps what it came to. */
function hasMoved({ before, draft, context }: Following, measure: Measure): boolean {
  const now = isDraft(draft) ? current(draft) : draft;
  const items = Object.fromEntries(
    Object.values(now.items).flatMap((item) => (before.items[item.id] === item ? [] : [[item.id, item]])),
  );
  const value = measuredNow(context, measure, items);
  if (value === undefined ? measure.value === undefined : isSame(value, measure.value)) return false;
  if (value === undefined) delete measure.value;
  else measure.value = value;
  return true;
}

const isSame = (a: number, b: number | undefined) =>
  b !== undefined && Math.abs(a - b) <= SAME * Math.max(1, Math.abs(a));

/** Undefined where there is no such value, as of what is gone. */
function measuredNow(
  context: VerbContext,
  measure: Measure,
  items: KadrelDocument['items'],
): number | undefined {
  try {
    const plain = isDraft(measure) ? current(measure) : measure;
    const facts = context.ask<'measured'>({ ask: 'measured', ...measuringOf(plain), items });
    return measuredValue(plain, facts);
  } catch (error) {
    if (error instanceof Unanswerable) return undefined;
    throw error;
  }
}
