/** How parts stand to one another: found, shown, mended; measures that are kept, and fits that are wanted. */
import { readFileSync } from 'node:fs';
import { expect, test, type Page } from './tests.ts';
import { choosesIn, inNewProject, says, selects, startsVerb } from './doing.ts';
import type { Person } from './person.ts';

const report = (page: Page) => page.getByRole('complementary', { name: 'Fit report' });
const finding = (page: Page, words: string | RegExp) =>
  report(page).getByRole('list', { name: 'Findings' }).getByRole('button').filter({ hasText: words });
const isLookedAt = (page: Page) =>
  expect(report(page).getByRole('button', { name: 'Look again' })).toBeVisible();
const hasFaults = (page: Page, words: string) =>
  expect(report(page).getByRole('status').filter({ hasText: words })).toBeVisible();

async function opensReport(page: Page): Promise<void> {
  await page.getByRole('button', { name: /^Fit/ }).click();
  await isLookedAt(page);
}

/** A cylinder by its numbers: diameter, height, and where it stands. */
async function makesCylinder(ada: Person, diameter: string, height: string, z: string): Promise<void> {
  await ada.types('c');
  for (const text of [diameter, height, '0', '0', z]) await ada.types(text, 'Tab');
  await ada.commits();
  await ada.types('Escape');
}

test('a column that floats by a hair is found, shown and seated', async ({ page }) => {
  const ada = await inNewProject(page, 'Column');
  await makesCylinder(ada, '20', '10', '0');
  await makesCylinder(ada, '20', '10', '10');
  await makesCylinder(ada, '18', '10', '20.01');
  await makesCylinder(ada, '18', '10', '30.01');
  await opensReport(page);
  await hasFaults(page, '1 fault.');
  await expect(page.getByRole('button', { name: 'Fit 1 fault' })).toBeVisible();
  await finding(page, /Floating.*fall 0\.01 mm onto Cylinder 2/).click();
  await report(page).getByRole('button', { name: 'Seat it' }).click();
  await ada.commits();
  await ada.types('Escape');
  // What stood on it has now lost what carried it, and is seated too.
  await finding(page, /Floating.*Cylinder 4/).click();
  await report(page).getByRole('button', { name: 'Seat it' }).click();
  await ada.commits();
  await hasFaults(page, 'No faults.');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    report(page).getByRole('button', { name: 'Write PDF' }).click(),
  ]);
  expect(file.suggestedFilename()).toBe('fit report.pdf');
  expect(
    readFileSync(await file.path())
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-');
  expect(ada.problems).toEqual([]);
});

test('what is looked at is chosen, and what reaches over the site is moved inside', async ({ page }) => {
  const ada = await inNewProject(page, 'Site');
  await ada.makesBox(['20', '20', '20'], ['0', '0', '0'], 'one');
  await ada.types('Escape');
  await ada.makesBox(['20', '20', '20'], ['21', '0', '0'], 'two');
  await ada.types('Escape');
  await ada.makesBox(['20', '20', '20'], ['210', '0', '0'], 'three');
  await ada.types('Escape');
  await opensReport(page);
  await expect(finding(page, 'one and two')).toBeVisible();
  await report(page).getByLabel('Has to stand on a bed or site').check();
  await finding(page, /Outside the site.*10 mm beyond the far end along X/).click();
  await report(page).getByRole('button', { name: 'Move it inside' }).click();
  await ada.commits();
  await ada.types('Escape');
  await hasFaults(page, 'No faults.');
  expect((await ada.facts('three')).box.max[0]).toBeCloseTo(220, 9);
  await selects(page, 'two', 'three');
  await report(page).getByLabel('Looked at').selectOption('within the chosen');
  await isLookedAt(page);
  await expect(finding(page, 'one and two')).toHaveCount(0);
  expect(ada.problems).toEqual([]);
});

test('doubles and overlaps are found; one is deleted, one is meant', { tag: '@long' }, async ({ page }) => {
  const ada = await inNewProject(page, 'Doubles');
  await ada.makesBox(['20', '20', '20'], ['0', '0', '0']);
  await ada.types('Escape');
  await ada.makesBox(['20', '20', '20'], ['0', '0', '0']);
  await ada.types('Escape');
  await ada.makesBox(['20', '20', '20'], ['18', '0', '0']);
  await ada.types('Escape');
  await opensReport(page);
  await hasFaults(page, '3 faults.');
  await finding(page, /^.*Double/).click();
  await report(page).getByRole('button', { name: 'Delete the double' }).click();
  await ada.commits();
  await ada.types('Escape');
  await hasFaults(page, '1 fault.');
  await finding(page, /They share 800/).click();
  await report(page).getByRole('button', { name: 'Mark as meant' }).click();
  await page.keyboard.type('glued');
  await ada.commits();
  await hasFaults(page, 'No faults.');
  await expect(finding(page, 'Meant: glued')).toBeVisible();
  await ada.types('Escape');
  await report(page).getByRole('button', { name: 'Not meant any more' }).click();
  await hasFaults(page, '1 fault.');
  expect(ada.problems).toEqual([]);
});

