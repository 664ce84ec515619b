/** `node main.js` serves; `node main.js --migrate` brings the database up to date and seeds the demo. */
import 'reflect-metadata';
import { MikroORM } from '@mikro-orm/postgresql';
import { createApp } from './app.ts';
import { readSettings } from './common/settings.ts';
import { databaseConfig } from './data/config.ts';
import { DemoSeed } from './demo/seed.ts';

const settings = readSettings(process.env);

if (process.argv.includes('--migrate')) {
  const orm = await MikroORM.init(databaseConfig(settings.databaseUrl));
  await orm.getMigrator().up();
  await orm.close(true);
  if (settings.demo) {
    const app = await createApp(settings);
    await app.init();
    await app.get(DemoSeed).run();
    await app.close();
  }
} else {
  const app = await createApp(settings);
  await app.listen(settings.port, settings.host);
  // Longer than balancers and browsers keep idle connections, so that none is closed just as it is used.
  app.getHttpServer().keepAliveTimeout = 65_000;
  process.stdout.write(`listening ${await app.getUrl()}\n`);
}
