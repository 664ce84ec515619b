import { expect, test, type Page } from './tests.ts';
import type { Vec3 } from '@kadrel/core';
import { drags, inNewProject, zoomsOut } from './doing.ts';
import type { Person } from './person.ts';

const done = 'done; change a blank to adjust';

const part = async (ada: Person, name: string) =>
  Object.values((await ada.document()).items).find((item) => item.name === name)!;
const row = (page: Page, name: string) => page.getByRole('treeitem', { name, exact: true });
const label = (page: Page) => page.getByTestId('snap-label');

/** Types numbers into the field of a point, and goes on to picking the next. */
async function typesPoint(page: Page, blank: string, text: string): Promise<void> {
  await page.getByLabel(blank, { exact: true }).fill(text);
  await page.keyboard.press('Tab');
}

const touched = (page: Page) => page.locator('[data-pane="Home"] [data-touched]');

/** Rests on a point until it is touched, as one of so many. */
async function touches(ada: Person, point: Vec3, count: number): Promise<void> {
  await ada.pointsAt(point);
  await expect(touched(ada.page)).toHaveCount(count);
}

const selection = (page: Page) => page.evaluate(() => [...window.kadrel!.selection].sort());

test('a wall of blocks is laid corner to corner, by copies again and again', async ({ page }) => {
  const ada = await inNewProject(page, 'Wall');
  await ada.makesBox(['200', '100', '60'], ['0', '0', '0'], 'Block');
  await ada.types('Escape');
  await page.keyboard.press('m');
  await page.locator('[data-blank="leaving"]').click();
  await page.getByRole('option', { name: 'the original, again and again' }).click();
  await page.getByLabel('from', { exact: true }).click();
  await zoomsOut(ada);
  await ada.clicksAt([0, 0, 0]);
  await expect(page.locator('[data-blank="from"] input')).toHaveValue(/endpoint of Block/);
  for (const [corner, count] of [
    [[200, 0, 0], 2],
    [[400, 0, 0], 3],
    [[0, 0, 60], 4],
    [[200, 0, 60], 5],
    [[400, 0, 60], 6],
  ] as const) {
    await ada.clicksAt(corner);
    await expect.poll(async () => Object.keys((await ada.document()).items).length).toBe(count);
    await ada.isReady();
  }
  await page.keyboard.press('Enter');
  const origins = Object.values((await ada.document()).items).map(({ placement }) => placement.origin);
  expect(origins).toEqual([
    [0, 0, 0],
    [200, 0, 0],
    [400, 0, 0],
    [0, 0, 60],
    [200, 0, 60],
    [400, 0, 60],
  ]);
  expect(ada.problems).toEqual([]);
});

test(
  'a post is set at the crossing of two guide rays, and one by a distance along a ray',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Guides');
    await ada.makesBox(['10', '10', '50'], ['0', '0', '0'], 'A');
    await ada.types('Escape', 'Escape');
    await ada.makesBox(['10', '10', '50'], ['200', '100', '0'], 'B');
    await ada.types('Escape', 'Escape');
    await ada.makesBox(['10', '10', '50'], ['63', '-77', '0'], 'C');
    await ada.types('Escape');
    await ada.looks('Plan');
    await ada.fitsAll();
    await page.keyboard.press('m');
    await ada.clicksAt([63, -77, 50]);
    await touches(ada, [0, 0, 50], 1);
    await touches(ada, [200, 100, 50], 2);
    await ada.pointsAt([200, 0, 50], { x: 3, y: 3 });
    await expect(label(page)).toContainText('two guides');
    await ada.clicksAt([200, 0, 50]);
    await expect(page.getByText(done)).toBeVisible();
    expect((await part(ada, 'C')).placement.origin).toEqual([200, 0, 0]);

    // Once more, by a number along the ray.
    await ada.types('Escape');
    await page.keyboard.press('m');
    await ada.clicksAt([200, 0, 50]);
    // What is picked is let go of, however long the pointer has rested on it.
    await expect(touched(page)).toHaveCount(0);
    await touches(ada, [0, 0, 50], 1);
    await ada.pointsAt([130, 0, 50], { x: 0, y: 2 });
    await expect(label(page)).toContainText('along X');
    await page.keyboard.type('75 + 10');
    await expect(page.getByLabel('Distance along X')).toHaveValue('75 + 10');
    await page.keyboard.press('Enter');
    await expect(page.getByText(done)).toBeVisible();
    expect((await part(ada, 'C')).placement.origin).toEqual([85, 0, 0]);
    expect(ada.problems).toEqual([]);
  },
);

