import type { NestExpressApplication } from '@nestjs/platform-express';
import request from 'supertest';
import { startApp } from '../testing.ts';
import { Rates } from './rates.ts';

const RATE = 10;
let servers: NestExpressApplication[];
beforeAll(async () => {
  servers = [await startApp({ rate: RATE }), await startApp({ rate: RATE })];
});
afterAll(() => Promise.all(servers.map((app) => app.close())));

test('what one address asks of several servers is added up', async () => {
  const [one, other] = servers as [NestExpressApplication, NestExpressApplication];
  const ask = (app: NestExpressApplication) => request(app.getHttpServer()).get('/api/me');
  // Counting starts anew at every full minute: then all is done again.
  const asked = async () => {
    const before = new Date().getMinutes();
    for (const app of [one, other]) for (let i = 0; i < 6; i++) await ask(app).expect(401);
    for (const app of [one, other]) await app.get(Rates).exchange();
    // The one that told first has not heard of the other yet.
    await ask(one).expect(401);
    await one.get(Rates).exchange();
    const statuses = [(await ask(one)).status, (await ask(other)).status];
    return new Date().getMinutes() === before ? statuses : undefined;
  };
  expect((await asked()) ?? (await asked())).toEqual([429, 429]);
});
