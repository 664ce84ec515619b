import { expect, test } from './tests.ts';
import { choosesIn, inNewProject, selects, startsVerb } from './doing.ts';

const done = 'done; change a blank to adjust';

test('a shelf of four boards: set distance, align, distribute', async ({ page }) => {
  const ada = await inNewProject(page, 'Shelf');
  const heights = ['0', '260', '700', '1100'];
  for (const [i, z] of heights.entries()) {
    await ada.makesBox(['800', '250', '18'], [String(i * 17), String(i * 9), z], `Board ${i + 1}`);
    await ada.types('Escape');
  }
  await ada.looks('Front');
  await ada.fitsAll();
  await page.keyboard.press('d');
  // Faces are edge-on from the front: their front edges stand for them.
  await ada.clicksAt([300, 0, 18]);
  await expect(page.locator('[data-blank="from"] input')).toHaveValue(/edge of Board 1/);
  await ada.clicksAt([330, 9, 260]);
  await expect(page.getByTestId('measure').first()).toContainText('mm');
  await page.getByLabel('distance', { exact: true }).fill('318');
  await choosesIn(page, 'along', 'Z');
  await ada.commits();
  const box = async (name: string) => (await ada.facts(name)).box;
  expect((await box('Board 2')).min[2]).toBeCloseTo(336, 9);
  await ada.types('Escape');

  await selects(page, 'Board 2', 'Board 3', 'Board 4', 'Board 1');
  const align = page.getByRole('group', { name: 'Align', exact: true });
  await align.getByRole('group', { name: 'Align X' }).getByRole('button', { name: 'least' }).click();
  await align.getByRole('group', { name: 'Align Y' }).getByRole('button', { name: 'greatest' }).click();
  await align.getByRole('button', { name: 'Align', exact: true }).click();
  await expect(page.getByText(done)).toBeVisible();
  await startsVerb(page, 'distribute');
  await choosesIn(page, 'along', 'Z');
  await ada.commits();
  const boards = await Promise.all([1, 2, 3, 4].map((i) => box(`Board ${i}`)));
  expect(boards.map(({ min, max }) => [min[0], max[1]])).toEqual(Array(4).fill([0, 250]));
  const gaps = [0, 1, 2].map((i) => boards[i + 1]!.min[2] - boards[i]!.max[2]);
  for (const gap of gaps) expect(gap).toBeCloseTo((1118 - 4 * 18) / 3, 9);
  await ada.isSaved();
  expect(ada.problems).toEqual([]);
});

test(
  'two parts turn each about its own datum, or about their shared centre',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Turning');
    await ada.makesBox(['10', '20', '30'], ['0', '0', '0'], 'a');
    await ada.types('Escape');
    await ada.makesBox(['10', '10', '10'], ['50', '0', '0'], 'b');
    await ada.types('Escape', 'Control+a', 't', '90');
    await expect(page.locator('[data-blank="centre"]')).toContainText('each about its own datum');
    await ada.commits();
    const boxes = async () => [(await ada.facts('a')).box.min, (await ada.facts('b')).box.min];
    expect(await boxes()).toEqual([
      [-20, 0, 0],
      [40, 0, 0],
    ]);
    await choosesIn(page, 'centre', 'all about their shared centre');
    await ada.commits();
    expect(await boxes()).toEqual([
      [20, -20, 0],
      [30, 30, 0],
    ]);
    // Undone in one step, as it was one statement.
    await ada.types('Escape', 'Control+z');
    await expect.poll(boxes).toEqual([
      [0, 0, 0],
      [50, 0, 0],
    ]);
  },
);

test(
  'a ring of the protractor turns in angle steps, and a knob of the box resizes from the other side',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Rings');
    await ada.makesBox(['60', '40', '20'], ['0', '0', '0'], 'a');
    await ada.types('Escape');
    await ada.looks('Plan');
    await ada.fitsAll();
    await page.keyboard.press('t');
    const centre = await ada.screenOf([0, 0, 0]);
    const ring = (angle: number) =>
      [
        centre.x + 72 * Math.cos((angle * Math.PI) / 180),
        centre.y - 72 * Math.sin((angle * Math.PI) / 180),
      ] as const;
    await page.mouse.move(...ring(20));
    await page.mouse.down();
    await page.mouse.move(...ring(50), { steps: 5 });
    await page.mouse.move(...ring(67), { steps: 5 });
    await expect(page.getByLabel('angle', { exact: true })).toHaveValue('45°');
    await page.mouse.up();
    await expect(page.getByText(done)).toBeVisible();
    expect(Object.values((await ada.document()).items)[0]!.placement.turn).toEqual([0, 0, 45]);
    await ada.types('Escape', 'Control+z', 'z');
    await ada.pointsAt([60, 20, 10], { x: 0, y: 0 });
    await page.mouse.down();
    await ada.pointsAt([81, 20, 10], { x: 0, y: 0 });
    await page.mouse.up();
    await expect(page.getByText(done)).toBeVisible();
    const { box } = await ada.facts('a');
    expect([box.min[0], box.max[0]]).toEqual([0, 80]);
    expect(ada.problems).toEqual([]);
  },
);

test(
  'a knob is resized about a point on its rim, along its face normal',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Knob');
    await page.keyboard.press('c');
    await ada.types('30', 'Tab', '12', 'Tab', '0', 'Tab', '0', 'Tab', '5', 'Enter');
    await expect(page.getByText(done)).toBeVisible();
    await ada.types('Escape');
    await ada.fitsAll();
    await selects(page, 'Cylinder');
    await page.keyboard.press('z');
    await choosesIn(page, 'in', 'Picked: a face, an edge or an axis…');
    await ada.clicksAt([4, 3, 17]);
    await choosesIn(page, 'about', 'all about a point');
    await ada.clicksAt([0, -15, 17]);
    await page.getByLabel('factor Z', { exact: true }).fill('1.5');
    await ada.commits();
    expect((await ada.facts('Cylinder')).box).toEqual({ min: [-15, -15, -1], max: [15, 15, 17] });
  },
);

