import { EntityManager } from '@mikro-orm/postgresql';
import { HttpStatus, Injectable } from '@nestjs/common';
import { Problem } from '../common/problem.ts';
import { Asset, type Account } from '../data/entities.ts';
import { askingOf } from './asking.ts';
import { TaskPool } from './taskPool.ts';
import { projectOf } from './taskRunner.ts';
import type { Answer } from './tasks.ts';

/** Pictures of projects. */
@Injectable()
export class PicturesService {
  constructor(
    private readonly em: EntityManager,
    private readonly pool: TaskPool,
  ) {}

  set(account: Account, project: string, body: unknown): Promise<Answer> {
    return this.pool.run({ kind: 'picture', asking: askingOf(account), project, body });
  }

  async of(account: Account, id: string): Promise<Asset> {
    const em = this.em.fork();
    const project = await projectOf(em, askingOf(account), id);
    const asset = project.picture ? await em.findOne(Asset, { hash: project.picture }) : null;
    if (!asset) throw new Problem(HttpStatus.NOT_FOUND, 'This project has no picture yet.');
    return asset;
  }
}
