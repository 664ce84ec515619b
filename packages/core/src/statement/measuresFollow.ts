/** Variables that are set from kept measures follow the model: what is measured anew moves what follows them, until nothing moves. */
import { current, isDraft } from 'immer';
import { changedItems, type ChangedItems } from '../document/changed.ts';
import { recalculate } from '../document/recalculate.ts';
import type { KadrelDocument } from '../document/schema.ts';
import type { Measure } from '../document/fit.ts';
import { measuresUsed } from '../document/variables.ts';
import { measuredValue } from '../fit/judge.ts';
import { measuringOf } from '../fit/survey.ts';
import { takenFollow } from '../racks/follow.ts';
import { Unanswerable, refuse, refuseFor, type Refusal, type VerbContext } from './declare.ts';

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
  dropUnused(draft);
  if (measuresUsed(draft).length === 0) return undefined;
  for (let round = 0; round < MAX_ROUNDS; round++) {
    const items = changedItems(before, isDraft(draft) ? current(draft) : draft);
    const moved = measuresUsed(draft).filter((measure) => hasMoved(context, measure, items));
    if (moved.length === 0) return undefined;
    const problem = recalculate(draft)[0] ?? takenFollow(draft, () => context.newId());
    if (problem) return refuseFor(problem);
  }
  return refuse('measure-circle', {
    names: measuresUsed(draft)
      .map(({ name }) => name)
      .join(', '),
  });
}

/** What variables are set from is measured, where that was not done before. */
export function readMeasures(draft: KadrelDocument, context: VerbContext): void {
  for (const measure of measuresUsed(draft)) if (measure.value === undefined) hasMoved(context, measure, {});
}

/** What no variable is set from any more is not kept. */
function dropUnused(draft: KadrelDocument): void {
  const used = new Set(measuresUsed(draft).map(({ id }) => id));
  for (const measure of Object.values(draft.measures))
    if (measure.value !== undefined && !used.has(measure.id)) delete measure.value;
}

/** Measures it as the draft now is, and keeps what it came to. */
function hasMoved(context: VerbContext, measure: Measure, items: ChangedItems): boolean {
  const value = measuredNow(context, measure, items);
  if (value === undefined ? measure.value === undefined : isSame(value, measure.value)) return false;
  if (value === undefined) delete measure.value;
  else measure.value = value;
  return true;
}

const isSame = (a: number, b: number | undefined) =>
  b !== undefined && Math.abs(a - b) <= SAME * Math.max(1, Math.abs(a));

/** Undefined where there is no such value, as of what is gone. */
function measuredNow(context: VerbContext, measure: Measure, items: ChangedItems): number | undefined {
  try {
    const plain = isDraft(measure) ? current(measure) : measure;
    const facts = context.ask<'measured'>({ ask: 'measured', ...measuringOf(plain), items });
    return measuredValue(plain, facts);
  } catch (error) {
    if (error instanceof Unanswerable) return undefined;
    throw error;
  }
}
