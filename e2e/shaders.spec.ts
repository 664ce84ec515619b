import { expect, test, type Page } from '@playwright/test';
import { inNewProject } from './doing.ts';

/** Pieces of work that the page may still have for idle moments, and some more. */
const IDLE_MOMENTS = 60;

/** Counts the shaders that the page links. */
const countsShaders = (page: Page) =>
  page.addInitScript(() => {
    const counter = window as unknown as { linked: number };
    counter.linked = 0;
    const { prototype } = WebGL2RenderingContext;
    const { value: link } = Object.getOwnPropertyDescriptor(prototype, 'linkProgram')! as {
      value: (this: void, program: WebGLProgram) => void;
    };
    prototype.linkProgram = function (program) {
      counter.linked++;
      Reflect.apply(link, this, [program]);
    };
  });

const linked = (page: Page) => page.evaluate(() => (window as unknown as { linked: number }).linked);

/** How many were linked when the page had nothing left to do. */
async function linkedAtRest(page: Page): Promise<number> {
  let before = -1;
  for (;;) {
    await page.evaluate(async (moments) => {
      for (let i = 0; i < moments; i++) await new Promise((resolve) => requestIdleCallback(resolve));
    }, IDLE_MOMENTS);
    const now = await linked(page);
    if (now === before) return now;
    before = now;
  }
}

test('no shader is translated while one works: what is drawn, made, moved and taken back has them before', async ({
  page,
}) => {
  await countsShaders(page);
  const ada = await inNewProject(page, 'Shaders');
  const atRest = await linkedAtRest(page);
  await page.keyboard.press('b');
  await page.mouse.move(560, 400);
  await page.mouse.down();
  await page.mouse.move(700, 470, { steps: 6 });
  await page.mouse.up();
  await ada.types('20', 'Enter');
  await expect(page.getByText('done; change a blank to adjust')).toBeVisible({ timeout: 60_000 });
  await page.keyboard.press('Escape');
  await page.keyboard.press('m');
  await ada.types('12', 'Enter');
  await expect(page.getByText('done; change a blank to adjust')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('treeitem')).toHaveCount(0);
  // The last solid is gone, and its shaders are not.
  await page.keyboard.press('Control+y');
  await expect(page.getByRole('treeitem')).toHaveCount(1);
  await ada.isReady();
  expect(await linked(page)).toBe(atRest);
  expect(ada.problems).toEqual([]);
});
