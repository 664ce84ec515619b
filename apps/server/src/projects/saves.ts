import { HttpStatus } from '@nestjs/common';
import { DOCUMENT_VERSION, type Edit } from '@kadrel/core';
import { Problem } from '../common/problem.ts';

/** Edits that a page made on a revision. */
export interface Save {
  readonly base: number;
  readonly edits: readonly Edit[];
}

/** An edit that a page sends twice in one go counts once. */
export function withoutDoubles({ base, edits }: Save): Save {
  return { base, edits: [...new Map(edits.map((edit) => [edit.id, edit])).values()] };
}

/** Throws a Problem where the page is of another version than this server. */
export function requireThisVersion(edits: readonly Edit[]): void {
  const other = edits.find(({ version }) => version !== undefined && version !== DOCUMENT_VERSION);
  if (!other) return;
  throw new Problem(
    426 as HttpStatus,
    other.version! > DOCUMENT_VERSION
      ? 'This server is older than the page. What is unsaved stays here until the server is brought up to date.'
      : 'This page is older than the server. Load it again; what is unsaved is kept.',
  );
}

/** A whole document is stored every so many edits, after they were answered: opening replays fewer. */
const EDITS_PER_SNAPSHOT = 50;

export const isSnapshotDue = (from: number, to: number): boolean =>
  Math.floor(to / EDITS_PER_SNAPSHOT) > Math.floor(from / EDITS_PER_SNAPSHOT);
