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
    pool: { min: 1, max: 10 },
  });
