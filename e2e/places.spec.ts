/** Edges, corners and faces of a part are selected by clicks, by regions and by name, and go into the next verb. */
import { expect, test, type Page } from './tests.ts';
import type { Vec3 } from '@kadrel/core';
import { choosesIn, drags, inNewProject, says, selects, startsVerb, zoomsOut } from './doing.ts';
import type { Person } from './person.ts';

const CORNER = 1 - Math.PI / 4;
const near = (value: number) => expect.closeTo(value, 5);
const selected = (page: Page) => page.getByRole('button', { name: /^Selected of the part/ });

/** Opens *Select* and chooses some of its words. */
async function chooses(page: Page, ...words: string[]): Promise<void> {
  await page.getByTitle('How parts are selected').click();
  for (const word of words) await page.getByRole('radio', { name: word, exact: true }).click();
  await page.keyboard.press('Escape');
}

test('a further click selects an edge, keys add to it, its sizes are told, and a fillet takes what is selected', async ({
  page,
}) => {
  const ada = await inNewProject(page, 'Edges');
  await ada.makesBox(['40', '30', '20']);
  await ada.types('Escape', 'Escape');
  await ada.fitsAll();
  await ada.clicksAt([20, 8, 20]);
  await ada.clicksAt([40, 15, 20]);
  await expect(selected(page)).toHaveText('top · right');
  await expect(page.getByTestId('place-length')).toHaveText('30 mm');
  await expect(page.getByTestId('place-angle')).toHaveText('90° between its faces');
  await page.keyboard.down('Control');
  await ada.clicksAt([40, 0, 10]);
  await page.keyboard.up('Control');
  await expect(selected(page)).toHaveText('2 edges');
  await expect(page.getByTestId('place-length')).toHaveText('50 mm');
  // A corner tells where it is.
  await ada.clicksAt([40, 0, 20]);
  await expect(page.getByTestId('place-corner')).toHaveText(/^40\s+0\s+20$/);
  await ada.clicksAt([40, 15, 20]);
  await startsVerb(page, 'fillet');
  await expect(page.locator('[data-blank="edges"]')).toHaveText(/right.*top|top.*right/);
  await page.getByRole('textbox', { name: 'radius', exact: true }).fill('4');
  await ada.commits();
  expect((await ada.facts('Box')).volume).toEqual(near(24_000 - CORNER * 16 * 30));
  // The edge is no more: nothing of it is left selected, nor goes into the next verb.
  await ada.types('Escape');
  await expect(selected(page)).toHaveText('none; click the part again');
  await startsVerb(page, 'fillet');
  await expect(page.locator('[data-blank="edges"]')).toHaveText('click edges…');
  expect(ada.problems).toEqual([]);
});

test(
  'a region takes edges or corners of the selected part, as what is selected and for the statement in hand',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Regions of places');
    await ada.makesBox(['40', '30', '20']);
    await ada.types('Escape', 'Escape');
    await ada.looks('Plan');
    await ada.fitsAll();
    await zoomsOut(ada);
    await chooses(page, 'its edges', 'enclosed');
    // Nothing is selected yet: it says so, and takes nothing.
    await drags(ada, [30, -8, 20], [48, 38, 20]);
    await expect(page.getByText('Select one part first').first()).toBeVisible();
    await selects(page, 'Box');
    await drags(ada, [30, -8, 20], [48, 38, 20]);
    await expect(selected(page)).toHaveText('4 edges');
    await expect(page.getByTestId('place-length')).toHaveText('100 mm');
    await chooses(page, 'only what is seen');
    await drags(ada, [30, -8, 20], [48, 38, 20]);
    await expect(selected(page)).toHaveText('top · right');
    await page.keyboard.press('Escape');

    // Reshape takes the two upper corners at the right, and moves them in by 10: a wedge of 10 × 20 ÷ 2 goes.
    await startsVerb(page, 'reshape');
    await chooses(page, 'its corners');
    await drags(ada, [30, -8, 20], [48, 38, 20]);
    await expect(page.locator('[data-blank="places"]')).toHaveText(/2 places|2 corners/);
    await page.getByRole('textbox', { name: 'by X', exact: true }).fill('-10');
    await ada.commits();
    expect((await ada.facts('Box')).volume).toEqual(near(24_000 - 100 * 30));
    expect(ada.problems).toEqual([]);
  },
);

