/** Looking inside: section planes in chosen views, what they cut, live while they are typed and dragged, and what is kept of a cut. */
import { expect, test, type Page } from './tests.ts';
import type { Person } from './person.ts';
import { choosesIn, drags, inNewProject, says, selects, startsVerb } from './doing.ts';

const caption = (page: Page, view: string) => page.locator(`[data-pane="${view}"] [data-caption]`);

/** What is seen round a point in the world. */
async function seenAt(ada: Person, point: readonly [number, number, number]): Promise<string> {
  const { x, y } = await ada.screenOf(point);
  const picture = await ada.page.screenshot({ clip: { x: x - 4, y: y - 4, width: 9, height: 9 } });
  return picture.toString('base64');
}

/** A pot: a box, hollow and open at the top, with a knob inside. */
async function withPot(page: Page, name: string): Promise<Person> {
  const ada = await inNewProject(page, name);
  await ada.makesBox(['60', '60', '40']);
  await ada.types('Escape');
  await selects(page, 'Box');
  await says(ada, 'shell', { typed: { thickness: '5' } });
  await ada.makesBox(['10', '10', '10'], ['25', '25', '5']);
  await ada.types('Escape');
  await ada.fitsAll();
  return ada;
}

/** A section plane beside one of the planes that are always there. */
async function cuts(ada: Person, on: string, offset: string): Promise<void> {
  await startsVerb(ada.page, 'section plane');
  await choosesIn(ada.page, 'on', on);
  await ada.page.getByRole('textbox', { name: 'offset', exact: true }).fill(offset);
  await ada.commits();
  await ada.types('Escape');
}

test('a section plane opens the model while it is told, says where it cuts and what, and is moved by its arrow', async ({
  page,
}) => {
  const ada = await withPot(page, 'A pot, cut open');
  const inside = [30, 30, 15] as const;
  const closed = await seenAt(ada, inside);
  await startsVerb(page, 'section plane');
  await choosesIn(page, 'on', 'Front: upright, along X');
  await page.getByRole('textbox', { name: 'offset', exact: true }).fill('-20');
  // The wall before the knob is gone before anything is carried out.
  await expect.poll(() => seenAt(ada, inside)).not.toEqual(closed);
  await ada.commits();
  await ada.types('Escape');
  await expect(caption(page, 'Home')).toContainText('cut by Section');
  const areas = page.getByTestId('cut-area');
  await expect(areas).toHaveCount(1);
  // The plane y = 20 passes the walls and the closed top and floor: 60 × 40 less 50 × 30.
  await expect(areas.first()).toHaveText(/^900\.00/);
  // By the arrow in its middle; the cut follows, and is reported anew when it is let go.
  await drags(ada, [30, 24, 20], [30, 28, 20], [30, 34, 20]);
  await expect(page.getByLabel('Place Y')).not.toHaveValue('20');
  await ada.types('Escape');
  await page.getByLabel('Place Y').fill('30');
  await page.getByLabel('Place Y').press('Enter');
  await ada.isReady();
  // At y = 30 the knob is cut too.
  await expect(areas).toHaveCount(2);
  await expect(areas.nth(1)).toHaveText(/^100\.00/);
  expect(ada.problems).toEqual([]);
});

test(
  'two planes at right angles cut in one view only; a part is left whole; the cut is kept and trims',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await withPot(page, 'Two planes');
    for (const [on, offset] of [
      ['Front: upright, along X', '-30'],
      ['Side: upright, along Y', '30'],
    ] as const) {
      await cuts(ada, on, offset);
      for (const view of ['Plan', 'Front', 'Right']) {
        await page
          .getByLabel(`${view} view`)
          .selectOption({ label: `not in the ${view.toLowerCase()} view` });
        await ada.isReady();
      }
    }
    await expect(caption(page, 'Home')).toContainText('cut by Section, Section 2');
    await expect(caption(page, 'Plan')).not.toContainText('cut by');
    const areas = page.getByTestId('cut-area');
    await expect(areas).toHaveCount(2);
    await selects(page, 'Box 2');
    await startsVerb(page, 'leave whole');
    await choosesIn(page, 'section', 'Section 2');
    await ada.commits();
    await ada.types('Escape');
    await expect(areas).toHaveCount(1);
    await expect(page.getByText('Leave whole Box 2 in Section 2')).toBeVisible();
    await selects(page, 'Box');
    await startsVerb(page, 'trim solid');
    await choosesIn(page, 'plane', 'Section');
    await ada.commits();
    await ada.types('Escape');
    const { box } = await ada.facts('Box');
    expect([box.min[1], box.max[1]]).toEqual([0, 30]);
    expect(ada.problems).toEqual([]);
  },
);

