import { EntityManager } from '@mikro-orm/postgresql';
import { HttpStatus, Inject, Injectable } from '@nestjs/common';
import { Problem } from '../common/problem.ts';
import { SETTINGS, type Settings } from '../common/settings.ts';

/** More projects than this nobody finds anything in. */
const MAX_PROJECTS = 1000;
/** What an account holds is looked up again after this time, not at every edit. */
const FRESH_MS = 10_000;
const MAX_KNOWN = 10_000;
const HELD = `select count(*)::int as projects, coalesce(sum(p.bytes), 0)::float8
    + (select coalesce(sum(rp.bytes), 0)::float8 from rack_part rp join rack r on r.id = rp.rack_id
       where r.account_id = ?::uuid) as bytes
  from project p join member m on m.project_id = p.id where m.account_id = ?::uuid`;

interface Held {
  readonly projects: number;
  readonly bytes: number;
}

/** How much one account may hold. */
@Injectable()
export class Quota {
  private readonly known = new Map<string, { readonly held: Held; readonly until: number }>();

  constructor(
    private readonly em: EntityManager,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  /** Throws a Problem where the account is full. */
  async requireRoom(account: string): Promise<void> {
    const { bytes } = await this.held(account);
    const mb = bytes / 1e6;
    const { quotaMb } = this.settings;
    if (mb <= quotaMb) return;
    throw new Problem(
      HttpStatus.FORBIDDEN,
      `Your projects and racks hold ${mb.toFixed(0)} MB; ${quotaMb} MB is what one account may have. Delete what you do not need.`,
    );
  }

  /** Throws a Problem where the account is full, or has too many projects. */
  async requireRoomForProject(account: string): Promise<void> {
    this.known.delete(account);
    const { projects } = await this.held(account);
    if (projects >= MAX_PROJECTS)
      throw new Problem(
        HttpStatus.FORBIDDEN,
        `You have ${projects} projects, which is as many as one account may have. Delete what you do not need.`,
      );
    await this.requireRoom(account);
  }

  private async held(account: string): Promise<Held> {
    const known = this.known.get(account);
    if (known && known.until > Date.now()) return known.held;
    const [held] = await this.em.getConnection().execute<Held[]>(HELD, [account, account]);
    if (this.known.size >= MAX_KNOWN) this.known.clear();
    this.known.set(account, { held: held!, until: Date.now() + FRESH_MS });
    return held!;
  }
}