test('by keyboard: a rule and a name from the list of the Spec', async ({ page }) => {
  const ada = await inNewProject(page, 'Listed');
  await ada.makesBox(['40', '30', '20']);
  await ada.types('Escape');
  await selects(page, 'Box');
  await selected(page).press('ArrowDown');
  await page.getByRole('option', { name: 'all edges along Z', exact: true }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('place-length')).toHaveText('80 mm');
  await selected(page).blur();
  await says(ada, 'chamfer', { typed: { width: '2' } });
  expect((await ada.facts('Box')).volume).toEqual(near(24_000 - 4 * 2 * 20));
  // What is seldom set is there too, and can be changed afterwards.
  await page.getByRole('button', { name: 'More of step 1' }).press('Enter');
  await page.getByLabel('Second width of step 1').fill('3');
  await page.getByLabel('Second width of step 1').press('Enter');
  await expect.poll(async () => (await ada.facts('Box')).volume).toEqual(near(24_000 - 4 * 3 * 20));
  expect(ada.problems).toEqual([]);
});

test(
  'a selected face is pulled by its arrow, in steps, to the level of what is caught, and back by a number',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Pulling');
    await ada.makesBox(['20', '20', '20']);
    await ada.makesBox(['10', '10', '37'], ['40', '0', '0'], 'Post');
    await ada.types('Escape', 'Escape');
    await ada.fitsAll();
    await selects(page, 'Box');
    await ada.clicksAt([6, 6, 20]);
    await expect(selected(page)).toHaveText('top');
    await pulls(ada, [10, 10, 20], [10, 10, 30]);
    await expect.poll(async () => (await ada.facts('Box')).volume).toEqual(near(20 * 20 * 30));
    // A corner beside it is caught: the face goes to its level.
    await pulls(ada, [10, 10, 30], [40, 0, 37]);
    await expect.poll(async () => (await ada.facts('Box')).volume).toEqual(near(20 * 20 * 37));
    const distance = page.getByRole('textbox', { name: 'distance', exact: true });
    await distance.fill('-5');
    await ada.commits();
    expect((await ada.facts('Box')).volume).toEqual(near(20 * 20 * 25));
    await expect(page.getByRole('list', { name: 'Steps' }).getByRole('listitem')).toHaveCount(2);
    expect(ada.problems).toEqual([]);
  },
);

test(
  'edges that run on from one are chosen in the list, and the step is given others afterwards',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Running on');
    await ada.makesBox(['40', '30', '20']);
    await ada.types('Escape', 'Escape');
    await selects(page, 'Box');
    await says(ada, 'fillet', { chosen: { edges: 'all edges along Z' }, typed: { radius: '5' } });
    await startsVerb(page, 'fillet');
    await choosesIn(page, 'edges', 'top · front');
    await page.getByRole('option', { name: 'all edges on from top · front' }).click();
    await page.keyboard.press('Escape');
    await page.getByRole('textbox', { name: 'radius', exact: true }).fill('2');
    await ada.commits();
    await ada.types('Escape');
    // Off the straight edges, and off the quarters of a ring at the corners, by Pappus.
    const rim = CORNER * 4 * (100 + 2 * Math.PI * (3 + 1 / 3 / CORNER));
    const rounded = (40 * 30 - (4 - Math.PI) * 25) * 20 - rim;
    expect((await ada.facts('Box')).volume).toEqual(near(rounded));
    await page.getByRole('button', { name: 'Choose anew for step 2' }).click();
    await choosesIn(page, 'edges', 'all edges on from top · front');
    await page.getByRole('option', { name: 'all edges around bottom', exact: true }).click();
    await page.keyboard.press('Escape');
    await ada.commits();
    expect((await ada.facts('Box')).volume).toEqual(near(rounded));
    const part = Object.values((await ada.document()).items)[0]!;
    expect(part.recipe.steps[1]).toMatchObject({ kind: 'fillet', edges: [{ around: 'bottom' }] });
    expect(ada.problems).toEqual([]);
  },
);

/** Takes the arrow that stands on a face, upright, and drags it. */
async function pulls(ada: Person, from: Vec3, to: Vec3): Promise<void> {
  await ada.isReady();
  const [foot, above, end] = await Promise.all([
    ada.screenOf(from),
    ada.screenOf([from[0], from[1], from[2] + 1]),
    ada.screenOf(to),
  ]);
  const size = Math.hypot(above.x - foot.x, above.y - foot.y);
  const hold = {
    x: foot.x + (GRIP_PX * (above.x - foot.x)) / size,
    y: foot.y + (GRIP_PX * (above.y - foot.y)) / size,
  };
  // Straight up, the arrow comes along with the pointer; to what is caught, the pointer goes itself.
  const isUpright = from[0] === to[0] && from[1] === to[1];
  const by = isUpright ? { x: hold.x - foot.x, y: hold.y - foot.y } : { x: 0, y: 0 };
  await ada.page.mouse.move(hold.x, hold.y);
  await ada.page.mouse.down();
  await ada.page.mouse.move(end.x + by.x, end.y + by.y, { steps: 6 });
  await ada.isReady();
  await ada.page.mouse.move(end.x + by.x, end.y + by.y + 0.4);
  await ada.page.mouse.up();
  await ada.isReady();
}
/** Somewhere on the arrow, pixels from the face. */
const GRIP_PX = 45;
