import { randomUUID } from 'node:crypto';
import type { NestExpressApplication } from '@nestjs/platform-express';
import request from 'supertest';
import { startApp } from '../testing.ts';
import { Rates } from './rates.ts';

/** Behind a proxy, whose word on addresses is taken: other tests ask from this one. */
const SHARED = { rate: 10, trustProxy: 1 };
let servers: NestExpressApplication[];
beforeAll(async () => {
  servers = [await startApp(SHARED), await startApp(SHARED)];
});
afterAll(() => Promise.all(servers.map((app) => app.close())));

test('what one address asks of several servers is added up', async () => {
  const [one, other] = servers as [NestExpressApplication, NestExpressApplication];
  const ask = async (app: NestExpressApplication, address: string, count = 1) => {
    const server = request(app.getHttpServer());
    let status = 0;
    for (let i = 0; i < count; i++)
      ({ status } = await server.get('/api/me').set('X-Forwarded-For', address));
    return status;
  };
  // Counting starts anew at every full minute: then all is done again, from an address not counted yet.
  const asked = async () => {
    const before = new Date().getMinutes();
    const address = `2001:db8::${randomUUID().slice(0, 4)}`;
    expect([await ask(one, address, 6), await ask(other, address, 4)]).toEqual([401, 401]);
    for (const app of [one, other]) await app.get(Rates).exchange();
    // Who sent first hears of the others when there is something to send again.
    await ask(one, address);
    await one.get(Rates).exchange();
    const statuses = [await ask(one, address), await ask(other, address)];
    return new Date().getMinutes() === before ? statuses : undefined;
  };
  expect((await asked()) ?? (await asked())).toEqual([429, 429]);
  expect(await request(one.getHttpServer()).get('/api/me')).toMatchObject({ status: 401 });
});
