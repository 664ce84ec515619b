/** Small things that are at hand: views that come back, undo that says what it did, numbers as they are, output from the search. */
import { expect, test, type Page } from './tests.ts';
import { choosesIn, inNewProject, selects, startsVerb } from './doing.ts';

const done = (page: Page) => page.getByText('done; change a blank to adjust');
const field = (page: Page, key: string) => page.locator(`[data-entry="${key}"]`);

test('undo and redo say what they did, and keep what was selected', async ({ page }) => {
  const ada = await inNewProject(page, 'Undo');
  await ada.makesBox(['40', '30', '20'], undefined, 'Block');
  await ada.makesBox(['10', '10', '10'], ['60', '0', '0'], 'Cube');
  await page.keyboard.press('Escape');
  await selects(page, 'Block', 'Cube');
  await page.keyboard.press('Delete');
  await expect(page.getByRole('treeitem')).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Undo' })).toHaveAttribute(
    'title',
    /Undo: Delete Block and Cube/,
  );
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('announced')).toContainText('Taken back: Delete');
  await expect(page.getByRole('treeitem', { name: 'Block' })).toHaveAttribute('aria-selected', 'true');
  await expect(page.getByRole('treeitem', { name: 'Cube' })).toHaveAttribute('aria-selected', 'true');
  await page.keyboard.press('Control+Shift+z');
  await expect(page.getByTestId('announced')).toContainText('Brought back: Delete');
  // What is open stays open, and what was typed stays typed.
  await page.keyboard.press('Control+z');
  await selects(page, 'Block');
  await page.keyboard.press('m');
  await page.keyboard.type('7');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('treeitem', { name: 'Cube' })).toHaveCount(0);
  await expect(field(page, 'by.0')).toHaveValue('7');
  expect(ada.problems).toEqual([]);
});

test('the view before an orbit, a zoom or a pan comes back', async ({ page }) => {
  const ada = await inNewProject(page, 'Views');
  await ada.makesBox(['40', '30', '20']);
  await page.keyboard.press('Escape');
  await ada.fitsAll();
  const first = await ada.screenOf([40, 30, 20]);
  await page.mouse.move(600, 400);
  await page.mouse.down({ button: 'right' });
  await page.mouse.move(700, 440, { steps: 4 });
  await page.mouse.up({ button: 'right' });
  await ada.isReady();
  const turned = await ada.screenOf([40, 30, 20]);
  expect(Math.hypot(turned.x - first.x, turned.y - first.y)).toBeGreaterThan(10);
  await page.mouse.wheel(0, -300);
  await ada.isReady();
  const near = async (to: { x: number; y: number }) => {
    const now = await ada.screenOf([40, 30, 20]);
    return Math.hypot(now.x - to.x, now.y - to.y);
  };
  expect(await near(turned)).toBeGreaterThan(10);
  await page.keyboard.press('Backspace');
  await expect.poll(() => near(turned)).toBeLessThan(0.5);
  await ada.isReady();
  await page.keyboard.press('Backspace');
  await expect.poll(() => near(first)).toBeLessThan(0.5);
  await ada.isReady();
  await page.keyboard.press('Shift+Backspace');
  await expect.poll(() => near(turned)).toBeLessThan(0.5);
  expect(ada.problems).toEqual([]);
});

test('a part that is made outside the picture is brought into it', { tag: '@long' }, async ({ page }) => {
  const ada = await inNewProject(page, 'Outside');
  await ada.makesBox(['40', '30', '20']);
  await page.keyboard.press('Escape');
  await ada.fitsAll();
  await ada.makesBox(['40', '30', '20'], ['5000', '0', '0'], 'Far');
  await expect
    .poll(async () => {
      const { x, y } = await ada.screenOf([5020, 15, 10]);
      return x > 232 && x < 1008 && y > 84 && y < 752;
    })
    .toBe(true);
  expect(ada.problems).toEqual([]);
});

test('a place beside the grid is shown as it is', { tag: '@long' }, async ({ page }) => {
  const ada = await inNewProject(page, 'Beside the grid');
  await ada.makesBox(['40', '30', '20'], ['40.0000157', '0', '0'], 'Block');
  await page.keyboard.press('Escape');
  await selects(page, 'Block');
  await expect(page.getByRole('textbox', { name: 'Place X' })).toHaveValue('40.0000157');
  await expect(page.getByRole('textbox', { name: 'Place Y' })).toHaveValue('0');
  expect(ada.problems).toEqual([]);
});

test('output is found by what it does, by a key, and saving says how it stands', async ({ page }) => {
  const ada = await inNewProject(page, 'Out');
  await ada.makesBox(['40', '30', '20']);
  await page.keyboard.press('Escape');
  for (const words of ['export', 'save', 'download', 'print']) {
    await startsVerb(page, words);
    await expect(page.getByRole('dialog')).toHaveCount(1);
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);
  }
  await page.keyboard.press('Control+e');
  await expect(page.getByRole('dialog')).toHaveCount(1);
  await page.keyboard.press('Escape');
  await ada.isSaved();
  await page.keyboard.press('Control+s');
  await expect(page.getByTestId('announced')).toContainText('All is saved');
  expect(ada.problems).toEqual([]);
});

