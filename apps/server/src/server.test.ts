import 'reflect-metadata';
import { randomUUID } from 'node:crypto';
import { EntityManager } from '@mikro-orm/postgresql';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { emptyDocument, stepBack, type Edit, type KadrelDocument } from '@kadrel/core';
import request from 'supertest';
import { createApp } from './app.ts';
import { GuestsService } from './demo/guests.service.ts';
import { DemoSeed } from './demo/seed.ts';
import {
  aBox,
  edit,
  ONE_PIXEL,
  personOf,
  projectOf,
  settings,
  startApp,
  type Agent,
  type Problem,
} from './testing.ts';

let app: NestExpressApplication;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.close());

const person = () => personOf(app);

/** Of a session of its own for the same person. */
async function cookieOf(agent: Agent): Promise<string> {
  const { body } = await agent.get('/api/me').expect(200);
  const answer = await request(app.getHttpServer())
    .post('/api/sign-in')
    .send({ email: (body as { email: string }).email, password: 'a long password' })
    .expect(201);
  return String(answer.headers['set-cookie']).split(';')[0]!;
}

describe('accounts', () => {
  test('sign up, see oneself, sign out', async () => {
    const agent = await person();
    await agent.get('/api/me').expect(200, /Ada/);
    await agent.post('/api/sign-out').expect(204);
    await agent.get('/api/me').expect(401);
  });
  test('the cookie is closed to scripts and to other sites', async () => {
    const answer = await request(app.getHttpServer()).post('/api/demo').expect(201);
    expect(String(answer.headers['set-cookie'])).toMatch(
      /HttpOnly.*SameSite=Strict|SameSite=Strict.*HttpOnly/,
    );
  });
  test('a wrong password and an unknown address get the same answer', async () => {
    const email = `${randomUUID()}@kadrel.example`;
    const server = request(app.getHttpServer());
    await server.post('/api/sign-up').send({ email, name: 'Ben', password: 'correct password' }).expect(201);
    const wrong = await server.post('/api/sign-in').send({ email, password: 'something else' }).expect(401);
    const unknown = await server
      .post('/api/sign-in')
      .send({ email: `x${email}`, password: 'something else' })
      .expect(401);
    expect((wrong.body as Problem).detail).toBe((unknown.body as Problem).detail);
    await server
      .post('/api/sign-in')
      .send({ email: email.toUpperCase(), password: 'correct password' })
      .expect(201);
    await server.post('/api/sign-up').send({ email, name: 'Ben', password: 'correct password' }).expect(409);
  });
  test('bodies are checked, and the answer says what is wrong', async () => {
    const { body } = await request(app.getHttpServer())
      .post('/api/sign-up')
      .send({ email: 'nobody', name: '', password: 'x' })
      .expect(400);
    expect(body).toMatchObject({
      status: 400,
      errors: expect.arrayContaining([expect.objectContaining({ path: ['password'] })]) as unknown,
    });
  });
});

describe('projects', () => {
  test('are created, renamed, archived and duplicated', async () => {
    const agent = await person();
    const id = await projectOf(agent, 'Shelf');
    await agent.patch(`/api/projects/${id}`).send({ name: 'Tall shelf' }).expect(200);
    await agent.patch(`/api/projects/${id}`).send({ archived: true }).expect(200);
    await agent.post(`/api/projects/${id}/duplicate`).expect(201);
    const { body } = await agent.get('/api/projects').expect(200);
    expect(
      (body as { name: string; archived: boolean }[]).map(({ name, archived }) => [name, archived]),
    ).toEqual(
      expect.arrayContaining([
        ['Tall shelf', true],
        ['Tall shelf copy', false],
      ]),
    );
  });
  test('are as absent for a stranger as if they did not exist', async () => {
    const [owner, stranger] = [await person(), await person()];
    const id = await projectOf(owner);
    const { edit: first } = edit(emptyDocument(), ...aBox('a'));
    for (const path of ['', '/edits', '/picture'])
      await stranger.get(`/api/projects/${id}${path}`).expect(404);
    await stranger.patch(`/api/projects/${id}`).send({ name: 'Mine' }).expect(404);
    await stranger.post(`/api/projects/${id}/duplicate`).expect(404);
    await stranger
      .post(`/api/projects/${id}/edits`)
      .send({ base: 0, edits: [first] })
      .expect(404);
    await stranger.put(`/api/projects/${id}/picture`).type('image/png').send(ONE_PIXEL).expect(404);
    await owner.get('/api/projects/not-an-id').expect(404);
    await request(app.getHttpServer()).get(`/api/projects/${id}`).expect(401);
  });
  test('keep a picture, and nothing that is none', async () => {
    const agent = await person();
    const id = await projectOf(agent);
    const png = ONE_PIXEL;
    await agent.put(`/api/projects/${id}/picture`).type('image/png').send(Buffer.from('hello')).expect(415);
    await agent.put(`/api/projects/${id}/picture`).type('image/png').send(png).expect(200);
    const { body } = await agent
      .get(`/api/projects/${id}/picture`)
      .expect(200)
      .expect('Content-Type', /image\/png/);
    expect(Buffer.compare(body as Buffer, png)).toBe(0);
  });
});

