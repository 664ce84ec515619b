import { statfs } from 'node:fs/promises';
import { EntityManager } from '@mikro-orm/postgresql';
import { Controller, Get, HttpStatus } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { HealthCheckService, HealthIndicatorService, type HealthIndicatorResult } from '@nestjs/terminus';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { z } from 'zod';
import { Open } from '../accounts/session.guard.ts';
import { Problem } from '../common/problem.ts';
import { Uncounted } from '../common/rate.guard.ts';

class Health extends createZodDto(z.object({ status: z.literal('ok') })) {}

const TABLES = 'select 1 from edit limit 1';
const WRITE = 'update heartbeat set at = now()';
/** A row may find room where another one was. Two megabytes that do not fit into memory need some on the database's own disk. */
const LITTLE_MEMORY = `set local work_mem = '64kB'`;
const ROOM = `select count(*) from
  (select repeat(md5(i::text), 16) as text from generate_series(1, 4000) as i order by text offset 0) as sorted`;

/** Less room than this (bytes) and the next log or temporary file may not fit. */
const MIN_ROOM = 50_000_000;

/** Whether the server lives, and whether it can save. */
@ApiTags('health')
@Uncounted()
@Open()
@Controller('api/health')
export class HealthController {
  constructor(
    private readonly em: EntityManager,
    private readonly checks: HealthCheckService,
    private readonly indicators: HealthIndicatorService,
  ) {}

  /** Answers as long as this process does. */
  @Get('live')
  @ZodResponse({ status: 200, type: Health })
  live() {
    return { status: 'ok' as const };
  }

  /** Answers where a save would go through: the database takes a write, the tables are there, and the disk has room. */
  @Get()
  @ApiOkResponse({ type: Health })
  async ready() {
    try {
      const { status } = await this.checks.check([() => this.database(), () => this.disk()]);
      return { status };
    } catch (error) {
      // Terminus says which; the reason is for the operator's log, not for whoever asks.
      const failed = failedOf(error);
      throw new Problem(HttpStatus.SERVICE_UNAVAILABLE, failed.map((one) => WORDS[one] ?? one).join(' '));
    }
  }

  private database(): Promise<HealthIndicatorResult> {
    return this.indicated('database', () =>
      this.em.fork().transactional(async (em) => {
        for (const sql of [TABLES, WRITE, LITTLE_MEMORY, ROOM]) await em.execute(sql);
      }),
    );
  }

  private disk(): Promise<HealthIndicatorResult> {
    return this.indicated('disk', async () => {
      const { bavail, bsize } = await statfs('.');
      if (bavail * bsize < MIN_ROOM) throw new Error('The disk is full.');
    });
  }

  private async indicated(name: string, work: () => Promise<void>): Promise<HealthIndicatorResult> {
    const indicator = this.indicators.check(name);
    try {
      await work();
      return indicator.up();
    } catch {
      // Given to whoever asks by name alone.
      return indicator.down();
    }
  }
}

const WORDS: Readonly<Record<string, string>> = {
  database: 'The database does not take what is saved.',
  disk: 'The disk of the server is full.',
};

/** Names of the checks that failed. */
function failedOf(error: unknown): string[] {
  const response = (error as { getResponse?: () => unknown }).getResponse?.();
  const failed = (response as { error?: object } | undefined)?.error;
  return Object.keys(failed ?? { database: undefined });
}
