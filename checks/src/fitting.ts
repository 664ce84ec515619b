/** The fit report of a document, by a kernel in this process. */
import {
  USUAL_SCOPE,
  fitReport,
  surveyFit,
  type FitReport,
  type KadrelDocument,
  type Question,
  type Replies,
} from '@kadrel/core';
import type { Evaluator } from '@kadrel/kernel';

export async function reportOf(
  kernel: Evaluator,
  document: KadrelDocument,
  scope = USUAL_SCOPE,
): Promise<FitReport> {
  const ask = <K extends Question['ask']>(question: Extract<Question, { ask: K }>) =>
    Promise.resolve(kernel.answer(document, question) as Replies[K]);
  return fitReport(document, await surveyFit(document, scope, { ask }), scope);
}
