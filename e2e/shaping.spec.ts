/** Changing a solid after it was made: edges and faces by clicks, by rules and by keys, steps in their order, halves. */
import { execFileSync } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { choosesIn, inNewProject, selects, startsVerb } from './doing.ts';

const CORNER = 1 - Math.PI / 4;
const near = (value: number) => expect.closeTo(value, 5);

test('clicked edges are rounded, and one more click takes an edge out again', async ({ page }) => {
  const ada = await inNewProject(page, 'Clicked edges');
  await ada.makesBox(['40', '30', '20']);
  await ada.types('Escape');
  await ada.fitsAll();
  await startsVerb(page, 'fillet');
  // Edges at the front: the upper one, the left one, and the upper right one, which is let go again.
  await ada.clicksAt([20, 0, 20]);
  await ada.clicksAt([0, 0, 10]);
  await ada.clicksAt([40, 15, 20]);
  await expect(page.locator('[data-blank="edges"]')).toHaveText('3 edges');
  await ada.clicksAt([40, 15, 20]);
  await expect(page.locator('[data-blank="edges"]')).toHaveText('2 edges');
  await page.getByRole('textbox', { name: 'radius', exact: true }).fill('4');
  await ada.commits();
  // Two fillets that meet in a corner share a little of what they take off.
  const { volume } = await ada.facts('Box');
  expect(volume).toBeGreaterThan(24_000 - CORNER * 16 * 60);
  expect(volume).toBeLessThan(24_000 - CORNER * 16 * 52);
  expect(ada.problems).toEqual([]);
});

test('a rule outlives a change of size, and what is too large says the largest that fits', async ({
  page,
}) => {
  const ada = await inNewProject(page, 'Rules');
  await ada.makesBox(['40', '30', '20']);
  await ada.types('Escape');
  await selects(page, 'Box');
  await startsVerb(page, 'fillet');
  await choosesIn(page, 'edges', 'all edges along Z');
  await page.keyboard.press('Escape');
  await page.getByRole('textbox', { name: 'radius', exact: true }).fill('5');
  await ada.commits();
  await ada.types('Escape');
  const taken = CORNER * 25 * 4;
  expect((await ada.facts('Box')).volume).toEqual(near(24_000 - taken * 20));
  await page.getByLabel('Height', { exact: true }).fill('50');
  await page.getByLabel('Height', { exact: true }).press('Enter');
  await expect.poll(async () => (await ada.facts('Box')).volume).toEqual(near(60_000 - taken * 50));
  await page.getByLabel('Radius of step 1').fill('16');
  await page.getByLabel('Radius of step 1').press('Enter');
  await expect(
    page.getByText(/The largest radius that fits here is about 14\.9\d* mm/).first(),
  ).toBeVisible();
  expect((await ada.facts('Box')).volume).toEqual(near(60_000 - taken * 50));
  expect(ada.problems).toEqual([]);
});

test('a step that a change of size makes impossible is told, and the part goes on without it until it fits again', async ({
  page,
}) => {
  const ada = await inNewProject(page, 'No longer');
  await ada.makesBox(['40', '30', '20']);
  await ada.types('Escape');
  await selects(page, 'Box');
  await startsVerb(page, 'fillet');
  await choosesIn(page, 'edges', 'all edges along X');
  await page.keyboard.press('Escape');
  await page.getByRole('textbox', { name: 'radius', exact: true }).fill('8');
  await ada.commits();
  await ada.types('Escape');
  const setsHeight = async (height: string) => {
    await page.getByLabel('Height', { exact: true }).fill(height);
    await page.getByLabel('Height', { exact: true }).press('Enter');
  };
  await setsHeight('10');
  await expect.poll(async () => (await ada.facts('Box')).volume).toEqual(near(12_000));
  await expect(page.getByText(/step 1 can no longer be done/).first()).toBeVisible();
  await expect(page.getByRole('alert').filter({ hasText: 'Shown without step 1' })).toBeVisible();
  await expect(page.getByRole('img', { name: /^Step 1 cannot be done/ })).toBeVisible();
  await setsHeight('30');
  await expect.poll(async () => (await ada.facts('Box')).volume).toEqual(near(36_000 - CORNER * 64 * 4 * 40));
  await expect(page.getByRole('img', { name: /^Step 1 cannot be done/ })).toHaveCount(0);
  expect(ada.problems).toEqual([]);
});

