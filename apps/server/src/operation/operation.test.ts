import { spawnSync } from 'node:child_process';
import { createServer, request as ask, type IncomingMessage, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { EntityManager, MikroORM } from '@mikro-orm/postgresql';
import type { NestExpressApplication } from '@nestjs/platform-express';
import type { Edit, KadrelDocument } from '@kadrel/core';
import express from 'express';
import request from 'supertest';
import { binaryOf, startTestCluster } from '../../../../scripts/postgres.mjs';
import { databaseConfig } from '../data/config.ts';
import { aBox, edit, firstBox, personOf, projectOf, settings, startApp, type Agent } from '../testing.ts';
import { closeServer } from './ending.ts';
import { pathOf } from './logging.ts';
import { Metrics } from './metrics.ts';

const portOf = (server: Server) => (server.address() as AddressInfo).port;
const listening = (server: Server) =>
  new Promise<Server>((resolve) => {
    server.listen(0, '127.0.0.1', () => resolve(server));
  });

describe('a graceful end', () => {
  test('answers what was begun, and does not wait for who keeps talking', async () => {
    let answer = () => {};
    const server = await listening(
      createServer((question, response) => {
        if (question.url === '/slow') answer = () => response.end('done');
        else response.end('quick');
      }),
    );
    const port = portOf(server);
    const get = (path: string, connection = 'keep-alive') =>
      fetch(`http://127.0.0.1:${port}${path}`, { headers: { connection } }).then((one) => one.text());
    await get('/quick');
    const begun = new Promise<void>((resolve) => server.once('request', () => resolve()));
    const slow = get('/slow');
    await begun;
    const closed = closeServer(server);
    answer();
    expect(await slow).toBe('done');
    await closed;
    await expect(get('/quick')).rejects.toThrow();
  });

  test('cuts at the deadline what is not done', async () => {
    const server = await listening(createServer(() => {}));
    const begun = new Promise<void>((resolve) => server.once('request', () => resolve()));
    const never = fetch(`http://127.0.0.1:${portOf(server)}/`);
    await begun;
    const cut = expect(never).rejects.toThrow();
    await closeServer(server, 20);
    await cut;
  });
});

test('metrics tell how long requests took, by path and without ids', async () => {
  const metrics = new Metrics();
  const page = express();
  page.use(metrics.timed);
  page.get('/api/projects/:id', (_, response) => void response.send('here'));
  await request(page).get('/api/projects/11111111-2222-4333-8444-555555555555?secret=1').expect(200);
  await request(page).get('/made/up/by/somebody').expect(404);
  const server = metrics.listen(0);
  await new Promise((resolve) => server.once('listening', resolve));
  const address = `http://127.0.0.1:${portOf(server)}`;
  const text = await (await fetch(`${address}/metrics`)).text();
  expect(text).toMatch(
    /kadrel_request_seconds_count\{method="GET",path="\/api\/projects\/:id",status="200"\} 1/,
  );
  expect(text).toMatch(/path="other",status="404"\} 1/);
  expect(text).toMatch(/nodejs_eventloop_lag/);
  expect(text).not.toMatch(/11111111|secret|made/);
  expect((await fetch(address)).status).toBe(404);
  await new Promise((resolve) => server.close(resolve));
});

test('what is logged of a path has no ids and no questions', () => {
  expect(pathOf('/api/projects/11111111-2222-4333-8444-555555555555/edits?after=3')).toBe(
    '/api/projects/:id/edits',
  );
});

describe('with a server', () => {
  let app: NestExpressApplication;
  beforeAll(async () => {
    app = await startApp();
  });
  afterAll(() => app.close());

  test('every request has an id, its proxy’s where that gave one', async () => {
    const server = request(app.getHttpServer());
    const own = await server.get('/api/health/live');
    expect(own.headers['x-request-id']).toMatch(/^[\da-f-]{36}$/);
    const given = await server.get('/api/health/live').set('X-Request-Id', 'from-the-proxy-1');
    expect(given.headers['x-request-id']).toBe('from-the-proxy-1');
    const odd = await server.get('/api/health/live').set('X-Request-Id', '"><script>');
    expect(odd.headers['x-request-id']).toMatch(/^[\da-f-]{36}$/);
  });

  test('health needs a database that takes a write', async () => {
    const em = app.get(EntityManager).fork();
    const server = request(app.getHttpServer());
    await server.get('/api/health').expect(200);
    await em.execute('alter table heartbeat rename to away');
    await server.get('/api/health').expect(503, /does not take what is saved/);
    await server.get('/api/health/live').expect(200);
    await em.execute('alter table away rename to heartbeat');
    await server.get('/api/health').expect(200);
  });

  test('a project whose row is held by somebody keeps nobody else from being answered', async () => {
    const agent = await personOf(app);
    const [held, free] = [await projectOf(agent), await projectOf(agent)];
    const em = app.get(EntityManager).fork();
    await em.begin();
    await em.execute('select 1 from project where id = ? for update', [held]);
    const save = (id: string) =>
      agent.post(`/api/projects/${id}/edits`).send({ base: 0, edits: [firstBox().edit] });
    const waiting = Array.from({ length: 30 }, () => save(held).then((answer) => answer.status));
    await save(free).expect(201);
    await request(app.getHttpServer()).get('/api/health').expect(200);
    await agent.get('/api/projects').expect(200);
    await em.rollback();
    const answers = await Promise.all(waiting);
    // On a machine so slow that the lock is waited for no longer, some are asked to try again.
    expect(answers.filter((status) => status === 201).length).toBeLessThanOrEqual(1);
    expect(answers.filter((status) => ![201, 409, 503].includes(status))).toEqual([]);
  });
});

