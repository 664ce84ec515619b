/** Jobs of several steps, as people do them: a model opened by two cuts, sliced to be cut from card, drawn to scale, and made to fit. */
import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { choosesIn, inNewProject, says, selects, startsVerb } from './doing.ts';
import { Person } from './person.ts';

const LONG = { tag: '@long' };
const paper = (page: Page) => page.getByTestId('paper');
const isDrawn = (page: Page) => expect(page.locator('[data-drawn="true"]')).toBeVisible();
const caption = (page: Page, view: string) => page.locator(`[data-pane="${view}"] [data-caption]`);
const report = (page: Page) => page.getByRole('complementary', { name: 'Fit report' });
const finding = (page: Page, words: string | RegExp) =>
  report(page).getByRole('list', { name: 'Findings' }).getByRole('button').filter({ hasText: words });

async function inDemo(page: Page, project: string): Promise<Person> {
  const ada = new Person(page);
  await ada.entersTheDemo();
  await ada.opens(project);
  return ada;
}

/** A section plane in one view alone. */
async function cutsIn(ada: Person, on: string, offset: string): Promise<void> {
  await startsVerb(ada.page, 'section plane');
  await choosesIn(ada.page, 'on', on);
  await ada.page.getByRole('textbox', { name: 'offset', exact: true }).fill(offset);
  await ada.commits();
  await ada.types('Escape');
  // In the home view alone: the Spec says where it cuts.
  for (const view of ['Plan', 'Front', 'Right'])
    await ada.page
      .getByLabel(`${view} view`, { exact: true })
      .selectOption(`not in the ${view.toLowerCase()} view`);
}

test(
  'the hive is cut at right angles in one view, coloured, and what is inside is moved',
  LONG,
  async ({ page }) => {
    const ada = await inDemo(page, 'Orchard hive');
    await page.keyboard.press('v');
    await cutsIn(ada, 'Front: upright, along X', '-200');
    await cutsIn(ada, 'Side: upright, along Y', '200');
    await expect(caption(page, 'Home')).toContainText('cut by');
    for (const view of ['Plan', 'Front', 'Right'])
      await expect(caption(page, view)).not.toContainText('Section');
    // What is inside gets another colour and another place, and both planes still cut.
    const frame = 'Upper frames';
    await selects(page, frame);
    await page.locator('input[type="color"][aria-label="Colour"]').fill('#3366aa');
    await ada.isReady();
    const before = (await ada.facts(frame)).box.min[0];
    await ada.types('m', '5', 'Tab', '0', 'Tab', '0', 'Tab');
    await ada.commits();
    await ada.types('Escape');
    expect((await ada.facts(frame)).box.min[0]).toBeCloseTo(before + 5, 9);
    expect(Object.values((await ada.document()).items).find(({ name }) => name === frame)!.colour).toBe(
      '#3366aa',
    );
    await expect(caption(page, 'Home')).toContainText('cut by');
    expect(ada.problems).toEqual([]);
  },
);

/** What the paths that are cut enclose, mm², holes left out, as the browser reads them: sampled, and summed by Gauss’s area formula. */
const areaOfPaths = (page: Page, svg: string): Promise<number> =>
  page.evaluate((text) => {
    const picture = new DOMParser().parseFromString(text, 'image/svg+xml');
    const loops = [...picture.querySelectorAll<SVGPathElement>('path[data-stroke="cut"]')].map((path) => {
      // Sampled by the browser: its own reading of what was written.
      const own = document.createElementNS('http://www.w3.org/2000/svg', 'path');
      own.setAttribute('d', path.getAttribute('d')!);
      const [length, count] = [own.getTotalLength(), 4000];
      return Array.from({ length: count }, (_, i) => own.getPointAtLength((length * i) / count));
    });
    const areaOf = (loop: readonly DOMPoint[]) =>
      Math.abs(
        loop.reduce((sum, { x, y }, i) => {
          const next = loop[(i + 1) % loop.length]!;
          return sum + (x * next.y - next.x * y) / 2;
        }, 0),
      );
    const holds = (loop: readonly DOMPoint[], { x, y }: DOMPoint) =>
      loop.filter((a, i) => {
        const b = loop[(i + 1) % loop.length]!;
        return a.y > y !== b.y > y && x < a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x);
      }).length %
        2 ===
      1;
    return loops.reduce((sum, loop) => {
      const around = loops.filter((other) => other !== loop && holds(other, loop[0]!)).length;
      return sum + (around % 2 === 0 ? areaOf(loop) : -areaOf(loop));
    }, 0);
  }, svg);

