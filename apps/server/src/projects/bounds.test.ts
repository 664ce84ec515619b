import { randomUUID } from 'node:crypto';
import { EntityManager } from '@mikro-orm/postgresql';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { DOCUMENT_VERSION, emptyDocument, stepBack, type Edit, type KadrelDocument } from '@kadrel/core';
import { Sweeper } from '../operation/sweeper.ts';
import {
  aBox,
  edit,
  firstBox,
  ONE_PIXEL,
  personOf,
  projectOf,
  startApp,
  type Agent,
  type Problem,
} from '../testing.ts';

let app: NestExpressApplication;
let em: EntityManager;
beforeAll(async () => {
  app = await startApp();
  em = app.get(EntityManager).fork();
});
afterAll(() => app.close());

const save = (agent: Agent, id: string, base: number, edits: readonly unknown[]) =>
  agent.post(`/api/projects/${id}/edits`).send({ base, edits });
const countOf = async (sql: string, values: unknown[]) => {
  const [row] = await em.execute<{ n: number }[]>(`select count(*)::int as n from ${sql}`, values);
  return row!.n;
};

describe('what a page says of an edit', () => {
  test('is set where it could be forged, at the first save and at later ones', async () => {
    const agent = await personOf(app);
    const id = await projectOf(agent);
    const before = Date.now();
    const first = firstBox();
    const second = edit(first.document, ...aBox('b'));
    const forged = ({ edit: made }: { edit: Edit }, time: number) => ({
      ...made,
      inverses: [],
      line: { ...made.line, author: 'Somebody else', time },
    });
    await save(agent, id, 0, [forged(first, 9e14)]).expect(201);
    await save(agent, id, 1, [forged(second, -5)]).expect(201);
    const { body } = await agent.get(`/api/projects/${id}/edits`).expect(200);
    const { edits } = body as { edits: Edit[] };
    expect(edits.map(({ line }) => line.author)).toEqual(['Ada', 'Ada']);
    for (const { line } of edits) expect(line.time).toBeGreaterThanOrEqual(before);
    for (const { line } of edits) expect(line.time).toBeLessThanOrEqual(Date.now());
    expect(edits.map(({ inverses }) => inverses)).toEqual([first.edit.inverses, second.edit.inverses]);
  });

  test('of what it takes back has to be so', async () => {
    const agent = await personOf(app);
    const id = await projectOf(agent);
    const first = firstBox();
    await save(agent, id, 0, [first.edit]).expect(201);
    const undo = stepBack([first.edit], 'undo', { id: randomUUID(), time: 2, author: 'Ada' })!;
    await save(agent, id, 1, [{ ...undo, of: 'nothing-there' }]).expect(422, /does not have/);
    await save(agent, id, 1, [{ ...undo, kind: 'redo' }]).expect(422, /in force already/);
    const forged = { ...undo, patches: [{ op: 'replace', path: ['scene', 'grid'], value: 9 }] };
    await save(agent, id, 1, [forged]).expect(201);
    const { body } = await agent.get(`/api/projects/${id}`);
    expect((body as { document: KadrelDocument }).document).toEqual(emptyDocument({ units: 'mm' }));
    await save(agent, id, 2, [{ ...undo, id: randomUUID() }]).expect(422, /taken back already/);
    const redo = stepBack([first.edit, undo], 'redo', { id: randomUUID(), time: 3, author: 'Ada' })!;
    await save(agent, id, 2, [redo]).expect(201);
  });

  test('of another version is answered with who is older', async () => {
    const agent = await personOf(app);
    const id = await projectOf(agent);
    const { edit: one } = firstBox();
    await save(agent, id, 0, [{ ...one, version: DOCUMENT_VERSION + 1 }]).expect(426, /server is older/);
    await save(agent, id, 0, [{ ...one, version: DOCUMENT_VERSION - 1 }]).expect(426, /page is older/);
  });
});

test('a server that is older than what is stored says so', async () => {
  const agent = await personOf(app);
  const id = await projectOf(agent);
  await em.execute(
    `update snapshot set document = jsonb_set(document, '{kadrel}', '99') where project_id = ?`,
    [id],
  );
  await agent.get(`/api/projects/${id}`).expect(503, /by a newer Kadrel/);
  await save(agent, id, 0, [firstBox().edit]).expect(503, /by a newer Kadrel/);
});

test('a project is deleted for good only out of the archive, and by itself after some time there', async () => {
  const agent = await personOf(app);
  const [one, two] = [await projectOf(agent), await projectOf(agent)];
  await agent.delete(`/api/projects/${one}`).expect(409);
  for (const id of [one, two]) await agent.patch(`/api/projects/${id}`).send({ archived: true }).expect(200);
  await agent.delete(`/api/projects/${one}`).expect(204);
  await agent.get(`/api/projects/${one}`).expect(404);
  await app.get(Sweeper).sweep();
  await agent.get(`/api/projects/${two}`).expect(200);
  await em.execute(`update project set archived_at = now() - interval '91 days' where id = ?`, [two]);
  await app.get(Sweeper).sweep();
  await agent.get(`/api/projects/${two}`).expect(404);
});

test('pictures that no project shows any more, sessions and limits that have ended are swept', async () => {
  const agent = await personOf(app);
  const id = await projectOf(agent);
  await agent.put(`/api/projects/${id}/picture`).type('image/png').send(ONE_PIXEL).expect(200);
  const hash = 'f'.repeat(64);
  await em.execute(
    `insert into asset (hash, media_type, bytes, stored_at) values (?, 'image/png', '', now() - interval '2 hours')`,
    [hash],
  );
  await em.execute(`update asset set stored_at = now() - interval '2 hours'`);
  await em.execute(`insert into rate_limit (key, points, expire) values ('old', 1, 1)`);
  await em.execute(`update session set expires_at = now() - interval '1 hour' where token_hash = ?`, [
    'none',
  ]);
  await app.get(Sweeper).sweep();
  expect(await countOf('asset where hash = ?', [hash])).toBe(0);
  expect(await countOf('rate_limit where key = ?', ['old'])).toBe(0);
  await agent.get(`/api/projects/${id}/picture`).expect(200);
});

test('an account may hold so much, and is told', async () => {
  const small = await startApp({ quotaMb: 0.000_001 });
  const agent = await personOf(small);
  const id = await projectOf(agent);
  await save(agent, id, 0, [firstBox().edit]).expect(201);
  const { body } = await agent.post('/api/projects').send({ name: 'One more', scene: {} }).expect(403);
  expect((body as Problem).detail).toMatch(/what one account may have\. Delete what you do not need\.$/);
  await small.close();
});
