/** Which findings are listed, in which order, and as a table for other programs. */
import { FINDING_WORDS, type Finding } from '@kadrel/core';

/** Which findings are listed. */
export const LISTED = {
  all: 'All',
  fault: 'Faults',
  meant: 'Meant',
  near: 'Clearances and contacts',
  checks: 'Fits and measures',
} as const;
/** One of these lists. */
type Listed = keyof typeof LISTED;

/** In which order. */
export const SORTED = { kind: 'faults first', what: 'by name', size: 'by size' } as const;
/** One of these orders. */
type Sorted = keyof typeof SORTED;

const CHECKS = new Set<Finding['kind']>(['fit', 'measure']);
const NEAR = new Set<Finding['kind']>(['clearance', 'contact']);

const isListed = ({ state, kind }: Finding, listed: Listed): boolean => {
  if (listed === 'all') return true;
  if (listed === 'near') return NEAR.has(kind);
  return listed === 'checks' ? CHECKS.has(kind) : state === listed;
};

/** What is looked for. */
export interface Wish {
  readonly listed: Listed;
  readonly sorted: Sorted;
  /** Part of a name, or of what is said. */
  readonly text: string;
}

/** Those that are wished for, in their order. */
export function rowsOf(findings: readonly Finding[], { listed, sorted, text }: Wish): Finding[] {
  const wanted = text.trim().toLowerCase();
  const found = findings.filter(
    (one) =>
      isListed(one, listed) &&
      `${one.what} ${one.words} ${FINDING_WORDS[one.kind]}`.toLowerCase().includes(wanted),
  );
  if (sorted === 'what')
    return found.sort((a, b) => a.what.localeCompare(b.what, undefined, { numeric: true }));
  return sorted === 'size' ? found.sort((a, b) => a.size - b.size) : found;
}

/** Findings that say the same of several, as of the members of a pattern. */
export interface Row {
  readonly finding: Finding;
  readonly alike: readonly Finding[];
}

/** Each row stands where its first finding does. */
export function groupedRows(findings: readonly Finding[]): Row[] {
  const rows = new Map<string, { finding: Finding; alike: Finding[] }>();
  for (const finding of findings) {
    const key = [finding.kind, finding.state, finding.words, finding.why].join('\n');
    const row = rows.get(key);
    if (row) row.alike.push(finding);
    else rows.set(key, { finding, alike: [] });
  }
  return [...rows.values()];
}