test('the tree says where the arrows go, and Esc gives them to the view', async ({ page }) => {
  const ada = await inNewProject(page, 'Arrows');
  await ada.makesBox(['40', '30', '20'], undefined, 'Block');
  await page.keyboard.press('Escape');
  await selects(page, 'Block');
  await page.getByRole('treeitem', { name: 'Block' }).focus();
  await expect(page.getByTestId('tree-keys')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('tree-keys')).toHaveCount(0);
  await page.keyboard.press('ArrowRight');
  await expect.poll(async () => (await ada.facts('Block')).box.min[0]).toBeGreaterThan(0);
  expect(ada.problems).toEqual([]);
});

test('a corner that is pulled resizes about the centre that was chosen, and leaves the choice alone', async ({
  page,
}) => {
  const ada = await inNewProject(page, 'Centre');
  await ada.makesBox(['40', '40', '40'], undefined, 'Cube');
  await page.keyboard.press('Escape');
  await ada.fitsAll();
  await selects(page, 'Cube');
  await startsVerb(page, 'resize');
  await choosesIn(page, 'about', 'all about their shared centre');
  const [corner, middle] = [await ada.screenOf([40, 0, 40]), await ada.screenOf([20, 20, 20])];
  await page.mouse.move(corner.x, corner.y, { steps: 3 });
  await page.mouse.down();
  await page.mouse.move(corner.x + (corner.x - middle.x) / 2, corner.y + (corner.y - middle.y) / 2, {
    steps: 5,
  });
  await page.mouse.up();
  await expect(done(page)).toBeVisible();
  await ada.isReady();
  await expect(page.locator('[data-blank="about"]')).toHaveText('all about their shared centre');
  const { min, max } = (await ada.facts('Cube')).box;
  expect(max[0] - min[0]).toBeGreaterThan(45);
  for (const axis of [0, 1, 2]) expect((min[axis]! + max[axis]!) / 2).toBeCloseTo(20, 9);
  expect(ada.problems).toEqual([]);
});

test('a number typed over the views goes to the leg in hand, and choosing a plane keeps the table', async ({
  page,
}) => {
  const ada = await inNewProject(page, 'Legs');
  await startsVerb(page, 'traverse');
  await ada.clicksAt([0, 0, 0]);
  await ada.clicksAt([20, 0, 0]);
  await page.keyboard.type('25');
  const cells = page.locator('[data-rows] tbody tr').last().locator('input');
  await expect(cells.first()).toHaveValue('25');
  await page.locator('[data-blank="on"]').click();
  await page.getByRole('menuitem', { name: /front/i }).click();
  await expect(page.locator('[data-rows]')).toBeVisible();
  await expect(page.locator('[data-rows] tbody tr')).toHaveCount(2);
  expect(ada.problems).toEqual([]);
});

test('a drag is locked to an axis by Tab, without letting go', async ({ page }) => {
  const ada = await inNewProject(page, 'Locked');
  await ada.makesBox(['40', '40', '20'], undefined, 'Plate');
  await page.keyboard.press('Escape');
  await ada.looks('Plan');
  await ada.fitsAll();
  await selects(page, 'Plate');
  // The square between X and Y of the grips moves along both.
  const [at, x, y] = [
    await ada.screenOf([0, 0, 0]),
    await ada.screenOf([10, 0, 0]),
    await ada.screenOf([0, 10, 0]),
  ];
  const unit = (to: { x: number; y: number }) => {
    const size = Math.hypot(to.x - at.x, to.y - at.y);
    return { x: (to.x - at.x) / size, y: (to.y - at.y) / size };
  };
  const [ux, uy] = [unit(x), unit(y)];
  const grip = { x: at.x + 31 * (ux.x + uy.x), y: at.y + 31 * (ux.y + uy.y) };
  await page.mouse.move(grip.x, grip.y, { steps: 3 });
  await page.mouse.down();
  await page.mouse.move(grip.x + 30, grip.y - 30, { steps: 4 });
  await page.keyboard.press('Tab');
  await page.mouse.move(grip.x + 90, grip.y - 90, { steps: 4 });
  await page.mouse.up();
  await expect(done(page)).toBeVisible();
  await ada.isReady();
  const { min } = (await ada.facts('Plate')).box;
  expect(min[0]).toBeGreaterThan(0);
  expect(min.slice(1)).toEqual([0, 0]);
  expect(ada.problems).toEqual([]);
});

test('menus open and close, and leave the way to other screens free', async ({ page }) => {
  const ada = await inNewProject(page, 'Menus');
  for (const theme of ['Dark', 'Light']) {
    await page.getByRole('button', { name: 'Account: Demo' }).click();
    await page.getByRole('menuitem', { name: theme, exact: true }).click();
  }
  await page.getByRole('link', { name: 'Kadrel: to the projects' }).click();
  await page.getByRole('button', { name: 'More for Menus' }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'About' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  expect(ada.problems).toEqual([]);
});
