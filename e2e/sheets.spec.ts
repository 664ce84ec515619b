/** Drawing sheets: views that follow the model, dimensions by clicks and by keys, sections, and files. */
import { readFileSync } from 'node:fs';
import { expect, test, type Page } from './tests.ts';
import type { Person } from './person.ts';
import { choosesIn, inNewProject, says, selects, startsVerb } from './doing.ts';

const paper = (page: Page) => page.getByTestId('paper');
const isDrawn = (page: Page) => expect(page.locator('[data-drawn="true"]')).toBeVisible();
const texts = (page: Page) => paper(page).locator('text');

/** A plate with a post on it. */
async function withFoot(page: Page, name: string): Promise<Person> {
  const ada = await inNewProject(page, name);
  await ada.makesBox(['120', '80', '10']);
  await ada.types('Escape');
  await ada.makesBox(['30', '30', '40'], ['45', '25', '10']);
  await ada.types('Escape');
  return ada;
}

async function makesSheet(ada: Person): Promise<void> {
  const { page } = ada;
  await page.getByRole('button', { name: 'New sheet' }).click();
  await ada.commits();
  await isDrawn(page);
  await ada.types('Escape');
}

/** On the paper, mm from its lower left corner → a pixel of the page. */
async function pixelOf(page: Page, [x, y]: readonly [number, number]): Promise<{ x: number; y: number }> {
  const box = (await paper(page).locator('> svg').boundingBox())!;
  return { x: box.x + (x / 420) * box.width, y: box.y + (1 - y / 297) * box.height };
}

async function clicksPaper(page: Page, place: readonly [number, number]): Promise<void> {
  const { x, y } = await pixelOf(page, place);
  await page.mouse.click(x, y);
}

async function pointsAtPaper(page: Page, place: readonly [number, number]): Promise<void> {
  const { x, y } = await pixelOf(page, place);
  await page.mouse.move(x, y);
}

/** The middle of a view, as the Spec says. */
async function middleOf(page: Page, view: string): Promise<[number, number]> {
  await page.getByRole('button', { name: new RegExp(`^${view} `) }).click();
  const read = async (label: string) => Number(await page.getByLabel(label, { exact: true }).inputValue());
  return [await read('From left'), await read('From below')];
}

test('a sheet is made, a length is told by clicks, and both follow the model', async ({ page }) => {
  const ada = await withFoot(page, 'Foot of a post');
  await makesSheet(ada);
  // The foot of the post is hidden by its top, and dashed; dashes are there to be seen.
  await expect(paper(page).locator('path[data-stroke="hidden"]').first()).toBeVisible();
  const [x, y] = await middleOf(page, 'Plan');
  await page.getByRole('button', { name: 'Dimension', exact: true }).click();
  // The plate is 120 × 80, drawn at 1:2.
  await clicksPaper(page, [x - 30, y + 20]);
  // What a click would make is drawn before it is made: over the second corner, and beside both.
  const preview = page.locator('[data-preview] text');
  await pointsAtPaper(page, [x + 30, y + 20]);
  await expect(preview).toHaveText('120');
  await clicksPaper(page, [x + 30, y + 20]);
  await pointsAtPaper(page, [x, y + 35]);
  const heightOf = async () => (await preview.boundingBox())!.y;
  const lower = await heightOf();
  await pointsAtPaper(page, [x, y + 45]);
  await expect.poll(heightOf).toBeLessThan(lower);
  await clicksPaper(page, [x, y + 35]);
  await expect(texts(page).filter({ hasText: /^120$/ })).toHaveCount(1);
  await expect(preview).toHaveCount(0);
  await ada.types('Escape');
  // The plate grows: the sheet is drawn anew, and the dimension says so.
  await page.getByRole('button', { name: 'Back to the views' }).click();
  await selects(page, 'Box');
  await page.getByLabel('Length', { exact: true }).fill('150');
  await page.getByLabel('Length', { exact: true }).press('Enter');
  await page.getByRole('button', { name: 'Sheet 1', exact: true }).click();
  await isDrawn(page);
  await expect(texts(page).filter({ hasText: /^150$/ })).toHaveCount(1);
  // What it measured is gone: it says so, and does not lie.
  await page.getByRole('button', { name: 'Back to the views' }).click();
  await selects(page, 'Box');
  await page.keyboard.press('Delete');
  await page.getByRole('button', { name: 'Sheet 1', exact: true }).click();
  await isDrawn(page);
  await expect(texts(page).filter({ hasText: 'what it measured is gone' })).toHaveCount(1);
  await expect(page.getByLabel('What is wrong on this sheet')).toContainText('D1: what it measured is gone');
});

