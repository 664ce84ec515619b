/** The fit report without a screen: `kadrel fit FILE`. */
import { USUAL_SCOPE, type FitReport, type KadrelDocument } from '@kadrel/core';
import { fitReportOf, type Evaluator } from '@kadrel/kernel';
import { UsageError } from './usage.ts';

/** As given on the command line. */
export interface FitOptions {
  readonly reach?: string | undefined;
  readonly hair?: string | undefined;
  readonly parts?: readonly string[] | undefined;
}

/** Throws UsageError. */
export function fitOf(document: KadrelDocument, kernel: Evaluator, options: FitOptions): Promise<FitReport> {
  const scope = {
    reach: readMm('--reach', options.reach, USUAL_SCOPE.reach),
    hair: readMm('--hair', options.hair, USUAL_SCOPE.hair),
    ...(options.parts?.length ? { among: options.parts } : {}),
  };
  return fitReportOf(kernel, document, scope);
}

/** No reach is longer than a site, mm. */
const MOST_MM = 1e6;

function readMm(option: string, text: string | undefined, usual: number): number {
  const mm = text === undefined ? usual : Number(text);
  if (!(mm >= 0 && mm <= MOST_MM)) throw new UsageError(`${option} takes millimetres, 0 to ${MOST_MM}.`);
  return mm;
}

/** One object with all findings. */
export const fitJson = (document: KadrelDocument, { findings, faults }: FitReport) => ({
  faults,
  findings: findings.map(({ kind, state, items, what, words, size, box, ends, why }) => ({
    kind,
    state,
    parts: items.map((id) => document.items[id]?.name ?? id),
    what,
    words,
    size,
    box,
    ...(ends ? { from: ends[0], to: ends[1] } : {}),
    ...(why === undefined ? {} : { why }),
  })),
});