async function writesSvg(page: Page): Promise<string> {
  const downloading = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Write to a file' }).click();
  await page.getByRole('radio', { name: /^SVG/ }).check();
  await page.keyboard.press('Enter');
  const file = await downloading;
  return readFileSync(await file.path(), 'utf8');
}

test(
  'the shelter is sliced for card of 2 mm at 1:50, laid out on A3 and written; the outlines have the areas of its slices',
  LONG,
  async ({ page }) => {
    const ada = await inDemo(page, 'Tram shelter');
    const parts = ['Slab', 'Front posts', 'Back posts', 'Bench seat', 'Bench leg left', 'Walls'];
    await selects(page, ...parts);
    await says(ada, 'slices', { typed: { pitch: '0.1' } });
    const { area } = await ada.facts('Slices of Slab');
    await selects(page, 'Slices of Slab');
    await page.keyboard.press('Delete');
    await ada.isReady();
    await selects(page, ...parts);
    await says(ada, 'stacked model', {});
    await isDrawn(page);
    const sheets = page.getByRole('button', { name: /^Layers of Slab/ });
    const count = await sheets.count();
    expect(count).toBeGreaterThan(1);
    let onCard = 0;
    for (let i = 0; i < count; i++) {
      // The first one is open already.
      if ((await sheets.nth(i).getAttribute('aria-pressed')) !== 'true') await sheets.nth(i).click();
      await isDrawn(page);
      onCard += await areaOfPaths(page, await writesSvg(page));
    }
    expect(Math.abs((onCard * 50 ** 2) / area - 1)).toBeLessThan(1e-3);
    expect(ada.problems).toEqual([]);
  },
);

test(
  'a hill is sliced for card at 1:50, laid out and written; the outlines have the areas of the model',
  LONG,
  async ({ page }) => {
    const ada = await inNewProject(page, 'Hill');
    await startsVerb(page, 'cone');
    for (const text of ['4000', '1000', '0', '0', '0']) await ada.types(text, 'Tab');
    await ada.commits();
    await ada.types('Escape');
    await says(ada, 'stacked model', {});
    await isDrawn(page);
    // Ten layers of 2 mm at 1:50; each as a circle of the radius half way up it.
    const svg = await writesSvg(page);
    const expected = Array.from({ length: 10 }, (_, i) => Math.PI * (40 * (1 - (i + 0.5) / 10)) ** 2);
    const area = await areaOfPaths(page, svg);
    expect(Math.abs(area / expected.reduce((sum, n) => sum + n) - 1)).toBeLessThan(1e-3);
    expect(ada.problems).toEqual([]);
  },
);

test(
  'the shelter’s sheet of six dimensions follows when the shelter is made longer',
  LONG,
  async ({ page }) => {
    const ada = await inDemo(page, 'Tram shelter');
    await page.getByRole('button', { name: 'Plan and elevations', exact: true }).click();
    await isDrawn(page);
    const lengths = () => paper(page).locator('text').allTextContents();
    expect(await lengths()).toContain('6');
    await page.getByRole('button', { name: 'Back to the views' }).click();
    await page.getByLabel('Variable length').fill('7.5 m');
    await page.getByLabel('Variable length').press('Enter');
    await ada.isReady();
    await page.getByRole('button', { name: 'Plan and elevations', exact: true }).click();
    await isDrawn(page);
    await expect.poll(lengths).toContain('7.5');
    expect(await lengths()).not.toContain('6');
    await expect(page.getByLabel('What is wrong on this sheet')).toHaveCount(0);
    expect(ada.problems).toEqual([]);
  },
);

