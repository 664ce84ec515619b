import { defineConfig } from '@mikro-orm/postgresql';
import { Migrator } from '@mikro-orm/migrations';
import { ENTITIES } from './entities.ts';
import { MIGRATIONS } from './migrations.ts';

export const databaseConfig = (clientUrl: string) =>
  defineConfig({
    clientUrl,
    entities: ENTITIES,
    extensions: [Migrator],
    migrations: { snapshot: false, silent: true, migrationsList: MIGRATIONS },
    pool: { min: 1, max: 10, acquireTimeoutMillis: 10_000 },
    // Nothing waits for a lock, or runs, for so long that others cannot be answered.
    driverOptions: { connection: { lock_timeout: 5_000, statement_timeout: 20_000 } },
  });
