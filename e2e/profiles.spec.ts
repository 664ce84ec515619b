/** Changing what was drawn, choosing regions without the mouse, and surfaces, by hand. */
import { expect, test, type Page } from './tests.ts';
import { inNewProject, selects, startsVerb } from './doing.ts';
import type { Person } from './person.ts';

const fills = (page: Page, label: string, text: string) => page.getByLabel(label, { exact: true }).fill(text);

async function draws(ada: Person, verb: string, values: Readonly<Record<string, string>>): Promise<void> {
  await startsVerb(ada.page, verb);
  for (const [label, text] of Object.entries(values)) await fills(ada.page, label, text);
  await ada.commits();
  await ada.page.keyboard.press('Escape');
}

const line = (ada: Person, from: readonly [string, string], to: readonly [string, string]) =>
  draws(ada, 'line', {
    'from X': from[0],
    'from Y': from[1],
    'from Z': '0',
    'to X': to[0],
    'to Y': to[1],
    'to Z': '0',
  });

/** Presses at a world point, moves to another in steps, and lets go. */
async function drags(
  ada: Person,
  from: readonly [number, number],
  to: readonly [number, number],
): Promise<void> {
  const [a, b] = [await ada.screenOf([...from, 0]), await ada.screenOf([...to, 0])];
  await ada.page.mouse.move(a.x, a.y);
  await ada.page.mouse.down();
  await ada.page.mouse.move((a.x + b.x) / 2, (a.y + b.y) / 2, { steps: 3 });
  await ada.page.mouse.move(b.x, b.y, { steps: 3 });
  await ada.page.evaluate(
    () => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))),
  );
  await ada.page.mouse.up();
}

test('a rectangle drawn by a drag, a corner dragged, all corners rounded, and one of them typed anew', async ({
  page,
}) => {
  const ada = await inNewProject(page, 'Plate');
  await startsVerb(page, 'rectangle');
  await drags(ada, [0, 0], [60, 40]);
  await expect(page.getByText('done; change a blank to adjust')).toBeVisible();
  await page.keyboard.press('Escape');
  await selects(page, 'Rectangle');
  await ada.isReady();
  await expect(page.getByLabel('Width', { exact: true })).toHaveValue('60');
  await drags(ada, [60, 40], [80, 50]);
  await expect(page.getByLabel('Width', { exact: true })).toHaveValue('80');
  await expect(page.getByLabel('Height', { exact: true })).toHaveValue('50');
  await page.keyboard.press('Escape');
  await draws(ada, 'corner', { size: '10' });
  await selects(page, 'Rectangle');
  await expect(page.getByText('All corners, fillet')).toBeVisible();
  await fills(page, 'Radius of step 1', '5');
  await page.getByLabel('Radius of step 1').press('Enter');
  await ada.isReady();
  expect((await ada.facts('Rectangle')).area).toBeCloseTo(80 * 50 - (4 - Math.PI) * 25, 6);
  expect(ada.problems).toEqual([]);
});

test(
  'a gap is told with its size and closed, and regions are chosen by keyboard',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Gaps');
    await draws(ada, 'rectangle', { width: '100', height: '60' });
    await draws(ada, 'rectangle', { width: '40', height: '30', 'at X': '30', 'at Y': '15' });
    await line(ada, ['0', '100'], ['80', '100']);
    await line(ada, ['80.5', '100'], ['80', '150']);
    await line(ada, ['80', '150'], ['0', '100']);
    await selects(page, 'Line', 'Line 2', 'Line 3');
    await startsVerb(page, 'raise');
    const panel = page.getByRole('region', { name: 'Regions' });
    await expect(panel.getByRole('status')).toContainText('A gap of 0.5 mm keeps an area open');
    await panel.getByRole('button', { name: 'Close it' }).click();
    await expect(panel).toBeHidden();
    await fills(page, 'height', '10');
    await ada.commits();
    await page.keyboard.press('Escape');
    expect((await ada.facts('Raised')).volume).toBeGreaterThan(((80 * 50) / 2) * 10);

    await selects(page, 'Rectangle', 'Rectangle 2');
    await startsVerb(page, 'raise');
    await page.getByRole('button', { name: /^regions: / }).click();
    await page.getByRole('menuitem', { name: /Picked/ }).click();
    const ring = panel.getByRole('checkbox', { name: /Region 2/ });
    await ring.focus();
    await page.keyboard.press('Space');
    await expect(ring).toBeChecked();
    await fills(page, 'height', '10');
    await ada.commits();
    expect((await ada.facts('Raised 2')).volume).toBeCloseTo((100 * 60 - 40 * 30) * 10, 6);
    expect(ada.problems).toEqual([]);
  },
);

