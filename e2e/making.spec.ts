/** Whether parts can be made: a thin wall is found in colours and thickened; what hangs over is turned. */
import { violationsOf } from './axe.ts';
import { expect, test, type Page } from './tests.ts';
import { inNewProject, startsVerb } from './doing.ts';

const report = (page: Page) => page.getByRole('complementary', { name: 'Fit report' });
const finding = (page: Page, words: string | RegExp) =>
  report(page).getByRole('list', { name: 'Findings' }).getByRole('button').filter({ hasText: words });
const hasFaults = (page: Page, words: string) =>
  expect(report(page).getByRole('status').filter({ hasText: words })).toBeVisible();

async function selects(page: Page, first: string, second: string): Promise<void> {
  await page.getByRole('treeitem', { name: first, exact: true }).click();
  await page.getByRole('treeitem', { name: second, exact: true }).click({ modifiers: ['Control'] });
}

async function opensMaking(page: Page): Promise<void> {
  await page.getByRole('button', { name: /^Fit/ }).click();
  await report(page).getByRole('button', { name: 'Making' }).click();
  await expect(report(page).getByRole('button', { name: 'Look again' })).toBeVisible();
}

test(
  'a thin wall is found, shown in colours, and thickened by its remedy',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Thin');
    await ada.makesBox(['40', '30', '20'], ['0', '0', '0'], 'block');
    await ada.types('Escape');
    await ada.makesBox(['36', '26', '30'], ['2', '2', '0.5'], 'hollow');
    await ada.types('Escape');
    await selects(page, 'block', 'hollow');
    await ada.types('x');
    await ada.commits();
    await ada.types('Escape');
    await opensMaking(page);
    await hasFaults(page, '1 fault.');
    await finding(page, /Wall.*thinnest wall is 0\.5 mm.*0\.8 mm is wanted/).click();
    await report(page).getByRole('button', { name: 'Show all walls in colours' }).click();
    await expect(report(page).getByRole('list', { name: 'Colours of walls' })).toContainText(
      'below 0.8 mm: too thin',
    );
    expect(await violationsOf(page)).toEqual([]);
    await report(page).getByRole('button', { name: 'Thicken it' }).click();
    await ada.commits();
    await hasFaults(page, 'No faults.');
    await expect(finding(page, /Wall.*thinnest wall is 0\.8 mm/)).toBeVisible();
    await expect(finding(page, /Mass.*PLA/)).toBeVisible();
    expect(ada.problems).toEqual([]);
  },
);

test('what hangs over is turned by its remedy, and what does not fit the bed is told, by keys alone', async ({
  page,
}) => {
  const ada = await inNewProject(page, 'Table');
  await ada.makesBox(['10', '10', '20'], ['15', '15', '0'], 'foot');
  await ada.types('Escape');
  await ada.makesBox(['40', '40', '5'], ['0', '0', '20'], 'top');
  await ada.types('Escape');
  await selects(page, 'foot', 'top');
  await startsVerb(page, 'Union');
  await ada.commits();
  await ada.types('Escape');
  await opensMaking(page);
  const hanging = finding(page, /Overhang.*1.500\.00 mm² hang over by more than 45°/);
  await hanging.press('Enter');
  const turn = report(page).getByRole('button', { name: /^Turn it 180° about X/ });
  await turn.press('Enter');
  await ada.commits();
  await hasFaults(page, 'No faults.');
  await expect(hanging).toBeHidden();
  await report(page).getByText('What is wanted').press('Enter');
  await report(page).getByLabel('Has to fit on a bed').press('Space');
  await report(page).getByLabel('Bed along Z', { exact: true }).fill('20');
  await report(page).getByLabel('Bed along Z', { exact: true }).press('Enter');
  await hasFaults(page, '1 fault.');
  await expect(finding(page, /Bed.*It does not fit/)).toBeVisible();
  expect(ada.problems).toEqual([]);
});
