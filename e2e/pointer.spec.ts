/** Drawing by the pointer, and a statement in hand that nothing but Esc, Enter or another verb ends. */
import { expect, test, type Page } from './tests.ts';
import type { Vec3 } from '@kadrel/core';
import { inNewProject, selects, startsVerb } from './doing.ts';
import type { Person } from './person.ts';

const verbIn = (page: Page) => page.getByTestId('verb');
const done = (page: Page) => page.getByText('done; change a blank to adjust');
const field = (page: Page, key: string) => page.locator(`[data-entry="${key}"]`);

/** A view that shows some 80 mm about the origin, and is not fitted anew to what is drawn first. */
async function withRoom(page: Page, name: string): Promise<Person> {
  const ada = await inNewProject(page, name);
  await ada.makesBox(['80', '80', '40'], ['-40', '-40', '0']);
  await page.keyboard.press('Escape');
  await ada.fitsAll();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('treeitem')).toHaveCount(0);
  await ada.isReady();
  return ada;
}

async function clicks(ada: Person, ...points: readonly Vec3[]): Promise<void> {
  for (const point of points) {
    await ada.pointsAt(point, { x: 0, y: 0 });
    await ada.page.mouse.down();
    await ada.page.mouse.up();
  }
}

async function drags(ada: Person, from: Vec3, to: Vec3): Promise<void> {
  await ada.pointsAt(from, { x: 0, y: 0 });
  await ada.page.mouse.down();
  await ada.pointsAt(to, { x: 0, y: 0 });
  await ada.page.mouse.up();
}

/** Each verb by its words, the places that it is drawn by, and what it comes to. */
const SOLIDS: readonly (readonly [words: string, name: string, places: readonly Vec3[], volume: number])[] = [
  [
    'sphere',
    'Sphere',
    [
      [0, 0, 0],
      [20, 0, 0],
    ],
    (4 / 3) * Math.PI * 8000,
  ],
  [
    'cone',
    'Cone',
    [
      [0, 0, 0],
      [20, 0, 0],
      [20, 0, 30],
    ],
    (Math.PI * 400 * 30) / 3,
  ],
  [
    'tube',
    'Tube',
    [
      [0, 0, 0],
      [20, 0, 0],
      [10, 0, 0],
      [10, 0, 30],
    ],
    Math.PI * 300 * 30,
  ],
  [
    'wedge',
    'Wedge',
    [
      [0, 0, 0],
      [20, 15, 0],
      [20, 15, 20],
    ],
    (20 * 15 * 20) / 2,
  ],
  [
    'prism',
    'Prism',
    [
      [0, 0, 0],
      [20, 0, 0],
      [20, 0, 30],
    ],
    ((3 * Math.sqrt(3)) / 2) * 400 * 30,
  ],
  [
    'torus',
    'Torus',
    [
      [0, 0, 0],
      [20, 0, 0],
      [25, 0, 0],
    ],
    2 * Math.PI ** 2 * 20 * 25,
  ],
];

test(
  'solids are drawn by clicks, and by a drag for the first two places',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await withRoom(page, 'Drawn');
    for (const [words, name, places, volume] of SOLIDS) {
      for (const way of ['clicks', 'drag'] as const) {
        await startsVerb(page, words);
        if (way === 'clicks') await clicks(ada, ...places);
        else {
          await drags(ada, places[0]!, places[1]!);
          await clicks(ada, ...places.slice(2));
        }
        await expect(done(page)).toBeVisible();
        await ada.isReady();
        expect((await ada.facts(name)).volume / volume, `${name} by ${way}`).toBeCloseTo(1, 9);
        await page.keyboard.press('Control+z');
        await expect(page.getByRole('treeitem', { name, exact: true })).toHaveCount(0);
        await ada.isReady();
      }
    }
    expect(ada.problems).toEqual([]);
  },
);

