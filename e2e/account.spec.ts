import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { Person } from './person.ts';

test('an account is made, its password changed, its work taken away as a file, and it is deleted', async ({
  page,
  browser,
}) => {
  const person = new Person(page);
  const email = `${crypto.randomUUID()}@kadrel.example`;
  await page.goto('/');
  await page.getByRole('button', { name: 'I am new here' }).click();
  await page.getByLabel('Address').fill(email);
  await page.getByLabel('Name').fill('Ada');
  await page.getByLabel('Password').fill('password12');
  await page.getByRole('button', { name: 'Make account' }).click();
  await expect(page.getByRole('alert')).toContainText('guessed first');
  await page.getByLabel('Password').fill('hive lantern oboe');
  await page.getByRole('button', { name: 'Make account' }).click();
  await person.createsProject('Shelf');

  const elsewhere = await (await browser.newContext()).newPage();
  await elsewhere.goto('/');
  await elsewhere.getByLabel('Address').fill(email);
  await elsewhere.getByLabel('Password').fill('hive lantern oboe');
  await elsewhere.getByRole('button', { name: 'Sign in' }).click();
  await expect(elsewhere.getByText('Shelf')).toBeVisible();

  await page.goto('/account');
  await expect(page.getByRole('listitem')).toHaveText([/This browser/, /Another browser/]);
  await page.getByLabel('Present password').fill('hive lantern oboe');
  await page.getByLabel('New password').fill('quill harbour tin');
  await page.getByRole('button', { name: 'Change password' }).click();
  await expect(page.getByRole('listitem')).toHaveText([/This browser/]);
  await elsewhere.reload();
  await expect(elsewhere.getByRole('button', { name: 'Sign in' })).toBeVisible();

  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Download it' }).click();
  const file = await (await download).path();
  expect(JSON.parse(readFileSync(file, 'utf8'))).toMatchObject({
    account: { email },
    projects: [{ project: { name: 'Shelf' }, history: [] }],
  });

  await page.goto('/projects');
  await page.getByRole('button', { name: 'More for Shelf' }).click();
  await page.getByRole('menuitem', { name: 'Archive' }).click();
  await page.getByRole('button', { name: 'Show archived' }).click();
  await page.getByRole('button', { name: 'More for Shelf' }).click();
  await page.getByRole('menuitem', { name: 'Delete for good…' }).click();
  await page.getByRole('button', { name: 'Delete for good' }).click();
  await expect(page.getByText('Nothing is archived.')).toBeVisible();

  await page.goto('/account');
  await page.getByRole('button', { name: 'Delete the account…' }).click();
  await page.getByRole('textbox', { name: 'Password', exact: true }).fill('hive lantern oboe');
  await page.getByRole('button', { name: 'Delete for good' }).click();
  await expect(page.getByRole('alert')).toHaveText('This is not your password.');
  await page.getByRole('textbox', { name: 'Password', exact: true }).fill('quill harbour tin');
  await page.getByRole('button', { name: 'Delete for good' }).click();
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  // What the server refuses stands in the browser's console too.
  expect(person.problems.filter((problem) => !/status of 4\d\d/.test(problem))).toEqual([]);
});

test('the first screen stays small, and asks for neither three.js nor the kernel', async ({ page }) => {
  const scripts: string[] = [];
  let bytes = 0;
  page.on('response', async (response) => {
    if (!response.url().endsWith('.js')) return;
    scripts.push(response.url());
    bytes += Number((await response.allHeaders())['content-length'] ?? 0);
  });
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await page.waitForLoadState('networkidle');
  expect(scripts.filter((url) => /worker|Workshop/.test(url))).toEqual([]);
  expect(bytes).toBeGreaterThan(10_000);
  expect(bytes).toBeLessThan(250_000);
});

test('an account of one’s own: sign up, work, sign out, sign in', async ({ page }) => {
  const ada = new Person(page);
  const email = `ada-${Date.now()}@kadrel.example`;
  await page.goto('/sign-in');
  await page.getByRole('button', { name: 'I am new here' }).click();
  await page.getByLabel('Address').fill(email);
  await page.getByLabel('Name').fill('Ada');
  await page.getByLabel('Password').fill('short');
  await page.getByRole('button', { name: 'Make account' }).click();
  await expect(page.getByText('At least 10 characters.')).toBeVisible();
  await page.getByLabel('Password').fill('long enough now');
  await page.getByRole('button', { name: 'Make account' }).click();
  await expect(page.getByText('There is no project yet. Make the first one.')).toBeVisible();
  await ada.createsProject('Mine');
  await page.getByRole('link', { name: 'Kadrel: to the projects' }).click();
  await page.getByRole('button', { name: 'More for Mine' }).click();
  await page.getByRole('menuitem', { name: 'Archive' }).click();
  await expect(page.getByText('There is no project yet. Make the first one.')).toBeVisible();
  await page.getByRole('button', { name: 'Show archived' }).click();
  await page.getByRole('button', { name: 'More for Mine' }).click();
  await page.getByRole('menuitem', { name: 'Restore' }).click();
  await page.getByRole('button', { name: 'Account: Ada' }).click();
  await page.getByRole('menuitem', { name: 'Sign out' }).click();
  await page.getByLabel('Address').fill(email);
  await page.getByLabel('Password').fill('long enough now');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('link', { name: 'Open Mine' })).toBeVisible();
});
