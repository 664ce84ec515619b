/** How many clicks and keys everyday jobs take: no more than is said here, and what they are meant for comes of them. */
import { expect, test, type Page } from './tests.ts';
import { inNewProject, selects, startsVerb } from './doing.ts';

/** From now on: a press of a button of the mouse, and a key with what is held down with it, count as one each. */
const beginsCounting = (page: Page) =>
  page.evaluate(() => {
    const isCounted = window.effort !== undefined;
    window.effort = 0;
    // Another test has left the page open.
    if (isCounted) return;
    const held = ['Shift', 'Control', 'Alt', 'Meta'];
    const count = () => (window.effort = (window.effort ?? 0) + 1);
    addEventListener('pointerdown', count, true);
    addEventListener('keydown', ({ key, repeat }) => !repeat && !held.includes(key) && count(), true);
  });

const effortIn = (page: Page) => page.evaluate(() => window.effort);

declare global {
  interface Window {
    effort?: number;
  }
}

test('a line, by two clicks', async ({ page }) => {
  const ada = await inNewProject(page, 'A line');
  await beginsCounting(page);
  await startsVerb(page, 'line');
  await ada.clicksAt([0, 0, 0]);
  await ada.clicksAt([40, 0, 0]);
  await expect(page.getByRole('treeitem')).toHaveCount(1);
  expect(await effortIn(page)).toBeLessThanOrEqual(8);
});

test('a sphere, by its centre and its rim', async ({ page }) => {
  const ada = await inNewProject(page, 'A sphere');
  await beginsCounting(page);
  await startsVerb(page, 'sph');
  await ada.clicksAt([0, 0, 0]);
  await ada.clicksAt([20, 0, 0]);
  await ada.isReady();
  expect((await ada.facts('Sphere')).volume).toBeGreaterThan(0);
  expect(await effortIn(page)).toBeLessThanOrEqual(7);
});

test('three duplicates along X, 30 apart', async ({ page }) => {
  const ada = await inNewProject(page, 'Duplicates');
  await ada.makesBox(['20', '20', '20'], ['0', '0', '0'], 'Block');
  await page.keyboard.press('Escape');
  await beginsCounting(page);
  await selects(page, 'Block');
  await page.keyboard.press('Control+d');
  await page.keyboard.type('30');
  await ada.commits();
  for (const count of [3, 4]) {
    await page.keyboard.press('Control+Enter');
    await expect(page.getByRole('treeitem')).toHaveCount(count);
    await ada.isReady();
  }
  expect(await effortIn(page)).toBeLessThanOrEqual(7);
  const boxes = await Promise.all(
    Object.values((await ada.document()).items).map(({ name }) => ada.facts(name)),
  );
  expect(boxes.map(({ box }) => box.min[0]).sort((one, other) => one - other)).toEqual([0, 30, 60, 90]);
});

test('a ring of twelve round the middle of a table', async ({ page }) => {
  const ada = await inNewProject(page, 'A ring');
  await ada.makesBox(['20', '20', '30'], ['80', '-10', '0'], 'Seat');
  await ada.makesBox(['60', '60', '5'], ['-30', '-30', '0'], 'Table');
  await page.keyboard.press('Escape');
  await ada.fitsAll();
  await beginsCounting(page);
  await selects(page, 'Seat');
  await page.keyboard.press('Shift+R');
  await page.keyboard.type('12');
  await ada.clicksAt([0, 0, 5]);
  await ada.commits();
  expect(await effortIn(page)).toBeLessThanOrEqual(6);
  expect((await ada.facts('Seat ring')).volume).toBeCloseTo(12 * 20 * 20 * 30, 6);
});

test('a STEP file, by keyboard alone', async ({ page }) => {
  const ada = await inNewProject(page, 'A file');
  await ada.makesBox(['20', '20', '30']);
  await page.keyboard.press('Escape');
  await beginsCounting(page);
  const downloading = page.waitForEvent('download');
  await page.keyboard.press('Control+e');
  await expect(page.getByRole('dialog')).toHaveCount(1);
  await page.keyboard.press('Enter');
  expect((await downloading).suggestedFilename()).toMatch(/\.step$/);
  expect(await effortIn(page)).toBeLessThanOrEqual(2);
});
