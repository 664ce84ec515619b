import { defineConfig } from '@mikro-orm/postgresql';
import { Migrator } from '@mikro-orm/migrations';
import { ENTITIES } from './entities.ts';
import { MIGRATIONS } from './migrations.ts';

/** @param maxConnections of this process or thread */
export const databaseConfig = (clientUrl: string, maxConnections = 10) =>
  defineConfig({
    clientUrl,
    entities: ENTITIES,
    extensions: [Migrator],
    migrations: { snapshot: false, silent: true, migrationsList: MIGRATIONS },
    pool: { min: 1, max: maxConnections, acquireTimeoutMillis: 10_000 },
    // Nothing waits for a lock, or runs, for so long that others cannot be answered.
    driverOptions: { connection: { lock_timeout: 5_000, statement_timeout: 20_000 } },
  });
