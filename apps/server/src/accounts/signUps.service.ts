import { randomBytes, randomUUID } from 'node:crypto';
import { UniqueConstraintViolationException } from '@mikro-orm/core';
import { EntityManager } from '@mikro-orm/postgresql';
import { HttpStatus, Injectable } from '@nestjs/common';
import { hash } from '@node-rs/argon2';
import { Problem } from '../common/problem.ts';
import { Account, SignUp } from '../data/entities.ts';
import { MailService, type Message } from '../mail/mail.service.ts';
import { Limits } from './limits.ts';
import { requireUncommon } from './passwords.ts';
import { digest } from './tokens.ts';

/** What somebody signs up with. */
export interface NewAccount {
  readonly email: string;
  readonly name: string;
  readonly password: string;
}

const HOUR_MS = 3_600_000;
const HOURS_TO_CONFIRM = 24;

/**
 * Making accounts. With a mail server an account is made once its address is confirmed, and nobody else learns whether there is one:
 * the answer and the time that it takes are the same, and only who reads the mail learns of it. Without one it is made at once.
 */
@Injectable()
export class SignUps {
  constructor(
    private readonly em: EntityManager,
    private readonly limits: Limits,
    private readonly mail: MailService,
  ) {}

  /** Returns the account; undefined where a message is on its way instead. @param from the network address of who asks */
  async begin(wanted: NewAccount, from: string): Promise<Account | undefined> {
    const { name, password } = wanted;
    const email = wanted.email.toLowerCase();
    requireUncommon(password, { email, name });
    await this.limits.requireEntry(from);
    const passwordHash = await hash(password);
    if (!this.mail.isOn) return this.make({ email, name, passwordHash });
    await this.limits.requireMessage(email);
    await this.mail.send(await this.messageFor({ email, name, passwordHash }));
    return undefined;
  }

  /** By the token of a message. Throws a Problem where it is spent. */
  async confirm(token: string): Promise<Account> {
    const em = this.em.fork();
    const found = await em.findOne(SignUp, { tokenHash: digest(token), expiresAt: { $gt: new Date() } });
    if (!found)
      throw new Problem(
        HttpStatus.GONE,
        'This link was used already, or it is too old. Sign in, or make the account again.',
      );
    const { email, name, passwordHash } = found;
    const account = await this.make({ email, name, passwordHash });
    await em.nativeDelete(SignUp, { email });
    return account;
  }

  private async messageFor(wanted: Wanted): Promise<Message> {
    const em = this.em.fork();
    const { email: to, name } = wanted;
    const isKnown = (await em.count(Account, { email: to })) > 0;
    const token = randomBytes(32).toString('base64url');
    // Kept in both cases, so that both take the same time; what is kept for a known address leads nowhere.
    em.create(SignUp, {
      tokenHash: digest(token),
      ...wanted,
      expiresAt: new Date(Date.now() + HOURS_TO_CONFIRM * HOUR_MS),
    });
    await em.flush();
    const { address } = this.mail;
    return isKnown
      ? { to, subject: 'Your Kadrel account', text: alreadyThere(address) }
      : { to, subject: 'Finish your Kadrel account', text: finish(name, `${address}/confirm#${token}`) };
  }

  private async make(wanted: Wanted): Promise<Account> {
    const em = this.em.fork();
    const account = em.create(Account, { id: randomUUID(), ...wanted });
    try {
      await em.persistAndFlush(account);
    } catch (error) {
      if (!(error instanceof UniqueConstraintViolationException)) throw error;
      throw new Problem(
        HttpStatus.CONFLICT,
        'There is an account with this address already. Sign in instead.',
      );
    }
    return account;
  }
}

type Wanted = Pick<Account, 'email' | 'name' | 'passwordHash'>;

const finish = (name: string, link: string) => `Hello ${name},

open this link within ${HOURS_TO_CONFIRM} hours to finish your Kadrel account:

${link}

If you did not ask for an account, do nothing: there will be none.
`;

const alreadyThere = (address: string) => `Hello,

somebody, probably you, wants a Kadrel account for this address. You have one already: sign in at

${address}/sign-in

If it was not you, do nothing: nobody was told that you have an account.
`;
