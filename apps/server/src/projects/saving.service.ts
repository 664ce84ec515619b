import { LockMode, UniqueConstraintViolationException } from '@mikro-orm/core';
import { EntityManager } from '@mikro-orm/postgresql';
import { HttpStatus, Injectable, Logger, type OnModuleDestroy } from '@nestjs/common';
import { afterEdits, isEditFault, type Edit, type KadrelDocument } from '@kadrel/core';
import { notFound, Problem } from '../common/problem.ts';
import { EditRow, Member, Project, type Account } from '../data/entities.ts';
import { Heads } from './heads.ts';
import { documentAt, editsBetween } from './history.ts';
import { Lines } from './lines.ts';

/** A whole document is stored every so many edits, after they were answered: opening replays fewer. */
const EDITS_PER_SNAPSHOT = 50;

export interface Appended {
  readonly revision: number;
}

/** Edits that a page made on a revision. */
export interface Save {
  readonly base: number;
  readonly edits: readonly Edit[];
}

/**
 * All or nothing, in one round trip: the project moves on from the revision that the edits were checked on, if it still is there
 * and the account belongs to it; the row's lock puts two that save at once one after the other.
 */
const APPEND = `with head as (
    update project set revision = revision + ?, changed_at = now()
    where id = ?::uuid and revision = ?
      and exists (select 1 from member where project_id = ?::uuid and account_id = ?::uuid)
    returning revision),
  stored as (
    insert into edit (project_id, revision, edit_id, body)
    select ?::uuid, ?::int + e.place, e.body->>'id', e.body
    from jsonb_array_elements(?::jsonb) with ordinality as e (body, place)
    where exists (select 1 from head))
  select revision from head`;

const SNAPSHOT = `insert into snapshot (project_id, revision, document) values (?::uuid, ?, ?::jsonb) on conflict do nothing`;

@Injectable()
export class SavingService implements OnModuleDestroy {
  private readonly log = new Logger('Kadrel');
  private readonly heads = new Heads();
  private readonly lines = new Lines();
  private readonly snapshots = new Set<Promise<unknown>>();

  constructor(private readonly em: EntityManager) {}

  /** Snapshots that are still being written. */
  async onModuleDestroy(): Promise<void> {
    await Promise.allSettled(this.snapshots);
  }

  /**
   * Appends edits made on revision `base`. Edits that are stored already (sent again because the answer was lost) are skipped. On a
   * stale base nothing is stored, and the refusal carries the edits that the page misses.
   */
  append(account: Account, id: string, save: Save): Promise<Appended> {
    return this.lines.inLine(id, () => this.appendNow(account, id, withoutDoubles(save)));
  }

  private async appendNow(account: Account, id: string, save: Save): Promise<Appended> {
    const known = this.heads.at(id, save.base);
    if (!known) return this.appendLocked(account, id, save);
    const document = afterEdits(known, save.edits);
    // What does not fit may have been stored before: that is looked up.
    if (isEditFault(document)) return this.appendLocked(account, id, save);
    const revision = await this.stored(account, id, save);
    if (revision === undefined) return this.appendLocked(account, id, save);
    this.moveOn(id, save.base, { revision, document });
    return { revision };
  }

  /** Undefined where the base is stale, an edit is known, or the project is not the account's. */
  private async stored(account: Account, id: string, { base, edits }: Save): Promise<number | undefined> {
    const values = [edits.length, id, base, id, account.id, id, base, JSON.stringify(edits)];
    try {
      const [row] = await this.em.getConnection().execute<{ revision: number }[]>(APPEND, values);
      return row?.revision;
    } catch (error) {
      if (error instanceof UniqueConstraintViolationException || isUniqueViolation(error)) return undefined;
      throw error;
    }
  }

  /** Step by step under the project's row lock: for the first save after a start, and for all that is not plain. */
  private async appendLocked(account: Account, id: string, { base, edits }: Save): Promise<Appended> {
    const saved = await this.em.fork().transactional(async (em) => {
      const project = await lockedProject(em, account, id);
      const stored = await em.find(
        EditRow,
        { project: id, editId: { $in: edits.map((edit) => edit.id) } },
        { fields: ['editId', 'revision'] },
      );
      const known = new Set(stored.map((row) => row.editId));
      const fresh = edits.filter((edit) => !known.has(edit.id));
      // All that came after the base must be ours already.
      const ours = stored.filter((row) => row.revision > base).length;
      if (base + ours !== project.revision) throw await stale(em, project, base);
      const before = this.heads.at(id, project.revision) ?? (await documentAt(em, id, project.revision));
      const document = requireFit(before, fresh);
      for (const body of fresh)
        em.create(EditRow, { project, revision: ++project.revision, editId: body.id, body });
      if (fresh.length > 0) project.changedAt = new Date();
      await em.flush();
      return { from: project.revision - fresh.length, revision: project.revision, document };
    });
    this.moveOn(id, saved.from, saved);
    return { revision: saved.revision };
  }

  /** The head is kept in memory, and from time to time stored. */
  private moveOn(id: string, from: number, head: { revision: number; document: KadrelDocument }): void {
    this.heads.keep(id, head);
    const isDue = Math.floor(head.revision / EDITS_PER_SNAPSHOT) > Math.floor(from / EDITS_PER_SNAPSHOT);
    if (isDue) this.storeSnapshot(id, head);
  }

  /** Not waited for: without it opening takes a little longer, and nothing is lost. */
  private storeSnapshot(
    id: string,
    { revision, document }: { revision: number; document: KadrelDocument },
  ): void {
    const stored = this.em
      .fork()
      .getConnection()
      .execute(SNAPSHOT, [id, revision, JSON.stringify(document)])
      .catch((error: unknown) => {
        this.log.warn(`A snapshot was not stored: ${error instanceof Error ? error.name : 'unknown'}.`);
      })
      .finally(() => this.snapshots.delete(stored));
    this.snapshots.add(stored);
  }
}

/** An edit that a page sends twice in one go counts once. */
function withoutDoubles({ base, edits }: Save): Save {
  return { base, edits: [...new Map(edits.map((edit) => [edit.id, edit])).values()] };
}

/** PostgreSQL’s code for a key that is there already. */
const isUniqueViolation = (error: unknown): boolean =>
  typeof error === 'object' && error !== null && 'code' in error && error.code === '23505';

async function lockedProject(em: EntityManager, account: Account, id: string): Promise<Project> {
  const member = await em.findOne(Member, { project: id, account: account.id });
  if (!member) throw notFound();
  return em.findOneOrFail(Project, id, { lockMode: LockMode.PESSIMISTIC_WRITE, refresh: true });
}

async function stale(em: EntityManager, { id, revision }: Project, base: number): Promise<Problem> {
  return new Problem(HttpStatus.CONFLICT, 'Somebody else changed this project meanwhile.', {
    revision,
    edits: await editsBetween(em, id, base, revision),
  });
}

/** Throws a Problem that names the edit which does not fit. */
export function requireFit(document: KadrelDocument, edits: readonly Edit[]): KadrelDocument {
  const after = afterEdits(document, edits);
  if (!isEditFault(after)) return after;
  throw new Problem(HttpStatus.UNPROCESSABLE_ENTITY, after.message, { edit: after.edit });
}