test('a line that is drawn ends by a number along a guide ray', async ({ page }) => {
  const ada = await inNewProject(page, 'Along');
  await ada.makesBox(['10', '10', '50'], ['0', '0', '0'], 'A');
  await ada.types('Escape', 'Escape');
  await ada.makesBox(['10', '10', '50'], ['200', '100', '0'], 'B');
  await ada.types('Escape', 'Escape');
  await ada.looks('Plan');
  await ada.fitsAll();
  await page.keyboard.press('/');
  await page.keyboard.type('line');
  await page.keyboard.press('Enter');
  await ada.clicksAt([200, 100, 50]);
  await touches(ada, [0, 0, 50], 1);
  await ada.pointsAt([130, 0, 50], { x: 0, y: 2 });
  await expect(label(page)).toContainText('along X');
  await page.keyboard.type('85');
  await expect(page.getByLabel('Distance along X')).toHaveValue('85');
  await page.keyboard.press('Enter');
  await expect(page.getByText(done)).toBeVisible();
  const { base } = (await part(ada, 'Line')).recipe;
  expect(base).toMatchObject({ figure: { start: [200, 100], legs: [{ to: [85, 0] }] } });
  expect(ada.problems).toEqual([]);
});

test('a knob lands on a ball and faces outward', { tag: '@long' }, async ({ page }) => {
  const ada = await inNewProject(page, 'Knob');
  await page.keyboard.press('/');
  await page.keyboard.type('ball');
  await page.keyboard.press('Enter');
  await page.getByLabel('diameter', { exact: true }).fill('100');
  await page.getByLabel('centre X').fill('0');
  await page.getByLabel('centre Y').fill('0');
  await page.getByLabel('centre Z').fill('50');
  await ada.commits();
  await ada.types('Escape', 'Escape', 'c', '10', 'Tab', '15', 'Tab', '150', 'Tab', '0', 'Tab', '0', 'Tab');
  await page.getByLabel('name', { exact: true }).fill('Knob');
  await ada.commits();
  await ada.types('Escape');
  await ada.fitsAll();
  await page.keyboard.press('m');
  await page.getByRole('button', { name: 'More blanks' }).click();
  await page.getByRole('menuitem', { name: 'turning' }).click();
  await page.locator('[data-blank="facing"]').click();
  await page.getByRole('option', { name: 'Z', exact: true }).click();
  await typesPoint(page, 'from', '150, 0, 0');
  const radial: Vec3 = [0.48, -0.64, 0.6];
  const spot = radial.map((n, i) => 50 * n + (i === 2 ? 50 : 0)) as unknown as Vec3;
  await ada.pointsAt(spot, { x: 0, y: 0 });
  await expect(label(page)).toContainText('faces the normal of');
  await page.mouse.down();
  await page.mouse.up();
  await expect(page.getByText(done)).toBeVisible();
  const facts = await page.evaluate(() => window.kadrel!.facts('Knob'));
  const { centroid } = facts as unknown as { centroid: Vec3 };
  // The middle of the knob stands 50 + 7.5 from the middle of the ball, on the way out.
  expect(Math.hypot(centroid[0], centroid[1], centroid[2] - 50)).toBeCloseTo(57.5, 9);
  const { origin } = (await part(ada, 'Knob')).placement;
  const [x, y, z] = origin as number[];
  expect(Math.hypot(x!, y!, z! - 50)).toBeCloseTo(50, 9);
  expect(Math.hypot(centroid[0] * (50 / 57.5) - x!, centroid[1] * (50 / 57.5) - y!)).toBeLessThan(1e-9);
  expect(Math.hypot(x! - spot[0], y! - spot[1], z! - spot[2])).toBeLessThan(1);
  expect(ada.problems).toEqual([]);
});

test('a peg is set half-way into a plate', async ({ page }) => {
  const ada = await inNewProject(page, 'Peg');
  await ada.makesBox(['100', '60', '8'], ['0', '0', '0'], 'Plate');
  await ada.types('Escape', 'Escape', 'c', '6', 'Tab', '30', 'Tab', '150', 'Tab', '0', 'Tab', '0', 'Tab');
  await page.getByLabel('name', { exact: true }).fill('Peg');
  await ada.commits();
  await ada.types('Escape');
  await ada.looks('Plan');
  await ada.fitsAll();
  await page.keyboard.press('m');
  await typesPoint(page, 'from', '150, 0, 0');
  await ada.pointsAt([40, 30, 8], { x: 0, y: 0 });
  await page.keyboard.press('Shift+H');
  await expect(label(page)).toContainText('half-way');
  await ada.clicksAt([40, 30, 8]);
  await expect(page.getByText(done)).toBeVisible();
  const [x, y, z] = (await part(ada, 'Peg')).placement.origin as number[];
  expect(z).toBeCloseTo(4, 9);
  expect(Math.hypot(x! - 40, y! - 30)).toBeLessThan(2);
});

