import { EntityManager } from '@mikro-orm/postgresql';
import { Injectable } from '@nestjs/common';
import type { Account } from '../data/entities.ts';
import { askingOf } from './asking.ts';
import { editsText } from './history.ts';
import { Quota } from './quota.ts';
import { SavingService } from './saving.service.ts';
import { projectOf } from './taskRunner.ts';
import type { Answer } from './tasks.ts';

/** Edits of projects: appended, and read again. */
@Injectable()
export class EditsService {
  constructor(
    private readonly em: EntityManager,
    private readonly saving: SavingService,
    private readonly quota: Quota,
  ) {}

  async append(account: Account, id: string, body: unknown): Promise<Answer> {
    await this.quota.requireRoom(account.id);
    return this.saving.append(askingOf(account), id, body);
  }

  /** Undefined where the edits are not plain: `append` looks into them. */
  async appendQuickly(account: Account, id: string, body: unknown): Promise<Answer | undefined> {
    await this.quota.requireRoom(account.id);
    return this.saving.appendQuickly(askingOf(account), id, body);
  }

  /** The edits after a revision, oldest first, as a JSON list. */
  async after(
    account: Account,
    id: string,
    { after, limit }: { after: number; limit: number },
  ): Promise<string> {
    const em = this.em.fork();
    const { revision } = await projectOf(em, askingOf(account), id);
    return editsText(em, id, [after, Math.min(after + limit, revision)]);
  }
}
