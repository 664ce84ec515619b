/** The edits and snapshots of a project, as the database has them. */
import { EntityManager } from '@mikro-orm/postgresql';
import { applyEdit, readDocument, type Edit, type KadrelDocument } from '@kadrel/core';
import { EditRow, Snapshot } from '../data/entities.ts';

/** Edits after one revision up to another, oldest first. */
export async function editsBetween(
  em: EntityManager,
  project: string,
  after: number,
  upTo: number,
): Promise<Edit[]> {
  const rows = await em.find(
    EditRow,
    { project, revision: { $gt: after, $lte: upTo } },
    { orderBy: { revision: 'asc' } },
  );
  return rows.map(({ body }) => body);
}

/** From the last snapshot before it, and the edits since. */
export async function documentAt(
  em: EntityManager,
  project: string,
  revision: number,
): Promise<KadrelDocument> {
  const [snapshot] = await em.find(
    Snapshot,
    { project, revision: { $lte: revision } },
    { orderBy: { revision: 'desc' }, limit: 1 },
  );
  if (!snapshot) throw new Error(`Project ${project} has no snapshot.`);
  const edits = await editsBetween(em, project, snapshot.revision, revision);
  return edits.reduce<KadrelDocument>(applyEdit, readDocument(snapshot.document));
}
