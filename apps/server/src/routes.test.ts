/**
 * Who may do what, for every route that the API describes: a new route fails here until it stands in the table.
 * Statuses by who asks: nobody who is signed in; somebody else; a guest of the demo; whose project it is.
 */
import type { NestExpressApplication } from '@nestjs/platform-express';
import { starterPart } from '@kadrel/core';
import request from 'supertest';
import {
  firstBox,
  newAddress,
  ONE_PIXEL,
  PASSWORD,
  personOf,
  projectOf,
  rackOf,
  startApp,
  type Agent,
} from './testing.ts';

type Statuses = readonly [nobody: number, stranger: number, guest: number, owner: number];
const ANYBODY = (status: number): Statuses => [status, status, status, status];
const SIGNED_IN = (status: number): Statuses => [401, status, status, status];
const OWNER = (status: number): Statuses => [401, 404, 404, status];

interface Route {
  readonly statuses: Statuses;
  readonly body?: () => object;
  readonly query?: string;
  /** In place of JSON. */
  readonly picture?: Buffer;
}

const ROUTES: Readonly<Record<string, Route>> = {
  'get /api/health': { statuses: ANYBODY(200) },
  'get /api/health/live': { statuses: ANYBODY(200) },
  'get /api/start': { statuses: ANYBODY(200) },
  'post /api/sign-up': {
    statuses: ANYBODY(201),
    body: () => ({ email: newAddress(), name: 'Ben', password: PASSWORD }),
  },
  'post /api/sign-up/confirm': { statuses: ANYBODY(410), body: () => ({ token: 'spent' }) },
  'post /api/sign-in': {
    statuses: ANYBODY(401),
    body: () => ({ email: newAddress(), password: PASSWORD }),
  },
  'post /api/demo': { statuses: ANYBODY(201) },
  'get /api/me': { statuses: SIGNED_IN(200) },
  'get /api/sessions': { statuses: SIGNED_IN(200) },
  'delete /api/sessions': { statuses: SIGNED_IN(204) },
  'put /api/password': {
    statuses: SIGNED_IN(403),
    body: () => ({ old: 'not the password', fresh: 'some other words' }),
  },
  'get /api/account/export': { statuses: SIGNED_IN(200) },
  'delete /api/account': { statuses: [401, 403, 204, 403], body: () => ({ password: 'not the password' }) },
  'post /api/sign-out': { statuses: SIGNED_IN(204) },
  'get /api/projects': { statuses: SIGNED_IN(200) },
  'post /api/projects': { statuses: SIGNED_IN(201), body: () => ({ name: 'New', scene: {} }) },
  'post /api/projects/from-file': {
    statuses: SIGNED_IN(201),
    body: () => ({ name: 'Opened', document: firstBox().document }),
  },
  'get /api/projects/{id}': { statuses: OWNER(200) },
  'patch /api/projects/{id}': { statuses: OWNER(200), body: () => ({ name: 'Other' }) },
  // Not out of the archive.
  'delete /api/projects/{id}': { statuses: OWNER(409) },
  'post /api/projects/{id}/duplicate': { statuses: OWNER(201) },
  'get /api/projects/{id}/edits': { statuses: OWNER(200) },
  'post /api/projects/{id}/edits': {
    statuses: OWNER(201),
    body: () => ({ base: 0, edits: [firstBox().edit] }),
  },
  'post /api/projects/{id}/keep': {
    statuses: OWNER(201),
    body: () => ({ name: 'Kept', base: 0, edits: [firstBox().edit] }),
  },
  'put /api/projects/{id}/picture': { statuses: OWNER(200), picture: ONE_PIXEL },
  'get /api/projects/{id}/picture': { statuses: OWNER(404) },
  'get /api/racks': { statuses: SIGNED_IN(200) },
  'post /api/racks': { statuses: SIGNED_IN(201), body: () => ({ name: 'Mine' }) },
  'get /api/racks/{id}': { statuses: OWNER(200) },
  'patch /api/racks/{id}': { statuses: OWNER(200), body: () => ({ name: 'Other' }) },
  'put /api/racks/{id}/parts': { statuses: OWNER(200), body: () => starterPart('Dowel')! },
  'put /api/racks/{id}/parts/{part}/picture': {
    statuses: OWNER(204),
    body: () => ({ version: 1, viewBox: '0 0 1 1', path: 'M0 0L1 1' }),
  },
  'get /api/racks/{id}/parts/{part}/picture': { statuses: OWNER(404), query: '?version=1' },
  'delete /api/racks/{id}/parts/{part}': { statuses: OWNER(204) },
  'delete /api/racks/{id}': { statuses: OWNER(204) },
};

let app: NestExpressApplication;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());

test('every route that the API describes stands in the table, and no other', async () => {
  const { body } = await request(app.getHttpServer()).get('/api/docs-json').expect(200);
  const { paths } = body as { paths: Record<string, object> };
  const described = Object.entries(paths).flatMap(([path, methods]) =>
    Object.keys(methods).map((method) => `${method} ${path}`),
  );
  expect(described.toSorted()).toEqual(Object.keys(ROUTES).toSorted());
});

async function whoeverAsks(): Promise<readonly Agent[]> {
  const guest = request.agent(app.getHttpServer());
  await guest.post('/api/demo').expect(201);
  return [request.agent(app.getHttpServer()), await personOf(app), guest, await personOf(app)];
}

test.each(Object.entries(ROUTES))('%s', async (name, { statuses, body, picture, query = '' }) => {
  const [method, path] = name.split(' ') as ['get' | 'post' | 'put' | 'patch' | 'delete', string];
  const agents = await whoeverAsks();
  const owner = agents[3]!;
  const id = await (path.startsWith('/api/racks') ? rackOf(owner) : projectOf(owner));
  const found: number[] = [];
  for (const agent of agents) {
    const asked = agent[method](path.replace('{id}', id).replace('{part}', 'starterwasher') + query);
    const answer = picture ? asked.type('image/png').send(picture) : asked.send(body?.());
    found.push((await answer).status);
  }
  expect(found).toEqual(statuses);
});
