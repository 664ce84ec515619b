/** The fit report without a screen: `kadrel fit FILE`. */
import { USUAL_SCOPE, standingOf, type FitReport, type KadrelDocument } from '@kadrel/core';
import { fitReportOf, type Evaluator } from '@kadrel/kernel';
import { bedOf } from './make.ts';
import { UsageError } from './usage.ts';

/** As given on the command line. */
export interface FitOptions {
  readonly reach?: string | undefined;
  readonly hair?: string | undefined;
  readonly parts?: readonly string[] | undefined;
  /** Parts and groups whose solids are looked at with those of the others among them. */
  readonly within?: readonly string[] | undefined;
  /** Three lengths with commas. */
  readonly bed?: string | undefined;
}

/** Throws UsageError. */
export function fitOf(document: KadrelDocument, kernel: Evaluator, options: FitOptions): Promise<FitReport> {
  const scope = {
    reach: readMm('--reach', options.reach, USUAL_SCOPE.reach),
    hair: readMm('--hair', options.hair, USUAL_SCOPE.hair),
    ...(options.parts?.length ? { among: [...standingOf(document, options.parts)] } : {}),
    ...(options.within?.length
      ? { between: options.within.map((id) => [...standingOf(document, [id])]) }
      : {}),
    ...(options.bed === undefined ? {} : { site: bedOf(options.bed) }),
  };
  return fitReportOf(kernel, document, scope);
}

/** No reach is longer than a site, mm. */
const MAX_MM = 1e6;

function readMm(option: string, text: string | undefined, usual: number): number {
  const mm = text === undefined ? usual : Number(text);
  if (!(mm >= 0 && mm <= MAX_MM)) throw new UsageError(`${option} takes millimetres, 0 to ${MAX_MM}.`);
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
