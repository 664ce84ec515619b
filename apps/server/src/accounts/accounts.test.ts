import { EntityManager } from '@mikro-orm/postgresql';
import type { NestExpressApplication } from '@nestjs/platform-express';
import request from 'supertest';
import {
  aBox,
  edit,
  firstBox,
  newAddress,
  PASSWORD,
  personOf,
  projectOf,
  startApp,
  type Problem,
} from '../testing.ts';
import { requireUncommon } from './passwords.ts';

let [app, other]: NestExpressApplication[] = [];
beforeAll(async () => {
  // Two servers on one database.
  [app, other] = [await startApp({ rate: 600 }), await startApp({ rate: 600 })];
});
afterAll(async () => {
  await app!.close();
  await other!.close();
});

const signIn = (at: NestExpressApplication, email: string, password: string) =>
  request(at.getHttpServer()).post('/api/sign-in').send({ email, password });

/** Every wait that is kept ends so many milliseconds from now. */
const waitsEnd = (at: NestExpressApplication, ms: number) =>
  at
    .get(EntityManager)
    .fork()
    .execute(`update rate_limit set expire = extract(epoch from now()) * 1000 + ? where key like 'wait:%'`, [
      ms,
    ]);

test('wrong passwords for one account have to be waited for, longer each time, on every server', async () => {
  const email = newAddress();
  await personOf(app!, email);
  for (let i = 0; i < 6; i++)
    await signIn(i % 2 === 0 ? app! : other!, email, 'not the password').expect(401);
  // The sixth costs two seconds; so that slow machines see them too, they are made a minute, and then none.
  await waitsEnd(app!, 60_000);
  const { body } = await signIn(other!, email.toUpperCase(), PASSWORD).expect(429);
  expect((body as Problem).detail).toMatch(/^Too many tries\. Wait \d+ s and try again\.$/);
  // Nobody else has to wait.
  const somebody = newAddress();
  await personOf(app!, somebody);
  await signIn(app!, somebody, PASSWORD).expect(201);
  await waitsEnd(app!, 0);
  await signIn(app!, email, PASSWORD).expect(201);
});

test('a new password ends all other sessions, and the old one is needed for it', async () => {
  const email = newAddress();
  const agent = await personOf(app!, email);
  const elsewhere = request.agent(app!.getHttpServer());
  await elsewhere.post('/api/sign-in').send({ email, password: PASSWORD }).expect(201);
  const sessions = await agent.get('/api/sessions').expect(200);
  expect((sessions.body as { isThis: boolean }[]).map(({ isThis }) => isThis)).toEqual([true, false]);
  await agent.put('/api/password').send({ old: 'a wrong password', fresh: 'some other words' }).expect(403);
  await agent.put('/api/password').send({ old: PASSWORD, fresh: 'password123' }).expect(422);
  await agent.put('/api/password').send({ old: PASSWORD, fresh: 'some other words' }).expect(204);
  await elsewhere.get('/api/me').expect(401);
  await agent.get('/api/me').expect(200);
  await signIn(app!, email, PASSWORD).expect(401);
  await signIn(app!, email, 'some other words').expect(201);
  await agent.delete('/api/sessions').expect(204);
  expect((await agent.get('/api/sessions')).body).toHaveLength(1);
});

test.each(['password12', '1234567890', 'qwertyuiop', 'aaaaaaaaaaaa', 'Football2024', 'ada@kadrel.example'])(
  '%s is guessed first',
  (password) =>
    expect(() => requireUncommon(password, { email: 'ada@kadrel.example', name: 'Ada Moss' })).toThrow(),
);
test.each([PASSWORD, 'hive lantern oboe', 'tkQ8-24xvy'])('%s is taken', (password) =>
  expect(() => requireUncommon(password, { email: 'ada@kadrel.example', name: 'Ada Moss' })).not.toThrow(),
);

test('an account takes its documents and histories with it, and leaves nothing', async () => {
  const email = newAddress();
  const agent = await personOf(app!, email);
  const id = await projectOf(agent, 'Shelf');
  const first = firstBox();
  const second = edit(first.document, ...aBox('b'));
  await agent
    .post(`/api/projects/${id}/edits`)
    .send({ base: 0, edits: [first.edit, second.edit] })
    .expect(201);
  const { body, headers } = await agent.get('/api/account/export').expect(200);
  expect(headers['content-disposition']).toMatch(/attachment; filename="kadrel-account\.json"/);
  expect(body).toMatchObject({
    account: { email, name: 'Ada' },
    projects: [
      {
        project: { name: 'Shelf', document: second.document },
        history: [{ id: first.edit.id }, { id: second.edit.id }],
      },
    ],
  });
  await agent.delete('/api/account').send({ password: 'not the password' }).expect(403);
  await agent.delete('/api/account').send({ password: PASSWORD }).expect(204);
  await agent.get('/api/me').expect(401);
  await signIn(app!, email, PASSWORD).expect(401);
  await personOf(app!, email);
});

test('a guest leaves without a password', async () => {
  const guest = request.agent(app!.getHttpServer());
  await guest.post('/api/demo').expect(201);
  await guest.delete('/api/account').send({}).expect(204);
  await guest.get('/api/projects').expect(401);
});
