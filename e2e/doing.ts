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
