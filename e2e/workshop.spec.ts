import { readFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import { crossingRods } from './edits.ts';
import { Person } from './person.ts';

const done = 'done; change a blank to adjust';

test.describe('the statement bar', () => {
  test('a box is drawn by dragging its base and pulling up its height', async ({ page }) => {
    const ada = new Person(page);
    await ada.entersTheDemo();
    await ada.createsProject('Drawn');
    await page.keyboard.press('b');
    await ada.pointsAt([-40, -30, 0], { x: 0, y: 0 });
    await page.mouse.down();
    await ada.pointsAt([40, 30, 0], { x: 0, y: 0 });
    await expect(page.getByLabel('size X')).toHaveValue('80');
    await expect(page.getByLabel('size Y')).toHaveValue('60');
    await page.mouse.up();
    await ada.pointsAt([40, 30, 25], { x: 0, y: 0 });
    await expect(page.getByLabel('size Z')).toHaveValue('25');
    await page.mouse.down();
    await page.mouse.up();
    await expect(page.getByText(done)).toBeVisible();
    const [part] = Object.values((await ada.document()).items);
    expect(part).toMatchObject({
      placement: { origin: [-40, -30, 0] },
      recipe: { base: { size: [80, 60, 25] } },
    });
  });

  test('what is typed during a drag goes into the blank, and the drag leaves it alone', async ({ page }) => {
    const ada = new Person(page);
    await ada.entersTheDemo();
    await ada.createsProject('Typed');
    await page.keyboard.press('b');
    await ada.pointsAt([-40, -30, 0], { x: 0, y: 0 });
    await page.mouse.down();
    await ada.pointsAt([20, 20, 0], { x: 0, y: 0 });
    await page.keyboard.type('2 in');
    await ada.pointsAt([40, 30, 0], { x: 0, y: 0 });
    await expect(page.getByLabel('size X')).toHaveValue('2 in');
    await page.mouse.up();
    await page.keyboard.type('1/2 in');
    await ada.commits();
    const [part] = Object.values((await ada.document()).items);
    expect(part!.recipe.base).toEqual({ kind: 'box', size: [50.8, 60, 12.7] });
  });

  test('a wrong entry keeps its text and says why; Esc leaves no trace', async ({ page }) => {
    const ada = new Person(page);
    await ada.entersTheDemo();
    await ada.createsProject('Wrong');
    await page.keyboard.press('/');
    await page.keyboard.type('plate');
    await page.keyboard.press('Enter');
    await ada.types('100', 'Tab', '6 cm * 2 cm', 'Tab', '8', 'Enter');
    await expect(page.getByTestId('refusal')).toContainText('This is an area; a length belongs here.');
    await expect(page.getByLabel('size Y')).toHaveValue('6 cm * 2 cm');
    expect((await ada.document()).items).toEqual({});
    await page.keyboard.press('Escape');
    await expect(page.getByTestId('find-verb')).toBeVisible();
    expect((await ada.document()).items).toEqual({});
  });

  test('after the commit a blank can still be changed, as one step of undo', async ({ page }) => {
    const ada = new Person(page);
    await ada.entersTheDemo();
    await ada.createsProject('Adjusted');
    await ada.makesBox(['100', '60', '8']);
    await page.getByLabel('size X', { exact: true }).fill('120');
    await page.keyboard.press('Enter');
    await expect(ada.fact('volume')).toHaveText('57\u2009600.00 mm³');
    await page.keyboard.press('Escape');
    await page.keyboard.press('Control+z');
    await expect.poll(async () => Object.keys((await ada.document()).items)).toEqual([]);
  });

  test('parts that do not meet are refused, and nothing changes', async ({ page }) => {
    const ada = new Person(page);
    await ada.entersTheDemo();
    await ada.createsProject('Apart');
    await ada.makesBox(['10', '10', '10']);
    await ada.types('Escape');
    await ada.makesBox(['10', '10', '10'], ['50', '0', '0']);
    await ada.types('Escape');
    await page.keyboard.press('Control+a');
    await page.keyboard.press('i');
    await page.keyboard.press('Enter');
    await expect(page.getByTestId('refusal')).toContainText('The parts do not meet');
    expect(Object.keys((await ada.document()).items)).toHaveLength(2);
  });
});

test('a grip moves along its axis, and Tab with an axis in focus locks a pick to it', async ({ page }) => {
  const ada = new Person(page);
  await ada.entersTheDemo();
  await ada.createsProject('Grips');
  await ada.makesBox(['100', '60', '40']);
  await ada.types('Escape');
  await ada.fitsAll();
  const onGrip = await ada.screenOf([0, 0, 0]);
  const toX = await ada.screenOf([12, 0, 0]);
  const size = Math.hypot(toX.x - onGrip.x, toX.y - onGrip.y);
  const at = (pixels: number) =>
    [
      onGrip.x + ((toX.x - onGrip.x) / size) * pixels,
      onGrip.y + ((toX.y - onGrip.y) / size) * pixels,
    ] as const;
  await page.mouse.move(...at(30));
  await page.mouse.down();
  await page.mouse.move(...at(30 + 8 * size), { steps: 6 });
  await page.mouse.up();
  await expect(page.getByText(done)).toBeVisible();
  const moved = Object.values((await ada.document()).items)[0]!.placement.origin as number[];
  expect(moved[0]).toBeGreaterThan(50);
  expect(moved[0]! % 5).toBe(0);
  expect(moved.slice(1)).toEqual([0, 0]);

  await ada.types('Escape', 'Escape');
  await ada.makesBox(['20', '20', '70'], ['-60', '0', '0'], 'post');
  await ada.types('Escape', 'Escape');
  await ada.fitsAll();
  await page.getByRole('treeitem', { name: 'Box' }).click();
  await page.keyboard.press('m');
  await ada.clicksAt([moved[0]!, 0, 40]);
  await page.getByLabel('by Z').focus();
  await ada.clicksAt([-40, 0, 70]);
  await expect(page.getByText(done)).toBeVisible();
  const box = Object.values((await ada.document()).items).find((part) => part.name === 'Box')!;
  expect(box.placement.origin).toEqual([moved[0], 0, 30]);
});

test('the view turns, shifts and zooms in the middle of a pick without losing it', async ({ page }) => {
  const ada = new Person(page);
  await ada.entersTheDemo();
  await ada.createsProject('Looking');
  await ada.makesBox(['20', '20', '20'], ['100', '0', '0'], 'goal');
  await ada.types('Escape', 'Escape');
  await ada.makesBox(['60', '60', '40'], ['0', '0', '0'], 'load');
  await ada.types('Escape');
  await ada.fitsAll();
  await page.keyboard.press('m');
  await ada.clicksAt([0, 0, 40]);
  await page.mouse.move(500, 400);
  await page.mouse.down({ button: 'right' });
  await page.mouse.move(420, 380, { steps: 5 });
  await page.mouse.up({ button: 'right' });
  await page.mouse.wheel(0, 200);
  await page.waitForTimeout(100);
  await ada.clicksAt([100, 0, 20]);
  await expect(page.getByText(done)).toBeVisible();
  const load = Object.values((await ada.document()).items).find((part) => part.name === 'load')!;
  expect(load.placement.origin).toEqual([100, 0, -20]);
  await ada.looks('Plan');
  await expect(page.getByRole('slider', { name: 'Altitude of the view' })).toHaveAttribute(
    'aria-valuenow',
    '90',
  );
});

test('parts are selected by click, toggle and rectangle, renamed and hidden in the tree', async ({
  page,
}) => {
  const ada = new Person(page);
  await ada.entersTheDemo();
  await ada.createsProject('Selecting');
  await ada.makesBox(['20', '20', '20']);
  await ada.types('Escape');
  await ada.makesBox(['20', '20', '20'], ['60', '0', '0']);
  await ada.types('Escape', 'Escape');
  await ada.fitsAll();
  await ada.clicksAt([10, 5, 20]);
  await expect.poll(() => page.evaluate(() => window.kadrel!.selection)).toEqual(['Box']);
  const { x, y } = await ada.screenOf([70, 5, 20]);
  await page.keyboard.down('Shift');
  await page.mouse.click(x, y);
  await page.keyboard.up('Shift');
  await expect.poll(() => page.evaluate(() => window.kadrel!.selection)).toEqual(['Box', 'Box 2']);
  await page.keyboard.press('Escape');
  await page.mouse.move(400, 120);
  await page.mouse.down();
  await page.mouse.move(990, 640, { steps: 5 });
  await page.mouse.up();
  await expect.poll(() => page.evaluate(() => window.kadrel!.selection.length)).toBe(2);
  await page.getByRole('treeitem', { name: 'Box 2' }).dblclick();
  await page.getByLabel('New name of Box 2').fill('Lid');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('treeitem', { name: 'Lid' })).toBeVisible();
  await page.getByRole('treeitem', { name: 'Lid' }).hover();
  await page.getByRole('button', { name: 'Hide Lid' }).click();
  await expect
    .poll(
      async () => Object.values((await ada.document()).items).find((part) => part.name === 'Lid')?.visible,
    )
    .toBe(false);
});

