/** The panels on the left: variables as a table, and borders that stay where they were put. */
import { expect, test } from '@playwright/test';
import { inNewProject, selects } from './doing.ts';

test('variables are added, followed and removed in their table', async ({ page }) => {
  const ada = await inNewProject(page, 'Variables');
  const panel = page.getByRole('region', { name: 'Variables' });
  await panel.getByLabel('Name of a new variable').fill('wide');
  await panel.getByLabel('Value of the new variable').fill('20 mm');
  await panel.getByRole('button', { name: 'Add' }).click();
  await expect(panel.getByTestId('value of wide')).toHaveText('20 mm');
  await panel.getByLabel('Name of a new variable').fill('high');
  await panel.getByLabel('Value of the new variable').fill('wide / 2');
  await panel.getByRole('button', { name: 'Add' }).click();
  await expect(panel.getByTestId('value of high')).toHaveText('10 mm');
  await page.getByTestId('view').click({ position: { x: 300, y: 60 } });
  await ada.makesBox(['wide', 'wide', 'high']);
  await page.keyboard.press('Escape');
  await panel.getByLabel('Variable wide').fill('30');
  await panel.getByLabel('Variable wide').press('Enter');
  await expect.poll(async () => (await ada.facts('Box')).volume).toBeCloseTo(30 * 30 * 15, 6);
  await expect(panel.getByRole('button', { name: 'Remove variable wide' })).toHaveCount(0);
  await panel.getByLabel('Name of a new variable').fill('spare');
  await panel.getByLabel('Value of the new variable').fill('1');
  await panel.getByRole('button', { name: 'Add' }).click();
  await panel.getByRole('button', { name: 'Remove variable spare' }).click();
  await expect(panel.getByTestId('value of spare')).toHaveCount(0);
  expect(ada.problems).toEqual([]);
});

test('borders can be dragged or moved by keys, panels fold, and both are remembered', async ({ page }) => {
  const ada = await inNewProject(page, 'Borders');
  const left = page.getByRole('complementary', { name: 'Parts, variables and ledger' });
  const widthOf = async () => (await left.boundingBox())!.width;
  const before = await widthOf();
  const border = (await page.getByRole('separator', { name: 'Border of the parts' }).boundingBox())!;
  await page.mouse.move(border.x, border.y + 200);
  await page.mouse.down();
  await page.mouse.move(border.x + 60, border.y + 200, { steps: 5 });
  await page.mouse.up();
  await expect.poll(widthOf).toBeGreaterThan(before + 50);
  const wide = await widthOf();
  await page.getByRole('button', { name: /^Ledger/ }).click();
  await expect(page.getByRole('button', { name: /^Ledger/ })).toHaveAttribute('aria-expanded', 'false');
  await page.reload();
  await ada.isReady();
  await expect.poll(async () => Math.abs((await widthOf()) - wide)).toBeLessThan(2);
  await expect(page.getByRole('button', { name: /^Ledger/ })).toHaveAttribute('aria-expanded', 'false');
  await page.getByRole('button', { name: /^Ledger/ }).click();
  await page.getByRole('separator', { name: 'Border of the parts' }).focus();
  await page.keyboard.press('ArrowLeft');
  await expect.poll(widthOf).toBeLessThan(wide);
  expect(ada.problems).toEqual([]);
});

test('a pyramid is made, grown all round, and written as OBJ', { tag: '@long' }, async ({ page }) => {
  const ada = await inNewProject(page, 'Spire');
  for (const text of ['/', 'pyramid', 'Enter']) await ada.types(text);
  const blank = (name: string) => page.getByRole('textbox', { name, exact: true });
  await blank('sides').fill('4');
  await blank('width').fill('20');
  await blank('height').fill('30');
  await ada.commits();
  await page.keyboard.press('Escape');
  const { volume } = await ada.facts('Pyramid');
  expect(volume).toBeCloseTo((14.142135623730951 ** 2 * 30) / 3, 6);
  await selects(page, 'Pyramid');
  await page.getByRole('textbox', { name: 'Top' }).fill('5');
  await page.getByRole('textbox', { name: 'Top' }).press('Enter');
  await expect.poll(async () => (await ada.facts('Pyramid')).volume).toBeGreaterThan(volume);
  await page
    .getByTestId('view')
    .focus()
    .catch(() => undefined);
  await page.keyboard.press('Escape');
  await selects(page, 'Pyramid');
  for (const text of ['/', 'offset solid', 'Enter']) await ada.types(text);
  await blank('clearance').fill('1');
  await ada.commits();
  await page.keyboard.press('Escape');
  await selects(page, 'Pyramid');
  await expect(page.getByText('1. Grown, round corners')).toBeVisible();
  await page.getByRole('button', { name: 'Output' }).click();
  await page.getByRole('radio', { name: /OBJ/ }).check();
  const file = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Download' }).click();
  expect((await file).suggestedFilename()).toBe('Spire.obj');
  expect(ada.problems).toEqual([]);
});

test('the bench is seen whole in every window that is not small', async ({ page }) => {
  const ada = await inNewProject(page, 'Bench');
  await page.keyboard.press('o');
  await expect(page.getByRole('button', { name: 'Pointer', exact: true })).toHaveText('only selects');
  for (const width of [1460, 1459, 1280, 1260, 1259, 1024, 860]) {
    await page.setViewportSize({ width, height: 800 });
    await expect
      .poll(() =>
        page.getByRole('contentinfo', { name: 'Bench' }).evaluate((it) => it.scrollWidth - it.clientWidth),
      )
      .toBe(0);
  }
  await page.keyboard.press('o');
  expect(ada.problems).toEqual([]);
});

test('in a small window everything is reachable: sides fold, the bench is one list', async ({ page }) => {
  const ada = await inNewProject(page, 'Small');
  await ada.makesBox(['40', '30', '20'], undefined, 'Block');
  await page.keyboard.press('Escape');
  for (const size of [
    { width: 1024, height: 700 },
    { width: 640, height: 400 },
  ]) {
    await page.setViewportSize(size);
    const isSmall = size.width < 860;
    const reach = async (name: string) => {
      const button = page.getByRole('button', { name, exact: true });
      await button.scrollIntoViewIfNeeded();
      await button.click({ trial: true });
    };
    for (const name of [
      'Output',
      'Keys',
      'Snaps',
      'Pointer',
      ...(isSmall ? ['Verbs'] : ['Make', 'Draw', 'Edit']),
    ])
      await reach(name);
    const view = (await page.getByTestId('view').boundingBox())!;
    expect(view.width).toBeGreaterThan(size.width * 0.45);
    expect(view.height).toBeGreaterThan(size.height * 0.6);
    // Nothing is wider than the window.
    expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
  }
  await page.keyboard.press('Control+e');
  await page.getByRole('button', { name: 'Download' }).click({ trial: true });
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Parts', exact: true }).click();
  await page.getByRole('treeitem', { name: 'Block', exact: true }).click();
  await page.getByRole('button', { name: 'Spec', exact: true }).click();
  await expect(page.getByRole('textbox', { name: 'Length', exact: true })).toHaveValue('40');
  await page.getByRole('button', { name: 'Spec', exact: true }).click();
  await page.getByRole('button', { name: 'Verbs', exact: true }).click();
  await page.getByRole('button', { name: 'Keep view' }).click();
  await expect(page.getByTestId('verb')).toHaveText('Keep view');
  expect(ada.problems).toEqual([]);
});
