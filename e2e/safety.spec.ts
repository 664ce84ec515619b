/** Nothing is lost: without a server, with a second page, at the end of a session, with a full browser. */
import { readFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import { inNewProject } from './doing.ts';
import { crossingRods } from './edits.ts';
import { Person } from './person.ts';

test('edits wait for a lost server in the browser, and survive a reload', async ({ page, context }) => {
  const ada = await inNewProject(page, 'Offline');
  await context.route('**/api/projects/*/edits', (route) =>
    route.request().method() === 'POST' ? route.abort() : route.continue(),
  );
  await ada.makesBox(['10', '10', '10']);
  await expect(page.getByTestId('save-state')).toContainText('waiting for the server');
  await page.reload();
  await ada.isReady();
  expect(Object.keys((await ada.document()).items)).toHaveLength(1);
  await context.unroute('**/api/projects/*/edits');
  await ada.isSaved();
  await page.evaluate(() => indexedDB.deleteDatabase('kadrel'));
  await page.reload();
  await ada.isReady();
  expect(Object.keys((await ada.document()).items)).toHaveLength(1);
});

test('two pages on one project: what each does reaches the other, and a clash is told', async ({
  page,
  context,
}) => {
  const ada = await inNewProject(page, `Shared ${Date.now()}`);
  await ada.makesBox(['10', '10', '10'], ['0', '0', '0'], 'one');
  await ada.isSaved();
  const second = await context.newPage();
  const ben = new Person(second);
  await second.goto(page.url());
  await ben.isReady();
  await ben.makesBox(['5', '5', '5'], ['20', '0', '0'], 'two');
  await ben.isSaved();
  // It appears by itself.
  await expect(page.getByRole('treeitem', { name: 'two', exact: true })).toBeVisible();
  await ada.types('Escape');
  await ada.makesBox(['5', '5', '5'], ['40', '0', '0'], 'three');
  await ada.isSaved();
  const names = async () => Object.values((await ada.document()).items).map((part) => part.name);
  await expect.poll(async () => (await names()).sort()).toEqual(['one', 'three', 'two']);
  await expect(second.getByRole('treeitem', { name: 'three', exact: true })).toBeVisible();

  const rename = async (person: Person, to: string) => {
    await person.page.getByRole('treeitem', { name: 'one' }).dblclick();
    await person.page.getByLabel('New name of one').fill(to);
    await person.page.keyboard.press('Enter');
  };
  // Cut off, neither sees what the other does.
  await second.route('**/api/**', (route) => route.abort());
  await rename(ada, 'first');
  await ada.isSaved();
  await rename(ben, 'primus');
  await second.unroute('**/api/**');
  await expect(second.getByRole('button', { name: 'not saved: conflict' })).toBeVisible();

  // What the clash leaves is kept as it is, with its history.
  const mine = await ben.document();
  await second.getByRole('button', { name: 'not saved: conflict' }).click();
  await second.getByRole('button', { name: 'Keep mine as a project' }).click();
  await expect(second.getByText('(mine)')).toBeVisible();
  await ben.isReady();
  expect(await ben.document()).toEqual(mine);
  await expect(second.getByRole('button', { name: 'Rename one to primus' })).toBeVisible();
});

test('a session that has ended is reported where saving is, and what is done goes on after a sign-in', async ({
  page,
  context,
}) => {
  const email = `eva-${Date.now()}@kadrel.example`;
  await page.goto('/sign-in');
  await page.getByRole('button', { name: 'I am new here' }).click();
  await page.getByLabel('Address').fill(email);
  await page.getByLabel('Name').fill('Eva');
  await page.getByLabel('Password').fill('long enough now');
  await page.getByRole('button', { name: 'Make account' }).click();
  const eva = new Person(page);
  await eva.createsProject('Ended');
  await context.clearCookies();
  await eva.makesBox(['10', '10', '10']);
  await expect(page.getByText('Your session has ended; what you do is kept here.')).toBeVisible();
  const opened = context.waitForEvent('page');
  await page.getByRole('link', { name: 'Sign in' }).click();
  const other = await opened;
  await other.getByLabel('Address').fill(email);
  await other.getByLabel('Password').fill('long enough now');
  await other.getByRole('button', { name: 'Sign in' }).click();
  await expect(other.getByRole('link', { name: 'Open Ended' })).toBeVisible();
  await eva.isSaved();
});

test('what the server refuses is set aside by name, all else is saved, and what is here opens again as a file', async ({
  page,
  context,
}) => {
  const ada = await inNewProject(page, `Refused ${Date.now()}`);
  await context.route('**/api/projects/*/edits', async (route) => {
    const { edits } = (route.request().postDataJSON() ?? { edits: [] }) as {
      edits: { id: string; line: { title: string } }[];
    };
    const bad = edits.find(({ line }) => line.title.includes('poison'));
    if (!bad) return route.continue();
    return route.fulfill({
      status: 422,
      contentType: 'application/problem+json',
      body: JSON.stringify({ status: 422, detail: 'It does not fit.', edit: bad.id }),
    });
  });
  await ada.makesBox(['10', '10', '10'], ['0', '0', '0'], 'poison');
  await ada.types('Escape');
  await ada.makesBox(['5', '5', '5'], ['20', '0', '0'], 'good');
  await expect(page.getByTestId('save-state')).toContainText('saved');
  await page.reload();
  await ada.isReady();
  const here = await ada.document();
  expect(
    Object.values(here.items)
      .map(({ name }) => name)
      .sort(),
  ).toEqual(['good', 'poison']);
  await page.getByRole('button', { name: '1 statement not saved' }).click();
  await expect(page.getByText('It does not fit.')).toBeVisible();
  const downloading = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Download what is here' }).click();
  const file = await (await downloading).path();
  await context.unrouteAll();
  await page.goto('/projects');
  await page.getByLabel('Kadrel JSON file').setInputFiles({
    name: 'rescued.kadrel.json',
    mimeType: 'application/json',
    buffer: await readFile(file),
  });
  await ada.isReady();
  expect(await ada.document()).toEqual(here);
});

test('a browser that has no room for a copy still saves, and says that it keeps none', async ({
  page,
  context,
}) => {
  await page.addInitScript(() => {
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('No room.', 'QuotaExceededError');
    };
  });
  const ada = await inNewProject(page, 'No room');
  await ada.makesBox(['10', '10', '10']);
  await ada.isSaved();
  await ada.types('Escape');
  await context.route('**/api/projects/*/edits', (route) => route.abort());
  await ada.makesBox(['5', '5', '5'], ['20', '0', '0'], 'second');
  await expect(page.getByTestId('save-state')).toContainText('no room for a copy');
  await context.unrouteAll();
  await ada.isSaved();
});

