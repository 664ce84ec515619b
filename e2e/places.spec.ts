/** Edges, corners and faces of a part are selected by clicks, by regions and by name, and go into the next verb. */
import { expect, test, type Page } from '@playwright/test';
import { drags, inNewProject, says, selects, startsVerb, zoomsOut } from './doing.ts';

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

test('a region takes edges or corners of the selected part, as what is selected and for the statement in hand', async ({
  page,
}) => {
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
});

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