test(
  'a bar swept with a twist, opened to a surface, and capped again',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Twist');
    await draws(ada, 'rectangle', { width: '20', height: '20', 'at X': '-10', 'at Y': '-10' });
    await line(ada, ['0', '0'], ['120', '0']);
    await page.keyboard.press('Escape');
    await selects(page, 'Rectangle');
    await startsVerb(page, 'sweep');
    // The selected one is the section; the next click fills the blank for the path.
    await selects(page, 'Line');
    await expect(page.getByRole('button', { name: 'section: Rectangle' })).toBeVisible();
    await fills(page, 'name', 'Bar');
    await ada.commits();
    await page.keyboard.press('Escape');
    await selects(page, 'Bar');
    await fills(page, 'Twist', '90');
    await page.getByLabel('Twist', { exact: true }).press('Enter');
    await ada.isReady();
    expect((await ada.facts('Bar')).volume / (400 * 120)).toBeCloseTo(1, 5);
    await page.getByRole('button', { name: 'open surface' }).click();
    await ada.isReady();
    await expect(page.getByTestId('fact-kind')).toHaveText('open surface, no solid');
    await expect(page.getByRole('treeitem', { name: 'Bar', exact: true })).toContainText('surface');
    await startsVerb(page, 'cap ends');
    await ada.commits();
    await page.keyboard.press('Escape');
    expect((await ada.facts('Bar')).volume / (400 * 120)).toBeCloseTo(1, 5);
    expect(ada.problems).toEqual([]);
  },
);

test('a leg is told in the next way at a key, and stays where it is', async ({ page }) => {
  await inNewProject(page, 'Legs');
  await startsVerb(page, 'traverse');
  await page.getByRole('button', { name: 'Add a leg' }).click();
  await fills(page, 'ΔX, leg 1', '30');
  await fills(page, 'ΔY, leg 1', '40');
  await page.getByLabel('ΔY, leg 1').press('F2');
  await expect(page.getByLabel('How leg 1 is told')).toHaveValue('bearing');
  await expect(page.getByLabel('Length, leg 1', { exact: true })).toHaveValue('50');
});

test('a face is selected by a second click, drawn on, and what is marked on it is selected', async ({
  page,
}) => {
  const ada = await inNewProject(page, 'Faces');
  await ada.makesBox(['60', '40', '20'], ['0', '0', '0'], 'Block');
  await ada.types('Escape', 'Escape');
  await ada.clicksAt([40, 20, 20]);
  await expect(page.getByRole('treeitem', { name: 'Block', exact: true })).toHaveAttribute(
    'aria-selected',
    'true',
  );
  await ada.clicksAt([40, 20, 20]);
  await expect(page.getByRole('button', { name: 'Selected of the part: top' })).toBeVisible();
  await expect(page.getByTestId('place-area')).toHaveText(/2.400\.00/);
  await draws(ada, 'circle', { diameter: '20', 'centre X': '30', 'centre Y': '20', 'centre Z': '20' });
  await expect(page.getByText('draws on top of Block').first()).toBeAttached();
  await selects(page, 'Circle');
  await page
    .getByRole('treeitem', { name: 'Block', exact: true })
    .click({ modifiers: ['Control'], position: { x: 60, y: 12 } });
  await startsVerb(page, 'emboss');
  await page.locator('[data-blank="how"]').click();
  await page.getByRole('option', { name: 'only marked' }).click();
  await ada.commits();
  await page.keyboard.press('Escape');
  await selects(page, 'Block');
  await page.getByRole('button', { name: 'Select the marked faces' }).click();
  await expect(page.getByTestId('place-area')).toHaveText(/314\.16/);
  // By keyboard too, and Escape leaves the part selected.
  await page.getByRole('button', { name: 'Selected of the part: imprint on top' }).press('ArrowDown');
  await page.getByRole('option', { name: 'imprint on top', exact: true }).click();
  await page.getByRole('option', { name: 'front', exact: true }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('place-area')).toHaveText(/1.200\.00/);
  await page.getByRole('button', { name: 'Selected of the part: front' }).blur();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Selected of the part: none' })).toBeVisible();
  expect(ada.problems).toEqual([]);
});

