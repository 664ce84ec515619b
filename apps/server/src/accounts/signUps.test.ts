import 'reflect-metadata';
import { EntityManager } from '@mikro-orm/postgresql';
import type { NestExpressApplication } from '@nestjs/platform-express';
import request from 'supertest';
import { startMailbox, type MailboxMessage } from '../../../../scripts/mailbox.mjs';
import { newAddress, PASSWORD, startApp, type Problem } from '../testing.ts';

const messages: MailboxMessage[] = [];
let mailbox: Awaited<ReturnType<typeof startMailbox>>;
let app: NestExpressApplication;
beforeAll(async () => {
  mailbox = await startMailbox(0, (message) => messages.push(message));
  const mail = {
    server: mailbox.address,
    from: 'Kadrel <kadrel@kadrel.example>',
    address: 'https://kadrel.example',
  };
  app = await startApp({ mail });
});
afterAll(async () => {
  await app.close();
  await mailbox.close();
});

const post = (path: string, body: object) => request(app.getHttpServer()).post(`/api${path}`).send(body);
const wanted = (email: string) => ({ email, name: 'Ada', password: PASSWORD });
const messageTo = (email: string) => messages.findLast(({ to }) => to.includes(email));
const linkIn = (message: MailboxMessage | undefined) =>
  /https:\/\/kadrel\.example\/confirm#([\w-]+)/.exec(message?.text ?? '')?.[1];

async function confirmed(email: string): Promise<void> {
  await post('/sign-up', wanted(email)).expect(201);
  await post('/sign-up/confirm', { token: linkIn(messageTo(email)) }).expect(201);
}

test('an account is made by the link in a message, once', async () => {
  const email = newAddress();
  const { body, headers } = await post('/sign-up', wanted(email)).expect(201);
  expect(body).toEqual({ confirm: email });
  expect(headers['set-cookie']).toBeUndefined();
  await post('/sign-in', { email, password: PASSWORD }).expect(401);
  const token = linkIn(messageTo(email));
  const made = await post('/sign-up/confirm', { token }).expect(201);
  expect(made.body).toMatchObject({ email, name: 'Ada', guest: false });
  expect(made.headers['set-cookie']).toBeDefined();
  await post('/sign-in', { email, password: PASSWORD }).expect(201);
  const again = await post('/sign-up/confirm', { token }).expect(410);
  expect((again.body as Problem).detail).toMatch(/used already/);
});

test('whether there is an account is told to who reads its mail, and to nobody else', async () => {
  const [known, fresh] = [newAddress(), newAddress()];
  await confirmed(known);
  const answers = [];
  for (const email of [known, fresh]) {
    const { status, body, headers } = await post('/sign-up', wanted(email));
    const text = JSON.stringify(body).replace(email, 'ADDRESS');
    answers.push({ status, text, length: headers['content-length'], cookie: headers['set-cookie'] });
  }
  expect(answers[0]).toEqual(answers[1]);
  expect(linkIn(messageTo(known))).toBeUndefined();
  expect(messageTo(known)!.text).toMatch(/You have one already/);
  expect(linkIn(messageTo(fresh))).toBeDefined();
  // Nothing of the account has changed.
  await post('/sign-in', { email: known, password: PASSWORD }).expect(201);
});

test('of several messages to one address each works until one is used, and none after its time', async () => {
  const email = newAddress();
  await post('/sign-up', wanted(email)).expect(201);
  const first = linkIn(messageTo(email));
  await post('/sign-up', { ...wanted(email), name: 'Ada again' }).expect(201);
  const second = linkIn(messageTo(email));
  const { body } = await post('/sign-up/confirm', { token: first }).expect(201);
  expect(body).toMatchObject({ name: 'Ada' });
  await post('/sign-up/confirm', { token: second }).expect(410);

  const late = newAddress();
  await post('/sign-up', wanted(late)).expect(201);
  await app
    .get(EntityManager)
    .getConnection()
    .execute(`update sign_up set expires_at = now() where email = ?`, [late]);
  await post('/sign-up/confirm', { token: linkIn(messageTo(late)) }).expect(410);
});

test('nobody’s mailbox is filled, and a mail server that is away is told', async () => {
  const email = newAddress();
  for (let i = 0; i < 5; i++) await post('/sign-up', wanted(email)).expect(201);
  await post('/sign-up', wanted(email)).expect(429);
  await mailbox.close();
  const { body } = await post('/sign-up', wanted(newAddress())).expect(503);
  expect((body as Problem).detail).toMatch(/mail server is away/);
  mailbox = await startMailbox(0, (message) => messages.push(message));
});
