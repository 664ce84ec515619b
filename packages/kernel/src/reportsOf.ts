/** Reports on a document, made in this process. */
import {
  fitReport,
  makeReport,
  surveyFit,
  surveyMaking,
  type Asking,
  type FitReport,
  type ItemId,
  type KadrelDocument,
  type MakeLimits,
  type Question,
  type Replies,
  type Scope,
} from '@kadrel/core';
import type { Evaluator } from './evaluate.ts';
import { BuildError } from './occt/occt.ts';

/** What is not there any more is reported as such by the report. */
export async function fitReportOf(
  kernel: Evaluator,
  document: KadrelDocument,
  scope: Scope,
): Promise<FitReport> {
  const surveyed = await surveyFit(document, scope, { ask: askingOf(kernel, document) });
  return fitReport(document, surveyed, scope);
}

/** Whether parts can be made as they stand: those that can be seen, or these. */
export async function makeReportOf(
  kernel: Evaluator,
  document: KadrelDocument,
  { limits, parts }: { readonly limits: MakeLimits; readonly parts?: readonly ItemId[] | undefined },
): Promise<FitReport> {
  const scope = { overhang: limits.overhang, parts };
  const surveyed = await surveyMaking(document, scope, { ask: askingOf(kernel, document) });
  return makeReport(document, surveyed, limits);
}

/** Asks a kernel of this process; null for what it refuses. */
export const askingOf = (kernel: Evaluator, document: KadrelDocument): Asking => {
  return <K extends Question['ask']>(question: Extract<Question, { ask: K }>) => {
    try {
      return Promise.resolve(kernel.answer(document, question) as Replies[K]);
    } catch (error) {
      if (error instanceof BuildError) return Promise.resolve(null);
      throw error;
    }
  };
};