test('steps are switched, put in another order and taken out, by pointer and by keys', async ({ page }) => {
  const ada = await inNewProject(page, 'Order');
  await ada.makesBox(['40', '30', '20']);
  await ada.types('Escape');
  await selects(page, 'Box');
  await startsVerb(page, 'shell');
  await choosesIn(page, 'open', 'top');
  await page.keyboard.press('Escape');
  await ada.commits();
  await ada.types('Escape');
  const shelled = 24_000 - 36 * 26 * 18;
  expect((await ada.facts('Box')).volume).toEqual(near(shelled));
  await startsVerb(page, 'offset face');
  await choosesIn(page, 'faces', 'right');
  await page.keyboard.press('Escape');
  await page.getByRole('textbox', { name: 'distance', exact: true }).fill('10');
  await ada.commits();
  await ada.types('Escape');
  expect((await ada.facts('Box')).volume).toEqual(near(shelled + 30 * 20 * 10));
  const steps = page.getByRole('list', { name: 'Steps' });
  // First longer, then hollowed out: the hollow goes all the way.
  await steps.getByRole('button', { name: 'Do step 2 earlier' }).click();
  await expect.poll(async () => (await ada.facts('Box')).volume).toEqual(near(50 * 30 * 20 - 46 * 26 * 18));
  await steps.getByRole('checkbox', { name: 'Step 2 is on' }).click();
  await expect.poll(async () => (await ada.facts('Box')).volume).toEqual(near(30_000));
  await steps.getByRole('checkbox', { name: 'Step 2 is on' }).click();
  await steps.getByRole('checkbox', { name: 'Step 2 is on' }).press('Alt+ArrowUp');
  await expect.poll(async () => (await ada.facts('Box')).volume).toEqual(near(shelled + 6000));
  await steps.getByRole('button', { name: 'Take out step 2' }).click();
  await expect.poll(async () => (await ada.facts('Box')).volume).toEqual(near(shelled));
  expect(ada.problems).toEqual([]);
});

test('a part is split, one half hidden, and the plane moved for both', async ({ page }) => {
  const ada = await inNewProject(page, 'Halves');
  await ada.makesBox(['40', '30', '20']);
  await ada.types('Escape');
  await selects(page, 'Box');
  await startsVerb(page, 'split solid');
  await page.getByRole('textbox', { name: 'distance', exact: true }).fill('12');
  await ada.commits();
  await ada.types('Escape');
  expect((await ada.facts('Box')).volume).toEqual(near(1200 * 8));
  expect((await ada.facts('Box 2')).volume).toEqual(near(1200 * 12));
  await selects(page, 'Box');
  await page.keyboard.press('h');
  await selects(page, 'Box 2');
  await page.getByLabel('Cut at of step 1').fill('15');
  await page.getByLabel('Cut at of step 1').press('Enter');
  await expect.poll(async () => (await ada.facts('Box 2')).volume).toEqual(near(1200 * 15));
  expect(ada.problems).toEqual([]);
});

test('an edge of a wall is reshaped onto the corner of a roof by clicks', async ({ page }) => {
  const ada = await inNewProject(page, 'Onto the roof');
  await ada.makesBox(['40', '10', '20']);
  await ada.types('Escape');
  await ada.makesBox(['40', '10', '5'], ['0', '0', '35'], 'roof');
  await ada.types('Escape');
  await ada.fitsAll();
  await startsVerb(page, 'reshape');
  await ada.clicksAt([20, 0, 20]);
  await expect(page.locator('[data-blank="places"]')).toHaveText(/front/);
  await page.locator('[data-entry="from"]').focus();
  await ada.clicksAt([0, 0, 20]);
  await page.locator('[data-entry="to"]').focus();
  await ada.clicksAt([0, 0, 35]);
  await ada.commits();
  // A wedge of half the rise lies on the wall.
  expect((await ada.facts('Box')).volume).toEqual(near(40 * 10 * 20 + (40 * 10 * 15) / 2));
  expect(ada.problems).toEqual([]);
});

test('all of it by keys, and the same without a page', async ({ page }, { outputDir }) => {
  const ada = await inNewProject(page, 'Keys only');
  await ada.makesBox(['40', '30', '20']);
  await ada.types('Escape');
  await startsVerb(page, 'shell');
  // What was made last is selected, and so the solid that is meant.
  await ada.types('3', 'Tab', ' ');
  await page.keyboard.type('top');
  await ada.types('Enter', 'Escape', 'Enter');
  await expect(page.getByText('done; change a blank to adjust')).toBeVisible();
  await ada.isReady();
  const { volume } = await ada.facts('Box');
  expect(volume).toEqual(near(24_000 - 34 * 24 * 17));
  const ledger = [
    { verb: 'box', as: 'Box', size: ['40', '30', '20'] },
    { verb: 'shell', part: 'Box', thickness: '3', open: 'top' },
  ];
  mkdirSync(outputDir, { recursive: true });
  const file = join(outputDir, 'shell.json');
  writeFileSync(file, JSON.stringify({ kadrel: 1, ledger }));
  const printed = execFileSync(process.execPath, ['packages/cli/bin/kadrel.mjs', 'run', file, '--measure']);
  const { parts } = JSON.parse(printed.toString()) as { parts: Record<string, { volume: number }> };
  expect(parts.Box!.volume).toBe(volume);
  expect(ada.problems).toEqual([]);
});