test('an upright is built in the front view with the View frame', { tag: '@long' }, async ({ page }) => {
  const ada = await inNewProject(page, 'Upright');
  await ada.makesBox(['40', '40', '900'], ['0', '0', '0'], 'Post');
  await ada.types('Escape');
  await page.keyboard.press('v');
  await page.getByRole('group', { name: 'View: Front' }).click({ position: { x: 300, y: 40 } });
  await selects(page, 'Post');
  await page.keyboard.press('m');
  await choosesIn(page, 'in', 'View: the one you work in');
  await expect(page.locator('[data-blank="in"]')).toContainText('Front');
  await page.getByLabel('by Y', { exact: true }).fill('120');
  await ada.commits();
  expect((await ada.facts('Post')).box.min).toEqual([0, 0, 120]);
  // The frame of Move is remembered for Move alone.
  await ada.types('Escape', 't');
  await expect(page.locator('[data-blank="in"]')).toContainText('World');
  await ada.types('Escape', 'm');
  await expect(page.locator('[data-blank="in"]')).toContainText('View');
  await page.keyboard.press('Escape');
  // The arrows follow the view that one works in: up is up.
  for (const key of ['ArrowUp', 'ArrowUp', 'Shift+ArrowRight']) await page.keyboard.press(key);
  await ada.isReady();
  await expect.poll(async () => (await ada.facts('Post')).box.min).toEqual([10, 0, 122]);
  await expect(page.getByLabel('Ledger').getByRole('listitem').last()).toContainText(
    'Nudge Post by 10 mm, 0 mm, 2 mm',
  );
});

test('a ball is seated in a bowl', { tag: '@long' }, async ({ page }) => {
  const ada = await inNewProject(page, 'Bowl');
  await page.keyboard.press('c');
  await ada.types('100', 'Tab', '50', 'Enter');
  await expect(page.getByText(done)).toBeVisible();
  for (const [diameter, x, z] of [
    ['80', '0', '60'],
    ['30', '6', '140'],
  ] as const) {
    await page.keyboard.press('Escape');
    await startsVerb(page, 'sphere');
    await ada.types(diameter, 'Tab', x, 'Tab', '0', 'Tab', z, 'Enter');
    await expect(page.getByText(done)).toBeVisible();
  }
  await page.keyboard.press('Escape');
  await selects(page, 'Cylinder', 'Sphere');
  await ada.types('x', 'Enter');
  await expect(page.getByText(done)).toBeVisible();
  await page.keyboard.press('Escape');
  await selects(page, 'Sphere 2');
  await ada.types('s', 'Enter');
  await expect(page.getByText(done)).toBeVisible();
  const { box } = await ada.facts('Sphere 2');
  const [x, z] = [(box.min[0] + box.max[0]) / 2, (box.min[2] + box.max[2]) / 2];
  expect(Math.hypot(x, z - 60)).toBeCloseTo(25, 8);
  expect(ada.problems).toEqual([]);
});

test('a pin is placed, turned about, moved onto, and hidden; a statement is given again', async ({
  page,
}) => {
  const ada = await inNewProject(page, 'Pinned');
  await ada.makesBox(['20', '10', '10'], ['0', '0', '0'], 'a');
  await ada.types('Escape');
  await ada.makesBox(['20', '10', '10'], ['60', '0', '0'], 'b');
  await ada.types('Escape');
  await ada.fitsAll();
  await page.keyboard.press('p');
  await ada.clicksAt([20, 0, 10]);
  await page.getByLabel('name', { exact: true }).fill('Hinge');
  await ada.commits();
  await ada.types('Escape');
  await expect(page.getByRole('list', { name: 'Pins' })).toContainText('Hinge');
  await selects(page, 'b');
  await page.keyboard.press('m');
  await page.locator('[data-entry="to"]').focus();
  await ada.clicksAt([20, 0, 10]);
  await expect(page.getByText(done)).toBeVisible();
  expect((await ada.facts('b')).box.min).toEqual([20, 0, 10]);
  await ada.types('Escape');
  await selects(page, 'a');
  await page.keyboard.press('Control+Enter');
  await expect.poll(async () => (await ada.facts('a')).box.min).toEqual([20, 0, 10]);
});

test(
  'only select drags nothing, locked parts stay, and a view is kept with the project',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Careful');
    await ada.makesBox(['100', '60', '40'], ['0', '0', '0'], 'a');
    await ada.types('Escape');
    await ada.fitsAll();
    await page.keyboard.press('o');
    const from = await ada.screenOf([0, 0, 0]);
    const to = await ada.screenOf([30, 0, 0]);
    await page.mouse.move(from.x + (to.x - from.x) * 0.6, from.y + (to.y - from.y) * 0.6);
    await page.mouse.down();
    await page.mouse.move(to.x + 60, to.y, { steps: 5 });
    await page.mouse.up();
    expect((await ada.facts('a')).box.min).toEqual([0, 0, 0]);
    await ada.looks('Right');
    await page.getByRole('button', { name: /perspective|parallel/ }).click();
    await page.getByRole('menuitem', { name: 'Keep this view…' }).click();
    await page.getByLabel('name', { exact: true }).fill('Side');
    await ada.commits();
    await ada.isSaved();
    await page.reload();
    await ada.isReady();
    await ada.looks('“Side”');
    await expect(page.getByRole('button', { name: /^Right/ })).toBeVisible();
  },
);
