/** Fields of the Spec: what is typed is committed once, and the keyboard belongs to the view again. */
import { expect, test } from './tests.ts';
import { inNewProject, selects } from './doing.ts';

test('Enter commits a number and leaves the field; the next letter is a shortcut, and undo is the model’s', async ({
  page,
}) => {
  const ada = await inNewProject(page, 'Fields');
  await ada.makesBox(['40', '30', '20']);
  await page.keyboard.press('Escape');
  await selects(page, 'Box');
  const length = page.getByRole('textbox', { name: 'Length', exact: true });
  await length.fill('55');
  await length.press('Enter');
  await expect.poll(async () => (await ada.facts('Box')).volume).toBeCloseTo(55 * 30 * 20, 6);
  await expect(length).not.toBeFocused();
  await page.keyboard.press('m');
  await expect(page.getByText(/^Move/).first()).toBeVisible();
  await expect(length).toHaveValue('55');
  await page.keyboard.press('Escape');
  // Thousands as Facts show them, and a comma for decimals.
  await length.fill('1 200');
  await length.press('Tab');
  await expect.poll(async () => (await ada.facts('Box')).volume).toBeCloseTo(1200 * 30 * 20, 6);
  const width = page.getByRole('textbox', { name: 'Width', exact: true });
  await expect(width).toBeFocused();
  await page.keyboard.press('Control+z');
  await expect(length).toHaveValue('55');
  await width.fill('12,5');
  await width.press('Enter');
  await expect(width).toHaveValue('12.5');
  await width.fill('12 qq');
  await width.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'is not a unit' })).toBeVisible();
  await expect(width).toBeFocused();
  await width.press('Escape');
  await expect(width).toHaveValue('12.5');
  expect(ada.problems).toEqual([]);
});

test('what was deleted keeps its name in the bar', async ({ page }) => {
  const ada = await inNewProject(page, 'Names');
  await ada.makesBox(['40', '30', '20'], ['0', '0', '0'], 'Lid');
  await page.keyboard.press('Escape');
  await selects(page, 'Lid');
  await page.keyboard.press('Delete');
  await expect(page.getByRole('treeitem', { name: 'Lid', exact: true })).toHaveCount(0);
  await expect(page.locator('[data-blank="parts"]')).toHaveText('Lid');
  expect(ada.problems).toEqual([]);
});

test('Delete takes the member of a pattern that was clicked, and from the tree all of it', async ({
  page,
}) => {
  const ada = await inNewProject(page, 'Members');
  await ada.makesBox(['20', '20', '20'], ['0', '0', '0'], 'Post');
  await page.keyboard.press('Escape');
  await selects(page, 'Post');
  await page.keyboard.press('r');
  await page.getByLabel('in all', { exact: true }).fill('4');
  await page.getByLabel('every', { exact: true }).fill('60');
  await ada.commits();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await ada.fitsAll();
  const row = page.getByRole('treeitem', { name: 'Post row', exact: true });
  await ada.clicksAt([130, 10, 20]);
  await page.keyboard.press('Delete');
  await expect(row).toContainText('row · 3');
  await expect(page.getByText(/Leave out/).first()).toBeVisible();
  await page.keyboard.press('Escape');
  await selects(page, 'Post row');
  await page.keyboard.press('Delete');
  await expect(row).toHaveCount(0);
  expect(ada.problems).toEqual([]);
});
