import { statfs } from 'node:fs/promises';
import { EntityManager } from '@mikro-orm/postgresql';
import { Controller, Get, HttpStatus } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { HealthCheckService, HealthIndicatorService, type HealthIndicatorResult } from '@nestjs/terminus';
import { SkipThrottle } from '@nestjs/throttler';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { z } from 'zod';
import { Open } from '../accounts/session.guard.ts';
import { Problem } from '../common/problem.ts';

class Health extends createZodDto(z.object({ status: z.literal('ok') })) {}

/** Less room than this (bytes) and the next log or temporary file may not fit. */
const LEAST_ROOM = 50_000_000;

@ApiTags('health')
@SkipThrottle()
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

  /** Written for good, since a full disk is only found when it is. */
  private database(): Promise<HealthIndicatorResult> {
    return this.indicated('database', async () => {
      await this.em.getConnection().execute('update heartbeat set at = now()');
      await this.em.getConnection().execute('select 1 from edit limit 1');
    });
  }

  private disk(): Promise<HealthIndicatorResult> {
    return this.indicated('disk', async () => {
      const { bavail, bsize } = await statfs('.');
      if (bavail * bsize < LEAST_ROOM) throw new Error('The disk is full.');
    });
  }

  private async indicated(name: string, work: () => Promise<void>): Promise<HealthIndicatorResult> {
    const indicator = this.indicators.check(name);
    try {
      await work();
      return indicator.up();
    } catch {
      // Told to whoever asks by name alone.
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
