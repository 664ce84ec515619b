import { expect, test } from './tests.ts';
import { choosesIn, inNewProject, selects, startsVerb } from './doing.ts';

test('a ring of twelve from one copy turned by 30°, eight the day after, two left out', async ({ page }) => {
  const ada = await inNewProject(page, 'Ring of seats');
  await ada.makesBox(['20', '20', '30'], ['80', '-10', '0'], 'Seat');
  await ada.types('Escape');
  await selects(page, 'Seat');
  await page.keyboard.press('t');
  await page.keyboard.type('30');
  await choosesIn(page, 'centre', 'all about a point');
  await page.getByLabel('centre point').fill('0, 0, 0');
  await choosesIn(page, 'leaving', 'a copy');
  await ada.commits();
  // The statement offers to go on, and follows what is typed.
  await page
    .getByRole('group', { name: 'Go on with copies' })
    .getByRole('button', { name: 'n in all, every 30°' })
    .click();
  await expect(page.getByTestId('verb')).toHaveText('Repeat around');
  await page.keyboard.type('12');
  await ada.commits();
  const ring = page.getByRole('treeitem', { name: 'Seat ring' });
  await expect(ring).toContainText('ring · 12');
  expect((await ada.facts('Seat ring')).volume).toBeCloseTo(12 * 20 * 20 * 30, 6);
  expect(Object.keys((await ada.document()).items)).toHaveLength(2);
  await ada.isSaved();

  await page.reload();
  await ada.isReady();
  await ring.click();
  await page.getByLabel('In all', { exact: true }).fill('8');
  await page.getByLabel('In all', { exact: true }).press('Enter');
  await expect(ring).toContainText('ring · 8');
  await page.getByLabel('In all', { exact: true }).blur();
  await ada.isReady();
  await ada.fitsAll();
  await page.getByRole('button', { name: 'Leave out by clicking' }).click();
  // Members 2 and 4 stand 30° and 90° on; their tops are in sight.
  const top = (angle: number) =>
    [90 * Math.cos((angle * Math.PI) / 180), 90 * Math.sin((angle * Math.PI) / 180), 30] as const;
  await ada.clicksAt(top(30));
  await expect(ring).toContainText('ring · 7');
  await ada.isReady();
  await ada.clicksAt(top(90));
  await expect(ring).toContainText('ring · 6');
  await ada.isReady();
  await expect(page.getByRole('group', { name: 'Left out' }).getByRole('button')).toHaveCount(2);
  // A third is left out by mistake and put back by another click.
  await ada.clicksAt(top(150));
  await expect(ring).toContainText('ring · 5');
  await ada.isReady();
  await ada.clicksAt(top(150));
  await expect(ring).toContainText('ring · 6');
  await ada.isReady();
  expect((await ada.facts('Seat ring')).volume).toBeCloseTo(6 * 20 * 20 * 30, 6);
  expect(ada.problems).toEqual([]);
});

test(
  'twenty posts by pitch, then as a span, then a grid copied from the row',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Posts');
    await ada.makesBox(['10', '10', '100'], ['0', '0', '0'], 'Post');
    await ada.types('Escape');
    await selects(page, 'Post');
    await page.keyboard.press('r');
    await page.getByLabel('in all', { exact: true }).fill('20');
    await page.getByLabel('every', { exact: true }).fill('50');
    await ada.commits();
    const row = page.getByRole('treeitem', { name: 'Post row', exact: true });
    await expect(row).toContainText('row · 20');
    expect((await ada.facts('Post row')).box.max[0]).toBe(960);
    await ada.types('Escape');

    // As a span: more of them stand closer together.
    await row.click();
    await page.getByLabel('Across', { exact: true }).fill('now');
    await page.getByLabel('Across', { exact: true }).press('Enter');
    await ada.isReady();
    await page.getByLabel('In all', { exact: true }).fill('39');
    await page.getByLabel('In all', { exact: true }).press('Enter');
    await expect(row).toContainText('row · 39');
    await ada.isReady();
    expect((await ada.facts('Post row')).box.max[0]).toBe(960);
    await expect(page.getByLabel('Every', { exact: true })).toHaveValue('25');
    await ada.types('Escape');

    await selects(page, 'Post row');
    await startsVerb(page, 'grid');
    await page.getByLabel('rows', { exact: true }).fill('4');
    await page.getByLabel('row every').fill('200');
    await ada.commits();
    expect((await ada.facts('Post row grid')).box.max).toEqual([960, 610, 100]);
    expect((await ada.facts('Post row grid')).volume).toBeCloseTo(4 * 39 * 10 * 10 * 100, 4);
    expect(ada.problems).toEqual([]);
  },
);

