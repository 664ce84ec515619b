/** Things done in many tests: a project of one's own, choosing parts in the tree, verbs by their words. */
import { expect, type Page } from '@playwright/test';
import type { LengthUnit, Vec3 } from '@kadrel/core';
import { Person } from './person.ts';

/** Straight into the workshop: the start screens have tests of their own, and would take a third of the time here. */
export async function inNewProject(
  page: Page,
  name: string,
  scene: { readonly units?: LengthUnit } = {},
): Promise<Person> {
  const ada = new Person(page);
  // Another test has left the application open, with a guest of its own.
  const isOpen = await page.evaluate(() => document.querySelector('#root') !== null);
  if (!isOpen) expect((await page.request.post('/api/demo')).status()).toBe(201);
  const created = await page.request.post('/api/projects', { data: { name, scene } });
  expect(created.status()).toBe(201);
  const path = `/projects/${((await created.json()) as { id: string }).id}`;
  await (isOpen ? goesOnTo(page, path) : page.goto(path));
  await ada.isReady();
  return ada;
}

/** To a path of the application by its own navigation. */
async function goesOnTo(page: Page, path: string): Promise<void> {
  await page.mouse.move(0, 0);
  await navigates(page, '/about');
  // The workshop that was open is gone, and what it kept of sizes and choices.
  await page.waitForFunction(() => window.kadrel === undefined);
  await page.evaluate(() => localStorage.clear());
  await navigates(page, path);
}

const navigates = (page: Page, path: string) =>
  page.evaluate((to) => {
    history.pushState(null, '', to);
    dispatchEvent(new PopStateEvent('popstate'));
  }, path);

/** Chooses parts in the tree, in this order. */
export async function selects(page: Page, ...names: string[]): Promise<void> {
  for (const [i, name] of names.entries())
    await page
      .getByRole('treeitem', { name, exact: true })
      .click({ modifiers: i === 0 ? [] : ['Control'], position: { x: 60, y: 12 } });
}

export const startsVerb = async (page: Page, words: string) => {
  await page.keyboard.press('/');
  await page.keyboard.type(words);
  await page.keyboard.press('Enter');
};

export async function choosesIn(page: Page, blank: string, option: string): Promise<void> {
  await page.locator(`[data-blank="${blank}"]`).click();
  const menus = page.getByRole('region', { name: 'Menus' });
  await menus
    .getByRole('option', { name: option, exact: true })
    .or(menus.getByRole('menuitem', { name: option, exact: true }))
    .click();
}

interface Said {
  /** By the ids of blanks. */
  readonly chosen?: Readonly<Record<string, string>>;
  /** By the labels of fields. */
  readonly typed?: Readonly<Record<string, string>>;
}

/** Carries a verb out on what is selected, and closes it. */
export async function says(ada: Person, verb: string, { chosen = {}, typed = {} }: Said): Promise<void> {
  const { page } = ada;
  await startsVerb(page, verb);
  for (const [blank, option] of Object.entries(chosen)) {
    await choosesIn(page, blank, option);
    await page.keyboard.press('Escape');
  }
  for (const [label, text] of Object.entries(typed))
    await page.getByRole('textbox', { name: label, exact: true }).fill(text);
  await ada.commits();
  await ada.types('Escape');
}

/** Presses, drags through the points, and lets go. */
export async function drags(ada: Person, ...points: readonly Vec3[]): Promise<void> {
  const [first, ...others] = await Promise.all(points.map((point) => ada.screenOf(point)));
  await ada.page.mouse.move(first!.x, first!.y);
  await ada.page.mouse.down();
  for (const { x, y } of others) await ada.page.mouse.move(x, y, { steps: 4 });
  await ada.page.mouse.up();
}

/** Away from the middle of the view, where room is left beside the view dial. */
export async function zoomsOut(ada: Person): Promise<void> {
  await ada.page.mouse.move(700, 330);
  // The browser tells the page of turns in points of the screen.
  await ada.page.mouse.wheel(0, 700 * (await ada.page.evaluate(() => devicePixelRatio)));
  await ada.isReady();
}
