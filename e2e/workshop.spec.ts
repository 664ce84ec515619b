/** The statement bar, grips, views, selecting and the Spec. */
import { inNewProject } from './doing.ts';
import { expect, test } from './tests.ts';

const done = 'done; change a blank to adjust';

test.describe('the statement bar', () => {
  test('a box is drawn by dragging its base and pulling up its height', async ({ page }) => {
    const ada = await inNewProject(page, 'Drawn');
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
    const ada = await inNewProject(page, 'Typed');
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
    const ada = await inNewProject(page, 'Wrong');
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
    const ada = await inNewProject(page, 'Adjusted');
    await ada.makesBox(['100', '60', '8']);
    await page.getByLabel('size X', { exact: true }).fill('120');
    await page.keyboard.press('Enter');
    await expect(ada.fact('volume')).toHaveText('57\u2009600.00 mm³');
    await page.keyboard.press('Escape');
    await page.keyboard.press('Control+z');
    await expect.poll(async () => Object.keys((await ada.document()).items)).toEqual([]);
  });

  test('parts that do not meet are refused, and nothing changes', async ({ page }) => {
    const ada = await inNewProject(page, 'Apart');
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
  const ada = await inNewProject(page, 'Grips');
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
  const ada = await inNewProject(page, 'Looking');
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
  const ada = await inNewProject(page, 'Selecting');
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
  const ada = await inNewProject(page, 'Numbers', { units: 'cm' });
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

test('Esc leaves a field as it was, and the tab is named as the project is', async ({ page }) => {
  const ada = await inNewProject(page, 'Shelf');
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
