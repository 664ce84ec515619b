import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import request from 'supertest';
import { startApp } from './testing.ts';

const folder = mkdtempSync(join(tmpdir(), 'kadrel-page-'));
const write = (name: string, text: string) => writeFileSync(join(folder, name), text);
let app: NestExpressApplication;
beforeAll(async () => {
  mkdirSync(join(folder, 'assets'));
  write('index.html', '<p>first</p>');
  write('assets/page-1.js', 'first()');
  app = await startApp({ webFolder: folder });
});
afterAll(async () => {
  await app.close();
  rmSync(folder, { recursive: true });
});

const get = (path: string) => request(app.getHttpServer()).get(path);

test('any path of the page gets its first file, and what it loads is kept by browsers for good', async () => {
  const page = await get('/projects/7').expect(200, '<p>first</p>');
  expect(page.headers['cache-control']).toBe('no-cache');
  const script = await get('/assets/page-1.js').expect(200, 'first()');
  expect(script.headers['cache-control']).toContain('immutable');
});

test('a page that is built anew while the server runs is served whole, and its absence does not end the server', async () => {
  write('index.html', '<p>second, and longer</p>');
  await get('/').expect(200, '<p>second, and longer</p>');
  rmSync(join(folder, 'index.html'));
  rmSync(join(folder, 'assets/page-1.js'));
  await get('/').expect(404);
  await get('/assets/page-1.js').expect(404);
  await get('/api/health').expect(200);
  write('index.html', '<p>third</p>');
  await get('/').expect(200, '<p>third</p>');
});
