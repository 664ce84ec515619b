import type { NestExpressApplication } from '@nestjs/platform-express';
import request from 'supertest';
import { startApp, type Problem } from '../testing.ts';

let app: NestExpressApplication;
beforeAll(async () => {
  app = await startApp({ rate: 3 });
});
afterAll(() => app.close());

test('an address that asks too often has to wait, and health answers all the same', async () => {
  const ask = () => request(app.getHttpServer()).get('/api/me');
  for (let i = 0; i < 3; i++) await ask().expect(401);
  const { body, headers } = await ask().expect(429);
  expect((body as Problem).detail).toBe('Too many requests. Wait a minute and try again.');
  expect(Number(headers['retry-after'])).toBeGreaterThan(0);
  await request(app.getHttpServer()).get('/api/health/live').expect(200);
});
