import { randomBytes, randomUUID } from 'node:crypto';
import { EntityManager } from '@mikro-orm/postgresql';
import { Injectable } from '@nestjs/common';
import { hash } from '@node-rs/argon2';
import { AccountsService } from '../accounts/accounts.service.ts';
import { Account } from '../data/entities.ts';
import { ProjectsService } from '../projects/projects.service.ts';

/** Guests who did nothing for so long are cleared, with their projects. */
const IDLE = '1 day';
const CLEAR_PROJECTS = `delete from project p using member m, account a
  where m.project_id = p.id and a.id = m.account_id and a.guest and a.created_at < now() - interval '${IDLE}'
    and not exists (select 1 from session s where s.account_id = a.id and s.used_at > now() - interval '${IDLE}')
    and not exists (select 1 from member n join project q on q.id = n.project_id
      where n.account_id = a.id and q.changed_at > now() - interval '${IDLE}')`;
const CLEAR_ACCOUNTS = `delete from account a where a.guest and a.created_at < now() - interval '${IDLE}'
    and not exists (select 1 from member m where m.account_id = a.id)`;

/** Every visitor of the demo has copies of its projects: nobody writes into another's. */
@Injectable()
export class GuestsService {
  /** Nobody can sign in with a password that was never given: one hash does for all guests. */
  private readonly noPassword = hash(randomBytes(32).toString('hex'));

  constructor(
    private readonly em: EntityManager,
    private readonly accounts: AccountsService,
    private readonly projects: ProjectsService,
  ) {}

  async enter(): Promise<Account> {
    await this.clear();
    const em = this.em.fork();
    const guest = em.create(Account, {
      id: randomUUID(),
      email: `guest-${randomUUID()}@kadrel.example`,
      name: 'Demo',
      passwordHash: await this.noPassword,
      guest: true,
    });
    await em.flush();
    const demo = await this.accounts.demoAccount();
    // The one that was changed last stands first: copied last first, so that the order stays.
    for (const project of (await this.projects.list(demo)).reverse())
      await this.projects.copyFor(guest, project);
    return guest;
  }

  async clear(): Promise<void> {
    const connection = this.em.fork().getConnection();
    await connection.execute(CLEAR_PROJECTS);
    await connection.execute(CLEAR_ACCOUNTS);
    this.accounts.forgetRecent();
  }
}