test('the Spec sets every number, with units, arithmetic and the datum', async ({ page }) => {
  const ada = new Person(page);
  await ada.entersTheDemo();
  await ada.createsProject('Numbers', 'cm');
  await ada.makesBox(['10', '6', '8 mm']);
  await ada.types('Escape');
  const field = async (label: string, text: string) => {
    await page.getByLabel('Spec').getByLabel(label, { exact: true }).fill(text);
    await page.keyboard.press('Enter');
    await ada.isReady();
  };
  const part = async () => Object.values((await ada.document()).items)[0]!;
  await field('Height', 'now + 1/2 in');
  await expect.poll(async () => (await part()).recipe.base).toEqual({ kind: 'box', size: [100, 60, 20.7] });
  await page.getByRole('button', { name: 'Datum middle, under' }).click();
  await expect(page.getByLabel('Spec').getByLabel('Place X', { exact: true })).toHaveValue('5');
  await field('Place X', '0');
  await expect.poll(async () => (await part()).placement.origin).toEqual([-50, 0, 0]);
  await field('Turn Z', '90');
  await expect.poll(async () => (await part()).placement.turn).toEqual([0, 0, 90]);
  const { box } = await ada.facts('Box');
  expect([box.min[0], box.max[0], box.min[1], box.max[1]]).toEqual([-30, 30, -20, 80]);
  await field('Length', '5 cm *');
  await expect(page.getByLabel('Spec').getByRole('alert')).toContainText('Something is missing at the end.');
});

