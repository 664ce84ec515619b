/** The edits and snapshots of a project, as the database has them. */
import { EntityManager } from '@mikro-orm/postgresql';
import { replay, type Edit, type Source } from '@kadrel/core';
import { EditRow, Snapshot } from '../data/entities.ts';
import type { Head } from './heads.ts';
import type { Sql } from './storing.ts';

/** Edits after one revision up to another, oldest first. */
export async function editsBetween(
  em: EntityManager,
  project: string,
  [after, upTo]: readonly [after: number, upTo: number],
): Promise<Edit[]> {
  const rows = await em.find(
    EditRow,
    { project, revision: { $gt: after, $lte: upTo } },
    { orderBy: { revision: 'asc' } },
  );
  return rows.map(({ body }) => body);
}

/** The same as a JSON list, made by the database: nothing is read here. */
export async function editsText(
  em: EntityManager,
  project: string,
  [after, upTo]: readonly [after: number, upTo: number],
): Promise<string> {
  const [row] = await em.execute<{ text: string }[]>(EDITS_TEXT, [project, after, upTo]);
  return row!.text;
}
const EDITS_TEXT = `select coalesce(jsonb_agg(body order by revision), '[]'::jsonb)::text as text
  from edit where project_id = ?::uuid and revision > ? and revision <= ?`;

/** From the last snapshot before it, and the edits since. */
export async function headAt(em: EntityManager, project: string, revision: number): Promise<Head> {
  const [snapshot] = await em.find(
    Snapshot,
    { project, revision: { $lte: revision } },
    { orderBy: { revision: 'desc' }, limit: 1 },
  );
  if (!snapshot) throw new Error(`Project ${project} has no snapshot.`);
  const edits = await editsBetween(em, project, [snapshot.revision, revision]);
  const last = edits.at(-1) ?? (await em.findOne(EditRow, { project, revision }))?.body;
  return { revision, document: replay(snapshot.document, edits), lastTime: last?.line.time ?? 0 };
}

/** The statements that undos and redos among these edits are about, and whether they are in force. */
export async function sourcesOf(
  sql: Sql,
  project: string,
  edits: readonly Edit[],
): Promise<ReadonlyMap<string, Source>> {
  const wanted = edits.flatMap(({ kind, of }) => (kind === 'do' || of === undefined ? [] : [of]));
  if (wanted.length === 0) return new Map();
  const rows = await sql.execute<{ edit_id: string; body: Edit; last: string | null }[]>(SOURCES, [
    project,
    `{${[...new Set(wanted)].map((id) => JSON.stringify(id)).join(',')}}`,
  ]);
  return new Map(rows.map(({ edit_id: id, body, last }) => [id, { edit: body, isInForce: last !== 'undo' }]));
}
const SOURCES = `select e.edit_id, e.body,
    (select b.body->>'kind' from edit b where b.project_id = e.project_id and b.body->>'of' = e.edit_id
      order by b.revision desc limit 1) as last
  from edit e where e.project_id = ?::uuid and e.edit_id = any(?::text[]) and e.body->>'kind' = 'do'`;