test('a length square between two edges, each clicked anywhere along it, and a diameter from the side', async ({
  page,
}) => {
  const ada = await inNewProject(page, 'Edges');
  await ada.makesBox(['120', '80', '10']);
  await ada.types('Escape');
  await page.keyboard.press('c');
  for (const text of ['76', '30', '60', '40', '10']) await ada.types(text, 'Tab');
  await ada.commits();
  await ada.types('Escape');
  await startsVerb(page, 'sheet');
  await choosesIn(page, 'views', 'plan and front view');
  await ada.commits();
  await isDrawn(page);
  await ada.types('Escape');
  const [x, y] = await middleOf(page, 'Plan');
  await page.getByRole('button', { name: 'Dimension', exact: true }).click();
  // The sides of the plate, drawn at 1:1, at places that do not face each other.
  await clicksPaper(page, [x - 60, y + 20]);
  await clicksPaper(page, [x + 60, y - 20]);
  await clicksPaper(page, [x, y + 55]);
  await expect(texts(page).filter({ hasText: /^120$/ })).toHaveCount(1);
  await ada.types('Escape');
  const [frontX, frontY] = await middleOf(page, 'Front');
  await page.getByRole('button', { name: 'Dimension', exact: true }).click();
  // The upper rim of the cylinder: 40 above the ground, of 40.
  await clicksPaper(page, [frontX + 19, frontY + 20]);
  await expect(page.locator('[data-blank="kind"]')).toContainText('diameter');
  await clicksPaper(page, [frontX + 20, frontY + 35]);
  await expect(texts(page).filter({ hasText: /^Ø76$/ })).toHaveCount(1);
  expect(ada.problems).toEqual([]);
});

test('drawing is stopped, and gone on with', { tag: '@long' }, async ({ page }) => {
  const ada = await withFoot(page, 'Stopped');
  await says(ada, 'grid', {
    typed: { columns: '10', 'column every': '40', rows: '10', 'row every': '40' },
  });
  await startsVerb(page, 'sheet');
  await choosesIn(page, 'views', 'the isometric view');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Stop drawing' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'Stopped' })).toBeVisible();
  await expect(paper(page).locator('[data-entry] path[data-stroke="visible"]')).toHaveCount(0);
  await page.getByRole('button', { name: 'Draw again' }).click();
  await isDrawn(page);
  await expect(paper(page).locator('[data-entry] path[data-stroke="visible"]').first()).toBeAttached();
  expect(ada.problems).toEqual([]);
});

test('a section is put on a sheet with its letters and its hatch, and a view is dragged', async ({
  page,
}) => {
  const ada = await withFoot(page, 'Foot, cut');
  await startsVerb(page, 'section plane');
  await choosesIn(page, 'on', 'Front: upright, along X');
  await page.getByRole('textbox', { name: 'offset', exact: true }).fill('-30');
  await ada.commits();
  await ada.types('Escape');
  await page.keyboard.press('Escape');
  await makesSheet(ada);
  await page.getByRole('button', { name: 'View', exact: true }).click();
  await choosesIn(page, 'section', 'Section');
  await ada.commits();
  await ada.types('Escape');
  await isDrawn(page);
  await expect(texts(page).filter({ hasText: 'A–A' })).toHaveCount(1);
  expect(await paper(page).locator('path[data-stroke="hatch"]').count()).toBeGreaterThan(10);
  // Its trace, in the plan and from the right: an arrow and a letter at each end.
  await expect(texts(page).filter({ hasText: /^A$/ })).toHaveCount(4);
  const from = await middleOf(page, 'Section');
  const [start, end] = [await pixelOf(page, from), await pixelOf(page, [from[0] + 20, from[1] - 10])];
  await page.mouse.move(start.x, start.y);
  await page.mouse.down();
  await page.mouse.move(end.x, end.y, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => (await middleOf(page, 'Section'))[0]).toBeCloseTo(from[0] + 20, 0);
});

