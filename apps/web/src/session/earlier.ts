/** The ledger comes in stretches: the latest edits with the project itself, the ones before them while people work. */
import { ledgerOf, type Edit } from '@kadrel/core';
import { ApiError } from '../api/call.ts';
import { STRETCH, workshopApi } from '../api/workshop.ts';
import type { SessionState } from './state.ts';

/** Where fetching failed it is tried again after this time, then after twice as long each time, ms. */
const FIRST_PAUSE_MS = 1000;
const LONGEST_PAUSE_MS = 60_000;

type LedgerState = Pick<SessionState, 'edits' | 'earlier' | 'lookingAt'>;

/** The edits that a project was opened with, and before them all that came after a revision, oldest first. */
export async function editsSince(
  {
    id,
    revision,
    edits,
  }: { readonly id: string; readonly revision: number; readonly edits: readonly Edit[] },
  base = revision,
): Promise<readonly Edit[]> {
  const first = revision - edits.length;
  if (base >= first) return edits;
  const missed = await workshopApi.edits(id, base);
  // Edits that arrived meanwhile belong to a newer revision than the document.
  return [...missed.edits.slice(0, first - base), ...edits];
}

/** What is known of the ledger once the stretch before it has come. Looking at an earlier line goes on at that line. */
export function withStretch({ edits, earlier, lookingAt }: LedgerState, found: readonly Edit[]): LedgerState {
  const all = [...found, ...edits];
  const more = ledgerOf(all).length - ledgerOf(edits).length;
  return {
    edits: all,
    earlier: earlier - found.length,
    lookingAt: lookingAt === null ? null : lookingAt + more,
  };
}

/** What is needed to fetch the ledger in stretches. */
export interface Fetching {
  readonly projectId: string;
  readonly get: () => LedgerState;
  readonly set: (change: LedgerState) => void;
  readonly later: (work: () => void, ms: number) => void;
}

/** Fetches the earlier edits, the latest first, until all are there. Returns a function that stops it. */
export function fetchEarlier({ projectId, get, set, later }: Fetching): () => void {
  let isStopped = false;
  const fetchNext = async (pauseMs: number): Promise<void> => {
    const { earlier } = get();
    const limit = Math.min(STRETCH, earlier);
    if (isStopped || limit === 0) return;
    const found = await stretchBefore(projectId, earlier, limit);
    if (isStopped || found === 'gone') return;
    if (found === 'away')
      return later(() => void fetchNext(Math.min(2 * pauseMs, LONGEST_PAUSE_MS)), pauseMs);
    set(withStretch(get(), found));
    return fetchNext(FIRST_PAUSE_MS);
  };
  void fetchNext(FIRST_PAUSE_MS);
  return () => {
    isStopped = true;
  };
}

async function stretchBefore(
  id: string,
  revision: number,
  limit: number,
): Promise<readonly Edit[] | 'away' | 'gone'> {
  try {
    return await workshopApi.stretchOfEdits(id, [revision - limit, limit]);
  } catch (error) {
    if (error instanceof ApiError) return error.isPassing ? 'away' : 'gone';
    throw error;
  }
}
