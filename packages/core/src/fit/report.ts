/** What is wrong with how parts stand to one another, and what can be done about it. */
import { inOrderMade, type Meant } from '../document/fit.ts';
import { standingOf } from '../document/items.ts';
import type { ItemId, KadrelDocument } from '../document/schema.ts';
import { fitFinding, measureFinding } from './checkFindings.ts';
import type { Context, Finding } from './finding.ts';
import { pairFindings } from './pairFindings.ts';
import { solidFindings, unbuiltFinding } from './solidFindings.ts';
import type { Scope, Surveyed } from './survey.ts';

/** Everything that was found, and how much of it is a fault. */
export interface FitReport {
  readonly findings: readonly Finding[];
  readonly faults: number;
}

/** Makes findings of what was asked of the kernel. */
export function fitReport(document: KadrelDocument, surveyed: Surveyed, scope: Scope): FitReport {
  const solids = new Map(surveyed.solids.map((one) => [one.tag, one]));
  const context: Context = { document, scope, solids };
  const marks = marksOf(document);
  const findings = [
    ...surveyed.pairs.flatMap(({ pair, facts }) => pairFindings(context, pair, facts)),
    ...surveyed.unbuilt.map((id) => unbuiltFinding(context, id)),
    ...surveyed.solids.flatMap((one) => solidFindings(context, one, surveyed)),
    ...surveyed.fits.map((one) => fitFinding(context, one)),
    ...surveyed.measures.map((one) => measureFinding(context, one)),
  ].map((finding) => withMeant(marks, finding));
  return reportOf(findings);
}

const RANK = { fault: 0, meant: 1, fine: 2 };

/** Faults first, and how many there are. */
export const reportOf = (findings: readonly Finding[]): FitReport => ({
  findings: findings.toSorted((a, b) => RANK[a.state] - RANK[b.state]),
  faults: findings.filter(({ state }) => state === 'fault').length,
});

/** What is marked as meant is no fault; what cannot be determined is no matter of meaning. */
function withMeant(marks: readonly Mark[], finding: Finding): Finding {
  const { state, kind, items } = finding;
  if (state !== 'fault' || kind === 'fit' || kind === 'measure' || kind === 'doubt') return finding;
  const mark = marks.find((one) => isAbout(one, items));
  return mark ? { ...finding, state: 'meant', why: mark.meant.why, mark: mark.meant.name } : finding;
}

/** A mark, and what stands in each of its parts: a group is all its members. */
interface Mark {
  readonly meant: Meant;
  readonly sides: readonly ReadonlySet<ItemId>[];
}

const marksOf = (document: KadrelDocument): Mark[] =>
  inOrderMade(document.meant).map((meant) => ({
    meant,
    sides: meant.parts.map((id) => standingOf(document, [id])),
  }));

function isAbout({ sides }: Mark, items: readonly ItemId[]): boolean {
  if (sides.length !== items.length) return false;
  const isIn = (order: readonly ItemId[]) => order.every((item, i) => sides[i]!.has(item));
  return isIn(items) || isIn([...items].reverse());
}
