import { createHash, randomUUID } from 'node:crypto';
import { LockMode } from '@mikro-orm/core';
import { EntityManager } from '@mikro-orm/postgresql';
import { HttpStatus, Injectable } from '@nestjs/common';
import {
  applyEdit,
  documentSchema,
  emptyDocument,
  readDocument,
  type Edit,
  type KadrelDocument,
  type Scene,
} from '@kadrel/core';
import { notFound, Problem } from '../common/problem.ts';
import { Account, Asset, EditRow, Member, Project, Snapshot } from '../data/entities.ts';

/** A whole document is stored every so many edits: opening replays fewer, and saving rarely costs more than an edit. */
const EDITS_PER_SNAPSHOT = 50;

export interface OpenedProject {
  readonly project: Project;
  readonly document: KadrelDocument;
}

export interface Appended {
  readonly revision: number;
}

@Injectable()
export class ProjectsService {
  constructor(private readonly em: EntityManager) {}

  async list(account: Account): Promise<Project[]> {
    const members = await this.em
      .fork()
      .find(
        Member,
        { account: account.id },
        { populate: ['project'], orderBy: { project: { changedAt: 'desc' } } },
      );
    return members.map(({ project }) => project);
  }

  create(account: Account, name: string, scene: Partial<Scene>): Promise<Project> {
    return this.createWith(account, name, emptyDocument(scene), []);
  }

  /** A project with a history: `start` is the document before the edits. */
  async createWith(
    account: Account,
    name: string,
    start: KadrelDocument,
    edits: readonly Edit[],
  ): Promise<Project> {
    const em = this.em.fork();
    const project = em.create(Project, { id: randomUUID(), name });
    em.create(Member, { project, account: em.getReference(Account, account.id) });
    em.create(Snapshot, { project, revision: 0, document: start });
    await em.flush();
    if (edits.length > 0) project.revision = (await this.append(account, project.id, 0, edits)).revision;
    return project;
  }

  async open(account: Account, id: string): Promise<OpenedProject> {
    const em = this.em.fork();
    const project = await this.mine(em, account, id);
    return { project, document: await documentAt(em, project, project.revision) };
  }

  /** The edits after a revision, oldest first. */
  async editsAfter(account: Account, id: string, after: number): Promise<Edit[]> {
    const em = this.em.fork();
    const project = await this.mine(em, account, id);
    return editsBetween(em, project, after, project.revision);
  }

  /**
   * Appends edits made on revision `base`, in one transaction under the project's row lock. Edits that are stored
   * already (sent again because the answer was lost) are skipped. On a stale base nothing is stored, and the refusal
   * carries the edits that the page misses.
   */
  async append(account: Account, id: string, base: number, edits: readonly Edit[]): Promise<Appended> {
    return this.em.fork().transactional(async (em) => {
      await this.mine(em, account, id);
      const project = await em.findOneOrFail(Project, id, {
        lockMode: LockMode.PESSIMISTIC_WRITE,
        refresh: true,
      });
      const known = new Set(
        (
          await em.find(
            EditRow,
            { project, editId: { $in: edits.map((edit) => edit.id) } },
            { fields: ['editId'] },
          )
        ).map((row) => row.editId),
      );
      const fresh = edits.filter((edit) => !known.has(edit.id));
      if (base + known.size !== project.revision)
        throw new Problem(HttpStatus.CONFLICT, 'Somebody else changed this project meanwhile.', {
          revision: project.revision,
          edits: await editsBetween(em, project, base, project.revision),
        });
      if (fresh.length === 0) return { revision: project.revision };
      const before = await documentAt(em, project, project.revision);
      const document = afterEdits(before, fresh);
      for (const body of fresh)
        em.create(EditRow, { project, revision: ++project.revision, editId: body.id, body });
      if (
        Math.floor(project.revision / EDITS_PER_SNAPSHOT) >
        Math.floor((project.revision - fresh.length) / EDITS_PER_SNAPSHOT)
      )
        em.create(Snapshot, { project, revision: project.revision, document });
      project.changedAt = new Date();
      await em.flush();
      return { revision: project.revision };
    });
  }

  async rename(account: Account, id: string, name: string): Promise<Project> {
    return this.changed(account, id, (project) => (project.name = name));
  }

  async archive(account: Account, id: string, archived: boolean): Promise<Project> {
    return this.changed(account, id, (project) => (project.archived = archived));
  }

  /** A copy with the present document, and a history of its own. */
  async duplicate(account: Account, id: string): Promise<Project> {
    const { project, document } = await this.open(account, id);
    const copy = await this.createWith(account, `${project.name} copy`.slice(0, 120), document, []);
    return project.picture === null
      ? copy
      : this.changed(account, copy.id, (made) => (made.picture = project.picture));
  }

  async setPicture(account: Account, id: string, mediaType: string, bytes: Buffer): Promise<Project> {
    const hash = createHash('sha256').update(bytes).digest('hex');
    await this.mine(this.em.fork(), account, id);
    await this.em.fork().upsert(Asset, { hash, mediaType, bytes });
    return this.changed(account, id, (project) => (project.picture = hash));
  }

  async picture(account: Account, id: string): Promise<Asset> {
    const em = this.em.fork();
    const project = await this.mine(em, account, id);
    const asset = project.picture ? await em.findOne(Asset, { hash: project.picture }) : null;
    if (!asset) throw new Problem(HttpStatus.NOT_FOUND, 'This project has no picture yet.');
    return asset;
  }

  private async changed(account: Account, id: string, change: (project: Project) => void): Promise<Project> {
    const em = this.em.fork();
    const project = await this.mine(em, account, id);
    change(project);
    await em.flush();
    return project;
  }

  /** A project that the account does not belong to is as absent as one that does not exist. */
  private async mine(em: EntityManager, account: Account, id: string): Promise<Project> {
    const member = await em.findOne(Member, { project: id, account: account.id }, { populate: ['project'] });
    if (!member) throw notFound();
    return member.project;
  }
}

async function editsBetween(
  em: EntityManager,
  project: Project,
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

async function documentAt(em: EntityManager, project: Project, revision: number): Promise<KadrelDocument> {
  const [snapshot] = await em.find(
    Snapshot,
    { project, revision: { $lte: revision } },
    { orderBy: { revision: 'desc' }, limit: 1 },
  );
  if (!snapshot) throw new Error(`Project ${project.id} has no snapshot.`);
  const edits = await editsBetween(em, project, snapshot.revision, revision);
  return edits.reduce<KadrelDocument>(applyEdit, readDocument(snapshot.document));
}

/** Throws a Problem when the edits do not fit the document, or leave one that is none. */
function afterEdits(document: KadrelDocument, edits: readonly Edit[]): KadrelDocument {
  let result: KadrelDocument;
  try {
    result = edits.reduce<KadrelDocument>(applyEdit, document);
  } catch (error) {
    throw new Problem(
      HttpStatus.UNPROCESSABLE_ENTITY,
      `An edit names a place that is not there: ${error instanceof Error ? error.message : String(error)}`,
    );
  }
  const parsed = documentSchema.safeParse(result);
  if (parsed.success) return parsed.data;
  const [issue] = parsed.error.issues;
  throw new Problem(
    HttpStatus.UNPROCESSABLE_ENTITY,
    `The document would be damaged at ${issue!.path.join('.')}: ${issue!.message}`,
  );
}