async function documentOf(agent: Agent, id: string): Promise<KadrelDocument> {
  const { body } = await agent.get(`/api/projects/${id}`).expect(200);
  return (body as { document: KadrelDocument }).document;
}

/** Sends each request to the next server, and once more to the other one where that does not answer. */
function balancer(ports: readonly number[]): Server {
  let turn = 0;
  return createServer((question, response) => {
    const parts: Buffer[] = [];
    question.on('data', (part: Buffer) => parts.push(part));
    question.once('end', () => {
      const passOn = (triesLeft: number): void => {
        const { method, url: path, headers } = question;
        const asked = ask(
          { host: '127.0.0.1', port: ports[turn++ % ports.length], method, path, headers, agent: false },
          (answer: IncomingMessage) => {
            response.writeHead(answer.statusCode!, answer.headers);
            answer.pipe(response);
          },
        );
        asked.once('error', () => (triesLeft > 0 ? passOn(triesLeft - 1) : response.destroy()));
        asked.end(Buffer.concat(parts));
      };
      passOn(1);
    });
  });
}

test('two servers behind a balancer take saves in turn, and one of them may be killed', async () => {
  const [one, two] = [await startApp(), await startApp()];
  for (const app of [one, two]) await app.listen(0, '127.0.0.1');
  const [first, second] = [one, two].map((app): Server => app.getHttpServer()) as [Server, Server];
  const front = await listening(balancer([portOf(first), portOf(second)]));
  const agent = request.agent(front);
  await agent
    .post('/api/sign-up')
    .send({ email: `${Date.now()}@kadrel.example`, name: 'Ada', password: 'a long password' })
    .expect(201);
  const id = await projectOf(agent);
  let document = firstBox().document;
  const edits: Edit[] = [];
  for (let base = 0; base < 24; base++) {
    const next = edit(base === 0 ? await documentOf(agent, id) : document, ...aBox(`n${base}`));
    document = next.document;
    edits.push(next.edit);
    if (base === 12) {
      first.close();
      first.closeAllConnections();
    }
    await agent
      .post(`/api/projects/${id}/edits`)
      .send({ base, edits: [next.edit] })
      .expect(201, { revision: base + 1 });
  }
  const { body } = await agent.get(`/api/projects/${id}`).expect(200);
  expect(body).toMatchObject({ revision: 24, document });
  const ledger = await agent.get(`/api/projects/${id}/edits`).expect(200);
  expect((ledger.body as { edits: Edit[] }).edits.map((each) => each.id)).toEqual(
    edits.map((each) => each.id),
  );
  front.close();
  front.closeAllConnections();
  await one.close();
  await two.close();
});

test('a back-up restored into a new cluster has every document at every revision', async () => {
  const app = await startApp();
  const agent = await personOf(app);
  const id = await projectOf(agent);
  let document = await documentOf(agent, id);
  for (let base = 0; base < 55; base++) {
    const next = edit(document, ...aBox(`n${base}`));
    document = next.document;
    await agent
      .post(`/api/projects/${id}/edits`)
      .send({ base, edits: [next.edit] })
      .expect(201);
  }
  const dump = spawnSync(binaryOf('pg_dump'), ['--format=custom', settings.databaseUrl], {
    maxBuffer: 1e9,
  });
  expect(dump.stderr.toString()).toBe('');
  await app.close();

  const cluster = await startTestCluster();
  try {
    const url = cluster.database('restored');
    const restored = spawnSync(binaryOf('pg_restore'), ['--no-owner', `--dbname=${url}`], {
      input: dump.stdout,
    });
    expect(restored.stderr.toString()).toBe('');
    const rows = (of: string) => rowsOf(of, id);
    expect(await rows(url)).toEqual(await rows(settings.databaseUrl));
    const again = await startApp({ databaseUrl: url });
    const { body } = await request
      .agent(again.getHttpServer())
      .post('/api/sign-in')
      .send({ email: (await emailOf(url, id)) ?? '', password: 'a long password' })
      .expect(201);
    expect(body).toMatchObject({ name: 'Ada' });
    await again.close();
  } finally {
    await cluster.stop();
  }
});

async function withDatabase<T>(url: string, work: (em: EntityManager) => Promise<T>): Promise<T> {
  const orm = await MikroORM.init(databaseConfig(url));
  try {
    return await work(orm.em.fork());
  } finally {
    await orm.close(true);
  }
}

/** Everything that is stored of a project. */
const rowsOf = (url: string, id: string) =>
  withDatabase(url, async (em) => ({
    project: await em.execute<object[]>('select * from project where id = ?', [id]),
    edits: await em.execute<object[]>('select * from edit where project_id = ? order by revision', [id]),
    snapshots: await em.execute<object[]>('select * from snapshot where project_id = ? order by revision', [
      id,
    ]),
  }));

const emailOf = (url: string, id: string) =>
  withDatabase(url, async (em) => {
    const [row] = await em.execute<{ email: string }[]>(
      'select a.email from account a join member m on m.account_id = a.id where m.project_id = ?',
      [id],
    );
    return row?.email;
  });
