/** Edits and documents → rows, by plain statements: each is one round trip. */
import { randomUUID } from 'node:crypto';
import { EntityManager } from '@mikro-orm/postgresql';
import type { Edit, KadrelDocument } from '@kadrel/core';
import { Account, Member, Project } from '../data/entities.ts';
import { prepared } from '../data/prepared.ts';

/**
 * Several saves in one round trip, each all or nothing: a project moves on from the revision that its edits were checked on, if it
 * still is there and the account belongs to it; the row's lock puts two that save at once one after the other. Takes one list, read
 * as rows, so that the statement is the same for any number of saves.
 */
const APPEND = `with save as materialized (
    select * from jsonb_to_recordset($1::jsonb) as s (project uuid, account uuid, base int, bytes int, edits jsonb)),
  head as (
    update project p
    set revision = p.revision + jsonb_array_length(s.edits), bytes = p.bytes + s.bytes, changed_at = now()
    from save s join member m on m.project_id = s.project and m.account_id = s.account
    where p.id = s.project and p.revision = s.base
    returning p.id, p.revision),
  stored as (
    insert into edit (project_id, revision, edit_id, body)
    select s.project, s.base + e.place, e.body->>'id', e.body
    from save s join head h on h.id = s.project
    cross join lateral jsonb_array_elements(s.edits) with ordinality as e (body, place))
  select id, revision from head`;

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

/** An addition, and the account that it is for. */
export interface StoredSave extends Addition {
  readonly account: string;
}

/** As a row of the list that the statement takes. */
export function rowText({ project, account, base, edits }: StoredSave): string {
  const text = JSON.stringify(edits);
  const ids = `"project":"${project}","account":"${account}"`;
  return `{${ids},"base":${base},"bytes":${text.length},"edits":${text}}`;
}

type Stored = readonly { readonly id: string; readonly revision: number }[];

/**
 * Stores saves of different projects, given as rows. Returns the new revision of each project; those are absent whose base is stale or
 * whose account does not belong to them. Throws where an edit is known, and stores nothing then.
 */
export async function storeTogether(
  em: EntityManager,
  rows: readonly string[],
): Promise<ReadonlyMap<string, number>> {
  const stored = await prepared<Stored>(em, { name: 'append', text: APPEND }, [`[${rows.join()}]`]);
  return new Map(stored.map(({ id, revision }) => [id, revision]));
}

/** Within a transaction. Returns the new revision; undefined where the base is stale or the project is not the account's. */
export async function storeEdits(sql: Sql, save: StoredSave): Promise<number | undefined> {
  const [row] = await sql.execute<{ revision: number }[]>(APPEND.replace('$1', '?'), [`[${rowText(save)}]`]);
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
    project.revision = (await storeEdits(em, { project: project.id, account: account.id, base: 0, edits }))!;
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