test(
  'a ring of holes is subtracted from a disc, and its count changed in the tree',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Flange');
    await page.keyboard.press('c');
    await page.getByLabel('diameter', { exact: true }).fill('200');
    await page.getByLabel('height', { exact: true }).fill('10');
    await page.getByLabel('name', { exact: true }).fill('Disc');
    await ada.commits();
    await ada.types('Escape');
    await page.keyboard.press('c');
    await page.getByLabel('diameter', { exact: true }).fill('12');
    await page.getByLabel('height', { exact: true }).fill('20');
    for (const [axis, text] of [
      ['X', '80'],
      ['Z', '-5'],
    ] as const)
      await page.getByLabel(`centre ${axis}`).fill(text);
    await page.getByLabel('name', { exact: true }).fill('Drill');
    await ada.commits();
    await ada.types('Escape');
    await selects(page, 'Drill');
    await startsVerb(page, 'around');
    await page.getByLabel('in all', { exact: true }).fill('12');
    await page.getByLabel('centre', { exact: true }).fill('0, 0, 0');
    await ada.commits();
    await ada.types('Escape');
    await selects(page, 'Disc', 'Drill ring');
    await page.keyboard.press('x');
    await ada.commits();
    await ada.types('Escape');
    // π(R² − n·r²)h, in Facts, to the last digit that is shown.
    const volume = (holes: number) => Math.PI * (100 ** 2 - holes * 6 ** 2) * 10;
    const shown = async () => Number((await ada.fact('volume').textContent())!.replaceAll(/[^\d.]/g, ''));
    const disc = page.getByRole('treeitem', { name: 'Disc', exact: true });
    await disc.click();
    await expect.poll(async () => Math.abs((await shown()) - volume(12))).toBeLessThan(0.01);

    await page.getByRole('button', { name: 'Open Disc' }).click();
    await page.getByRole('treeitem', { name: 'Drill ring' }).click();
    await page.getByLabel('In all', { exact: true }).fill('7');
    await page.getByLabel('In all', { exact: true }).press('Enter');
    await expect(page.getByRole('treeitem', { name: 'Drill ring' })).toContainText('ring · 7');
    await ada.isReady();
    await disc.click();
    await expect.poll(async () => Math.abs((await shown()) - volume(7))).toBeLessThan(0.01);
    expect(ada.problems).toEqual([]);
  },
);

test(
  'a copy that lies on a member of a row is told and removed; the row stays whole',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Copies by mistake');
    await ada.makesBox(['10', '10', '10'], ['0', '0', '0'], 'Block');
    await ada.types('Escape');
    await selects(page, 'Block');
    await page.keyboard.press('r');
    await page.getByLabel('in all', { exact: true }).fill('5');
    await page.getByLabel('every', { exact: true }).fill('30');
    await ada.commits();
    await ada.types('Escape');
    await ada.makesBox(['10', '10', '10'], ['60', '0', '0'], 'Stray');
    await ada.types('Escape');
    await expect(page.getByText('2 alike in the same place')).toBeVisible();
    await page.getByRole('button', { name: 'Keep one' }).click();
    await expect(page.getByText('2 alike in the same place')).toBeHidden();
    await expect(page.getByRole('treeitem', { name: 'Block row' })).toContainText('row · 5');
    await expect(page.getByRole('treeitem', { name: 'Stray' })).toBeHidden();
  },
);

test('parts are grouped, ordered by dragging and by keys, worked on inside, and linked', async ({ page }) => {
  const ada = await inNewProject(page, 'Groups');
  for (const [i, name] of ['Seat', 'Leg', 'Back'].entries()) {
    await ada.makesBox(['20', '20', '20'], [String(40 * i), '0', '0'], name);
    await ada.types('Escape');
  }
  await selects(page, 'Seat', 'Leg');
  await page.keyboard.press('g');
  const group = page.getByRole('treeitem', { name: 'Group', exact: true });
  await expect(group).toContainText('group · 2');
  await ada.isReady();
  await ada.types('Escape', 'Escape');
  await ada.fitsAll();
  // A click on a member means the group; a double click opens it, and then the member is meant.
  await ada.clicksAt([10, 5, 20]);
  await expect.poll(() => page.evaluate(() => window.kadrel!.selection)).toEqual(['Group']);
  const { x, y } = await ada.screenOf([10, 5, 20]);
  await page.mouse.dblclick(x, y);
  await ada.clicksAt([50, 5, 20]);
  await expect.poll(() => page.evaluate(() => window.kadrel!.selection)).toEqual(['Leg']);
  await group.getByRole('button', { name: 'close' }).click();
  await expect.poll(() => page.evaluate(() => window.kadrel!.selection)).toEqual(['Group']);

  // By dragging into the group.
  const back = page.getByRole('treeitem', { name: 'Back' });
  const [from, to] = [(await back.boundingBox())!, (await group.boundingBox())!];
  await page.mouse.move(from.x + 70, from.y + 13);
  await page.mouse.down();
  await page.mouse.move(from.x + 70, from.y + 2, { steps: 4 });
  await page.mouse.move(to.x + 70, to.y + 13, { steps: 6 });
  await page.mouse.up();
  await expect(group).toContainText('group · 3');
  await ada.isReady();
  // And by keys: up past Leg, and out of the group again.
  await back.focus();
  await page.keyboard.press('Alt+ArrowUp');
  const order = async () => {
    const { items } = await ada.document();
    const { base } = Object.values(items).find(({ name }) => name === 'Group')!.recipe;
    return base.kind === 'group' ? base.members.map((id) => items[id]!.name) : [];
  };
  await expect.poll(order).toEqual(['Seat', 'Back', 'Leg']);
  await ada.isReady();
  await back.focus();
  await page.keyboard.press('Alt+ArrowLeft');
  await expect.poll(order).toEqual(['Seat', 'Leg']);
  await ada.isReady();
  await ada.types('Escape');

  // A linked copy follows.
  await selects(page, 'Back');
  await page.keyboard.press('Control+d');
  await choosesIn(page, 'kind', 'linked: a change to one changes all');
  await ada.commits();
  await ada.types('Escape');
  await selects(page, 'Back');
  await page.getByLabel('Height').fill('35');
  await page.getByLabel('Height').press('Enter');
  await ada.isReady();
  await expect.poll(async () => (await ada.facts('Back 2')).volume).toBeCloseTo(20 * 20 * 35, 6);
  expect(ada.problems).toEqual([]);
});
