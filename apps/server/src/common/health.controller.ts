import { EntityManager } from '@mikro-orm/postgresql';
import { Controller, Get, HttpStatus } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { z } from 'zod';
import { Open } from '../accounts/session.guard.ts';
import { Problem } from './problem.ts';

class Health extends createZodDto(z.object({ status: z.literal('ok') })) {}

@ApiTags('health')
@Controller('api/health')
export class HealthController {
  constructor(private readonly em: EntityManager) {}

  /** Answers as long as this process does. */
  @Open()
  @Get('live')
  @ZodResponse({ status: 200, type: Health })
  live() {
    return { status: 'ok' as const };
  }

  /** Answers when the database does, and the tables are there. */
  @Open()
  @Get()
  @ZodResponse({ status: 200, type: Health })
  async health() {
    try {
      await this.em.getConnection().execute('select 1 from project limit 1');
    } catch {
      // The reason is for the operator's log of the database, not for whoever asks.
      throw new Problem(HttpStatus.SERVICE_UNAVAILABLE, 'The database does not answer.');
    }
    return { status: 'ok' as const };
  }
}
