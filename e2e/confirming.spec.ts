import { expect, test } from '@playwright/test';
import { startMailbox, type MailboxMessage } from '../scripts/mailbox.mjs';
import { startTestCluster } from '../scripts/postgres.mjs';
import { endChild, migrate, startServer } from '../scripts/project.mjs';
import { violationsOf } from './axe.ts';
import { Person } from './person.ts';

test('with a mail server an account is made by the link in a message', async ({ page }) => {
  const messages: MailboxMessage[] = [];
  const mailbox = await startMailbox(0, (message) => messages.push(message));
  const cluster = await startTestCluster();
  const environment = {
    DATABASE_URL: cluster.database('kadrel_mail'),
    PORT: '0',
    KADREL_MAIL: mailbox.address,
    KADREL_ADDRESS: 'https://kadrel.example',
  };
  migrate(environment);
  const server = await startServer(environment);
  try {
    const ada = new Person(page);
    await page.goto(`${server.address}/sign-in`);
    await page.getByRole('button', { name: 'I am new here' }).click();
    await page.getByLabel('Address').fill('ada@kadrel.example');
    await page.getByLabel('Name').fill('Ada');
    await page.getByLabel('Password').fill('a long password');
    await page.getByRole('button', { name: 'Make account' }).click();
    await expect(page.getByRole('status')).toContainText('on its way to ada@kadrel.example');
    expect(await violationsOf(page)).toEqual([]);

    const path = /https:\/\/kadrel\.example(\/confirm#[\w-]+)/.exec(messages[0]!.text)![1]!;
    await page.goto(`${server.address}${path}`);
    expect(await violationsOf(page)).toEqual([]);
    await page.getByRole('button', { name: 'Make the account and sign in' }).press('Enter');
    await expect(page.getByRole('heading', { name: 'Projects' })).toBeVisible();

    // Away first: what the page still asks for would be refused without its cookie.
    await page.goto('about:blank');
    await page.context().clearCookies();
    await page.goto(`${server.address}${path}`);
    await page.getByRole('button', { name: 'Make the account and sign in' }).click();
    await expect(page.getByRole('alert')).toContainText('used already');
    // The browser itself notes that the second try was refused.
    expect(ada.problems.filter((one) => !one.includes('410'))).toEqual([]);
  } finally {
    await endChild(server.child);
    await cluster.stop();
    await mailbox.close();
  }
});
