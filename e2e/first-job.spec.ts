import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { Person } from './person.ts';

const VOLUME = 100 * 60 * 8 - Math.PI * 4 ** 2 * 8;

test('a bored plate, from the start screen to a STEP file', async ({ page }) => {
  const ada = new Person(page);
  await ada.entersTheDemo();
  await ada.createsProject(`Bored plate ${Date.now()}`);

  await test.step('a box by numbers', async () => {
    await ada.makesBox(['100', '60', '8']);
    await expect(ada.fact('volume')).toHaveText('48\u2009000.00 mm³');
    await ada.fitsAll();
  });

  await test.step('a cylinder by dragging, and then by typing its diameter', async () => {
    await page.keyboard.press('c');
    await ada.pointsAt([40, -25, 0]);
    await page.mouse.down();
    await ada.pointsAt([55, -25, 0]);
    await expect(page.getByLabel('diameter', { exact: true })).toHaveValue('30');
    await page.mouse.up();
    await page.keyboard.press('Shift+Tab');
    await ada.types('8', 'Tab', '20');
    await ada.commits();
    const { items } = await ada.document();
    const cylinder = Object.values(items).find((part) => part.name === 'Cylinder')!;
    expect(cylinder.recipe.base).toEqual({ kind: 'cylinder', diameter: 8, height: 20 });
    expect(cylinder.placement.origin).toEqual([40, -25, 0]);
  });

  await test.step('moved by its bottom centre to a top corner of the plate', async () => {
    // A pointer that rests too long on a slow machine would call up rays that this job does not need.
    await page.getByRole('button', { name: 'guides', exact: true }).click();
    await page.keyboard.press('m');
    // The rim of the bottom is in sight, and offers its centre.
    await ada.pointsAt([40, -29, 0], { x: 0, y: 0 });
    await expect(page.getByTestId('snap-label')).toContainText('quadrant');
    const rim = [40 + 4 * Math.cos(-Math.PI / 3.1), -25 + 4 * Math.sin(-Math.PI / 3.1), 0] as const;
    await ada.pointsAt(rim, { x: 0, y: 0 });
    await expect(page.getByTestId('snap-label')).toContainText('centre');
    await page.mouse.down();
    await page.mouse.up();
    await ada.pointsAt([0, 0, 8]);
    await expect(page.getByTestId('snap-label')).toContainText('endpoint');
    await page.mouse.down();
    await page.mouse.up();
    await expect(page.getByText('done; change a blank to adjust')).toBeVisible();
    const { items } = await ada.document();
    expect(Object.values(items).find((part) => part.name === 'Cylinder')!.placement.origin).toEqual([
      0, 0, 8,
    ]);
  });

  await test.step('and from there by typed X 15 Y 15', async () => {
    await ada.types('Escape', 'm');
    await page.getByLabel('by X').fill('15');
    await page.getByLabel('by Y').fill('15');
    await page.getByLabel('by Z').fill('-13');
    await ada.commits();
  });

  await test.step('subtracted: the Spec shows the closed formula', async () => {
    await page.getByRole('treeitem', { name: 'Box' }).click();
    await page.getByRole('treeitem', { name: 'Cylinder' }).click({ modifiers: ['Control'] });
    await page.keyboard.press('x');
    await ada.commits();
    expect(VOLUME.toFixed(2)).toBe('47597.88');
    await expect(ada.fact('volume')).toHaveText('47\u2009597.88 mm³');
  });

  const last = await ada.document();
  await test.step('undo and redo through all of it', async () => {
    for (let i = 0; i < 5; i++) await page.keyboard.press('Control+z');
    await expect.poll(async () => Object.keys((await ada.document()).items)).toEqual([]);
    for (let i = 0; i < 5; i++) await page.keyboard.press('Control+Shift+z');
    await expect.poll(() => ada.document()).toEqual(last);
  });

  await test.step('reloaded: the same, with all of its history', async () => {
    await ada.isSaved();
    await page.reload();
    await ada.isReady();
    expect(await ada.document()).toEqual(last);
    const { volume } = await ada.facts('Box');
    expect(Math.abs(volume / VOLUME - 1)).toBeLessThan(1e-9);
    await page.keyboard.press('Control+z');
    await expect
      .poll(async () => Object.values((await ada.document()).items).every((part) => part.parent === null))
      .toBe(true);
    await page.keyboard.press('Control+Shift+z');
    await ada.isReady();
  });

  await test.step('handed over as STEP', async () => {
    await page.getByRole('button', { name: 'Output' }).click();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Download' }).click(),
    ]);
    expect(download.suggestedFilename()).toMatch(/^Bored plate \d+\.step$/);
    const text = readFileSync(await download.path(), 'utf8');
    expect(text).toContain("PRODUCT('Box'");
    expect(text).toContain('CYLINDRICAL_SURFACE');
    // Read back by a kernel of its own, in this process.
    const { loadOcct } = await import('../packages/kernel/src/node.ts');
    const { readStep } = await import('../packages/kernel/src/exchange/step.ts');
    const { measureShape } = await import('../packages/kernel/src/facts/measure.ts');
    const occt = await loadOcct();
    expect(Math.abs(measureShape(occt, readStep(occt, text)).volume / VOLUME - 1)).toBeLessThan(1e-9);
  });
  expect(ada.problems).toEqual([]);
});
