/** Things done in many tests: a project of one's own, choosing parts in the tree, verbs by their words. */
import type { Page } from '@playwright/test';
import { Person } from './person.ts';

export async function inNewProject(page: Page, name: string): Promise<Person> {
  const ada = new Person(page);
  await ada.entersTheDemo();
  await ada.createsProject(name);
  return ada;
}

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
