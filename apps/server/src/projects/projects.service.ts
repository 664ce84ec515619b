import { EntityManager } from '@mikro-orm/postgresql';
import { HttpStatus, Injectable } from '@nestjs/common';
import { emptyDocument, type Scene } from '@kadrel/core';
import { Problem } from '../common/problem.ts';
import { Account, Member, Project } from '../data/entities.ts';
import { askingOf } from './asking.ts';
import { Quota } from './quota.ts';
import { copyProject, storeProject } from './storing.ts';
import { TaskPool } from './taskPool.ts';
import { projectOf } from './taskRunner.ts';
import type { Answer, Task } from './tasks.ts';

/** What can be done to projects. */
@Injectable()
export class ProjectsService {
  constructor(
    private readonly em: EntityManager,
    private readonly pool: TaskPool,
    private readonly quota: Quota,
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

  async create(account: Account, name: string, scene: Partial<Scene>): Promise<Project> {
    await this.quota.requireRoomForProject(account.id);
    return this.em
      .fork()
      .transactional((em) => storeProject(em, account, { name, start: emptyDocument(scene) }));
  }

  /** A copy with all its history, for somebody else. */
  copyFor(account: Account, source: Project): Promise<Project> {
    return this.em
      .fork()
      .transactional((em) => copyProject(em, account, { source, name: source.name, base: source.revision }));
  }

  open(account: Account, project: string): Promise<Answer> {
    return this.pool.run({ kind: 'open', asking: askingOf(account), project });
  }

  async createFromFile(account: Account, body: unknown): Promise<Answer> {
    return this.adding({ kind: 'from-file', asking: askingOf(account), body });
  }

  async keep(account: Account, project: string, body: unknown): Promise<Answer> {
    return this.adding({ kind: 'keep', asking: askingOf(account), project, body });
  }

  async duplicate(account: Account, project: string): Promise<Answer> {
    return this.adding({ kind: 'duplicate', asking: askingOf(account), project });
  }

  private async adding(task: Task): Promise<Answer> {
    await this.quota.requireRoomForProject(task.asking.id);
    return this.pool.run(task);
  }

  async change(
    account: Account,
    id: string,
    { name, archived }: { name?: string | undefined; archived?: boolean | undefined },
  ): Promise<Project> {
    return this.changed(account, id, (project) => {
      if (name !== undefined) project.name = name;
      if (archived === undefined || archived === project.archived) return;
      project.archived = archived;
      project.archivedAt = archived ? new Date() : null;
    });
  }

  /** For good. */
  async delete(account: Account, id: string): Promise<void> {
    const em = this.em.fork();
    const project = await projectOf(em, askingOf(account), id);
    if (!project.archived)
      throw new Problem(
        HttpStatus.CONFLICT,
        'Put it into the archive first: what is deleted is gone for good.',
      );
    await em.nativeDelete(Project, { id });
  }

  private async changed(account: Account, id: string, change: (project: Project) => void): Promise<Project> {
    const em = this.em.fork();
    const project = await projectOf(em, askingOf(account), id);
    change(project);
    await em.flush();
    return project;
  }
}
