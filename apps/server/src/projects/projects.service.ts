import { createHash, randomUUID } from 'node:crypto';
import { EntityManager } from '@mikro-orm/postgresql';
import { HttpStatus, Injectable } from '@nestjs/common';
import {
  emptyDocument,
  jsonFault,
  readDocument,
  type Edit,
  type KadrelDocument,
  type Scene,
} from '@kadrel/core';
import { notFound, Problem } from '../common/problem.ts';
import { Account, Asset, EditRow, Member, Project, Snapshot } from '../data/entities.ts';
import { documentAt, editsBetween } from './history.ts';
import { SavingService, requireFit, type Appended, type Save } from './saving.service.ts';

export interface OpenedProject {
  readonly project: Project;
  readonly document: KadrelDocument;
}

@Injectable()
export class ProjectsService {
  constructor(
    private readonly em: EntityManager,
    private readonly saving: SavingService,
  ) {}

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

  createFromFile(account: Account, name: string, json: unknown): Promise<Project> {
    const fault = jsonFault(json);
    if (fault !== undefined) throw new Problem(HttpStatus.UNPROCESSABLE_ENTITY, fault);
    let document: KadrelDocument;
    try {
      document = readDocument(json);
    } catch (error) {
      throw new Problem(
        HttpStatus.UNPROCESSABLE_ENTITY,
        error instanceof Error ? error.message : 'This is not a Kadrel document.',
      );
    }
    return this.createWith(account, name, document, []);
  }

  /** A project with a history: `start` is the document before the edits. All of it, or nothing. */
  createWith(
    account: Account,
    name: string,
    start: KadrelDocument,
    edits: readonly Edit[],
  ): Promise<Project> {
    return this.em.fork().transactional((em) => projectWith(em, account, { name, start, edits }));
  }

  /** A copy with all its history, for somebody else. */
  copyFor(account: Account, source: Project): Promise<Project> {
    return this.em
      .fork()
      .transactional((em) => copyUpTo(em, account, { source, name: source.name, base: source.revision }));
  }

  async open(account: Account, id: string): Promise<OpenedProject> {
    const em = this.em.fork();
    const project = await this.mine(em, account, id);
    return { project, document: await documentAt(em, id, project.revision) };
  }

  /** The edits after a revision, oldest first. */
  async editsAfter(account: Account, id: string, after: number): Promise<Edit[]> {
    const em = this.em.fork();
    const project = await this.mine(em, account, id);
    return editsBetween(em, id, after, project.revision);
  }

  append(account: Account, id: string, save: Save): Promise<Appended> {
    return this.saving.append(account, id, save);
  }

  /** A project that goes on from a revision of another one with edits that did not fit there: what a page kept, with its history. */
  async createFrom(account: Account, id: string, name: string, { base, edits }: Save): Promise<Project> {
    const made = await this.em.fork().transactional(async (em) => {
      const source = await this.mine(em, account, id);
      if (base > source.revision) throw new Problem(HttpStatus.CONFLICT, 'This project is not that far yet.');
      return copyUpTo(em, account, { source, name, base });
    });
    if (edits.length === 0) return made;
    try {
      made.revision = (await this.append(account, made.id, { base, edits })).revision;
      return made;
    } catch (error) {
      // Edits that do not fit leave no half of a project behind.
      await this.em.fork().nativeDelete(Project, { id: made.id });
      throw error;
    }
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

const COPY_HISTORY = [
  `insert into edit (project_id, revision, edit_id, body)
   select ?::uuid, revision, edit_id, body from edit where project_id = ?::uuid and revision <= ?`,
  `insert into snapshot (project_id, revision, document)
   select ?::uuid, revision, document from snapshot where project_id = ?::uuid and revision <= ?`,
];

async function copyUpTo(
  em: EntityManager,
  account: Account,
  { source, name, base }: { source: Project; name: string; base: number },
): Promise<Project> {
  const project = em.create(Project, { id: randomUUID(), name, revision: base, picture: source.picture });
  em.create(Member, { project, account: em.getReference(Account, account.id) });
  await em.flush();
  for (const copy of COPY_HISTORY) await em.execute(copy, [project.id, source.id, base]);
  return project;
}

/** Within a transaction. Throws a Problem where an edit does not fit. */
export async function projectWith(
  em: EntityManager,
  account: Account,
  { name, start, edits }: { name: string; start: KadrelDocument; edits: readonly Edit[] },
): Promise<Project> {
  requireFit(start, edits);
  const project = em.create(Project, { id: randomUUID(), name, revision: edits.length });
  em.create(Member, { project, account: em.getReference(Account, account.id) });
  em.create(Snapshot, { project, revision: 0, document: start });
  edits.forEach((body, i) => em.create(EditRow, { project, revision: i + 1, editId: body.id, body }));
  await em.flush();
  return project;
}
