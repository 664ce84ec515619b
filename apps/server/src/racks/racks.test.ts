/** Racks of a person and of a project: versions, permissions, limits, import and export. */
import type { NestExpressApplication } from '@nestjs/platform-express';
import { starterPart, type RackPart } from '@kadrel/core';
import { personOf, projectOf, rackOf, startApp, type Agent, type Problem } from '../testing.ts';

let app: NestExpressApplication;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());

const partsOf = async (agent: Agent, id: string) =>
  ((await agent.get(`/api/racks/${id}`).expect(200)).body as { parts: RackPart[] }).parts;

test('a part is put, becomes newer versions, and is taken off; a rack is read back as it was written', async () => {
  const ada = await personOf(app);
  const id = await rackOf(ada);
  const washer = { ...starterPart('Plain washer')!, about: 'Of brass.' };
  for (const version of [2, 3]) {
    const { body } = await ada.put(`/api/racks/${id}/parts`).send(washer).expect(200);
    expect(body).toEqual({ ...washer, version });
  }
  expect(await partsOf(ada, id)).toEqual([{ ...washer, version: 3 }]);
  const copied = await ada
    .post('/api/racks')
    .send({ name: 'Copy', parts: await partsOf(ada, id) })
    .expect(201);
  const copy = copied.body as { id: string };
  expect(await partsOf(ada, copy.id)).toEqual([{ ...washer, version: 1 }]);
  await ada.delete(`/api/racks/${id}/parts/starterwasher`).expect(204);
  await ada.delete(`/api/racks/${id}/parts/starterwasher`).expect(404);
  expect(await partsOf(ada, id)).toEqual([]);
  expect((await ada.get('/api/racks').expect(200)).body).toMatchObject([
    { id, name: 'Rack', project: null, parts: 0 },
    { name: 'Copy', parts: 1 },
  ]);
});

test('a rack of a project is its members’ alone; a stranger is told that it does not exist', async () => {
  const [ada, eve] = [await personOf(app), await personOf(app)];
  const project = await projectOf(ada);
  const id = await rackOf(ada, { project });
  expect((await ada.get('/api/racks').expect(200)).body).toMatchObject([{ id, project }]);
  expect((await eve.get('/api/racks').expect(200)).body).toEqual([]);
  const { body } = await eve.put(`/api/racks/${id}/parts`).send(starterPart('Dowel')).expect(404);
  const { body: none } = await eve.get('/api/racks/00000000-0000-4000-8000-000000000000').expect(404);
  expect((body as Problem).detail).toBe((none as Problem).detail);
  await eve.post('/api/racks').send({ name: 'Theirs', project }).expect(404);
  await ada.patch(`/api/projects/${project}`).send({ archived: true }).expect(200);
  await ada.delete(`/api/projects/${project}`).expect(204);
  await ada.get(`/api/racks/${id}`).expect(404);
});

test('what is no rack part is refused with what is wrong, and changes nothing', async () => {
  const ada = await personOf(app);
  const id = await rackOf(ada);
  const dowel = starterPart('Dowel')!;
  const refused = async (part: object) =>
    (await ada.put(`/api/racks/${id}/parts`).send(part).expect(400)).body as Problem;
  expect((await refused({ ...dowel, variables: { across: '8 mm' } })).detail).toMatch(/no variable long/);
  expect((await refused({ ...dowel, sizes: [{ name: 'x', values: { width: '3' } }] })).detail).toMatch(
    /no parameter width/,
  );
  await refused({ ...dowel, id: 'Not an id' });
  const [item] = Object.values(dowel.items);
  expect((await refused({ ...dowel, items: { other: item } })).detail).toMatch(/calls itself/);
  expect(await partsOf(ada, id)).toHaveLength(1);
});

test('an account is exported with its racks, as files that can be brought back', async () => {
  const ada = await personOf(app);
  await rackOf(ada);
  const { body } = await ada.get('/api/account/export').expect(200);
  expect((body as { racks: object[] }).racks).toMatchObject([
    { kadrelRack: 1, name: 'Rack', parts: [{ name: 'Plain washer' }] },
  ]);
});

test('a picture is kept with the version that it shows, for those who see the rack', async () => {
  const [ada, eve] = [await personOf(app), await personOf(app)];
  const id = await rackOf(ada);
  const at = `/api/racks/${id}/parts/starterwasher/picture`;
  const lines = { version: 1, viewBox: '-1 -1 12.5 12.5', path: 'M0 0L10 10C1 2 3 4 5e-7 6' };
  await ada.get(`${at}?version=1`).expect(404);
  await ada.put(at).send(lines).expect(204);
  await ada.put(at).send(lines).expect(204);
  expect((await ada.get(`${at}?version=1`).expect(200)).body).toEqual(lines);
  expect((await ada.get(`/api/racks/${id}`)).body).toMatchObject({ drawn: ['starterwasher'] });
  await ada
    .put(at)
    .send({ ...lines, version: 2 })
    .expect(404);
  await ada
    .put(at)
    .send({ ...lines, path: 'M0 0"/><script>' })
    .expect(400);
  await ada
    .put(at)
    .send({ ...lines, viewBox: '0 0 10' })
    .expect(400);
  await eve.get(`${at}?version=1`).expect(404);
  await eve.put(at).send(lines).expect(404);
  await ada.get(`${at.replace('starterwasher', 'No')}?version=1`).expect(404);
});
