/** What tests of the server share: an application on the test database, people who are signed in, and edits that they make. */
import 'reflect-metadata';
import { randomUUID } from 'node:crypto';
import { MikroORM } from '@mikro-orm/postgresql';
import type { NestExpressApplication } from '@nestjs/platform-express';
import {
  DOCUMENT_VERSION,
  emptyDocument,
  isRefusal,
  perform,
  plainWorld,
  starterPart,
  verbNamed,
  type Edit,
  type KadrelDocument,
  type Typed,
} from '@kadrel/core';
import request from 'supertest';
import { createApp } from './app.ts';
import { readSettings, type Settings } from './common/settings.ts';
import { databaseConfig } from './data/config.ts';

/** One for each process that runs tests: what a test does to tables must not meet another one. */
function ownDatabase(): URL {
  const url = new URL(process.env.TEST_DATABASE_URL!);
  url.pathname += `_${process.env.JEST_WORKER_ID ?? '1'}`;
  return url;
}

async function withOwnDatabase(): Promise<void> {
  const name = ownDatabase().pathname.slice(1);
  const orm = await MikroORM.init(databaseConfig(process.env.TEST_DATABASE_URL!));
  const there = await orm.em.execute<object[]>('select 1 from pg_database where datname = ?', [name]);
  if (there.length === 0) await orm.em.execute(`create database "${name}"`);
  await orm.close(true);
}

export const settings = readSettings({
  DATABASE_URL: ownDatabase().href,
  KADREL_DEMO: '1',
  KADREL_RATE: '100000',
});

/** The database is made and its tables are brought up to date first. */
export async function startApp(other: Partial<Settings> = {}): Promise<NestExpressApplication> {
  await withOwnDatabase();
  const orm = await MikroORM.init(databaseConfig(settings.databaseUrl));
  await orm.getMigrator().up();
  await orm.close(true);
  const app = await createApp({ ...settings, ...other });
  return app.init();
}

export type Agent = ReturnType<typeof request.agent>;
export interface Problem {
  status: number;
  detail: string;
}

export const PASSWORD = 'a long password';
export const newAddress = () => `${randomUUID()}@kadrel.example`;

/** Somebody with an account of their own, signed in. */
export async function personOf(app: NestExpressApplication, email = newAddress()): Promise<Agent> {
  const agent = request.agent(app.getHttpServer());
  await agent.post('/api/sign-up').send({ email, name: 'Ada', password: PASSWORD }).expect(201);
  return agent;
}

export async function projectOf(agent: Agent, name = 'Bench'): Promise<string> {
  const made = await agent
    .post('/api/projects')
    .send({ name, scene: { units: 'mm' } })
    .expect(201);
  return (made.body as { id: string }).id;
}

/** A rack with a washer on it. */
export async function rackOf(agent: Agent, more: object = {}): Promise<string> {
  const made = await agent
    .post('/api/racks')
    .send({ name: 'Rack', parts: [starterPart('Plain washer')], ...more })
    .expect(201);
  return (made.body as { id: string }).id;
}

/** A PNG of one grey pixel. */
export const ONE_PIXEL = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAAAAAA6fptVAAAACklEQVR4nGNgAAAAAgABSK+kcQAAAABJRU5ErkJggg==',
  'base64',
);

let ids = 0;
export function edit(
  document: KadrelDocument,
  verb: string,
  typed: Typed,
): { edit: Edit; document: KadrelDocument } {
  const done = perform(
    verbNamed(verb)!,
    typed,
    document,
    plainWorld(document, () => `q${++ids}`),
  );
  if (isRefusal(done)) throw new Error(done.message);
  const line = { verb, values: typed, title: done.title, author: 'Ada', time: 1 };
  const { patches, inverses } = done;
  return {
    edit: { id: randomUUID(), kind: 'do', version: DOCUMENT_VERSION, patches, inverses, line },
    document: done.document,
  };
}

export const aBox = (name: string): [string, Typed] => ['box', { as: name, size: ['10', '20', '30'] }];
export const firstBox = () => edit(emptyDocument(), ...aBox('a'));
