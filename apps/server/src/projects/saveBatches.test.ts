import 'reflect-metadata';
import { randomUUID } from 'node:crypto';
import { EntityManager } from '@mikro-orm/postgresql';
import type { NestExpressApplication } from '@nestjs/platform-express';
import type { Edit } from '@kadrel/core';
import { EditRow, Member } from '../data/entities.ts';
import { firstBox, personOf, projectOf, startApp } from '../testing.ts';
import { SaveBatches } from './saveBatches.ts';

let app: NestExpressApplication;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());

/** An edit of a given id. */
const boxCalled = (id: string): Edit => ({ ...firstBox().edit, id });

/** A project of somebody, and how it is saved to. */
async function made() {
  const project = await projectOf(await personOf(app));
  const { account } = await app.get(EntityManager).fork().findOneOrFail(Member, { project });
  const save = (base: number, ...ids: string[]) =>
    app.get(SaveBatches).store({ project, account: account.id, base, edits: ids.map(boxCalled) });
  return { project, save };
}

const storedIn = async (project: string) => {
  const rows = await app
    .get(EntityManager)
    .fork()
    .find(EditRow, { project }, { orderBy: { revision: 'asc' } });
  return rows.map(({ editId, revision }) => [revision, editId]);
};

test('many save at once, and each gets what it would get alone', async () => {
  const projects = await Promise.all(Array.from({ length: 8 }, made));
  const ids = projects.map(() => [randomUUID(), randomUUID()] as const);
  const first = await Promise.all(projects.map(({ save }, i) => save(0, ...ids[i]!)));
  expect(first).toEqual(projects.map(() => 2));
  const next = await Promise.allSettled(
    projects.map(({ save }, i) => {
      // One is behind, one sends an edit again, and one has nothing in common with the project.
      if (i === 2) return save(1, randomUUID());
      if (i === 3) return save(2, ids[3]![0]);
      return save(2, randomUUID());
    }),
  );
  expect(next.map((one) => (one.status === 'fulfilled' ? one.value : 'refused'))).toEqual([
    3,
    3,
    undefined,
    'refused',
    3,
    3,
    3,
    3,
  ]);
  expect(await storedIn(projects[3]!.project)).toEqual(ids[3]!.map((id, i) => [i + 1, id]));
  expect(await storedIn(projects[0]!.project)).toHaveLength(3);
});

test('what is not one’s own is not saved to', async () => {
  const [own, other] = [await made(), await made()];
  const { account } = await app.get(EntityManager).fork().findOneOrFail(Member, { project: own.project });
  const batches = app.get(SaveBatches);
  const foreign = { project: other.project, account: account.id, base: 0, edits: [boxCalled(randomUUID())] };
  expect(await Promise.all([batches.store(foreign), own.save(0, randomUUID())])).toEqual([undefined, 1]);
  expect(await storedIn(other.project)).toEqual([]);
});