test(
  'what is cut away is neither selected nor caught, and a cut face selects its part',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await withPot(page, 'Clicks');
    await ada.types('Escape');
    await cuts(ada, 'Plan: level, through the origin', '10');
    await ada.types('Escape');
    await ada.looks('Plan');
    await ada.types('Escape');
    await expect(page.getByText('Select a part to read')).toBeVisible();
    // From above, the top is gone: the knob is cut, and is seen.
    await ada.clicksAt([32, 28, 10]);
    await expect(page.getByRole('treeitem', { name: 'Box 2', exact: true })).toHaveAttribute(
      'aria-selected',
      'true',
    );
    await ada.clicksAt([2, 30, 10]);
    await expect(page.getByRole('treeitem', { name: 'Box', exact: true })).toHaveAttribute(
      'aria-selected',
      'true',
    );
    expect(ada.problems).toEqual([]);
  },
);

test('by keys: the outlines of a cut are kept as profiles, and slices of a part', async ({ page }) => {
  const ada = await withPot(page, 'Kept');
  await ada.types('Escape');
  await cuts(ada, 'Plan: level, through the origin', '10');
  await says(ada, 'keep the cut', {});
  await expect(page.getByRole('treeitem', { name: 'Section through Box', exact: true })).toBeVisible();
  await expect(page.getByRole('treeitem', { name: 'Section through Box 2', exact: true })).toBeVisible();
  await selects(page, 'Box');
  await startsVerb(page, 'slices');
  await choosesIn(page, 'heights', 'with heights');
  await page.getByRole('textbox', { name: 'pitch', exact: true }).fill('4');
  await ada.commits();
  await ada.types('Escape');
  await expect(page.getByRole('treeitem', { name: 'Slices of Box', exact: true })).toBeVisible();
  await expect(page.getByText('group · 10')).toBeVisible();
  // Each layer is cut at its middle; the pot is a ring from its floor up.
  const heights = page.locator('[data-pane="Home"] [data-testid="contour-height"]');
  await expect(heights.filter({ hasText: /^2$/ })).toHaveCount(1);
  await expect(heights.filter({ hasText: /^38$/ })).not.toHaveCount(0);
  await startsVerb(page, 'contour heights');
  await choosesIn(page, 'how', 'without heights');
  await ada.commits();
  await ada.types('Escape');
  await expect(heights).toHaveCount(0);
  expect(ada.problems).toEqual([]);
});

test(
  'the clearance of a lid is read from a cut, between two cut edges',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Lid in a tray');
    await ada.makesBox(['60', '40', '20'], undefined, 'Tray');
    await ada.types('Escape');
    await ada.makesBox(['50', '30', '20'], ['5', '5', '5'], 'Hollow');
    await ada.types('Escape');
    await selects(page, 'Tray', 'Hollow');
    await says(ada, 'subtract', {});
    await ada.makesBox(['49.4', '29.4', '8'], ['5.3', '5.3', '15'], 'Lid');
    await ada.types('Escape');
    await cuts(ada, 'Front: upright, along X', '-20');
    await ada.types('Escape');
    await ada.looks('Front');
    await ada.fitsAll();
    await startsVerb(page, 'Measure');
    await ada.clicksAt([5.3, 20, 17]);
    await ada.clicksAt([5, 20, 10]);
    await expect(page.getByLabel('Measured')).toContainText('least distance 0.3 mm');
    await expect(page.locator('[data-blank="from"] input')).toHaveValue('edge of Lid in Section');
    await expect(page.locator('[data-blank="to"] input')).toHaveValue('edge of Tray in Section');
    expect(ada.problems).toEqual([]);
  },
);