test(
  'enclosed against touching on a crowded plan; a fence, a brush, and what is like them',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Crowd');
    for (const [i, x] of [0, 30, 60].entries())
      for (const [k, y] of [0, 30, 60].entries()) {
        await ada.makesBox(['20', '20', i === k ? '20' : '10'], [String(x), String(y), '0'], `P${i}${k}`);
        await ada.types('Escape', 'Escape');
      }
    await ada.looks('Plan');
    await ada.fitsAll();
    await zoomsOut(ada);
    await drags(ada, [-5, -5, 0], [40, 25, 0]);
    expect(await selection(page)).toEqual(['P00', 'P10']);
    const panel = page.getByTitle('How parts are selected');
    const chooses = async (...words: string[]) => {
      await panel.click();
      for (const word of words) await page.getByRole('radio', { name: word, exact: true }).click();
      await page.keyboard.press('Escape');
    };
    await chooses('enclosed');
    await drags(ada, [-5, -5, 0], [40, 25, 0]);
    expect(await selection(page)).toEqual(['P00']);

    // A fence round the diagonal: the corners by clicks, closed by Enter.
    await chooses('fence');
    await drags(ada, [-6, -6, 0], [23, -6, 0]);
    for (const corner of [
      [86, 57, 0],
      [86, 86, 0],
      [57, 86, 0],
      [-6, 23, 0],
    ] as Vec3[]) {
      const { x, y } = await ada.screenOf(corner);
      await page.mouse.click(x, y);
    }
    await page.keyboard.press('Enter');
    expect(await selection(page)).toEqual(['P00', 'P11', 'P22']);

    await chooses('brush', 'touching');
    await drags(ada, [10, 70, 0], [40, 70, 0]);
    expect(await selection(page)).toEqual(['P02', 'P12']);

    await panel.click();
    await page.getByRole('button', { name: 'Same size' }).click();
    expect(await selection(page)).toHaveLength(6);
    await page.getByRole('button', { name: 'All others' }).click();
    expect(await selection(page)).toEqual(['P00', 'P11', 'P22']);
    await page.getByRole('button', { name: 'Last selection' }).click();
    expect(await selection(page)).toHaveLength(6);
    await page.getByLabel('Part of a name').fill('p1');
    await page.keyboard.press('Enter');
    expect(await selection(page)).toEqual(['P10', 'P11', 'P12']);
    await page.getByRole('button', { name: 'Show only these' }).click();
    await expect.poll(async () => (await part(ada, 'P00')).visible).toBe(false);
    await page.getByRole('button', { name: 'Show all' }).click();
    await expect.poll(async () => (await part(ada, 'P00')).visible).toBe(true);
    expect(ada.problems).toEqual([]);
  },
);

test('a reference part that is made unsnappable is never caught', async ({ page }) => {
  const ada = await inNewProject(page, 'Reference');
  await ada.makesBox(['80', '80', '5'], ['0', '0', '0'], 'Reference');
  await ada.types('Escape', 'Escape');
  await ada.makesBox(['20', '20', '20'], ['120', '0', '0'], 'Part');
  await ada.types('Escape');
  await ada.looks('Plan');
  await ada.fitsAll();
  const places: Vec3[] = [
    [0, 0, 5],
    [80, 80, 5],
    [40, 0, 5],
    [40, 40, 5],
    [25, 31, 5],
  ];
  await page.keyboard.press('m');
  await ada.pointsAt(places[0]!);
  await expect(label(page)).toContainText('Reference');
  await ada.types('Escape', 'Escape');
  await row(page, 'Reference').hover();
  await row(page, 'Reference').getByRole('button', { name: 'Keep snaps off' }).click();
  await expect.poll(async () => (await part(ada, 'Reference')).snappable).toBe(false);
  await ada.types('Escape', 'Escape');
  await row(page, 'Part').click();
  await page.keyboard.press('m');
  for (const place of places) {
    await ada.pointsAt(place);
    await expect(label(page)).not.toContainText('Reference');
  }
  await ada.pointsAt([120, 0, 20]);
  await expect(label(page)).toContainText('Part');
});