test('edits wait for a lost server in the browser, and survive a reload', async ({ page, context }) => {
  const ada = new Person(page);
  await ada.entersTheDemo();
  await ada.createsProject('Offline');
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
  const ada = new Person(page);
  await ada.entersTheDemo();
  await ada.createsProject(`Shared ${Date.now()}`);
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
  const ada = new Person(page);
  await ada.entersTheDemo();
  await ada.createsProject(`Refused ${Date.now()}`);
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
  const ada = new Person(page);
  await ada.entersTheDemo();
  await ada.createsProject('No room');
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
    const ada = new Person(page);
    await ada.entersTheDemo();
    await ada.createsProject('Long');
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

test('Esc leaves a field as it was, and the tab is named as the project is', async ({ page }) => {
  const ada = new Person(page);
  await ada.entersTheDemo();
  await ada.createsProject('Shelf');
  await expect(page).toHaveTitle('Shelf · Kadrel');
  const name = page.getByLabel('Project name');
  await name.fill('Something else');
  await page.keyboard.press('Escape');
  await expect(name).toHaveValue('Shelf');
  await name.fill('Tall shelf');
  await page.keyboard.press('Enter');
  await expect(page).toHaveTitle('Tall shelf · Kadrel');

  const search = page.getByLabel('Find a verb');
  await page.keyboard.press('/');
  await expect(search).toBeFocused();
  await page.keyboard.type('cyl');
  await page.keyboard.press('Escape');
  await page.keyboard.press('/');
  await page.keyboard.type('sph');
  await expect(search).toHaveValue('sph');
  await expect(page.getByRole('option').first()).toContainText('Sphere');
  expect(ada.problems).toEqual([]);
});
