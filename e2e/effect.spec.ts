/** What would change nothing is reported, and done only when it is said again. */
import { expect, test, type Page } from './tests.ts';
import { inNewProject, selects } from './doing.ts';

async function makesBox(page: Page, ...texts: string[]) {
  await page.keyboard.press('b');
  for (const text of texts) {
    await page.keyboard.type(text);
    await page.keyboard.press('Tab');
  }
  await page.keyboard.press('Enter');
  await expect(page.getByText('done; change a blank to adjust')).toBeVisible();
  await page.keyboard.press('Escape');
}

test('a subtraction that takes nothing out asks for Enter again', async ({ page }) => {
  const ada = await inNewProject(page, 'Effect');
  await makesBox(page, '100', '60', '8');
  await makesBox(page, '10', '10', '10', '200', '0', '0');
  await selects(page, 'Box', 'Box 2');
  await page.keyboard.press('x');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/Nothing of Box 2 lies within Box:/).first()).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByText('done; change a blank to adjust')).toBeVisible();
  const { volume } = await ada.facts('Box');
  expect(volume).toBeCloseTo(48000, 6);
  expect(ada.problems).toEqual([]);
});