test(
  'a pick begun in plan is finished in another view after orbiting, with what was touched',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Two views');
    await ada.makesBox(['20', '20', '20'], ['100', '0', '0'], 'Goal');
    await ada.types('Escape', 'Escape');
    await ada.makesBox(['40', '40', '10'], ['0', '0', '0'], 'Load');
    await ada.types('Escape');
    await ada.looks('Plan');
    await ada.fitsAll();
    await page.keyboard.press('m');
    await ada.clicksAt([0, 0, 10]);
    await touches(ada, [100, 20, 20], 1);
    await ada.looks('Home');
    await page.mouse.move(520, 420);
    await page.mouse.down({ button: 'middle' });
    await page.mouse.move(470, 400, { steps: 4 });
    await page.mouse.up({ button: 'middle' });
    await page.mouse.wheel(0, 150);
    await ada.isReady();
    await expect(page.locator('[data-pane="Home"] [data-touched]')).toHaveCount(1);
    await ada.clicksAt([100, 0, 20]);
    await expect(page.getByText(done)).toBeVisible();
    expect((await part(ada, 'Load')).placement.origin).toEqual([100, 0, 10]);
    await expect(page.locator('[data-pane="Home"] [data-touched]')).toHaveCount(0);
  },
);

test(
  'Tab and the space bar go on to what else is within reach, and to what lies behind',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Reach');
    await ada.makesBox(['20', '20', '20'], ['0', '0', '0'], 'Front');
    await ada.types('Escape', 'Escape');
    await ada.makesBox(['20', '20', '20'], ['0', '60', '0'], 'Back');
    await ada.types('Escape');
    await ada.looks('Front');
    await ada.fitsAll();
    await page.keyboard.press('m');
    await ada.pointsAt([20, 0, 20], { x: -3, y: 3 });
    const first = await label(page).textContent();
    expect(first).toContain('endpoint');
    await page.keyboard.press('Tab');
    await expect(label(page)).not.toHaveText(first!);
    await page.mouse.move(400, 300);
    await ada.pointsAt([20, 0, 20], { x: -3, y: 3 });
    await expect(label(page)).toHaveText(first!);
    await page.keyboard.down(' ');
    const list = page.getByRole('list', { name: 'Within reach' });
    await expect(list).toBeVisible();
    await page.keyboard.up(' ');
    await expect(list.getByRole('button').first()).toContainText('endpoint');
    await page.keyboard.press('2');
    await expect(list).toBeHidden();
    await expect(label(page)).not.toHaveText(first!);

    await ada.types('Escape', 'Escape', 'Escape');
    await ada.pointsAt([10, 0, 10]);
    await page.mouse.down();
    await page.mouse.up();
    expect(await selection(page)).toEqual(['Front']);
    await page.keyboard.press(' ');
    await expect.poll(() => selection(page)).toEqual(['Back']);
    await page.keyboard.press(' ');
    await expect.poll(() => selection(page)).toEqual(['Front']);
    await page.keyboard.down(' ');
    await expect(list).toBeVisible();
    await page.keyboard.up(' ');
    await list.getByRole('button', { name: 'Back' }).click();
    expect(await selection(page)).toEqual(['Back']);
  },
);

test('parts that lie on each other are told, and one is kept', { tag: '@long' }, async ({ page }) => {
  const ada = await inNewProject(page, 'Doubles');
  for (const name of ['One', 'Two']) {
    await ada.makesBox(['20', '20', '20'], ['0', '0', '0'], name);
    await ada.types('Escape', 'Escape');
  }
  await expect(page.getByText('2 alike in the same place')).toBeVisible();
  await page.getByRole('button', { name: 'Keep one' }).click();
  await expect(page.getByText('2 alike in the same place')).toBeHidden();
  expect(Object.values((await ada.document()).items).map(({ name }) => name)).toEqual(['One']);
});

test(
  'a dragged part lines up with its neighbours, and the gaps are told',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Lining up');
    for (const [name, x, y] of [
      ['A', '0', '3.7'],
      ['B', '53', '3.7'],
      ['C', '108', '40'],
    ] as const) {
      await ada.makesBox(['20', '20', '20'], [x, y, '0'], name);
      await ada.types('Escape', 'Escape');
    }
    await row(page, 'C').click();
    await ada.looks('Plan');
    await ada.fitsAll();
    // The square between the arrows of X and Y drags in the plane; here the arrow of Y is enough.
    const from = await ada.screenOf([108, 40, 0]);
    const up = await ada.screenOf([108, 41, 0]);
    const px = from.y - up.y;
    await page.mouse.move(from.x, from.y - 30);
    await page.mouse.down();
    await page.mouse.move(from.x, from.y - 30 + 36 * px, { steps: 8 });
    await expect(page.locator('[data-gap]').first()).toBeVisible();
    await page.mouse.up();
    await expect(page.getByText(done)).toBeVisible();
    expect((await part(ada, 'C')).placement.origin).toEqual([108, 3.7, 0]);
  },
);