test('a kept measure with a limit tells when a size breaks it, by keys alone', async ({ page }) => {
  const ada = await inNewProject(page, 'Gap');
  await ada.makesBox(['20', '20', '20'], ['0', '0', '0'], 'left side');
  await ada.types('Escape');
  await ada.makesBox(['20', '20', '20'], ['26', '0', '0'], 'right side');
  await ada.types('Escape');
  await startsVerb(page, 'Measure');
  await ada.types('left side', 'Tab', 'right side', 'Tab');
  await expect(page.getByLabel('Measured')).toContainText('least distance 6 mm');
  await page.getByLabel('at least', { exact: true }).fill('6 mm');
  await ada.commits();
  await ada.types('Escape');
  await expect(page.getByTestId('measure').filter({ hasText: 'M1: 6 mm' }).first()).toBeVisible();
  // What was in hand is not shown on.
  await expect(page.getByTestId('measure').filter({ hasText: 'least distance' }).first()).not.toBeVisible();
  await opensReport(page);
  await hasFaults(page, 'No faults.');
  // The left one grows, and the gap is less than it may be.
  await page.getByRole('button', { name: 'Close the fit report' }).click();
  await page.getByRole('treeitem', { name: 'left side' }).click();
  await page.getByLabel('Length', { exact: true }).fill('21');
  await ada.types('Enter');
  await expect(page.getByRole('button', { name: 'Fit 1 fault' })).toBeVisible();
  await page.getByRole('button', { name: 'Fit 1 fault' }).click();
  await expect(finding(page, '5 mm: less than 6 mm.')).toBeVisible();
  expect(ada.problems).toEqual([]);
});

test('a sliding fit that is missed is mended by its remedy', async ({ page }) => {
  const ada = await inNewProject(page, 'Lid');
  await ada.makesBox(['20', '20', '20'], ['0', '0', '0'], 'the case');
  await ada.types('Escape');
  await ada.makesBox(['20', '20', '20'], ['20.1', '0', '0'], 'the slide');
  await ada.types('Escape');
  await startsVerb(page, 'Wanted fit');
  await ada.types('the case', 'Tab', 'the slide', 'Tab');
  await page.getByLabel('at least', { exact: true }).fill('0.2 mm');
  await page.getByLabel('at most', { exact: true }).fill('0.4 mm');
  await ada.commits();
  await ada.types('Escape');
  await opensReport(page);
  await finding(page, /Wanted fit.*0\.1 mm; wanted is between/).click();
  await report(page).getByRole('button', { name: 'Move the second' }).click();
  await ada.commits();
  await hasFaults(page, 'No faults.');
  await expect(finding(page, /Wanted fit.*0\.3 mm/)).toBeVisible();
  expect(ada.problems).toEqual([]);
});

test(
  'a variable is set from a kept measure and follows it; a mass is kept with its material',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Bee space');
    await ada.makesBox(['60', '40', '20'], ['0', '0', '0'], 'tray');
    await ada.types('Escape');
    await ada.makesBox(['10', '10', '10'], ['90', '10', '0'], 'knob');
    await ada.types('Escape');
    await says(ada, 'Measure', { typed: { of: 'tray', to: 'knob' } });
    const measures = page.getByRole('list', { name: 'Measures and wanted fits' });
    await expect(measures.getByRole('button', { name: /^M1 30 mm/ })).toBeVisible();
    await page.getByLabel('Name of a new variable').fill('gap');
    await page.getByLabel('Value of the new variable').fill('measure("M1")');
    await page.keyboard.press('Enter');
    await expect(page.getByTestId('value of gap')).toHaveText('30 mm');
    await page.getByRole('treeitem', { name: 'tray', exact: true }).click();
    await ada.makesBox(['gap', '5', '5'], ['0', '80', '0'], 'bar');
    await ada.types('Escape');
    await page.getByRole('treeitem', { name: 'knob', exact: true }).click();
    await page.getByRole('textbox', { name: 'Place X', exact: true }).fill('95');
    await page.keyboard.press('Enter');
    await expect(page.getByTestId('value of gap')).toHaveText('35 mm');
    await ada.isReady();
    expect((await ada.facts('bar')).box.max[0]).toBeCloseTo(35, 9);
    await startsVerb(page, 'Measure');
    await page.getByRole('textbox', { name: 'of', exact: true }).fill('tray');
    await choosesIn(page, 'what', 'mass');
    await choosesIn(page, 'material', 'Steel');
    await ada.commits();
    await ada.types('Escape');
    // 48 cm³ at 7.85 g/cm³.
    await expect(measures.getByRole('button', { name: /^M2 376\.8 g/ })).toBeVisible();
    await page.getByRole('button', { name: 'Forget M1' }).click();
    await expect(page.getByText('The variable gap is set from M1')).toBeVisible();
    expect(ada.problems).toEqual([]);
  },
);
