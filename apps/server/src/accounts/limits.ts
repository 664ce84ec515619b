import { createHash } from 'node:crypto';
import { EntityManager } from '@mikro-orm/postgresql';
import { HttpStatus, Inject, Injectable } from '@nestjs/common';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { Problem } from '../common/problem.ts';
import { SETTINGS, type Settings } from '../common/settings.ts';

const HOUR_S = 3600;
const BACK_OFF_S = 900;
/** Wrong passwords for one account before it has to be waited. */
const FREE_TRIES = 5;
/** Wrong passwords from one address in a quarter of an hour, and accounts made or demos entered in an hour: a school has one address. */
const FAILURES_FROM = 100;
const ENTRIES_FROM = 1000;
/** Messages to one address in an hour. */
const MESSAGES = 5;
/** Of KADREL_RATE, which is the measure of what one address may do. */
const USUAL_RATE = 600;

/** Limits that all servers share, for what is worth guessing or costly. For what one address asks for in all see `Rates`. */
@Injectable()
export class Limits {
  private readonly failures: RateLimiterPostgres;
  private readonly waits: RateLimiterPostgres;
  private readonly failuresFrom: RateLimiterPostgres;
  private readonly entries: RateLimiterPostgres;
  private readonly messages: RateLimiterPostgres;

  constructor(em: EntityManager, @Inject(SETTINGS) { rate }: Settings) {
    const limiter = (keyPrefix: string, points: number, duration: number) =>
      new RateLimiterPostgres({
        storeClient: em.getConnection().getKnex(),
        storeType: 'knex',
        tableName: 'rate_limit',
        tableCreated: true,
        clearExpiredByTimeout: false,
        keyPrefix,
        points,
        duration,
      });
    const share = Math.max(1, rate / USUAL_RATE);
    this.failures = limiter('account', FREE_TRIES, BACK_OFF_S);
    this.waits = limiter('wait', 0, BACK_OFF_S);
    this.failuresFrom = limiter('failures', Math.ceil(FAILURES_FROM * share), BACK_OFF_S);
    this.entries = limiter('entries', Math.ceil(ENTRIES_FROM * share), HOUR_S);
    this.messages = limiter('messages', MESSAGES, HOUR_S);
  }

  /** Before a password is looked at. Throws a Problem where it has to be waited. */
  async requireTry(email: string, address: string): Promise<void> {
    const states = [await this.waits.get(keyOf(email)), await this.failuresFrom.get(address)];
    const ms = Math.max(
      ...states.map((state) => (state && state.remainingPoints <= 0 ? state.msBeforeNext : 0)),
    );
    if (ms > 0) throw tooOften(ms);
  }

  /** A wrong password: from the sixth on an account waits twice as long each time, up to a quarter of an hour. */
  async failed(email: string, address: string): Promise<void> {
    await this.failuresFrom.penalty(address, 1);
    const { consumedPoints } = await this.failures.penalty(keyOf(email), 1);
    const wait = 2 ** (consumedPoints - FREE_TRIES);
    if (consumedPoints > FREE_TRIES) await this.waits.block(keyOf(email), Math.min(BACK_OFF_S, wait));
  }

  async succeeded(email: string): Promise<void> {
    await this.failures.delete(keyOf(email));
  }

  /** Accounts made and demos entered from one address. Throws a Problem where there were too many. */
  requireEntry(address: string): Promise<void> {
    return consumed(this.entries, address);
  }

  /** Messages to one address. Throws a Problem where there were too many. */
  requireMessage(email: string): Promise<void> {
    return consumed(this.messages, keyOf(email));
  }
}

async function consumed(limiter: RateLimiterPostgres, key: string): Promise<void> {
  try {
    await limiter.consume(key);
  } catch (error) {
    if (error instanceof RateLimiterRes) throw tooOften(error.msBeforeNext);
    throw error;
  }
}

/** Addresses of people are not kept in the table of limits. */
const keyOf = (email: string) => createHash('sha256').update(email.toLowerCase()).digest('base64url');

function tooOften(ms: number): Problem {
  const seconds = Math.ceil(ms / 1000);
  const wait = seconds > 90 ? `${Math.ceil(seconds / 60)} minutes` : `${seconds} s`;
  return new Problem(HttpStatus.TOO_MANY_REQUESTS, `Too many tries. Wait ${wait} and try again.`);
}
