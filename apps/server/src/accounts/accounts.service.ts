import { randomBytes, randomUUID } from 'node:crypto';
import { EntityManager } from '@mikro-orm/postgresql';
import { HttpStatus, Injectable } from '@nestjs/common';
import { hash, verify } from '@node-rs/argon2';
import { Problem } from '../common/problem.ts';
import { Account, Session } from '../data/entities.ts';
import { Limits } from './limits.ts';
import { requireUncommon } from './passwords.ts';
import { digest } from './tokens.ts';

/** A session ends this long after signing in. */
export const SESSION_DAYS = 30;
const DAY_MS = 86_400_000;

const USED_STEP_MS = 3_600_000;
const RECENT_MS = 5_000;
const MAX_RECENT = 10_000;

/** The account that the demo projects belong to. */
export const DEMO_EMAIL = 'demo@kadrel.example';

/** A hash of no password: checked when there is no such account, so that both answers take the same time. */
const NOBODY = hash(randomBytes(16).toString('hex'));

const DELETE_PROJECTS = `delete from project p where exists (select 1 from member m where m.project_id = p.id and m.account_id = ?::uuid)
  and not exists (select 1 from member m where m.project_id = p.id and m.account_id <> ?::uuid)`;

/** Accounts and their sessions. */
@Injectable()
export class AccountsService {
  private readonly recent = new Map<string, { readonly account: Account; readonly until: number }>();

  constructor(
    private readonly em: EntityManager,
    private readonly limits: Limits,
  ) {}

  /** @param from the network address of who asks */
  async signIn(email: string, password: string, from: string): Promise<Account> {
    await this.limits.requireTry(email, from);
    const account = await this.em.fork().findOne(Account, { email: email.toLowerCase() });
    const right = await verify(account?.passwordHash ?? (await NOBODY), password);
    if (!account || !right) {
      await this.limits.failed(email, from);
      throw new Problem(HttpStatus.UNAUTHORIZED, 'Address and password do not go together.');
    }
    await this.limits.succeeded(email);
    return account;
  }

  /** Ends all other sessions. */
  async changePassword(
    account: Account,
    change: { old: string; fresh: string },
    token: string,
  ): Promise<void> {
    const em = this.em.fork();
    const stored = await em.findOneOrFail(Account, account.id);
    if (!(await verify(stored.passwordHash, change.old)))
      throw new Problem(HttpStatus.FORBIDDEN, 'This is not your present password.');
    requireUncommon(change.fresh, account);
    stored.passwordHash = await hash(change.fresh);
    await em.flush();
    await this.closeOthers(account, token);
  }

  /** Those that have not ended: the one that asks first, then the one used last. */
  async sessions(account: Account, token: string) {
    const found = await this.em
      .fork()
      .find(
        Session,
        { account: account.id, expiresAt: { $gt: new Date() } },
        { orderBy: { usedAt: 'desc' } },
      );
    const own = digest(token);
    return found
      .map(({ tokenHash, usedAt, expiresAt }) => ({
        isThis: tokenHash === own,
        usedAt: usedAt.toISOString(),
        expiresAt: expiresAt.toISOString(),
      }))
      .toSorted((a, b) => Number(b.isThis) - Number(a.isThis));
  }

  async closeOthers(account: Account, token: string): Promise<void> {
    await this.em.fork().nativeDelete(Session, { account: account.id, tokenHash: { $ne: digest(token) } });
    this.recent.clear();
  }

  /** With all projects that are nobody else's. A guest has no password. */
  async delete(account: Account, password: string | undefined): Promise<void> {
    const em = this.em.fork();
    const stored = await em.findOneOrFail(Account, account.id);
    if (!stored.guest && !(await verify(stored.passwordHash, password ?? '')))
      throw new Problem(HttpStatus.FORBIDDEN, 'This is not your password.');
    await em.transactional(async (inner) => {
      await inner.execute(DELETE_PROJECTS, [account.id, account.id]);
      await inner.nativeDelete(Account, { id: account.id });
    });
    this.recent.clear();
  }

  /** The demo account; made at the first asking, with a password that nobody knows. */
  async demoAccount(): Promise<Account> {
    const em = this.em.fork();
    await em
      .getConnection()
      .execute(
        `insert into account (id, email, name, password_hash, created_at) values (?, ?, ?, ?, now()) on conflict (email) do nothing`,
        [randomUUID(), DEMO_EMAIL, 'Demo', await hash(randomBytes(32).toString('hex'))],
      );
    return em.findOneOrFail(Account, { email: DEMO_EMAIL });
  }

  /** Returns the token for the cookie. */
  async openSession(account: Account): Promise<string> {
    const token = randomBytes(32).toString('base64url');
    const em = this.em.fork();
    em.create(Session, {
      tokenHash: digest(token),
      account: em.getReference(Account, account.id),
      expiresAt: new Date(Date.now() + SESSION_DAYS * DAY_MS),
    });
    await em.flush();
    return token;
  }

  /** A session that was just looked up is not looked up again for some seconds; ending one takes as long on other servers. */
  async accountOf(token: string): Promise<Account | null> {
    const key = digest(token);
    const known = this.recent.get(key);
    if (known && known.until > Date.now()) return known.account;
    const account = await this.lookedUp(key);
    this.recent.delete(key);
    if (account) this.recent.set(key, { account, until: Date.now() + RECENT_MS });
    for (const oldest of this.recent.keys()) {
      if (this.recent.size <= MAX_RECENT) break;
      this.recent.delete(oldest);
    }
    return account;
  }

  private async lookedUp(tokenHash: string): Promise<Account | null> {
    const em = this.em.fork();
    const session = await em.findOne(
      Session,
      { tokenHash, expiresAt: { $gt: new Date() } },
      { populate: ['account'] },
    );
    if (!session) return null;
    // Written seldom, since only days count.
    if (Date.now() - session.usedAt.getTime() > USED_STEP_MS)
      await em.nativeUpdate(Session, { tokenHash }, { usedAt: new Date() });
    return session.account;
  }

  async closeSession(token: string): Promise<void> {
    const key = digest(token);
    await this.em.fork().nativeDelete(Session, { tokenHash: key });
    this.recent.delete(key);
  }

  /** After accounts were deleted. */
  forgetRecent(): void {
    this.recent.clear();
  }
}