describe('edits', () => {
  test('give the document that the page has, through undo and over many snapshots', async () => {
    const agent = await person();
    const id = await projectOf(agent);
    let document = emptyDocument();
    const edits: Edit[] = [];
    for (let i = 0; i < 120; i++) {
      const next = edit(document, ...aBox(`box ${i}`));
      edits.push(next.edit);
      document = next.document;
    }
    const undo = stepBack(edits, 'undo', { id: randomUUID(), time: 2, author: 'Ada' })!;
    for (let at = 0; at < 120; at += 40)
      await agent
        .post(`/api/projects/${id}/edits`)
        .send({ base: at, edits: edits.slice(at, at + 40) })
        .expect(201);
    await agent
      .post(`/api/projects/${id}/edits`)
      .send({ base: 120, edits: [undo] })
      .expect(201, { revision: 121 });
    const { body } = await agent.get(`/api/projects/${id}`).expect(200);
    const opened = body as { revision: number; document: KadrelDocument; edits: Edit[] };
    expect([opened.revision, Object.keys(opened.document.items).length]).toEqual([121, 119]);
    // The latest of them come along; the ones before are asked for.
    const all = await agent.get(`/api/projects/${id}/edits`).expect(200);
    expect(opened.edits).toEqual((all.body as { edits: Edit[] }).edits.slice(-100));
    const list = await agent.get(`/api/projects/${id}/edits?after=119`).expect(200);
    expect((list.body as { edits: Edit[] }).edits.map((e) => e.kind)).toEqual(['do', 'undo']);
  });
  test('on a stale base are refused with what is missing', async () => {
    const agent = await person();
    const id = await projectOf(agent);
    const [mine, theirs] = [
      edit(emptyDocument(), ...aBox('mine')).edit,
      edit(emptyDocument(), ...aBox('theirs')).edit,
    ];
    await agent
      .post(`/api/projects/${id}/edits`)
      .send({ base: 0, edits: [theirs] })
      .expect(201);
    const { body } = await agent
      .post(`/api/projects/${id}/edits`)
      .send({ base: 0, edits: [mine] })
      .expect(409);
    expect(body).toMatchObject({ revision: 1, edits: [{ id: theirs.id }] });
    await agent
      .post(`/api/projects/${id}/edits`)
      .send({ base: 1, edits: [mine] })
      .expect(201, { revision: 2 });
  });
  test('sent twice are stored once', async () => {
    const agent = await person();
    const id = await projectOf(agent);
    const first = edit(emptyDocument(), ...aBox('a'));
    const second = edit(first.document, ...aBox('b'));
    await agent
      .post(`/api/projects/${id}/edits`)
      .send({ base: 0, edits: [first.edit] })
      .expect(201);
    await agent
      .post(`/api/projects/${id}/edits`)
      .send({ base: 0, edits: [first.edit, second.edit] })
      .expect(201, { revision: 2 });
    await agent
      .post(`/api/projects/${id}/edits`)
      .send({ base: 0, edits: [first.edit, second.edit] })
      .expect(201, { revision: 2 });
  });
  test('from many pages at once are stored one after another, none lost', async () => {
    const agent = await person();
    const id = await projectOf(agent);
    const send = async (name: string) => {
      const { edit: body } = edit(emptyDocument(), ...aBox(name));
      for (let base = 0; ; base++) {
        const answer = await agent.post(`/api/projects/${id}/edits`).send({ base, edits: [body] });
        if (answer.status === 201) return;
        expect(answer.status).toBe(409);
      }
    };
    await Promise.all(['a', 'b', 'c', 'd', 'e', 'f'].map(send));
    const { body } = await agent.get(`/api/projects/${id}`).expect(200);
    expect(body).toMatchObject({ revision: 6 });
  });
  test('sent twice in one go are stored once, whatever else is sent', async () => {
    const agent = await person();
    const id = await projectOf(agent);
    const first = edit(emptyDocument(), ...aBox('a'));
    const second = edit(first.document, ...aBox('b'));
    for (const [base, edits] of [
      [0, [first.edit, first.edit]],
      [1, [second.edit, first.edit, second.edit]],
    ] as const)
      await agent.post(`/api/projects/${id}/edits`).send({ base, edits }).expect(201);
    const { body } = await agent.get(`/api/projects/${id}/edits`).expect(200);
    expect((body as { edits: Edit[] }).edits.map((one) => one.id)).toEqual([first.edit.id, second.edit.id]);
  });
  test.each([
    ['a length beyond the list', ['recipe', 'steps', 'length'], 4294967295],
    ['an index beyond the list', ['recipe', 'steps', 4294967294], 1],
    ['a name with NUL', ['name'], 'a\0'],
    ['a name with half of a pair', ['name'], 'a\ud83d'],
  ])('with %s are refused at once, by name, and the server goes on', async (_, path, value) => {
    const agent = await person();
    const id = await projectOf(agent);
    const good = edit(emptyDocument(), ...aBox('a'));
    const part = Object.keys(good.document.items)[0]!;
    const bad = {
      ...good.edit,
      id: randomUUID(),
      patches: [{ op: 'replace', path: ['items', part, ...path], value }],
    };
    const { body } = await agent
      .post(`/api/projects/${id}/edits`)
      .send({ base: 0, edits: [good.edit, bad] })
      .expect(422);
    expect(body).toMatchObject({ edit: bad.id });
    await agent
      .post(`/api/projects/${id}/edits`)
      .send({ base: 0, edits: [good.edit] })
      .expect(201);
    await agent
      .post(`/api/projects/${id}/edits`)
      .send({ base: 1, edits: [bad] })
      .expect(422);
    const opened = await agent.get(`/api/projects/${id}`).expect(200);
    expect(opened.body).toMatchObject({ revision: 1, document: good.document });
  });
  test('through two servers at once are stored one after another, none lost and none twice', async () => {
    const other = await createApp(settings);
    await other.init();
    const ada = await person();
    const id = await projectOf(ada);
    const cookie = await cookieOf(ada);
    const servers = [app, other].map((one) => one.getHttpServer());
    let saved = 0;
    const send = async (name: string, server: (typeof servers)[number]) => {
      const { edit: body } = edit(emptyDocument(), ...aBox(name));
      for (;;) {
        const answer = await request(server)
          .post(`/api/projects/${id}/edits`)
          .set('Cookie', cookie)
          .send({ base: saved, edits: [body] });
        if (answer.status === 201) {
          saved = Math.max(saved, (answer.body as { revision: number }).revision);
          return;
        }
        expect(answer.status).toBe(409);
        saved = Math.max(saved, (answer.body as { revision: number }).revision);
      }
    };
    const names = Array.from({ length: 24 }, (_, i) => `part ${i}`);
    await Promise.all(names.map((name, i) => send(name, servers[i % 2]!)));
    const { body } = await ada.get(`/api/projects/${id}`).expect(200);
    const { revision, document } = body as { revision: number; document: KadrelDocument };
    expect(revision).toBe(24);
    expect(
      Object.values(document.items)
        .map((part) => part.name)
        .sort(),
    ).toEqual([...names].sort());
    await other.close();
  });
  test('that another project took are no hindrance, and what a page kept becomes a project with its history', async () => {
    const agent = await person();
    const id = await projectOf(agent);
    const shared = edit(emptyDocument(), ...aBox('shared'));
    const theirs = edit(shared.document, 'rename', { part: 'shared', to: 'theirs' });
    const mine = edit(shared.document, 'rename', { part: 'shared', to: 'mine' });
    const more = edit(mine.document, 'pin', { as: 'here', at: [1, 2, 3] });
    for (const [base, one] of [shared.edit, theirs.edit].entries())
      await agent
        .post(`/api/projects/${id}/edits`)
        .send({ base, edits: [one] })
        .expect(201);
    const { body: made } = await agent
      .post(`/api/projects/${id}/keep`)
      .send({ name: 'Mine', base: 1, edits: [mine.edit, more.edit] })
      .expect(201);
    const kept = (made as { id: string }).id;
    const opened = await agent.get(`/api/projects/${kept}`).expect(200);
    expect(opened.body).toMatchObject({ revision: 3, document: more.document });
    const { body: ledger } = await agent.get(`/api/projects/${kept}/edits`).expect(200);
    expect(ledger).toEqual({ edits: [shared.edit, mine.edit, more.edit] });
    const untouched = await agent.get(`/api/projects/${id}`).expect(200);
    expect(untouched.body).toMatchObject({ revision: 2, document: theirs.document });
    const count = async () => ((await agent.get('/api/projects').expect(200)).body as unknown[]).length;
    const before = await count();
    await agent
      .post(`/api/projects/${id}/keep`)
      .send({ name: 'Mine', base: 0, edits: [mine.edit] })
      .expect(422);
    expect(await count()).toBe(before);
    await (
      await person()
    )
      .post(`/api/projects/${id}/keep`)
      .send({ name: 'x', base: 0, edits: [] })
      .expect(404);
  });
  test('a file is opened as a project, and what is none is refused with a sentence', async () => {
    const agent = await person();
    const { document } = edit(emptyDocument(), ...aBox('a'));
    const { body } = await agent.post('/api/projects/from-file').send({ name: 'File', document }).expect(201);
    const opened = await agent.get(`/api/projects/${(body as { id: string }).id}`).expect(200);
    expect(opened.body).toMatchObject({ revision: 0, document });
    for (const bad of [7, {}, { kadrel: 99 }, { ...document, items: 3 }])
      await agent.post('/api/projects/from-file').send({ name: 'File', document: bad }).expect(422);
    const deep = `${'['.repeat(5000)}${']'.repeat(5000)}`;
    await agent
      .post('/api/projects/from-file')
      .set('Content-Type', 'application/json')
      .send(`{"name":"File","document":${deep}}`)
      .expect(422, /nested/);
  });
  test('that would damage the document are refused, and nothing changes', async () => {
    const agent = await person();
    const id = await projectOf(agent);
    const { edit: good } = edit(emptyDocument(), ...aBox('a'));
    const bad = {
      ...good,
      patches: [{ op: 'add', path: ['items', 'zz'], value: { id: 'zz', kind: 'spell' } }],
    };
    const lost = { ...good, patches: [{ op: 'replace', path: ['nowhere', 'at', 'all'], value: 1 }] };
    const hostile = { ...good, patches: [{ op: 'add', path: ['__proto__', 'polluted'], value: 1 }] };
    for (const body of [bad, lost, hostile])
      await agent
        .post(`/api/projects/${id}/edits`)
        .send({ base: 0, edits: [body] })
        .expect(422);
    await agent
      .post(`/api/projects/${id}/edits`)
      .send({ base: 0, edits: [{ ...good, patches: 'all of them' }] })
      .expect(400);
    const { body } = await agent.get(`/api/projects/${id}`).expect(200);
    expect(body).toMatchObject({ revision: 0, document: { items: {} } });
    expect(({} as { polluted?: number }).polluted).toBeUndefined();
  });
});