test('figures are drawn by the pointer: a line by two clicks, a rectangle, an arc, a polygon, an ellipse', async ({
  page,
}) => {
  const ada = await withRoom(page, 'Figures');
  const figures: readonly (readonly [string, string, readonly Vec3[]])[] = [
    [
      'line',
      'Line',
      [
        [0, 0, 0],
        [40, 10, 0],
      ],
    ],
    [
      'rectangle',
      'Rectangle',
      [
        [0, 0, 0],
        [-15, 10, 0],
      ],
    ],
    [
      'circle',
      'Circle',
      [
        [0, 0, 0],
        [20, 0, 0],
      ],
    ],
    [
      'polygon',
      'Polygon',
      [
        [0, 0, 0],
        [20, 0, 0],
      ],
    ],
    [
      'ellipse',
      'Ellipse',
      [
        [0, 0, 0],
        [20, 10, 0],
      ],
    ],
    [
      'arc',
      'Arc',
      [
        [0, 0, 0],
        [20, 0, 0],
        [0, 20, 0],
      ],
    ],
  ];
  const drawn = new Map<string, unknown>();
  for (const [words, name, places] of figures) {
    await startsVerb(page, words);
    await clicks(ada, ...places);
    await expect(done(page), words).toBeVisible();
    const [part] = Object.values((await ada.document()).items);
    expect(part!.name).toBe(name);
    const { base } = part!.recipe;
    drawn.set(name, base.kind === 'profile' ? base.figure : undefined);
    // By itself, so that none is caught by the next.
    await page.keyboard.press('Control+z');
    await expect(page.getByRole('treeitem', { name, exact: true })).toHaveCount(0);
    await ada.isReady();
  }
  const figure = (name: string) => drawn.get(name);
  expect(figure('Rectangle')).toMatchObject({ width: 15, height: 10 });
  expect(figure('Circle')).toMatchObject({ diameter: 40 });
  expect(figure('Arc')).toMatchObject({ radius: 20, first: 0, sweep: 90 });
  expect(figure('Line')).toMatchObject({ start: [0, 0], legs: [{ to: [40, 10] }] });
  expect(ada.problems).toEqual([]);
});

test('a number typed while a rectangle is drawn holds, and the other follows the pointer', async ({
  page,
}) => {
  const ada = await withRoom(page, 'Typed meanwhile');
  await startsVerb(page, 'rectangle');
  await ada.pointsAt([0, 0, 0], { x: 0, y: 0 });
  await page.mouse.down();
  await ada.pointsAt([20, 10, 0], { x: 0, y: 0 });
  await expect(field(page, 'width')).toHaveValue('20');
  await expect(field(page, 'height')).toHaveValue('10');
  await page.keyboard.type('33');
  await ada.pointsAt([40, 25, 0], { x: 0, y: 0 });
  await expect(field(page, 'width')).toHaveValue('33');
  await expect(field(page, 'height')).toHaveValue('25');
  await page.mouse.up();
  await expect(done(page)).toBeVisible();
  const [part] = Object.values((await ada.document()).items);
  expect(part!.recipe.base).toMatchObject({ figure: { width: 33, height: 25 } });
  expect(ada.problems).toEqual([]);
});

test('a click on a part leaves the statement in hand as it is, and fills what waits', async ({ page }) => {
  const ada = await inNewProject(page, 'Nothing lost');
  await ada.makesBox(['100', '80', '10'], undefined, 'Plate');
  await page.keyboard.press('Escape');
  // A size is typed, the place is clicked.
  await startsVerb(page, 'sphere');
  await page.keyboard.type('20');
  await clicks(ada, [50, 40, 10]);
  await expect(done(page)).toBeVisible();
  expect((await ada.facts('Sphere')).box).toEqual({ min: [40, 30, 0], max: [60, 50, 20] });
  await page.keyboard.press('Escape');
  // Numbers that are typed stay whatever is clicked.
  for (const [words, key, text] of [
    ['move', 'by.0', '12'],
    ['turn', 'angle', '30'],
    ['resize', 'by.0', '2'],
    ['repeat along', 'count', '4'],
  ] as const) {
    await selects(page, 'Plate');
    await startsVerb(page, words);
    await field(page, key).fill(text);
    await clicks(ada, [90, 70, 10]);
    await expect(verbIn(page)).toBeVisible();
    await expect(field(page, key)).toHaveValue(text);
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
  }
  expect(ada.problems).toEqual([]);
});

test('what was typed comes back after another verb, after Esc, and after a number in the Spec', async ({
  page,
}) => {
  const ada = await inNewProject(page, 'Taken up');
  await ada.makesBox(['40', '30', '20'], undefined, 'Block');
  await page.keyboard.press('Escape');
  await selects(page, 'Block');
  await page.keyboard.press('m');
  await page.keyboard.type('12');
  await expect(field(page, 'by.0')).toHaveValue('12');
  // A number in the Spec is said between.
  const length = page.getByRole('textbox', { name: 'Length', exact: true });
  await length.fill('50');
  await length.press('Enter');
  await expect.poll(async () => (await ada.facts('Block')).volume).toBeCloseTo(50 * 30 * 20, 6);
  await expect(verbIn(page)).toHaveText('Move');
  await expect(field(page, 'by.0')).toHaveValue('12');
  await startsVerbByKey(page, 't');
  await expect(verbIn(page)).toHaveText('Turn');
  await page.getByRole('button', { name: 'Again with what you had: Move' }).click();
  await expect(field(page, 'by.0')).toHaveValue('12');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+Shift+Enter');
  await expect(field(page, 'by.0')).toHaveValue('12');
  await page.keyboard.press('Enter');
  await expect(done(page)).toBeVisible();
  await expect(page.getByRole('button', { name: /Again with what you had/ })).toHaveCount(0);
  expect((await ada.facts('Block')).box.min[0]).toBe(12);
  expect(ada.problems).toEqual([]);
});

