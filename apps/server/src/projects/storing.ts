/** Edits and documents → rows, by plain statements: each is one round trip. */
import { randomUUID } from 'node:crypto';
import { EntityManager } from '@mikro-orm/postgresql';
import type { Edit, KadrelDocument } from '@kadrel/core';
import { Account, Member, Project } from '../data/entities.ts';
import type { Asking } from './tasks.ts';

/**
 * All or nothing, in one round trip: the project moves on from the revision that the edits were checked on, if it still is there
 * and the account belongs to it; the row's lock puts two that save at once one after the other.
 */
const APPEND = `with head as (
    update project set revision = revision + ?, bytes = bytes + ?, changed_at = now()
    where id = ?::uuid and revision = ?
      and exists (select 1 from member where project_id = ?::uuid and account_id = ?::uuid)
    returning revision),
  stored as (
    insert into edit (project_id, revision, edit_id, body)
    select ?::uuid, ?::int + e.place, e.body->>'id', e.body
    from jsonb_array_elements(?::jsonb) with ordinality as e (body, place)
    where exists (select 1 from head))
  select revision from head`;

/** A connection, or an entity manager within its transaction. */
export interface Sql {
  execute<T extends object[]>(sql: string, values: unknown[]): Promise<T>;
}

/** What is to be stored behind a revision of a project. */
export interface Addition {
  readonly project: string;
  readonly base: number;
  readonly edits: readonly Edit[];
}

/** Returns the new revision; undefined where the base is stale or the project is not the account's. Throws where an edit is known. */
export async function storeEdits(
  sql: Sql,
  asking: Asking,
  { project, base, edits }: Addition,
): Promise<number | undefined> {
  const text = JSON.stringify(edits);
  const values = [edits.length, text.length, project, base, project, asking.id, project, base, text];
  const [row] = await sql.execute<{ revision: number }[]>(APPEND, values);
  return row?.revision;
}

const SNAPSHOT = `insert into snapshot (project_id, revision, document) values (?::uuid, ?, ?::jsonb) on conflict do nothing`;
const SNAPSHOTS = `select revision from snapshot where project_id = ?::uuid order by revision`;
const THIN = `delete from snapshot where project_id = ?::uuid and revision = any(?::int[])`;

/** Also thins the older snapshots. */
export async function storeSnapshot(
  em: EntityManager,
  project: string,
  { revision, text }: { revision: number; text: string },
): Promise<void> {
  await em.execute(SNAPSHOT, [project, revision, text]);
  const rows = await em.execute<{ revision: number }[]>(SNAPSHOTS, [project]);
  const gone = superfluous(rows.map((row) => row.revision));
  if (gone.length > 0) await em.execute(THIN, [project, `{${gone.join(',')}}`]);
}

/**
 * Revisions whose snapshots can go, so that those that stay lie the farther apart the older they are: replaying up to any revision
 * takes at most as many edits as lie between it and the latest, or so, and a history of n edits keeps about log n documents.
 * @param revisions ascending; the first and the last always stay
 */
export function superfluous(revisions: readonly number[]): number[] {
  const last = revisions.at(-1) ?? 0;
  const gone: number[] = [];
  let keptAge = Infinity;
  revisions.forEach((revision, i) => {
    const next = revisions[i + 1];
    const isEnd = i === 0 || next === undefined;
    // Without it the stretch from the snapshot kept before it to the next one would still be no longer than the next one is old.
    if (!isEnd && keptAge - (last - next) <= last - next) gone.push(revision);
    else keptAge = last - revision;
  });
  return gone;
}

export interface NewProject {
  readonly name: string;
  /** The document before the edits. */
  readonly start: KadrelDocument;
  readonly edits?: readonly Edit[];
  readonly picture?: string | null;
}

/** Within a transaction. The edits are not checked here. */
export async function storeProject(
  em: EntityManager,
  account: Pick<Account, 'id'>,
  { name, start, edits = [], picture = null }: NewProject,
): Promise<Project> {
  const project = em.create(Project, { id: randomUUID(), name, picture });
  em.create(Member, { project, account: em.getReference(Account, account.id) });
  await em.flush();
  await storeSnapshot(em, project.id, { revision: 0, text: JSON.stringify(start) });
  if (edits.length > 0)
    project.revision = (await storeEdits(
      em,
      { id: account.id, name: '' },
      { project: project.id, base: 0, edits },
    ))!;
  return project;
}

const COPY_HISTORY = [
  `insert into edit (project_id, revision, edit_id, body)
   select ?::uuid, revision, edit_id, body from edit where project_id = ?::uuid and revision <= ?`,
  `insert into snapshot (project_id, revision, document)
   select ?::uuid, revision, document from snapshot where project_id = ?::uuid and revision <= ?`,
];
const COPY_SIZE = `update project set bytes = (select bytes from project where id = ?::uuid) where id = ?::uuid`;

/** A copy with the history up to a revision, for somebody. Within a transaction. */
export async function copyProject(
  em: EntityManager,
  account: Pick<Account, 'id'>,
  { source, name, base }: { source: Project; name: string; base: number },
): Promise<Project> {
  const project = em.create(Project, { id: randomUUID(), name, revision: base, picture: source.picture });
  em.create(Member, { project, account: em.getReference(Account, account.id) });
  await em.flush();
  for (const copy of COPY_HISTORY) await em.execute(copy, [project.id, source.id, base]);
  await em.execute(COPY_SIZE, [source.id, project.id]);
  return project;
}
