import 'reflect-metadata';
import { randomUUID } from 'node:crypto';
import { request as sendRequest, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { emptyDocument } from '@kadrel/core';
import supertest from 'supertest';
import { aBox, edit, firstBox, personOf, projectOf, startApp, type Agent } from '../testing.ts';
import { AccountsService } from '../accounts/accounts.service.ts';
import { EditsService } from './edits.service.ts';

let app: NestExpressApplication;
let ada: Agent;
beforeAll(async () => {
  app = await startApp();
  ada = await personOf(app);
});
afterAll(() => app.close());

/** Counts how often the route itself has to answer. */
function countRoute(): () => number {
  const edits = app.get(EditsService);
  let count = 0;
  const append = edits.append.bind(edits);
  edits.append = (...asked) => {
    count += 1;
    return append(...asked);
  };
  return () => count;
}

/** What says more of its text than that it is JSON goes past the short way. */
const pathOf = (id: string) => `/api/projects/${id}/edits`;
const byTheShortWay = (agent: Agent, id: string, body: string) =>
  agent.post(pathOf(id)).set('Content-Type', 'application/json').send(body);
function byTheRoute(agent: Agent, id: string, body: string) {
  const request = agent.post(pathOf(id)).set('Content-Type', 'application/json; charset="utf-8"');
  return request.send(body);
}

const saved = (base: number, edits: unknown = [firstBox().edit]) => JSON.stringify({ base, edits });

test('a small edit on a document at hand is stored without the route', async () => {
  const id = await projectOf(ada);
  await ada
    .post(pathOf(id))
    .send({ base: 0, edits: [firstBox().edit] })
    .expect(201);
  const routeAnswers = countRoute();
  const second = edit(emptyDocument(), ...aBox('b')).edit;
  const { body, headers } = await byTheShortWay(ada, id, saved(1, [second])).expect(201);
  expect(body).toEqual({ revision: 2 });
  expect(headers['x-request-id']).toMatch(/^[\w-]{8,64}$/);
  expect(routeAnswers()).toBe(0);
  await byTheRoute(ada, id, saved(0)).expect(409);
  expect(routeAnswers()).toBe(1);
  const { body: ledger } = await ada.get(pathOf(id)).expect(200);
  expect((ledger as { edits: { id: string }[] }).edits.at(-1)!.id).toBe(second.id);
});

const ODD: [string, (id: string) => { id: string; body: string }][] = [
  ['a stale base', (id) => ({ id, body: saved(0) })],
  ['a base that is not there yet', (id) => ({ id, body: saved(7) })],
  ['a project that is nobody’s', () => ({ id: randomUUID(), body: saved(1) })],
  ['a project that is not the account’s', (id) => ({ id: foreign ?? id, body: saved(1) })],
  ['text that is no JSON', (id) => ({ id, body: '{"base":' })],
  ['JSON that is no save', (id) => ({ id, body: '{"base":-1,"edits":[]}' })],
  ['an edit that does not fit', (id) => ({ id, body: saved(1, [{ ...firstBox().edit, patches: 3 }]) })],
  [
    'a patch out of reach',
    (id) => {
      const patches = [{ op: 'replace', path: ['items', 'nobody', 'name'], value: 'x' }];
      return { id, body: saved(1, [{ ...firstBox().edit, patches }]) };
    },
  ],
];
let foreign: string | undefined;

test.each(ODD)('%s is answered as by the route', async (_, madeOf) => {
  const id = await projectOf(ada);
  const bob = await personOf(app);
  foreign = await projectOf(bob);
  await bob.post(pathOf(foreign)).send({ base: 0, edits: [firstBox().edit] });
  await ada.post(pathOf(id)).send({ base: 0, edits: [firstBox().edit] });
  const { id: to, body } = madeOf(id);
  const quick = await byTheShortWay(ada, to, body);
  const slow = await byTheRoute(ada, to, body);
  expect(quick.status).toBeGreaterThanOrEqual(400);
  expect([quick.status, quick.body]).toEqual([slow.status, slow.body]);
  expect(lasting(quick.headers)).toEqual(lasting(slow.headers));
});

/** Headers that are the same for every answer of its kind. */
const lasting = (headers: object) =>
  Object.entries(headers).filter(([name]) => !['x-request-id', 'date'].includes(name));

test('who is not signed in, and what another site sent, is refused as by the route', async () => {
  const id = await projectOf(ada);
  await ada.post(pathOf(id)).send({ base: 0, edits: [firstBox().edit] });
  const nobody = supertest.agent(app.getHttpServer()).set('Cookie', 'kadrel_session=nobody');
  await byTheShortWay(nobody, id, saved(1)).expect(401);
  await byTheShortWay(ada, id, saved(1)).set('Origin', 'https://elsewhere.example').expect(403);
  const { body } = await ada.get(pathOf(id)).expect(200);
  expect((body as { edits: unknown[] }).edits).toHaveLength(1);
});

test('what fails while a body is still on its way is answered as by the route, which gets all of it', async () => {
  const id = await projectOf(ada);
  await ada.post(pathOf(id)).send({ base: 0, edits: [firstBox().edit] });
  const accounts = app.get(AccountsService);
  const accountOf = accounts.accountOf.bind(accounts);
  accounts.accountOf = () => Promise.reject(new Error('The database is away.'));
  try {
    const server: Server = app.getHttpServer();
    if (!server.listening) await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const { port } = server.address() as AddressInfo;
    expect(await inTwoParts(port, pathOf(id), saved(1))).toBe(500);
  } finally {
    accounts.accountOf = accountOf;
  }
});

/** Posts a save whose second half comes when the first has long arrived. Returns the status of the answer. */
const inTwoParts = (port: number, path: string, body: string): Promise<number> =>
  new Promise((resolve, reject) => {
    const headers = {
      'Content-Type': 'application/json',
      'Content-Length': Buffer.byteLength(body),
      Cookie: 'kadrel_session=somebody',
    };
    const asked = sendRequest({ port, path, method: 'POST', headers }, (answer) => {
      answer.resume();
      resolve(answer.statusCode!);
    });
    asked.once('error', reject);
    asked.write(body.slice(0, 40), () => setTimeout(() => asked.end(body.slice(40)), 50));
  });