const startsVerbByKey = async (page: Page, key: string) => {
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press(key);
};

test('a move by numbers: the first goes to X, Tab goes on, and F9 turns a sign', async ({ page }) => {
  const ada = await inNewProject(page, 'By numbers');
  await ada.makesBox(['40', '30', '20'], undefined, 'Block');
  await page.keyboard.press('Escape');
  await selects(page, 'Block');
  await page.keyboard.press('m');
  await page.keyboard.type('10');
  await page.keyboard.press('Tab');
  await page.keyboard.type('5');
  await page.keyboard.press('F9');
  await expect(field(page, 'by.1')).toHaveValue('-5');
  await page.keyboard.press('Enter');
  await expect(done(page)).toBeVisible();
  await ada.isReady();
  expect((await ada.facts('Block')).box.min).toEqual([10, -5, 0]);
  expect(ada.problems).toEqual([]);
});

test('a press on a grip that does not move is a click on what lies below it', async ({ page }) => {
  const ada = await inNewProject(page, 'Through a grip');
  await ada.makesBox(['60', '60', '20'], undefined, 'Low');
  await page.keyboard.press('Escape');
  await ada.makesBox(['60', '60', '20'], ['100', '0', '0'], 'Far');
  await page.keyboard.press('Escape');
  await ada.looks('Plan');
  await ada.fitsAll();
  await selects(page, 'Low');
  const onGrip = await ada.screenOf([0, 0, 0]);
  const toX = await ada.screenOf([60, 0, 0]);
  const size = Math.hypot(toX.x - onGrip.x, toX.y - onGrip.y);
  await page.mouse.move(onGrip.x + ((toX.x - onGrip.x) / size) * 30, onGrip.y - 1, { steps: 3 });
  await page.mouse.down();
  await page.mouse.up();
  // The selected part's own face, as by any click on it.
  await expect(page.getByText(/Face/).first()).toBeVisible();
  await expect(verbIn(page)).toHaveCount(0);
  expect(ada.problems).toEqual([]);
});

test('what the fields show is what is made: before the first place what stands in them, then what is drawn', async ({
  page,
}) => {
  const ada = await withRoom(page, 'Shown');
  await page.keyboard.press('c');
  await ada.pointsAt([25, 15, 0], { x: 0, y: 0 });
  await expect(field(page, 'at.0')).toHaveValue('0');
  await page.keyboard.type('30');
  await page.keyboard.press('Tab');
  await page.keyboard.type('12');
  await page.keyboard.press('Enter');
  await expect(done(page)).toBeVisible();
  await ada.isReady();
  expect((await ada.facts('Cylinder')).box).toEqual({ min: [-15, -15, 0], max: [15, 15, 12] });
  // By itself, so that the rim of the first is not caught.
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('treeitem')).toHaveCount(0);
  await ada.isReady();
  // A centre that was clicked, and Enter for what is shown: the rim, and then the height.
  await page.keyboard.press('c');
  await clicks(ada, [0, 0, 0]);
  await ada.pointsAt([20, 0, 0], { x: 0, y: 0 });
  await expect(field(page, 'diameter')).toHaveValue('40');
  await page.keyboard.press('Enter');
  await page.keyboard.type('8');
  await page.keyboard.press('Enter');
  await expect(done(page)).toBeVisible();
  await ada.isReady();
  expect((await ada.facts('Cylinder')).box).toEqual({ min: [-20, -20, 0], max: [20, 20, 8] });
  expect(ada.problems).toEqual([]);
});

test('tiers are drawn level by level, until Enter', async ({ page }) => {
  const ada = await withRoom(page, 'Tiers');
  await startsVerb(page, 'tiers');
  await clicks(ada, [0, 0, 0], [20, 0, 0], [20, 0, 10], [10, 0, 0]);
  await ada.pointsAt([10, 0, 30], { x: 0, y: 0 });
  await page.keyboard.press('Enter');
  await expect(done(page)).toBeVisible();
  await ada.isReady();
  const [part] = Object.values((await ada.document()).items);
  expect(part!.recipe.base).toMatchObject({
    levels: [
      { below: 40, height: 10 },
      { below: 20, height: 20 },
    ],
  });
  expect(ada.problems).toEqual([]);
});