test(
  'a lid gets the clearance that is wanted between two named faces, by the remedy',
  LONG,
  async ({ page }) => {
    const ada = await inNewProject(page, 'Lid and box');
    await ada.makesBox(['60', '40', '20'], ['0', '0', '0'], 'tray');
    await ada.types('Escape');
    await ada.makesBox(['54', '34', '20'], ['3', '3', '3'], 'hollow');
    await ada.types('Escape');
    await selects(page, 'tray', 'hollow');
    await says(ada, 'subtract', {});
    await ada.makesBox(['53.9', '33.4', '5'], ['3.05', '3.3', '15'], 'lid');
    await ada.types('Escape');
    await startsVerb(page, 'Wanted fit');
    await page.getByRole('textbox', { name: 'of', exact: true }).fill('tray: hollow.left');
    await page.getByRole('textbox', { name: 'and', exact: true }).fill('lid: left');
    await page.getByLabel('at least', { exact: true }).fill('0.2 mm');
    await page.getByLabel('at most', { exact: true }).fill('0.4 mm');
    await ada.commits();
    await ada.types('Escape');
    await page.getByRole('button', { name: /^Fit/ }).click();
    await finding(page, /Wanted fit.*0\.05 mm; wanted is between/).click();
    await report(page)
      .getByRole('button', { name: /Move the second|Offset/ })
      .first()
      .click();
    await ada.commits();
    await expect(finding(page, /Wanted fit.*0\.3 mm/)).toBeVisible();
    expect(ada.problems).toEqual([]);
  },
);

test(
  'a bore and a shaft of 25 H7/g6: sizes outside the limits are found and mended',
  LONG,
  async ({ page }) => {
    const ada = await inNewProject(page, 'Bearing');
    await ada.makesBox(['60', '60', '20'], ['-30', '-30', '0'], 'block');
    await ada.types('Escape');
    for (const [diameter, height, z] of [
      ['25.01', '20', '0'],
      ['25', '60', '-20'],
    ] as const) {
      await ada.types('c');
      for (const text of [diameter, height, '0', '0', z]) await ada.types(text, 'Tab');
      await ada.commits();
      await ada.types('Escape');
      if (z !== '0') continue;
      await selects(page, 'block', 'Cylinder');
      await says(ada, 'subtract', {});
    }
    await startsVerb(page, 'Wanted fit');
    await page.getByRole('textbox', { name: 'of', exact: true }).fill('block: Cylinder.side');
    await page.getByRole('textbox', { name: 'and', exact: true }).fill('Cylinder 2: side');
    await choosesIn(page, 'kind', 'an ISO 286 fit');
    await page.getByLabel('grades', { exact: true }).fill('H7/g6');
    await ada.commits();
    await ada.types('Escape');
    await page.getByRole('button', { name: /^Fit/ }).click();
    // Source of the limits of 25 H7/g6: ISO 286-2, from memory: +0.021, 0; −0.007, −0.020.
    await finding(page, /Wanted fit/).click();
    await expect(report(page)).toContainText('0.007');
    await expect(report(page)).toContainText('0.041');
    await expect(finding(page, /Wanted fit/)).toContainText('24.980 mm to 24.993 mm would fit');
    await page.getByRole('button', { name: 'Close the fit report' }).click();
    await selects(page, 'Cylinder 2');
    await page.getByLabel('Diameter', { exact: true }).fill('24.985');
    await ada.types('Enter');
    await ada.isReady();
    await page.getByRole('button', { name: /^Fit/ }).click();
    await expect(finding(page, /Wanted fit/)).toContainText('H7/g6');
    await expect(finding(page, /Wanted fit \(fault\)/)).toHaveCount(0);
    expect(ada.problems).toEqual([]);
  },
);
