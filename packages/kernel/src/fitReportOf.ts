/** The fit report of a document, made in this process. */
import {
  fitReport,
  surveyFit,
  type FitReport,
  type KadrelDocument,
  type Question,
  type Replies,
  type Scope,
} from '@kadrel/core';
import type { Evaluator } from './evaluate.ts';
import { BuildError } from './occt/occt.ts';

/** What is not there any more is told as such by the report. */
export async function fitReportOf(
  kernel: Evaluator,
  document: KadrelDocument,
  scope: Scope,
): Promise<FitReport> {
  const ask = <K extends Question['ask']>(question: Extract<Question, { ask: K }>) => {
    try {
      return Promise.resolve(kernel.answer(document, question) as Replies[K]);
    } catch (error) {
      if (error instanceof BuildError) return Promise.resolve(null);
      throw error;
    }
  };
  return fitReport(document, await surveyFit(document, scope, { ask }), scope);
}
