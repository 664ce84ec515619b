/** `node main.js` serves; `node main.js --migrate` brings the database up to date and seeds the demo. */
import 'reflect-metadata';
import type { Server } from 'node:http';
import { fileURLToPath } from 'node:url';
import { MikroORM } from '@mikro-orm/postgresql';
import { createApp } from './app.ts';
import { codeOf } from './common/errorLog.ts';
import { readSettings, type Settings } from './common/settings.ts';
import { databaseConfig } from './data/config.ts';
import { closeServer, endOnSignals } from './operation/ending.ts';
import { Metrics } from './operation/metrics.ts';
import { StartError } from './common/startError.ts';
import { requireDatabase, requireKnownTables } from './data/reach.ts';
import { DemoSeed } from './demo/seed.ts';

async function migrate(settings: Settings): Promise<void> {
  const orm = await MikroORM.init(databaseConfig(settings.databaseUrl));
  await orm.getMigrator().up();
  await orm.close(true);
  if (!settings.demo) return;
  const app = await createApp(settings);
  await app.init();
  await app.get(DemoSeed).run();
  await app.close();
}

async function serve(settings: Settings): Promise<void> {
  const workerFile = fileURLToPath(new URL('worker.js', import.meta.url));
  const metrics = settings.metricsPort > 0 ? new Metrics() : undefined;
  const app = await createApp({ ...settings, workerFile }, metrics);
  try {
    await app.listen(settings.port, settings.host);
  } catch (error) {
    await app.close();
    if (codeOf(error) !== 'EADDRINUSE') throw error;
    throw new StartError(
      `Port ${settings.port} is in use: end what listens there, or set PORT to another one.`,
    );
  }
  // Longer than balancers and browsers keep idle connections, so that none is closed just as it is used.
  const server: Server = app.getHttpServer();
  server.keepAliveTimeout = 65_000;
  const numbers = metrics?.listen(settings.metricsPort);
  endOnSignals(async () => {
    numbers?.close();
    await closeServer(server);
    await app.close();
  });
  process.stdout.write(`listening ${await app.getUrl()}\n`);
}

try {
  const settings = readSettings(process.env);
  await requireDatabase(settings.databaseUrl);
  await requireKnownTables(settings.databaseUrl);
  await (process.argv.includes('--migrate') ? migrate(settings) : serve(settings));
} catch (error) {
  if (!(error instanceof StartError)) throw error;
  process.stderr.write(`${error.message}\n`);
  process.exitCode = 1;
}