test(
  'where a profile crosses its axis is marked; a curve is changed in its table, and thickened',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Table');
    await draws(ada, 'circle', { diameter: '20' });
    await selects(page, 'Circle');
    await startsVerb(page, 'revolve');
    await page.keyboard.press('Enter');
    await expect(page.getByTestId('refusal')).toContainText('crosses its axis');
    const places = page.locator('[data-pane="Home"]').getByTestId('fault-place');
    await expect(places).toHaveCount(2);
    await ada.types('Escape', 'Escape');
    await expect(places).toHaveCount(0);

    await startsVerb(page, 'curve');
    for (const point of [
      [5, -5, 0],
      [0, 5, 0],
      [-5, -5, 0],
    ] as const)
      await ada.clicksAt(point);
    await ada.commits();
    await page.keyboard.press('Escape');
    await selects(page, 'Curve');
    await page.getByRole('button', { name: '3 points…' }).click();
    await fills(page, 'Y, row 2', '3 + 4');
    await page.keyboard.press('Control+Enter');
    await ada.isReady();
    const { base } = Object.values((await ada.document()).items).find(({ name }) => name === 'Curve')!.recipe;
    expect(base).toMatchObject({ figure: { kind: 'curve' } });
    expect(JSON.stringify(base)).toContain('[0,7]');
    await page.keyboard.press('Escape');
    await selects(page, 'Curve');
    await draws(ada, 'thicken', { thickness: '1', height: '20' });
    await selects(page, 'Sheet');
    await expect(ada.fact('solids')).toHaveText('1');
    await expect(ada.fact('watertight')).toHaveText('yes');
    expect(ada.problems).toEqual([]);
  },
);

test(
  'a view tells the inside of a surface, which is flipped, joined with another and closed',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Surfaces');
    await draws(ada, 'rectangle', { width: '20', height: '20' });
    for (const name of ['Lower', 'Upper']) {
      await selects(page, 'Rectangle');
      await draws(ada, 'raise', { height: '10', name });
      await selects(page, name);
      await page.getByRole('button', { name: 'open surface', exact: true }).click();
      await ada.isReady();
    }
    await fills(page, 'Place Z', '10');
    await page.getByLabel('Place Z', { exact: true }).press('Enter');
    await ada.isReady();
    const legend = page.getByText('teal is the inside');
    await expect(legend).toBeHidden();
    await ada.looks('shaded, facing');
    await expect(legend).toBeVisible();
    await startsVerb(page, 'turn inside out');
    await ada.commits();
    await page.keyboard.press('Escape');
    const steps = page.getByRole('list', { name: 'Steps' }).getByRole('listitem');
    await expect(steps).toContainText([/Turned inside out/]);
    await selects(page, 'Lower', 'Upper');
    await startsVerb(page, 'join surfaces');
    await ada.commits();
    await page.keyboard.press('Escape');
    await selects(page, 'Lower');
    await startsVerb(page, 'cap ends');
    await ada.commits();
    await page.keyboard.press('Escape');
    expect((await ada.facts('Lower')).volume / 8000).toBeCloseTo(1, 9);
    await expect(steps).toContainText([/Joined with Upper/, /Ends capped/]);
    expect(ada.problems).toEqual([]);
  },
);
