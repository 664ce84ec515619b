/** What is wrong with how parts stand to one another, and what can be done about it. */
import { inOrderMade, type Meant } from '../document/fit.ts';
import type { KadrelDocument } from '../document/schema.ts';
import { fitFinding, measureFinding } from './checkFindings.ts';
import type { Context, Finding } from './finding.ts';
import { pairFindings } from './pairFindings.ts';
import { solidFindings, unbuiltFinding } from './solidFindings.ts';
import type { Scope, Surveyed } from './survey.ts';

export interface FitReport {
  readonly findings: readonly Finding[];
  readonly faults: number;
}

/** Faults first. */
export function fitReport(document: KadrelDocument, surveyed: Surveyed, scope: Scope): FitReport {
  const solids = new Map(surveyed.solids.map((one) => [one.tag, one]));
  const context: Context = { document, scope, solids };
  const meant = inOrderMade(document.meant);
  const findings = [
    ...surveyed.pairs.flatMap(({ pair, facts }) => pairFindings(context, pair, facts)),
    ...surveyed.unbuilt.map((id) => unbuiltFinding(context, id)),
    ...surveyed.solids.flatMap((one) => solidFindings(context, one, surveyed)),
    ...surveyed.fits.map((one) => fitFinding(context, one)),
    ...surveyed.measures.map((one) => measureFinding(context, one)),
  ].map((finding) => withMeant(meant, finding));
  const rank = { fault: 0, meant: 1, fine: 2 };
  findings.sort((a, b) => rank[a.state] - rank[b.state]);
  return { findings, faults: findings.filter(({ state }) => state === 'fault').length };
}

/** What is marked as meant is no fault. */
function withMeant(meant: readonly Meant[], finding: Finding): Finding {
  if (finding.state !== 'fault' || finding.kind === 'fit' || finding.kind === 'measure') return finding;
  const own = new Set(finding.items);
  const mark = meant.find(
    ({ parts }) => parts.every((id) => own.has(id)) && own.size === new Set(parts).size,
  );
  return mark ? { ...finding, state: 'meant', why: mark.why } : finding;
}