/** Mean red, green and blue of a picture, 0 to 255. */
const meanColour = (page: Page, png: string): Promise<number[]> =>
  page.evaluate(async (data) => {
    const bytes = Uint8Array.from(atob(data), (letter) => letter.charCodeAt(0));
    const picture = await createImageBitmap(new Blob([bytes], { type: 'image/png' }));
    const context = new OffscreenCanvas(picture.width, picture.height).getContext('2d')!;
    context.drawImage(picture, 0, 0);
    const { data: pixels } = context.getImageData(0, 0, picture.width, picture.height);
    const sums = [0, 0, 0];
    pixels.forEach((value, i) => i % 4 < 3 && (sums[i % 4]! += value));
    return sums.map((sum) => (4 * sum) / pixels.length);
  }, png);

test(
  'where parts fill the same place, their cut is filled in the warning tone',
  { tag: '@long' },
  async ({ page }) => {
    const ada = await inNewProject(page, 'Overlap');
    await ada.makesBox(['60', '40', '20']);
    await ada.types('Escape');
    await ada.makesBox(['60', '40', '20'], ['40', '10', '8']);
    await ada.types('Escape');
    await cuts(ada, 'Front: upright, along X', '-20');
    await ada.fitsAll();
    const redness = async (point: readonly [number, number, number]) => {
      const [red, green] = await meanColour(page, await seenAt(ada, point));
      return red! - green!;
    };
    // The middle of what both have of the plane, and a place that only one has.
    await expect.poll(() => redness([45, 20, 11])).toBeGreaterThan(40);
    expect(await redness([10, 20, 10])).toBeLessThan(40);
    expect(ada.problems).toEqual([]);
  },
);

test('a section plane is put through the middle of a hole by a click, and dragged there by its arrow', async ({
  page,
}) => {
  const ada = await inNewProject(page, 'Through a hole');
  await ada.makesBox(['60', '40', '10']);
  await ada.types('Escape');
  await page.keyboard.press('c');
  for (const text of ['9', '30', '22.7', '13.3', '-5']) await ada.types(text, 'Tab');
  await ada.commits();
  await ada.types('Escape');
  await selects(page, 'Box', 'Cylinder');
  await says(ada, 'subtract', {});
  await ada.types('Escape');
  await ada.fitsAll();
  await startsVerb(page, 'section plane');
  await choosesIn(page, 'on', 'Front: upright, along X');
  await page.getByRole('button', { name: 'More blanks' }).click();
  await page.getByRole('menuitem', { name: /^through/ }).click();
  await ada.clicksAt([22.7, 13.3, 10]);
  await ada.commits();
  await ada.types('Escape');
  await expect(page.getByLabel('Place Y')).toHaveValue('13.3');
  await page.getByLabel('Place Y').fill('30');
  await page.getByLabel('Place Y').press('Enter');
  await ada.isReady();
  await drags(ada, [30, 34, 5], [30, 28, 5], [22.7, 13.3, 10]);
  await expect(page.getByLabel('Place Y')).toHaveValue('13.3');
  expect(ada.problems).toEqual([]);
});

test('a section curve by a drawn line: the line is drawn in a view and picked, and the curve follows the model', async ({
  page,
}) => {
  const ada = await withPot(page, 'Curve');
  await startsVerb(page, 'line');
  await ada.clicksAt([-20, 10, 0]);
  await ada.clicksAt([80, 10, 0]);
  await ada.commits();
  await ada.types('Escape');
  await startsVerb(page, 'section curve');
  await page.locator('[data-blank="line"]').click();
  await ada.clicksAt([-10, 10, 0]);
  await expect(page.getByRole('textbox', { name: 'by', exact: true })).toHaveValue(/Line/);
  await ada.commits();
  await ada.types('Escape');
  await expect(page.getByText('group · 2')).toBeVisible();
  // A group of nothing but curves has no middle of what it encloses, and is not told as an open surface.
  await expect(page.getByTestId('fact-kind')).toHaveText('drawn, no solid');
  await expect(page.getByTestId('fact-centroid')).toHaveCount(0);
  // Walls, floor and lid are 5 thick: 60 · 40 − 50 · 30.
  const areaOf = (name: string) =>
    page.evaluate(async (part) => (await window.kadrel!.facts(part)).area, name);
  expect(await areaOf('Curve through Box')).toBeCloseTo(900, 6);
  await selects(page, 'Box');
  await page.getByRole('textbox', { name: 'Height', exact: true }).fill('60');
  await page.keyboard.press('Enter');
  await ada.isReady();
  await expect.poll(() => areaOf('Curve through Box')).toBeCloseTo(1100, 6);
  expect(ada.problems).toEqual([]);
});