test(
  'a long union shows its progress, and can be cancelled without a trace',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Long');
    // Crossing rods, made in one go through the API: joining them takes the kernel many seconds.
    const id = page.url().split('/').at(-1)!;
    await page.request.post(`/api/projects/${id}/edits`, { data: { base: 0, edits: crossingRods(60) } });
    await page.reload();
    await ada.isReady();
    await page.keyboard.press('Control+a');
    await page.keyboard.press('u');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('progressbar', { name: 'Progress' })).toBeVisible();
    await page.getByRole('button', { name: 'Cancel' }).click();
    await expect(page.getByTestId('refusal')).toHaveText('Cancelled. Nothing was changed.');
    expect(Object.values((await ada.document()).items).filter((part) => part.parent === null)).toHaveLength(
      60,
    );
    // A verb that is looked for meanwhile begins when the work is over, and no letter of it is a shortcut.
    await page.keyboard.press('Escape');
    await page.keyboard.press('u');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('progressbar', { name: 'Progress' })).toBeVisible();
    await page.keyboard.press('/');
    await page.keyboard.type('sphere');
    await expect(page.getByTestId('find-verb')).toHaveValue('sphere');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Cancel' }).click();
    await expect(page.getByRole('textbox', { name: 'diameter', exact: true })).toBeVisible();
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    await ada.makesBox(['10', '10', '10']);
    expect((await ada.facts('Box')).volume).toBeCloseTo(1000, 9);
  },
);