test('by keys alone: a sheet, a length from point to point, and a PDF', async ({ page }) => {
  const ada = await withFoot(page, 'Foot, by keys');
  await startsVerb(page, 'sheet');
  await ada.commits();
  await isDrawn(page);
  await ada.types('Escape');
  await startsVerb(page, 'dimension');
  await page
    .getByRole('textbox', { name: 'of', exact: true })
    .fill('Box 2: top&front&left; Box 2: top&front&right');
  await choosesIn(page, 'view', 'Front');
  await ada.commits();
  await ada.types('Escape');
  await expect(texts(page).filter({ hasText: /^30$/ })).toHaveCount(1);
  // From point to point by arrows, taken by the space bar.
  await startsVerb(page, 'dimension');
  await paper(page).focus();
  for (const key of ['ArrowRight', ' ', 'ArrowUp', ' ']) await page.keyboard.press(key);
  await expect(page.getByRole('textbox', { name: 'of', exact: true })).toHaveValue(/ and /);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  const downloading = page.waitForEvent('download');
  await page.keyboard.press('Control+e');
  await page.getByRole('radio', { name: /^PDF/ }).press('Enter');
  const path = await (await downloading).path();
  expect(readFileSync(path).subarray(0, 5).toString()).toBe('%PDF-');
});

test(
  'a level and a north arrow are put on a sheet, a dimension is tied to something else, and the paper gets a size of its own',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await withFoot(page, 'Symbols');
    await makesSheet(ada);
    const [x, y] = await middleOf(page, 'Front');
    await page.getByRole('button', { name: 'Dimension', exact: true }).click();
    await choosesIn(page, 'kind', 'level');
    // The top of the post is 25 mm above the middle, and its side 15 mm beside it; drawn at 1:2.
    await clicksPaper(page, [x + 7.5, y + 12.5]);
    await clicksPaper(page, [x + 40, y + 20]);
    await ada.commits();
    await ada.types('Escape');
    await expect(texts(page).filter({ hasText: /^\+50$/ })).toHaveCount(1);
    await page.getByRole('button', { name: /^D1 / }).click();
    await page.getByRole('button', { name: 'Measure something else' }).click();
    await clicksPaper(page, [x + 30, y - 7.5]);
    await ada.commits();
    await ada.types('Escape');
    await expect(texts(page).filter({ hasText: /^\+10$/ })).toHaveCount(1);
    await page.getByRole('button', { name: 'North', exact: true }).click();
    await choosesIn(page, 'view', 'Plan');
    await clicksPaper(page, [300, 60]);
    await ada.commits();
    await ada.types('Escape');
    await expect(texts(page).filter({ hasText: /^N$/ })).toHaveCount(1);
    await page.getByLabel('Width', { exact: true }).fill('500');
    await page.getByLabel('Width', { exact: true }).press('Enter');
    await expect(page.getByLabel('Paper', { exact: true })).toHaveValue('own');
    expect(ada.problems).toEqual([]);
  },
);

test(
  'a detail is taken of a view by a click, with its letter in both',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await withFoot(page, 'Foot, enlarged');
    await makesSheet(ada);
    const [x, y] = await middleOf(page, 'Plan');
    await page.getByRole('button', { name: 'Detail', exact: true }).click();
    // A corner of the plate, 120 × 80 at 1:2; then a free place on the paper.
    await clicksPaper(page, [x - 30, y + 20]);
    await page.getByRole('textbox', { name: 'within', exact: true }).fill('15');
    await ada.commits();
    await ada.types('Escape');
    await isDrawn(page);
    await expect(texts(page).filter({ hasText: /^Z$/ })).toHaveCount(1);
    await expect(texts(page).filter({ hasText: 'Z (1:1)' })).toHaveCount(1);
    await expect(page.getByRole('button', { name: /^Detail of Plan/ })).toBeVisible();
    expect(ada.problems).toEqual([]);
  },
);
