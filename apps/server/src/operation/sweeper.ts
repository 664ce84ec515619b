import { EntityManager } from '@mikro-orm/postgresql';
import {
  Inject,
  Injectable,
  Logger,
  type OnApplicationBootstrap,
  type OnModuleDestroy,
} from '@nestjs/common';
import { loggedError } from '../common/errorLog.ts';
import { SETTINGS, type Settings } from '../common/settings.ts';
import { GuestsService } from '../demo/guests.service.ts';

const EVERY_MS = 3_600_000;
/** Of PostgreSQL’s advisory locks: of several servers one sweeps. */
const SWEEP_LOCK = 4_180_002;

const SESSIONS = 'delete from session where expires_at < now()';
const SIGN_UPS = 'delete from sign_up where expires_at < now()';
const ARCHIVED = `delete from project where archived and archived_at < now() - ? * interval '1 day'`;
/** A picture that was just stored may be about to be shown by a project or on a rack. */
const PICTURES = `delete from asset a where a.stored_at < now() - interval '1 hour'
  and not exists (select 1 from project p where p.picture = a.hash)
  and not exists (select 1 from rack_part r where r.picture = a.hash)`;
const LIMITS = 'delete from rate_limit where expire < extract(epoch from now()) * 1000';

/** Once an hour removes what nobody needs any more. */
@Injectable()
export class Sweeper implements OnApplicationBootstrap, OnModuleDestroy {
  private readonly log = new Logger('Kadrel');
  private timer: NodeJS.Timeout | undefined;

  constructor(
    private readonly em: EntityManager,
    private readonly guests: GuestsService,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  onApplicationBootstrap(): void {
    this.timer = setInterval(() => {
      this.sweep().catch((error: unknown) => this.log.error(loggedError(error)));
    }, EVERY_MS).unref();
  }

  onModuleDestroy(): void {
    clearInterval(this.timer);
  }

  async sweep(): Promise<void> {
    await this.em.fork().transactional(async (em) => {
      const [row] = await em.execute<{ mine: boolean }[]>('select pg_try_advisory_xact_lock(?) as mine', [
        SWEEP_LOCK,
      ]);
      if (!row!.mine) return;
      for (const sql of [SESSIONS, SIGN_UPS, PICTURES, LIMITS]) await em.execute(sql);
      await em.execute(ARCHIVED, [this.settings.archiveDays]);
    });
    await this.guests.clear();
  }
}