test('the demo is seeded once, through the same verbs as a user, and opens', async () => {
  // Several servers start at once.
  await Promise.all([1, 2, 3].map(() => app.get(DemoSeed).run()));
  const agent = request.agent(app.getHttpServer());
  await agent.post('/api/demo').expect(201);
  const { body } = await agent.get('/api/projects').expect(200);
  expect((body as { name: string }[]).map(({ name }) => name)).toContain('Tram shelter, Hollin Road');
  const hives = (body as { id: string; name: string }[]).filter(({ name }) => name === 'Orchard hive');
  expect(hives).toHaveLength(1);
  const opened = await agent.get(`/api/projects/${hives[0]!.id}`).expect(200);
  const { document } = opened.body as { document: KadrelDocument };
  expect(
    Object.values(document.items)
      .filter((item) => item.parent === null)
      .map((item) => item.name)
      .sort(),
  ).toEqual([
    'Cover',
    'Floor',
    'Landing board',
    'Lower box',
    'Lower frames',
    'Roof',
    'Through the bee space',
    'Upper box',
    'Upper frames',
  ]);
});

type Card = { id: string; name: string };

test('every visitor of the demo has copies of their own, which are cleared when they are idle', async () => {
  await app.get(DemoSeed).run();
  const [ada, ben] = [request.agent(app.getHttpServer()), request.agent(app.getHttpServer())];
  const { body: guest } = await ada.post('/api/demo').expect(201);
  await ada.post('/api/demo').expect(201, guest as object);
  await ben.post('/api/demo').expect(201);
  const hiveOf = async (agent: Agent) =>
    ((await agent.get('/api/projects').expect(200)).body as Card[]).find(
      ({ name }) => name === 'Orchard hive',
    )!;
  const [mine, other] = [await hiveOf(ada), await hiveOf(ben)];
  expect(mine.id).not.toBe(other.id);
  await ada.get(`/api/projects/${other.id}`).expect(404);
  const opened = (await ada.get(`/api/projects/${mine.id}`).expect(200)).body as {
    revision: number;
    document: KadrelDocument;
  };
  const { edit: more } = edit(opened.document, ...aBox('a stone on the roof'));
  await ada
    .post(`/api/projects/${mine.id}/edits`)
    .send({ base: opened.revision, edits: [more] })
    .expect(201);
  const { body: untouched } = await ben.get(`/api/projects/${other.id}`).expect(200);
  expect(untouched).toMatchObject({ revision: opened.revision });

  const connection = app.get(EntityManager).getConnection();
  const { id } = guest as { id: string };
  const isThere = async () =>
    (await connection.execute<unknown[]>('select 1 from account where id = ?', [id])).length === 1;
  await connection.execute(`update account set created_at = now() - interval '2 days' where id = ?`, [id]);
  await app.get(GuestsService).clear();
  expect(await isThere()).toBe(true);
  await connection.execute(`update session set used_at = now() - interval '2 days' where account_id = ?`, [
    id,
  ]);
  await connection.execute(`update project set changed_at = now() - interval '2 days' where id in
    (select project_id from member where account_id = '${id}')`);
  await app.get(GuestsService).clear();
  expect(await isThere()).toBe(false);
  await ada.get('/api/me').expect(401);
  await ben.get(`/api/projects/${other.id}`).expect(200);
});

