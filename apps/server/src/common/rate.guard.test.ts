import { randomUUID } from 'node:crypto';
import type { NestExpressApplication } from '@nestjs/platform-express';
import request from 'supertest';
import { startApp, type Problem } from '../testing.ts';

let app: NestExpressApplication;
beforeAll(async () => {
  app = await startApp({ rate: 3, trustProxy: 1 });
});
afterAll(() => app.close());

test('an address that asks too often has to wait, and health answers all the same', async () => {
  // An address of its own: the tests of other files have asked from this one.
  const address = `2001:db8::${randomUUID().slice(0, 4)}`;
  const ask = () => request(app.getHttpServer()).get('/api/me').set('X-Forwarded-For', address);
  for (let i = 0; i < 3; i++) await ask().expect(401);
  const { body, headers } = await ask().expect(429);
  expect((body as Problem).detail).toBe('Too many requests. Wait a minute and try again.');
  expect(Number(headers['retry-after'])).toBeGreaterThan(0);
  await request(app.getHttpServer()).get('/api/health/live').expect(200);
});
