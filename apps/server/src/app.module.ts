import { MikroOrmModule } from '@mikro-orm/nestjs';
import { PostgreSqlDriver } from '@mikro-orm/postgresql';
import { type DynamicModule, Module } from '@nestjs/common';
import { APP_FILTER, APP_GUARD, APP_INTERCEPTOR, APP_PIPE } from '@nestjs/core';
import { TerminusModule } from '@nestjs/terminus';
import { LoggerModule } from 'nestjs-pino';
import { ZodSerializerInterceptor, ZodValidationPipe } from 'nestjs-zod';
import { AccountsController } from './accounts/accounts.controller.ts';
import { AccountsService } from './accounts/accounts.service.ts';
import { EntryController } from './accounts/entry.controller.ts';
import { ExportService } from './accounts/export.service.ts';
import { Limits } from './accounts/limits.ts';
import { SignUps } from './accounts/signUps.service.ts';
import { SessionGuard } from './accounts/session.guard.ts';
import { ProblemFilter } from './common/problem.ts';
import { RateGuard } from './common/rate.guard.ts';
import { Rates } from './common/rates.ts';
import { SETTINGS, type Settings } from './common/settings.ts';
import { databaseConfig } from './data/config.ts';
import { GuestsService } from './demo/guests.service.ts';
import { DemoSeed } from './demo/seed.ts';
import { MailService } from './mail/mail.service.ts';
import { HealthController } from './operation/health.controller.ts';
import { loggingOf } from './operation/logging.ts';
import { RequestLog } from './operation/requestLog.ts';
import { Sweeper } from './operation/sweeper.ts';
import { EditsController } from './projects/edits.controller.ts';
import { EditsService } from './projects/edits.service.ts';
import { PicturesService } from './projects/pictures.service.ts';
import { ProjectsController } from './projects/projects.controller.ts';
import { ProjectsService } from './projects/projects.service.ts';
import { QuickSave } from './projects/quickSave.ts';
import { Quota } from './projects/quota.ts';
import { SaveBatches } from './projects/saveBatches.ts';
import { SavingService } from './projects/saving.service.ts';
import { RacksController } from './racks/racks.controller.ts';
import { RacksService } from './racks/racks.service.ts';
import { TaskPool } from './projects/taskPool.ts';

const CONTROLLERS = [
  EntryController,
  AccountsController,
  ProjectsController,
  EditsController,
  RacksController,
  HealthController,
];

const SERVICES = [
  AccountsService,
  SignUps,
  MailService,
  ExportService,
  Limits,
  Rates,
  RequestLog,
  QuickSave,
  Sweeper,
  ProjectsService,
  EditsService,
  PicturesService,
  RacksService,
  SaveBatches,
  SavingService,
  TaskPool,
  Quota,
  DemoSeed,
  GuestsService,
];

/** Everything that the server consists of. */
@Module({})
export class AppModule {
  static with(settings: Settings): DynamicModule {
    return {
      module: AppModule,
      imports: [
        MikroOrmModule.forRoot({
          ...databaseConfig(settings.databaseUrl),
          driver: PostgreSqlDriver,
          // Every piece of work forks an entity manager of its own, or needs none.
          registerRequestContext: false,
        }),
        LoggerModule.forRoot(loggingOf(settings.logLevel)),
        TerminusModule.forRoot({ logger: false }),
      ],
      controllers: CONTROLLERS,
      providers: [
        { provide: SETTINGS, useValue: settings },
        ...SERVICES,
        { provide: APP_GUARD, useClass: RateGuard },
        { provide: APP_GUARD, useClass: SessionGuard },
        { provide: APP_PIPE, useClass: ZodValidationPipe },
        { provide: APP_INTERCEPTOR, useClass: ZodSerializerInterceptor },
        { provide: APP_FILTER, useClass: ProblemFilter },
      ],
    };
  }
}