test('nothing is changed for another site’s page, and nobody keeps an answer', async () => {
  const agent = await person();
  const post = () => agent.post('/api/projects').send({ name: 'x', scene: {} });
  for (const [header, value] of [
    ['Origin', 'https://elsewhere.example'],
    ['Origin', 'null'],
    ['Sec-Fetch-Site', 'cross-site'],
    ['Sec-Fetch-Site', 'same-site'],
  ] as const)
    await post()
      .set(header, value)
      .expect(403, /another site/);
  await post().set('Sec-Fetch-Site', 'same-origin').expect(201);
  await post().set('Host', 'kadrel.example:81').set('Origin', 'http://kadrel.example:81').expect(201);
  await post().set('Host', 'kadrel.example:81').set('Origin', 'http://kadrel.example').expect(403);
  const { headers } = await agent.get('/api/projects').set('Origin', 'https://elsewhere.example').expect(200);
  expect(headers['cache-control']).toBe('no-store');
});

test('health, description and unknown routes answer as they should', async () => {
  const server = request(app.getHttpServer());
  await server.get('/api/health').expect(200, { status: 'ok' });
  await server.get('/api/health/live').expect(200, { status: 'ok' });
  const { body } = await server.get('/api/docs-json').expect(200);
  expect(Object.keys((body as { paths: object }).paths)).toEqual(
    expect.arrayContaining(['/api/projects/{id}/edits', '/api/sign-in', '/api/health']),
  );
  await server
    .get('/api/nothing')
    .expect(404)
    .expect('Content-Type', /problem\+json/);
});
